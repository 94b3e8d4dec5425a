import { type AreaId, type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, gte, inArray, lte } from 'drizzle-orm'
import { isToUndo, TAG_TEXT } from '@core/changeover/tags.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { handOverSpan, troubleFromMs } from '@core/walk/handover.ts'
import { type HandoverAnswer } from '@contract/handover.ts'
import { type LogLine } from '@contract/logbook.ts'
import { ledgerEvent, stoppage } from '@server/db/schema.ts'
import { downMinutes, isBuiltWrong } from '@server/floor/floor.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { type SurveyDeps } from '@server/floor/surveystore.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { linesWhere } from '@server/logbook/read.ts'
import { isToRead } from '@server/logbook/toread.ts'
import { groupBy, loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { DONE_KINDS, DONE, doublesSince, isDone } from './doubles.ts'
import { ofArea } from './walk.ts'

/** A trouble that began before this is an old one: it is told by its last stop. */
const LOOK_BACK_MS = 7 * DAY_MS
/** One act or two is asked for so long: later nobody knows. */
const DOUBLES_MS = 2 * DAY_MS

/** What is left to whoever comes next, as the log and the state of the guns tell it. */
export async function readHandover(deps: SurveyDeps, who: Who, areaId: AreaId | undefined): Promise<HandoverAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const here = ofArea(await survey(deps.db, shop, { nowMs, store: deps.positions, kept: deps.surveys }), areaId, shop)
  const span = handOverSpan(here[0]?.schedule ?? null, nowMs)
  const down = here
    .filter((s) => s.now.downSinceMs !== null)
    .sort((a, b) => (a.now.downSinceMs ?? 0) - (b.now.downSinceMs ?? 0))
  const firstDown = await troubles(deps, down)
  const fromMs = Math.min(span.fromMs, ...firstDown.values())
  const stationIds = here.map((s) => s.station.id)
  const [lines, doubles] = await Promise.all([
    doneLines(deps, { who, shop, fromMs, stationIds }),
    doublesSince(deps.db, { shop, sinceMs: nowMs - DOUBLES_MS, stationIds }),
  ])
  return {
    nowMs,
    zone: shop.site.zone,
    ...span,
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    guns: here.length,
    down: down.map((s) => ({
      ...gunOf(s),
      sinceMs: s.now.downSinceMs ?? nowMs,
      position: s.now.downPosition,
      minutes: downMinutes(s, nowMs),
      tried: lines.filter(
        (l) => l.stationId === s.station.id && l.happenedMs >= (firstDown.get(s.station.id) ?? nowMs),
      ),
    })),
    ...leftAt(here),
    doubles,
    done: countsOf(lines.filter((l) => l.happenedMs >= span.fromMs && l.happenedMs <= span.toMs)),
  }
}

/** Since when guns that are down now have their trouble: what was done from then on did not help, or they would run. */
async function troubles(deps: Deps, down: readonly Surveyed[]): Promise<Map<string, number>> {
  if (down.length === 0) return new Map()
  const ids = down.map((s) => s.station.id)
  const since = deps.now() - LOOK_BACK_MS
  const rows = await deps.db
    .select({ stationId: stoppage.stationId, fromMs: stoppage.fromMs, toMs: stoppage.toMs })
    .from(stoppage)
    .where(and(gte(stoppage.fromMs, since), inArray(stoppage.stationId, ids)))
  const stopsAt = groupBy(rows, (r) => r.stationId)
  return new Map(
    down.map((s) => {
      const stops = stopsAt.get(s.station.id) ?? []
      const downSinceMs = s.now.downSinceMs ?? deps.now()
      return [s.station.id, troubleFromMs({ downSinceMs, stops }, (from, to) => workedMs(s.schedule, from, to))]
    }),
  )
}

const gunOf = (s: Surveyed) => ({ stationId: s.station.id, name: s.station.name })

/** What stands at the guns, in the order of the walk. */
function leftAt(
  here: readonly Surveyed[],
): Pick<HandoverAnswer, 'standing' | 'asks' | 'followUps' | 'parked' | 'builtWrong'> {
  return {
    standing: here.flatMap((s) =>
      s.tags
        .filter((t) => isToUndo(t.tag))
        .map((t) => ({
          ...gunOf(s),
          tag: t.tag,
          sinceMs: t.sinceMs,
          untilMs: t.untilMs ?? null,
          position: TAG_TEXT[t.tag].at,
        })),
    ),
    asks: here.flatMap((s) => s.alarms.map((alarm) => ({ ...gunOf(s), alarm }))),
    followUps: here.flatMap((s) => s.followUps.filter((f) => f.isAsked).map((f) => ({ ...gunOf(s), task: f.follow }))),
    parked: here.filter((s) => s.now.isParked).map(gunOf),
    builtWrong: here.filter(isBuiltWrong).map(gunOf),
  }
}

/** Parts changed and cleaned at these guns since an instant, as people read them. */
async function doneLines(
  deps: Deps,
  of: { who: Who; shop: ShopModel; fromMs: number; stationIds: readonly StationId[] },
): Promise<LogLine[]> {
  if (of.stationIds.length === 0) return []
  const lines = await linesWhere(deps.db, {
    who: of.who,
    shop: of.shop,
    where: and(
      gte(ledgerEvent.happenedMs, of.fromMs),
      lte(ledgerEvent.happenedMs, deps.now()),
      inArray(ledgerEvent.stationId, [...of.stationIds]),
      inArray(ledgerEvent.kind, DONE_KINDS),
      isToRead,
    ),
  })
  return lines.filter((l) => l.standing !== 'withdrawn' && isDone(l.fact.kind))
}

function countsOf(lines: readonly LogLine[]): HandoverAnswer['done'] {
  const counts = new Map<string, HandoverAnswer['done'][number]>()
  for (const { fact, position } of lines) {
    const { kind } = fact
    if (!position || !isDone(kind)) continue
    const key = `${kind} ${position}`
    const count = counts.get(key) ?? { act: DONE[kind], position, times: 0 }
    counts.set(key, { ...count, times: count.times + 1 })
  }
  return [...counts.values()].sort((a, b) => b.times - a.times)
}
