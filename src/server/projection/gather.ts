import { getTableColumns, inArray, sql } from 'drizzle-orm'
import { type CarrierId, type StationId, type WireId } from '@core/ids/id.ts'
import { type CarrierStory } from '@core/ledger/fold.ts'
import { buildHeadClocks, spoolUsage, type HeadClocks, type UsageEntry } from '@core/clock/headclock.ts'
import { chainStretches, type ChainStretch } from '@core/ledger/exposure.ts'
import { type Schedule } from '@core/clock/schedule.ts'
import { lengthClock, type WireFrom } from '@core/clock/lengthclock.ts'
import { lengthFromMassM, massFromLengthKg } from '@core/spools/wire.ts'
import { carrier, feeder, mount, telemetryHour, usageSpan } from '@server/db/schema.ts'
import { readMany, readSome, type Reader } from '@server/db/db.ts'
import { standingOfCarriers } from '@server/ledger/standings.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { type Recall } from './recall.ts'

export type CarrierRow = typeof carrier.$inferSelect
/** With when equipment on it last sent anything: its hours are the same until it does. */
type HeardRow = CarrierRow & { heardMs: number | null }

/** Everything the fold of some carriers needs: their stories, those of what they hung on, and the heads' clocks. */
export interface Gathered {
  carriers: Map<string, CarrierRow>
  stories: Map<string, CarrierStory>
  clocks: Map<string, HeadClocks>
  stretchesOf: (id: CarrierId) => ChainStretch[]
}

/** What is counted again with some carriers, and what that rests on. */
export interface Kin {
  /** Themselves; what hangs, or ever hung, on them (its use goes by the clock above); the places where their heads stood (a gas line ages with them). */
  ids: Set<CarrierId>
  /** What those hung on, up to the places, and the heads that stood at places of theirs. */
  above: CarrierId[]
}

/** By what hangs on what as it is kept; what the lines themselves say beyond that is found when they are gathered. */
export async function kinOf(db: Reader, ids: ReadonlySet<CarrierId>): Promise<Kin> {
  if (ids.size === 0) return { ids: new Set(), above: [] }
  const given = sql.join(
    [...ids].map((id) => sql`${id}`),
    sql`, `,
  )
  const [rows] = await db.execute(sql`
    with recursive down(id) as (
      select id from ${carrier} where id in (${given})
      union select hung.child_id from down join ${mount} hung on hung.on_id = down.id),
    kin(id, type) as (
      select down.id, own.type from down join ${carrier} own on own.id = down.id
      union select place.id, place.type from down
        join ${carrier} head on head.id = down.id and head.type = 'head'
        join ${mount} stood on stood.child_id = head.id
        join ${carrier} place on place.id = stood.on_id and place.type = 'station'),
    up(id) as (
      select id from kin
      union select stood.child_id from kin join ${mount} stood on stood.on_id = kin.id where kin.type = 'station'
      union select hung.on_id from up join ${mount} hung on hung.child_id = up.id)
    select up.id, kin.id is not null isKin from up left join kin on kin.id = up.id`)
  const all = rows as unknown as { id: CarrierId; isKin: number }[]
  const [kin, above] = [all.filter((r) => r.isKin), all.filter((r) => !r.isKin)]
  return { ids: new Set(kin.map((r) => r.id)), above: above.map((r) => r.id) }
}

/** Their stories, and of what they hung on, up to the places with their stops, what their stretches, clocks and signs need. */
export async function gather(
  db: Reader,
  kin: Kin,
  { shop, recall }: { shop: ShopModel; recall: Recall },
): Promise<Gathered> {
  const stories = new Map<string, CarrierStory>()
  const carriers = new Map<string, HeardRow>()
  let fresh = [...kin.ids, ...kin.above]
  while (fresh.length > 0) {
    const rows = await rowsOf(db, fresh)
    rows.forEach((row) => carriers.set(row.id, row))
    recall.see(rows)
    await tellAll(db, rows, { stories, recall })
    const parents = rows.flatMap((row) => stories.get(row.id)?.mounts.map((m) => m.onId) ?? [])
    fresh = [...new Set(parents)].filter((id) => !stories.has(id))
  }
  const stretchesOf = stretchFinder(stories, carriers)
  const clocks = await clocksOf(
    db,
    [...carriers.values()].filter((c) => c.type === 'head'),
    { stories, shop, carriers, recall },
  )
  return { carriers, stories, clocks, stretchesOf }
}

