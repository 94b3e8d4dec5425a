import { and, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { type CarrierId, makeId } from '@core/ids/id.ts'
import { type Fact, type GunStatus } from '@core/ledger/event.ts'
import { comesWith } from '@core/path/kinds.ts'
import { type gunRequest, type statusRequest, type swapRequest } from '@contract/spareguns.ts'
import { carrier, stationNow } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { happenedAt, mustLogAt, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { builtHere } from '@server/gunnow/setup.ts'
import { actOnce } from '@server/write/actonce.ts'
import { changing } from '@server/write/changing.ts'
import { mountedLine } from '@server/shop/places.ts'
import { keyOf, type Writing } from '@server/write/act.ts'
import { hangsOn } from '@server/write/place.ts'

/** A gun hung instead of another: the one that comes off is ready, or to be put right. */
export const swapGun = (deps: Deps, who: Who, r: z.output<typeof swapRequest>) =>
  actOnce(deps, who, { kind: 'swap', key: r.key, say: (w) => swapIn(w, r) })

async function swapIn(w: Writing, r: z.output<typeof swapRequest>): Promise<void> {
  const { tx, who } = w
  const shop = await w.shop()
  const station = shop.stationById.get(r.stationId)
  if (!station) throw new DomainError('not-found', 'There is no such place.')
  mustLogAt(who, station)
  await tx.select().from(stationNow).where(eq(stationNow.stationId, r.stationId)).for('update')
  const hung = await hungOne(tx, shop, r.stationId)
  await mustHangFree(tx, r.gunId)
  if (!hung.now.headId) throw new DomainError('not-found', `There is no feeder on ${station.name} now.`)
  const old = hung.now.gunId
  // What came off keeps being the gun it was: its family and cable go with it.
  if (old) {
    const { familyId, cableM } = builtHere(hung, shop)
    await tx
      .update(carrier)
      .set({ built: { familyId, cableM } })
      .where(and(eq(carrier.id, old), isNull(carrier.built)))
  }
  const here = { stationId: r.stationId, happenedMs: happenedAt(w.deps) }
  w.say({
    kind: 'swap',
    key: keyOf(r.key),
    lines: [
      mountedLine({ ...here, childId: r.gunId, onId: hung.now.headId }),
      ...(old
        ? [mountedLine({ ...here, childId: old, onId: null }), { ...here, fact: statusFact(old, r.oldGun) }]
        : []),
    ],
  })
  w.touch({ stationIds: new Set([r.stationId]) })
}

async function mustHangFree(tx: Tx, gunId: CarrierId): Promise<void> {
  const [gun] = await tx.select().from(carrier).where(eq(carrier.id, gunId)).for('update')
  if (!gun || gun.type !== 'gun') throw new DomainError('not-found', 'There is no such gun.')
  if (await hangsOn(tx, gunId))
    throw new DomainError('bad-request', `${gun.name} hangs somewhere already.`, [
      'Say there that it came here instead.',
    ])
}

/** A gun of the shop that hangs nowhere yet. */
export const makeGun = (deps: Deps, who: Who, r: z.output<typeof gunRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'gun', name: r.name },
    work: async (tx, w) => {
      const shop = await w.shop()
      if (r.familyId && !shop.families.has(r.familyId)) throw new DomainError('not-found', 'There is no such family.')
      const fit = r.familyId ? shop.familyById.get(r.familyId)?.fit : null
      const [same] = await tx
        .select({ id: carrier.id })
        .from(carrier)
        .where(and(eq(carrier.type, 'gun'), eq(carrier.name, r.name)))
      if (same) throw new DomainError('name-taken', `There is a gun "${r.name}" already.`, ['Choose another name.'])
      const id = makeId('carrier', deps.now(), deps.random)
      await tx.insert(carrier).values({
        id,
        type: 'gun',
        name: r.name,
        stationId: null,
        positions: shop.kinds.filter((k) => k.rides === 'gun' && comesWith(k.key, fit)).map((k) => k.key),
        built: { familyId: r.familyId, cableM: r.cableM },
      })
      w.say({ kind: 'gun', lines: [{ fact: statusFact(id, 'ready'), stationId: null }] })
    },
  })

const statusFact = (gunId: CarrierId, status: GunStatus): Fact => ({
  kind: 'gunStatus',
  carrierId: gunId,
  status,
})

/** A loose gun was put right, or turned out to need it. */
export const setGunStatus = (deps: Deps, who: Who, r: z.output<typeof statusRequest>) =>
  actOnce(deps, who, {
    ...{ kind: 'gun', key: r.key },
    say: async (w) => {
      const [gun] = await w.tx.select().from(carrier).where(eq(carrier.id, r.gunId))
      if (!gun || gun.type !== 'gun') throw new DomainError('not-found', 'There is no such gun.')
      const shop = await w.shop()
      const [at] = await w.tx.select({ id: stationNow.stationId }).from(stationNow).where(eq(stationNow.gunId, r.gunId))
      const place = at && shop.stationById.get(at.id)
      // A loose gun lies on the bench: whoever mends it says so.
      if (place) mustLogAt(w.who, place)
      w.say({ kind: 'gun', key: keyOf(r.key), lines: [{ fact: statusFact(r.gunId, r.status), stationId: null }] })
    },
  })
