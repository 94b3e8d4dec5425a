import { type BoughtLine, type LoggingShareLine } from '@contract/parts.ts'
import { kgToLb } from '@core/units/convert.ts'
import { bulk, twoFigures, type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'

const tens = (share: number) => Math.round(share * 10)

/** "about 6 in 10", "nearly all", "under 1 in 10". */
export function shareWord(share: number): string {
  if (share > 0.95) return 'nearly all'
  if (tens(share) < 1) return 'under 1 in 10'
  return `about ${Math.min(9, tens(share))} in 10`
}

/** The band in tenths, where it is wider than the word: "(5–7)". */
export function shareBand(line: Pick<LoggingShareLine, 'low' | 'high'>): string {
  if (line.low === null || line.high === null) return ''
  const [low, high] = [tens(line.low), tens(line.high)]
  return low === high ? '' : ` (${low}–${high})`
}

/** One line on Floor: "Tips logged: about 6 in 10 (5–7) of those taken." */
export function loggingSentence(line: LoggingShareLine, areaName: string | null): string {
  if (line.share === null) return ''
  const where = areaName ? `, ${areaName}` : ''
  const over = line.isOver ? ' More were logged than left the shelf: count again.' : ''
  return `${capital(plural(line.kindName))} logged${where}: ${shareWord(line.share)}${shareBand(line)} of those taken.${over}`
}

const plural = (name: string) => (name.endsWith('s') ? name : `${name}s`)

/** "One contact tip per 3.0 kg of wire (2.8–3.2), as bought: 3100 for 9.4 t in 12 months." */
export function boughtSentence(line: BoughtLine, units: Units): string {
  const unit = units === 'us' ? kgToLb : (kg: number) => kg
  const band = `${steady(unit(line.lowKg))}–${steady(unit(line.highKg))}`
  const months = line.months === 1 ? 'in a month' : `in ${line.months} months`
  return `One ${line.kindName} per ${steady(unit(line.kgEach))} ${units === 'us' ? 'lb' : 'kg'} of wire (${band}), as bought: ${twoFigures(line.pieces)} for ${bulk(line.kg, units)} ${months}.`
}
/** Two figures that keep their nought: 3.0, 2.8, 310. */
const steady = (value: number) => (value < 10 ? value.toFixed(1) : twoFigures(value))

export const SOURCE_WORD: Record<LoggingShareLine['source'], string> = {
  counted: 'shelf counted',
  tin: 'old-part tin',
  bought: 'bought',
}
