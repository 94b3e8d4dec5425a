import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { neckPaysBackWeeks, type NecksAt } from '@core/cell/neckneed.ts'
import { type BenchThing, type CellLine, type CellsAnswer, type NeckRoundLine } from '@contract/cell.ts'
import { cable, force, twoFigures, type Units } from '@web/format/numbers.ts'
import { isTankLow } from './reamerwords.ts'
import { fineLength } from '@web/format/lengths.ts'
import { ago, when } from '@web/format/times.ts'
import { capital, countWord, inN, listed, lower } from '@web/format/words.ts'

const CRASH = new Set(['toolCentre', 'neckStraight', 'cableLook', 'reamer'])
const hasCrash = (c: CellLine) => c.todo.some((t) => CRASH.has(t.task) && t.why === 'the torch hit something')

/** What needs hands at the cells now, first things first. */
export function cellsSentence({ cells, rounds, nowMs }: Pick<CellsAnswer, 'cells' | 'rounds' | 'nowMs'>): string {
  if (cells.length === 0) return 'No robot cells yet.'
  const crashed = cells.filter(hasCrash)
  if (crashed.length > 0)
    return `${listed(crashed.map((c) => c.name))}: the torch hit something. Before it welds, see below.`
  const centre = cells.filter((c) => c.todo.some((t) => t.task === 'toolCentre'))
  if (centre.length > 0)
    return `${listed(centre.map((c) => c.name))}: the tool centre is to be checked before production.`
  const creeps = cells.filter((c) => c.creeping !== null)
  if (creeps.length > 0)
    return `${listed(creeps.map((c) => c.name))}: the feed motor works harder at the same wire speed. Look at the liner before it stops.`
  const fails = cells.filter((c) => c.reamer.fails !== null)
  if (fails.length > 0)
    return `${listed(fails.map((c) => c.name))}: more starts come to nothing than did. Look at the wire’s end before it stops.`
  const down = cells.filter((c) => c.isDown)
  if (down.length > 0) return `${listed(down.map((c) => c.name))} ${down.length === 1 ? 'is' : 'are'} down.`
  const short = rounds.filter((r) => r.ready === 0)
  if (short.length > 0)
    return `No neck is ready${rounds.length > 1 ? ` for ${listed(short.map((r) => r.familyName ?? '?'))}` : ''}.`
  const dry = cells.filter((c) => isTankLow(c, nowMs))
  if (dry.length > 0)
    return `${listed(dry.map((c) => c.name))}: anti-spatter is empty or may be by tomorrow night. Fill the tank.`
  const said = cells.flatMap((c) => c.ready).filter((n) => !n.verdict.amiss.some((a) => a.is === 'toMend'))
  if (said.length > 0 && said.every((n) => n.verdict.is !== 'right'))
    return 'No neck that is said to be ready is right for a cell: see what is wrong.'
  if (rounds.length > 0) {
    const ready = rounds.reduce((s, r) => s + r.ready, 0)
    return `${capital(countWord(ready))} ${ready === 1 ? 'neck is' : 'necks are'} ready, nothing is open at the cells.`
  }
  return 'Nothing is open at the cells.'
}

/** What is first at one cell. */
export function cellSentence(c: CellLine, nowMs: number): string {
  const [first] = todoOf(c)
  if (hasCrash(c)) return `${c.name}: the torch hit something. Before it welds:`
  if (first) return `${c.name}: ${lower(todoWords(first.task))}.`
  if (c.reamer.fails) return `${c.name}: more starts come to nothing than did.`
  if (c.creeping) return `${c.name}: the feed motor works harder than it did.`
  if (c.isDown) return `${c.name} is down.`
  return isTankLow(c, nowMs) ? `${c.name}: fill the tank of its sprayer.` : `${c.name}: nothing is open.`
}

/** A length of the way, as it stands on the cell's own picture. */
export interface Length {
  key: string
  name: string
  /** Told apart by its number where it is pulled through by itself; null: it is not. */
  piece: number | null
  metres: number | null
  bends: number
  says: string
}
/** The cable counts as a length of its own, whatever lies before it. */
export const CABLE_PIECE = 100

