/** What a roll and the wire that came past it were, for slip. */
export interface RollAndWire {
  /** Across the roll where the wire runs, and the wire that came in so many turns; mm. */
  rollMm: number
  turns: number
  wireMm: number
}
/**
 * Slip at the rolls: 1 − wire ÷ (π · diameter · turns). Lengths > 0 mm, turns > 0; null where any is missing.
 * @example slipShare({ rollMm: 30, turns: 10, wireMm: 895.4 }) // 0.05
 */
export function slipShare({ rollMm = 0, turns = 0, wireMm = 0 }: Partial<RollAndWire>): number | null {
  if (!(rollMm > 0) || !(turns > 0) || !(wireMm > 0)) return null
  return 1 - wireMm / (Math.PI * rollMm * turns)
}

/** A full cylinder's gauge: a guess where nobody tells another. */
const FULL_BAR = 200
/** How far off gauge, flow and filling may be together: a guess. */
const GAS_SPREAD = 0.25
/**
 * Hours of welding a cylinder still lasts: what it holds when full × gauge ÷ 200 bar, through the flow (ideal gas at one temperature). bar ≥ 0,
 * m³ > 0, L/min > 0; null where nobody told what it holds.
 * @example gasLeftH({ bar: 50, fullM3: 10, flowLPerMin: 14 }).hours // 2.98
 */
export function gasLeftH(of: { bar: number; fullM3: number | null; flowLPerMin: number }) {
  const { bar, fullM3, flowLPerMin } = of
  if (!(bar >= 0)) throw new RangeError(`gasLeftH: expected a gauge >= 0 bar, got ${bar}`)
  if (!(flowLPerMin > 0)) throw new RangeError(`gasLeftH: expected a flow > 0 L/min, got ${flowLPerMin}`)
  if (fullM3 === null || !(fullM3 > 0)) return null
  const hours = (fullM3 * 1000 * (bar / FULL_BAR)) / flowLPerMin / 60
  return { hours, lowH: hours * (1 - GAS_SPREAD), highH: hours * (1 + GAS_SPREAD) }
}
