import { NO_ID, type StationId, type WireId } from '@core/ids/id.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { changesOf, costOfPlan, groupByWire, type Grouping } from '@core/changeover/group.ts'
import { dedicating } from '@core/changeover/dedicate.ts'
import { type DayAnswer, type dayRequest, type DedicateAnswer, type dedicateQuery } from '@contract/changeover.ts'
import { and, asc, eq, gte, inArray } from 'drizzle-orm'
import { ledgerEvent } from '@server/db/schema.ts'
import { isLead, mustLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { hungAt, hungOne } from '@server/gunnow/hung.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { setupOf, type Hung } from '@server/gunnow/setup.ts'
import { standingOfStations } from '@server/ledger/standings.ts'
import { loadShop, type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'
import { planAt, type Planned } from './read.ts'

type Line = z.output<typeof dayRequest>['lines'][number]

/** The day as entered, and the same work with booths grouped by wire. */
export async function groupDay(deps: Deps, who: Who, r: { lines: Line[] }): Promise<DayAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const entered = await readDay(deps, shop, r.lines)
  const { booths, wires, periods, cells } = entered
  const costs = await costTable(deps, shop, entered)
  const day: Grouping = {
    booths: booths.map((b) => ({ id: b.station.id, startsWith: indexOrNull(wires, wireOn(b, shop)) })),
    wires,
    periods,
    need: cells.map((row) => wires.map((w) => row.filter((c) => c === w).length)),
    cost: (booth, from, to) => costs[booth]?.[from ?? -1]?.[to]?.rank ?? costs[booth]?.[-1]?.[to]?.rank ?? Infinity,
  }
  const grouped = groupByWire(day)
  if (!grouped.ok)
    throw new DomainError('bad-request', `${grouped.period ? `${grouped.period}: ` : ''}${grouped.reason}.`, [
      'Take a line out, or give another booth the right parts first.',
    ])
  const asEntered = filled(cells, day)
  const sum = (plan: number[][]) => sumOf(day, plan, { costs, isMoney: isLead(who) })
  const nameOf = (i: number | null | undefined) =>
    i === null || i === undefined ? null : (shop.wires.get(wires[i] ?? '')?.name ?? null)
  return {
    currency: shop.site.currency,
    isExact: grouped.isExact,
    periods,
    booths: booths.map((b, i) => ({
      name: b.station.name,
      startsWith: nameOf(day.booths[i]?.startsWith),
      entered: cells.map((row) => shop.wires.get(row[i] ?? '')?.name ?? null),
      plan: grouped.plan.map((row) => nameOf(row[i]) ?? ''),
    })),
    entered: sum(asEntered),
    grouped: sum(grouped.plan),
  }
}

const indexOrNull = (list: readonly string[], value: string | null) => {
  const at = value === null ? -1 : list.indexOf(value)
  return at < 0 ? null : at
}
const wireOn = (hung: Hung, shop: ShopModel) => setupOf(hung, shop).wire?.id ?? null

interface Day {
  booths: Hung[]
  wires: WireId[]
  periods: string[]
  /** Wire per period and booth; null: not used. */
  cells: (WireId | null)[][]
}

async function readDay(deps: Deps, shop: ShopModel, lines: readonly Line[]): Promise<Day> {
  const byName = new Map(shop.stations.map((s) => [s.name.toLowerCase(), s.id]))
  const problems = lines.flatMap((line, i) => {
    if (!byName.has(line.booth.trim().toLowerCase())) return [`Line ${i + 1}: there is no place "${line.booth}".`]
    return shop.wires.has(line.wireId) ? [] : [`Line ${i + 1}: there is no such wire.`]
  })
  if (problems.length > 0) throw new DomainError('bad-request', 'Some lines can’t be read.', problems.slice(0, 12))
  const idOf = (line: Line) => byName.get(line.booth.trim().toLowerCase()) ?? NO_ID
  const ids = [...new Set(lines.map(idOf))]
  const booths = await hungAt(deps.db, shop, ids)
  const periods = [...new Set(lines.map((l) => l.period))]
  const cells = periods.map((period) =>
    ids.map((id) => lines.find((l) => l.period === period && idOf(l) === id)?.wireId ?? null),
  )
  const on = booths.flatMap((b) => wireOn(b, shop) ?? [])
  return { booths, wires: [...new Set([...lines.map((l) => l.wireId), ...on])], periods, cells }
}

interface Cost {
  minutes: number
  minor: number
  /** Minutes in money and the wire and gas with them; minutes alone where the shop has no rates. */
  rank: number
}
type Costs = Record<number, Record<number, Cost>>[]

/** Every change between two wires at every booth; one that ends with a wrong part is no change at all. */
async function costTable(deps: Deps, shop: ShopModel, day: Day): Promise<Costs> {
  const parts = await stockedParts(deps.db)
  return day.booths.map((hung) => {
    const table: Record<number, Record<number, Cost>> = {}
    const starts: (number | null)[] = [null, ...day.wires.map((_, i) => i)]
    for (const from of starts) {
      const start = from === null ? hung : standingOn(hung, { shop, parts, wireId: day.wires[from] ?? NO_ID })
      table[from ?? -1] = Object.fromEntries(
        day.wires.map((wireId, to) => [to, costAt(planAt(start, { shop, parts, wireId }), shop)]),
      )
    }
    return table
  })
}

/** The booth as it would stand after a change to another wire. */
function standingOn(
  hung: Hung,
  at: { shop: ShopModel; parts: Awaited<ReturnType<typeof stockedParts>>; wireId: WireId },
): Hung {
  const { plan } = planAt(hung, at)
  const put = new Map(plan.swaps.flatMap((s) => (s.to ? [[s.kindKey, s.to.id] as const] : [])))
  return {
    ...hung,
    spoolWireId: at.wireId,
    stateOf: (id) => {
      const state = hung.stateOf(id)
      return (
        state && {
          ...state,
          rows: state.rows.map((row) => ({ ...row, partId: put.get(kindOfPosition(row.position)) ?? row.partId })),
          now: null,
        }
      )
    },
  }
}

function costAt({ plan, cost, hung }: Planned, shop: ShopPlaces): Cost {
  const stops = plan.left.some((f) => f.severity === 'stops')
  const rates = shop.classes.get(hung.station.classKey)
  const perHour = (rates?.labourMinorPerHour ?? 0) + (rates?.stopMinorPerHour ?? 0)
  const minor = (cost.minutes / 60) * perHour + (cost.wireMinor ?? 0) + (cost.gasMinor ?? 0)
  return { minutes: cost.minutes, minor, rank: stops ? Infinity : minor > 0 ? minor : cost.minutes }
}

/** As entered: a booth nobody uses keeps what it has. */
function filled(cells: readonly (readonly (string | null)[])[], day: Grouping): number[][] {
  let before = day.booths.map((b) => b.startsWith ?? 0)
  return cells.map((row) => {
    const now = row.map((wire, i) => (wire === null ? (before[i] ?? 0) : day.wires.indexOf(wire)))
    before = now
    return now
  })
}

function sumOf(day: Grouping, plan: number[][], at: { costs: Costs; isMoney: boolean }) {
  const by = (of: (c: Cost) => number) =>
    costOfPlan(
      { ...day, cost: (b, from, to) => of(at.costs[b]?.[from ?? -1]?.[to] ?? { minutes: 0, minor: 0, rank: 0 }) },
      plan,
    )
  return { changes: changesOf(day, plan), minutes: by((c) => c.minutes), minor: at.isMoney ? by((c) => c.minor) : null }
}

const COUNTED_DAYS = 180

/** Would a gun kept for one wire pay, from the changes this place has had. */
export async function wouldDedicatingPay(
  deps: Deps,
  who: Who,
  q: z.output<typeof dedicateQuery>,
): Promise<DedicateAnswer> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const hung = await hungOne(deps.db, shop, q.stationId)
  const changes = await wireChanges(deps, q.stationId)
  const parts = await stockedParts(deps.db)
  const to = changes.at(-1)
  const there = to ? planAt(hung, { shop, parts, wireId: to }) : null
  const cost = there ? costAt(there, shop) : { minutes: 0, minor: 0 }
  const days = await countedDays(deps, q.stationId)
  const made = dedicating({
    changes: changes.length,
    days,
    costPerChangeMinor: cost.minor,
    gunMinor: q.gunMinor,
    gunYears: q.gunYears,
  })
  return {
    currency: shop.site.currency,
    changes: changes.length,
    days,
    minutesPerChange: cost.minutes,
    costPerChangeMinor: cost.minor,
    ...made,
    breakEvenPerYear: Number.isFinite(made.breakEvenPerYear) ? made.breakEvenPerYear : null,
  }
}

