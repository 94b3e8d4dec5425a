import { and, eq, inArray, lt, max, min } from 'drizzle-orm'
import { HOUR_MS } from '@core/units/time.ts'
import { type CarrierId, type EventId, type PartId, type SpoolId, type StationId } from '@core/ids/id.ts'
import { type ActKind } from '@core/ledger/acts.ts'
import { carrierOf, partOf, spoolOf, type Fact, type LedgerEvent, type Occurrence } from '@core/ledger/event.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'

export type EventRow = typeof ledgerEvent.$inferSelect
export interface Draft extends LedgerEvent {
  rootId: EventId
  /** The first line of the act it belongs to. */
  actId: EventId
  actKind: ActKind
  lineNo: number
  /** What the act was sent under, on its first line. */
  idempotencyKey: string | null
}

/** Which carriers, stations and parts lines speak of: what has to be folded again. */
export interface Touched {
  carrierIds: Set<CarrierId>
  stationIds: Set<StationId>
  partIds: Set<PartId>
  spoolIds: Set<SpoolId>
}
export const nothingTouched = (): Touched => ({
  carrierIds: new Set(),
  stationIds: new Set(),
  partIds: new Set(),
  spoolIds: new Set(),
})
const TOUCHED = ['carrierIds', 'stationIds', 'partIds', 'spoolIds'] as const
export const touchesNothing = (touched: Touched): boolean => TOUCHED.every((of) => touched[of].size === 0)
export function touchAll(touched: Touched, more: Partial<Touched>): void {
  for (const of of TOUCHED) more[of]?.forEach((id) => (touched[of] as Set<string>).add(id))
}

const saidBy = (event: LedgerEvent): Fact | null =>
  event.body.type === 'fact' ? event.body.fact : (event.body.replacement?.fact ?? null)

export function toRow(draft: Draft): EventRow {
  const fact = saidBy(draft)
  const replacement = draft.body.type === 'correction' ? draft.body.replacement : null
  return {
    id: draft.id,
    rootId: draft.rootId,
    actId: draft.actId,
    actKind: draft.actKind,
    lineNo: draft.lineNo,
    kind: draft.body.type === 'correction' ? 'corrected' : draft.body.fact.kind,
    carrierId: fact ? carrierOf(fact) : null,
    stationId: replacement?.stationId ?? draft.stationId,
    partId: fact ? partOf(fact) : null,
    spoolId: fact ? spoolOf(fact) : null,
    happenedMs: replacement?.happenedMs ?? draft.happenedMs,
    precision: draft.precision,
    loggedMs: draft.loggedMs,
    personId: draft.personId,
    deviceId: draft.deviceId,
    note: draft.note,
    body: draft.body,
    idempotencyKey: draft.idempotencyKey,
  }
}

export function fromRow(row: EventRow): LedgerEvent & { rootId: EventId } {
  return {
    id: row.id,
    rootId: row.rootId,
    happenedMs: row.happenedMs,
    loggedMs: row.loggedMs,
    precision: row.precision,
    stationId: row.stationId,
    personId: row.personId,
    deviceId: row.deviceId,
    note: row.note,
    body: row.body,
  }
}

const BATCH = 1000

type Kinds = ActKind | readonly ActKind[]
const sentUnder = (kind: Kinds, keys: string | readonly string[]) =>
  and(
    typeof kind === 'string' ? eq(ledgerEvent.actKind, kind) : inArray(ledgerEvent.actKind, [...kind]),
    typeof keys === 'string' ? eq(ledgerEvent.idempotencyKey, keys) : inArray(ledgerEvent.idempotencyKey, [...keys]),
  )

/** The first line of the act of a kind that was sent under a key. */
export async function actByKey(db: Reader, kind: Kinds, key: string): Promise<EventRow | null> {
  const [row] = await db.select().from(ledgerEvent).where(sentUnder(kind, key)).limit(1)
  return row ?? null
}

/** First lines of the acts of a kind that were sent under any of these keys. */
export async function actsByKeys(db: Reader, kind: Kinds, keys: readonly string[]): Promise<Map<string, EventRow>> {
  const known = new Map<string, EventRow>()
  for (let i = 0; i < keys.length; i += BATCH) {
    const rows = await db
      .select()
      .from(ledgerEvent)
      .where(sentUnder(kind, keys.slice(i, i + BATCH)))
    rows.forEach((row) => known.set(row.idempotencyKey ?? '', row))
  }
  return known
}

/** Which of these keys acts of the kind were sent under already. */
export async function knownKeys(db: Reader, kind: ActKind, keys: readonly string[]): Promise<Set<string>> {
  const known = new Set<string>()
  for (let i = 0; i < keys.length; i += BATCH) {
    const rows = await db
      .select({ key: ledgerEvent.idempotencyKey })
      .from(ledgerEvent)
      .where(sentUnder(kind, keys.slice(i, i + BATCH)))
    rows.forEach((row) => known.add(row.key ?? ''))
  }
  return known
}

export const occurrenceOf = (event: LedgerEvent): Occurrence | null =>
  event.body.type === 'correction'
    ? event.body.replacement
    : { fact: event.body.fact, happenedMs: event.happenedMs, precision: event.precision, stationId: event.stationId }

const LOOK_AHEAD_MS = 2 * HOUR_MS
/** When the first line was logged; what a sheet tells of earlier years does not count. Null: nothing is written yet. */
export async function firstLoggedMs(db: Reader): Promise<number | null> {
  const [first] = await db.select({ ms: min(ledgerEvent.loggedMs) }).from(ledgerEvent)
  return first?.ms === null || first?.ms === undefined ? null : Number(first.ms)
}

/** When the newest line was written down, as far as that is at most two hours from now; beyond that it was a clock gone wrong, and now stands. */
export async function lastWrittenMs(db: Reader, nowMs: number): Promise<number> {
  const [row] = await db
    .select({ ms: max(ledgerEvent.loggedMs) })
    .from(ledgerEvent)
    .where(lt(ledgerEvent.loggedMs, nowMs + LOOK_AHEAD_MS))
  return Math.max(nowMs, (row?.ms ?? 0) + 1)
}
