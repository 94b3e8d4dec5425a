import { and, desc, eq } from 'drizzle-orm'
import { type z } from 'zod'
import { type CarrierId, makeId, type FamilyId, type StationId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { ridesOnNeck, type Position } from '@core/path/columns.ts'
import { comesWith } from '@core/path/kinds.ts'
import {
  type benchRequest,
  type crashRequest,
  type neckRequest,
  type neckSwapRequest,
  type roundRequest,
} from '@contract/cell.ts'
import { carrier, stationNow } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { happenedAt, mustLogAt, type Deps, type Who } from '@server/call/context.ts'
import { settledFacts } from '@server/followup/act.ts'
import { readPositions } from '@server/gunnow/positions.ts'
import { DomainError } from '@server/problem/problem.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { keyOf, type SaidLine, type Writing } from '@server/write/act.ts'
import { actOnce } from '@server/write/actonce.ts'
import { changing, OK } from '@server/write/changing.ts'
import { logFacts } from '@server/write/facts.ts'
import { hangsOn, placeOf } from '@server/write/place.ts'

/**
 * From here on necks go round at some cells: what is on a gun from the neck forward rides on a neck of its own. Its age is not known on the neck: what
 * it did before stays told of the gun.
 */
export const necksGoRound = (deps: Deps, who: Who, r: z.output<typeof roundRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'necksGoRound', places: r.stationIds.length },
    work: async (tx, w) => {
      const shop = await w.shop()
      for (const stationId of [...new Set(r.stationIds)]) await ownNeck(tx, w, { shop, stationId })
    },
  })

async function ownNeck(tx: Tx, w: Writing, { shop, stationId }: { shop: ShopModel; stationId: StationId }) {
  const place = await placeOf(tx, stationId, shop)
  const name = shop.stationById.get(stationId)?.name ?? ''
  const { gunId } = place.now
  if (!gunId)
    throw new DomainError('not-found', `There is no gun on ${name} now.`, ['Say in Our shop what hangs there.'])
  if (place.now.neckId) return
  const [gun] = await tx.select().from(carrier).where(eq(carrier.id, gunId)).for('update')
  const rows = (await readPositions(tx, [gunId])).get(gunId)?.rows ?? []
  const moved = (gun?.positions ?? []).filter((p) => ridesOnNeck(p))
  const familyId = gun?.built?.familyId ?? shop.built(stationId).familyId
  const neckId = await insertNeck(tx, w, { name: await nextName(tx), familyId, positions: moved })
  await tx
    .update(carrier)
    .set({ positions: (gun?.positions ?? []).filter((p) => !ridesOnNeck(p)) })
    .where(eq(carrier.id, gunId))
  const at = { stationId }
  const parts = rows.filter((row) => row.fittedMs !== null && ridesOnNeck(row.position))
  w.say({
    kind: 'neck',
    lines: [
      { ...at, fact: { kind: 'mounted', carrierId: neckId, onId: gunId, as: 'keyedNeck' } },
      ...parts.flatMap(({ position, partId }): SaidLine[] => [
        { ...at, fact: { kind: 'removed', carrierId: gunId, position, outReason: 'notSaid' } },
        {
          ...at,
          fact: {
            ...{ kind: 'fitted', carrierId: neckId, position, partId, outReason: 'notSaid' },
            ...{ count: 1, entryAge: 'unknown' },
          },
        },
      ]),
    ],
  })
  w.touch({ stationIds: new Set([stationId]) })
}

async function insertNeck(
  tx: Tx,
  { deps }: Writing,
  of: { name: string; familyId: FamilyId | null; positions: Position[] },
): Promise<CarrierId> {
  const id = makeId('carrier', deps.now(), deps.random)
  const { name, familyId, positions } = of
  const row = { id, type: 'neck' as const, name, stationId: null, positions, built: { familyId, cableM: null } }
  await tx.insert(carrier).values(row)
  return id
}

