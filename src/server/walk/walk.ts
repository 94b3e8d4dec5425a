import { gasOn } from '@core/rightparts/supplyrules.ts'
import { type AreaId, type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, gte, inArray } from 'drizzle-orm'
import { alongWalk } from '@core/walk/along.ts'
import { chooseWalk, splitWalk, type Stop } from '@core/walk/choose.ts'
import {
  chanceBad,
  isLookDue,
  LOOK_KEYS,
  isLookedAt,
  LOOKS,
  WALKS,
  worthOfLook,
  type LookKey,
  type WalkKey,
} from '@core/walk/looks.ts'
import { lookAgain, type KeptLook } from '@core/walk/lookagain.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { type WalkAnswer, type WalkQuery, type WalkStop } from '@contract/walk.ts'
import { reading } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { openWants } from '@server/floor/cells.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { type SurveyDeps } from '@server/floor/surveystore.ts'
import { isLead, mustRead, type Who } from '@server/call/context.ts'
import { foundCounts, LEARNT_FROM_MS, type Found } from './foundcounts.ts'
import { loadShop, mustHaveArea, type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'

/** To open, hang up and note at a gun, besides what is looked at. A guess. */
const AT_GUN_MIN = 0.3
/** What is due, or still to follow, and left: chance that it stops within a day's work, and the minutes of that. Guesses until lives are learnt. */
const DUE_STOPS = [0.1, 10] as const
const FOLLOW_UP_STOPS = [0.02, 10] as const

/** The walk worth most within the minutes, what it leaves, and how likely one of those stops. */
export async function readWalk(deps: SurveyDeps, who: Who, q: WalkQuery): Promise<WalkAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const [surveyed, found, looks] = await Promise.all([
    survey(deps.db, shop, { nowMs, store: deps.positions, kept: deps.surveys }),
    foundCounts(deps.db, { fromMs: nowMs - LEARNT_FROM_MS, toMs: nowMs + 1 }),
    looksSince(deps.db, nowMs - WEEK_MS),
  ])
  const here = ofArea(surveyed, q.areaId, shop)
  const along = alongWalk(inWalkOrder(here, shop).map((s) => ({ stationId: s.station.id, areaId: s.station.areaId })))
  const made = new Map(
    here.flatMap((s) => {
      const at = stopAt(s, { shop, found, walk: q.walk, nowMs })
      return at ? [[s.station.id, { ...at, surveyed: s }] as const] : []
    }),
  )
  const stops = [...made].map(([stationId, m]): Stop => ({ ...m.stop, stationId, atMin: along.get(stationId) ?? 0 }))
  const chosen = chooseWalk({ stops, minutes: q.minutes, fromMin: q.from ? (along.get(q.from) ?? null) : null })
  const nameOf = (stationId: StationId) => shop.stationById.get(stationId)?.name ?? ''
  return {
    nowMs,
    zone: shop.site.zone,
    walk: q.walk,
    minutes: q.minutes,
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    stops: chosen.chosen.flatMap(({ stationId }) => made.get(stationId)?.line ?? []),
    parts: splitWalk(chosen.chosen, q.people).map((part) => part.map((s) => s.stationId)),
    taskMin: chosen.taskMin,
    walkMin: chosen.walkMin,
    left: [...chosen.left]
      .filter((s) => s.worth > 0)
      .sort((a, b) => b.worth - a.worth)
      .map(({ stationId }) => ({ stationId, name: nameOf(stationId) })),
    leftStops: chosen.leftStops,
    foundOpen: foundOpen(looks, nowMs),
    again: isLead(who) ? againAt(looks, surveyed, nowMs) : null,
  }
}

/** Guns of one area, or all. */
export function ofArea(surveyed: readonly Surveyed[], areaId: AreaId | undefined, shop: ShopModel): Surveyed[] {
  mustHaveArea(shop, areaId)
  return surveyed.filter((s) => !areaId || s.station.areaId === areaId)
}

/** As the shop drew it: areas in their order, guns in theirs. */
function inWalkOrder(surveyed: readonly Surveyed[], shop: ShopPlaces): Surveyed[] {
  const order = new Map(shop.areas.map((a, i) => [a.id, i]))
  return [...surveyed].sort(
    (a, b) =>
      (order.get(a.station.areaId) ?? 0) - (order.get(b.station.areaId) ?? 0) ||
      a.station.walkOrder - b.station.walkOrder,
  )
}

const WEEK_MS = 7 * DAY_MS
async function looksSince(db: Reader, sinceMs: number): Promise<KeptLook[]> {
  const { eventId, carrierId, what, atMs, verdict: is } = reading
  return db
    .select({ eventId, carrierId, what, atMs, is })
    .from(reading)
    .where(and(gte(reading.atMs, sinceMs), inArray(reading.what, LOOK_KEYS)))
}

