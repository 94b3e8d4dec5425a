import { and, eq, gte, inArray, or } from 'drizzle-orm'
import { DAY_MS } from '@core/units/time.ts'
import { type CarrierId } from '@core/ids/id.ts'
import { TRIGGERS } from '@core/followup/followup.ts'
import { NOTHING_OF_CELL } from '@core/rightparts/facts.ts'
import { WATCHED } from '@core/reading/alarms.ts'
import { RATED_KINDS, ratingsOf } from '@core/rightparts/rating.ts'
import { CENTRE_MM } from '@core/reading/target.ts'
import { median } from '@core/trend/theilsen.ts'
import { type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { mount, reading } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'
import { carrierNames, survey, type Surveyed } from '@server/floor/survey.ts'
import { hungAt } from '@server/gunnow/hung.ts'
import { carriersAt, builtHere, carrierIdsOf, type Hung } from '@server/gunnow/setup.ts'
import { findingLines, stockedParts } from '@server/gunnow/line.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import { judgeLoose, looseOnes, statesOf, type Loose, type LooseStates } from '@server/gunnow/spares.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { REAMER_MS, reamerOf, usesOfCells } from './reamer.ts'
import { benchOf } from './bench.ts'
import { roundsOf } from './rounds.ts'

/** Every robot cell with the way its wire takes and the neck that hangs there; the bench; and whether one more neck would pay. */
export async function readCells(deps: Deps, who: Who): Promise<CellsAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { surveyed, hung, loose, at } = await gathered(deps.db, shop, nowMs)
  return {
    ...{ nowMs, zone: shop.site.zone, currency: shop.site.currency },
    cells: surveyed.map((s) => cellLine(s, at)),
    bench: benchOf(shop, { loose, cells: hung, states: at.states }),
    rounds: await roundsOf(deps.db, shop, { hung, necks: at.necks, nowMs, isLead: isLead(who) }),
    families: [...shop.familyById.values()].map(({ id, name, fit }) => ({
      ...{ id, name, isNeckQuick: fit?.isNeckQuick ?? false },
    })),
  }
}

/** The cells as they are judged and as they hang, what lies loose, and all that a line says of them. */
async function gathered(db: Reader, shop: ShopModel, nowMs: number) {
  const ids = shop.stations.filter((s) => s.classKey === 'cell').map((s) => s.id)
  const [surveyed, hung, necks, guns, parts] = await Promise.all([
    ids.length > 0 ? survey(db, shop, { nowMs, stationIds: ids }) : [],
    ids.length > 0 ? hungAt(db, shop, ids) : [],
    looseOnes(db, 'neck'),
    looseOnes(db, 'gun'),
    stockedParts(db),
  ])
  const loose = [...necks, ...guns]
  const [states, names, since, readings, uses] = await Promise.all([
    statesOf(db, loose),
    carrierNames(
      db,
      surveyed.flatMap((s) => [s.now.gunId, s.now.neckId]),
    ),
    hungSince(db, surveyed),
    readingsOf(db, { hung, shop, nowMs }),
    usesOfCells(db, surveyed, nowMs),
  ])
  const hungBy = new Map(hung.map((h) => [h.station.id, h]))
  const at: At = { shop, parts, hung: hungBy, necks, states, names, since, readings, uses, nowMs }
  return { surveyed, hung, loose, at }
}

const OF_REAMER: ReadonlySet<string> = new Set(['reamerBlade', 'reamerClamp', 'rating'])
const numberOf = (text: string | undefined) => (text === undefined ? null : Number(text))

