import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import { type moveRequest } from '@contract/shop.ts'
import { stationNow } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { mustLogAt, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { append, eventByKey } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { OK } from './changing.ts'
import { loadShop } from './model.ts'
import { mountedDraft } from './places.ts'

/** A gun found at another place: it hangs there from now; what hung there goes where this one came from. */
export async function moveGun(deps: Deps, who: Who, r: z.infer<typeof moveRequest>): Promise<typeof OK> {
  await transact(deps.db, async (tx) => {
    if (await eventByKey(tx, `${r.key}/0`)) return
    const shop = await loadShop(tx, deps.calendar, deps.now())
    const here = shop.stationById.get(r.stationId)
    const [to] = await tx.select().from(stationNow).where(eq(stationNow.stationId, r.stationId)).for('update')
    const [from] = await tx.select().from(stationNow).where(eq(stationNow.stationId, r.gunOfStationId)).for('update')
    if (!here || !to?.headId || !from?.gunId || !from.headId)
      throw new DomainError('not-found', 'That gun or place is not there any more.')
    mustLogAt(who, here)
    const at = { deps, who, happenedMs: deps.now() }
    const drafts = [
      mountedDraft({ ...at, stationId: r.stationId, childId: from.gunId, onId: to.headId, key: `${r.key}/0` }),
    ]
    if (to.gunId)
      drafts.push(
        mountedDraft({ ...at, stationId: r.gunOfStationId, childId: to.gunId, onId: from.headId, key: `${r.key}/1` }),
      )
    const touched = await append(tx, drafts)
    touched.stationIds.add(r.stationId).add(r.gunOfStationId)
    await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
  })
  return OK
}
