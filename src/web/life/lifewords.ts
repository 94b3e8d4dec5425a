import { WEAR_PLACES } from '@core/liner/wherewear.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { type LinerClause } from '@core/liner/clauses.ts'
import { type LifeAnswer, type LifeBy, type LifeTold, type LinerSignsAnswer } from '@contract/life.ts'
import { aboutMoney, amount, forUnit, minutes, twoFigures, unitWord, type Units } from '@web/format/numbers.ts'
import { capital, countWord, inN, isPlural, partName, REASON_WORD, listed } from '@web/format/words.ts'

type Money = NonNullable<LifeAnswer['money']>
export type SchoolLine = Money['lines'][number]
type Spread = LifeTold['median']

/** "tips", "rolls", "O-rings". */
export const partsName = (kind: KindKey) => (isPlural(kind) ? partName(kind) : `${partName(kind)}s`)
const span = (s: Spread, unit: LifeUnit, units: Units) =>
  `${amount(s.low, unit, units).replace(/ .*/, '')}–${amount(s.high, unit, units)}`
const SOURCE_WORD = { yours: 'yours', told: 'told', trade: 'trade' } as const
const whereWords = (at: LifeAnswer) =>
  at.where === 'all'
    ? 'here'
    : at.where.startsWith('class:')
      ? `in ${at.whereName.toLowerCase()}`
      : `in the ${at.whereName}`

/** "Half of the tips in training booths are gone by 6.1 h (5.2–7.3 h; yours, 214)." */
export function lifeSentence(at: LifeAnswer, units: Units): string {
  const { told } = at
  const parts = partsName(at.kind)
  if (!told) return refusedSentence(at, units)
  const half = amount(told.median.value, at.unit, units)
  const whose =
    told.source === 'yours' && told.n > 0
      ? `yours, ${told.n}`
      : `${SOURCE_WORD[told.source]}; ${told.worn} worn here so far`
  return `Half of the ${parts} ${whereWords(at)} are gone by ${half} (${span(told.median, at.unit, units)}; ${whose}).`
}
function refusedSentence(at: LifeAnswer, units: Units): string {
  const parts = partsName(at.kind)
  const where = whereWords(at)
  if (at.refused === 'shareTooLow' && at.counted)
    return `A ${partName(at.kind)} ${where} lasts ${amount(at.counted.mean, at.unit, units)} in the mean (counted: about ${twoFigures(at.counted.taken)} taken).`
  if (at.refused === 'nothingEnded') return `None of the ${parts} ${where} has worn out yet.`
  if (at.refused === 'noMaximum') return `What is logged of ${parts} ${where} fits no life.`
  return `Nothing is known yet of how long ${parts} last ${where}.`
}
/** What is needed before it can say more. */
export function neededWords(at: LifeAnswer): string {
  if (at.refused === 'shareTooLow')
    return 'Fewer than 3 in 10 changes are logged: from so few no rule in money is made. Log more of them, or count the crib.'
  if (at.refused === 'nothingEnded')
    return 'One that is logged as worn starts it; your word on what is usual helps at once.'
  if (at.refused === 'noLives') return 'Log a change and why it came out, or say below what is usual.'
  if (at.refused === 'noMaximum') return 'Look through the log for lines on the wrong gun or day.'
  return ''
}

/** "Tips logged: about 8 in 10 of those taken (7 to 9). Corrected for." */
export function shareWords(at: LifeAnswer): string {
  const { share } = at.seen
  const tenths = (x: number) => (x > 0.97 ? 'all' : `${Math.round(x * 10)}`)
  const of = share.value > 0.97 ? 'nearly all' : `about ${Math.round(share.value * 10)} in 10`
  const band = share.high - share.low > 0.04 ? ` (${tenths(share.low)} to ${tenths(share.high)})` : ''
  const parts = capital(partsName(at.kind))
  if (share.isGuess)
    return `Nobody counted how many ${partsName(at.kind)} are taken: ${of} logged is a guess${band}. Count the crib to know.`
  return `${parts} logged: ${of} of those taken${band}.${share.value <= 0.95 ? ' Corrected for.' : ''}`
}

