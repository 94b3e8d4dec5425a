import { NO_ID } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, gte, inArray, isNotNull } from 'drizzle-orm'
import { reading, spoolNow } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { groupBy } from '@server/shopmodel/model.ts'
import { type Level } from './groups.ts'
import { LOOK_BACK_MS, type Life, type Places } from './lives.ts'

/** What holds for a life by what was read, or hung, while it was in; not of the place for good. */
export type DatedBy = 'layout' | 'wiper' | 'lot'
type Dated = { atMs: number; level: Level }
export type DatedOf = (life: Life, by: DatedBy) => Level | null

/** A look counts for what was on till so long after it. */
const HOLDS_MS = 45 * DAY_MS
const READ: Record<'layout' | 'wiper', Record<string, Level>> = {
  layout: {
    straight: { key: 'straight', name: 'cable laid out' },
    bentAtMachine: { key: 'bent', name: 'cable coiled or bent' },
    coiled: { key: 'bent', name: 'cable coiled or bent' },
    kinked: { key: 'bent', name: 'cable coiled or bent' },
  },
  wiper: {
    clean: { key: 'kept', name: 'wiper kept' },
    loaded: { key: 'kept', name: 'wiper kept' },
    sheds: { key: 'sheds', name: 'wiper that sheds' },
  },
}

/**
 * How the cable was found to lie, how the wiper was found, and which lot of wire was on, for each life: of what was seen at its place from 45 days before
 * it began to its end, what was seen most; of lots, the one on at its middle. Null where nobody looked, or no lot is told.
 */
export async function datedLevels(
  db: Reader,
  { stationOf, nowMs }: { stationOf: Places['stationOf']; nowMs: number },
): Promise<DatedOf> {
  const sinceMs = nowMs - LOOK_BACK_MS - HOLDS_MS
  const rows = await readMany(db, reading, and(inArray(reading.what, ['layout', 'wiper']), gte(reading.atMs, sinceMs)))
  const read = groupBy(
    rows.flatMap((r) => {
      const found = READ[r.what as 'layout' | 'wiper'][r.grade ?? '']
      const stationId = stationOf.get(r.carrierId)
      return found && stationId ? [{ key: `${stationId} ${r.what}`, atMs: r.atMs, level: found }] : []
    }),
    (r) => r.key,
  )
  const lots = await lotsOf(db, stationOf, sinceMs)
  return (life, by) => {
    const { stationId, fromMs } = life
    if (!stationId) return null
    const toMs = life.toMs ?? nowMs
    if (by === 'lot') return onAt(lots.get(stationId) ?? [], (fromMs + toMs) / 2)
    const seen = (read.get(`${stationId} ${by}`) ?? []).filter((r) => r.atMs >= fromMs - HOLDS_MS && r.atMs <= toMs)
    return mostOf(seen)
  }
}

function mostOf(seen: readonly Dated[]): Level | null {
  const counts = new Map<string, { level: Level; n: number }>()
  for (const { level } of seen) {
    const count = counts.get(level.key) ?? { level, n: 0 }
    count.n++
    counts.set(level.key, count)
  }
  return [...counts.values()].sort((a, b) => b.n - a.n)[0]?.level ?? null
}

/** Lots by place in time; a spool of which nobody told the lot ends the one before. */
async function lotsOf(
  db: Reader,
  stationOf: ReadonlyMap<string, string>,
  sinceMs: number,
): Promise<Map<string, (Dated | { atMs: number; level: null })[]>> {
  const spools = await db
    .select({ id: spoolNow.spoolId, lot: spoolNow.lot })
    .from(spoolNow)
    .where(isNotNull(spoolNow.lot))
  // Nobody tells lots apart: the log is not gone through.
  if (spools.length === 0) return new Map()
  const lotOf = new Map(spools.map((s) => [s.id, s.lot]))
  const loads = (await standingOfKind(db, 'wireLoaded', sinceMs)).flatMap(({ fact, happenedMs: atMs }) => {
    const stationId = fact.kind === 'wireLoaded' ? stationOf.get(fact.carrierId) : undefined
    if (!stationId || fact.kind !== 'wireLoaded') return []
    const lot = lotOf.get(fact.spoolId ?? NO_ID)
    return [{ stationId, atMs, level: lot ? { key: lot, name: `lot ${lot}` } : null }]
  })
  loads.sort((a, b) => a.atMs - b.atMs)
  return groupBy(loads, (l) => l.stationId)
}
const onAt = (loads: readonly { atMs: number; level: Level | null }[], ms: number): Level | null =>
  loads.findLast((l) => l.atMs <= ms)?.level ?? null
