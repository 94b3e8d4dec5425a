import { and, asc, eq, gt, inArray } from 'drizzle-orm'
import { makeId, type CarrierId, type EventId, type StationId } from '@core/ids/id.ts'
import { standingFacts } from '@core/ledger/resolve.ts'
import { type Fact, type Occurrence } from '@core/ledger/event.ts'
import { type CorrectRequest } from '@contract/logbook.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { transact, type Reader, type Tx } from '@server/db/db.ts'
import { once } from '@server/http/once.ts'
import { isLead, mustLogAt, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { append, eventByKey, fromRow, type Draft, type EventRow } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { carrierAt, checkTime } from './draft.ts'
import { siblingsOf } from './manylines.ts'
import { placeOf } from './log.ts'

/** The same person or the same device that logged it; a lead always. */
export function isOwn(row: Pick<EventRow, 'personId' | 'deviceId'>, who: Who): boolean {
  if (isLead(who)) return true
  if (row.personId && who.person?.id === row.personId) return true
  return Boolean(row.deviceId && who.device?.id === row.deviceId && !row.personId)
}

/** Takes lines back. Offered until somebody logs on that position again; after that it is a correction, not an undo. */
export function undo(
  deps: Deps,
  who: Who,
  request: { key: string; eventIds: string[] },
): Promise<{ eventIds: string[] }> {
  return correcting(deps, who, {
    key: request.key,
    eventIds: request.eventIds,
    change: async (tx, { row }) => {
      if (await loggedSince(tx, row))
        throw new DomainError('too-late-to-undo', 'Something was logged there since.', [
          'Correct the line in the Logbook instead.',
        ])
      return null
    },
  })
}

async function loggedSince(tx: Reader, row: EventRow): Promise<boolean> {
  if (row.body.type !== 'fact' || !row.carrierId) return false
  const position = 'position' in row.body.fact ? row.body.fact.position : null
  const later = await tx
    .select()
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.carrierId, row.carrierId), gt(ledgerEvent.loggedMs, row.loggedMs)))
  return later.some(
    (r) =>
      r.rootId !== row.rootId &&
      r.body.type === 'fact' &&
      'position' in r.body.fact &&
      r.body.fact.position === position,
  )
}

/** Says what a line should have said. The old line stays; nothing is deleted. */
export function correct(deps: Deps, who: Who, request: CorrectRequest): Promise<{ eventIds: string[] }> {
  return correcting(deps, who, {
    key: request.key,
    eventIds: [request.eventId],
    note: request.note,
    change: async (tx, { standing, shop }) => {
      if (request.withdraw) return null
      if (!standing) throw new DomainError('bad-request', 'That line was taken back; log it again instead.')
      const happenedMs = request.happenedMs ?? standing.happenedMs
      checkTime(happenedMs, deps.now())
      const stationId = (request.stationId ?? standing.stationId) as StationId | null
      const fact = await changedFact(tx, {
        fact: standing.fact,
        request,
        shop,
        isMoved: stationId !== standing.stationId,
      })
      return { fact, happenedMs, precision: request.precision ?? standing.precision, stationId }
    },
  })
}

async function changedFact(
  tx: Reader,
  at: { fact: Fact; request: CorrectRequest; shop: ShopModel; isMoved: boolean },
): Promise<Fact> {
  const { request, shop } = at
  let fact = at.fact
  if (fact.kind === 'fitted')
    fact = { ...fact, outReason: request.outReason ?? fact.outReason, count: request.count ?? fact.count }
  if (fact.kind === 'removed') fact = { ...fact, outReason: request.outReason ?? fact.outReason }
  if (!at.isMoved || !request.stationId || !('carrierId' in fact) || !fact.carrierId) return fact
  const place = await placeOf(tx, request.stationId, shop)
  const isOfPlace =
    fact.kind === 'stopped' || fact.kind === 'restarted' || fact.kind === 'parked' || fact.kind === 'unparked'
  const position = OF_FEEDER.has(fact.kind) ? 'hub' : 'position' in fact ? fact.position : null
  const carrierId = isOfPlace || !position ? (place.stationCarrierId as CarrierId) : carrierAt(place, position, shop)
  return { ...fact, carrierId } as Fact
}

