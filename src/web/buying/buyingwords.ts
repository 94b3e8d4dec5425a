import { DAY_MS } from '@core/units/time.ts'
import { type AdviceLine, type OfferLine, type StockAnswer, type StockPart, type StoreAnswer } from '@contract/stock.ts'
import { aboutMoney, money, twoFigures } from '@web/format/numbers.ts'
import { shortDate } from '@web/format/times.ts'
import { capital, countWord, inN, listed, lower, MAIN_PLACE } from '@web/format/words.ts'

/** A part is short where it is likelier than not out before an order of today is in, or already nearly sure to be within it. */
const SHORT_CHANCE = 0.2
export const isShort = (p: StockPart): boolean =>
  p.advice !== null && p.onHand !== null && p.advice.chanceShort > SHORT_CHANCE
/** To be ordered now, though it would last. */
export const isToOrder = (p: StockPart): boolean =>
  p.advice !== null && p.onHand !== null && p.advice.orderInDays !== null && p.advice.orderInDays < 1

const soonest = (a: StockPart, b: StockPart) =>
  (a.advice?.runsOut.middle ?? Infinity) - (b.advice?.runsOut.middle ?? Infinity)

/** "about Thursday 3 Dec (1–6 Dec)", "now". */
export function outWhen(p: StockPart, at: Pick<StockAnswer, 'nowMs' | 'zone'>): string {
  const { low, middle, high } = p.advice?.runsOut ?? { low: null, middle: null, high: null }
  if (middle === null) return 'not within a year'
  if (middle < 0.5) return 'now'
  const day = (days: number) => shortDate(at.nowMs + days * DAY_MS, at.zone)
  const band = low !== null && high !== null && day(low) !== day(high) ? ` (${day(low)} to ${day(high)})` : ''
  return `about ${day(middle)}${band}`
}

/** What the page says first. */
export function partsSentence(at: StockAnswer): string {
  const asked = at.parts.filter((p) => p.inUse > 0)
  if (asked.length === 0)
    return 'No part is on any gun yet. Say what is on the guns; then this page says what will be wanted.'
  const counted = asked.filter((p) => p.onHand !== null)
  if (counted.length === 0)
    return 'Nobody has counted the shelf yet. Count what is there; then this page says what runs out, and when.'
  const told = counted.filter((p) => p.advice !== null)
  if (told.length === 0)
    return 'Nobody can tell yet what will be wanted: log what the guns weld (spools, shift totals), bring the purchase list in, or count the shelf again in a few weeks.'
  const short = asked.filter(isShort).sort(soonest)
  if (short.length > 0) {
    const first = short.slice(0, SAID).map((p) => `${p.code} ${outWhen(p, at)}`)
    const rest = short.length - first.length
    const more = rest > 0 ? `, and ${lower(countWord(rest))} more` : ''
    return `${partsCount(short.length)} ${short.length === 1 ? 'runs' : 'run'} out before an order of today could be here: ${first.join('; ')}${more}.`
  }
  const due = asked.filter(isToOrder)
  if (due.length > 0)
    return `Nothing runs out before an order of today could be here. ${partsCount(due.length)} ${due.length === 1 ? 'is' : 'are'} to be ordered now: ${listed(due.slice(0, SAID).map((p) => p.code))}${due.length > SAID ? ' …' : ''}.`
  const next = asked
    .filter((p) => p.onHand !== null && p.advice?.orderInDays != null)
    .sort((a, b) => (a.advice?.orderInDays ?? 0) - (b.advice?.orderInDays ?? 0))[0]
  return next
    ? `Nothing wants ordering. Next is ${next.code}, in about ${inDays(next.advice?.orderInDays ?? 0)}.`
    : told.length < counted.length
      ? 'Nothing that can be told wants ordering within a year.'
      : 'Nothing wants ordering within a year.'
}
const SAID = 2
const partsCount = (n: number) => `${countWord(n)} ${n === 1 ? 'part' : 'parts'}`
export const inDays = (days: number): string => {
  if (days < 1) return 'a day'
  if (days < 14) return `${Math.round(days)} ${Math.round(days) === 1 ? 'day' : 'days'}`
  if (days < 70) return `${Math.round(days / 7)} weeks`
  return `${Math.round(days / 30)} months`
}

