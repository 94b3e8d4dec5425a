import { type WireLostWhy } from '@core/ledger/event.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { type SpoolOnGun, type SpoolsAnswer } from '@contract/spools.ts'
import { kgToLb, MM_PER_FOOT } from '@core/units/convert.ts'
import { amount, twoFigures, type Units } from '@web/format/numbers.ts'
import { about, when } from '@web/format/times.ts'
import { countWord, guns } from '@web/format/words.ts'

export const weight = (kg: number, units: Units) => amount(kg, 'kg', units)
export const length = (metres: number, units: Units) =>
  units === 'us' ? `${twoFigures((metres * 1000) / MM_PER_FOOT)} ft` : `${twoFigures(metres)} m`

const Z_90 = 1.645

/** "about 6.4 kg left (5.9–6.9)": the band holds 9 in 10; silence where it is narrower than the figure. */
export function leftSentence(left: { leftKg: number | null; sdKg: number | null }, units: Units): string {
  if (left.leftKg === null) return 'nobody knows what is left'
  if (left.leftKg < 0.05) return 'should be empty'
  const sd = left.sdKg ?? 0
  const [low, high] = [Math.max(0, left.leftKg - Z_90 * sd), left.leftKg + Z_90 * sd]
  const figure = (kg: number) => twoFigures(units === 'us' ? kgToLb(kg) : kg)
  const band = figure(low) === figure(high) ? '' : ` (${figure(low)}–${figure(high)})`
  return `${band ? 'about ' : ''}${weight(left.leftKg, units)} left${band}`
}

export function emptySentence(gun: SpoolOnGun, nowMs: number, zone: string): string {
  if (gun.isParked) return 'parked'
  if (gun.isOverrun) return 'a change went unlogged: weigh it, or log the next one'
  if (gun.emptyMs === null) return ''
  if (gun.emptyMs <= nowMs) return 'empty by the clock'
  const span =
    gun.emptyEarlyMs !== null && gun.emptyLateMs !== null
      ? ` (${about(Math.max(gun.emptyEarlyMs, nowMs), nowMs, zone)}–${about(gun.emptyLateMs, nowMs, zone)})`
      : ''
  return `empty about ${about(gun.emptyMs, nowMs, zone)}${span}`
}

/** Half a shift: long enough to fetch a spool in a break, short enough to be about now. */
const SOON_MS = 4 * HOUR_MS

/** Guns that run out in the next four hours, the soonest first. */
export const soonEmpty = (spools: SpoolsAnswer) =>
  spools.guns
    .filter((g) => !g.isParked && g.emptyMs !== null && g.emptyMs < spools.nowMs + SOON_MS)
    .sort((a, b) => (a.emptyMs ?? 0) - (b.emptyMs ?? 0))

const NAMED = 4
export function spoolsSentence(spools: SpoolsAnswer): string {
  const soon = soonEmpty(spools)
  const known = spools.guns.filter((g) => g.leftKg !== null).length
  if (spools.guns.length === 0) return 'No guns yet, so no spools.'
  if (known === 0) return 'Nobody knows what is left on any spool. Weigh one, or tap "new spool" when it is changed.'
  const by = when(spools.nowMs + SOON_MS, spools.nowMs, spools.zone)
  if (soon.length === 0) return `No gun runs out of wire before ${by}, of the ${known} that are known.`
  const names = soon.slice(0, NAMED).map((g) => g.name)
  const more = soon.length > NAMED ? ` and ${soon.length - NAMED} more` : ''
  return `${countWord(soon.length)} ${guns(soon.length)} ${soon.length === 1 ? 'runs' : 'run'} out of wire before ${by}: ${names.join(', ')}${more}.`
}

/** Short ends, and wire that never became weld. */
export function wasteSentence(spools: SpoolsAnswer, units: Units): string {
  const said: string[] = []
  const short = spools.shelf.filter((s) => s.isShort)
  const kg = short.reduce((sum, s) => sum + (s.leftKg ?? 0), 0)
  if (short.length > 0)
    said.push(
      `${countWord(short.length)} short ${short.length === 1 ? 'end' : 'ends'} on the shelf, ${weight(kg, units)}.`,
    )
  const lost = spools.lost.reduce((sum, l) => sum + l.kg, 0)
  const [most] = spools.lost
  if (lost > 0)
    said.push(`Lost in 30 days: ${weight(lost, units)}${most ? `, most of it ${LOST_WORD[most.why]}` : ''}.`)
  if (spools.thrown.kg > 0)
    said.push(
      `Thrown away with wire on: ${spools.thrown.spools} ${spools.thrown.spools === 1 ? 'spool' : 'spools'}, ${weight(spools.thrown.kg, units)}.`,
    )
  return said.join(' ')
}

export const LOST_WORD: Record<WireLostWhy, string> = {
  nest: 'in nests',
  'cable emptied': 'clipped out of cables',
  'cut back': 'cut back',
  'let go': 'let go and tangled',
  other: 'otherwise',
}
export const LOST_KEY: Record<WireLostWhy, string> = {
  nest: 'a nest',
  'cable emptied': 'cable emptied',
  'cut back': 'cut back',
  'let go': 'let go',
  other: 'other',
}
