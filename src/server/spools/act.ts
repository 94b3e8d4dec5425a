import { asc, desc, eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { type CarrierId, makeId, NO_ID, type SpoolId, type StationId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { bySightSdKg, leftByDiameter, leftByWeight, leftSince, type Left, type LeftAnswer } from '@core/spools/left.ts'
import { massFromLengthKg } from '@core/spools/wire.ts'
import { type spoolAct, type spoolDone, type spoolRequest } from '@contract/spools.ts'
import { headNow, ledgerEvent, site, spool, spoolNow } from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { keyOf, writeAct, type Writing } from '@server/write/act.ts'
import { carrierAt, type Place, placeOf } from '@server/write/place.ts'
import { type SpoolNowRow } from '@server/projection/spools.ts'
import { type ShopModel, type ShopFit } from '@server/shopmodel/model.ts'

type Act = z.output<typeof spoolAct>
type Done = z.input<typeof spoolDone>
type Of<A extends Act['act']> = Extract<Act, { act: A }>
type Said = { fact: Fact; stationId: StationId | null }

interface At {
  tx: Tx
  deps: Deps
  who: Who
  shop: ShopModel
}

/** One act on a spool, whole or not at all; the same key again answers as the first time and writes nothing. */
export async function actOnSpool(deps: Deps, who: Who, r: z.output<typeof spoolRequest>): Promise<Done> {
  mustRead(who)
  return once(
    () => saidBefore(deps.db, r.key),
    () => writeAct(deps, who, (w) => sayOfSpool(w, r)),
  )
}

async function sayOfSpool(w: Writing, r: z.output<typeof spoolRequest>): Promise<Done> {
  const { tx, deps, who } = w
  const said = await factsOf(r.what, { tx, deps, who, shop: await w.shop() })
  w.say({ kind: 'spool', key: keyOf(r.key), lines: said })
  return doneFrom(
    tx,
    said.map((s) => s.fact),
  )
}

async function saidBefore(db: Reader, key: string): Promise<Done | null> {
  const first = await actByKey(db, 'spool', keyOf(key))
  if (!first) return null
  const rows = await db
    .select()
    .from(ledgerEvent)
    .where(eq(ledgerEvent.actId, first.id))
    .orderBy(asc(ledgerEvent.lineNo))
  return doneFrom(
    db,
    rows.flatMap((row) => (row.body.type === 'fact' ? [row.body.fact] : [])),
  )
}

async function doneFrom(db: Reader, facts: readonly Fact[]): Promise<Done> {
  const ids = facts.flatMap((f) => (f.kind === 'spoolIn' ? [f.spoolId] : []))
  const rows = ids.length === 0 ? [] : await db.select().from(spool).where(inArray(spool.id, ids))
  const read = facts.find((f) => f.kind === 'spoolRead')
  return {
    numbers: rows.map((s) => s.number).sort((a, b) => a - b),
    leftKg: read?.kind === 'spoolRead' ? read.leftKg : null,
    sdKg: read?.kind === 'spoolRead' ? read.sdKg : null,
  }
}

function factsOf(act: Act, at: At): Promise<Said[]> {
  switch (act.act) {
    case 'in':
      return comeIn(act, at)
    case 'load':
      return load(act, at)
    case 'read':
      return readLeft(act, at)
    case 'off':
      return takeOff(act, at)
    case 'lost':
      return lose(act, at)
    case 'gone':
      return throwAway(act, at)
  }
}

const wireOf = (id: string, shop: ShopFit) => {
  const row = shop.wires.get(id)
  if (!row) throw new DomainError('not-found', 'There is no such wire.', ['Add it under parts and wires first.'])
  return row
}

/** New spools get the next numbers, one after another also when two people book in at once: they wait for the site's row. */
async function newSpools(at: At, count: number): Promise<SpoolId[]> {
  const { tx, deps } = at
  await tx.select({ id: site.id }).from(site).for('update')
  const [last] = await tx.select({ number: spool.number }).from(spool).orderBy(desc(spool.number)).limit(1)
  const rows = Array.from({ length: count }, (_, i) => ({
    id: makeId('spool', deps.now(), deps.random),
    number: (last?.number ?? 0) + i + 1,
    createdMs: deps.now(),
  }))
  await tx.insert(spool).values(rows)
  return rows.map((r) => r.id)
}

async function comeIn(act: Of<'in'>, at: At): Promise<Said[]> {
  const wire = wireOf(act.wireId, at.shop)
  const ids = await newSpools(at, act.count)
  return ids.map((spoolId) => ({
    stationId: null,
    fact: {
      kind: 'spoolIn',
      spoolId,
      wireId: wire.id,
      labelKg: act.labelKg ?? wire.spoolKg,
      lot: act.lot?.trim() || null,
      tareKg: act.tareKg ?? wire.tareKg,
    },
  }))
}

async function headAt(stationId: StationId, at: At) {
  const place: Place = await placeOf(at.tx, stationId, at.shop)
  const station = at.shop.stationById.get(stationId)
  if (station) mustLogAt(at.who, station)
  const carrierId: CarrierId = carrierAt(place, 'hub', at.shop)
  const [head] = await at.tx.select().from(headNow).where(eq(headNow.headId, carrierId))
  return { carrierId, head: head ?? null }
}

async function knownSpool(spoolId: SpoolId, at: At): Promise<SpoolNowRow> {
  const [row] = await at.tx.select().from(spoolNow).where(eq(spoolNow.spoolId, spoolId)).for('update')
  if (!row) throw new DomainError('not-found', 'There is no such spool.', ['Look at the number on its flange.'])
  return row
}

async function load(act: Of<'load'>, at: At): Promise<Said[]> {
  const row = await knownSpool(act.spoolId, at)
  const { carrierId, head } = await headAt(act.stationId, at)
  if (head?.spoolId === act.spoolId)
    throw new DomainError('bad-request', 'That spool is on this gun already.', ['Nothing to do.'])
  const spoolId = act.spoolId as SpoolId
  const said: Fact[] = []
  if (head?.spoolId) said.push(oldOne(head.spoolId, carrierId, act.oldLeftKg))
  // A spool that is put on somewhere else came off where it was.
  const moved = row.headId && row.headId !== carrierId ? await leftOnHead(row.headId, at) : null
  if (row.headId && moved) said.push({ kind: 'wireOff', carrierId: row.headId, spoolId, ...moved })
  said.push({
    kind: 'wireLoaded',
    carrierId,
    wireId: row.wireId,
    labelKg: moved?.leftKg ?? row.baseKg,
    leftKg: act.oldLeftKg,
    spoolId,
  })
  return said.map((fact) => ({ fact, stationId: act.stationId }))
}

/** What the clock of a feeder leaves on its spool, as far as it was entered. */
async function leftOnHead(headId: CarrierId, at: At): Promise<{ leftKg: number | null; sdKg: number | null }> {
  const [head] = await at.tx.select().from(headNow).where(eq(headNow.headId, headId))
  if (!head || head.spoolKg === null || head.spoolUsedKg === null) return { leftKg: null, sdKg: null }
  const used = { kg: head.spoolUsedKg, sdKg: CLOCK_SHARE * head.spoolUsedKg }
  const left = leftSince({ kg: head.spoolKg, sdKg: head.spoolSdKg ?? 0 }, used)
  return { leftKg: left.kg, sdKg: left.sdKg }
}
const CLOCK_SHARE = 0.1

/** The spool that was on: empty and gone, or taken off with some wire left. */
const oldOne = (spoolId: SpoolId, carrierId: CarrierId, leftKg: number): Fact =>
  leftKg > 0
    ? { kind: 'wireOff', carrierId, spoolId, leftKg, sdKg: SAID_SHARE * leftKg }
    : { kind: 'spoolGone', spoolId, leftKg: 0 }
/** What somebody says is left without a scale is right to about a fifth. */
const SAID_SHARE = 0.2

async function readLeft(act: Of<'read'>, at: At): Promise<Said[]> {
  const { carrierId, spoolId, wireId, tareKg, labelKg } = await whichSpool(act, at)
  const wire = wireId ? at.shop.wires.get(wireId) : undefined
  const answer = leftFrom(act, { wire, tareKg: tareKg ?? wire?.tareKg ?? null, fullKg: labelKg ?? wire?.spoolKg ?? 15 })
  if (!answer.ok) throw new DomainError('bad-request', `That reading can’t be: ${answer.reason}.`, ['Read it again.'])
  const how = act.grossKg !== undefined ? 'weighed' : act.diameterMm !== undefined ? 'measured' : 'said'
  const fact: Fact = { kind: 'spoolRead', carrierId, spoolId, how, leftKg: answer.kg, sdKg: answer.sdKg }
  return [{ fact, stationId: act.stationId ?? null }]
}

async function whichSpool(act: Of<'read'>, at: At) {
  if (act.spoolId !== undefined) {
    const row = await knownSpool(act.spoolId, at)
    return { ...row, carrierId: row.headId, spoolId: row.spoolId as SpoolId | null }
  }
  const { carrierId, head } = await headAt(act.stationId ?? NO_ID, at)
  const own = head?.spoolId ? await knownSpool(head.spoolId, at) : null
  const wireId = head?.spoolWireId ?? at.shop.built(act.stationId ?? NO_ID).wireId
  return {
    carrierId: carrierId as CarrierId | null,
    spoolId: head?.spoolId ?? null,
    wireId,
    tareKg: own?.tareKg ?? null,
    labelKg: own?.labelKg ?? null,
  }
}

type WireRow = ReturnType<typeof wireOf>

function leftFrom(
  act: Of<'read'>,
  of: { wire: WireRow | undefined; tareKg: number | null; fullKg: number },
): LeftAnswer {
  const { wire, fullKg } = of
  const answer = readingOf(act, of)
  const most = fullKg * 1.1
  if (answer.ok && answer.kg > most)
    return {
      ok: false,
      reason: `${answer.kg.toFixed(1)} kg is more than a full one holds (${fullKg} kg)${wire ? ` of ${wire.name}` : ''}`,
    }
  return answer
}

function readingOf(
  act: Of<'read'>,
  of: { wire: WireRow | undefined; tareKg: number | null; fullKg: number },
): LeftAnswer {
  const { wire, tareKg, fullKg } = of
  if (act.grossKg !== undefined)
    return leftByWeight({ grossKg: act.grossKg, tareKg: tareKg ?? TARE_GUESS_KG, isTareKnown: tareKg !== null })
  if (act.diameterMm !== undefined) return byDiameter(act.diameterMm, wire)
  return { ok: true, kg: act.leftKg ?? 0, sdKg: bySightSdKg(fullKg) } satisfies { ok: true } & Left
}
/** A wire basket or plastic spool of the usual size; a guess, with a wide spread. */
const TARE_GUESS_KG = 0.7

function byDiameter(diameterMm: number, wire: WireRow | undefined): LeftAnswer {
  if (!wire?.coreMm || !wire.widthMm)
    return {
      ok: false,
      reason: 'how wide and how thick the core of its spool is stands nowhere; enter it with the wire, or weigh it',
    }
  const { coreMm, widthMm, fullMm, spoolKg, densityGPerCm3 } = wire
  return leftByDiameter({
    winding: { outerDiameterMm: diameterMm, hubDiameterMm: coreMm, widthMm },
    densityGPerCm3,
    full: fullMm ? { outerDiameterMm: fullMm, massKg: spoolKg } : null,
  })
}

/** Taken off part-used: a spool without a number gets one now, so that its wire is not forgotten. */
async function takeOff(act: Of<'off'>, at: At): Promise<Said[]> {
  const { carrierId, head } = await headAt(act.stationId, at)
  if (head?.spoolMs == null)
    throw new DomainError('bad-request', 'No spool is known to be on this gun.', ['Book it in first.'])
  const sdKg = SAID_SHARE * act.leftKg
  const known = head.spoolId
  const off: Fact = { kind: 'wireOff', carrierId, spoolId: known, leftKg: act.leftKg, sdKg }
  const said = { fact: off, stationId: act.stationId }
  if (known)
    return act.leftKg > 0 ? [said] : [said, { fact: { kind: 'spoolGone', spoolId: known, leftKg: 0 }, stationId: null }]
  if (act.leftKg <= 0) return [said]
  const [spoolId] = await newSpools(at, 1)
  if (!spoolId) return [said]
  const wireId = head.spoolWireId ?? at.shop.built(act.stationId).wireId
  const fresh: Fact = { kind: 'spoolIn', spoolId, wireId, labelKg: null, lot: null, tareKg: null }
  const read: Fact = { kind: 'spoolRead', carrierId: null, spoolId, how: 'said', leftKg: act.leftKg, sdKg }
  return [said, { fact: fresh, stationId: null }, { fact: read, stationId: null }]
}

async function lose(act: Of<'lost'>, at: At): Promise<Said[]> {
  const { carrierId, head } = await headAt(act.stationId, at)
  const built = at.shop.built(act.stationId)
  const wire = at.shop.wires.get(head?.spoolWireId ?? built.wireId ?? '')
  const metres = act.metres ?? built.cableM
  if (!wire || !metres)
    throw new DomainError(
      'bad-request',
      'How much that was can’t be worked out: no wire or no cable length is known here.',
      ['Say the metres, and set the wire of this gun under Our shop.'],
    )
  const spoolId = head?.spoolId ?? null
  return [
    {
      stationId: act.stationId,
      fact: { kind: 'wireLost', carrierId, spoolId, kg: massFromLengthKg(wire, metres), why: act.why },
    },
  ]
}

async function throwAway(act: Of<'gone'>, at: At): Promise<Said[]> {
  const row = await knownSpool(act.spoolId, at)
  if (row.headId) throw new DomainError('bad-request', 'That spool is on a gun.', ['Take it off first.'])
  return [{ stationId: null, fact: { kind: 'spoolGone', spoolId: act.spoolId, leftKg: row.baseKg } }]
}