/** What else is true of the numbers, in one line. */
export function seenWords(at: LifeAnswer, units: Units): string {
  const { seen } = at
  const said = [
    `${seen.ended} ended, ${seen.in} still in`,
    ...(seen.due > 0 ? [`${seen.due} taken out good`] : []),
    ...(seen.coarse > 0 ? [`${seen.coarse} timed only to the shift or day`] : []),
    ...(seen.ageUnknown > 0 ? [`${seen.ageUnknown} on before records began`] : []),
    ...(seen.benched > 0
      ? [`${seen.benched} looked at on the bench${seen.unsure > 0 ? `, of ${seen.unsure} it was not sure` : ''}`]
      : []),
    ...(seen.several > 0 ? [`${seen.several} lines of several parts`] : []),
  ]
  const left = [
    ...(seen.noUse > 0 ? [`${seen.noUse} without any use between two lines`] : []),
    ...(seen.noClock > 0 ? [`${seen.noClock} where no clock runs`] : []),
    ...(seen.otherUnit > 0
      ? [`${seen.otherUnit} counted in another unit than ${amount(1, at.unit, units).replace(/^1 /, '')}`]
      : []),
  ]
  return `${said.join(', ')}.${left.length > 0 ? ` Left out: ${left.join(', ')}.` : ''}`
}
export function notSaidWords(at: LifeAnswer, units: Units): string {
  if (!at.told || at.asWorn === null || at.asCut === null || at.told.notSaid === 0) return ''
  const [a, b] = [amount(at.asWorn, at.unit, units), amount(at.asCut, at.unit, units)]
  return `Of ${at.told.notSaid} nobody said why: half gone by ${a} if all of those were worn, by ${b} if none was.`
}
export const reasonWords = ({ reasons }: LifeAnswer, units: Units): string =>
  reasons
    .map(
      (r) =>
        `${REASON_WORD[r.reason]} ${r.n}${r.reason === 'burnedBack' && r.per100kg !== null ? ` (${forHundredOfWire(r.per100kg, units)})` : ''}`,
    )
    .join(', ')
const forHundredOfWire = (per100kg: number, units: Units) =>
  `${twoFigures(forUnit(per100kg, 'kg', units))} for 100 ${unitWord('kg', units)}`

/** "250 kg is about 40 km of solid 1.0." */
export const wireWords = (at: LifeAnswer, units: Units): string =>
  at.asWire && at.told
    ? `${amount(at.told.median.value, at.unit, units)} is about ${amount(at.asWire.km, 'km', units)} of ${at.asWire.name}.${at.kind === 'liner' ? ` A liner wears by length: with another wire its limit is as many ${units === 'us' ? 'miles' : 'kilometres'}.` : ''}`
    : ''
const WEAR_AT = {
  rear: [
    'in the first third behind the machine',
    'look how the cable leaves the feeder, and what comes in with the wire',
  ],
  middle: ['in the middle of the cable', 'look how it lies on the floor'],
  neck: ['in the neck', 'look at its bend, its heat, and a jump liner'],
} as const
/** "Worn most in the first third behind the machine (5 of 6): …" Where they were found worn, and what that may ask for. */
export function wornWhereWords(where: NonNullable<LifeAnswer['wornWhere']>): string {
  const { n, counts, most } = where
  if (most) {
    const [place, look] = WEAR_AT[most]
    return `Worn most ${place} (${counts[most]} of ${n}), more than its length would bring: ${look}.`
  }
  const told = WEAR_PLACES.flatMap((p) => (counts[p] > 0 ? [`${counts[p]} ${WEAR_AT[p][0]}`] : []))
  return `Found worn: ${told.join(', ')}. No place stands out.`
}
/** "4.1 diffusers go for 100 tips (31 for 760)." */
export const perTipsWords = (t: NonNullable<LifeAnswer['perTips']>): string =>
  `${twoFigures(t.per100)} diffusers go for 100 tips (${t.n} for ${t.tips}).${t.over.length === 0 ? ' No place stands out.' : ''}`
export const overTipsWords = (o: NonNullable<LifeAnswer['perTips']>['over'][number]): string =>
  `${o.name}: ${o.n} for ${o.tips} tips, more than chance allows. A forced tip spoils both: look at how tips go on there.`

