import { HOUR_MS } from '@core/units/time.ts'
import { drawNormal, drawWeibull, makeRandom } from '@core/random/random.ts'
import { NO_WATCH, watchOn, type Changed, type Creeping, type GunWatch, type WatchRow } from './watch.ts'

/**
 * Robots whose feed motors are played by parameters that the watch is not told: how hard the motor works, how it wanders from day to day and spool to
 * spool, how its liner creeps to a stop, and tips, hubs and drums that stop in ways of their own.
 */
export type StopKind = 'liner' | 'tip' | 'hub' | 'drum'
export interface WatchStop {
  kind: StopKind
  atMs: number
  arcH: number
}
export interface WatchRun {
  stops: WatchStop[]
  said: (Creeping & { byArcH: number })[]
  weeks: number
  arcH: number
}

interface World {
  speed: number
  baseA: number
  rowSd: number
  daySd: number
  dayKeeps: number
  hourSd: number
  spoolSd: number
  tipSd: number
  arcPerDayH: number
  linerScaleH: number
  linerShape: number
  /** The current at which the drive slips, over the base. */
  slipsAt: number
  /** How a liner's friction rises over its life: late and steep, or early and slow. */
  bend: number
  tipScaleH: number
  spoolH: number
  hubPerH: number
  drumPerH: number
}
function drawWorld(random: () => number): World {
  const between = (a: number, b: number) => a + (b - a) * random()
  return {
    ...{ speed: between(6, 14), baseA: between(1.2, 4), rowSd: between(0.03, 0.12), daySd: between(0.005, 0.025) },
    ...{ dayKeeps: between(0.3, 0.8), hourSd: between(0.003, 0.012), spoolSd: between(0.005, 0.03) },
    ...{ tipSd: between(0.003, 0.015), arcPerDayH: between(4, 12) },
    ...{ linerScaleH: between(120, 400), linerShape: between(2, 4), slipsAt: between(1.35, 2) },
    ...{ bend: between(2, 6), tipScaleH: between(6, 20), spoolH: between(4, 14) },
    ...{ hubPerH: between(0, 1 / 400), drumPerH: between(0, 1 / 600) },
  }
}

const DAY_H = 24
const ROW_S = 60
/** Of the tips some stop a robot, the others are changed in a break. */
const TIP_STOPS = 0.15

interface Now {
  liner: { bornH: number; endH: number }
  tip: { endH: number; offset: number }
  spool: { endH: number; offset: number }
  day: number
  hour: number
  hub: { endH: number } | null
  drum: { endH: number } | null
}

/** One robot over some weeks; what is watched is fed a day at a time, as a server would. */
export function playWatch(seed: number, weeks: number): WatchRun {
  const random = makeRandom(seed)
  const world = drawWorld(random)
  const run: WatchRun = { stops: [], said: [], weeks, arcH: 0 }
  let watch: GunWatch = NO_WATCH
  const now = begin(world, random)
  const counters = { wireFedM: 0, arcOnS: 0 }
  for (let day = 0; day < weeks * 7; day++) {
    if (day % 7 >= 5) continue
    const made = dayOf(world, { random, now, run, counters, dayMs: day * DAY_H * HOUR_MS })
    const next = watchOn(watch, made.rows, made.changes)
    watch = next.watch
    run.said.push(...next.said.map((s) => ({ ...s, byArcH: made.arcAt(s.atMs) })))
  }
  return run
}

function begin(world: World, random: () => number): Now {
  return {
    liner: { bornH: 0, endH: drawWeibull(random, world.linerShape, world.linerScaleH) },
    tip: { endH: drawWeibull(random, 2, world.tipScaleH), offset: 0 },
    spool: { endH: world.spoolH, offset: 0 },
    ...{ day: 0, hour: 0, hub: null, drum: null },
  }
}

interface DayAt {
  random: () => number
  now: Now
  run: WatchRun
  counters: { wireFedM: number; arcOnS: number }
  dayMs: number
}
function dayOf(world: World, at: DayAt) {
  const { random, now, run, counters } = at
  const rows: WatchRow[] = []
  const changes: Changed[] = []
  const arcs: [ms: number, arcH: number][] = []
  now.day = world.dayKeeps * now.day + world.daySd * drawNormal(random)
  const rowsToday = Math.round((world.arcPerDayH * 3600) / ROW_S)
  const spacingMs = (20 * HOUR_MS) / rowsToday
  for (let i = 0; i < rowsToday; i++) {
    const atMs = at.dayMs + Math.round((i + 1) * spacingMs)
    run.arcH += ROW_S / 3600
    counters.arcOnS += ROW_S
    counters.wireFedM += (world.speed * ROW_S) / 60
    if (i % 60 === 0) now.hour = 0.7 * now.hour + world.hourSd * drawNormal(random)
    happen(world, { ...at, atMs, changes })
    const level = levelOf(world, now, run.arcH)
    rows.push({ atMs, ...counters, motorAmps: world.baseA * level * (1 + world.rowSd * drawNormal(random)) })
    arcs.push([atMs, run.arcH])
  }
  return { rows, changes, arcAt: (ms: number) => arcs.findLast(([t]) => t <= ms)?.[1] ?? run.arcH }
}