/** Cheap: a week without it costs so many times what it costs itself. */
const CHEAP = 100
/** The one cheap part whose absence would cost most, and why. */
export function dearestAbsence(at: StockAnswer): StockPart | null {
  const cheap = at.parts.filter((p) => {
    const each = p.advice?.eachMinor
    return each != null && each > 0 && (p.advice?.weekWithoutMinor ?? 0) > CHEAP * each
  })
  return cheap.sort((a, b) => (b.advice?.weekWithoutMinor ?? 0) - (a.advice?.weekWithoutMinor ?? 0))[0] ?? null
}
export function absenceSentence(at: StockAnswer): string {
  const p = dearestAbsence(at)
  if (!p?.advice) return ''
  const { eachMinor, weekWithoutMinor } = p.advice
  const where =
    p.stands.length > 0 ? `, because ${listed(p.stands)} ${p.stands.length === 1 ? 'stands' : 'stand'} without it` : ''
  return `Of what costs little, ${p.code} (${p.name}, ${money(eachMinor ?? 0, at.currency)} each) would cost most if it were not there: a week without it about ${aboutMoney(weekWithoutMinor, at.currency)}${where}.`
}

/** What is here, by count and by log. */
export function hereWords(p: StockPart, at: Pick<StockAnswer, 'zone'>): string {
  if (p.onHand === null) return 'Never counted.'
  const counted = p.countedMs === null ? '' : `, counted ${shortDate(p.countedMs, at.zone)}`
  const byLog = p.onHand < 0 ? 'none by the log, which has taken more than was there' : `${p.onHand} by count and log`
  const off = p.likely && p.onHand >= 0 ? p.onHand - p.likely.mean : 0
  const likely =
    p.likely && off >= Math.max(2, 0.03 * p.onHand)
      ? ` About ${tens(p.likely.share)} changes get logged, so more likely ${Math.round(p.likely.mean)} (${Math.round(p.likely.low)}–${Math.round(p.likely.high)}).`
      : ''
  const kits = p.packed > 0 ? ` ${p.packed} of them ${p.packed === 1 ? 'lies' : 'lie'} packed in a kit.` : ''
  return `${capital(byLog)}${counted}.${likely}${kits}${p.onHand < 0 ? ' Count it again.' : ''}`
}
const tens = (share: number) => `${Math.max(1, Math.round(share * 10))} in 10`

/** "8 on the main shelf; 6 at Cell cupboard (counted 2 Nov)", and what nobody counted; empty where all lie in one place. */
export function placesWords(p: StockPart, at: Pick<StockAnswer, 'stores' | 'zone'>): string {
  if (!p.lies.some((l) => l.storeId !== null)) return ''
  const nameOf = (id: string | null) =>
    id === null ? `on ${MAIN_PLACE}` : `at ${at.stores.find((s) => s.id === id)?.name ?? 'a place that is gone'}`
  const each = p.lies.map((l) => {
    const day = shortDate(l.countedMs, at.zone)
    const since = p.countedMs !== null && day === shortDate(p.countedMs, at.zone) ? '' : ` (counted ${day})`
    return `${l.onHand < 0 ? 'none by the log' : l.onHand} ${nameOf(l.storeId)}${since}`
  })
  const main = p.lies.some((l) => l.storeId === null)
    ? ''
    : ` Nobody counted ${MAIN_PLACE} for it: what lies there is left out.`
  return `${capital(each.join('; '))}.${main}`
}

