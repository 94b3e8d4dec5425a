import { and, asc, eq, inArray, isNull, max } from 'drizzle-orm'
import { type z } from 'zod'
import { type moveRequest } from '@contract/shop.ts'
import { carrier, mount, stationNow } from '@server/db/schema.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { mustLogAt, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { append, eventByKey } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { OK } from './changing.ts'
import { loadShop, type ShopModel } from './model.ts'
import { mountedDraft } from './places.ts'

/** A gun found at another place: it hangs there from now; what hung there goes where this one came from. */
export async function moveGun(deps: Deps, who: Who, r: z.infer<typeof moveRequest>): Promise<typeof OK> {
  await transact(deps.db, async (tx) => {
    if (await eventByKey(tx, `${r.key}/0`)) return
    const shop = await loadShop(tx, deps.calendar, deps.now())
    const here = shop.stationById.get(r.stationId)
    const nows = await tx
      .select()
      .from(stationNow)
      .where(inArray(stationNow.stationId, [r.stationId, r.gunOfStationId]))
      .orderBy(asc(stationNow.stationId))
      .for('update')
    const to = nows.find((n) => n.stationId === r.stationId)
    const from = nows.find((n) => n.stationId === r.gunOfStationId)
    if (!here || !to?.headId || !from?.gunId || !from.headId)
      throw new DomainError('not-found', 'That gun or place is not there any more.')
    mustLogAt(who, here)
    const guns = [from.gunId, ...(to.gunId ? [to.gunId] : [])]
    const at = { deps, who, happenedMs: await afterLastMount(tx, guns, deps.now()) }
    const drafts = [
      mountedDraft({ ...at, stationId: r.stationId, childId: from.gunId, onId: to.headId, key: `${r.key}/0` }),
    ]
    if (to.gunId)
      drafts.push(
        mountedDraft({ ...at, stationId: r.gunOfStationId, childId: to.gunId, onId: from.headId, key: `${r.key}/1` }),
      )
    await pin(tx, shop, [
      { gunId: from.gunId, stationId: r.gunOfStationId },
      { gunId: to.gunId, stationId: r.stationId },
    ])
    const touched = await append(tx, drafts)
    touched.stationIds.add(r.stationId).add(r.gunOfStationId)
    await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
  })
  return OK
}

/** A gun keeps being the gun it was: its family and its cable go with it. */
async function pin(
  tx: Tx,
  shop: ShopModel,
  guns: readonly { gunId: string | null; stationId: string }[],
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
async function afterLastMount(tx: Tx, gunIds: readonly string[], nowMs: number): Promise<number> {
  const [last] = await tx
    .select({ fromMs: max(mount.fromMs) })
    .from(mount)
    .where(inArray(mount.childId, [...gunIds]))
  return Math.max(nowMs, Number(last?.fromMs ?? 0) + 1)
}
