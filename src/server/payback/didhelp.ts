import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { type Counted } from '@core/stats/rates.ts'
import { didHelp } from '@core/payback/didhelp.ts'
import { type helpAnswer, type helpQuery } from '@contract/payback.ts'
import { stopsSince } from '@server/down/stops.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, mustHaveArea, type StationRow } from '@server/shopmodel/model.ts'
import { addUsed, NOTHING_USED, usageIn, type Used, type Window } from './usagein.ts'

/** As long before as after, but no less and no more than this. */
const DAYS = { least: 28, most: 180 }
/** The last fifth of the time before, to see whether it was changed because of a bad stretch. */
const LATE = 0.2

/** Whether stops became fewer after a change: at one place, in one area or everywhere, against what was welded. */
export async function readHelp(
  deps: Deps,
  who: Who,
  q: z.output<typeof helpQuery>,
): Promise<z.input<typeof helpAnswer>> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  mustHaveArea(shop, q.areaId)
  if (q.stationId && !shop.stationById.has(q.stationId)) throw new DomainError('not-found', 'There is no such place.')
  if (!(q.atMs < nowMs - DAY_MS))
    throw new DomainError('time-refused', 'It was changed less than a day ago: nothing can be said yet.', [
      'Ask again tomorrow, or pick an earlier change.',
    ])
  const windows = windowsOf(q.atMs, nowMs)
  const [used, stops] = await Promise.all([
    usageIn(deps.db, shop, windows),
    stopsSince(deps.db, { shop, nowMs, sinceMs: windows[0].fromMs }),
  ])
  const isHere = (s: Pick<StationRow, 'id' | 'areaId' | 'classKey'>) =>
    q.stationId
      ? s.id === q.stationId
      : (!q.areaId || s.areaId === q.areaId) && (!q.classKey || s.classKey === q.classKey)
  const asked = stops.filter((s) => !q.column || s.column === q.column)
  const count = (places: readonly StationRow[]): Counts => {
    const ids = new Set(places.map((p) => p.id))
    const own = asked.filter((s) => ids.has(s.stationId))
    const inWindow = ({ fromMs, toMs }: Window, w: number): Count => ({
      n: own.filter((s) => s.fromMs >= fromMs && s.fromMs < toMs).length,
      used: places.map((p) => used(p.id, w)).reduce(addUsed, NOTHING_USED),
    })
    const [before, after, early, late] = windows
    return [inWindow(before, 0), inWindow(after, 1), inWindow(early, 2), inWindow(late, 3)]
  }
  return verdictOf({ nowMs, zone: shop.site.zone, atMs: q.atMs }, windows, {
    here: count(shop.stations.filter(isHere)),
    there: count(shop.stations.filter((s) => !isHere(s))),
  })
}
interface Count {
  n: number
  used: Used
}
/** In each of the windows. */
type Counts = readonly [before: Count, after: Count, early: Count, late: Count]

type Windows = readonly [before: Window, after: Window, early: Window, late: Window]
function windowsOf(atMs: number, nowMs: number): Windows {
  const days = Math.min(DAYS.most, Math.max(DAYS.least, (nowMs - atMs) / DAY_MS))
  const before = { fromMs: atMs - days * DAY_MS, toMs: atMs }
  const after = { fromMs: atMs, toMs: Math.min(nowMs, atMs + DAYS.most * DAY_MS) }
  const cutMs = atMs - days * DAY_MS * LATE
  return [before, after, { ...before, toMs: cutMs }, { ...before, fromMs: cutMs }]
}

const OVER = {
  arcHours: (u: Used) => u.arcHours,
  kg: (u: Used) => u.kg,
  scheduledHours: (u: Used) => u.scheduledMin / 60,
}
type Unit = keyof typeof OVER
type Over = readonly [before: Counted, after: Counted, early: Counted, late: Counted]

/** Arc hours where the clock knows them both before and after. */
function unitOf(before: Used, after: Used): Unit {
  const unit = (Object.keys(OVER) as Unit[]).find((u) => OVER[u](before) > 0 && OVER[u](after) > 0)
  if (unit) return unit
  throw new DomainError('bad-request', 'Nothing was welded there before or after, as far as anyone counted.', [
    'Pick a wider place, or enter shift totals.',
  ])
}

function verdictOf(
  at: Pick<z.input<typeof helpAnswer>, 'nowMs' | 'zone' | 'atMs'>,
  windows: Windows,
  counts: { here: Counts; there: Counts },
): z.input<typeof helpAnswer> {
  const unit = unitOf(counts.here[0].used, counts.here[1].used)
  const over = (list: Counts) => list.map(({ n, used }) => ({ n, over: OVER[unit](used) })) as unknown as Over
  const [first, second, early, late] = over(counts.here)
  const [before, after] = over(counts.there)
  const helped = didHelp({
    before: first,
    after: second,
    elsewhere: before.over > 0 && after.over > 0 ? { before, after } : null,
    run: early.over > 0 && late.over > 0 ? { early, late } : null,
  })
  const daysOf = (w: Window) => (w.toMs - w.fromMs) / DAY_MS
  const { ratio, low, high, p } = helped.compared
  const days = { before: daysOf(windows[0]), after: daysOf(windows[1]) }
  return {
    ...at,
    ...{ unit, days, ratio, low, p, is: helped.is },
    before: { stops: first.n, over: first.over },
    after: { stops: second.n, over: second.over },
    high: Number.isFinite(high) ? high : null,
    untilDays: helped.untilOver === null ? null : (helped.untilOver / second.over) * days.after,
    elsewhere: helped.elsewhere,
    elsewhereRatio: helped.elsewhereRatio,
    isAfterBad: helped.isAfterBad,
  }
}