const PAYOFF_WORD = { spool: 'spool', drum: 'drum' } as const
/** The way of the wire from drum to tip, as it was told; what nobody said is left out. */
export function lengthsOf(c: Pick<CellLine, 'cell' | 'cableM' | 'neckName' | 'gunName'>, units: Units): Length[] {
  const { cell } = c
  const node = (key: string, name: string, says = ''): Length => ({
    key,
    name,
    piece: null,
    metres: null,
    bends: 0,
    says,
  })
  const boosted = cell.booster && cell.booster !== 'none' ? [node('booster', 'booster', cell.booster)] : []
  const pieces = (cell.conduit ?? []).map((p, i): Length => ({
    key: `piece${i}`,
    name: p.name,
    piece: i,
    metres: p.lengthM,
    bends: p.bends,
    says: `${cable(p.lengthM, units)}, ${p.bends === 0 ? 'no bend' : `${lower(countWord(p.bends))} quarter ${p.bends === 1 ? 'turn' : 'turns'}`}, ${p.lining}`,
  }))
  return [
    node('payoff', cell.payoff ? PAYOFF_WORD[cell.payoff] : 'spool or drum'),
    ...boosted,
    ...pieces,
    node('feeder', 'feeder'),
    {
      ...{ key: 'cable', name: 'cable', piece: CABLE_PIECE, metres: c.cableM, bends: 0 },
      says: c.cableM === null ? '' : cable(c.cableM, units),
    },
    node('neck', c.neckName ?? 'neck'),
  ]
}

/** From so much over its first pull a length is worth a look. */
const PULL_RISE = 1.5
export const isHeavier = (forceN: number, firstN: number) => forceN > PULL_RISE * firstN
export type PullState = 'unknown' | 'good' | 'look'
export function pullState(piece: number | null, pulls: CellLine['pulls']): PullState {
  const pull = pulls.find((p) => p.piece === piece)
  if (!pull) return 'unknown'
  return isHeavier(pull.forceN, pull.firstN) ? 'look' : 'good'
}
export function pullWords(piece: number | null, pulls: CellLine['pulls'], units: Units): string {
  const pull = pulls.find((p) => p.piece === piece)
  if (!pull) return ''
  const now = `pull ${force(pull.forceN, units)}`
  return pull.firstN === pull.forceN ? now : `${now}, was ${force(pull.firstN, units)}`
}
/** Where the way got heavier, in a sentence; nothing where nothing did. */
export function heavierSentence(c: CellLine, units: Units): string {
  const heavy = lengthsOf(c, units).filter((l) => pullState(l.piece, c.pulls) === 'look')
  if (heavy.length === 0) return ''
  const first = heavy[0]
  return `It pulls harder than it did through ${listed(heavy.map((l) => l.name))}${first?.piece === CABLE_PIECE ? ': that is the liner' : ': look at that length and its joints'}.`
}

/** How far the motor's current has crept, and since when. */
export function creepingSentence({ creeping }: CellLine, at: { nowMs: number; zone: string }): string {
  if (!creeping) return ''
  const up = Math.round((creeping.amps / creeping.baseA - 1) * 100)
  return `Feed motor current up ${up} % at the same wire speed since ${when(creeping.sinceMs, at.nowMs, at.zone)}: liner first, then tip and the way before the feeder.`
}

/** What is open at one cell, in the order it is done. */
const ORDER = ['toolCentre', 'neckStraight', 'cableLook', 'reamer']
export const todoOf = (c: CellLine) => [...c.todo].sort((a, b) => rank(a.task) - rank(b.task))
const rank = (task: string) => (ORDER.includes(task) ? ORDER.indexOf(task) : ORDER.length)
export const todoWords = (task: CellLine['todo'][number]['task']) => FOLLOW_UP_TEXT[task].do

export function centreWords({ centre, limitMm, isLimitGuess, todo }: CellLine, units: Units): string {
  const limit = `limit ${fineLength(limitMm, units)}${isLimitGuess ? ' (the trade’s guess)' : ''}`
  if (!centre) return `Tool centre: never read here; ${limit}.`
  // What was read before the torch was hit says nothing of where it stands now.
  const isBefore = todo.some((t) => t.task === 'toolCentre' && t.sinceMs > centre.atMs)
  return `Tool centre: ${fineLength(centre.offMm, units)} off as it was left${isBefore ? ' before that' : ''}; ${limit}.`
}

