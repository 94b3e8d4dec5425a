import { DAY_MS } from '@core/units/time.ts'
import { isDeepStrictEqual } from 'node:util'
import { eq, inArray, max, or } from 'drizzle-orm'
import { type AreaId, type CarrierId, makeId, NO_ID, type StationId } from '@core/ids/id.ts'
import { type CarrierType, type Position } from '@core/path/columns.ts'
import { isOptionalKind } from '@core/path/kinds.ts'
import { parseNameRange } from '@core/shop/range.ts'
import { NOTHING_BUILT, type Built, type BuiltExcept } from '@core/shop/built.ts'
import { type z } from 'zod'
import { type placesRequest } from '@contract/shop.ts'
import { area, carrier, site, station, stationClass, stationNow } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { writeAct, type SaidLine, type Writing } from '@server/write/act.ts'
import { type KindRow } from '@server/shopmodel/model.ts'

export interface NewStation {
  name: string
  areaId: AreaId
  placeWord: string
  classKey: string
  walkMinutes: number
  walkOrder: number
  except: BuiltExcept
}
export interface MadeStation {
  stationId: StationId
  name: string
  headId: CarrierId
  gunId: CarrierId
  stationCarrierId: CarrierId
}

/**
 * Places from "A1–A24", built as their area or as one that is there. A name that exists is kept as it is, so sending the
 * same again makes nothing twice.
 */
export async function makePlaces(deps: Deps, who: Who, request: z.infer<typeof placesRequest>) {
  mustLead(who)
  const range = parseNameRange(request.names)
  if (!range.ok)
    throw new DomainError('bad-request', `Those names can't be read: ${range.reason}.`, [
      'Write A1–A24, or A1, A2, A5.',
    ])
  const tooLong = range.names.find((n) => n.length > 24)
  if (tooLong) throw new DomainError('bad-request', `"${tooLong}" is too long for a name.`, ['24 letters at most.'])
  return writeAct(deps, who, async (w) => {
    const { tx } = w
    const { kinds } = await w.shop()
    await mustBeClass(tx, request.classKey)
    const areaId = await ensureArea(w, { name: request.areaName, built: request.built })
    const there = await tx.select({ id: station.id, name: station.name }).from(station)
    const like = request.likeStationId ? await likeOf(tx, request.likeStationId) : null
    const kept = range.names.filter((name) => there.some((s) => s.name.toLowerCase() === name.toLowerCase()))
    const [last] = await tx.select({ order: max(station.walkOrder) }).from(station)
    const fresh = range.names.filter((name) => !kept.includes(name))
    const rows = fresh.map((name, i) => ({
      name,
      areaId,
      placeWord: like?.placeWord ?? request.placeWord,
      classKey: like?.classKey ?? request.classKey,
      walkMinutes: like?.walkMinutes ?? request.walkMinutes,
      walkOrder: (last?.order ?? 0) + i + 1,
      except: like?.except ?? {},
    }))
    const made = await insertStations(w, { rows, kinds, positionsOf: like?.positionsOf })
    return { made: made.map((m) => ({ stationId: m.stationId, name: m.name })), kept }
  })
}

export async function mustBeClass(tx: Tx, classKey: string, orElse: string | null = null): Promise<void> {
  if (classKey === orElse) return
  const [found] = await tx.select().from(stationClass).where(eq(stationClass.key, classKey))
  if (!found) throw new DomainError('not-found', `There is no class of place called "${classKey}".`)
}

/** The area of that name, made where there is none; what is told of how it is built is put over what stood there. */
export async function ensureArea(
  w: Writing,
  what: { name: string; built?: Partial<Built> | undefined },
): Promise<AreaId> {
  const { tx, deps } = w
  const areas = await tx.select().from(area).for('update')
  const found = areas.find((a) => a.name.toLowerCase() === what.name.toLowerCase())
  if (found) {
    const built = { ...NOTHING_BUILT, ...found.built, ...what.built }
    if (what.built && !isDeepStrictEqual(built, found.built)) {
      await tx.update(area).set({ built }).where(eq(area.id, found.id))
      w.reshaped()
    }
    return found.id
  }
  const [only] = await tx.select().from(site)
  const id = makeId('area', deps.now(), deps.random)
  await tx.insert(area).values({
    id,
    siteId: only?.id ?? NO_ID,
    name: what.name,
    walkOrder: areas.length + 1,
    built: { ...NOTHING_BUILT, ...what.built },
  })
  w.reshaped()
  return id
}

