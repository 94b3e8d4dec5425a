import { eq, inArray } from 'drizzle-orm'
import { makeId, type EventId } from '@core/ids/id.ts'
import { carrierOf, partOf, spoolOf, type Fact, type LedgerEvent, type Occurrence } from '@core/ledger/event.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { insertMany, type Reader, type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/http/context.ts'

export type EventRow = typeof ledgerEvent.$inferSelect
export interface Draft extends LedgerEvent {
  rootId: EventId
  idempotencyKey: string
}

/** Which carriers, stations and parts lines speak of: what has to be folded again. */
export interface Touched {
  carrierIds: Set<string>
  stationIds: Set<string>
  partIds: Set<string>
  spoolIds: Set<string>
}
export const nothingTouched = (): Touched => ({
  carrierIds: new Set(),
  stationIds: new Set(),
  partIds: new Set(),
  spoolIds: new Set(),
})

const saidBy = (event: LedgerEvent): Fact | null =>
  event.body.type === 'fact' ? event.body.fact : (event.body.replacement?.fact ?? null)

export function toRow(draft: Draft): EventRow {
  const fact = saidBy(draft)
  const replacement = draft.body.type === 'correction' ? draft.body.replacement : null
  return {
    id: draft.id,
    rootId: draft.rootId,
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
    id: row.id as EventId,
    rootId: row.rootId as EventId,
    happenedMs: row.happenedMs,
    loggedMs: row.loggedMs,
    precision: row.precision,
    stationId: row.stationId as LedgerEvent['stationId'],
    personId: row.personId as LedgerEvent['personId'],
    deviceId: row.deviceId as LedgerEvent['deviceId'],
    note: row.note,
    body: row.body,
  }
}

const BATCH = 1000

/** Appends lines and answers what they touch, including what older lines of a corrected chain said. */
export async function append(tx: Tx, drafts: readonly Draft[]): Promise<Touched> {
  const touched = nothingTouched()
  await insertMany(tx, ledgerEvent, { rows: drafts.map(toRow) })
  drafts.forEach((draft) => touch(touched, toRow(draft)))
  const corrected = drafts.filter((d) => d.body.type === 'correction').map((d) => d.rootId)
  if (corrected.length > 0) {
    const chain = await tx.select().from(ledgerEvent).where(inArray(ledgerEvent.rootId, corrected))
    chain.forEach((row) => touch(touched, row))
  }
  return touched
}

function touch(touched: Touched, row: EventRow): void {
  if (row.carrierId) touched.carrierIds.add(row.carrierId)
  if (row.stationId) touched.stationIds.add(row.stationId)
  if (row.partId) touched.partIds.add(row.partId)
  if (row.spoolId) touched.spoolIds.add(row.spoolId)
  if (row.body.type === 'fact' && row.body.fact.kind === 'mounted' && row.body.fact.onId)
    touched.carrierIds.add(row.body.fact.onId)
}

export async function eventByKey(db: Reader, key: string): Promise<EventRow | null> {
  const [row] = await db.select().from(ledgerEvent).where(eq(ledgerEvent.idempotencyKey, key)).limit(1)
  return row ?? null
}

/** Which of these keys the ledger has already. */
export async function knownKeys(db: Reader, keys: readonly string[]): Promise<Set<string>> {
  const known = new Set<string>()
  for (let i = 0; i < keys.length; i += BATCH) {
    const rows = await db
      .select({ key: ledgerEvent.idempotencyKey })
      .from(ledgerEvent)
      .where(inArray(ledgerEvent.idempotencyKey, keys.slice(i, i + BATCH)))
    rows.forEach((row) => known.add(row.key))
  }
  return known
}

/** One new fact as a line, logged now by whoever asks. */
export function factDraft(
  deps: Pick<Deps, 'now' | 'random'>,
  who: Who,
  what: {
    fact: Fact
    happenedMs: number
    precision: Draft['precision']
    stationId: string | null
    idempotencyKey: string
    note?: string | null
  },
): Draft {
  const nowMs = deps.now()
  const id = makeId('event', nowMs, deps.random) as EventId
  return {
    id,
    rootId: id,
    happenedMs: what.happenedMs,
    loggedMs: nowMs,
    precision: what.precision,
    stationId: what.stationId as Draft['stationId'],
    personId: (who.person?.id ?? null) as Draft['personId'],
    deviceId: (who.device?.id ?? null) as Draft['deviceId'],
    note: what.note ?? null,
    body: { type: 'fact', fact: what.fact },
    idempotencyKey: what.idempotencyKey,
  }
}

export const occurrenceOf = (event: LedgerEvent): Occurrence | null =>
  event.body.type === 'correction'
    ? event.body.replacement
    : { fact: event.body.fact, happenedMs: event.happenedMs, precision: event.precision, stationId: event.stationId }
