import { handedOverLine } from './handedover.ts'
import { type LogLine } from '@contract/logbook.ts'
import { TAG_TEXT } from '@core/changeover/tags.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { hazardName } from '@core/guide/cautions.ts'
import { GUIDES } from '@core/guide/guides.ts'
import { type Fact, type FactKind, type SpoiledWhy } from '@core/ledger/event.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'
import { READING } from '@core/reading/specs.ts'
import { settingsWords, trialWords } from './tunewords.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { capital, isPlural, MAIN_PLACE, partName, REASON_WORD } from '@web/format/words.ts'
import { ruleLength, tapeLength } from '@web/format/lengths.ts'
import { FIND_WORD } from '@web/liner/linerwords.ts'
import { keptWords } from '@web/reading/readingwords.ts'
import { FAULT_WORD, JOINT_WORD, SETTING_WORD, settingWords } from '@web/rightparts/words.ts'
import { shopChangeWords } from './shopwords.ts'

type OfKind<K extends FactKind> = Extract<Fact, { kind: K }>
/** What a line says, kind by kind: none can be forgotten. */
type Says = { [K in FactKind]: (fact: OfKind<K>, names: LogLine['names'], units: Units) => string }

const named = (position: Position) => capital(partName(position))
const code = (names: LogLine['names']) => (names.part ? ` (${names.part})` : '')
const lying = ({ place }: LogLine['names']) => (place ? `, ${place}` : '')
const lyingAt = (id: string | null, name: string | null) =>
  id === null ? MAIN_PLACE : (name ?? 'a place that is gone')
const why = (reason: OutReason) => (reason === 'notSaid' ? '' : `: ${REASON_WORD[reason]}`)
const spool = (names: LogLine['names']) => `Spool${names.spool ? ` ${names.spool}` : ''}`
const ofWire = (names: LogLine['names']) => (names.wire ? ` of ${names.wire}` : '')
const kilos = (kg: number | null, units: Units) => (kg === null ? '' : amount(kg, 'kg', units))
const along = (atMm: number | null, units: Units) =>
  atMm === null ? '' : `, ${tapeLength(atMm, units)} from the feeder`
const SPOILED_WORD: Record<SpoiledWhy, string> = { kinked: 'kinked', cutShort: 'cut short', other: 'otherwise' }