/** Said of the feeder, not of a part on it. */
const OF_FEEDER = new Set<Fact['kind']>(['wireLoaded', 'wireOff', 'spoolRead', 'wireLost'])

/** "All looked at", a change of wire, a look at a gun: one act of several lines, which stand and fall together. */
async function withSiblings(tx: Tx, eventIds: readonly string[]): Promise<string[]> {
  const rows = await tx
    .select({ id: ledgerEvent.id, key: ledgerEvent.idempotencyKey, kind: ledgerEvent.kind })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.id, [...eventIds]))
  const all = [...eventIds]
  for (const row of rows) {
    const siblings =
      row.kind === 'confirmed'
        ? inArray(ledgerEvent.idempotencyKey, [`${row.key}/1`, `${row.key}/2`])
        : siblingsOf(row.key)
    if (!siblings) continue
    const found = await tx.select({ id: ledgerEvent.id }).from(ledgerEvent).where(siblings)
    all.push(...found.map((s) => s.id).filter((id) => !all.includes(id)))
  }
  return all
}

interface Correcting {
  key: string
  eventIds: string[]
  note?: string | undefined
  change: (tx: Tx, at: { row: EventRow; standing: Occurrence | null; shop: ShopModel }) => Promise<Occurrence | null>
}

async function correcting(deps: Deps, who: Who, what: Correcting): Promise<{ eventIds: string[] }> {
  mustRead(who)
  const known = async () => {
    const row = await eventByKey(deps.db, `${what.key}#0`)
    return row && { eventIds: [row.id] }
  }
  return once(known, () =>
    transact(deps.db, async (tx) => {
      const shop = await loadShop(tx, deps.calendar, deps.now())
      const drafts: Draft[] = []
      const eventIds = await withSiblings(tx, what.eventIds)
      await lockLines(tx, eventIds)
      for (const [i, eventId] of eventIds.entries())
        drafts.push(await draftCorrection(tx, { deps, who, what, shop, eventId, i }))
      const touched = await append(tx, drafts)
      await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
      return { eventIds: drafts.map((d) => d.id) }
    }),
  )
}

/** Two who correct one line wait for each other: the second must see what the first moved, to fold all it touches. */
async function lockLines(tx: Tx, eventIds: readonly string[]): Promise<void> {
  await tx
    .select({ id: ledgerEvent.id })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.id, [...eventIds]))
    .orderBy(asc(ledgerEvent.id))
    .for('update')
}

async function draftCorrection(
  tx: Tx,
  at: { deps: Deps; who: Who; what: Correcting; shop: ShopModel; eventId: string; i: number },
): Promise<Draft> {
  const { deps, who, what, shop, eventId } = at
  const [row] = await tx.select().from(ledgerEvent).where(eq(ledgerEvent.id, eventId)).limit(1)
  if (!row || row.body.type !== 'fact') throw new DomainError('not-found', 'There is no such line in the Logbook.')
  if (!isOwn(row, who))
    throw new DomainError('not-yours', 'Somebody else logged this.', ['Ask them or the lead to correct it.'])
  const chain = await tx
    .select()
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.rootId, [row.rootId]))
  const [standing] = standingFacts(chain.map(fromRow))
  const replacement = await what.change(tx, { row, standing: standing ?? null, shop })
  const target = replacement?.stationId ? shop.stationById.get(replacement.stationId) : undefined
  if (target && target.id !== row.stationId) mustLogAt(who, target)
  const nowMs = Math.max(deps.now(), 1 + Math.max(...chain.map((r) => r.loggedMs)))
  return {
    id: makeId('event', nowMs, deps.random) as EventId,
    rootId: row.rootId as EventId,
    happenedMs: row.happenedMs,
    loggedMs: nowMs,
    precision: row.precision,
    stationId: row.stationId as StationId | null,
    personId: (who.person?.id ?? null) as Draft['personId'],
    deviceId: (who.device?.id ?? null) as Draft['deviceId'],
    note: what.note ?? null,
    body: { type: 'correction', correctsId: latestOf(chain), replacement },
    idempotencyKey: `${what.key}#${at.i}`,
  }
}

/** A correction always names the fact itself; the one logged last stands, so a chain never grows deep by habit. */
const latestOf = (chain: readonly EventRow[]): EventId =>
  (chain.find((r) => r.body.type === 'fact')?.id ?? '') as EventId
