import { type CarrierId, type PartId, type SpoolId, type StationId } from '@core/ids/id.ts'
import { and, eq, gte, inArray, or, type SQL } from 'drizzle-orm'
import { spoolOf, type FactKind } from '@core/ledger/event.ts'
import { standingFacts, type Standing } from '@core/ledger/resolve.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { saidWhere } from './chains.ts'

/** Whole chains (fact and corrections) of every line that ever spoke of the wanted, as they stand now. */
export async function standingWhere(db: Reader, where: SQL | undefined): Promise<Standing[]> {
  return standingFacts(await saidWhere(db, where))
}

/** Lines of one kind since then, as they stand now. */
export const standingOfKind = (db: Reader, kind: FactKind, sinceMs: number): Promise<Standing[]> =>
  standingWhere(db, and(eq(ledgerEvent.kind, kind), gte(ledgerEvent.happenedMs, sinceMs)))

/** Lines of one kind at one place since then, as they stand now. */
export const standingOfKindAt = (
  db: Reader,
  { kind, stationId, sinceMs }: { kind: FactKind; stationId: StationId; sinceMs: number },
): Promise<Standing[]> =>
  standingWhere(
    db,
    and(eq(ledgerEvent.stationId, stationId), eq(ledgerEvent.kind, kind), gte(ledgerEvent.happenedMs, sinceMs)),
  )

export async function standingOfCarriers(
  db: Reader,
  carrierIds: readonly CarrierId[],
): Promise<Map<string, Standing[]>> {
  const byCarrier = new Map<string, Standing[]>(carrierIds.map((id) => [id, []]))
  if (carrierIds.length === 0) return byCarrier
  for (const standing of await standingWhere(db, inArray(ledgerEvent.carrierId, [...carrierIds]))) {
    if ('carrierId' in standing.fact && standing.fact.carrierId) byCarrier.get(standing.fact.carrierId)?.push(standing)
  }
  return byCarrier
}

export async function standingOfStations(
  db: Reader,
  stationIds: readonly StationId[],
): Promise<Map<string, Standing[]>> {
  const byStation = new Map<string, Standing[]>(stationIds.map((id) => [id, []]))
  if (stationIds.length === 0) return byStation
  for (const standing of await standingWhere(db, inArray(ledgerEvent.stationId, [...stationIds]))) {
    if (standing.stationId) byStation.get(standing.stationId)?.push(standing)
  }
  return byStation
}

/** A part's counts, and what came and went since `sinceMs`. */
export async function standingOfPart(db: Reader, partId: PartId, sinceMs: number): Promise<Standing[]> {
  const standings = await standingWhere(
    db,
    and(
      inArray(ledgerEvent.partId, [partId]),
      or(gte(ledgerEvent.happenedMs, sinceMs), inArray(ledgerEvent.kind, ['counted', 'carried'])),
    ),
  )
  return standings.filter((s) => 'partId' in s.fact && s.fact.partId === partId)
}

/** What was counted on, delivered to and carried between the shelves of some parts since. */
export async function standingOfShelves(
  db: Reader,
  partIds: readonly PartId[],
  sinceMs: number,
): Promise<Map<string, Standing[]>> {
  const byPart = new Map<string, Standing[]>()
  if (partIds.length === 0) return byPart
  const where = and(
    inArray(ledgerEvent.partId, [...partIds]),
    inArray(ledgerEvent.kind, ['counted', 'received', 'carried']),
  )
  for (const standing of await standingWhere(db, where)) {
    if (!('partId' in standing.fact) || !standing.fact.partId || standing.happenedMs < sinceMs) continue
    byPart.set(standing.fact.partId, [...(byPart.get(standing.fact.partId) ?? []), standing])
  }
  return byPart
}

/** Everything said of some spools. */
export async function standingOfSpools(db: Reader, spoolIds: readonly SpoolId[]): Promise<Map<string, Standing[]>> {
  const bySpool = new Map<string, Standing[]>()
  if (spoolIds.length === 0) return bySpool
  for (const standing of await standingWhere(db, inArray(ledgerEvent.spoolId, [...spoolIds]))) {
    const id = spoolOf(standing.fact)
    if (id) bySpool.set(id, [...(bySpool.get(id) ?? []), standing])
  }
  return bySpool
}
