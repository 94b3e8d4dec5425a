import { type LogLine } from '@contract/logbook.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { hazardName, type Hazard } from '@core/guide/cautions.ts'
import { GUIDES } from '@core/guide/guides.ts'
import { type GuideKey } from '@core/guide/keys.ts'
import { type AutopsyFind, type SpoiledWhy } from '@core/ledger/event.ts'
import { FIND_WORD, ruleLength, tapeLength } from '@web/liner/linerwords.ts'
import { READING } from '@core/reading/specs.ts'
import { keptWords } from '@web/reading/readingwords.ts'
import { TAG_TEXT, type Tag } from '@core/changeover/tags.ts'
import { type SettingName } from '@core/rightparts/facts.ts'
import { type JointFault } from '@core/rightparts/joints.ts'
import { FAULT_WORD, JOINT_WORD, SETTING_WORD, settingWords } from '@web/rightparts/words.ts'
import { trialSentence, valuesWords } from '@web/down/tunewords.ts'
import { capital, isPlural, partName, REASON_WORD } from '@web/format/words.ts'

/** One line of the log as a sentence. */
export function lineSentence(line: LogLine, units: Units): string {
  const part = line.position ? capital(partName(line.position)) : ''
  const code = line.partCode ? ` (${line.partCode})` : ''
  const why = line.outReason && line.outReason !== 'notSaid' ? `: ${REASON_WORD[line.outReason]}` : ''
  const is = line.position && isPlural(line.position) ? 'were' : 'was'
  switch (line.kind) {
    case 'fitted':
      if (line.what === 'again') return `${part} put back${code}.`
      return line.count > 1
        ? `${part} changed ${line.count} times since the last log${code}${why}.`
        : `${part} changed${code}${why}.`
    case 'removed':
      return `${part} ${is} taken out${why}.`
    case 'cleaned':
      return `${part} cleaned.`
    case 'confirmed':
      return line.position ? `${part} looked at: good.` : 'Looked over, all as it should be.'
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
      return readSentence(line, units) ?? fitSentence(line, units) ?? spoolSentence(line, units)
  }
}

/** What was seen, set, tied, handed out. */
function fitSentence(line: LogLine, units: Units): string | null {
  const code = line.partCode ? ` (${line.partCode})` : ''
  const [name = '', value = ''] = (line.what ?? '').split('=')
  if (line.what === 'look') return 'Looked over how it is built.'
  switch (line.kind) {
    case 'changedOver':
      return `Wire changed${line.wireName ? ` to ${line.wireName}` : ''}.`
    case 'found':
      return `${capital(partName(line.position ?? ''))} looked at${code}.`
    case 'wireFound':
      return `On the hub: ${line.wireName ?? 'a wire'}.`
    case 'setting':
      return `${capital(SETTING_WORD[name as SettingName] ?? name)}: ${settingWords(name as SettingName, value, units)}.`
    case 'tied':
      return `${capital(TAG_TEXT[name as Tag]?.says ?? name)}.`
    case 'untied':
      return `${capital(TAG_TEXT[name as Tag]?.back ?? name)}.`
    case 'issued':
      return `${line.count} handed out${code}.`
    case 'jointFault':
      return `${capital(JOINT_WORD[name] ?? name)}: ${FAULT_WORD[value as JointFault] ?? value}.`
    case 'taskDone':
    case 'followedUp':
    case 'nearMiss':
    case 'blown':
      return workSentence(line)
    case 'autopsy':
    case 'stuck':
    case 'spoiled':
    case 'linerCut':
      return linerSentence(line, units)
    case 'gunStatus':
      return `Gun off: ${line.what === 'ready' ? 'ready' : 'to refurbish'}.`
    default:
      return downSentence(line, units)
  }
}

/** What a stop was, what a machine was set to. */
function downSentence(line: LogLine, units: Units): string | null {
  const what = line.what ?? ''
  if (line.kind === 'tuned') return trialSentence(what, units)
  if (line.kind === 'tuneKept') return `Settings that worked: ${valuesWords(what, units)}.`
  if (line.kind !== 'explained') return null
  const [cause = '', how] = what.split('=')
  return cause ? `It was: ${cause}${how === 'unsure' ? ', not sure' : ''}.` : 'What it was, nobody knows.'
}

/** What was read, as found and as left. */
function readSentence({ reading, kind }: LogLine, units: Units): string | null {
  if (kind === 'calibrated') return 'Knob calibrated by slip pulls.'
  if (!reading) return null
  const words = keptWords(reading.what, reading, units)
  return `${capital(READING[reading.what].name)}${words ? `: ${words}` : ' read'}.`
}

/** Work by the list, what followed, what nearly happened. */
function workSentence(line: LogLine): string {
  const what = line.what ?? ''
  if (line.kind === 'nearMiss') return `Near miss: ${hazardName(what as Hazard | 'other')}.`
  if (line.kind === 'blown') return 'Empty cable blown out, from the feeder forward.'
  if (line.kind === 'followedUp') return `${capital(FOLLOW_UP_TEXT[what as FollowUp]?.done ?? what)}.`
  return `Done by the list: ${GUIDES[what as GuideKey]?.name.toLowerCase() ?? what}.`
}

/** What a liner showed, or was cut to. */
function linerSentence(line: LogLine, units: Units): string {
  const [said = '', sure] = (line.what ?? '').split('=')
  const at = line.lengthMm === null ? '' : `, ${tapeLength(line.lengthMm, units)} from the feeder`
  switch (line.kind) {
    case 'autopsy': {
      const found = said.split(',').filter(Boolean)
      const words = found.map((f) => FIND_WORD[f as AutopsyFind] ?? f).join(', ')
      return `Old liner: ${words || 'measured'}${at}${sure === 'uncertain' ? ', may be from pulling it out' : ''}.`
    }
    case 'stuck':
      return `New liner ${said === 'kinked' ? 'stuck and kinked' : 'stuck'}${at}.`
    case 'spoiled':
      return `New liner spoiled: ${SPOILED_WORD[said as SpoiledWhy] ?? said}.`
    default:
      return `Liner cut${line.lengthMm === null ? '' : `: ${ruleLength(line.lengthMm, units)} left`}.`
  }
}
const SPOILED_WORD: Record<SpoiledWhy, string> = { kinked: 'kinked', cutShort: 'cut short', other: 'otherwise' }

/** What happened to wire and spools. */
function spoolSentence(line: LogLine, units: Units): string {
  const number = line.spoolNumber ? ` ${line.spoolNumber}` : ''
  const kg = line.labelKg === null ? '' : amount(line.labelKg, 'kg', units)
  switch (line.kind) {
    case 'spoolIn':
      return `Spool${number}${line.wireName ? ` of ${line.wireName}` : ''} came in${kg ? `, ${kg} on the label` : ''}.`
    case 'wireOff':
      return `Spool${number} taken off${kg ? `, about ${kg} left` : ''}.`
    case 'spoolRead':
      return `Spool${number} read: ${kg} left.`
    case 'wireLost':
      return `Wire lost, ${kg}: ${line.what ?? ''}.`
    case 'spoolGone':
      return line.labelKg ? `Spool${number} thrown away with ${kg} on it.` : `Spool${number} empty.`
    case 'wireLoaded':
      return `${line.spoolNumber ? `Spool${number} put on` : 'New spool'}${line.wireName ? ` of ${line.wireName}` : ''}${kg ? `, ${kg} ${line.spoolNumber ? 'on it' : 'on the label'}` : ''}.`
    default:
      return line.kind
  }
}
