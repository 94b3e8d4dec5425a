import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { type WireId } from '@core/ids/id.ts'
import { conduitFriction, frictionBy, isPullWay, type PullWay } from '@core/drag/pulls.ts'
import { type Fact, type ReadingFact } from '@core/ledger/event.ts'
import { boreMm, judgeReading, outsidePhysics, type Judged } from '@core/reading/judge.ts'
import { asksPurpose, judgedAsMeant } from '@core/reading/purpose.ts'
import { slipShare } from '@core/reading/made.ts'
import { RAISED_WAYS } from '@core/reading/raised.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { methodOf, READING, type Method } from '@core/reading/specs.ts'
import { type FeederFacts } from '@core/rightparts/facts.ts'
import { type Target } from '@core/reading/target.ts'
import { type ReadingDone, type readingRequest } from '@contract/reading.ts'
import { happenedAt, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { settledFacts } from '@server/followup/act.ts'
import { carrierAt, checkTime, type Place } from '@server/write/place.ts'
import { logFacts } from '@server/write/facts.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { frontOf, schoolHere, setupOf, type Hung } from '@server/gunnow/setup.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { arcSinceCleaned, targetHere } from './read.ts'
import { knobNormHere } from './norm.ts'
import { readingsHere } from '@server/gunnow/readingkept.ts'

type Request = z.output<typeof readingRequest>

/** A reading kept, with its verdict as typed. Numbers no gun can show are asked back; meant all the same, they are kept. */
export async function logReading(deps: Deps, who: Who, r: Request): Promise<ReadingDone> {
  const method = methodOf(r.what, r.method)
  if (!method)
    throw new DomainError('bad-request', `${READING[r.what].name}: there is no way to read it called "${r.method}".`)
  const made = numbersOf(r, method)
  if (!r.isMeant) askBack(r.what, [made.value, made.left])
  if (r.happenedMs !== undefined) checkTime(r.happenedMs, deps.now())
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const hung = await hungOne(deps.db, shop, r.stationId)
  const here = await readingsHere(deps.db, hung, shop)
  mustMayRaise(r, hung, shop)
  const normBy = await knobNormHere(deps.db, hung, shop)
  const target = targetHere(r.what, { hung, shop, here, normBy, method: r.method })
  if (!r.isMeant) {
    askBoreBack(made, target)
    if (r.what === 'tension') askKnobBack([made.value, made.left], setupOf(hung, shop).feeder)
  }
  const kept = {
    ...made,
    from: { ...cleanedBefore(r.what, { hung, shop, here }, r.happenedMs ?? happenedAt(deps)), ...made.from },
  }
  const eventId = await logFacts(deps, who, {
    kind: 'read',
    key: r.key,
    stationId: r.stationId,
    note: r.note ?? null,
    factsOf: (place, at) =>
      readingFacts(r, kept, {
        place,
        shop: at,
        target,
        wireId: hung.spoolWireId,
        nowMs: r.happenedMs ?? happenedAt(deps),
      }),
    ...(r.happenedMs === undefined ? {} : { happenedMs: r.happenedMs }),
  })
  return { eventId, ...judgedOf(r, made, target), target }
}

/** As its number and what was seen say; outside on purpose, with its reason: good. */
function judgedOf(r: Request, made: Numbers, target: Target | null): Judged {
  const judged = judgeReading({ ...r, ...made }, target)
  return r.isOnPurpose && asksPurpose(r.what, judged, target) ? judgedAsMeant(judged) : judged
}

/** A shop that never raises tension to keep going is not told that it was. */
function mustMayRaise(r: Request, hung: Hung, shop: ShopModel): void {
  if (!r.keepGoing || RAISED_WAYS[schoolHere('D25', hung, shop)].canKeep) return
  throw new DomainError('bad-request', 'House rule: tension is not raised to keep going.', [
    'Put the knob back where it was, and look at liner, tip and rolls; or say that it is set anew.',
  ])
}

/** How long it had been clean, kept with how closed it was found: what the cleaning interval learns from. */
function cleanedBefore(
  what: ReadingKey,
  at: Parameters<typeof arcSinceCleaned>[0],
  nowMs: number,
): Record<string, number> {
  const nozzle = frontOf(at.hung)?.rows.find((r) => r.position === 'nozzle')
  const sinceCleanedH = what === 'nozzleOpen' && nozzle ? arcSinceCleaned(at, nozzle, nowMs) : null
  const cycles = what === 'beforeReam' ? (setupOf(at.hung, at.shop).cell?.reamEvery ?? null) : null
  return { ...(sinceCleanedH === null ? {} : { sinceCleanedH }), ...(cycles === null ? {} : { cycles }) }
}

export interface Numbers {
  value: number | null
  left: number | null
  from: ReadingFact['from']
}

/** What a number is made of, worked out here once: oval from two diameters, a share from so many of so many, friction from pulls. */
export function numbersOf(r: Pick<Request, 'what' | 'value' | 'left' | 'from' | 'grade'>, method: Method): Numbers {
  const { from, left } = r
  const one = (key: string) => (typeof from[key] === 'number' ? from[key] : null)
  if (method.number === 'twoDiameters') {
    const [max, min] = [one('maxMm'), one('minMm')]
    if (max === null || min === null || !(min > 0) || max < min)
      throw new DomainError('bad-request', 'Two diameters are wanted: the widest, and the narrowest across it.', [
        'Give both in the same unit; the widest is not under the narrowest.',
      ])
    return { value: (max - min) / min, left: null, from }
  }
  if (method.number === 'ofTotal') {
    const [open, total] = [one('open'), one('total')]
    if (open === null || total === null || !(total > 0) || open > total || open < 0)
      throw new DomainError('bad-request', 'So many open of so many holes: the first is not over the second.')
    return { value: open / total, left: null, from }
  }
  if (method.number === 'rollAndWire') {
    const value = slipShare({ rollMm: one('rollMm') ?? 0, turns: one('turns') ?? 0, wireMm: one('wireMm') ?? 0 })
    if (value === null)
      throw new DomainError(
        'bad-request',
        'How far across the roll is, how many turns, and the wire that came are wanted.',
      )
    return { value, left: null, from }
  }
  if (method.number === 'gauge') {
    const bar = one('bar')
    if (bar === null) throw new DomainError('bad-request', 'What the gauge reads is wanted.')
    return { value: bar, left: null, from }
  }
  if (method.number === 'weights') return { value: conduitOf(r), left: null, from }
  if (r.what === 'pull' && isPullWay(method.key)) return { value: frictionOf(method.key, r), left: null, from }
  if (method.number === 'needed' && r.value === null && left === null)
    throw new DomainError('bad-request', `${READING[r.what].name}: a number is wanted.`)
  if (method.number === 'none' && r.grade === null)
    throw new DomainError('bad-request', `${READING[r.what].name}: what was seen?`)
  return { value: r.value, left, from }
}

const WHY_NOT = {
  missing: ['Pulls are wanted in every lay.', 'Pull each lay once at least, three times for how sure it is.'],
  pullTooSmall: [
    'The straight pull is under 2 N: that tells the brake, not the liner.',
    'Snug the hub brake for the test, tie a reminder, pull again.',
  ],
  notHarder: [
    'With the loop it pulled no harder than straight.',
    'Lay the loop as near the gun as it will lie, same tail, pull slowly; then again.',
  ],
} as const
function frictionOf(way: PullWay, { from }: Pick<Request, 'from'>): number {
  const loops = typeof from['loops'] === 'number' ? from['loops'] : 1
  const made = frictionBy(way, from, loops)
  if (made.ok) return made.friction
  const [says, todo] = WHY_NOT[made.reason]
  throw new DomainError('bad-request', says, [todo])
}

const CONDUIT_NOT = {
  missing: [
    'Two weights, a pull with each, and the bends are wanted.',
    'The second weight is the heavier; count every quarter turn.',
  ],
  pullTooSmall: [
    'The pull with the light weight is under 2 N: the scale tells nothing there.',
    'Hang more on the tail, pull again.',
  ],
  notHarder: [
    'With the heavy weight it pulled hardly harder than the weights differ.',
    'Pull slowly and steadily, read while it moves; weights hang free.',
  ],
} as const
function conduitOf({ from }: Pick<Request, 'from'>): number {
  const numbers = Object.fromEntries(Object.entries(from).filter(([, v]) => typeof v === 'number'))
  const made = conduitFriction(numbers)
  if (made.ok) return made.friction
  const [says, todo] = CONDUIT_NOT[made.reason]
  throw new DomainError('bad-request', says, [todo])
}

function askBack(what: ReadingKey, values: readonly (number | null)[]): void {
  for (const value of values) {
    if (value === null) continue
    const outside = outsidePhysics(what, value)
    if (outside.ok) continue
    throw new DomainError(
      'asked-back',
      `${READING[what].name}: ${value} is beyond any gun.`,
      outside.suggest === null ? ['Read it again.'] : [`Did you mean ${outside.suggest}?`],
    )
  }
}

/** A mark that is not on this feeder's knob. */
function askKnobBack(marks: readonly (number | null)[], feeder: FeederFacts | null): void {
  const [from, to] = [feeder?.scaleFrom ?? null, feeder?.scaleTo ?? null]
  for (const mark of marks) {
    const isOff = mark !== null && ((to !== null && mark > to) || (from !== null && mark < from))
    if (isOff)
      throw new DomainError(
        'asked-back',
        `The knob of this feeder goes from ${from ?? 0} to ${to ?? 'its end'}; ${mark} is not on it.`,
        ['Read it again; or its scale is told wrong, under what fits.'],
      )
  }
}

/** A bore that the wire which is on cannot pass: misread, or another wire is on than is known. */
function askBoreBack({ from }: Numbers, target: Target | null): void {
  const narrowest = from['minMm']
  if (!target?.bore || typeof narrowest !== 'number') return
  const mm = boreMm(narrowest)
  if (mm >= target.bore.leastMm - READ_TO_MM) return
  throw new DomainError(
    'asked-back',
    `A bore of ${mm.toFixed(2)} mm: the ${target.bore.leastMm} mm wire that is on does not go through it.`,
    ['Read it again; or another wire is on than is written down.'],
  )
}
/** A calliper in a hole reads no finer. */
const READ_TO_MM = 0.03

interface FactsAt {
  place: Place
  shop: ShopModel
  target: Target | null
  wireId: WireId | null
  nowMs: number
}
/** What is kept of a reading: itself, what it ties, what it settles. */
export function readingFacts(r: Request, made: Numbers, at: FactsAt): Fact[] {
  const { place, shop, target } = at
  const spec = READING[r.what]
  const carrierId = (spec.isOfGun ? place.now.gunId : null) ?? carrierAt(place, spec.at, shop)
  const byItself = target === null || target.by === 'baseline' || target.by === 'scale'
  const limit = byItself ? null : spec.worse === 'down' ? target.from : target.to
  const fact: ReadingFact = {
    kind: 'reading',
    carrierId: carrierId,
    what: r.what,
    method: r.method,
    how: r.how,
    ...made,
    // Raised with no day on it is raised all the same.
    from: r.keepGoing ? { ...made.from, keepDays: r.keepGoing.days ?? 0 } : made.from,
    grade: r.grade,
    is: judgedOf(r, made, target).is,
    headId: place.now.headId,
    wireId: at.wireId,
    limit,
  }
  const isCentred = r.what === 'toolCentre' && fact.is === 'good'
  // A clean ream shows that blade and clamp go with what is on.
  const isReamed = r.what === 'afterReam' && fact.is === 'good'
  // The knob read and left alone is no setting of the tension.
  const isSetOrTried = r.left !== null || r.grade !== null
  const settled =
    r.what === 'tension' && isSetOrTried
      ? [...new Set([...r.settled, 'tension' as const])]
      : [...r.settled, ...(isCentred ? (['toolCentre'] as const) : []), ...(isReamed ? (['reamer'] as const) : [])]
  return [fact, ...raisedFacts(r, at), ...settledFacts(place, settled)]
}

/** Raised to keep a gun going: it hangs there till a day, and somebody looks at the liner (D25). */
function raisedFacts(r: Request, { place, shop, nowMs }: FactsAt): Fact[] {
  if (!r.keepGoing || r.what !== 'tension') return []
  const { days } = r.keepGoing
  const until = days === null ? {} : { untilMs: nowMs + days * DAY_MS }
  return [{ kind: 'tied', carrierId: carrierAt(place, 'rolls', shop), tag: 'knobRaised', ...until }]
}
