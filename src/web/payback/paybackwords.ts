import { type KindKey, type CausePlace } from '@core/path/columns.ts'
import { COST_PARTS, totalMinor, type StopCost } from '@core/payback/stopcost.ts'
import { type HelpAnswer, type PaybackAnswer } from '@contract/payback.ts'
import { amount, aboutMoney, minutes, money, twoFigures, type Units } from '@web/format/numbers.ts'
import { capital, countWord, inN, listed, partName, placeName } from '@web/format/words.ts'
import { shopChangeWords } from '@web/logbook/shopwords.ts'

type Heaps = PaybackAnswer['heaps']
type Interval = { rate: number; low: number; high: number }

/** Where stops began, as the path names it. */
export const placeOf = (column: CausePlace | null) => (column === null ? 'nobody said where' : placeName(column))
const begin = (column: CausePlace) => (column === 'off' ? placeName(column) : `at the ${placeName(column)}`)

export const heapMinor = (heap: { cost: StopCost | null }): number => (heap.cost ? totalMinor(heap.cost) : 0)

/** "Down 55 h in 90 days, about €8,500. 27 h of it began at the liner." */
export function paybackSentence({ total, heaps, days, currency, isMoney }: PaybackAnswer): string {
  if (total.now.stops === 0) return `No stop in ${days} days.`
  const cost = isMoney && heapMinor(total.now) > 0 ? `, about ${aboutMoney(heapMinor(total.now), currency)}` : ''
  const whole = `Down ${minutes(total.now.minutes)} in ${days} days${cost}.`
  const worst = worstOf(heaps)
  return worst?.column ? `${whole} ${capital(minutes(worst.now.minutes))} of it began ${begin(worst.column)}.` : whole
}
const worstOf = (heaps: Heaps) =>
  [...heaps].filter((h) => h.column !== null).sort((a, b) => b.now.minutes - a.now.minutes)[0]

/** "Minutes × rate beside the part's price": what its cheap part cost, and what the hours did. */
export function cheapPartSentence({ heaps, currency, isMoney }: PaybackAnswer): string {
  const worst = worstOf(heaps)
  if (!worst?.now.cost || !isMoney || !worst.column || worst.parts === 0) return ''
  const parts = worst.now.cost.partsMinor
  const rest = totalMinor(worst.now.cost) - parts
  return `Parts put on there cost ${aboutMoney(parts, currency)}, the time ${aboutMoney(rest, currency)}.`
}

const COST_WORD: Record<(typeof COST_PARTS)[number], string> = {
  standMinor: 'standing',
  handsMinor: 'hands',
  partsMinor: 'parts',
  wireMinor: 'wire',
  scrapMinor: 'scrapped work',
}
/** "Standing €4,900, hands €2,100, parts €1,500": what is nothing is left out. */
export const costWords = (cost: StopCost, currency: string): string =>
  COST_PARTS.filter((part) => cost[part] >= 1)
    .map((part) => `${COST_WORD[part]} ${aboutMoney(cost[part], currency)}`)
    .join(', ')

export function beforeWords({ total, days, currency, isMoney }: PaybackAnswer): string {
  if (total.before.stops === 0) return `None written down in the ${days} days before.`
  const then = `The ${days} days before: ${minutes(total.before.minutes)}`
  return isMoney && heapMinor(total.before) > 0
    ? `${then}, about ${aboutMoney(heapMinor(total.before), currency)}.`
    : `${then}.`
}

/** What counts nothing since nobody priced it. */
export function unpricedWords({ unpriced, isMoney }: PaybackAnswer): string {
  if (!isMoney) return ''
  const missing = [
    ...(unpriced.standing ? ['an hour of standing'] : []),
    ...(unpriced.wire ? ['wire'] : []),
    ...unpriced.parts,
    ...(unpriced.scrap > 0 ? ['a scrapped piece'] : []),
  ]
  return missing.length === 0
    ? ''
    : `No price for ${missing.join(', ')}: that counts nothing, so it is at least this. Prices are in Our shop.`
}

/** "A nest costs about €20 here (half of them €7 to €34): 10 min of standing …" */
export function nestSentence({ nests, currency, days }: PaybackAnswer): string {
  if (!nests) return ''
  const often = `${capital(countWord(nests.n))} ${nests.n === 1 ? 'nest' : 'nests'} in ${days} days`
  if (nests.meanMinor === null) return `${often}, ${minutes(nests.meanMin)} each.`
  const half =
    nests.lowMinor === null || nests.highMinor === null
      ? ''
      : ` (half of them ${aboutMoney(nests.lowMinor, currency)} to ${aboutMoney(nests.highMinor, currency)})`
  return `A nest costs about ${aboutMoney(nests.meanMinor, currency)} here${half}, ${minutes(nests.meanMin)} each.`
}
export function nestDetail({ nests, currency }: PaybackAnswer, units: Units): string {
  if (!nests) return ''
  const guessed =
    nests.guessedWire === 0
      ? ''
      : ` ${nests.guessedWire === nests.n ? 'Nobody said' : `Of ${nests.guessedWire} nobody said`} how much wire was lost: it counts as long as the gun (guess).`
  const cost = nests.cost ? `All ${nests.n}: ${costWords(nests.cost, currency)}.` : ''
  return `${cost} ${amount(nests.wireKg, 'kg', units)} of wire.${guessed}`.trim()
}

