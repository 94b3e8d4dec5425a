import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import { isCode } from '@core/classes/groups.ts'
import { makeId, type StationId } from '@core/ids/id.ts'
import { type groupRequest, type groupsAnswer, type taughtRequest } from '@contract/classes.ts'
import { groupBooth, learnerGroup, lessonGiven } from '@server/db/schema.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { changing } from '@server/write/changing.ts'

/** Groups with their booths. Who has which is told to leads and instructors, and is a code. */
export async function readGroups(deps: Deps, who: Who): Promise<z.input<typeof groupsAnswer>> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const { school } = shop
  return {
    groups: school.groups.map((g) => ({
      ...g,
      booths: inOrder(school.boothsOf.get(g.id) ?? [], shop).flatMap((b) => {
        const name = shop.stationById.get(b.stationId)?.name
        const wireName = b.wireId ? (shop.wires.get(b.wireId)?.name ?? null) : null
        const learner = isLead(who) ? b.learner : null
        return name ? [{ stationId: b.stationId, name, wireId: b.wireId, wireName, learner }] : []
      }),
    })),
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    booths: shop.stations.map(({ id, name, areaId }) => ({ stationId: id, name, areaId })),
    wires: [...shop.wires.values()].map(({ id, name }) => ({ id, name })),
  }
}

/** Booths as they stand on the way round. */
export function inOrder<B extends { stationId: StationId }>(booths: readonly B[], shop: ShopModel): B[] {
  const order = new Map(shop.stations.map((s, i) => [s.id, i]))
  return [...booths].sort((a, b) => (order.get(a.stationId) ?? 0) - (order.get(b.stationId) ?? 0))
}

/** A group with its booths as they are from now on. One that left keeps what it left behind, and has no booth. */
export const saveGroup = (deps: Deps, who: Who, r: z.output<typeof groupRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'group', name: r.name, isActive: r.isActive },
    work: async (tx, w) => {
      checkBooths(r, await w.shop())
      const values = { name: r.name, level: r.level, size: r.size, isActive: r.isActive }
      if (r.id) {
        const [known] = await tx.select().from(learnerGroup).where(eq(learnerGroup.id, r.id)).for('update')
        if (!known) throw new DomainError('not-found', 'There is no such group.', ['Load the page again.'])
        await tx.update(learnerGroup).set(values).where(eq(learnerGroup.id, r.id))
      }
      const id = r.id ?? makeId('group', deps.now(), deps.random)
      if (!r.id) await tx.insert(learnerGroup).values({ id, ...values })
      await tx.delete(groupBooth).where(eq(groupBooth.groupId, id))
      const rows = r.isActive ? r.booths : []
      if (rows.length > 0)
        await tx
          .insert(groupBooth)
          .values(rows.map((b) => ({ groupId: id, ...b, learner: b.learner ? b.learner : null })))
    },
  })

function checkBooths({ booths }: z.output<typeof groupRequest>, shop: ShopModel): void {
  const seen = new Set<string>()
  const codes = new Map<string, string>()
  for (const { stationId, wireId, learner } of booths) {
    const name = shop.stationById.get(stationId)?.name
    if (!name) throw new DomainError('not-found', 'One of the booths is not there any more.', ['Load the page again.'])
    if (seen.has(stationId)) throw new DomainError('bad-request', `${name} is in the list twice.`, ['Take one away.'])
    seen.add(stationId)
    if (wireId && !shop.wires.has(wireId)) throw new DomainError('not-found', `${name}: there is no such wire.`)
    if (!learner) continue
    if (!isCode(learner))
      throw new DomainError('bad-request', `${name}: "${learner}" could be a name.`, [
        'Give a code with a figure in it, like L7: who that is stands on your own list.',
      ])
    const other = codes.get(learner.toLowerCase())
    if (other)
      throw new DomainError('bad-request', `${learner} is at ${other} and at ${name}.`, ['Give one booth to each.'])
    codes.set(learner.toLowerCase(), name)
  }
}

/** A lesson was given: what is left wrong before and since is held against each other from here on. */
export const logTaught = (deps: Deps, who: Who, r: z.output<typeof taughtRequest>) => {
  let name = ''
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'taught', group: name, item: r.item }),
    work: async (tx, w) => {
      const [known] = await tx.select().from(learnerGroup).where(eq(learnerGroup.id, r.groupId))
      if (!known) throw new DomainError('not-found', 'There is no such group.', ['Load the page again.'])
      name = known.name
      const { site } = await w.shop()
      const atMs = deps.happenedMs ?? deps.now()
      await tx.insert(lessonGiven).values({
        ...{ id: makeId('lesson', deps.now(), deps.random), groupId: r.groupId, item: r.item },
        ...{ day: dayOf(site.zone, atMs), atMs },
      })
    },
  })
}