const heardMs = sql<
  number | null
>`(select max(${feeder.receivedMs}) from ${feeder} where ${feeder.headId} = ${carrier.id})`
const rowsOf = (db: Reader, ids: readonly CarrierId[]): Promise<HeardRow[]> =>
  db
    .select({ ...getTableColumns(carrier), heardMs: heardMs.mapWith(Number) })
    .from(carrier)
    .where(inArray(carrier.id, [...ids]))

/** Their stories: as remembered where nothing was corrected or said by others since, the rest read. */
async function tellAll(
  db: Reader,
  rows: readonly CarrierRow[],
  { stories, recall }: { stories: Map<string, CarrierStory>; recall: Recall },
): Promise<void> {
  const unknown = rows.filter((row) => {
    const known = recall.storyOf(row)
    if (known) stories.set(row.id, known)
    return !known
  })
  const standings = await standingOfCarriers(
    db,
    unknown.map((r) => r.id),
  )
  for (const row of unknown) stories.set(row.id, recall.tell(row, standings.get(row.id) ?? []))
}

function stretchFinder(
  stories: Map<string, CarrierStory>,
  carriers: Map<string, CarrierRow>,
): (id: CarrierId) => ChainStretch[] {
  const known = new Map<string, ChainStretch[]>()
  const find = (id: CarrierId): ChainStretch[] => {
    const kept = known.get(id)
    if (kept) return kept
    known.set(id, [])
    const made = make(id)
    known.set(id, made)
    return made
  }
  const make = (id: CarrierId): ChainStretch[] => {
    const type = carriers.get(id)?.type
    const links = stories.get(id)?.mounts ?? []
    if (type === 'head') return links.map((l) => ({ headId: id, fromMs: l.fromMs, toMs: l.toMs }))
    if (type !== 'station') return chainStretches(links, find)
    const heads = [...carriers.values()].filter((c) => c.type === 'head')
    return heads.flatMap((head) => {
      const there = (stories.get(head.id)?.mounts ?? []).filter((m) => m.onId === id)
      return there.map((m) => ({ headId: head.id, fromMs: m.fromMs, toMs: m.toMs }))
    })
  }
  return find
}

interface ClockNeeds {
  stories: Map<string, CarrierStory>
  shop: ShopModel
  carriers: Map<string, HeardRow>
  recall: Recall
}

async function clocksOf(db: Reader, heads: HeardRow[], needs: ClockNeeds): Promise<Map<string, HeadClocks>> {
  const clocks = new Map<string, HeadClocks>()
  const setups = new Map(heads.map((head) => [head.id, setupOf(head, needs)]))
  const unknown = heads.filter((head) => {
    const kept = needs.recall.clocksOf(head, setups.get(head.id)?.madeBy ?? '')
    if (kept) clocks.set(head.id, kept)
    return !kept
  })
  const usage = await usageOf(db, unknown, needs)
  for (const head of unknown) {
    const setup = setups.get(head.id)
    if (!setup) continue
    const entries = [...(usage.get(head.id) ?? []), ...spoolUsage(setup.loads)]
    const built = buildHeadClocks(entries, setup.kgPerArcHour, setup.schedule)
    const made = setup.wires ? { ...built, km: lengthClock(built.kg, setup.wires) } : built
    clocks.set(head.id, made)
    needs.recall.keepClocks(head, { madeBy: setup.madeBy, clocks: made })
  }
  return clocks
}

const OF_USE = ['headId', 'fromMs', 'toMs', 'source', 'loggedMs', 'kg', 'arcHours', 'starts'] as const
/** What was entered of heads' use, and what equipment on them counted. */
async function usageOf(
  db: Reader,
  heads: readonly CarrierRow[],
  needs: ClockNeeds,
): Promise<Map<string, UsageEntry[]>> {
  const usage = new Map<string, UsageEntry[]>(heads.map((h) => [h.id, []]))
  const ids = heads.map((h) => h.id)
  for (let i = 0; i < ids.length; i += 50) {
    const some = ids.slice(i, i + 50)
    const rows = await readSome(db, usageSpan, { where: inArray(usageSpan.headId, some), wanted: OF_USE })
    rows.forEach((row) => usage.get(row.headId)?.push(row))
    const hours = await readMany(db, telemetryHour, inArray(telemetryHour.headId, some))
    hours.forEach((hour) => usage.get(hour.headId)?.push(entryOf(hour, needs)))
  }
  return usage
}

