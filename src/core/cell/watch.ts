import { median } from '@core/trend/theilsen.ts'
import { HOUR_S } from '@core/units/time.ts'

/**
 * The feed motor's current at equal wire speed, watched for creeping: what a robot tells while nobody looks.
 *
 *   rows ──same speed, arc on──> half an arc hour is a point (its median)
 *   first points since the liner went on ──> how it is when it is well, and how it wanders
 *   each later one ──> one-sided CUSUM of how far it lies above; over the threshold it is said, once, until something is changed
 *   another spool, another tip ──> its own step is taken out: what creeps is within a spool
 */
export interface WatchRow {
  atMs: number
  /** Counters as the equipment sent them, since it was switched on. */
  wireFedM: number
  arcOnS: number
  motorAmps: number | null
}
export interface WatchPoint {
  atMs: number
  /** Arc hours by then, since the watch began on this gun. */
  arcH: number
  amps: number
}
/** What is kept of one gun at one wire speed between two batches of rows. */
export interface BandWatch {
  /** m/min, in steps. */
  speed: number
  arcH: number
  /** The point that is being filled: seconds of arc, and currents. */
  open: { arcS: number; amps: number[] }
  points: WatchPoint[]
  /** A spool or a tip was changed: the next points tell its step. */
  isStepping: boolean
  /** Where the points since that change begin. */
  stepFrom: number
  up: number
  /** Index of the point where the rise began; null: it does not rise. */
  riseFrom: number | null
  /** How far it had risen when it was said last, A; null: it was not said. */
  saidA: number | null
}
export interface GunWatch {
  last: WatchRow | null
  bands: BandWatch[]
}
export const NO_WATCH: GunWatch = { last: null, bands: [] }
/** What was changed on the gun meanwhile: a liner or rolls begin it anew, a spool or tip step it. */
export interface Changed {
  atMs: number
  is: 'anew' | 'step'
}
export interface Creeping {
  speed: number
  /** As it is now and as it was when it was well, A. */
  amps: number
  baseA: number
  /** When the rise began, and when it was noticed. */
  sinceMs: number
  atMs: number
  arcH: number
}

/** A point is half an hour of arc at one speed. */
const POINT_S = 1800
/** Speeds within so many m/min are one. */
const BAND = 0.5
const MOST_BANDS = 4
/** So many points tell how a gun is when it is well. */
const BASE = 10
/** It never wanders less than this share of itself: temperature, lay, the meter. A guess. */
const LEAST_SIGMA = 0.03
/** Slack and threshold in sigmas: a creep of some tenths a day is found, a hot day is not. */
const SLACK = 0.75
const THRESHOLD = 6
/** And it has to have risen by so much: less is nothing that a hand could find. */
const LEAST_RISE = 0.1
/** Said once, it is said again only when it has risen by so much more; and is forgotten when it has come back to so much of that. */
const AGAIN = 0.12
const BACK = 0.3
/** So many points after a change tell its step. */
const STEP_POINTS = 3
/** A step of more than this is no spool's: it counts. */
const MOST_STEP = 0.15
const KEPT_POINTS = 400
const OPEN_KEPT = 200

const newBand = (speed: number): BandWatch => ({
  ...{ speed, arcH: 0, open: { arcS: 0, amps: [] }, points: [], isStepping: false, stepFrom: 0 },
  ...{ up: 0, riseFrom: null, saidA: null },
})

/**
 * Takes rows in order on from what is kept; answers what is kept now, and what has to be said. One-sided CUSUM of (x − base)/σ with slack ¾σ and
 * threshold 6σ; σ from the spread of the points themselves. Source: Page 1954; Montgomery 2013 ch. 9.
 */
export function watchOn(
  kept: GunWatch,
  rows: readonly WatchRow[],
  changes: readonly Changed[] = [],
): { watch: GunWatch; said: Creeping[] } {
  const watch: GunWatch = { last: kept.last, bands: kept.bands.map((b) => ({ ...b, points: [...b.points] })) }
  const said: Creeping[] = []
  const due = [...changes].sort((a, b) => a.atMs - b.atMs)
  for (const row of rows) {
    while (due[0] && due[0].atMs <= row.atMs) change(watch, due.shift() as Changed)
    const before = watch.last
    watch.last = row
    const step = before && stepOf(before, row)
    if (!step || row.motorAmps === null) continue
    const closed = fill(bandAt(watch, step.speed), { ...step, amps: row.motorAmps, atMs: row.atMs })
    const creeping = closed && judge(closed)
    if (creeping) said.push(creeping)
  }
  due.forEach((c) => change(watch, c))
  return { watch, said }
}

