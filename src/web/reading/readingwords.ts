import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { LEAST_FOUND } from '@core/cleaning/interval.ts'
import { type Alarm } from '@core/reading/alarms.ts'
import { type ReadingKey, type ReadingUnit } from '@core/reading/keys.ts'
import { methodOf, READING } from '@core/reading/specs.ts'
import { type KeptLine, type ReadingAnswer, type ReadingLine, type TrendLine } from '@contract/reading.ts'
import { measures, type Measure, plainly } from '@web/format/measures.ts'
import { amount, flow, force, twoFigures, type Units, minutes, volume } from '@web/format/numbers.ts'
import { ago, shortDate, when } from '@web/format/times.ts'
import { capital, listed, partName } from '@web/format/words.ts'
import { fineLength, ruleLength } from '@web/format/lengths.ts'

/** Read as surely as this it is told finer than a rule's marks. */
const FINE_SD_MM = 0.3
/** A value in the reading's unit, as people say it. */
export function readingValue(what: ReadingKey, value: number, units: Units): string {
  switch (READING[what].unit) {
    case 'N':
      return force(value, units)
    case 'L/min':
      return flow(value, units)
    case 'L':
      return volume(value, units)
    case 'mm':
      if (READING[what].sd <= FINE_SD_MM) return fineLength(value, units)
      return value < 0 ? `−${ruleLength(-value, units)}` : ruleLength(value, units)
    case 'share':
      return what === 'bore' ? `${twoFigures(value * 100)} % oval` : `${twoFigures(value * 100)} %`
    case 'deg':
      return `${Math.round(value)}°`
    case 'bar':
      return `${twoFigures(measures(units).pressure.fromSi(value))} ${measures(units).pressure.word}`
    case 'amps':
      return `${twoFigures(value)} A`
    case 'tips':
      return `${twoFigures(value)} of the tip’s width`
    case 'friction':
      return value.toFixed(2)
    default:
      return twoFigures(value)
  }
}

const PLAIN: Partial<Record<ReadingUnit, Measure>> = {
  mark: plainly('mark', 'marks'),
  deg: plainly('degrees', 'plain'),
  share: { word: '%', toSi: (n) => n / 100, fromSi: (n) => n * 100, rule: { of: 'share' } },
  amps: plainly('A', 'amps'),
  coils: plainly('coils', 'plain'),
  friction: plainly('friction', 'plain'),
  tips: plainly('widths of the tip', 'plain'),
}
export const NO_UNIT = plainly('', 'plain')
/** How a reading is typed, in the shop's units. */
export function readingMeasure(what: ReadingKey, units: Units): Measure {
  const { unit } = READING[what]
  const of = measures(units)
  if (unit === 'N') return of.force
  if (unit === 'L/min') return of.flow
  if (unit === 'mm') return of.rule
  if (unit === 'bar') return of.pressure
  if (unit === 'L') return of.volume
  return (unit && PLAIN[unit]) ?? NO_UNIT
}

/** "Gas for about 9 h of welding (7–11, at 14 L/min, a guess)." */
export function gasLeftSentence(left: NonNullable<ReadingAnswer['gasLeft']>, units: Units): string {
  const by = `at ${flow(left.flowLPerMin, units)}${left.isFlowRead ? '' : ', a guess'}`
  return `Gas for about ${hoursWords(left.hours)} of welding (${twoFigures(left.lowH)}–${twoFigures(left.highH)} h, ${by}).`
}

export const VERDICT_WORD = { good: 'good', look: 'look', act: 'put right' } as const
export const HOW_WORD = { measured: 'measured', looked: 'looked', said: 'said' } as const

/** "2.4, left at 2.8: curls and keeps coming". */
export function keptWords(
  what: ReadingKey,
  kept: Pick<KeptLine, 'method' | 'grade' | 'value' | 'left'>,
  units: Units,
): string {
  const grade = methodOf(what, kept.method)?.grades.find((g) => g.key === kept.grade)?.says ?? null
  const value = kept.value === null ? null : readingValue(what, kept.value, units)
  const left = kept.left === null ? null : `left at ${readingValue(what, kept.left, units)}`
  const number = [value, left].filter(Boolean).join(', ')
  return [number, grade].filter(Boolean).join(': ')
}

export const methodName = (what: ReadingKey, method: string) => methodOf(what, method)?.name ?? method

