import { type z } from 'zod'
import { type Clash } from '@core/classes/calendar.ts'
import { type calendarAnswer, type calendarQuery } from '@contract/classes.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { clashesAhead } from './school.ts'
import { timesOf, type School } from '@server/shopmodel/school.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { addDays, dayOf, wallOf, wallToMsOrNext, weekdayOf } from '@server/time/wall.ts'
import { asWeekly } from '@server/time/dayrule.ts'

type Answer = z.input<typeof calendarAnswer>

/** Some days of the one calendar: what is worked, holidays, classes, planned stops, and what falls on what. */
export async function readCalendar(deps: Deps, who: Who, query: z.output<typeof calendarQuery>): Promise<Answer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { school } = shop
  const { zone } = shop.site
  const today = dayOf(zone, nowMs)
  const from = query.from ?? addDays(today, 1 - weekdayOf(today))
  const starts = Array.from({ length: query.days + 1 }, (_, i) => addDays(from, i))
  const startMs = starts.map((day) => wallToMsOrNext(zone, day, '00:00'))
  const [fromMs, toMs] = [startMs[0] ?? nowMs, startMs.at(-1) ?? nowMs]
  return {
    ...{ nowMs, zone, from },
    days: starts.slice(0, -1).map((day, i) => ({
      ...{ day, fromMs: startMs[i] ?? 0, toMs: startMs[i + 1] ?? 0 },
      holiday: school.holidays.find((h) => h.day === day)?.name ?? null,
    })),
    entries: school.entries.map((e) => ({ ...e, weekly: e.rule ? asWeekly(e.rule) : null })),
    occurrences: timesOf(school, zone, { fromMs, toMs }),
    shifts: shop.areas.flatMap((a) =>
      (shop.scheduleOfArea(a.id)?.spans ?? [])
        .filter((s) => s.toMs > fromMs && s.fromMs < toMs)
        .map((s) => ({ areaId: a.id, ...s })),
    ),
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    groups: school.groups.filter((g) => g.isActive).map(({ id, name }) => ({ id, name })),
    clashes: clashesAhead(school, zone, nowMs).map((c) => ({
      ...{ a: c.a, b: c.b, is: c.is },
      booths: c.is === 'booths' ? shop.stations.filter((s) => c.stationIds.includes(s.id)).map((s) => s.name) : [],
    })),
  }
}

/** A clash in words: when, which two, and at which booths. */
export function clashWords(clash: Clash, { school, shop }: { school: School; shop: ShopModel }): string {
  const { zone } = shop.site
  const { a, b } = clash
  const nameOf = (id: string | null) => school.groups.find((g) => g.id === id)?.name ?? ''
  const when = `${dayOf(zone, b.fromMs)} ${wallOf(zone, b.fromMs)}`
  if (clash.is === 'group') return `${when}: ${nameOf(a.groupId)} is in “${a.name}” and in “${b.name}” at once.`
  const names = clash.stationIds.map((id) => shop.stationById.get(id)?.name ?? '').sort()
  const some = names.length > 4 ? `${names.slice(0, 4).join(', ')} and ${names.length - 4} more` : names.join(', ')
  return `${when}: ${some} ${names.length === 1 ? 'is' : 'are'} ${nameOf(a.groupId)}’s and ${nameOf(b.groupId)}’s at once.`
}
/** Each pair of entries once, with its first time: of one that comes each week one line is enough. */
export function clashLines(clashes: readonly Clash[], at: { school: School; shop: ShopModel }): string[] {
  const seen = new Set<string>()
  return clashes.flatMap((c) => {
    const pair = [c.a.entryId, c.b.entryId].sort().join(' ')
    if (seen.has(pair)) return []
    seen.add(pair)
    return [clashWords(c, at)]
  })
}