/** What to carry to a place, in a sentence; what will not last all the same is said. */
export function fillWords(s: StoreAnswer): string {
  const days = s.fillDays === 1 ? 'a day' : `${s.fillDays} days`
  if (s.fill.length === 0) return 'nothing is kept there yet: count it there, or carry some to it.'
  if (s.fill.every((f) => f.level === null)) return 'nobody can tell yet what its guns will take.'
  const carry = s.fill.filter((f) => f.carry > 0)
  const short = s.fill.filter((f) => f.level !== null && Math.max(0, f.onHand) + f.carry < f.level)
  const first =
    carry.length > 0
      ? `for ${days} carry ${listed(carry.map((f) => `${f.carry} ${f.code}`))} there.`
      : short.length === 0
        ? `what is kept there lasts ${days}, 19 times in 20.`
        : ''
  const codes = listed(short.map((f) => `${f.code} (${f.level} wanted)`))
  const last = short.length > 0 ? `${codes} will not last ${days}: ${MAIN_PLACE} has too few to spare.` : ''
  return [first, last].filter(Boolean).join(' ')
}
/** Why so many: what its guns take, what lies there, what the main place has. */
export function fillBecause(f: StoreAnswer['fill'][number]): string {
  const there = `${Math.max(0, f.onHand)} there`
  if (f.level === null) return `${there}; what its guns take nobody can tell yet`
  const short =
    f.main !== null && f.carry < f.level - Math.max(0, f.onHand) ? `, ${Math.max(0, f.main)} left on ${MAIN_PLACE}` : ''
  return `${there}, ${f.level} wanted (its guns take about ${twoFigures(f.mean ?? 0)})${short}`
}

/** What will be asked for, and by what that is known. */
export function needWords(p: StockPart, untilDays: number | null): string {
  const of = (days: number) => p.need.find((n) => Math.abs(n.days - days) < 1e-6)
  const band = (n: { mean: number; low: number; high: number }) =>
    `${twoFigures(n.mean)} (${n.low === n.high ? n.low : `${n.low}–${n.high}`})`
  const month = of(30)
  const [week, quarter] = [of(7), of(90)]
  if (!month || !week || !quarter)
    return 'How many will be wanted nobody can tell yet: no life of it is known, and its shelf was not counted twice.'
  const term = untilDays === null ? null : p.need.at(-1)
  const until = term && Math.abs(term.days - (untilDays ?? 0)) < 1e-6 ? ` To that day: ${band(term)}.` : ''
  return `In a week ${band(week)}, in a month ${band(month)}, in three months ${band(quarter)}; the band holds 9 in 10.${until}`
}

const SOURCE: Record<NonNullable<StockPart['source']>, string> = {
  yours: 'your own lives',
  told: 'the lead’s word',
  trade: 'the trade’s guess of how long they last',
}
export function needBecause(p: StockPart): string {
  const seen =
    p.seen &&
    `${p.seen.by === 'counted' ? 'the shelf lost' : 'you bought'} ${Math.round(p.seen.taken)} in ${inDays(p.seen.days)}`
  const on = `${p.inUse} ${p.inUse === 1 ? 'is' : 'are'} on guns`
  const untold = p.untold > 0 && p.untold < p.inUse ? `; of ${p.untold} nobody knows the use` : ''
  if (p.by === 'counts') return `Because ${seen}; ${on}.`
  if (p.by === 'nothing') return p.inUse > 0 ? `${capital(on)}.` : 'It is on no gun.'
  const lives = p.source ? SOURCE[p.source] : 'how long they last'
  return `Because ${on}, each with its own age, by ${lives}${classesWords(p)}${seen ? `; ${seen}` : ''}${untold}.`
}
/** Booths that go by the calendar: fewer classes, less wire. */
function classesWords({ byClasses, inUse }: StockPart): string {
  if (!byClasses) return ''
  const { booths, pace } = byClasses
  const on = booths === inUse ? 'all by the classes that come' : `${booths} of them by the classes that come`
  if (Math.abs(pace - 1) < 0.05) return `; ${on}, as many as before`
  return pace === 0 ? `; ${on}: none in four weeks` : `; ${on}: in four weeks ${twoFigures(pace)} of the pace so far`
}

