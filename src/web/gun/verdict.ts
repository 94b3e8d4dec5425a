import { type GunAnswer, type GunPosition } from '@contract/gun.ts'
import { wantWhy, reach } from '@web/floor/sentence.ts'
import { amount, minutes, twoFigures, type Units } from '@web/format/numbers.ts'
import { ago, when } from '@web/format/times.ts'
import { windowWords } from '@web/format/window.ts'
import { actPhrase, capital, inN, partName, STATE_WORD, WHY_NOT_SEEN } from '@web/format/words.ts'
import { opensRow } from '@core/reading/alarms.ts'
import { findingSentence, findingWhy, remedyWords } from '@web/rightparts/words.ts'
import { signWords, WEAK_WORD } from '@web/liner/signwords.ts'
import { alarmSentence } from '@web/reading/readingwords.ts'
import { shareWord } from '@web/parts/supplywords.ts'

export interface Verdict {
  line: string
  because: string
}

/** The one line about a gun, and what it rests on. */
export function gunVerdict(gun: GunAnswer, units: Units): Verdict {
  const { nowMs, zone } = gun
  if (gun.downSinceMs !== null) {
    const at = gun.downPosition ? ` at the ${partName(gun.downPosition)}` : ''
    return {
      line: `Down${at}, ${minutes(gun.downMinutes ?? 0)}.`,
      because: `Since ${when(gun.downSinceMs, nowMs, zone)}. Tap running when it runs again.`,
    }
  }
  if (gun.isParked)
    return { line: 'Parked.', because: 'Nobody is using it; the next thing logged here puts it back in use.' }
  const wrong = gun.findings.filter((f) => f.severity === 'stops' && f.kept === null)
  const [worst] = wrong
  if (worst)
    return {
      line: `Built wrong${worst.at === 'off' ? '' : ` at the ${partName(worst.at)}`}. ${remedyWords(worst, units)}.`,
      because: wrong.length > 1 ? `And ${wrong.length - 1} more.` : findingWhy(worst),
    }
  const right = alarmVerdict(
    gun,
    gun.alarms.filter((a) => opensRow(a, nowMs)),
  )
  if (right) return right
  const [first, ...more] = gun.wants
  if (first) {
    const rest = more.length > 0 ? ` ${capital(more.map((w) => partName(w.position)).join(', '))} too.` : ''
    return {
      line: `${actPhrase(first.act, first.position)}.${rest}`,
      because: `${capital(wantWhy(first, units)).replace(/\.$/, '')}.`,
    }
  }
  const asked = harmVerdict(gun, units) ?? alarmVerdict(gun, gun.alarms)
  if (asked) return asked
  return quietVerdict(gun)
}

/** Nothing asks: what comes next, or what nobody has looked at. */
function quietVerdict(gun: GunAnswer): Verdict {
  const { nowMs, zone } = gun
  const unseen = gun.positions.filter((p) => p.state === 'notSeen')
  if (unseen.length === gun.positions.length && unseen.length > 0)
    return {
      line: 'Nobody has looked at this one.',
      because: 'Look it over once: “as the bay” says every part is what the area says.',
    }
  const line = `Nothing wants hands before ${windowWords(gun.cutoff, nowMs, zone)}.`
  if (gun.next) return { line, because: `Next: ${partName(gun.next.position)}, ${reach(gun.next, nowMs, zone)}.` }
  return { line, because: unseen.length > 0 ? `Not seen: ${unseen.map((p) => partName(p.position)).join(', ')}.` : '' }
}

/** Nothing stops, and it is built or set so that it harms: no gun is quiet above that. */
function harmVerdict({ findings }: GunAnswer, units: Units): Verdict | null {
  const [worst, ...others] = findings.filter((f) => f.severity === 'harms' && f.kept === null)
  if (!worst) return null
  const more = others.length > 0 ? ` And ${others.length} more.` : ''
  return { line: `${remedyWords(worst, units)}.${more}`, because: findingSentence(worst, units) }
}

/** What its readings ask for. */
function alarmVerdict({ nowMs }: Pick<GunAnswer, 'nowMs'>, alarms: GunAnswer['alarms']): Verdict | null {
  const [first, ...others] = alarms
  if (!first) return null
  const because = others.length > 0 ? others.map(alarmSentence).join(' ') : `Read ${ago(first.sinceMs, nowMs)} ago.`
  return { line: alarmSentence(first), because }
}

/** Above this share the records are as good as whole. */
const ALL_LOGGED = 0.95