const SAYS: Says = {
  fitted: ({ position, again, count, outReason }, names) => {
    if (again) return `${named(position)} put back${code(names)}.`
    const times = count > 1 ? ` ${count} times since the last log` : ''
    return `${named(position)} changed${times}${code(names)}${why(outReason)}.`
  },
  removed: ({ position, outReason }) =>
    `${named(position)} ${isPlural(position) ? 'were' : 'was'} taken out${why(outReason)}.`,
  cleaned: ({ position }) => `${named(position)} cleaned.`,
  confirmed: ({ position }) => (position ? `${named(position)} looked at: good.` : 'Looked over, all as it should be.'),
  found: ({ position }, names) => `${named(position)} looked at${code(names)}.`,
  mounted: ({ as, onId }, { carrier }) => {
    if (as) return `Neck${carrier ? ` ${carrier}` : ''} ${onId ? 'put on' : 'taken off'}.`
    return onId ? 'Hung here.' : 'Taken off.'
  },
  crashed: () => 'The torch hit something.',
  stopped: ({ position }) => (position ? `Down at the ${partName(position)}.` : 'Down.'),
  restarted: () => 'Running again.',
  parked: () => 'Parked.',
  unparked: () => 'In use again.',
  counted: ({ quantity }, names) => `Counted: ${quantity}${code(names)}${lying(names)}.`,
  received: ({ quantity }, names) => `${quantity} came in${code(names)}${lying(names)}.`,
  carried: ({ quantity, fromStoreId, toStoreId }, names) =>
    `${quantity} carried from ${lyingAt(fromStoreId, names.from)} to ${lyingAt(toStoreId, names.place)}${code(names)}.`,
  issued: ({ quantity }, names) => `${quantity} handed out${code(names)}.`,
  usageEntered: ({ rows }) => (rows === 1 ? 'Shift usage entered.' : `Usage brought in, ${rows} rows.`),
  shopChanged: ({ change }, names, units) => `Set-up: ${shopChangeWords(change, names, units)}.`,
  changedOver: (_, { wire }) => `Wire changed${wire ? ` to ${wire}` : ''}.`,
  wireFound: (_, { wire }) => `On the hub: ${wire ?? 'a wire'}.`,
  setting: ({ name, value }, _, units) => `${capital(SETTING_WORD[name])}: ${settingWords(name, value, units)}.`,
  tied: ({ tag }) => `${capital(TAG_TEXT[tag].says)}.`,
  untied: ({ tag }) => `${capital(TAG_TEXT[tag].back)}.`,
  jointFault: ({ joint, fault }) => `${capital(JOINT_WORD[joint])}: ${FAULT_WORD[fault]}.`,
  gunStatus: ({ status }, { carrier }) => `${carrier ?? 'Gun off'}: ${status === 'ready' ? 'ready' : 'to refurbish'}.`,
  taskDone: ({ task }) =>
    `Done by the list: ${task === 'change' ? 'change of wire' : GUIDES[task].name.toLowerCase()}.`,
  followedUp: ({ task }) => `${capital(FOLLOW_UP_TEXT[task].done)}.`,
  handedOver: ({ found, still }) => handedOverLine(found, still),
  nearMiss: ({ hazard }) => `Near miss: ${hazardName(hazard)}.`,
  blown: () => 'Empty cable blown out, from the feeder forward.',
  autopsy: ({ found, atMm, isCertain }, _, units) => {
    const words = found.map((f) => FIND_WORD[f]).join(', ')
    return `Old liner: ${words || 'measured'}${along(atMm, units)}${isCertain ? '' : ', may be from pulling it out'}.`
  },
  stuck: ({ isKinked, atMm }, _, units) => `New liner ${isKinked ? 'stuck and kinked' : 'stuck'}${along(atMm, units)}.`,
  spoiled: ({ why: reason }) => `New liner spoiled: ${SPOILED_WORD[reason]}.`,
  linerCut: ({ leftMm }, _, units) => `Liner cut: ${ruleLength(leftMm, units)} left.`,
  reading: (read, _, units) => {
    const words = keptWords(read.what, read, units)
    return `${capital(READING[read.what].name)}${words ? `: ${words}` : ' read'}.`
  },
  calibrated: () => 'Knob calibrated by slip pulls.',
  explained: ({ by, symptom, cause, isCertain }, names) =>
    by === 'seen'
      ? `Seen: ${names.cause ?? symptom}.`
      : cause
        ? `It was: ${names.cause ?? cause}${isCertain ? '' : ', not sure'}.`
        : 'What it was, nobody knows.',
  tuned: (trial, _, units) => trialWords(trial, units),
  tuneKept: ({ values }, _, units) => `Settings that worked: ${settingsWords(values, units)}.`,
  spoolIn: ({ labelKg }, names, units) =>
    `${spool(names)}${ofWire(names)} came in${labelKg === null ? '' : `, ${kilos(labelKg, units)} on the label`}.`,
  wireLoaded: ({ labelKg }, names, units) => {
    const kg = labelKg === null ? '' : `, ${kilos(labelKg, units)} ${names.spool ? 'on it' : 'on the label'}`
    return `${names.spool ? `${spool(names)} put on` : 'New spool'}${ofWire(names)}${kg}.`
  },
  wireOff: ({ leftKg }, names, units) =>
    `${spool(names)} taken off${leftKg === null ? '' : `, about ${kilos(leftKg, units)} left`}.`,
  spoolRead: ({ leftKg }, names, units) => `${spool(names)} read: ${kilos(leftKg, units)} left.`,
  wireLost: ({ kg, why: reason }, _, units) => `Wire lost, ${kilos(kg, units)}: ${reason}.`,
  spoolGone: ({ leftKg }, names, units) =>
    leftKg ? `${spool(names)} thrown away with ${kilos(leftKg, units)} on it.` : `${spool(names)} empty.`,
}

function saysOf<K extends FactKind>(fact: OfKind<K>, names: LogLine['names'], units: Units): string {
  const says: (fact: OfKind<K>, names: LogLine['names'], units: Units) => string = SAYS[fact.kind]
  return says(fact, names, units)
}

/** One line of the log as a sentence. */
export const lineSentence = (line: Pick<LogLine, 'actKind' | 'fact' | 'names'>, units: Units): string =>
  line.actKind === 'look' ? 'Looked over how it is built.' : saysOf(line.fact, line.names, units)