/** What to buy, and why just then and just so many. */
export function buyWords(p: StockPart, at: StockAnswer): string {
  const { advice } = p
  if (!advice) return ''
  const from = advice.supplierName ? ` from ${advice.supplierName}` : ''
  const when =
    p.onHand === null
      ? `Order when ${advice.point} are left`
      : advice.orderInDays === null
        ? 'Nothing to order within a year'
        : advice.orderInDays < 1
          ? 'Order now'
          : `Order in about ${inDays(advice.orderInDays)}, when ${advice.point} are left`
  const price =
    advice.eachMinor === null ? '' : `, about ${aboutMoney(advice.quantity * advice.eachMinor, at.currency)}`
  if (p.onHand !== null && advice.orderInDays === null) return `${when}.`
  return `${when}: ${advice.quantity}${from}${price}.`
}
export function buyBecause(p: StockPart, at: StockAnswer): string {
  const { advice } = p
  if (!advice) return ''
  const { meanwhile, leadDays, point, service, shortMinor } = advice
  const short =
    shortMinor >= 100 ? `one missing costs about ${aboutMoney(shortMinor, at.currency)}` : 'one missing costs little'
  const surely = service >= 0.995 ? 'practically always' : `${Math.floor(service * 100)} times in 100`
  return `About ${twoFigures(meanwhile)} are wanted in the ${inDays(leadDays)} an order takes; with ${point} it lasts ${surely}, because ${short}.`
}

/** Whose lead time it is. */
export function leadWords(o: OfferLine): string {
  const days = `${inDays(o.leadDays)}${o.sdLeadDays >= 0.7 ? ` ± ${inDays(o.sdLeadDays * 1.645)}` : ''}`
  return { orders: `${days}, by your orders`, told: `${days}, as said`, guess: `${days}, a guess` }[o.leadBy]
}
export function priceWords(o: OfferLine, currency: string): string {
  return o.bands
    .map((b) => (b.from > 1 ? `from ${b.from} ${money(b.each, currency)}` : money(b.each, currency)))
    .join(', ')
}

/** A small order of the quickest that saves more standing than it costs; null: it is as well to wait. */
export function bridgeWorth(p: StockPart): NonNullable<AdviceLine['bridge']> | null {
  const bridge = p.advice?.bridge
  if (!bridge || p.onHand === null) return null
  return bridge.standWithoutMinor - bridge.standWithMinor > bridge.minor ? bridge : null
}
/** Pay more now or wait: what bridges the time until the usual order is in, against what waiting costs. */
export function nowOrWait(p: StockPart, at: StockAnswer): string {
  const bridge = p.advice?.bridge
  if (!bridge || !p.advice || p.onHand === null) return ''
  const usual = p.advice.supplierName ?? 'the usual order'
  const buy = `${bridge.quantity} from ${bridge.supplierName} for about ${aboutMoney(bridge.minor, at.currency)}`
  const chance = chanceWords(bridge.chanceShort)
  if (bridgeWorth(p))
    return `Bridge it today: ${buy}. Waiting for ${usual} alone runs short ${chance}, which would cost about ${aboutMoney(bridge.standWithoutMinor, at.currency)} of standing.`
  return `Wait for ${usual}: it runs short ${chance}, about ${aboutMoney(bridge.standWithoutMinor, at.currency)} of standing; bridging it would take ${buy}.`
}
/** "9 times in 10", "1 time in 6". */
export function chanceWords(chance: number): string {
  if (chance > 0.97) return 'for sure'
  if (chance < 0.02) return 'hardly ever'
  const [n = '', of = ''] = inN(chance).split(' in ')
  return `${n} ${n === '1' ? 'time' : 'times'} in ${of}`
}

/** The part whose label or whose supplier's label was scanned. */
export function partOfCode(parts: readonly StockPart[], text: string): StockPart | undefined {
  const code = text.trim().toLowerCase()
  const isIts = (c: string | null) => c !== null && c.toLowerCase() === code
  return parts.find((p) => isIts(p.code)) ?? parts.find((p) => p.offers.some((o) => isIts(o.theirCode)))
}

/** A whole number of pieces, as it is typed in a list of many; none is one too. */
export const isCount = (text: string): boolean => /^\d{1,7}$/.test(text.trim())