/** Arc and wire between two rows; nothing where a counter began anew, no arc burned or no wire came. */
function stepOf(a: WatchRow, b: WatchRow): { arcS: number; speed: number } | null {
  const [arcS, wireM] = [b.arcOnS - a.arcOnS, b.wireFedM - a.wireFedM]
  const isWhole = arcS > 0 && wireM > 0 && b.atMs > a.atMs && arcS * 1000 <= (b.atMs - a.atMs) * 1.05
  return isWhole ? { arcS, speed: (wireM / arcS) * 60 } : null
}

function bandAt(watch: GunWatch, speed: number): BandWatch {
  const near = watch.bands.find((b) => Math.abs(b.speed - speed) <= BAND / 2)
  if (near) return near
  const made = newBand(Math.round(speed / BAND) * BAND)
  watch.bands.push(made)
  // The one that was least welded with is given up.
  if (watch.bands.length > MOST_BANDS) {
    const known = watch.bands.slice(0, -1)
    const least = Math.min(...known.map((k) => k.arcH))
    watch.bands = watch.bands.filter((k) => k === made || k.arcH !== least)
  }
  return made
}

/** Fills the open point; answers the band when it is full. */
function fill(band: BandWatch, step: { arcS: number; amps: number; atMs: number }): BandWatch | null {
  band.open.arcS += step.arcS
  band.arcH += step.arcS / HOUR_S
  if (band.open.amps.length < OPEN_KEPT) band.open.amps.push(step.amps)
  else band.open.amps[Math.floor(band.open.arcS) % OPEN_KEPT] = step.amps
  if (band.open.arcS < POINT_S) return null
  band.points.push({ atMs: step.atMs, arcH: band.arcH, amps: median(band.open.amps) })
  band.open = { arcS: 0, amps: [] }
  return band
}

function change(watch: GunWatch, { is }: Changed): void {
  if (is === 'anew') watch.bands = watch.bands.map((b) => newBand(b.speed))
  else
    for (const band of watch.bands)
      Object.assign(band, {
        isStepping: band.points.length > 0,
        stepFrom: band.points.length,
        open: { arcS: 0, amps: [] },
      })
}

/** Three points after a spool or tip: how far they lie from the three before is that one's own. */
function takeStep(band: BandWatch): boolean {
  if (!band.isStepping) return true
  const after = band.points.slice(band.stepFrom)
  if (after.length < STEP_POINTS) return false
  const before = band.points.slice(Math.max(0, band.stepFrom - STEP_POINTS), band.stepFrom)
  const step = median(after.map((p) => p.amps)) - median(before.map((p) => p.amps))
  const base = median(band.points.slice(0, BASE).map((p) => p.amps))
  // What lies before is written as if it had been on this spool: only what creeps is left between them.
  if (Math.abs(step) < MOST_STEP * base)
    band.points = band.points.map((p, i) => (i < band.stepFrom ? { ...p, amps: p.amps + step } : p))
  // Put right: what was said of it is done with.
  if (step < -MOST_STEP * base) Object.assign(band, { up: 0, riseFrom: null, saidA: null })
  band.isStepping = false
  return true
}

function judge(band: BandWatch): Creeping | null {
  if (!takeStep(band)) return null
  const x = band.points.map((p) => p.amps)
  if (x.length <= BASE) return null
  const { base, sigma } = wellOf(x)
  const now = x.at(-1) ?? base
  const w = (now - base) / sigma
  const before = band.up
  band.up = Math.max(0, before + w - SLACK)
  if (band.up === 0) band.riseFrom = null
  else if (before === 0) band.riseFrom = x.length - 1
  trim(band)
  const risen = median(x.slice(-STEP_POINTS)) - base
  // Back where it was: it was a hot day, or somebody put it right and said nothing.
  if (risen < LEAST_RISE * base * BACK) band.saidA = null
  const least = band.saidA === null ? LEAST_RISE * base : band.saidA + AGAIN * base
  if (band.up <= THRESHOLD || risen < least) return null
  const at = band.points.at(-1)
  const since = band.points[Math.min(band.riseFrom ?? 0, band.points.length - 1)]
  if (!at || !since) return null
  band.saidA = risen
  return { speed: band.speed, amps: base + risen, baseA: base, sinceMs: since.atMs, atMs: at.atMs, arcH: at.arcH }
}

/** How it is when it is well: the middle of its first points; σ of those, robust, and no less than it wanders anyway. */
function wellOf(x: readonly number[]): { base: number; sigma: number } {
  const first = x.slice(0, BASE)
  const base = median(first)
  const mad = median(first.map((v) => Math.abs(v - base)))
  return { base, sigma: Math.max(1.4826 * mad, LEAST_SIGMA * base) }
}

function trim(band: BandWatch): void {
  const extra = band.points.length - KEPT_POINTS
  if (extra <= 0) return
  // The first ones stay: they are how it was.
  band.points.splice(BASE, extra)
  band.stepFrom = Math.max(0, band.stepFrom - extra)
  if (band.riseFrom !== null) band.riseFrom = Math.max(BASE, band.riseFrom - extra)
}
