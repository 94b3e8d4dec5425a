import { and, asc, eq, gt, inArray } from 'drizzle-orm'
import { type EventId } from '@core/ids/id.ts'
import { bringsWholeAct } from '@core/ledger/acts.ts'
import { type Fact, type Occurrence } from '@core/ledger/event.ts'
import { FACTS } from '@core/ledger/facts.ts'
import { standingFacts } from '@core/ledger/resolve.ts'
import { type CorrectRequest } from '@contract/logbook.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { isLead, mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey, fromRow, type Draft, type EventRow } from '@server/ledger/lines.ts'
import { type ShopModel, type ShopPlaces, type ShopKinds } from '@server/shopmodel/model.ts'
import { keyOf, writeAct, type PutRight, type Writing } from '@server/write/act.ts'
import { carrierAt, checkTime, placeOf } from '@server/write/place.ts'

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
  request: { key: string; eventIds: EventId[] },
): Promise<{ eventIds: EventId[] }> {
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
export function correct(deps: Deps, who: Who, request: CorrectRequest): Promise<{ eventIds: EventId[] }> {
  return correcting(deps, who, {
    key: request.key,
    eventIds: [request.eventId],
    note: request.note,
    change: async (tx, { standing, shop }) => {
      if (request.withdraw) return null
      if (!standing) throw new DomainError('bad-request', 'That line was taken back; log it again instead.')
      if (!FACTS[standing.fact.kind].isCorrectable)
        throw new DomainError('bad-request', 'That line only stands or falls: it says nothing to put right.', [
          'Take it back and log it again.',
        ])
      const happenedMs = request.happenedMs ?? standing.happenedMs
      checkTime(happenedMs, deps.now())
      const stationId = request.stationId ?? standing.stationId
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
  at: { fact: Fact; request: CorrectRequest; shop: ShopPlaces & ShopKinds; isMoved: boolean },
): Promise<Fact> {
  const { request, shop } = at
  let fact = at.fact
  if (fact.kind === 'fitted')
    fact = { ...fact, outReason: request.outReason ?? fact.outReason, count: request.count ?? fact.count }
  if (fact.kind === 'removed') fact = { ...fact, outReason: request.outReason ?? fact.outReason }
  if (!at.isMoved || !request.stationId || !('carrierId' in fact) || !fact.carrierId) return fact
  const place = await placeOf(tx, request.stationId, shop)
  const position = FACTS[fact.kind].of === 'feeder' ? 'hub' : 'position' in fact ? fact.position : null
  const isOfPlace = FACTS[fact.kind].of === 'place' || !position
  const carrierId = isOfPlace ? place.stationCarrierId : carrierAt(place, position, shop)
  return { ...fact, carrierId }
}

/** "All looked at", a change of wire, a look at a gun: one act of several lines, which stand and fall together. */
async function withItsAct(tx: Tx, eventIds: readonly EventId[]): Promise<EventId[]> {
  const rows = await tx
    .select({ id: ledgerEvent.id, actKind: ledgerEvent.actKind, lineNo: ledgerEvent.lineNo })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.id, [...eventIds]))
  const whole = rows.filter(bringsWholeAct).map((row) => row.id)
  if (whole.length === 0) return [...eventIds]
  const lines = await tx.select({ id: ledgerEvent.id }).from(ledgerEvent).where(inArray(ledgerEvent.actId, whole))
  return [...new Set([...eventIds, ...lines.map((line) => line.id)])]
}

interface Correcting {
  key: string
  eventIds: EventId[]
  note?: string | undefined
  change: (tx: Tx, at: { row: EventRow; standing: Occurrence | null; shop: ShopModel }) => Promise<Occurrence | null>
}

async function correcting(deps: Deps, who: Who, what: Correcting): Promise<{ eventIds: EventId[] }> {
  mustRead(who)
  const known = async () => {
    const row = await actByKey(deps.db, 'correct', keyOf(what.key))
    return row && { eventIds: [row.id] }
  }
  return once(known, () =>
    writeAct(deps, who, async (w) => {
      const shop = await w.shop()
      const eventIds = await withItsAct(w.tx, what.eventIds)
      await lockLines(w.tx, eventIds)
      const put: Draft[] = []
      for (const eventId of eventIds) put.push(w.put(await putRight(w, { what, shop, eventId, before: put })))
      return { eventIds: put.map((d) => d.id) }
    }),
  )
}

/** Two who correct one line wait for each other: the second must see what the first moved, to fold all it touches. */
async function lockLines(tx: Tx, eventIds: readonly EventId[]): Promise<void> {
  await tx
    .select({ id: ledgerEvent.id })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.id, [...eventIds]))
    .orderBy(asc(ledgerEvent.id))
    .for('update')
}

async function putRight(
  w: Writing,
  at: { what: Correcting; shop: ShopModel; eventId: EventId; before: readonly Draft[] },
): Promise<PutRight> {
  const { what, shop, eventId, before } = at
  const { tx, who } = w
  const [row] = await tx.select().from(ledgerEvent).where(eq(ledgerEvent.id, eventId)).limit(1)
  if (!row || row.body.type !== 'fact') throw new DomainError('not-found', 'There is no such line in the Logbook.')
  if (!isOwn(row, who))
    throw new DomainError('not-yours', 'Somebody else logged this.', ['Ask them or the lead to correct it.'])
  const chain = await tx.select().from(ledgerEvent).where(eq(ledgerEvent.rootId, row.rootId))
  const [standing] = standingFacts(chain.map(fromRow))
  const replacement = await what.change(tx, { row, standing: standing ?? null, shop })
  const target = replacement?.stationId ? shop.stationById.get(replacement.stationId) : undefined
  if (target && target.id !== row.stationId) mustLogAt(who, target)
  return {
    of: fromRow(row),
    correction: { type: 'correction', correctsId: latestOf(chain), replacement },
    loggedMs: Math.max(w.nowMs, 1 + Math.max(...chain.map((r) => r.loggedMs))),
    note: what.note ?? null,
    act: { id: before[0]?.id ?? null, key: keyOf(what.key), lineNo: before.length },
  }
}

/** A correction always names the fact itself; the one logged last stands, so a chain never grows deep by habit. */
const latestOf = (chain: readonly EventRow[]): EventId =>
  (chain.find((r) => r.body.type === 'fact')?.id ?? '') as EventId