export const STATUS_WORD: Record<BenchThing['status'], string> = {
  ready: 'ready',
  toRefurbish: 'to mend',
  'not said': 'nobody said',
}
/** Of the wire's own size: read off nobody's gun by its looks. */
const OF_WIRE = new Set(['liner', 'tip', 'jump'])
/** What wants doing to a neck or gun on the bench. */
export function benchWords({ parts, minutes, status, rightFor, type }: BenchThing): string {
  const due = parts.filter((p) => p.state === 'due').map((p) => p.name)
  const unknown = parts.filter((p) => p.fittedMs === null && OF_WIRE.has(p.kindKey)).map((p) => p.name)
  const says = [
    ...(due.length > 0
      ? [`${listed(due)} at ${due.length === 1 ? 'its' : 'their'} limit, about ${twoFigures(minutes)} min`]
      : []),
    ...(unknown.length > 0 ? [`nobody knows its ${listed(unknown)}`] : []),
    ...(status === 'toRefurbish' && due.length + unknown.length === 0
      ? ['look it over, then say that it is ready']
      : []),
    ...(type === 'neck' && rightFor.length > 0 ? [`right for ${listed(rightFor)}`] : []),
  ]
  return capital(`${says.join('; ') || 'nothing wants doing'}.`)
}

/** How long it has been where it is. @example heldFor(nowMs - 5 * 3_600_000, nowMs) // 'for 5 h' */
export const heldFor = (sinceMs: number | null, nowMs: number): string =>
  sinceMs === null ? '' : nowMs - sinceMs < 60_000 ? 'just now' : `for ${ago(sinceMs, nowMs)}`

/** A share of weeks as a hand would say it. @example weeksWord(0.11) // '1 week in 9' */
export const weeksWord = (p: number): string =>
  p < 0.005
    ? 'hardly ever'
    : p > 0.97
      ? 'nearly every week'
      : Math.abs(p - 0.5) <= 0.05
        ? 'every other week'
        : inN(p).replace(
            /(\d+) in (\d+)/,
            (_, n: string, of: string) => `${n} ${n === '1' ? 'week' : 'weeks'} in ${of}`,
          )
/** How often a robot waits for a neck. */
export const weekWords = (p: number): string =>
  p < 0.005 ? 'a robot hardly ever waits for a neck' : `a robot waits for a neck ${weeksWord(p)}`

/** Whether one more neck would pay, in the words a buyer would sign. */
export function oneMoreSentence(
  rows: readonly NecksAt[],
  round: NeckRoundLine,
  currency: (minor: number) => string,
): string {
  const now = rows.find((r) => r.spares === round.spares)
  const more = rows.find((r) => r.spares === round.spares + 1)
  if (!now || !more) return ''
  const has = `With ${lower(countWord(round.spares))} spare ${round.spares === 1 ? 'neck' : 'necks'} for ${lower(countWord(round.robots))} ${round.robots === 1 ? 'robot' : 'robots'} ${weekWords(now.pWeekShort)}`
  const then = `with one more ${weeksWord(more.pWeekShort)}`
  const weeks =
    round.stopMinorPerHour !== null && round.priceMinor !== null
      ? neckPaysBackWeeks({ now, more, stopMinorPerHour: round.stopMinorPerHour, priceMinor: round.priceMinor })
      : null
  return `${has}, ${then}.${payWords(weeks, now, more)}${round.priceMinor === null || weeks === null ? '' : ` A neck is ${currency(round.priceMinor)}.`}`
}
function payWords(weeks: number | null, now: NecksAt, more: NecksAt): string {
  const savedMin = (now.standingPerWeek - more.standingPerWeek) * 60
  if (savedMin < 1) return ' One more would save next to nothing.'
  const saved = ` It saves about ${standingWords(savedMin / 60)} of standing a week`
  if (weeks === null) return `${saved}.`
  return weeks > 260
    ? `${saved}, and would not pay for itself within five years.`
    : `${saved}, and has paid for itself in ${weeks < 1 ? 'a week' : `${twoFigures(weeks)} weeks`}.`
}
/** Hours that stand, as short as they can be said. */
export const standingWords = (hours: number): string =>
  hours * 60 < 1 ? 'under a minute' : hours < 2 ? `${twoFigures(hours * 60)} min` : `${twoFigures(hours)} h`
/** What it is reckoned from, and whose numbers these are. */
export function roundFrom({ lifeH, mendH }: NeckRoundLine): string {
  const said = (r: NeckRoundLine['lifeH']) => (r.by === 'trade' ? 'trade' : `yours, ${r.n}`)
  return `A neck hangs ${twoFigures(lifeH.mean / 24)} days by the wall (${said(lifeH)}), and is away ${twoFigures(mendH.mean)} h from coming off to ready (${said(mendH)}).`
}
