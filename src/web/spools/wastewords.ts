import { type PackageYear } from '@core/spools/package.ts'
import { type WasteAnswer, type WasteWhy } from '@contract/waste.ts'
import { aboutMoney, bulk, twoFigures, type Units } from '@web/format/numbers.ts'
import { LOST_WORD, weight } from './spoolwords.ts'

export const WASTE_WORD: Record<WasteWhy, string> = { ...LOST_WORD, 'short end': 'thrown away on spools' }
/** What would cut it: where to look, and what to do otherwise. */
export const CUT_WORD: Record<WasteWhy, string> = {
  nest: 'Brake, guides and drag before pressure: what creeps stands on Floor.',
  'cable emptied': 'Group a day’s wires, and keep a gun for one wire where it is changed daily.',
  'cut back': 'A cast that fights, dirt, a kink: look at the spool and its cover.',
  'let go': 'The end hooked in the flange before the old one is cut: shown in a minute.',
  other: 'Say which next time, and it shows here.',
  'short end': 'Short ends to short jobs: lay them under wire for jobs.',
}

export function wasteTold(at: WasteAnswer, units: Units): string {
  const kg = at.whys.reduce((sum, w) => sum + w.kg, 0)
  if (kg === 0)
    return 'No wire was noted as lost in six months. Nests, cables that were emptied and spools thrown away with wire on are noted under Spools.'
  const minor = at.whys.reduce((sum, w) => sum + (w.minor ?? 0), 0)
  const [most] = at.whys
  const money = minor > 0 ? `, about ${aboutMoney(minor, at.currency)}` : ''
  const share = at.usedKg > 0 ? kg / at.usedKg : null
  const of =
    share === null
      ? ''
      : share < HARDLY
        ? ': next to nothing of what was welded, or hardly any of it was noted'
        : `: ${shareWords(share)} of what was welded`
  return `In six months ${weight(kg, units)} of wire never became weld${money}${of}. Most of it ${most ? WASTE_WORD[most.why] : ''}.`
}
/** Under one part in three thousand nobody writes down what is lost. */
const HARDLY = 1 / 3000
/** "1 part in 400". */
export const shareWords = (share: number): string =>
  share < HARDLY
    ? 'next to nothing'
    : share >= 0.01
      ? `${twoFigures(100 * share)} in 100`
      : `1 part in ${twoFigures(1 / share)}`

/** Which is cheaper, from which use on. */
export function packageSentence(
  at: { first: PackageYear; second: PackageYear; breakEven: number | null; kgPerYear: number },
  of: { name: string; currency: string; units: Units },
): string {
  const { first, second, breakEven, kgPerYear } = at
  const diff = first.totalMinor - second.totalMinor
  const stops = `${twoFigures(first.changes)} changes a year become ${twoFigures(second.changes)}`
  if (breakEven === null) return `${of.name} pays at no use with these prices; ${stops}.`
  const from = breakEven === 0 ? 'at any use' : `from about ${bulk(breakEven, of.units)} a year on`
  return diff > 0
    ? `${of.name} saves about ${aboutMoney(diff, of.currency)} a year here: ${stops}. It pays ${from}; this is ${bulk(kgPerYear, of.units)}.`
    : `${of.name} costs about ${aboutMoney(-diff, of.currency)} a year more here, though ${stops}. It pays ${from}; this is ${bulk(kgPerYear, of.units)}.`
}
export const PARTS: readonly (readonly [Exclude<keyof PackageYear, 'changes' | 'totalMinor'>, string])[] = [
  ['wireMinor', 'wire that is welded'],
  ['changeMinor', 'changes: standing and hands'],
  ['shortMinor', 'short ends'],
  ['equipmentMinor', 'payoff and conduit, over five years'],
  ['floorMinor', 'floor'],
  ['stockMinor', 'money that lies in wire'],
]
