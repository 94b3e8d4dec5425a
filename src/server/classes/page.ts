import { inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { beyondChance, type BoothFound, type OfGroup } from '@core/classes/beyond.ts'
import { around, BEFORE_CLASS_MS, handOverAt, type Occurrence } from '@core/classes/calendar.ts'
import { lessonHelped } from '@core/classes/helped.ts'
import { HAND_ITEM_KEYS, RIGHT } from '@core/classes/items.ts'
import { sinceTaught, whatToTeach } from '@core/classes/teach.ts'
import { NO_ID, type GroupId, type WireId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type classesAnswer, type classesQuery, type teachAnswer } from '@contract/classes.ts'
import { headNow, lessonGiven, stationNow } from '@server/db/schema.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { inOrder } from './groups.ts'
import { callsOfClasses } from './calls.ts'
import { wiresOfClasses } from './wires.ts'
import { tipsOfClasses } from './supplies.ts'
import { asFound, looksSince, type LookBefore } from '@server/calendar/school.ts'
import { activeBooths, timesOf, type School } from '@server/shopmodel/school.ts'

/** So many weeks of looks are counted. */
const WEEKS = 10
const AHEAD_MS = 14 * DAY_MS
type Answer = z.input<typeof classesAnswer>

/** The class that runs, or the next: its booths as they stand, what was found, and what to teach. */
export async function readClasses(deps: Deps, who: Who, query: z.output<typeof classesQuery>): Promise<Answer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { school } = shop
  const { zone } = shop.site
  const times = timesOf(school, zone, { fromMs: nowMs - 7 * DAY_MS, toMs: nowMs + AHEAD_MS })
  const { period, is } = periodOf(times, query, nowMs)
  const looks = await looksSince(deps.db, nowMs - WEEKS * 7 * DAY_MS)
  const group = school.groups.find((g) => g.id === period?.groupId) ?? null
  const own = period ? looks.filter((l) => isOfPeriod(l, period)) : []
  const today = dayOf(zone, nowMs)
  return {
    ...{ nowMs, zone, today, period, is },
    group: group && { ...group },
    leftBy: leftByOf(school, times, { period, nowMs }),
    booths: group ? await boothsOf(deps, { school, shop, groupId: group.id, looks: own, isLead: isLead(who) }) : [],
    todays: times
      .filter((o) => o.kind === 'class' && dayOf(zone, o.fromMs) === today)
      .map((o) => ({ ...o, groupName: school.groups.find((g) => g.id === o.groupId)?.name ?? null })),
    found: foundOf(own),
    // What a group leaves wrong is told to whoever teaches it.
    ...(await taughtAndToTeach(deps, { school, group: isLead(who) ? (group?.id ?? null) : null, looks })),
    groups: school.groups.filter((g) => g.isActive).length,
    tips: isLead(who) ? await tipsOfClasses(deps.db, shop, nowMs) : null,
    calls: isLead(who) ? await callsOfClasses(deps.db, shop, nowMs) : null,
    wires: isLead(who) ? await wiresOfClasses(deps.db, shop, nowMs) : [],
  }
}

function periodOf(
  times: readonly Occurrence[],
  query: z.output<typeof classesQuery>,
  nowMs: number,
): { period: Occurrence | null; is: Answer['is'] } {
  const asked = query.entryId ? times.find((o) => o.entryId === query.entryId && o.day === query.day) : undefined
  if (query.entryId && !asked)
    throw new DomainError('not-found', 'That class is not in the calendar then.', ['Choose another one.'])
  if (asked) return { period: asked, is: 'asked' }
  const { now, next } = around(times, nowMs)
  return now[0] ? { period: now[0], is: 'now' } : { period: next, is: 'next' }
}

/** Looked at from a little before it began until it was over, for it. */
const isOfPeriod = (look: LookBefore, { entryId, fromMs, toMs }: Occurrence) =>
  look.classId === entryId && look.happenedMs >= fromMs - BEFORE_CLASS_MS && look.happenedMs < toMs

function leftByOf(
  school: School,
  times: readonly Occurrence[],
  { period, nowMs }: { period: Occurrence | null; nowMs: number },
): string | null {
  if (!period?.groupId) return null
  const own = new Set(activeBooths(school, period.groupId))
  const before = handOverAt(
    times,
    (id) => id === period.groupId || activeBooths(school, id).some((b) => own.has(b)),
    Math.max(nowMs, period.fromMs),
  ).leftBy
  return school.groups.find((g) => g.id === before?.groupId)?.name ?? null
}

