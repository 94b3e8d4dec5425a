import { eq, gte, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { indexOf } from '@core/diagnose/belief.ts'
import { isWell, skillsOf } from '@core/practice/skill.ts'
import { complaintOf } from '@core/practice/drill.ts'
import { isFault, type FaultKey } from '@core/practice/faults.ts'
import { makeId, type GroupId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import {
  type attemptRequest,
  type drillSetEnd,
  type drillSetRequest,
  type practiceAnswer,
  type practiceQuery,
  type skillAnswer,
} from '@contract/practice.ts'
import { drillSet, practiceAttempt } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { ofClassHere } from '@server/classes/found.ts'
import { stopsSince } from '@server/down/stops.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'
import { DomainError } from '@server/problem/problem.ts'
import { groupBy, loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { changing } from '@server/write/changing.ts'
import { boothsAt, boothSetups } from './setups.ts'

/** What a device needs to drill by itself, with a link or without. */
export async function readPractice(
  deps: Deps,
  who: Who,
  q: z.output<typeof practiceQuery>,
): Promise<z.input<typeof practiceAnswer>> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const stationId = q.stationId ?? who.device?.stationId ?? null
  const place = stationId ? (shop.stationById.get(stationId) ?? null) : null
  const { groupId, day } = ofClassHere(deps, shop, place?.id ?? null)
  const { school } = shop
  const nameOf = (id: GroupId | null) => school.groups.find((g) => g.id === id)?.name ?? null
  const { knowledge } = await knowledgeNow(deps.db)
  const sets = await deps.db.select().from(drillSet).where(eq(drillSet.isActive, true)).orderBy(drillSet.atMs)
  const played = await playedOf(
    deps,
    sets.map((s) => s.id),
  )
  return {
    day,
    zone: shop.site.zone,
    stops: isLead(who) ? await stopsToMeet(deps, shop) : [],
    place: place && { stationId: place.id, name: place.name },
    groupName: nameOf(groupId),
    setups: await boothSetups(deps.db, shop, place?.areaId ?? who.device?.areaId ?? null),
    knowledge: knowledge as unknown as z.input<typeof practiceAnswer>['knowledge'],
    sets: sets
      .filter((s) => s.groupId === null || s.groupId === groupId || groupId === null || isLead(who))
      .map((s) => ({
        ...{ id: s.id, name: s.name, groupName: nameOf(s.groupId), scenarios: s.scenarios },
        ...(played.get(s.id) ?? { played: 0, well: 0 }),
      })),
  }
}
const LATELY_MS = 14 * DAY_MS
const MOST_STOPS = 6
/** What stopped in the last two weeks and was explained as something the booth can have; of each kind the newest. */
async function stopsToMeet(deps: Deps, shop: ShopModel): Promise<z.input<typeof practiceAnswer>['stops']> {
  const nowMs = deps.now()
  const stops = (await stopsSince(deps.db, { shop, nowMs, sinceMs: nowMs - LATELY_MS })).reverse()
  const newest = new Map<FaultKey, (typeof stops)[number]>()
  for (const stop of stops) {
    const key = stop.cause?.key ?? ''
    const isBooth = shop.stationById.get(stop.stationId)?.classKey !== 'cell'
    if (isBooth && isFault(key) && !newest.has(key)) newest.set(key, stop)
  }
  const few = [...newest].slice(0, MOST_STOPS)
  const setups = await boothsAt(
    deps.db,
    shop,
    few.map(([, s]) => s.stationId),
  )
  return few.map(([fault, s]) => ({ name: s.name, atMs: s.fromMs, fault, setup: setups.get(s.stationId) ?? null }))
}

/** How often drills of a set were played to their end, and found well. */
async function playedOf({ db }: Deps, ids: readonly (typeof drillSet.$inferSelect)['id'][]) {
  const { setId, faults, minutes, bestMin } = practiceAttempt
  const rows =
    ids.length === 0
      ? []
      : await db
          .select({ setId, faults, minutes, bestMin })
          .from(practiceAttempt)
          .where(inArray(setId, [...ids]))
  return new Map(
    [...groupBy(rows, (r) => r.setId ?? '')].map(
      ([id, own]) => [id, { played: own.length, well: own.filter(isWell).length }] as const,
    ),
  )
}

/** A drill played to its end; sent twice, it is kept once. */
export async function keepAttempt(deps: Deps, who: Who, r: z.output<typeof attemptRequest>): Promise<{ ok: true }> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const stationId = r.stationId && shop.stationById.has(r.stationId) ? r.stationId : null
  const { groupId, day, atMs } = ofClassHere(deps, shop, stationId)
  const { key, setId, faults, complaint, acts, minutes, bestMin } = r
  const row = {
    ...{ id: makeId('attempt', deps.now(), deps.random), groupId, stationId, setId, day, atMs, idempotencyKey: key },
    ...{ complaint, faults, acts, minutes, bestMin },
  }
  await transact(deps.db, (tx) => tx.insert(practiceAttempt).values(row).onDuplicateKeyUpdate({ set: { atMs } }))
  return { ok: true }
}

const KNOWN_DAYS = 120
/** By group and fault, how often it was found well: for teaching. */
export async function readSkill(deps: Deps, who: Who): Promise<z.input<typeof skillAnswer>> {
  mustRead(who)
  const { school } = await loadShop(deps.db, deps.shops, deps.now())
  const { knowledge } = await knowledgeNow(deps.db)
  const says = new Map(knowledge.causes.map((c) => [c.key, c.says]))
  const since = deps.now() - KNOWN_DAYS * DAY_MS
  const { groupId, faults, minutes, bestMin } = practiceAttempt
  const rows = await deps.db
    .select({ groupId, faults, minutes, bestMin })
    .from(practiceAttempt)
    .where(gte(practiceAttempt.atMs, since))
  const skills = [...groupBy(rows, (r) => r.groupId ?? '')].flatMap(([id, own]) =>
    skillsOf(own).map((s) => ({
      ...{ groupName: school.groups.find((g) => g.id === id)?.name ?? null, ...s },
      says: says.get(s.fault) ?? s.fault,
    })),
  )
  return {
    groups: school.groups.filter((g) => g.isActive).map((g) => ({ id: g.id, name: g.name })),
    skills: skills.sort((a, b) => a.high - b.high || b.tried - a.tried),
  }
}

/** Drills set for a group, or for all. One that shows nothing, or something else than it says, is refused: nobody could find it. */
export async function saveSet(deps: Deps, who: Who, r: z.output<typeof drillSetRequest>): Promise<{ ok: true }> {
  const { knowledge } = await knowledgeNow(deps.db)
  const index = indexOf(knowledge)
  r.scenarios.forEach((s, i) => {
    const which = s.name ?? `drill ${i + 1}`
    if (!knowledge.symptoms.some((x) => x.key === s.complaint))
      throw new DomainError('bad-request', `${which}: this shop’s list has no complaint “${s.complaint}”.`, [
        'Draw it anew here, or add the complaint in Why it stops.',
      ])
    if (complaintOf(index, s) === null)
      throw new DomainError('bad-request', `${which}: with what is wrong there, nothing shows.`, [
        'Make it worse, or leave it out.',
      ])
  })
  const { school } = await loadShop(deps.db, deps.shops, deps.now())
  const group = school.groups.find((g) => g.id === r.groupId)
  if (r.groupId && !group) throw new DomainError('not-found', 'There is no such group.', ['Load the page again.'])
  return changing(deps, who, {
    key: r.key,
    change: { of: 'drillSet', name: r.name, group: group?.name ?? null, isEnded: false },
    work: async (tx) => {
      const { name, groupId, scenarios } = r
      const id = makeId('drillSet', deps.now(), deps.random)
      await tx.insert(drillSet).values({ id, name, groupId, scenarios, atMs: deps.now() })
    },
  })
}

/** Taken back: nobody sees it any more; what was played stays. */
export function endSet(deps: Deps, who: Who, r: z.output<typeof drillSetEnd>) {
  let name = ''
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'drillSet', name, group: null, isEnded: true }),
    work: async (tx) => {
      const [known] = await tx.select().from(drillSet).where(eq(drillSet.id, r.id)).for('update')
      if (!known) throw new DomainError('not-found', 'These drills are not there any more.', ['Load the page again.'])
      name = known.name
      await tx.update(drillSet).set({ isActive: false }).where(eq(drillSet.id, r.id))
    },
  })
}