/** How far the wear itself is one of age: what a rule can be made of. */
export function shapeWords({ told, seen }: LifeAnswer): string {
  // The trade's word alone says nothing of how parts go here.
  if (!told || seen.ended === 0) return ''
  if (told.shape.high < 1) return 'The young ones go first: look at how they are put on.'
  if (told.shape.low < 1.15) return 'They go at any age alike: changing early gains nothing.'
  return told.shape.value > 2.2
    ? 'They wear out at much the same age.'
    : 'They wear out with age, at widely different ones.'
}

/** What each school does, as hands would say it. */
export function schoolDoes(
  line: Pick<SchoolLine, 'school' | 'at'>,
  at: Pick<LifeAnswer, 'unit' | 'rule'> & { liner?: LifeAnswer['liner'] },
  units: Units,
): string {
  const use = line.at === null ? '' : amount(line.at, at.unit, units)
  if (line.school === 'runToFailure') return 'change it when it goes'
  if (line.school === 'onCondition') return `look every ${use}, change when it shows (guess of when it shows)`
  if (line.school === 'signs') return `change on a sign (${signsSeenWords(at.liner ?? null)})`
  if (line.school === 'leastCost') return `change at ${use}`
  return at.rule.changeLimit === null ? `change every Friday (about ${use})` : `change at ${use}, as now`
}
/** "of 9 worn ones looked at, 6 showed one in time". */
export function signsSeenWords(liner: LifeAnswer['liner']): string {
  const { worn, ahead } = liner?.record ?? { worn: 0, ahead: 0 }
  if (worn === 0) return 'no worn one was looked at yet: a guess'
  const seen = `of ${worn} worn ${worn === 1 ? 'one' : 'ones'} looked at, ${ahead === 0 ? 'none' : ahead} showed one in time`
  return liner?.isGuess ? `${seen}: mostly a guess still` : seen
}
/** What a rule by signs would have seen here, in sentences. */
export function recordWords({ record, isGuess }: LinerSignsAnswer): string {
  if (!record || record.worn + record.unlooked === 0)
    return 'No liner has worn out here yet: what signs are worth is a guess.'
  const { worn, ahead, unlooked, leftShare, fine } = record
  const seen =
    worn === 0
      ? ''
      : `Of ${worn} worn ${worn === 1 ? 'liner' : 'liners'} that were looked at, ${ahead === 0 ? 'none' : ahead} had shown a sign half a day before or more${leftShare !== null ? `, with ${tenthsWords(leftShare)} of its life left` : ''}.`
  const rest = [
    ...(unlooked > 0 ? [`At ${unlooked} more too little was read or noted for any sign to show.`] : []),
    ...(fine > 0 ? [`${fine} with a sign ${fine === 1 ? 'was' : 'were'} found without fault on the bench.`] : []),
    ...(isGuess ? ['That is too few: half and half is guessed beside it.'] : []),
  ]
  return [seen, ...rest].filter(Boolean).join(' ')
}
/** What one clause did here. */
export function clauseSeenWords({ record }: LinerSignsAnswer, clause: LinerClause): string {
  const seen = record?.byClause[clause]
  if (!record || !seen) return ''
  if (seen.of === 0) return 'Here it could not have spoken of any yet.'
  const fine = seen.fine > 0 ? `; ${seen.fine} found without fault` : ''
  return `Here it spoke in time of ${seen.ahead === 0 ? 'none' : seen.ahead} of the ${seen.of} worn ${seen.of === 1 ? 'one' : 'ones'} it could have${fine}.`
}
const percent = (x: number) => `${Math.round(100 * x)} %`
/** "saves 35 % (32–36 %)", "costs 4 % more", "the same". */
export function savingWords({ saving, school }: SchoolLine): string {
  if (school === 'runToFailure') return 'what others are held against'
  const { value, low, high } = saving
  if (Math.abs(value) < 0.01) return 'about the same'
  if (value < -1) return `costs ${twoFigures(1 - value)} times as much`
  return value > 0
    ? `saves ${percent(value)} (${percent(Math.max(-1, low))} to ${percent(high)})`
    : `costs ${percent(-value)} more`
}

