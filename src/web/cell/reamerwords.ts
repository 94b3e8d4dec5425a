import { LEAST_FOUND } from '@core/cleaning/interval.ts'
import { type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { amount, volume, type Units } from '@web/format/numbers.ts'
import { when } from '@web/format/times.ts'
import { capital, countWord, lower } from '@web/format/words.ts'

type Told = Pick<CellsAnswer, 'nowMs' | 'zone'>
type Reams = NonNullable<CellLine['reamer']['reams']>

const cycles = (n: number) => (n === 1 ? 'every cycle' : `every ${n} cycles`)
const shut = (share: number) => `${Math.round(share * 100)} %`
/** Nearer than this share to what is set, it is left as it is. */
const NEAR = 0.15

/** How often the reamer comes, what is found, and how often it need come. */
export function reamSentence({ reamer }: Pick<CellLine, 'reamer'>): string {
  const { every, reams } = reamer
  if (every === null || !reams) return 'Nobody said after how many cycles it is reamed.'
  const now = `It is reamed ${cycles(every)}.`
  const leaves =
    reams.leftShare === null
      ? ''
      : ` A ream leaves ${reams.leftShare < 0.08 ? 'next to nothing' : shut(reams.leftShare)}.`
  if (reams.doesLeaveIt)
    return `${now} A ream leaves ${shut(reams.leftShare ?? 0)} of the nozzle shut: see that blade and clamp go with it, that the blade cuts, that it goes in straight and far enough. More reams do not help that.`
  if (reams.every === null) {
    const more = LEAST_FOUND - reams.n
    return `${now}${leaves} How often it need come is told after ${lower(countWord(more))} more ${more === 1 ? 'look' : 'looks'} at the nozzle as its turn comes.`
  }
  const found = ` As its turn comes the nozzle is up to ${shut(reams.shutWhenDue)} shut (${reams.n} looks).`
  return `${now}${leaves}${found} ${wouldDo(every, reams.every, reams.isHeld)}`
}
function wouldDo(now: number, would: number, isHeld: Reams['isHeld']): string {
  if (Math.abs(would - now) <= NEAR * now) return 'That is about right.'
  const step = isHeld === null ? '' : ' That is one step; look again then.'
  return would > now
    ? `${capital(cycles(would))} would do, and saves agent, blade and time: change it in the program, then here.${step}`
    : `It wants to come ${cycles(would)}: change it in the program, then here.${step}`
}

/** What the blades of reamer and cutter have done. */
export function bladesSentence({ reamer, cell }: Pick<CellLine, 'reamer' | 'cell'>, units: Units): string {
  const done = (name: string, blade: CellLine['reamer']['blade']) => {
    if (!blade) return []
    const cycles =
      blade.cycles === null ? '' : `, about ${Number(blade.cycles.toPrecision(2)).toLocaleString('en')} cycles`
    return [`${name} has done ${amount(blade.arcHours, 'arcHours', units)} of arc${cycles}.`]
  }
  const shears =
    cell.cutter === 'shears only'
      ? ['The cutter shears without clamping: it can bend the wire’s end, and a bent end starts badly.']
      : []
  return [...done('The reamer’s blade', reamer.blade), ...done('The cutter’s blade', reamer.cutter), ...shears].join(
    ' ',
  )
}

/** Less than this no pump reaches: a guess. */
const AS_GOOD_AS_EMPTY_L = 0.05
/** What is in the tank, and when it is empty. */
export function tankSentence({ reamer }: Pick<CellLine, 'reamer'>, { nowMs, zone }: Told, units: Units): string {
  const { tank } = reamer
  if (!tank) return ''
  const read = `${volume(tank.readL, units)} of anti-spatter were in the tank ${when(tank.atMs, nowMs, zone)}`
  if (!tank.now)
    return `${read}. When it runs out is told once a shot’s millilitres, shots a ream, cycles from ream to ream and a cycle’s seconds of arc are known.`
  const { litres, low, high, emptyMs, earlyMs, n, times } = tank.now
  if (high <= 0) return `${read}: by now it is empty.`
  if (litres < AS_GOOD_AS_EMPTY_L) return `${read}: by now it is as good as empty.`
  const span = volume(low, units) === volume(high, units) ? '' : ` (${volume(low, units)} to ${volume(high, units)})`
  const day = (ms: number) => when(ms, nowMs, zone).replace(/ ?\d\d:\d\d$/, '') || 'today'
  const early =
    earlyMs !== null && emptyMs !== null && day(earlyMs) !== day(emptyMs) ? `, at the earliest ${day(earlyMs)}` : ''
  const empty = emptyMs === null ? '' : `, empty ${day(emptyMs)}${early}`
  const odd =
    n >= 2 && (times > 1.5 || times < 0.67)
      ? ` It takes ${times > 1 ? 'more' : 'less'} than the shots that were told (${times.toFixed(1)} times): ${times > 1 ? 'a leak, or the shot is set otherwise' : 'a nozzle of the sprayer may be shut'}.`
      : ''
  return `About ${volume(litres, units)} of anti-spatter left${span}${empty}.${odd}`
}

/** Starts that come to nothing, and where the look goes first. */
export function failsSentence({ reamer, cell }: Pick<CellLine, 'reamer' | 'cell'>, { nowMs, zone }: Told): string {
  const { fails } = reamer
  if (!fails) return ''
  const in100 = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} in 100 starts`
  const was = fails.wellShare === null ? '' : `, ${(fails.wellShare * 100).toFixed(1)} before`
  const first =
    cell.cutter === null || cell.cutter === 'none'
      ? 'look at the wire’s end as the last weld left it, then at tip and work clamp'
      : 'look at the wire’s end as the cutter leaves it, bent or burred, then at tip and work clamp'
  return `${in100(fails.share)} come to nothing since ${when(fails.sinceMs, nowMs, zone)}${was}: ${first}.`
}

/** The tank may be empty before tomorrow is over. */
const SOON_MS = 36 * 3_600_000
export const isTankLow = ({ reamer }: Pick<CellLine, 'reamer'>, nowMs: number): boolean => {
  const now = reamer.tank?.now
  return Boolean(now && (now.litres < AS_GOOD_AS_EMPTY_L || (now.earlyMs !== null && now.earlyMs - nowMs < SOON_MS)))
}
