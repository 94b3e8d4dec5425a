import { USUAL_SHIFTS_A_DAY } from '@core/clock/schedule.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, eq, inArray, min } from 'drizzle-orm'
import { type z } from 'zod'
import { makeId, type AreaId, type StationId } from '@core/ids/id.ts'
import { type standingRequest } from '@contract/firsthour.ts'
import { area, ledgerEvent, station, stationNow, usageSpan } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { lock } from '@server/projection/lock.ts'
import { shiftsOf } from '@server/time/calendar.ts'
import { addDays, dayOf, weekdayOf } from '@server/time/wall.ts'
import { type ShopSite, type ShopTimes } from '@server/shopmodel/model.ts'
import { keyOf, writeAct } from '@server/write/act.ts'
import { OK } from '@server/write/changing.ts'
import { usageLine } from './usage.ts'

const BACK_DAYS = 14
/** Work that was brought in is counted as far back as this. */
const MOST_BACK_DAYS = 366

/** Shifts worked in so many days behind, by the area's own pattern. */
function shiftsBehind(shop: ShopSite & ShopTimes, at: { areaId: AreaId; nowMs: number; backDays: number }): number {
  const shifts = shiftsOf(shop.shifts, at.areaId)
  if (shifts.length === 0) return at.backDays * USUAL_SHIFTS_A_DAY
  const today = dayOf(shop.site.zone, at.nowMs)
  const days = Array.from({ length: at.backDays }, (_, i) => addDays(today, -i - 1))
  return days.reduce((n, day) => n + shifts.filter((s) => s.weekdays.includes(weekdayOf(day))).length, 0)
}

/** Whole days back to the first part put on at these places that is written down: two weeks at least, a year at most. */
async function daysBehind(tx: Tx, stationIds: StationId[], nowMs: number): Promise<number> {
  const [first] = await tx
    .select({ ms: min(ledgerEvent.happenedMs) })
    .from(ledgerEvent)
    .where(and(inArray(ledgerEvent.stationId, stationIds), eq(ledgerEvent.kind, 'fitted')))
  const days = Math.ceil((nowMs - (first?.ms ?? nowMs)) / DAY_MS)
  return Math.min(MOST_BACK_DAYS, Math.max(BACK_DAYS, days))
}

/**
 * About so much in a shift, said of a whole area: two weeks behind, or all the time since the first part that is written down there, are filled with
 * it as an estimate on each of its feeders, so that parts from a sheet have an age and the clocks run on at that pace. Whatever is counted goes before it.
 */
export async function saveStanding(deps: Deps, who: Who, r: z.infer<typeof standingRequest>) {
  mustLead(who)
  await writeAct(deps, who, async (w) => {
    const { tx } = w
    if (await actByKey(tx, 'usage', keyOf(r.key))) return
    const [row] = await tx.select({ id: area.id }).from(area).where(eq(area.id, r.areaId))
    if (!row) throw new DomainError('not-found', 'There is no such area.')
    const nowMs = deps.now()
    const here = await tx
      .select({ stationId: station.id, headId: stationNow.headId })
      .from(station)
      .innerJoin(stationNow, eq(stationNow.stationId, station.id))
      .where(eq(station.areaId, r.areaId))
    const heads = here.flatMap(({ stationId, headId }) => (headId ? [{ stationId, headId }] : []))
    if (heads.length === 0) throw new DomainError('not-found', 'No feeder stands there.')
    await lock(tx, new Set(heads.map((h) => h.headId)))
    const stationIds = heads.map((h) => h.stationId)
    const backDays = await daysBehind(tx, stationIds, nowMs)
    const n = shiftsBehind(await w.shop(), { areaId: r.areaId, nowMs, backDays })
    await tx.insert(usageSpan).values(
      heads.map(({ headId }, i) => ({
        ...{ id: makeId('usage', nowMs, deps.random), headId, fromMs: nowMs - backDays * DAY_MS, toMs: nowMs },
        ...{ source: 'rate' as const, starts: null, loggedMs: nowMs, idempotencyKey: `${r.key}-${i}` },
        kg: r.kg ? r.kg * n : null,
        arcHours: r.arcHours ? r.arcHours * n : null,
      })),
    )
    w.say({
      kind: 'usage',
      key: keyOf(r.key),
      lines: heads.map((h) => usageLine({ ...h, rows: 1, happenedMs: nowMs })),
    })
  })
  return OK
}
