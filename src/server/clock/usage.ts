import { HOUR_MS } from '@core/units/time.ts'
import { and, eq, max } from 'drizzle-orm'
import { type AreaId, type CarrierId, makeId, type StationId } from '@core/ids/id.ts'
import { disagreementsOf } from '@core/clock/headclock.ts'
import { type UsageRequest } from '@contract/clock.ts'
import { stationNow, usageSpan } from '@server/db/schema.ts'
import { isDuplicate, type Tx } from '@server/db/db.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { lock } from '@server/projection/lock.ts'
import { keyOf, writeAct, type SaidLine } from '@server/write/act.ts'
import { loadShop, type ShopSite, type ShopTimes } from '@server/shopmodel/model.ts'
import { shiftSpan, shiftsOf } from '@server/time/calendar.ts'
import { addDays, dayOf, wallToMsOrNext } from '@server/time/wall.ts'

/** The stretch a total stands for: a named shift of that day, or the day from midnight to midnight. */
export function spanOf(
  shop: ShopSite & ShopTimes,
  at: { areaId: AreaId; day: string; shift: string | null | undefined },
): { ok: true; fromMs: number; toMs: number } | { ok: false; reason: string } {
  const { zone } = shop.site
  if (!at.shift)
    return {
      ok: true,
      fromMs: wallToMsOrNext(zone, at.day, '00:00'),
      toMs: wallToMsOrNext(zone, addDays(at.day, 1), '00:00'),
    }
  const shifts = shiftsOf(shop.shifts, at.areaId)
  const found = shifts.find((s) => s.name.toLowerCase() === at.shift?.trim().toLowerCase())
  if (!found)
    return {
      ok: false,
      reason:
        shifts.length > 0
          ? `no shift called "${at.shift}" here; there is ${shifts.map((s) => s.name).join(', ')}`
          : 'no shift times are set here; leave the shift empty or set them in Our shop',
    }
  return { ok: true, ...shiftSpan(zone, found, at.day) }
}

/** A shift total typed at the desk or the booth. A later one for the same shift takes the place of the first. */
export async function enterUsage(deps: Deps, who: Who, request: UsageRequest) {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const station = shop.stationById.get(request.stationId)
  if (!station) throw new DomainError('not-found', 'There is no such place.')
  mustLogAt(who, station)
  const span = spanOf(shop, { areaId: station.areaId, day: request.day, shift: request.shift })
  if (!span.ok) throw new DomainError('time-refused', `Shift: ${span.reason}.`)
  if (request.day > dayOf(shop.site.zone, deps.now()))
    throw new DomainError('time-refused', 'That day is still to come.')
  const hours = (span.toMs - span.fromMs) / HOUR_MS
  if ((request.arcHours ?? 0) > hours)
    throw new DomainError('bad-request', `${request.arcHours} arc hours do not fit into ${hours} hours.`, [
      'Were these minutes? Divide by 60.',
    ])
  const [now] = await deps.db.select().from(stationNow).where(eq(stationNow.stationId, station.id))
  const headId = now?.headId
  if (!headId) throw new DomainError('not-found', `No feeder stands at ${station.name}.`)
  const toMs = Math.min(span.toMs, Math.max(deps.now(), span.fromMs + 60_000))
  const isRepeat = await write(deps, who, { request, headId, stationId: station.id, fromMs: span.fromMs, toMs })
  const rows = await deps.db.select().from(usageSpan).where(eq(usageSpan.headId, headId))
  const schedule = shop.scheduleOfArea(station.areaId)
  return { fromMs: span.fromMs, toMs, isRepeat, disagreements: disagreementsOf(rows, schedule) }
}

async function write(
  deps: Deps,
  who: Who,
  at: { request: UsageRequest; headId: CarrierId; stationId: StationId; fromMs: number; toMs: number },
): Promise<boolean> {
  const { request, headId, stationId, fromMs, toMs } = at
  try {
    return await writeAct(deps, who, async (w) => {
      const { tx } = w
      if (await actByKey(tx, 'usage', keyOf(request.key))) return true
      await lock(tx, new Set([headId]))
      await tx.insert(usageSpan).values({
        id: makeId('usage', deps.now(), deps.random),
        headId,
        fromMs,
        toMs,
        source: 'shiftLog',
        kg: request.kg ?? null,
        arcHours: request.arcHours ?? null,
        starts: request.starts ?? null,
        loggedMs: await afterLastEntry(tx, { headId, fromMs, nowMs: deps.now() }),
        idempotencyKey: request.key,
      })
      const happenedMs = Math.min(toMs, deps.now())
      w.say({ kind: 'usage', key: keyOf(request.key), lines: [usageLine({ headId, stationId, rows: 1, happenedMs })] })
      return false
    })
  } catch (problem) {
    if (isDuplicate(problem)) return true
    throw problem
  }
}

/** Now, but after what was entered for the same time before: of two entries in one millisecond the second one wins. */
async function afterLastEntry(tx: Tx, at: { headId: CarrierId; fromMs: number; nowMs: number }): Promise<number> {
  const [last] = await tx
    .select({ loggedMs: max(usageSpan.loggedMs) })
    .from(usageSpan)
    .where(and(eq(usageSpan.headId, at.headId), eq(usageSpan.fromMs, at.fromMs)))
  return Math.max(at.nowMs, Number(last?.loggedMs ?? 0) + 1)
}

export const usageLine = (at: {
  headId: CarrierId | null
  stationId: StationId | null
  rows: number
  happenedMs: number
}): SaidLine => ({
  fact: { kind: 'usageEntered', carrierId: at.headId, rows: at.rows },
  happenedMs: at.happenedMs,
  precision: 'shift',
  stationId: at.stationId,
})