/** Where it should lie: "12 to 20 L/min (guess)". */
export function targetWords(line: Pick<ReadingLine, 'what' | 'target'>, units: Units): string {
  const { target, what } = line
  if (!target) return ''
  const say = (n: number) => readingValue(what, n, units)
  const span =
    target.from !== null && target.to !== null
      ? `${say(target.from)} to ${say(target.to)}`
      : target.to !== null
        ? `up to ${say(target.to)}`
        : target.from !== null
          ? `at least ${say(target.from)}`
          : ''
  return span === ''
    ? ''
    : `${span} (${target.n === undefined ? BY_WORD[target.by] : `${target.n} others like it here`})`
}
const BY_WORD = {
  window: 'the window of this gun',
  baseline: 'by how it began',
  procedure: 'procedure',
  wire: 'the wire’s data',
  rule: 'house rule',
  shop: 'others like it here',
  scale: 'its scale, a guess',
  guess: 'guess',
} as const

export interface Told {
  nowMs: number
  zone: string
  units: Units
}
/** What a series of readings says, with its date and how far that may be off. */
export function trendSentence(what: ReadingKey, trend: TrendLine, at: Told): string | null {
  const { nowMs, zone, units } = at
  if (trend.is === 'few') return null
  const first = trend.points[0]
  const last = trend.points.at(-1)
  if (!first || !last) return null
  const span = trend.unit === 'kg' ? amount(last.usage, 'kg', units) : `${Math.round(last.usage)} days`
  const say = (n: number) => readingValue(what, n, units)
  const name = capital(READING[what].name)
  if (trend.jumpedMs !== null)
    return `${name} jumped on ${shortDate(trend.jumpedMs, zone)}, from ${say(first.value)} to ${say(last.value)}.`
  if (trend.is === 'steady') return `${name} is steady over ${span} (${trend.n} readings).`
  const crept = `${name} has crept from ${say(first.value)} to ${say(last.value)} over ${span}`
  if (trend.is === 'over' || !trend.crossing)
    return trend.limit === null ? `${crept}.` : `${crept}: beyond its limit of ${say(trend.limit)}.`
  const { atMs, earlyMs, lateMs } = trend.crossing
  if (atMs === null) return `${crept}, towards ${say(trend.limit ?? 0)}.`
  const early = earlyMs === null ? '' : dayWord(Math.max(earlyMs, nowMs), nowMs, zone)
  const late = lateMs === null ? 'perhaps never' : dayWord(lateMs, nowMs, zone)
  return `${crept}; at its limit of ${say(trend.limit ?? 0)} about ${dayWord(Math.max(atMs, nowMs), nowMs, zone)} (${early} to ${late}).`
}

/** A day, not an hour: no trend is known to the hour. */
function dayWord(ms: number, nowMs: number, zone: string): string {
  const word = when(ms, nowMs, zone)
  return Math.abs(ms - nowMs) < 6 * DAY_MS ? word.replace(/ ?\d\d:\d\d$/, '') || 'today' : word
}

const ALARM_WORD: Record<Alarm['is'], (name: string) => string> = {
  act: (name) => `${name}: put right`,
  look: (name) => `${name}: worth a look`,
  creeps: (name) => `${name} creeps`,
  over: (name) => `${name} is beyond its limit`,
  jumped: (name) => `${name} jumped`,
}
/** A number too far the one way it can go: what puts it right is known. */
function rightedBy({ what, is }: Pick<Alarm, 'what' | 'is'>): string | null {
  const { worse, isSet, asksFor } = READING[what]
  return is === 'act' && worse && !isSet && asksFor ? asksFor : null
}
/** What is done about it, first: "Change the tip"; where that is not known, what was found. */
export const foundTitle = (alarm: Pick<Alarm, 'what' | 'is' | 'seen' | 'isWatched'>): string =>
  capital((alarm.isWatched ? READING[alarm.what].asksFor : rightedBy(alarm)) ?? alarmSentence(alarm).replace(/\.$/, ''))
/** "found at the contact tip (tip bore)." */
export const foundWhy = (found: readonly Pick<Alarm, 'what' | 'at'>[]): string => {
  const once = (words: readonly string[]) => listed([...new Set(words)])
  return `found at the ${once(found.map((f) => partName(f.at)))} (${once(found.map((f) => READING[f.what].name))}).`
}
/** What equipment tells by itself. */
const WATCHED_SAYS: Partial<Record<ReadingKey, string>> = {
  motorAmps: 'Feed motor current creeps up at the same wire speed',
  failedStarts: 'More starts come to nothing than did',
  slip: 'Rolls turned and the wire did not come',
}
/** "Drive tension creeps: look at liner, tip and rolls." */
export function alarmSentence(alarm: Pick<Alarm, 'what' | 'is' | 'seen' | 'isWatched'>): string {
  const spec = READING[alarm.what]
  if (alarm.isWatched)
    return `${WATCHED_SAYS[alarm.what] ?? capital(spec.name)}, as the feeder itself sends it: ${spec.asksFor}${alarm.is === 'act' ? '' : ', before it stops'}.`
  const grade = alarm.seen && methodOf(alarm.what, alarm.seen.method)?.grades.find((g) => g.key === alarm.seen?.grade)
  if (alarm.is === 'act' && grade) return `Put right: ${spec.name}, ${grade.says}.`
  if (alarm.is === 'look' && grade) return `Look again: ${spec.name}, ${grade.says}.`
  const creeps = alarm.is === 'creeps' || alarm.is === 'over' || alarm.is === 'jumped'
  const known = rightedBy(alarm)
  if (known) return `${capital(spec.name)}: ${known}.`
  const asks = creeps && spec.asksFor ? `: ${spec.asksFor}` : ''
  return `${capital(ALARM_WORD[alarm.is](spec.name))}${asks}.`
}

