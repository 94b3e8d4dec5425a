import { handItem, RIGHT, wrongOf, type HandItemKey } from '@core/classes/items.ts'
import { LEVELS, type Level } from '@core/classes/groups.ts'
import { type ClassesAnswer } from '@contract/classes.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { clockTime, when } from '@web/format/times.ts'
import { capital, countWord, inN, listed, lower, placeName } from '@web/format/words.ts'

type Teach = ClassesAnswer['teach'][number]
type Lesson = ClassesAnswer['lessons'][number]
type Booth = ClassesAnswer['booths'][number]

const things = (n: number) => `${countWord(n).toLowerCase()} ${n === 1 ? 'thing' : 'things'}`
const booths = (n: number) => `${n} ${n === 1 ? 'booth' : 'booths'}`

/** "Reed until 10:20. 6 of 8 looked at, three things found, one still so." */
export function classSentence({ period, is, group, booths: stand, nowMs, zone, groups }: ClassesAnswer): string {
  if (!period)
    return groups === 0
      ? 'No group yet: say who learns at which booths, and when.'
      : 'No class in the calendar for the next two weeks.'
  const name = group?.name ?? period.name
  const begins =
    is === 'now'
      ? `${name} until ${clockTime(period.toMs, zone)}.`
      : `${name} ${period.fromMs > nowMs ? 'comes' : 'came'} ${atTime(period.fromMs, nowMs, zone)}.`
  return `${begins} ${lookedWords(stand)}`
}
const atTime = (ms: number, nowMs: number, zone: string) => {
  const said = when(ms, nowMs, zone)
  return /^\d/.test(said) && said.includes(':') && said.length === 5 ? `at ${said}` : said
}
function lookedWords(stand: readonly Booth[]): string {
  const use = stand.filter((b) => !b.isParked)
  const looked = use.filter((b) => b.look)
  if (use.length === 0) return 'It has no booth.'
  if (looked.length === 0) return `${capital(booths(use.length))}, none looked at.`
  const found = looked.reduce((n, b) => n + wrongOf(b.look?.found ?? {}).length, 0)
  const still = looked.reduce((n, b) => n + (b.look?.still.length ?? 0), 0)
  const all = use.length === 1 ? 'Its booth is looked at' : `All ${use.length} looked at`
  const count = looked.length === use.length ? all : `${looked.length} of ${use.length} looked at`
  if (found === 0) return `${count}, nothing found.`
  return `${count}, ${things(found)} found${still > 0 ? `, ${countWord(still).toLowerCase()} still so` : ', all put right'}.`
}
/** "6 of 8 fit to give out. T3: down. T5: put on KE-T9, 2 min." What Floor knows of a booth comes first; then what was found. */
export function fitSentence(stand: readonly Booth[], known: ReadonlyMap<string, string>): string {
  const why = (b: Booth): string | null => {
    if (b.isDown) return 'down'
    if (b.isParked) return 'parked'
    const act = known.get(b.stationId)
    if (act) return lower(act)
    const still = b.look?.still ?? []
    return still.length > 0 ? lower(still.map((k) => foundPlain(k, b.look?.found[k] ?? RIGHT)).join(', ')) : null
  }
  const not = stand.flatMap((b) => {
    const said = why(b)
    return said ? [`${b.name}: ${said}`] : []
  })
  return `${stand.length - not.length} of ${stand.length} fit to give out.${not.length > 0 ? ` ${not.join('. ')}.` : ''}`
}
/** "gun half out" */
export function foundPlain(item: HandItemKey, answer: string): string {
  const { name, wrong, right } = handItem(item)
  return `${lower(name)} ${wrong.find((w) => w.key === answer)?.says ?? right}`
}

/** What to teach, in a sentence: what, how often, and whether it is this group's. */
export function teachSentence(t: Teach, group: string): string {
  const often = `${t.wrong} of ${t.looked} times`
  const spread = `${tenth(t.low)} to ${tenth(t.high)} in 100`
  const what = capital(
    lower(
      handItem(t.item)
        .wrong.map((w) => w.says)
        .join(' or '),
    ),
  )
  return t.why === 'thisGroup'
    ? `${what}: ${often} after ${group}, at the same booths more than after others (${spread}; by luck ${inN(t.byLuck ?? 1)}).`
    : `${what}: ${often} after all groups (${spread}). Nobody’s own: every group leaves it.`
}
const tenth = (share: number) => Math.round(share * 100)

/** What came of a lesson. */
export function helpedSentence({ before, since, othersBefore, othersSince, says, byLuck, looksToGo }: Lesson): string {
  const was = `${before.wrong} of ${before.looked} before, ${since.wrong} of ${since.looked} since`
  const others =
    othersBefore.looked > 0 && othersSince.looked > 0
      ? ` (others ${of100(othersBefore)} and ${of100(othersSince)} in 100)`
      : ''
  if (says === 'tooEarly')
    return looksToGo > 0
      ? `Too early to tell: ${was}. After ${looksToGo} more looks.`
      : `Cannot be told: too little was looked at before it (${was}).`
  if (says === 'helped') return `It helped: ${was}${others}; by luck ${inN(byLuck ?? 0)}.`
  return `Cannot tell yet: ${was}${others}.`
}
const of100 = ({ wrong, looked }: { wrong: number; looked: number }) => Math.round((100 * wrong) / looked)

/** What was found for a class, the most first: "gun in its socket 3, work clamp 1". */
export function foundList(found: ClassesAnswer['found']): string {
  const wrong = found.filter((f) => f.wrong > 0).sort((a, b) => b.wrong - a.wrong)
  return listed(wrong.map((f) => `${lower(handItem(f.item).name)} ${f.wrong}`))
}

