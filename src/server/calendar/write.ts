import { and, eq } from 'drizzle-orm'
import { type z } from 'zod'
import { makeId, type EntryId } from '@core/ids/id.ts'
import { type entryAnswer, type entryDrop, type entryRequest, type moveRequest } from '@contract/classes.ts'
import { calendarEntry, calendarMove, learnerGroup } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { clashesAhead } from './school.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { changing, OK } from '@server/write/changing.ts'
import { clashLines } from './read.ts'
import { daysOf, ruleProblem, weeklyRule } from '@server/time/dayrule.ts'

/** Where classes fall on each other from now on; asked after a change, so that it is said and not refused: a plan may be half done. */
export async function clashesNow(deps: Deps): Promise<string[]> {
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const { school } = shop
  return clashLines(clashesAhead(school, shop.site.zone, deps.now()), { school, shop })
}

/** An entry of the calendar, made or changed. */
export async function saveEntry(
  deps: Deps,
  who: Who,
  r: z.output<typeof entryRequest>,
): Promise<z.input<typeof entryAnswer>> {
  await changing(deps, who, {
    key: r.key,
    change: { of: 'calendar', name: r.name, is: r.id ? 'changed' : 'made', count: 1 },
    work: async (tx, w) => {
      await checkEntry(tx, r, await w.shop())
      const known = r.id ? await mustHave(tx, r.id) : null
      const rule = r.weekly === 'keep' ? (known?.rule ?? null) : r.weekly ? ruleOf(r, r.weekly) : null
      const { kind, name, areaId, firstDay, start, end } = r
      const values = { kind, name, areaId, groupId: r.kind === 'class' ? r.groupId : null, firstDay, start, end, rule }
      if (known) {
        await tx.update(calendarEntry).set(values).where(eq(calendarEntry.id, known.id))
        await dropStray(tx, { ...known, ...values })
      } else {
        const id = makeId('entry', deps.now(), deps.random)
        await tx.insert(calendarEntry).values({ id, ...values, uid: id, isActive: true, madeMs: deps.now() })
      }
    },
  })
  return { ...OK, clashes: await clashesNow(deps) }
}

function ruleOf(
  { firstDay }: z.output<typeof entryRequest>,
  weekly: { weekdays: number[]; untilDay: string | null; everyWeeks: number },
): string {
  const rule = weeklyRule(weekly.weekdays, weekly.untilDay, weekly.everyWeeks)
  if (ruleProblem(rule, firstDay)?.is === 'never')
    throw new DomainError('bad-request', `From ${firstDay} on it never takes place.`, [
      'Look at the weekdays and at the last day.',
    ])
  return rule
}

async function checkEntry(tx: Tx, r: z.output<typeof entryRequest>, shop: ShopModel): Promise<void> {
  if (r.start === r.end)
    throw new DomainError('bad-request', `It begins and ends at ${r.start}.`, ['Give another time to end.'])
  if (r.areaId && !shop.areas.some((a) => a.id === r.areaId))
    throw new DomainError('not-found', 'There is no such bay.', ['Load the page again.'])
  if (r.kind !== 'class') return
  if (!r.groupId) throw new DomainError('bad-request', 'Whose class is it?', ['Choose a group, or make one first.'])
  const [group] = await tx.select().from(learnerGroup).where(eq(learnerGroup.id, r.groupId))
  if (!group) throw new DomainError('not-found', 'There is no such group.', ['Load the page again.'])
  if (!group.isActive)
    throw new DomainError('bad-request', `${group.name} has left.`, ['Choose another group, or bring it back first.'])
}

async function mustHave(tx: Tx, id: EntryId) {
  const [known] = await tx.select().from(calendarEntry).where(eq(calendarEntry.id, id)).for('update')
  if (!known?.isActive)
    throw new DomainError('not-found', 'That is not in the calendar any more.', ['Load the page again.'])
  return known
}

/** Moves of days on which it does not take place any more mean nothing. */
async function dropStray(tx: Tx, entry: typeof calendarEntry.$inferSelect): Promise<void> {
  const moves = await tx.select().from(calendarMove).where(eq(calendarMove.entryId, entry.id))
  for (const { day } of moves)
    if (daysOf(entry, day, day).length === 0)
      await tx.delete(calendarMove).where(and(eq(calendarMove.entryId, entry.id), eq(calendarMove.day, day)))
}

/** Not in the calendar any more; what was looked at for it stays. */
export const dropEntry = (deps: Deps, who: Who, r: z.output<typeof entryDrop>) => {
  let name = ''
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'calendar', name, is: 'dropped', count: 1 }),
    work: async (tx) => {
      name = (await mustHave(tx, r.id)).name
      await tx.update(calendarEntry).set({ isActive: false }).where(eq(calendarEntry.id, r.id))
    },
  })
}

/** One time of it elsewhere, not at all, or back where it was. */
export async function moveOnce(
  deps: Deps,
  who: Who,
  r: z.output<typeof moveRequest>,
): Promise<z.input<typeof entryAnswer>> {
  let name = ''
  await changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'calendar', name, is: 'moved', count: 1 }),
    work: async (tx) => {
      const entry = await mustHave(tx, r.entryId)
      name = entry.name
      if (daysOf(entry, r.day, r.day).length === 0)
        throw new DomainError('not-found', `“${entry.name}” does not take place on ${r.day}.`, [
          'Choose one of its days.',
        ])
      if (r.to && r.to.start === r.to.end)
        throw new DomainError('bad-request', `It begins and ends at ${r.to.start}.`, ['Give another time to end.'])
      await tx.delete(calendarMove).where(and(eq(calendarMove.entryId, r.entryId), eq(calendarMove.day, r.day)))
      if (r.isBack) return
      await tx.insert(calendarMove).values({
        ...{ entryId: r.entryId, day: r.day, toDay: r.to?.day ?? null },
        ...{ start: r.to?.start ?? null, end: r.to?.end ?? null },
      })
    },
  })
  return { ...OK, clashes: await clashesNow(deps) }
}