/** What is known of how long one part lasts, in short sentences. */
/** Whose number the usual life is; a fit has made up for what is not logged, a plain median has not. */
function usualLines(p: GunPosition, units: Units): string[] {
  const { usual, leave } = p
  if (!usual) return []
  const whose =
    usual.source === 'trade' ? 'trade’s guess' : usual.n > 0 ? `${usual.source}, ${usual.n}` : 'none worn out here yet'
  const isLong = usual.low === null && usual.loggedShare !== null && usual.loggedShare <= ALL_LOGGED
  return [
    `Half are gone by ${amount(usual.amount, p.unit, units)} here (${whose}).`,
    ...(isLong ? [`${capital(shareWord(usual.loggedShare ?? 1))} changes get logged, so that reads long.`] : []),
    ...(leave ? [`${capital(inN(leave.chance))} that it goes by this time tomorrow.`] : []),
    ...(p.withIt.length > 0 ? [`While it is off, change too: ${p.withIt.map(partName).join(', ')}.`] : []),
  ]
}
export function lifeLines(p: GunPosition, gun: GunAnswer, units: Units): string[] {
  const { nowMs, zone } = gun
  const lines: string[] = []
  if (p.used !== null)
    lines.push(
      `${amount(p.used, p.unit, units)} on it${p.usedSd !== null && p.usedSd / Math.max(p.used, 1e-9) > 0.08 ? ` (±${amount(p.usedSd, p.unit, units)})` : ''}${p.isEstimated ? ', estimated' : ''}${p.entryAge === 'unknown' ? ', and what it had before' : ''}.`,
    )
  else if (p.fittedMs !== null) lines.push(`On since ${when(p.fittedMs, nowMs, zone)}; no usage known.`)
  if (p.change?.limit && p.change.act === 'change' && p.change.signs.length === 0)
    lines.push(
      `House rule: change at ${amount(p.change.limit, p.unit, units)}${kmWords(p.change.limitKm)}, ${p.change.shiftsOver > 0 ? 'reached' : reach(p.change, nowMs, zone)}.`,
    )
  lines.push(...signLines(p, units))
  if (p.clean)
    lines.push(`Cleaned ${amount(p.clean.used, p.unit, units)} ago; rule ${amount(p.clean.limit, p.unit, units)}.`)
  lines.push(...usualLines(p, units))
  if (p.why) lines.push(`Not seen: ${WHY_NOT_SEEN[p.why]}.`)
  else if (p.seenMs !== null) lines.push(`Last seen ${ago(p.seenMs, nowMs)} ago.`)
  return lines
}

/** A liner wears by length: what its limit is in km of the wire that is on. */
const kmWords = (km: number | null) => (km === null ? '' : ` (${twoFigures(km)} km of this wire)`)

/** Of a liner ruled by signs: what speaks, and what its length alone asks for. */
function signLines({ signs, change, unit }: GunPosition, units: Units): string[] {
  if (!signs) return []
  const length = change?.limit ? `${amount(change.limit, unit, units)}${kmWords(change.limitKm)}` : null
  return [
    ...(signs.signs.length > 0 ? [`House rule: change it, ${signs.signs.map(signWords).join('; ')}.`] : []),
    ...(length && signs.isLengthUsed && signs.say === 'look'
      ? [`${length} of wire is through it: look at it. Length alone changes nothing (house rule).`]
      : []),
    ...(length && !signs.isLengthUsed ? [`Look at it from ${length} on; changed on a sign (house rule).`] : []),
    ...(signs.say !== 'change' && signs.weak.length > 0
      ? [`Too little by itself: ${signs.weak.map((w) => WEAK_WORD[w]).join(', ')}.`]
      : []),
  ]
}

/** The few characters under a part's name. */
export function partNumber(p: GunPosition, units: Units): string {
  if (p.used === null) return ''
  return `${amount(p.used, p.unit, units)}${p.isEstimated ? ' est.' : ''}`
}

/** Of a due position: is it the change that is due, rather than the cleaning. */
export const isChange = (p: GunPosition) =>
  (p.change?.used ?? 0) / (p.change?.limit ?? 1) >= (p.clean?.used ?? 0) / (p.clean?.limit ?? 1)

/** The wire is drawn broken at some place; which one it is, nobody has said. */
export const isDownSomewhere = (gun: Pick<GunAnswer, 'downPosition'>, p: GunPosition) =>
  p.state === 'down' && gun.downPosition === null
/** What stands under a place of the drawing. */
export function stateWord(gun: Pick<GunAnswer, 'downPosition'>, p: GunPosition): string {
  if (isDownSomewhere(gun, p)) return 'down, nobody has said where'
  return p.state === 'due' && !isChange(p) ? 'clean' : STATE_WORD[p.state]
}