/** "Least cost: change at 3.2 h. Saves a third …" in ten seconds; silence where nothing is to be had. */
export function moneySentence(at: LifeAnswer, units: Units): string {
  const { money } = at
  if (!money) return ''
  if (at.seen.ended === 0)
    return 'Nothing to reckon yet: none has ended here. Changing early pays only where the log shows that they wear out with age.'
  if (!isPriced(at))
    return 'Nothing is priced yet, so no rule can be held against another: say under Our shop what an hour of hands, an hour of standing and the part cost.'
  const [never, best] = [
    money.lines.find((l) => l.school === 'runToFailure'),
    money.lines.find((l) => l.school === money.advised),
  ]
  if (!never || !best || money.advised === 'runToFailure')
    return `Run them to failure: changing earlier saves nothing worth a rule${money.unpriced.length > 0 ? ', as far as it is priced' : ''}.`
  const less = never.cost.standMin - best.cost.standMin
  const stand = less >= 1 ? `, ${minutes(less)} less standing for 100 arc hours` : ''
  return `Cheapest: ${schoolDoes(best, at, units)}. It ${savingWords(best)} against running them to failure${stand}.`
}
/** "Anything from 2.4 to 4.2 h is within 5 % of that." */
export function flatWords(at: LifeAnswer, units: Units): string {
  const flat = at.money?.flat
  if (!flat) return ''
  const [from, to] = flat
  return to === null
    ? `Anything from ${amount(from, at.unit, units)} on is within 5 % of the least.`
    : `Anything from ${amount(from, at.unit, units).replace(/ .*/, '')} to ${amount(to, at.unit, units)} is within 5 % of the least.`
}
/** Whether money says anything: it may be seen, and something has a price. */
export const isPriced = ({ isMoney, money }: Pick<LifeAnswer, 'isMoney' | 'money'>): boolean =>
  isMoney && money !== null && money.unpriced.length < Object.keys(UNPRICED).length
/** What rules are held against each other for, as this shop counts: "100 arc hours", "100 lb"; and numbers told for it. */
export function forHundred(
  per: 'arcHours' | 'unit' | undefined,
  unit: LifeUnit,
  units: Units,
): { words: string; told: (value: number) => number } {
  return per === 'arcHours'
    ? { words: '100 arc hours', told: (value) => value }
    : { words: `100 ${unitWord(unit, units)}`, told: (value) => forUnit(value, unit, units) }
}
/** What a change costs in time and too late, beside the part. */
export function costsWords(at: LifeAnswer): string {
  const { money, currency } = at
  if (!money) return ''
  const stops = money.stops.isGuess
    ? 'how often one stops the gun is a guess still'
    : `${money.stops.n} of ${money.stops.of} worn ones stopped the gun`
  const times = `in time ${minutes(money.planned.min)} of hands; worn out ${minutes(money.late.standMin)} of standing`
  const priced = isPriced(at)
    ? `A change costs ${aboutMoney(money.planned.minor, currency)} in time, ${aboutMoney(money.late.minor, currency)} when it has worn out: ${times}; ${stops}.`
    : `A change takes ${times}; ${stops}.`
  return `${priced}${money.unpriced.length > 0 ? ` Not priced: ${money.unpriced.map((u) => UNPRICED[u]).join(', ')}.` : ''}`
}
const UNPRICED = { part: 'the part', labour: 'an hour of hands', standing: 'an hour of standing' } as const

