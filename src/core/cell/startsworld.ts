import { HOUR_MS } from '@core/units/time.ts'
import { drawNormal, drawWeibull, makeRandom } from '@core/random/random.ts'
import { NO_STARTS, startsOn, type StartRow, type StartsWatch } from './starts.ts'

/**
 * Robots whose starts are played by parameters that the watch is not told: how often one fails when all is well, how that wanders from day to day, and how a
 * cutter's blade goes blunt until the wire's end is bent so often that somebody stops the robot.
 */
export interface StartsRun {
  weeks: number
  starts: number
  /** Starts made when it was said, and when somebody stopped the robot for it. */
  saidAt: number[]
  stoppedAt: number[]
}

/** A blade goes blunt at its end; before, hardly anything is seen of it. */
const BEND = 6
/** A quiet day has this many times the failures of a usual one, a bad one the inverse: standard deviation of the log. */
const DAY_LOG = [0.1, 0.35] as const

/** One robot over some weeks of five days; fed a day at a time. */
export function playStarts(seed: number, weeks: number): StartsRun {
  const random = makeRandom(seed)
  const between = (a: number, b: number) => a + (b - a) * random()
  const well = between(0.003, 0.025)
  const dayLog = between(...DAY_LOG)
  const perDay = Math.round(between(150, 900))
  const shape = between(2, 4)
  const scale = between(20_000, 60_000)
  const worst = between(0.08, 0.2)
  const run: StartsRun = { weeks, starts: 0, saidAt: [], stoppedAt: [] }
  const counters = { arcStarts: 0, startsFailed: 0 }
  let watch: StartsWatch = NO_STARTS
  let blade = { born: 0, end: drawWeibull(random, shape, scale) }
  for (let day = 0; day < weeks * 7; day++) {
    if (day % 7 >= 5) continue
    const today = Math.exp(dayLog * drawNormal(random))
    const rows: (StartRow & { made: number })[] = []
    const changes: number[] = []
    for (let i = 0; i < perDay; i++) {
      const atMs = day * 24 * HOUR_MS + Math.round(((i + 1) / perDay) * 16 * HOUR_MS)
      const age = Math.min(1, (run.starts - blade.born) / (blade.end - blade.born))
      const fails = random() < Math.min(0.5, well * today + worst * age ** BEND)
      run.starts++
      if (fails) counters.startsFailed++
      else counters.arcStarts++
      if (run.starts >= blade.end) {
        run.stoppedAt.push(run.starts)
        changes.push(atMs)
        blade = { born: run.starts, end: run.starts + drawWeibull(random, shape, scale) }
      }
      if (i % 10 === 9) rows.push({ atMs, ...counters, made: run.starts })
    }
    const next = startsOn(watch, rows, changes)
    watch = next.watch
    run.saidAt.push(
      ...next.said.filter((s) => s.is === 'more').map((s) => rows.find((r) => r.atMs === s.atMs)?.made ?? run.starts),
    )
  }
  return run
}

/** Before a stop by so many starts, what was said was of it. */
const OF_IT = 12_000
export interface StartsScore {
  gunWeeks: number
  said: number
  falsePerWeek: number
  stops: number
  warned: number
  /** Starts ahead, the middle of those that were said. */
  ahead: number | null
}
/** What was said against what was stopped for; said at the end of what was played, nobody knows. */
export function scoreStarts(runs: readonly StartsRun[]): StartsScore {
  const isFor = (said: number, stop: number) => said <= stop && stop - said <= OF_IT
  const ahead = runs.flatMap((r) =>
    r.stoppedAt.flatMap((stop) => {
      const first = r.saidAt.find((s) => isFor(s, stop))
      return first === undefined ? [] : [stop - first]
    }),
  )
  const isFalse = (said: number, r: StartsRun) => r.starts - said > OF_IT && !r.stoppedAt.some((s) => isFor(said, s))
  const gunWeeks = runs.reduce((s, r) => s + r.weeks, 0)
  return {
    gunWeeks,
    said: runs.reduce((s, r) => s + r.saidAt.length, 0),
    falsePerWeek: runs.reduce((n, r) => n + r.saidAt.filter((s) => isFalse(s, r)).length, 0) / gunWeeks,
    stops: runs.reduce((s, r) => s + r.stoppedAt.length, 0),
    warned: ahead.length,
    ahead: ahead.sort((a, b) => a - b)[ahead.length >> 1] ?? null,
  }
}