interface At {
  parts: readonly Stocked[]
  shop: ShopModel
  hung: ReadonlyMap<string, Hung>
  necks: readonly Loose[]
  states: LooseStates
  names: ReadonlyMap<string, string>
  since: ReadonlyMap<string, number>
  readings: readonly ReadingRow[]
  uses: Awaited<ReturnType<typeof usesOfCells>>
  nowMs: number
}
function cellLine(s: Surveyed, at: At): CellLine {
  const { shop } = at
  const hung = at.hung.get(s.station.id)
  const built = hung ? builtHere(hung, shop) : shop.built(s.station.id)
  const cell = built.cell ?? NOTHING_OF_CELL
  const { neckId, gunId, headId } = s.now
  const wire = s.checked.setup.wire
  const mine = new Set(carriersAt(s.station.id, s.now, shop))
  const readings = at.readings.filter((r) => mine.has(r.carrierId) && r.headId === headId)
  const use = headId ? at.uses.get(headId) : undefined
  return {
    ...{ stationId: s.station.id, name: s.station.name, wireName: wire?.name ?? null },
    areaName: shop.areas.find((a) => a.id === s.station.areaId)?.name ?? '',
    familyName: built.familyId ? (shop.families.get(built.familyId) ?? null) : null,
    gunName: gunId ? (at.names.get(gunId) ?? null) : null,
    cableM: built.cableM,
    ...{ goesRound: neckId !== null, neckId },
    neckName: neckId ? (at.names.get(neckId) ?? null) : null,
    neckSinceMs: neckId ? (at.since.get(neckId) ?? null) : null,
    keepsCentre: Boolean(built.familyId && shop.familyById.get(built.familyId)?.fit?.isNeckQuick),
    isDown: s.now.downSinceMs !== null,
    bladeMm: numberOf(s.checked.setup.settings.reamerBlade),
    clampMm: numberOf(s.checked.setup.settings.reamerClamp),
    misfits: findingLines(s.checked, { shop, parts: at.parts }).filter((f) => OF_REAMER.has(f.rule)),
    ...{ cell, own: s.station.except.cell ?? {} },
    todo: s.followUps.map(({ follow: task, sinceMs, by }) => ({ task, sinceMs, why: TRIGGERS[by].why })),
    centre: centreOf(readings),
    ...{ limitMm: cell.centreMm ?? CENTRE_MM, isLimitGuess: cell.centreMm === null },
    pulls: pullsOf(readings.filter((r) => r.atMs >= (cell.drumSinceMs ?? 0))),
    turned: turnedOf(readings, cell.drumSinceMs),
    heat: heatOf(s),
    reamer: reamerOf(s, { built, cell, readings, use, nowMs: at.nowMs }),
    creeping: creepingOf(s, readings),
    ready: hung && neckId ? readyFor(hung, at) : [],
  }
}

const VERDICTS = ['right', 'toMakeRight', 'never']
/** Spare necks for one cell, right ones first. */
function readyFor(hung: Hung, { shop, necks, states }: At): CellLine['ready'] {
  const judged = judgeLoose(shop, { kind: 'neck', hung, loose: necks, states })
  return necks
    .flatMap(({ id, name }) => {
      const verdict = judged.get(id)
      return verdict ? [{ neckId: id, name, verdict }] : []
    })
    .sort((a, b) => VERDICTS.indexOf(a.verdict.is) - VERDICTS.indexOf(b.verdict.is))
}

/** What carries the program's heat worst, and what of the front tells no rating of its own. */
function heatOf({ checked: { setup } }: Surveyed): CellLine['heat'] {
  const [worst] = ratingsOf(setup)
  if (!worst) return null
  const { at, by, amps, heatAmps, may, wants, chance } = worst
  const untold = RATED_KINDS.filter((k) => k !== 'neck' && setup.parts[k] && !setup.parts[k]?.fit?.ratedAmps)
  return { at, by, amps, heatAmps, may, wants, chance, untold }
}

