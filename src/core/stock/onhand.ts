import { type StationId, type StoreId } from '@core/ids/id.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { DAY_MS } from '@core/units/time.ts'

/** Handed out for a place and put on there within so long is one part, not two. */
export const ISSUED_FOR_MS = 14 * DAY_MS

/** What lies in one place where parts lie; null: the main one. */
export interface LiesAt {
  storeId: StoreId | null
  onHand: number
  /** Since when it is known: its newest count, or what was carried to a place that was never counted. */
  countedMs: number
}

/**
 * What lies where, of one part, by everything that was said of it:
 * 1. A count says what lies in its place, whatever was said before; other places stay as they were.
 * 2. What came in lies where it was put: in the main place unless said. What was carried left one place for another; a place nobody counted begins as
 *    empty with what is carried to it.
 * 3. What is put on, spoiled or handed out at a gun comes from the place that serves the gun's area while any is there, else from the main one; where
 *    only one of the two was ever counted, from that.
 * 4. What was handed out for a gun and put on there within two weeks is one part, not two, also where the shelf was counted in between.
 * A place of which nothing is known stands in no row.
 */
export function liesFrom(
  standings: readonly Standing[],
  storeOf: (stationId: StationId) => StoreId | null = () => null,
): LiesAt[] {
  const places = new Map<StoreId | null, LiesAt>()
  const inHands = new InHands()
  const add = (storeId: StoreId | null, quantity: number) => {
    const lies = places.get(storeId)
    if (lies) lies.onHand += quantity
  }
  const take = (stationId: StationId | null, quantity: number) => {
    const own = stationId === null ? undefined : places.get(storeOf(stationId))
    for (let i = 0; i < quantity; i++) {
      const from = own && (own.onHand > 0 || !places.has(null)) ? own : places.get(null)
      if (from) from.onHand -= 1
    }
  }
  for (const { fact, happenedMs, stationId } of [...standings].sort(inOrder)) {
    const begin = (storeId: StoreId | null, onHand: number) =>
      places.set(storeId, { storeId, onHand, countedMs: happenedMs })
    if (fact.kind === 'counted') begin(fact.storeId ?? null, fact.quantity)
    if (fact.kind === 'received') add(fact.storeId ?? null, fact.quantity)
    if (fact.kind === 'carried') {
      if (!places.has(fact.toStoreId)) begin(fact.toStoreId, 0)
      add(fact.fromStoreId, -fact.quantity)
      add(fact.toStoreId, fact.quantity)
    }
    if (fact.kind === 'issued') {
      take(stationId, fact.quantity)
      inHands.give(stationId, fact.quantity, happenedMs)
    }
    const used = usedUp(fact)
    if (used > 0) take(stationId, used - inHands.use(stationId, used, happenedMs))
  }
  return [...places.values()]
}

/** What was handed out for each gun and is not on it yet. */
class InHands {
  private readonly given = new Map<StationId | null, number[]>()
  give(stationId: StationId | null, quantity: number, atMs: number): void {
    const out = Array<number>(quantity).fill(atMs)
    this.given.set(stationId, [...(this.given.get(stationId) ?? []), ...out])
  }
  /** How many of those put on now were handed out for it. */
  use(stationId: StationId | null, quantity: number, atMs: number): number {
    const there = (this.given.get(stationId) ?? []).filter((at) => atMs - at <= ISSUED_FOR_MS)
    const used = Math.min(there.length, quantity)
    this.given.set(stationId, there.slice(used))
    return used
  }
}

const usedUp = (fact: Standing['fact']): number => {
  if (fact.kind === 'spoiled') return 1
  return fact.kind === 'fitted' && fact.entryAge === 'new' ? fact.count : 0
}

/** A count of the same instant speaks of what lies there after all else. */
const inOrder = (a: Standing, b: Standing): number =>
  a.happenedMs - b.happenedMs || isCount(a) - isCount(b) || a.loggedMs - b.loggedMs
const isCount = ({ fact }: Standing): number => (fact.kind === 'counted' ? 1 : 0)

/** All places together; null: nothing is known. Counted when the main one was, else the newest of the others. */
export function allTogether(lies: readonly LiesAt[]): Pick<LiesAt, 'onHand' | 'countedMs'> | null {
  if (lies.length === 0) return null
  const main = lies.find((l) => l.storeId === null)
  return {
    onHand: lies.reduce((sum, l) => sum + l.onHand, 0),
    countedMs: main?.countedMs ?? Math.max(...lies.map((l) => l.countedMs)),
  }
}

/**
 * From which places to take so many: for each gun from the place that serves it while any lie there, the rest from the main one.
 * @param wanted how many by the place that serves; null: the main one
 */
export function takeFrom(
  lies: readonly LiesAt[],
  wanted: ReadonlyMap<StoreId | null, number>,
): { storeId: StoreId | null; quantity: number }[] {
  let left = 0
  const own = [...wanted].flatMap(([storeId, quantity]) => {
    const there = storeId === null ? 0 : Math.max(0, lies.find((l) => l.storeId === storeId)?.onHand ?? 0)
    const taken = Math.min(there, quantity)
    left += quantity - taken
    return taken > 0 ? [{ storeId, quantity: taken }] : []
  })
  return left > 0 ? [...own, { storeId: null, quantity: left }] : own
}