/** The next number that no neck has. */
async function nextName(tx: Tx): Promise<string> {
  const rows = await tx.select({ name: carrier.name }).from(carrier).where(eq(carrier.type, 'neck'))
  const last = rows.reduce((most, r) => Math.max(most, Number(/^N(\d+)$/.exec(r.name)?.[1] ?? 0)), 0)
  return `N${last + 1}`
}

/** A neck that hangs nowhere yet. */
export const makeNeck = (deps: Deps, who: Who, r: z.output<typeof neckRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'neck', name: r.name },
    work: async (tx, w) => {
      const shop = await w.shop()
      if (!shop.families.has(r.familyId)) throw new DomainError('not-found', 'There is no such family.')
      const [same] = await tx
        .select({ id: carrier.id })
        .from(carrier)
        .where(and(eq(carrier.type, 'neck'), eq(carrier.name, r.name)))
      if (same) throw new DomainError('name-taken', `There is a neck "${r.name}" already.`, ['Choose another number.'])
      const id = await insertNeck(tx, w, { ...r, positions: positionsOf(shop, r.familyId) })
      // Nobody has looked at it yet: it is ready when the bench says so.
      w.say({
        kind: 'gun',
        lines: [{ fact: { kind: 'gunStatus', carrierId: id, status: 'toRefurbish' }, stationId: null }],
      })
    },
  })

/** What a neck of a family has on it. */
function positionsOf(shop: ShopModel, familyId: FamilyId): Position[] {
  const fit = shop.familyById.get(familyId)?.fit
  return shop.kinds.filter((k) => ridesOnNeck(k.key) && comesWith(k.key, fit)).map((k) => k.key)
}

/** Another neck on the gun of a cell; the one that comes off goes to the shelf that was said. */
export const swapNeck = (deps: Deps, who: Who, r: z.output<typeof neckSwapRequest>) =>
  actOnce(deps, who, { kind: 'neck', key: r.key, say: (w) => swapIn(w, r) })

async function swapIn(w: Writing, r: z.output<typeof neckSwapRequest>): Promise<void> {
  const { tx, who } = w
  const shop = await w.shop()
  const station = shop.stationById.get(r.stationId)
  if (!station) throw new DomainError('not-found', 'There is no such place.')
  mustLogAt(who, station)
  await tx.select().from(stationNow).where(eq(stationNow.stationId, r.stationId)).for('update')
  const place = await placeOf(tx, r.stationId, shop)
  const { gunId, neckId: oldId } = place.now
  if (!gunId) throw new DomainError('not-found', `There is no gun on ${station.name} now.`)
  const neck = await mustBeNeck(tx, r.neckId)
  if (neck.id === oldId) throw new DomainError('bad-request', `${neck.name} hangs on ${station.name} already.`)
  const from = await hangsAt(tx, shop, neck.id)
  if (from && !r.isFromElsewhere)
    throw new DomainError('asked-back', `${neck.name} hangs on ${from.name}, as far as anybody said.`, [
      `If it was taken from there, say so: then nobody knows which neck ${from.name} has until it is said.`,
    ])
  const familyId = neck.built?.familyId ?? null
  const keeps = Boolean(familyId && shop.familyById.get(familyId)?.fit?.isNeckQuick)
  const here = { stationId: r.stationId, happenedMs: happenedAt(w.deps) }
  const isOpen = (fact: Fact): SaidLine => ({ ...here, fact })
  w.say({
    kind: 'neck',
    key: keyOf(r.key),
    lines: [
      isOpen({ kind: 'mounted', carrierId: neck.id, onId: gunId, as: keeps ? 'keyedNeck' : 'neck' }),
      ...(oldId
        ? [
            isOpen({ kind: 'mounted', carrierId: oldId, onId: null, as: 'neck' }),
            isOpen({ kind: 'gunStatus', carrierId: oldId, status: r.oldNeck }),
          ]
        : []),
      // Whether the old one is straight is the bench's question now.
      ...settledFacts(place, ['neckStraight']).map(isOpen),
    ],
  })
  w.touch({ stationIds: new Set([r.stationId, ...(from ? [from.id] : [])]) })
}