type ReadingRow = typeof reading.$inferSelect
const OF_REAMERS = ['beforeReam', 'afterReam', 'agentTank', 'failedStarts'] as const
/** Of the motor's current no more than asks for anything. */
const CURRENT_MS = 180 * DAY_MS
async function readingsOf(
  db: Reader,
  { hung, shop, nowMs }: { hung: readonly Hung[]; shop: ShopModel; nowMs: number },
): Promise<ReadingRow[]> {
  const ids = hung.flatMap((h) => carrierIdsOf(h.now, shop).filter((id) => id !== null))
  if (ids.length === 0) return []
  const isWanted = or(
    inArray(reading.what, ['toolCentre', 'segmentPull']),
    and(eq(reading.what, 'motorAmps'), gte(reading.atMs, nowMs - CURRENT_MS)),
    and(inArray(reading.what, [...OF_REAMERS]), gte(reading.atMs, nowMs - REAMER_MS)),
  )
  const rows = await readMany(db, reading, and(inArray(reading.carrierId, ids), isWanted))
  return rows.sort((a, b) => a.atMs - b.atMs)
}

function centreOf(readings: readonly ReadingRow[]): CellLine['centre'] {
  const last = readings.findLast((r) => r.what === 'toolCentre')
  const offMm = last?.leftAt ?? last?.value ?? null
  return last && offMm !== null ? { offMm, atMs: last.atMs } : null
}

/** As long as it asks: how far the current has crept, and since when. */
function creepingOf(s: Surveyed, readings: readonly ReadingRow[]): CellLine['creeping'] {
  if (!s.alarms.some((a) => a.what === 'motorAmps' && a.isWatched)) return null
  const told = readings.filter((r) => r.what === 'motorAmps' && r.method === WATCHED && r.value !== null)
  const wellAt = told.findLastIndex((r) => r.verdict === 'good')
  const first = told.slice(wellAt + 1).find((r) => r.verdict === 'look' && typeof r.madeFrom['baseA'] === 'number')
  const last = told.at(-1)
  const [baseA, sinceMs] = [first?.madeFrom['baseA'], first?.madeFrom['sinceMs']]
  if (!last?.value || typeof baseA !== 'number' || typeof sinceMs !== 'number') return null
  return { amps: last.value, baseA, sinceMs, atMs: last.atMs }
}

/** The pull through each length of the way: as it was first, and as it is now. */
function pullsOf(readings: readonly ReadingRow[]): CellLine['pulls'] {
  const byPiece = new Map<number, ReadingRow[]>()
  for (const r of readings) {
    const piece = r.madeFrom['piece']
    if (r.what === 'segmentPull' && typeof piece === 'number' && r.value !== null)
      byPiece.set(piece, [...(byPiece.get(piece) ?? []), r])
  }
  return [...byPiece].flatMap(([piece, rows]) => {
    const [first, last] = [rows[0], rows.at(-1)]
    return first && last ? [{ piece, atMs: last.atMs, forceN: last.value ?? 0, firstN: first.value ?? 0 }] : []
  })
}

/** What was measured before the way was turned from spool to drum, and since; the middle of what the motor drew while it was well. */
function turnedOf(readings: readonly ReadingRow[], sinceMs: number | null): CellLine['turned'] {
  if (sinceMs === null) return null
  const amps = (isAfter: boolean) => {
    const drawn = readings.flatMap((r) =>
      r.what === 'motorAmps' && r.verdict === 'good' && r.atMs >= sinceMs === isAfter && r.value !== null
        ? [r.value]
        : [],
    )
    return drawn.length > 0 ? median(drawn) : null
  }
  const pulled = (isAfter: boolean) => {
    const pulls = pullsOf(readings.filter((r) => r.atMs >= sinceMs === isAfter))
    return pulls.length > 0 ? pulls.reduce((s, p) => s + p.forceN, 0) : null
  }
  return {
    ...{ sinceMs, ampsBefore: amps(false), ampsAfter: amps(true) },
    ...{ pullBeforeN: pulled(false), pullAfterN: pulled(true) },
  }
}

async function hungSince(db: Reader, surveyed: readonly Surveyed[]): Promise<Map<CarrierId, number>> {
  const ids = surveyed.flatMap((s) => s.now.neckId ?? [])
  if (ids.length === 0) return new Map()
  const rows = await readMany(db, mount, inArray(mount.childId, ids))
  return new Map(rows.filter((r) => r.toMs === null).map((r) => [r.childId, r.fromMs]))
}
