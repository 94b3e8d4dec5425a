import { type LogLine } from '@contract/logbook.ts'
import { twoFigures, type Units } from '@web/format/numbers.ts'
import { kgToLb } from '@core/units/convert.ts'
import { capital, isPlural, partName, REASON_WORD } from '@web/format/words.ts'

const kilos = (kg: number, units: Units) => (units === 'us' ? `${twoFigures(kgToLb(kg))} lb` : `${twoFigures(kg)} kg`)

/** One line of the log as a sentence. */
export function lineSentence(line: LogLine, units: Units): string {
  const part = line.position ? capital(partName(line.position)) : ''
  const code = line.partCode ? ` (${line.partCode})` : ''
  const why = line.outReason && line.outReason !== 'notSaid' ? `: ${REASON_WORD[line.outReason]}` : ''
  const is = line.position && isPlural(line.position) ? 'were' : 'was'
  switch (line.kind) {
    case 'fitted':
      return line.count > 1
        ? `${part} changed ${line.count} times since the last log${code}${why}.`
        : `${part} changed${code}${why}.`
    case 'removed':
      return `${part} ${is} taken out${why}.`
    case 'cleaned':
      return `${part} cleaned.`
    case 'confirmed':
      return line.position ? `${part} looked at: good.` : 'Looked over, all as it should be.'
    case 'wireLoaded':
      return `New spool${line.wireName ? ` of ${line.wireName}` : ''}${line.labelKg ? `, ${kilos(line.labelKg, units)} on the label` : ''}.`
    case 'stopped':
      return line.position ? `Down at the ${partName(line.position)}.` : 'Down.'
    case 'restarted':
      return 'Running again.'
    case 'parked':
      return 'Parked.'
    case 'unparked':
      return 'In use again.'
    case 'mounted':
      return 'Hung here.'
    case 'counted':
      return `Counted: ${line.count}${code}.`
    case 'received':
      return `${line.count} came in${code}.`
    case 'usageEntered':
      return line.rows === 1 ? 'Shift usage entered.' : `Usage brought in, ${line.rows} rows.`
    case 'shopChanged':
      return `Set-up: ${line.what ?? ''}.`
    default:
      return line.kind
  }
}