/** "6 of 22 stops that were explained were not the feed: draught 3, gap between the pieces 2 …" */
export function notFeedSentence({ notFeed }: Pick<PaybackAnswer, 'notFeed'>): string {
  if (!notFeed || notFeed.n === 0) return ''
  const { n, explained, whys } = notFeed
  const told = listed(whys.map((w) => (w.n === n ? w.says : `${w.says} ${w.n}`)))
  return `${n} of ${explained} stops that were explained ${n === 1 ? 'was' : 'were'} not the feed (${minutes(notFeed.minutes)}): ${told}. No part of a gun puts ${n === 1 ? 'that' : 'these'} right.`
}

/** "2.2 (1.9–2.5)"; nothing where it cannot be said. */
export const spanOf = (r: Interval | null): string =>
  r === null
    ? '–'
    : `${twoFigures(r.rate)} (${twoFigures(r.low)}–${Number.isFinite(r.high) ? twoFigures(r.high) : '∞'})`

/** Where more diffusers go for the tips than elsewhere: threads forced, or diffusers turned along. */
export function diffuserSentence(rates: PaybackAnswer['rates']): string {
  const whole = rates.find((r) => r.areaId === null)?.diffusersFor100Tips
  const over = whole ? rates.filter((r) => r.areaId && (r.diffusersFor100Tips?.low ?? 0) > whole.high) : []
  const names = over.map((r) => r.name).join(', ')
  return over.length === 0
    ? ''
    : `${names}: more diffusers for its tips than elsewhere. Look at threads there: forced, or turned along with the tip.`
}

type Change = PaybackAnswer['changes'][number]
const CHANGE_WORD: Record<Exclude<Change['what'], 'part' | 'rule'>, string> = {
  gun: 'another gun on',
  wire: 'another wire',
  knob: 'tension calibrated',
  blown: 'cable blown out',
}
export function changeWords(c: Change, units: Units): string {
  if (c.what === 'rule') return c.rule ? capital(shopChangeWords(c.rule.change, c.rule.names, units)) : 'House rule'
  const what = c.what === 'part' ? `new ${c.position ? partName(c.position) : 'part'}` : CHANGE_WORD[c.what]
  return c.name ? `${c.name}: ${what}` : capital(what)
}

const UNIT: Record<HelpAnswer['unit'], string> = { arcHours: 'arc hours', kg: 'kg', scheduledHours: 'hours of work' }
const counted = (c: HelpAnswer['before'], unit: HelpAnswer['unit']) =>
  `${c.stops} in ${twoFigures(c.over)} ${UNIT[unit]}`

/** The plain answer first. */
export function helpSentence(h: HelpAnswer): string {
  const share = h.ratio === null ? '' : `${twoFigures(h.ratio)} times as often`
  if (h.is === 'fewer')
    return h.elsewhere === 'same'
      ? 'It stops less often, but so do the places where nothing was changed.'
      : `Yes: it stops ${share} as before (${spanWords(h)}).`
  if (h.is === 'more') return `No: it stops ${share} as before (${spanWords(h)}).`
  if (h.untilDays === null) return 'Can’t tell, and at these rates no time worth waiting will show it.'
  return `Can’t tell yet: about ${waitWords(h.untilDays)} more at this rate.`
}
/** How often chance alone would make so large a difference. */
const chanceWords = (p: number) =>
  p > 0.45 ? 'No difference to speak of.' : `Chance alone makes such a difference ${inN(p)}.`
const spanWords = (h: HelpAnswer) => `${twoFigures(h.low)} to ${h.high === null ? 'any' : twoFigures(h.high)}`
const waitWords = (days: number) => (days < 14 ? `${Math.ceil(days)} days` : `${Math.ceil(days / 7)} weeks`)

/** What it rests on, and what a bare count would hide. */
export function helpDetail(h: HelpAnswer): string[] {
  return [
    `Before ${counted(h.before, h.unit)} (${Math.round(h.days.before)} days), since ${counted(h.after, h.unit)} (${Math.round(h.days.after)} days). ${chanceWords(h.p)}`,
    ...(h.elsewhereRatio === null
      ? []
      : [`Everywhere else in the same weeks: ${twoFigures(h.elsewhereRatio)} times as often as before.`]),
    ...(h.isAfterBad
      ? ['It was changed at the end of a bad stretch: some of the fall would have come by itself.']
      : []),
  ]
}
export const priceWords = (minor: number | null, kind: KindKey | null, currency: string): string =>
  minor === null || kind === null ? '' : `one ${partName(kind)} ${money(minor, currency)}`