async function boothsOf(
  deps: Deps,
  at: { school: School; shop: ShopModel; groupId: GroupId; looks: LookBefore[]; isLead: boolean },
): Promise<Answer['booths']> {
  const { school, shop, groupId, looks } = at
  const rows = (school.boothsOf.get(groupId) ?? []).filter((b) => shop.stationById.has(b.stationId))
  const ids = rows.map((r) => r.stationId)
  if (ids.length === 0) return []
  const nows = await deps.db.select().from(stationNow).where(inArray(stationNow.stationId, ids))
  const heads = await deps.db
    .select({ headId: headNow.headId, wireId: headNow.spoolWireId })
    .from(headNow)
    .where(inArray(headNow.headId, [NO_ID, ...nows.flatMap((n) => n.headId ?? [])]))
  const nameOf = (id: WireId | null | undefined) => (id ? (shop.wires.get(id)?.name ?? null) : null)
  return inOrder(rows, shop).map((row) => {
    const now = nows.find((n) => n.stationId === row.stationId)
    const wireId = heads.find((h) => h.headId === now?.headId)?.wireId ?? null
    const look = looks.filter((l) => l.stationId === row.stationId).sort((a, b) => b.happenedMs - a.happenedMs)[0]
    const wants = row.wireId && row.wireId !== wireId ? row.wireId : null
    return {
      stationId: row.stationId,
      name: shop.stationById.get(row.stationId)?.name ?? '',
      wireName: nameOf(wireId),
      wantsWireName: nameOf(wants),
      wantsWireId: wants,
      learner: at.isLead ? row.learner : null,
      isDown: now?.downSinceMs != null,
      isParked: now?.isParked ?? false,
      look: look ? { atMs: look.happenedMs, found: look.found, still: look.still } : null,
    }
  })
}

function foundOf(looks: readonly LookBefore[]): Answer['found'] {
  return HAND_ITEM_KEYS.flatMap((item) => {
    const said = looks.flatMap((l) => l.found[item] ?? [])
    const wrong = said.filter((a) => a !== RIGHT).length
    return said.length > 0 ? [{ item, wrong, looked: said.length }] : []
  })
}

async function taughtAndToTeach(
  deps: Deps,
  at: { school: School; group: GroupId | null; looks: LookBefore[] },
): Promise<Pick<Answer, 'teach' | 'lessons'>> {
  const { group, school } = at
  if (!group) return { teach: [], lessons: [] }
  const given = await deps.db.select().from(lessonGiven)
  const found = asFound(at.looks)
  const nowMs = deps.now()
  const own = given.filter((l) => l.groupId === group).sort((a, b) => b.atMs - a.atMs)
  return {
    teach: whatToTeach({
      group,
      ofGroups: beyondOf(sinceTaught(found, asLessons(given))),
      booths: activeBooths(school, group).length,
      taught: own.map((l) => ({ item: l.item, daysAgo: (nowMs - l.atMs) / DAY_MS })),
    }),
    lessons: own.slice(0, 4).map(({ item, day }) => ({ item, day, ...lessonHelped(found, { group, item, day }) })),
  }
}

/** Two thousand shuffles of the same looks say the same: kept, since a page that is open asks again with each line of the log. */
const keptBeyond = new Map<string, OfGroup[]>()
const MOST_KEPT = 4
function beyondOf(looks: readonly BoothFound[]): OfGroup[] {
  const key = looks.map((l) => `${l.boothId}${l.leftBy}${l.day}${JSON.stringify(l.found)}`).join()
  const known = keptBeyond.get(key)
  if (known) return known
  const made = beyondChance(looks)
  const [oldest] = keptBeyond.keys()
  if (oldest !== undefined && keptBeyond.size >= MOST_KEPT) keptBeyond.delete(oldest)
  keptBeyond.set(key, made)
  return made
}

const asLessons = (given: readonly (typeof lessonGiven.$inferSelect)[]) =>
  given.map(({ groupId, item, day }) => ({ group: groupId, item, day }))

/** What each group leaves wrong, thing by thing, and whether that is more than luck. */
export async function readTeach(deps: Deps, who: Who): Promise<z.input<typeof teachAnswer>> {
  mustRead(who)
  const { school } = await loadShop(deps.db, deps.shops, deps.now())
  const looks = await looksSince(deps.db, deps.now() - WEEKS * 7 * DAY_MS)
  const lessons = asLessons(await deps.db.select().from(lessonGiven))
  const isThere = (id: string | null): id is GroupId => school.groups.some((g) => g.id === id && g.isActive)
  return {
    groups: school.groups.filter((g) => g.isActive).map(({ id, name }) => ({ id, name })),
    weeks: WEEKS,
    looks: looks.length,
    ofGroups: beyondOf(sinceTaught(asFound(looks), lessons)).flatMap((g: OfGroup) =>
      isThere(g.group) ? [{ ...g, group: g.group }] : [],
    ),
  }
}
