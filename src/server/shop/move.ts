import { type CarrierId, type StationId } from '@core/ids/id.ts'
import { and, asc, eq, inArray, isNull, max } from 'drizzle-orm'
import { type z } from 'zod'
import { type moveRequest } from '@contract/shop.ts'
import { carrier, mount, stationNow } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { mustLogAt, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { keyOf, writeAct } from '@server/write/act.ts'
import { OK } from '@server/write/changing.ts'
import { type ShopFit } from '@server/shopmodel/model.ts'
import { mountedLine } from './places.ts'

/** A gun found at another place: it hangs there from now; what hung there goes where this one came from. */
export async function moveGun(deps: Deps, who: Who, r: z.infer<typeof moveRequest>): Promise<typeof OK> {
  await writeAct(deps, who, async (w) => {
    const { tx } = w
    if (await actByKey(tx, 'move', keyOf(r.key))) return
    const shop = await w.shop()
    const place = shop.stationById.get(r.stationId)
    const fromPlace = shop.stationById.get(r.gunOfStationId)
    const nows = await tx
      .select()
      .from(stationNow)
      .where(inArray(stationNow.stationId, [r.stationId, r.gunOfStationId]))
      .orderBy(asc(stationNow.stationId))
      .for('update')
    const to = nows.find((n) => n.stationId === r.stationId)
    const from = nows.find((n) => n.stationId === r.gunOfStationId)
    if (!place || !fromPlace || !to?.headId || !from?.gunId || !from.headId)
      throw new DomainError('not-found', 'That gun or place is not there any more.')
    // Whoever takes a gun away must be at home there too.
    mustLogAt(who, place)
    mustLogAt(who, fromPlace)
    const guns = [from.gunId, ...(to.gunId ? [to.gunId] : [])]
    const happenedMs = await afterLastMount(tx, guns, deps.now())
    await pin(tx, shop, [
      { gunId: from.gunId, stationId: r.gunOfStationId },
      { gunId: to.gunId, stationId: r.stationId },
    ])
    const [here, there] = [r.stationId, r.gunOfStationId]
    const lines = [mountedLine({ happenedMs, stationId: here, childId: from.gunId, onId: to.headId })]
    if (to.gunId) lines.push(mountedLine({ happenedMs, stationId: there, childId: to.gunId, onId: from.headId }))
    w.say({ kind: 'move', key: keyOf(r.key), lines })
    w.touch({ stationIds: new Set([here, there]) })
  })
  return OK
}

/** A gun keeps being the gun it was: its family and its cable go with it. */
async function pin(
  tx: Tx,
  shop: ShopFit,
  guns: readonly { gunId: CarrierId | null; stationId: StationId }[],
): Promise<void> {
  for (const { gunId, stationId } of guns) {
    if (!gunId) continue
    const { familyId, cableM } = shop.built(stationId)
    await tx
      .update(carrier)
      .set({ built: { familyId, cableM } })
      .where(and(eq(carrier.id, gunId), isNull(carrier.built)))
  }
}

/** Now, but after these were hung where they hang: two moves in one millisecond keep their order. */
async function afterLastMount(tx: Tx, gunIds: readonly CarrierId[], nowMs: number): Promise<number> {
  const [last] = await tx
    .select({ fromMs: max(mount.fromMs) })
    .from(mount)
    .where(inArray(mount.childId, [...gunIds]))
  return Math.max(nowMs, Number(last?.fromMs ?? 0) + 1)
}
