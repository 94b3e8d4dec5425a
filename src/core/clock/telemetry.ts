import { HOUR_MS } from '@core/units/time.ts'

/**
 * Counters that feeders send, as use per hour.
 *
 *   rows of one equipment ──by (boot, sequence)──> steps between neighbours ──spread over time──> hours
 *
 * 1. Order is (boot, sequence), boots by the time of their first row; the order of arrival changes nothing.
 * 2. A new epoch begins at a new boot, or where a counter falls between neighbours: it began again at nought, so what it
 *    reads is what was used since. Use is never negative.
 * 3. A step that no feeder can do in its time is a broken reading, not use: it counts nothing, and counting goes on from it.
 * 4. Time within a boot never runs back, whatever the device's clock does.
 */
export interface FeederRow {
  bootId: string
  seq: number
  atMs: number
  wireFedM: number
  arcOnS: number
  arcStarts: number
}
export interface FeederStep {
  fromMs: number
  toMs: number
  wireFedM: number
  arcOnS: number
  arcStarts: number
}
export interface FeederHour {
  hourMs: number
  /** The last moment of the hour that a step speaks of. */
  toMs: number
  wireFedM: number
  arcOnS: number
  arcStarts: number
}

/** What a first row of a boot can have counted before it was sent. */
const FIRST_MS = 60_000
/** Guesses of what no feeder does: 40 m/min, more arc than time, five starts a second; a second's grace for rounding. */
const MOST = { wireFedM: 40 / 60, arcOnS: 1, arcStarts: 5 }
const COUNTED = ['wireFedM', 'arcOnS', 'arcStarts'] as const

/** Rows in their order, one per boot and sequence number (of equal ones the first given). */
export function inOrder(rows: readonly FeederRow[]): FeederRow[] {
  const boots = new Map<string, Map<number, FeederRow>>()
  for (const row of rows) {
    const boot = boots.get(row.bootId) ?? new Map<number, FeederRow>()
    if (!boot.has(row.seq)) boot.set(row.seq, row)
    boots.set(row.bootId, boot)
  }
  const sorted = [...boots.values()].map((boot) => [...boot.values()].sort((a, b) => a.seq - b.seq))
  const firstMs = (boot: FeederRow[]) => boot[0]?.atMs ?? 0
  const byFirst = (a: FeederRow[], b: FeederRow[]) =>
    firstMs(a) - firstMs(b) || ((a[0]?.bootId ?? '') < (b[0]?.bootId ?? '') ? -1 : 1)
  return sorted.sort(byFirst).flat()
}

/** What was used between two neighbours; `before` is null at the first row there is. */
export function stepBetween(before: FeederRow | null, row: FeederRow): FeederStep {
  const fromMs = before ? before.atMs : row.atMs - FIRST_MS
  const toMs = Math.max(row.atMs, fromMs)
  const isSameEpoch = before?.bootId === row.bootId && COUNTED.every((c) => row[c] >= before[c])
  const since = isSameEpoch ? before : NOTHING
  // A counter that lives through a restart reads too much to have been counted since: then it goes on from where it was.
  const ways = before && !isSameEpoch ? [since, before] : [since]
  for (const from of ways) {
    const step = { fromMs, toMs, wireFedM: 0, arcOnS: 0, arcStarts: 0 }
    for (const c of COUNTED) step[c] = row[c] - from[c]
    if (isPossible(step)) return step
  }
  return { fromMs, toMs, ...NOTHING }
}

const NOTHING = { wireFedM: 0, arcOnS: 0, arcStarts: 0 }

function isPossible(step: FeederStep): boolean {
  const seconds = (step.toMs - step.fromMs) / 1000 + 1
  return COUNTED.every((c) => step[c] >= 0 && step[c] <= MOST[c] * seconds)
}

/** Steps between all neighbours, times made to run forward only. */
export function stepsOf(rows: readonly FeederRow[]): FeederStep[] {
  const steps: FeederStep[] = []
  let before: FeederRow | null = null
  for (const row of inOrder(rows)) {
    const next: FeederRow = before ? { ...row, atMs: Math.max(row.atMs, before.atMs) } : row
    steps.push(stepBetween(before, next))
    before = next
  }
  return steps
}

/** Use per hour of the day: a step over several hours is spread by time; one of no length counts in its hour. */
export function hourly(steps: readonly FeederStep[]): FeederHour[] {
  const hours = new Map<number, FeederHour>()
  for (const step of steps)
    for (const { hourMs, share } of hoursOf(step)) {
      const hour = hours.get(hourMs) ?? { hourMs, toMs: hourMs, wireFedM: 0, arcOnS: 0, arcStarts: 0 }
      hour.toMs = Math.max(hour.toMs, Math.min(step.toMs, hourMs + HOUR_MS))
      for (const c of COUNTED) hour[c] += step[c] * share
      hours.set(hourMs, hour)
    }
  return [...hours.values()].sort((a, b) => a.hourMs - b.hourMs)
}

function hoursOf({ fromMs, toMs }: FeederStep): { hourMs: number; share: number }[] {
  const floor = (ms: number) => Math.floor(ms / HOUR_MS) * HOUR_MS
  if (toMs <= fromMs) return [{ hourMs: floor(toMs), share: 1 }]
  const parts: { hourMs: number; share: number }[] = []
  for (let hourMs = floor(fromMs); hourMs < toMs; hourMs += HOUR_MS) {
    const inside = Math.min(toMs, hourMs + HOUR_MS) - Math.max(fromMs, hourMs)
    parts.push({ hourMs, share: inside / (toMs - fromMs) })
  }
  return parts
}

/**
 * When a row was taken, by the server's clock: the device says how long ago by its own, which may be years off but runs at the
 * right pace. `sentMs` is the device's clock when it sent the batch.
 */
export const correctedMs = (row: { deviceMs: number }, at: { sentMs: number; receivedMs: number }): number =>
  at.receivedMs - (at.sentMs - row.deviceMs)
