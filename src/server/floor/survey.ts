import { type Window } from '@core/clock/window.ts'
import { type CarrierId, type FamilyId, type StationId } from '@core/ids/id.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { inArray } from 'drizzle-orm'
import { isAlarmLive, type Alarm } from '@core/reading/alarms.ts'
import { workedMs, type Schedule } from '@core/clock/schedule.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type GunBuilt } from '@core/shop/built.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { cleaningHere, type CleaningHere } from '@server/gunnow/limit.ts'
import { rulingFor, type SchoolOf } from '@core/houserule/schools.ts'
import { linerHere, type LinerHere } from '@server/gunnow/rulehere.ts'
import { carrier, headNow, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type KeptFits } from '@server/lifekept/kept.ts'
import { type ShopModel, type StationRow, type ShopPlaces } from '@server/shopmodel/model.ts'
import { type HeadRow } from '@server/projection/rows.ts'
import { clockFreshness, judge, type JudgeAt, type SurveyedPosition } from './judge.ts'
import { FOLLOW_UP_TEXT, type OpenFollowUp } from '@core/followup/followup.ts'
import { followUpsHere } from '@server/gunnow/followuphere.ts'
import { isToUndo, TAG_TEXT } from '@core/changeover/tags.ts'
import { checkPlace, standing, type Checked } from '@server/gunnow/findings.ts'
import { type JudgedBy, type SurveyStore } from './surveystore.ts'
import { builtHere, carrierIdsOf, ruledBy, tagsHere, type Hung } from '@server/gunnow/setup.ts'
import { readPositions, type CarrierState, type PositionRow, type PositionStore } from '@server/gunnow/positions.ts'

export interface Surveyed {
  station: StationRow
  now: typeof stationNow.$inferSelect
  head: HeadRow | null
  schedule: Schedule | null
  cutoffMs: number
  window: Window
  positions: SurveyedPosition[]
  checked: Checked
  /** What the gun brought along. */
  gunBuilt: GunBuilt | null
  tags: ReturnType<typeof tagsHere>
  /** What acts here made necessary and nobody has done yet. */
  followUps: OpenFollowUp[]
  /** What its readings ask for. */
  alarms: Alarm[]
  cleaning: CleaningHere
  liner: LinerHere
  /** When each thing was last read here, on any of its carriers. */
  lastRead: () => Partial<Record<ReadingKey, number>>
  familyId: FamilyId | null
  /** What the shop does here about dirt on the wire's way. */
  dirt: SchoolOf<'D31'>
}

/** The state of every position at some places, or at all: what is stored, run on to now. */
export async function survey(
  db: Reader,
  shop: ShopModel,
  at: {
    nowMs: number
    stationIds?: readonly StationId[]
    store?: PositionStore
    fits?: KeptFits
    /** Places as they were judged a moment ago. */
    kept?: SurveyStore
  },
): Promise<Surveyed[]> {
  const { nowMs, stationIds, store } = at
  const nows = await db
    .select()
    .from(stationNow)
    .where(stationIds ? inArray(stationNow.stationId, [...stationIds]) : undefined)
  const carrierIds = nows.flatMap((n) => carrierIdsOf(n, shop)).filter((id) => id !== null)
  const [states, heads] = await Promise.all([
    store ? store.readAll(db) : readPositions(db, stationIds ? carrierIds : null),
    db
      .select()
      .from(headNow)
      .where(stationIds ? inArray(headNow.headId, carrierIds) : undefined),
  ])
  const read = {
    states,
    headOf: new Map(heads.map((h) => [h.headId, h])),
    nowOf: new Map(nows.map((n) => [n.stationId, n])),
  }
  const check = checker(shop, store)
  const lives = { fits: at.fits ?? NO_FITS, isClose: stationIds?.length === 1, aheadH: aheadHours(nowMs) }
  return shop.stations.flatMap((station) => {
    const now = read.nowOf.get(station.id)
    if (!now) return []
    const judged = () => surveyOne(station, now, { shop, nowMs, read, check, lives })
    const by = at.kept && judgedBy(now, { station, shop, states, fits: lives.fits })
    return at.kept && by ? at.kept.judged(station.id, { by, nowMs }, judged) : judged()
  })
}

/** All that judging a place goes by; null in the middle of a change of the set-up. */
function judgedBy(
  now: Surveyed['now'],
  at: { station: StationRow; shop: ShopModel; states: ReadonlyMap<string, CarrierState>; fits: KeptFits },
): JudgedBy | null {
  const { station, shop, states, fits } = at
  if (shop.revision === null) return null
  const carriers = carrierIdsOf(now, shop).map((id) => {
    const state = id ? states.get(id) : undefined
    return state ? [state.revision, state.built, state.spoolWireId] : null
  })
  const under = JSON.stringify([shop.revision, shop.windowOf(station.id), now, carriers])
  return { under, fits, learnt: shop.learnt }
}

const NO_FITS: KeptFits = new Map()
interface Lives {
  fits: KeptFits
  isClose: boolean
  aheadH: (schedule: Schedule | null) => number
}
/** Working hours until this time tomorrow, once for each schedule. */
function aheadHours(nowMs: number): Lives['aheadH'] {
  const known = new Map<Schedule | null, number>()
  return (schedule) => {
    const hours = known.get(schedule) ?? workedMs(schedule, nowMs, nowMs + DAY_MS) / HOUR_MS
    known.set(schedule, hours)
    return hours
  }
}