/** Motor current over its base: friction of the liner, what spool, tip, hub and drum add, and how it wanders. */
function levelOf(world: World, now: Now, arcH: number): number {
  const age = Math.min(1, (arcH - now.liner.bornH) / (now.liner.endH - now.liner.bornH))
  const liner = (world.slipsAt - 1) * age ** world.bend
  const hub = now.hub ? 0.25 * Math.min(1, Math.max(0, 1 - (now.hub.endH - arcH) / 6)) : 0
  const drum = now.drum ? 0.3 * Math.min(1, Math.max(0, 1 - (now.drum.endH - arcH) / 3)) : 0
  return 1 + liner + hub + drum + now.spool.offset + now.tip.offset + now.day + now.hour
}

/** What is changed and what stops, as the arc hours come to it. */
function happen(world: World, at: DayAt & { atMs: number; changes: Changed[] }): void {
  const { random, now, run, atMs, changes } = at
  const { arcH } = run
  const stop = (kind: StopKind) => void run.stops.push({ kind, atMs, arcH })
  if (arcH >= now.liner.endH) {
    stop('liner')
    now.liner = { bornH: arcH, endH: arcH + drawWeibull(random, world.linerShape, world.linerScaleH) }
    changes.push({ atMs, is: 'anew' })
  }
  if (arcH >= now.tip.endH) {
    if (random() < TIP_STOPS) stop('tip')
    now.tip = { endH: arcH + drawWeibull(random, 2, world.tipScaleH), offset: world.tipSd * drawNormal(random) }
    changes.push({ atMs, is: 'step' })
  }
  if (arcH >= now.spool.endH) {
    now.spool = { endH: arcH + world.spoolH, offset: world.spoolSd * drawNormal(random) }
    changes.push({ atMs, is: 'step' })
  }
  if (now.hub && arcH >= now.hub.endH) {
    stop('hub')
    now.hub = null
    changes.push({ atMs, is: 'step' })
  } else if (!now.hub && random() < (world.hubPerH * ROW_S) / 3600) now.hub = { endH: arcH + 6 + 6 * random() }
  if (now.drum && arcH >= now.drum.endH) {
    stop('drum')
    now.drum = null
    changes.push({ atMs, is: 'step' })
  } else if (!now.drum && random() < (world.drumPerH * ROW_S) / 3600) now.drum = { endH: arcH + 1 + 3 * random() }
}

/** A word counts as a warning of the next stop that creeps, where that comes within so many arc hours. */
const WARNS_H = 60
const EARLY_H = 8
export interface WatchScore {
  gunWeeks: number
  said: number
  falseAlarms: number
  /** False alarms in a gun's week. */
  falsePerWeek: number
  stops: Record<StopKind, number>
  warned: Record<StopKind, number>
  /** Liner stops said eight arc hours ahead, of all. */
  linersEarly: number
  /** Arc hours ahead, middle of those that were said. */
  aheadH: Record<StopKind, number | null>
}

/** What was said against what stopped: a stop was warned of if something was said in the hours before it; what is said before nothing is false. */
export function scoreWatch(runs: readonly WatchRun[]): WatchScore {
  const kinds: StopKind[] = ['liner', 'tip', 'hub', 'drum']
  const by = <T>(of: (kind: StopKind) => T) => Object.fromEntries(kinds.map((k) => [k, of(k)])) as Record<StopKind, T>
  const aheadOf = (run: WatchRun, stop: WatchStop): number | null => {
    const hours = run.said.map((s) => stop.arcH - s.byArcH).filter((h) => h > 0 && h <= WARNS_H)
    return hours.length > 0 ? Math.max(...hours) : null
  }
  const stops = runs.flatMap((run) => run.stops.map((s) => ({ kind: s.kind, ahead: aheadOf(run, s) })))
  const ahead = (kind: StopKind) => stops.filter((s) => s.kind === kind).flatMap((s) => s.ahead ?? [])
  const falseAlarms = runs.reduce((n, run) => n + run.said.filter((s) => isFalse(s.byArcH, run)).length, 0)
  const gunWeeks = runs.reduce((s, r) => s + r.weeks, 0)
  const linerStops = stops.filter((s) => s.kind === 'liner').length
  return {
    ...{ gunWeeks, falseAlarms, falsePerWeek: falseAlarms / gunWeeks },
    said: runs.reduce((s, r) => s + r.said.length, 0),
    stops: by((k) => stops.filter((s) => s.kind === k).length),
    warned: by((k) => ahead(k).length),
    linersEarly: ahead('liner').filter((h) => h >= EARLY_H).length / Math.max(1, linerStops),
    aheadH: by((k) => ahead(k).sort((a, b) => a - b)[ahead(k).length >> 1] ?? null),
  }
}

/** Nothing that creeps stopped within the hours after it; at the end of what was played nobody knows. */
const isFalse = (byArcH: number, { stops, arcH }: WatchRun): boolean =>
  arcH - byArcH > WARNS_H && !stops.some((t) => t.kind !== 'tip' && t.arcH >= byArcH && t.arcH - byArcH <= WARNS_H)