/** What a head's clocks are made by besides its entries. */
function setupOf(head: HeardRow, needs: ClockNeeds) {
  const { schedule, kgPerArcHour } = placeOf(head.id, needs)
  const loads = (needs.stories.get(head.id)?.spools ?? []).flatMap((s) =>
    s.labelKg === null ? [] : [{ ...s, labelKg: s.labelKg }],
  )
  // Only where some kind of part goes by it.
  const wires = needs.shop.kinds.some((k) => k.lifeUnit === 'km') ? wiresOn(head.id, needs) : null
  // Length that equipment counted is weighed by the wires it was of.
  const fed = head.heardMs === null ? [] : [builtWireOf(head.id, needs), ...loads.map((l) => l.wireId)]
  const madeBy = JSON.stringify([
    ...[scheduleNo(schedule), kgPerArcHour, loads, wires, head.heardMs],
    fed.map((id) => id && needs.shop.wires.get(id)),
  ])
  return { schedule, kgPerArcHour, loads, wires, madeBy }
}

const scheduleNos = new WeakMap<Schedule, number>()
let lastNo = 0
/** A number for each pattern of working time, which is one object as long as it is the same. */
function scheduleNo(schedule: Schedule | null): number {
  if (!schedule) return 0
  const known = scheduleNos.get(schedule) ?? ++lastNo
  scheduleNos.set(schedule, known)
  return known
}

/** Which wire ran on a head from when on; before anybody said, that of how its place is built. */
function wiresOn(headId: CarrierId, needs: ClockNeeds): WireFrom[] {
  const kmPerKg = (wireId: WireId | null): number | null => {
    const wire = wireId ? needs.shop.wires.get(wireId) : undefined
    return wire ? lengthFromMassM(wire, 1) / 1000 : null
  }
  const loads = needs.stories.get(headId)?.spools ?? []
  return [
    { fromMs: -Infinity, kmPerKg: kmPerKg(builtWireOf(headId, needs)) },
    ...loads.map((l) => ({ fromMs: l.atMs, kmPerKg: kmPerKg(l.wireId) })),
  ]
}

/** An hour of telemetry as usage; metres become kilograms by the wire that was on then. */
function entryOf(hour: typeof telemetryHour.$inferSelect, needs: ClockNeeds): UsageEntry {
  const loads = needs.stories.get(hour.headId)?.spools ?? []
  const wireId = loads.filter((l) => l.atMs <= hour.hourMs).at(-1)?.wireId ?? builtWireOf(hour.headId, needs)
  const wire = wireId ? needs.shop.wires.get(wireId) : undefined
  return {
    fromMs: hour.hourMs,
    toMs: Math.max(hour.toMs, hour.hourMs + 1),
    source: 'telemetry',
    loggedMs: hour.toMs,
    kg: wire ? massFromLengthKg(wire, hour.wireFedM) : null,
    arcHours: hour.arcOnS / 3600,
    starts: hour.arcStarts,
  }
}

function builtWireOf(headId: CarrierId, needs: ClockNeeds): WireId | null {
  const stationId = stationOf(headId, needs)
  return stationId ? needs.shop.built(stationId).wireId : null
}

/** The schedule and conversion of where a head stands now, or stood last. */
function placeOf(headId: CarrierId, needs: ClockNeeds): { schedule: Schedule | null; kgPerArcHour: number | null } {
  return needs.shop.clockSetup(stationOf(headId, needs))
}

function stationOf(headId: CarrierId, needs: ClockNeeds): StationId | null {
  const last = needs.stories.get(headId)?.mounts.at(-1)?.onId
  return (last ? (needs.carriers.get(last)?.stationId ?? needs.shop.stationOfCarrier.get(last)) : null) ?? null
}