type Check = (hung: Hung) => Checked
/** Worked out anew, or kept from the last time where there is a store. */
function checker(shop: ShopModel, store: PositionStore | undefined): Check {
  if (!store) return (hung) => checkPlace(hung, shop)
  const shopName = store.checks.shopName(shop)
  return (hung) => {
    const fitKeys = carrierIdsOf(hung.now, shop).map((id) => hung.stateOf(id)?.fitKey ?? '')
    return store.checks.check(hung, shop, { shopName, fitKeys })
  }
}

interface Read {
  states: ReadonlyMap<string, CarrierState>
  headOf: ReadonlyMap<string, HeadRow>
  nowOf: ReadonlyMap<string, Surveyed['now']>
}

function surveyOne(
  station: StationRow,
  now: Surveyed['now'],
  at: { shop: ShopModel; nowMs: number; read: Read; check: Check; lives: Lives },
): Surveyed {
  const { shop, nowMs, read } = at
  const schedule = shop.scheduleOfArea(station.areaId)
  const window = shop.windowOf(station.id)
  const cutoffMs = window.atMs
  const head = now.headId ? (read.headOf.get(now.headId) ?? null) : null
  const rows = carrierIdsOf(now, shop).flatMap((id) => (id ? (read.states.get(id)?.rows ?? []) : []))
  const freshness = clockFreshness(head, schedule, nowMs)
  const hung = {
    station,
    now,
    stateOf: (id: string | null | undefined) => (id ? read.states.get(id) : undefined),
    spoolWireId: head?.spoolWireId ?? null,
  }
  const said = saidOf(hung, { shop, schedule, nowMs, check: at.check })
  const { familyId, cleaning, liner, alarms } = said
  const marks = marksOf(said)
  const lives = { ...at.lives, aheadH: at.lives.aheadH(schedule) }
  const { wire } = said.checked.setup
  const where = { station, familyId, now, head, wire, schedule, cutoffMs, shop, nowMs }
  const judged = { ...where, freshness, cleaning, liner, alarms, ...lives, ...marks }
  const positions = judgeAll(rows, judged)
  return { station, now, head, schedule, cutoffMs, window, positions, ...said }
}

/** What is found wrong, tied, and still to follow at one place. */
function saidOf(hung: Hung, at: { shop: ShopModel; schedule: Schedule | null; nowMs: number; check: Check }) {
  const { shop, schedule, nowMs } = at
  const built = builtHere(hung, shop)
  return {
    checked: at.check(hung),
    tags: tagsHere(hung, shop),
    followUps: followUpsHere(hung, { shop, built, schedule, nowMs }),
    alarms: alarmsHere(hung, shop, nowMs),
    cleaning: cleaningHere(hung, shop, built),
    liner: linerHere(hung, shop, built),
    // Asked for by walks alone: Floor does not wait for it.
    lastRead: () => lastReadHere(hung, shop),
    familyId: built.familyId,
    dirt: rulingFor('D31', ruledBy(hung.station, built), shop.choices).school.key,
    gunBuilt: hung.stateOf(hung.now.gunId)?.built ?? null,
  }
}

/** What the readings of what hangs here ask for; a parked gun's wait. */
function alarmsHere(hung: Hung, shop: ShopPlaces, nowMs: number): Alarm[] {
  if (hung.now.isParked) return []
  return carrierIdsOf(hung.now, shop)
    .flatMap((id) => hung.stateOf(id)?.now?.alarms ?? [])
    .filter((a) => isAlarmLive(a, nowMs))
}

function lastReadHere(hung: Hung, shop: ShopPlaces): ReturnType<Surveyed['lastRead']> {
  const all: ReturnType<Surveyed['lastRead']> = {}
  for (const id of carrierIdsOf(hung.now, shop))
    for (const [what, ms] of Object.entries(hung.stateOf(id)?.now?.lastRead ?? {})) {
      const key = what as ReadingKey
      all[key] = Math.max(all[key] ?? 0, ms)
    }
  return all
}

type Marking = Pick<Surveyed, 'checked' | 'tags' | 'followUps' | 'alarms'>
/** Where something is found, by how bad; reminders hang where they were tied. */
function marksOf({ checked, tags, followUps, alarms }: Marking) {
  const at = (severity: string) => standing(checked.findings).flatMap((f) => (f.severity === severity ? [f.at] : []))
  return {
    wrong: new Set(at('stops')),
    questioned: new Set([
      ...at('harms'),
      ...alarms.map((a) => a.at),
      ...tags.filter((t) => isToUndo(t.tag)).map((t) => TAG_TEXT[t.tag].at),
      ...followUps.filter((f) => f.isAsked).map((f) => FOLLOW_UP_TEXT[f.follow].at),
    ]),
  }
}

function judgeAll(rows: readonly PositionRow[], at: JudgeAt): SurveyedPosition[] {
  const judged: SurveyedPosition[] = []
  for (const row of rows) {
    const kind = at.shop.kindByKey.get(kindOfPosition(row.position))
    if (kind) judged.push(judge(row, kind, at))
  }
  return judged.sort((a, b) => a.kind.walkOrder - b.kind.walkOrder)
}

export async function carrierNames(db: Reader, ids: readonly (CarrierId | null)[]): Promise<Map<string, string>> {
  const wanted = ids.filter((id) => id !== null)
  const rows =
    wanted.length === 0
      ? []
      : await db.select({ id: carrier.id, name: carrier.name }).from(carrier).where(inArray(carrier.id, wanted))
  return new Map(rows.map((r) => [r.id, r.name]))
}
