import { Z_95 } from '@core/stats/normal.ts'

export interface LifeTimes {
  time: readonly number[]
  event: readonly number[]
  entry?: readonly number[]
}
export interface SurvivalStep {
  time: number
  nRisk: number
  nEvent: number
  survival: number
  /** Greenwood's variance; undefined (null) once survival is 0. */
  greenwoodVar: number | null
  lower: number | null
  upper: number | null
}
export interface SurvivalCurve {
  steps: SurvivalStep[]
  median: number | null
  medianLower: number | null
  medianUpper: number | null
}

/**
 * Kaplan–Meier survival with Greenwood's variance and the log-log band: S = Π(1 − d/n), var = S²Σ d/(n(n−d)),
 * band S^θ, S^(1/θ), θ = exp(z·√Σ d/(n(n−d)) / |ln S|). A life censored at a failure time is still at risk there; with
 * delayed entry a life counts from after its entry. `median` is the first time with S ≤ 1/2, compared in whole numbers
 * so that rounding of the product cannot move it. Kaplan & Meier 1958; Greenwood 1926; Brookmeyer & Crowley 1982.
 * @example kaplanMeier({ time: [9, 13, 13], event: [1, 1, 0] }).median // 13
 */
export function kaplanMeier(lives: LifeTimes): SurvivalCurve {
  checkLives(lives)
  const counts = riskCounts(lives)
  const steps: SurvivalStep[] = []
  let logSurvival = 0
  let greenwood = 0
  for (const { time, nRisk, nEvent } of counts) {
    const isLast = nRisk === nEvent
    logSurvival = isLast ? -Infinity : logSurvival + Math.log1p(-nEvent / nRisk)
    greenwood += isLast ? 0 : nEvent / (nRisk * (nRisk - nEvent))
    const survival = Math.exp(logSurvival)
    steps.push({ time, nRisk, nEvent, survival, ...band(logSurvival, greenwood) })
  }
  const first = (value: (step: SurvivalStep) => number | null) =>
    steps.find((step) => {
      const s = value(step)
      return s !== null && s <= 0.5 + 1e-12
    })?.time ?? null
  return {
    steps,
    median: first((s) => s.survival),
    medianLower: first((s) => s.lower),
    medianUpper: first((s) => s.upper),
  }
}

function checkLives({ time, event, entry }: LifeTimes): void {
  if (time.length !== event.length)
    throw new RangeError(`kaplanMeier: expected as many events as times, got ${event.length} and ${time.length}`)
  if (entry && entry.length !== time.length)
    throw new RangeError(`kaplanMeier: expected as many entries as times, got ${entry.length}`)
  for (const t of time)
    if (!(t >= 0) || !Number.isFinite(t)) throw new RangeError(`kaplanMeier: expected times >= 0, got ${t}`)
}

function band(logSurvival: number, greenwood: number) {
  if (logSurvival === -Infinity) return { greenwoodVar: null, lower: null, upper: null }
  const survival = Math.exp(logSurvival)
  if (logSurvival === 0) return { greenwoodVar: 0, lower: 1, upper: 1 }
  const theta = Math.exp((Z_95 * Math.sqrt(greenwood)) / Math.abs(logSurvival))
  return {
    greenwoodVar: survival * survival * greenwood,
    lower: Math.exp(logSurvival * theta),
    upper: Math.exp(logSurvival / theta),
  }
}

function riskCounts({ time, event, entry }: LifeTimes) {
  const exits = time.map((t, i) => ({ t, event: event[i] ?? 0 })).sort((a, b) => a.t - b.t)
  const entries = [...(entry ?? [])].sort((a, b) => a - b)
  const counts: { time: number; nRisk: number; nEvent: number }[] = []
  let entered = 0
  for (let i = 0; i < exits.length;) {
    const t = exits[i]?.t ?? 0
    while (entered < entries.length && (entries[entered] ?? 0) < t) entered++
    const nRisk = (entry ? entered : exits.length) - i
    let nEvent = 0
    let j = i
    for (; j < exits.length && exits[j]?.t === t; j++) nEvent += exits[j]?.event ? 1 : 0
    if (nEvent > 0) counts.push({ time: t, nRisk, nEvent })
    i = j
  }
  return counts
}

/**
 * Restricted mean to τ, the area under the curve, with var = Σ A²·d/(n(n−d)), A the area from that step to τ;
 * steps at which nobody is left add nothing (Klein & Moeschberger 2003).
 */
export function restrictedMean(curve: SurvivalCurve, tau: number): { rmst: number; se: number } {
  const steps = curve.steps.filter((s) => s.time < tau)
  const ends = [...steps.slice(1).map((s) => s.time), tau]
  const areaFrom = new Float64Array(steps.length + 1)
  for (let i = steps.length - 1; i >= 0; i--) {
    const step = steps[i] as SurvivalStep
    areaFrom[i] = (areaFrom[i + 1] ?? 0) + step.survival * ((ends[i] ?? tau) - step.time)
  }
  const rmst = Math.min(tau, steps[0]?.time ?? tau) + (areaFrom[0] ?? 0)
  const variance = steps.reduce(
    (sum, s, i) =>
      s.nRisk === s.nEvent ? sum : sum + ((areaFrom[i] ?? 0) ** 2 * s.nEvent) / (s.nRisk * (s.nRisk - s.nEvent)),
    0,
  )
  return { rmst, se: Math.sqrt(variance) }
}

export type UsualLife =
  { ok: true; median: number; n: number; failures: number } | { ok: false; reason: string; n: number }
const OWN_LIVES_NEEDED = 5

/** "Usual here": the Kaplan–Meier median of own lives, silent below five worn ones or when half have not yet gone. */
export function usualLife(lives: LifeTimes): UsualLife {
  const failures = lives.event.filter((e) => e === 1).length
  if (failures < OWN_LIVES_NEEDED)
    return { ok: false, reason: `only ${failures} worn out here so far`, n: lives.time.length }
  const { median } = kaplanMeier(lives)
  if (median === null) return { ok: false, reason: 'fewer than half have worn out', n: lives.time.length }
  return { ok: true, median, n: lives.time.length, failures }
}