/** "13 classes in seven days: about 12 (8 to 16); in four weeks about 48. 40 on hand." And what to do, where they run out. */
export const areTipsShort = ({ month, part }: NonNullable<ClassesAnswer['tips']>) =>
  part?.onHand != null && part.onHand < month.high
/** The same in words. */
export function tipsSentence({ week, month, part }: NonNullable<ClassesAnswer['tips']>): string {
  const round = (n: number) => Math.round(n)
  const said = `${week.classes} ${week.classes === 1 ? 'class' : 'classes'} in seven days: about ${round(week.mean)} (${week.low} to ${week.high}); in four weeks about ${round(month.mean)} (${month.low} to ${month.high}).`
  if (!part || part.onHand === null) return said
  const short =
    part.onHand < week.high
      ? ' Order now: they may not last the week.'
      : part.onHand < month.high
        ? ' They may not last the four weeks.'
        : ''
  return `${said} ${part.onHand} ${part.code} on hand.${short}`
}

/**
 * "14 calls in seven days. Tip 6, nozzle 3, gun pin 2; machine or gun, nobody said where 1; the machine was well twice: hand, joint or metal."
 */
export function callsSentence({ n, places, machine, notMachine, untold }: NonNullable<ClassesAnswer['calls']>): string {
  if (n === 0) return 'Nobody called in seven days.'
  const at = places.slice(0, MOST_PLACES).map((p) => `${placeName(p.place)} ${p.n}`)
  const others = places.slice(MOST_PLACES).reduce((s, p) => s + p.n, 0)
  const unsaid = machine + untold
  const parts = [
    [...at, ...(others > 0 ? [`elsewhere ${others}`] : [])].join(', '),
    unsaid > 0 ? `machine or gun, nobody said where ${unsaid}` : '',
    notMachine > 0
      ? `the machine was well ${notMachine === 1 ? 'once' : `${notMachine} times`}: hand, joint or metal`
      : '',
  ].filter(Boolean)
  return `${n} ${n === 1 ? 'call' : 'calls'} in seven days. ${capital(parts.join('; '))}.`
}
const MOST_PLACES = 3

const THOSE: Record<Level, string> = { new: 'beginners', some: 'those with some practice', skilled: 'skilled ones' }
/**
 * "Steel 1.0: about 14 kg in seven days (11 to 17); in four weeks about 55 kg (46 to 64). At one booth beginners weld 0.4 kg an hour, skilled 1.1 kg. 30 kg
 * on the shelf: two more spools before the four weeks are over."
 */
export function wireSentence(w: Wire, units: Units): string {
  const of = (kg: number) => amount(kg, 'kg', units)
  const band = ({ low, high }: { low: number; high: number }) => `(${of(low)} to ${of(high)})`
  const said = `${capital(w.name)}: about ${of(w.week.mean)} in seven days ${band(w.week)}; in four weeks about ${of(w.month.mean)} ${band(w.month)}.`
  return `${said} ${ratesWords(w.perHour, of)} ${shelfWords(w, of)}`
}
type Wire = ClassesAnswer['wires'][number]
function ratesWords(perHour: Wire['perHour'], of: (kg: number) => string): string {
  const by = LEVELS.flatMap((level) => perHour.filter((r) => r.level === level).map(({ kg }) => ({ level, kg })))
  const [first, ...more] = by
  if (!first)
    return `At one booth ${of(perHour[0]?.kg ?? 0)} an hour of class, whatever the level as far as it can be told.`
  const rest = more.map((r) => `${THOSE[r.level]} ${of(r.kg)}`)
  return `At one booth ${listed([`${THOSE[first.level]} weld ${of(first.kg)} an hour of class`, ...rest])}.`
}
function shelfWords(w: Wire, of: (kg: number) => string): string {
  const unknown = w.unknown > 0 ? ` and ${w.unknown} ${w.unknown === 1 ? 'spool' : 'spools'} nobody weighed` : ''
  const there = w.onHandKg > 0 || w.unknown > 0 ? `${of(w.onHandKg)}${unknown} on the shelf` : 'None on the shelf'
  const [week, month] = [w.week, w.month].map((t) => Math.max(0, Math.ceil((t.high - w.onHandKg) / w.spoolKg))) as [
    number,
    number,
  ]
  if (month === 0 || w.unknown > 0) return `${there}.`
  const spools = (n: number) => `${countWord(n).toLowerCase()} more ${n === 1 ? 'spool' : 'spools'}`
  const wants =
    week === 0
      ? `${spools(month)} may be wanted before the four weeks are over`
      : week === month
        ? `${spools(week)} may be wanted this week`
        : `${spools(week)} may be wanted this week, ${countWord(month).toLowerCase()} in four`
  return `${there}, and what hangs on the guns: ${wants}.`
}

export interface WireChange {
  wireId: string
  wireName: string
  booths: { stationId: string; name: string }[]
}
/** Booths that hang another wire than their group wants, by the wire they want: each one list of changes. */
export function wireChanges(booths: ClassesAnswer['booths']): WireChange[] {
  const by = new Map<string, WireChange>()
  for (const { stationId, name, wantsWireId, wantsWireName, isParked } of booths) {
    if (!wantsWireId || !wantsWireName || isParked) continue
    const change = by.get(wantsWireId) ?? { wireId: wantsWireId, wireName: wantsWireName, booths: [] }
    change.booths.push({ stationId, name })
    by.set(wantsWireId, change)
  }
  return [...by.values()].sort((a, b) => b.booths.length - a.booths.length)
}
