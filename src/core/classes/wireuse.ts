import { type Level } from './groups.ts'
import { solve } from '@core/stats/solve.ts'
import { type WillTake } from './tips.ts'

/** One day of some booths, or one week where nothing tells its days apart: wire welded, and hours of class at each level, booth by booth added up. */
export interface ClassTime {
  kg: number
  hours: ReadonlyMap<Level, number>
}
/** Wire per hour of class at one booth, by level. */
export interface WireRates {
  levels: Level[]
  kgPerHour: number[]
  /** How sure the rates are: their covariance, row by row. */
  cov: number[][]
  /** Variance of one hour of class about them, kg². */
  perHour: number
  /** Of all levels together: what a level nobody saw is taken for. */
  all: number
  /** Two levels differ by more than twice what they may be off by. */
  areApart: boolean
}

/** Before days tell them apart, levels differ by about a third of what all take. */
const LEVELS_DIFFER = 0.35
const FEWEST = 5
/** No time is surer than a tenth: a clock that runs between two spools is smoother than what was welded. */
const LEAST_SCATTER = 0.1
const total = (hours: ReadonlyMap<Level, number>) => [...hours.values()].reduce((a, b) => a + b, 0)
const sumOf = (days: readonly ClassTime[], of: (day: ClassTime) => number) => days.reduce((s, d) => s + of(d), 0)

/**
 * What classes of each level weld, from days or weeks in which several were at the same booths: kg = Σ hours × rate + e, with Var e = σ² · hours, and each
 * rate about that of all together with a spread of a third of it (ridge, `models.md` 12 and 2). Times that hold the same classes tell nothing apart and leave
 * the levels alike. Units: kg, hours at one booth. Null: fewer than five with classes, or nothing welded on them.
 * @example wireRates(Array(10).fill({ kg: 6, hours: new Map([['new', 4], ['skilled', 4]]) }))?.kgPerHour // 0.75 each
 */
export function wireRates(given: readonly ClassTime[]): WireRates | null {
  const days = given.filter((d) => total(d.hours) > 0)
  const hours = sumOf(days, (d) => total(d.hours))
  const kg = sumOf(days, (d) => d.kg)
  if (days.length < FEWEST || !(kg > 0)) return null
  const all = kg / hours
  const levels = [...new Set(days.flatMap((d) => [...d.hours.keys()]))].sort()
  const least = (LEAST_SCATTER * all) ** 2 * (hours / days.length)
  const scatter = (rate: (d: ClassTime) => number) =>
    Math.max(
      least,
      sumOf(days, (d) => (d.kg - rate(d)) ** 2 / total(d.hours)) / Math.max(1, days.length - levels.length),
    )
  const rateOf = (kgPerHour: readonly number[]) => (d: ClassTime) =>
    levels.reduce((s, level, i) => s + (d.hours.get(level) ?? 0) * (kgPerHour[i] ?? 0), 0)
  // The scatter about one rate for all holds the levels' differences too: fitted and taken anew until it holds the rest alone.
  let perHour = scatter((d) => all * total(d.hours))
  let fit = ridge(days, levels, { all, perHour })
  for (let i = 0; i < ROUNDS; i++) {
    perHour = scatter(rateOf(fit.kgPerHour))
    fit = ridge(days, levels, { all, perHour })
  }
  return { levels, ...fit, perHour, all, areApart: areApart(fit) }
}
const ROUNDS = 4
const areApart = ({ kgPerHour, cov }: Pick<WireRates, 'kgPerHour' | 'cov'>): boolean =>
  kgPerHour.some((a, i) =>
    kgPerHour.some((b, j) => {
      const variance = (cov[i]?.[i] ?? 0) + (cov[j]?.[j] ?? 0) - 2 * (cov[i]?.[j] ?? 0)
      return j > i && Math.abs(a - b) > 2 * Math.sqrt(variance)
    }),
  )

/** Rates with their covariance, at a known scatter. */
function ridge(
  days: readonly ClassTime[],
  levels: readonly Level[],
  { all, perHour }: { all: number; perHour: number },
): Pick<WireRates, 'kgPerHour' | 'cov'> {
  const prior = 1 / (LEVELS_DIFFER * all) ** 2
  const of = (d: ClassTime, level: Level) => d.hours.get(level) ?? 0
  const weight = (d: ClassTime) => perHour * total(d.hours)
  const normal = levels.map((a) =>
    levels.map((b) => (a === b ? prior : 0) + sumOf(days, (d) => (of(d, a) * of(d, b)) / weight(d))),
  )
  const right = levels.map((a) => prior * all + sumOf(days, (d) => (of(d, a) * d.kg) / weight(d)))
  const solved = (side: readonly number[]) =>
    solve(
      normal.map((row, i) => [...row, side[i] ?? 0]),
      1e-14,
    ).x
  const kgPerHour = solved(right).map((r) => Math.max(0, r))
  return { kgPerHour, cov: levels.map((_, i) => solved(levels.map((_level, j) => (i === j ? 1 : 0)))) }
}

/** One in ten lies under, one in ten over. */
const Z_80 = 1.2816
/**
 * Wire that coming classes will weld, kg: Σ hours × rate, with the spread of the rates and of the classes themselves. A level nobody saw is taken for all.
 */
export function wireWillTake(rates: WireRates, coming: ReadonlyMap<Level, number>): WillTake {
  const known = rates.levels.map((level) => coming.get(level) ?? 0)
  const unseen = [...coming].reduce((s, [level, h]) => s + (rates.levels.includes(level) ? 0 : h), 0)
  const mean = known.reduce((s, h, i) => s + h * (rates.kgPerHour[i] ?? 0), unseen * rates.all)
  const ofRates = known.reduce(
    (s, h, i) => s + known.reduce((sum, g, j) => sum + h * g * (rates.cov[i]?.[j] ?? 0), 0),
    (unseen * LEVELS_DIFFER * rates.all) ** 2,
  )
  const sd = Math.sqrt(ofRates + rates.perHour * total(coming))
  return { mean, low: Math.max(0, mean - Z_80 * sd), high: mean + Z_80 * sd }
}

/**
 * How much of its past pace a booth’s classes ask for in the days to come: their hours there, each weighed by what its level welds, against those of the
 * weeks the pace was learnt from, both per hour of the shifts. 1: as before, 0: no class at all (holidays); null: too few classes to go by.
 */
export function paceByClasses(of: {
  past: ReadonlyMap<Level, number>
  coming: ReadonlyMap<Level, number>
  /** Hours of the shifts in each. */
  workedPast: number
  workedComing: number
  rates: WireRates | null
}): number | null {
  const { past, coming, workedPast, workedComing, rates } = of
  if (total(past) < FEWEST_HOURS || !(workedPast > 0) || !(workedComing > 0)) return null
  const weighed = (hours: ReadonlyMap<Level, number>) =>
    [...hours].reduce((s, [level, h]) => {
      const at = rates?.levels.indexOf(level) ?? -1
      return s + h * (rates && rates.all > 0 ? (rates.kgPerHour[at] ?? rates.all) / rates.all : 1)
    }, 0)
  const before = weighed(past) / workedPast
  return before > 0 ? weighed(coming) / workedComing / before : null
}
/** Ten classes of an hour and a half at that booth. */
const FEWEST_HOURS = 15