/** Under the blade: what that place of it costs. */
export function bladeWords(at: LifeAnswer, blade: number | null, units: Units): string {
  const cost = costAt(at, blade)
  if (!at.money || !cost) return ''
  const per = forHundred(at.money.per, at.unit, units)
  const what = blade === null ? 'Run to failure' : `Changed at ${amount(blade, at.unit, units)}`
  const money = isPriced(at) && cost.total > 0 ? `${aboutMoney(per.told(cost.total), at.currency)}, ` : ''
  const late = cost.parts > 0 ? cost.worn / cost.parts : 0
  const share = late > 0.97 ? 'nearly all' : inN(late)
  const [parts, hands, stand] = [cost.parts, cost.handsMin, cost.standMin].map(per.told) as [number, number, number]
  return `${what}: for ${per.words} ${money}${twoFigures(parts)} parts, ${minutes(hands)} of hands, ${stand < 1 ? 'no' : minutes(stand)} standing; ${share} ${/^1 in/.test(share) ? 'wears' : 'wear'} out first.`
}
/** Of the blade's table the nearest two, drawn between; null: run to failure. */
export function costAt(at: LifeAnswer, use: number | null) {
  const { money } = at
  if (!money) return null
  if (use === null) {
    const never = money.lines.find((l) => l.school === 'runToFailure')?.cost
    return never
      ? {
          total: never.total,
          parts: never.changes,
          handsMin: never.handsMin,
          standMin: never.standMin,
          worn: never.worn,
        }
      : null
  }
  const { blade } = money
  const beyond = blade.findIndex((b) => b.at >= use)
  // Past the table's end it is as good as never.
  const i = Math.max(1, beyond < 0 ? blade.length - 1 : beyond)
  const [a, b] = [blade[i - 1], blade[i] ?? blade.at(-1)]
  if (!a || !b) return null
  const f = Math.min(1, Math.max(0, (use - a.at) / (b.at - a.at || 1)))
  const mix = (of: (x: (typeof blade)[number]) => number) => of(a) * (1 - f) + of(b) * f
  return {
    total: mix((x) => x.total),
    parts: mix((x) => x.parts),
    handsMin: mix((x) => x.handsMin),
    standMin: mix((x) => x.standMin),
    worn: mix((x) => x.worn),
  }
}

export const BY_WORD: Record<LifeBy, string> = {
  class: 'kind of place',
  area: 'area',
  part: 'part',
  metal: 'metal',
  wire: 'wire',
  mode: 'mode',
  gas: 'gas',
  antiSpatter: 'anti-spatter',
  family: 'family',
  cable: 'cable',
  layout: 'lay of the cable',
  lot: 'lot of wire',
  wiper: 'wiper',
  coat: 'copper coat',
}
/** "KE-NP nozzle, plated lasts 3.5 times as long as KE-N (2.9–4.3)." */
export function comparedSentence(c: LifeAnswer['compared'][number]): string {
  const ratio =
    c.ratio === null
      ? ''
      : `${twoFigures(c.ratio)} times as long as ${c.first} (${twoFigures(c.low ?? 0)}–${twoFigures(c.high ?? 0)})`
  if (c.ratio === null) return `${c.second}: none has worn out yet to be held against ${c.first}.`
  if (c.verdict === 'cantTell')
    return `${c.second}: can’t tell yet. ${capital(ratio)} so far${c.more > 0 ? `; about ${twoFigures(c.more)} more worn ones would tell` : ''}.`
  return `${c.second} lasts ${ratio}.`
}
/** What the parts side by side are held against each other for. */
export const groupsFor = (at: Pick<LifeAnswer, 'groups' | 'unit'>, units: Units) =>
  forHundred(at.groups.find((g) => g.cost)?.cost?.per, at.unit, units)
/** What lasting longer is worth: dearer by the piece, and cheaper or dearer by the hour. Where both bands reach each other it is not told. */
export function cheaperSentence(
  at: Pick<LifeAnswer, 'groups' | 'currency' | 'unit'>,
  c: Pick<LifeAnswer['compared'][number], 'first' | 'second'>,
  units: Units,
): string {
  const costOf = (name: string) => at.groups.find((g) => g.name === name)?.cost ?? null
  const [first, second] = [costOf(c.first), costOf(c.second)]
  if (!first || !second) return ''
  const per = groupsFor(at, units)
  const by = `${aboutMoney(per.told(Math.abs(first.total - second.total)), at.currency)} in ${per.words}`
  const piece =
    second.eachMinor > 1.02 * first.eachMinor
      ? 'Dearer by the piece'
      : second.eachMinor < 0.98 * first.eachMinor
        ? 'Cheaper by the piece'
        : 'At the same price'
  if (second.high < first.low) return `${piece}, it saves about ${by}.`
  if (second.low > first.high) return `${piece}, it costs about ${by} more.`
  return `${piece}; whether it is cheaper by the hour can’t be told yet.`
}
export const movedWords = (c: LifeAnswer['compared'][number]): string =>
  c.movedWith.length === 0
    ? ''
    : `They also differ in ${listed(c.movedWith.map((by) => BY_WORD[by]))}: any of these may be why.`