/** Wires this place was changed from, in the last half year: told by spools that were of another wire than the one before. */
async function wireChanges(deps: Deps, stationId: StationId): Promise<WireId[]> {
  const standings = (await standingOfStations(deps.db, [stationId])).get(stationId) ?? []
  const loads = standings
    .flatMap((s) =>
      s.fact.kind === 'wireLoaded' && s.fact.wireId ? [{ atMs: s.happenedMs, wireId: s.fact.wireId }] : [],
    )
    .sort((a, b) => a.atMs - b.atMs)
  const since = deps.now() - COUNTED_DAYS * DAY_MS
  return loads.flatMap((load, i) => {
    const before = loads[i - 1]
    return before && before.wireId !== load.wireId && load.atMs >= since ? [before.wireId] : []
  })
}

async function countedDays(deps: Deps, stationId: StationId): Promise<number> {
  const [first] = await deps.db
    .select({ at: ledgerEvent.happenedMs })
    .from(ledgerEvent)
    .where(
      and(
        eq(ledgerEvent.stationId, stationId),
        inArray(ledgerEvent.kind, ['wireLoaded', 'fitted', 'changedOver']),
        gte(ledgerEvent.happenedMs, deps.now() - COUNTED_DAYS * DAY_MS),
      ),
    )
    .orderBy(asc(ledgerEvent.happenedMs))
    .limit(1)
  return first ? Math.max(1, (deps.now() - first.at) / DAY_MS) : COUNTED_DAYS
}