async function likeOf(tx: Tx, stationId: StationId) {
  const [row] = await tx.select().from(station).where(eq(station.id, stationId))
  if (!row) throw new DomainError('not-found', 'The place to copy is not there any more.')
  return { ...row, positionsOf: await positionsLike(tx, stationId) }
}

/** The positions that the place to copy has, by carrier: "20 like this" copies what it lacks, too. */
async function positionsLike(tx: Tx, stationId: StationId): Promise<(type: CarrierType) => Position[]> {
  const [now] = await tx.select().from(stationNow).where(eq(stationNow.stationId, stationId))
  const ids = [now?.headId, now?.gunId].filter((id) => id !== null && id !== undefined)
  const rows = await tx
    .select()
    .from(carrier)
    .where(or(eq(carrier.stationId, stationId), inArray(carrier.id, ids)))
  return (type) => rows.find((r) => r.type === type)?.positions ?? []
}

/** As far back as anything may be logged. */
const FOUND_HANGING_MS = 3 * 365 * DAY_MS

/** Stations with a head and a gun each, and the ledger lines that hang gun on head and head on place. */
export async function insertStations(
  w: Writing,
  at: {
    rows: readonly NewStation[]
    kinds: readonly KindRow[]
    positionsOf?: ((type: CarrierType) => Position[]) | undefined
    mountedMs?: number
  },
): Promise<MadeStation[]> {
  const { tx, deps } = w
  const { rows } = at
  if (rows.length === 0) return []
  const nowMs = deps.now()
  const positions = (type: CarrierType) =>
    at.positionsOf?.(type) ?? at.kinds.filter((k) => k.rides === type && !isOptionalKind(k.key)).map((k) => k.key)
  const made = rows.map((row): MadeStation & { row: NewStation } => ({
    row,
    name: row.name,
    stationId: makeId('station', nowMs, deps.random),
    headId: makeId('carrier', nowMs, deps.random),
    gunId: makeId('carrier', nowMs, deps.random),
    stationCarrierId: makeId('carrier', nowMs, deps.random),
  }))
  await tx.insert(station).values(made.map((m) => ({ id: m.stationId, ...m.row })))
  await tx.insert(carrier).values(made.flatMap((m) => carrierRows(m, positions)))
  const happenedMs = at.mountedMs ?? nowMs - FOUND_HANGING_MS
  // Found hanging there: since when is not known, so what is logged late still counts its use.
  for (const { stationId, headId, gunId, stationCarrierId } of made) {
    w.say({ kind: 'hang', lines: [mountedLine({ happenedMs, stationId, childId: headId, onId: stationCarrierId })] })
    w.say({ kind: 'hang', lines: [mountedLine({ happenedMs, stationId, childId: gunId, onId: headId })] })
  }
  w.touch({ carrierIds: new Set(made.map((m) => m.stationCarrierId)) })
  w.reshaped()
  return made
}

/** The place's own carrier, its feeder head and its gun. */
function carrierRows(m: MadeStation, positions: (type: CarrierType) => Position[]): (typeof carrier.$inferInsert)[] {
  const row = (id: CarrierId, type: CarrierType, name: string) => ({
    id,
    type,
    name,
    stationId: null,
    positions: positions(type),
  })
  return [
    { ...row(m.stationCarrierId, 'station', m.name), stationId: m.stationId },
    row(m.headId, 'head', `feeder ${m.name}`),
    row(m.gunId, 'gun', `gun ${m.name}`),
  ]
}

export const mountedLine = (at: {
  happenedMs: number
  stationId: StationId
  childId: CarrierId
  onId: CarrierId | null
}): SaidLine => ({
  fact: { kind: 'mounted', carrierId: at.childId, onId: at.onId },
  happenedMs: at.happenedMs,
  stationId: at.stationId,
})