/** "A7 goes through 3.3 times as many tips as its hours explain (3–3.6)." */
export function hungrySentence(h: LifeAnswer['hungry'][number], kind: KindKey): string {
  const times = `${twoFigures(h.z)} times as many ${partsName(kind)} as its use explains (${twoFigures(h.low)}–${twoFigures(h.high)})`
  return h.verdict === 'hungry'
    ? `${h.name} goes through ${times}.`
    : `${h.name} logs ${times}; it may simply log more than its neighbours.`
}
export const noHungryWords = (at: LifeAnswer): string =>
  at.placesSeen < 3
    ? 'Too few places to hold against each other.'
    : `None of ${at.placesSeen} places stands out for certain.`
/** What to look at, upstream of what it eats. */
export function lookUpstream(kind: KindKey, readings: readonly ReadingKey[]): string {
  const at =
    kind === 'tip'
      ? 'liner, cable lay and tension'
      : kind === 'nozzle'
        ? 'settings, gas and stick-out'
        : kind === 'liner'
          ? 'cable lay, wire and rolls'
          : 'what stands before it on the path'
  return readings.length > 0
    ? `Its ${listed(readings.map((what) => READING[what].name))} asks for a look already: begin there.`
    : `Look upstream before stocking more: ${at}.`
}

/** What such a list can tell and what it cannot. */
export const LONGER_CAUTION =
  'From the log alone: what always goes with one of these may be the reason in its place. A try-out, one half so and one half so, tells.'
export const CLEANED_CAUTION =
  'How often it is cleaned is not among them: what closes fast is cleaned often, so the log would blame the cleaning.'

/** "On Shale lasts 1.9 times as long as Kelp (1.6–2.3), all else equal." */
export function longerSentence(l: LifeAnswer['longer'][number]): string {
  const by = `${twoFigures(l.ratio)} times as long`
  const band = `(${twoFigures(l.low)}–${twoFigures(l.high)})`
  const isSure = l.low > 1 || l.high < 1
  return isSure
    ? `${capital(BY_WORD[l.by])} ${l.level}: ${by} as with ${l.against} ${band}.`
    : `${capital(BY_WORD[l.by])} ${l.level} or ${l.against}: can’t tell apart ${band}.`
}

export function alongsideWords(a: LifeAnswer['alongside'][number]): string {
  if (!a.isWorth) return `Leave the ${partName(a.kind)}, if it is good.`
  if (a.shareOfUsual > 1.2) return `Change the ${partName(a.kind)} too only where it is well past its usual.`
  return `Change the ${partName(a.kind)} too once it is past ${tenthsWords(a.shareOfUsual)} of its usual.`
}
const tenthsWords = (share: number) =>
  share >= 0.95 ? 'the whole' : share < 0.15 ? 'a tenth' : `${Math.max(1, Math.round(share * 10))} tenths`

export function tryoutSentence(t: LifeAnswer['tryouts'][number]): string {
  const { now } = t
  const seen =
    now.ratio === null
      ? ''
      : `${t.nameB} lasts ${twoFigures(now.ratio)} times as long as ${t.nameA} (${twoFigures(now.low ?? 0)}–${twoFigures(now.high ?? 0)})`
  if (now.answer === 'yes' || now.answer === 'early') return `Answered: ${seen}.`
  if (now.answer === 'noDifference')
    return `Answered: no difference of ${twoFigures(t.ratio)} times was found${seen ? `; ${seen}` : ''}.`
  const left =
    t.daysLeft === null
      ? ''
      : `, about ${countWord(Math.ceil(t.daysLeft / 7)).toLowerCase()} ${Math.ceil(t.daysLeft / 7) === 1 ? 'week' : 'weeks'} more at this rate`
  return `${now.ends} of ${t.needed} worn ones are in${left}.`
}