async function mustBeNeck(tx: Tx, id: CarrierId) {
  const [neck] = await tx.select().from(carrier).where(eq(carrier.id, id)).for('update')
  if (neck?.type !== 'neck') throw new DomainError('not-found', 'There is no such neck.')
  return neck
}

/** The place where a neck hangs, as far as anybody said. */
async function hangsAt(tx: Tx, shop: ShopModel, neckId: CarrierId) {
  const gunId = await hangsOn(tx, neckId)
  if (!gunId) return null
  const [at] = await tx.select().from(stationNow).where(eq(stationNow.gunId, gunId)).orderBy(desc(stationNow.lastMs))
  return at ? (shop.stationById.get(at.stationId) ?? null) : null
}

/** The torch of a robot hit something: what has to be looked at opens by itself. */
export async function crashed(deps: Deps, who: Who, r: z.output<typeof crashRequest>): Promise<typeof OK> {
  await logFacts(deps, who, {
    ...{ kind: 'crash', key: r.key, stationId: r.stationId },
    check: (_, shop) => {
      const station = shop.stationById.get(r.stationId)
      if (station && station.classKey !== 'cell')
        throw new DomainError('bad-request', `${station.name} is no robot cell.`, ['Say at the gun what was knocked.'])
      return Promise.resolve()
    },
    factsOf: (place) => {
      const at = { carrierId: place.stationCarrierId }
      // It stands from here on, unless it stood already.
      const stops = place.now.downSinceMs === null
      return [{ kind: 'crashed', ...at }, ...(stops ? [{ kind: 'stopped', ...at, position: 'neck' } as const] : [])]
    },
  })
  return OK
}

/** Work on a gun or neck that hangs nowhere: written down on the thing itself. */
export const logOnBench = (deps: Deps, who: Who, r: z.output<typeof benchRequest>) =>
  actOnce(deps, who, {
    ...{ kind: 'bench', key: r.key },
    say: async (w) => {
      const thing = await mustBeLoose(w, r.carrierId)
      const shop = await w.shop()
      const facts = [
        ...r.acts.map((a) => benchFact(a, thing, shop)),
        ...(r.status ? [{ kind: 'gunStatus', carrierId: thing.id, status: r.status } as const] : []),
      ]
      if (facts.length === 0) throw new DomainError('bad-request', 'Nothing was said of it.', ['Say what was done.'])
      w.say({ kind: 'bench', key: keyOf(r.key), lines: facts.map((fact) => ({ fact, stationId: null })) })
    },
  })

type Thing = typeof carrier.$inferSelect
async function mustBeLoose({ tx, shop: shopOf }: Writing, id: CarrierId): Promise<Thing> {
  const [thing] = await tx.select().from(carrier).where(eq(carrier.id, id)).for('update')
  if (!thing || (thing.type !== 'gun' && thing.type !== 'neck'))
    throw new DomainError('not-found', 'There is no such gun or neck.')
  if (!(await hangsOn(tx, id))) return thing
  const at = thing.type === 'neck' ? await hangsAt(tx, await shopOf(), id) : null
  throw new DomainError('bad-request', `${thing.name} hangs${at ? ` on ${at.name}` : ' at a place'}.`, [
    'Log there what was done, or say that it came off.',
  ])
}

type BenchAct = z.output<typeof benchRequest>['acts'][number]
function benchFact({ act, position, partId, outReason }: BenchAct, thing: Thing, shop: ShopModel): Fact {
  if (!thing.positions.includes(position))
    throw new DomainError('bad-request', `${thing.name} has no ${position}.`, ['Choose what it has.'])
  if (partId && !shop.partById.has(partId)) throw new DomainError('not-found', 'There is no such part.')
  const on = { carrierId: thing.id, position }
  switch (act) {
    case 'changed':
      return { kind: 'fitted', ...on, partId: partId ?? null, outReason, count: 1, entryAge: 'new' }
    case 'cleaned':
      return { kind: 'cleaned', ...on }
    case 'removed':
      return { kind: 'removed', ...on, outReason }
    case 'found':
      return { kind: 'found', ...on, partId: partId ?? null }
  }
}