function foundOpen(looks: readonly KeptLook[], nowMs: number): WalkAnswer['foundOpen'] {
  const nozzles = looks.filter((l) => l.what === 'nozzleOpen' && nowMs - l.atMs < WEEK_MS)
  return { good: nozzles.filter((l) => l.is === 'good').length, of: nozzles.length }
}

/** One in twenty for the lead, at the gun where its carrier hangs now. */
function againAt(looks: readonly KeptLook[], surveyed: readonly Surveyed[], nowMs: number): WalkAnswer['again'] {
  const made = lookAgain(looks, nowMs)
  const at = new Map(
    surveyed.flatMap(({ now, station }) =>
      [now.gunId, now.headId, now.neckId].flatMap((id) => (id ? [[id, station] as const] : [])),
    ),
  )
  return {
    agreed: made.agreed,
    looks: made.again.flatMap(({ carrierId, what, atMs }) => {
      const station = at.get(carrierId)
      return station ? [{ stationId: station.id, name: station.name, what: what as LookKey, atMs }] : []
    }),
  }
}

interface StopMade {
  stop: Omit<Stop, 'stationId' | 'atMin'>
  line: WalkStop
}
interface MakeAt {
  shop: ShopModel
  found: Found
  walk: WalkKey
  nowMs: number
}
/** What there is to do at one gun on this walk; null: nothing, or it is parked or down, which is no matter of a walk. */
function stopAt(s: Surveyed, at: MakeAt): StopMade | null {
  const { shop } = at
  if (s.now.isParked || s.now.downSinceMs !== null) return null
  const perMinute = Math.max(1, shop.stopRateOf(s.station.id) / 60)
  const looks = looksAt(s, at)
  const isDue = at.walk === 'due'
  const wants = isDue ? openWants(s) : []
  const followUps = isDue ? s.followUps.filter((f) => f.isAsked) : []
  if (looks.length === 0 && wants.length === 0 && followUps.length === 0) return null
  const risks = [
    ...looks.map((l) => worthOfLook(l.what, l.chance, perMinute)),
    ...wants.map(() => ({ worth: DUE_STOPS[0] * DUE_STOPS[1] * perMinute, stopsIfLeft: DUE_STOPS[0] })),
    ...followUps.map(() => ({
      worth: FOLLOW_UP_STOPS[0] * FOLLOW_UP_STOPS[1] * perMinute,
      stopsIfLeft: FOLLOW_UP_STOPS[0],
    })),
  ]
  const minutes =
    AT_GUN_MIN +
    looks.reduce((sum, l) => sum + LOOKS[l.what].minutes, 0) +
    wants.reduce((sum, w) => sum + w.minutes, 0) +
    followUps.reduce((sum, f) => sum + FOLLOW_UP_TEXT[f.follow].minutes, 0)
  return {
    stop: {
      minutes,
      worth: risks.reduce((sum, r) => sum + r.worth, 0),
      stopsIfLeft: 1 - risks.reduce((none, r) => none * (1 - r.stopsIfLeft), 1),
    },
    line: {
      stationId: s.station.id,
      name: s.station.name,
      areaName: shop.areas.find((a) => a.id === s.station.areaId)?.name ?? '',
      minutes,
      looks,
      wants,
      followUps: followUps.map((f) => f.follow),
      isCell: s.station.classKey === 'cell',
    },
  }
}

/** Looks of this walk that are on this gun, and for "what is due" those whose time has come. */
function looksAt(s: Surveyed, { found, walk, nowMs }: MakeAt): WalkStop['looks'] {
  const lastRead = s.lastRead()
  const lookedAt = { gas: gasOn(s.checked.setup), dirt: s.dirt }
  return WALKS[walk].looks.flatMap((what: LookKey) => {
    if (!s.positions.some((p) => p.row.position === LOOKS[what].at) || !isLookedAt(what, lookedAt)) return []
    const lastMs = lastLooked(s, what, lastRead[what] ?? null)
    const ageDays = lastMs === null ? null : Math.max(0, nowMs - lastMs) / DAY_MS
    if (walk === 'due' && !isLookDue(what, ageDays)) return []
    return [{ what, lastMs, chance: chanceBad(what, { ageDays, found: found.get(what) ?? { bad: 0, of: 0 } }) }]
  })
}
/** Read, or the part itself cleaned, changed or seen where that is the same look. */
function lastLooked(s: Surveyed, what: LookKey, read: number | null): number | null {
  const { fix, at } = LOOKS[what]
  const seen = fix ? (s.positions.find((p) => p.row.position === at)?.row.seenMs ?? null) : null
  return read === null ? seen : seen === null ? read : Math.max(read, seen)
}
