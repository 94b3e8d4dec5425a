import { type AreaId, type PartId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { DAY_MS } from '@core/units/time.ts'
import { asc, eq, gte } from 'drizzle-orm'
import { type Standing } from '@core/ledger/resolve.ts'
import { longestRun, takenByTin, takenFromPlaces, type ShelfSaid, type Taken } from '@core/parts/taken.ts'
import { part, stockNow, tinWeighing } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfShelves } from '@server/ledger/standings.ts'

/** A stretch in which it is known how many parts of a kind left the crib, for an area or the whole shop. */
export interface Evidence extends Taken {
  areaId: AreaId | null
  kindKey: KindKey
  /** Only changes to these parts count, where the shelf of each was counted; null: every part of the kind. */
  partIds: ReadonlySet<PartId> | null
}

/** Shelves counted at least twice: what left each, put together per kind. */
export async function shelfStretches(db: Reader, sinceMs: number): Promise<Evidence[]> {
  const parts = await db
    .selectDistinct({ id: part.id, kindKey: part.kindKey })
    .from(stockNow)
    .innerJoin(part, eq(part.id, stockNow.partId))
  const shelves = await standingOfShelves(
    db,
    parts.map((p) => p.id),
    sinceMs,
  )
  const byKind = new Map<KindKey, Shelf[]>()
  for (const { id, kindKey } of parts) {
    const taken = shelfOf(shelves.get(id) ?? [])
    if (taken) byKind.set(kindKey, [...(byKind.get(kindKey) ?? []), { partId: id, taken }])
  }
  return [...byKind].map(([kindKey, list]) => together(kindKey, list))
}

/** Of each part whose shelf was counted at least twice: what left it. */
export async function takenByShelf(db: Reader, sinceMs: number): Promise<Map<PartId, Taken>> {
  const parts = await db.selectDistinct({ id: stockNow.partId }).from(stockNow)
  const ids = parts.map((p) => p.id)
  const shelves = await standingOfShelves(db, ids, sinceMs)
  return new Map(
    ids.flatMap((id) => {
      const taken = shelfOf(shelves.get(id) ?? [])
      return taken ? [[id, taken] as const] : []
    }),
  )
}

interface Shelf {
  partId: PartId
  taken: Taken
}

const shelfOf = (standing: readonly Standing[]): Taken | null =>
  takenFromPlaces(
    standing.flatMap(({ fact, happenedMs: atMs }): ShelfSaid[] => {
      if (fact.kind === 'counted' || fact.kind === 'received')
        return [{ said: fact.kind, at: fact.storeId ?? '', quantity: fact.quantity, atMs }]
      if (fact.kind !== 'carried') return []
      const { fromStoreId, toStoreId, quantity } = fact
      return [{ said: 'carried', from: fromStoreId ?? '', to: toStoreId ?? '', quantity, atMs }]
    }),
  )

/** Shelves of one kind are counted on one round: those counted over the same days as the longest of them speak together. */
function together(kindKey: KindKey, shelves: readonly Shelf[]): Evidence {
  const longest = shelves.reduce((best, s) =>
    s.taken.toMs - s.taken.fromMs > best.taken.toMs - best.taken.fromMs ? s : best,
  )
  const isWith = (t: Taken) =>
    Math.abs(t.fromMs - longest.taken.fromMs) < DAY_MS && Math.abs(t.toMs - longest.taken.toMs) < DAY_MS
  const same = shelves.filter((s) => isWith(s.taken))
  return {
    areaId: null,
    kindKey,
    source: 'counted',
    fromMs: longest.taken.fromMs,
    toMs: longest.taken.toMs,
    taken: same.reduce((sum, s) => sum + s.taken.taken, 0),
    sdTaken: Math.hypot(...same.map((s) => s.taken.sdTaken)),
    partIds: new Set(same.map((s) => s.partId)),
  }
}

export type TinRow = typeof tinWeighing.$inferSelect

/** Weighings in order, one a day and tin: the one logged last holds. */
export async function readTins(db: Reader, sinceMs: number): Promise<TinRow[]> {
  const rows = await db
    .select()
    .from(tinWeighing)
    .where(gte(tinWeighing.atMs, sinceMs))
    .orderBy(asc(tinWeighing.loggedMs), asc(tinWeighing.id))
  const held = new Map(rows.map((r) => [`${r.areaId} ${r.kindKey} ${r.day}`, r]))
  return [...held.values()].sort((a, b) => a.atMs - b.atMs)
}

export async function tinStretches(db: Reader, sinceMs: number): Promise<Evidence[]> {
  const groups = new Map<string, TinRow[]>()
  for (const row of await readTins(db, sinceMs)) {
    const key = `${row.areaId} ${row.kindKey}`
    groups.set(key, [...(groups.get(key) ?? []), row])
  }
  return [...groups.values()].flatMap((rows) => {
    const last = rows.at(-1)
    const taken = last && longestRun(takenByTin(rows, last))
    return taken ? [{ ...taken, areaId: last.areaId, kindKey: last.kindKey, partIds: null }] : []
  })
}