export function raisedSentence(raised: NonNullable<ReadingAnswer['raised']>, at: Told): string {
  const since = `The knob was raised ${ago(raised.sinceMs, at.nowMs)} ago to keep it going`
  if (raised.untilMs === null) return `${since}.`
  return raised.untilMs < at.nowMs
    ? `${since}; it should have been back by ${shortDate(raised.untilMs, at.zone)}.`
    : `${since}, till ${shortDate(raised.untilMs, at.zone)}.`
}

export function changedSentence(line: ReadingLine, at: Told): string | null {
  if (!line.changed) return null
  const by = readingValue(line.what, Math.abs(line.changed.by), at.units)
  const who = line.changed.leftBy ? `, left by ${line.changed.leftBy}` : ''
  return `Changed since ${when(line.changed.sinceMs, at.nowMs, at.zone)}${who}: ${by} ${line.changed.by > 0 ? 'more' : 'less'} than it was left at.`
}

export function againstSentence(line: ReadingLine, at: Told): string | null {
  if (!line.against || !line.last) return null
  const say = (k: KeptLine) => `${methodName(line.what, k.method)} says ${VERDICT_WORD[k.is]}`
  return `These two cannot both be right: ${say(line.against)}, ${say(line.last)} (${ago(line.against.atMs, at.nowMs)} ago). Look again.`
}

/** "Gas held from start to end of work: 14 and 13.8 L/min, 7 h apart." */
export function flowSentence(flow: NonNullable<ReadingAnswer['flow']>, units: Units): string {
  const say = (lPerMin: number) => readingValue('gasFlow', lPerMin, units)
  const span = `${say(flow.startLPerMin)} at the start, ${say(flow.endLPerMin)} ${twoFigures((flow.endMs - flow.startMs) / HOUR_MS)} h later`
  if (flow.is === 'held') return `Gas held: ${span}.`
  if (flow.is === 'rose') return `Gas rose: ${span}. Somebody turned it up, or it was read otherwise.`
  return `Gas fell: ${span}. The cylinder runs low, a joint leaks, or somebody turned it down.`
}

/** "Anti-spatter here: dip, since 3 Nov." */
export const antiSpatterSentence = (said: NonNullable<ReadingAnswer['antiSpatter']>, zone: string) =>
  `Anti-spatter here: ${said.agent}, since ${shortDate(said.sinceMs, zone)}.`

type Cleaning = NonNullable<ReadingAnswer['cleaning']>
/** "Clean the nozzle every 1.5 h of arc (yours, found 9 times), in about 0.5 h." */
export function cleaningSentence(cleaning: Cleaning): string {
  const { limitH, by, sinceH, n } = cleaning
  const would = `about every ${twoFigures(cleaning.learntH)} h of arc (${n === 0 ? 'trade' : `yours, found ${times(n)}`})`
  if (limitH === null) return `${WITHOUT_HOURS[cleaning.way]}; by hours it would be ${would}.`
  const whose = by === 'found' ? `yours, found ${times(n)}` : 'house rule'
  const left = sinceH === null ? '' : sinceH >= limitH ? ', so now' : `, in about ${hoursWords(limitH - sinceH)}`
  const rest =
    by === 'found'
      ? HELD[cleaning.isHeld ?? 'no']
      : n >= LEAST_FOUND
        ? ` As it is found here it would be ${would}.`
        : ''
  return `Clean the nozzle every ${twoFigures(limitH)} h of arc (${whose})${left}.${rest}`
}
const WITHOUT_HOURS = {
  hours: 'No hours are set for cleaning the nozzle',
  eachPass: 'The nozzle is cleaned after each pass (house rule), and looked at twice a day',
  cleanUp: 'The nozzle is cleaned at clean-up or when it looks shut (house rule), and looked at daily',
  machine: 'The reamer cleans the nozzle (house rule), and it is looked at weekly whether it does',
} as const
const times = (n: number) => (n === 1 ? 'once' : `${n} times`)
const hoursWords = (h: number) => (h < 1 ? minutes(h * 60) : `${twoFigures(h)} h`)
const HELD = {
  no: '',
  up: ' What is found would let it run longer still: it stretches by a half at most at a step.',
  down: ' What is found asks for less still: it halves at most at a step.',
} as const
