import { FIXED_PINNED } from './nest.ts'

/** How the ends of the column are held: its effective length over its own. */
export const ENDS = { 'pinned-pinned': 1, 'fixed-pinned': FIXED_PINNED, 'fixed-fixed': 0.5 } as const
export type Ends = keyof typeof ENDS

export interface Column {
  diameterMm: number
  gapMm: number
  modulusMPa: number
  yieldMPa: number
}
export interface ColumnLoads {
  slenderness: number
  euler: number
  /** Null where it is too slender for the parabola. */
  johnson: number | null
  /** The lesser of Euler and squash. */
  least: number
  mode: 'buckling' | 'yield'
}

/** Slenderness from which Euler holds: √(2π²E/σ_y). */
export const transitionSlenderness = ({ modulusMPa, yieldMPa }: Pick<Column, 'modulusMPa' | 'yieldMPa'>) =>
  Math.sqrt((2 * Math.PI ** 2 * modulusMPa) / yieldMPa)

/**
 * A straight solid wire as a column, N, for comparison with what really nests it: Euler π²EI/(KL)², Johnson A·σ_y(1 − σ_y s²/(4π²E)) for
 * s ≤ √(2π²E/σ_y), squash A·σ_y. mm, MPa; misuse throws. Timoshenko & Gere 1961; Budynas & Nisbett (Johnson).
 */
export function columnLoads(column: Column, ends: Ends): ColumnLoads {
  const { diameterMm: d, gapMm, modulusMPa, yieldMPa } = column
  if (!(d > 0 && gapMm > 0 && modulusMPa > 0 && yieldMPa > 0))
    throw new RangeError(
      `columnLoads: expected d, gap, modulus, yield > 0, got ${d}, ${gapMm}, ${modulusMPa}, ${yieldMPa}`,
    )
  const area = (Math.PI * d ** 2) / 4
  const length = ENDS[ends] * gapMm
  const slenderness = length / (d / 4)
  const euler = (Math.PI ** 2 * modulusMPa * ((Math.PI * d ** 4) / 64)) / length ** 2
  const isStout = slenderness <= transitionSlenderness(column)
  const johnson = isStout
    ? area * yieldMPa * (1 - (yieldMPa * slenderness ** 2) / (4 * Math.PI ** 2 * modulusMPa))
    : null
  const squash = area * yieldMPa
  return { slenderness, euler, johnson, least: Math.min(euler, squash), mode: euler < squash ? 'buckling' : 'yield' }
}

/** The longest gap at which Euler's load is still a push times its margin, mm. */
export function longestGapMm(column: Omit<Column, 'gapMm' | 'yieldMPa'>, ends: Ends, pushN: number): number {
  if (!(pushN > 0)) throw new RangeError(`longestGapMm: expected a push > 0, got ${pushN}`)
  const ei = column.modulusMPa * ((Math.PI * column.diameterMm ** 4) / 64)
  return (Math.PI * Math.sqrt(ei / pushN)) / ENDS[ends]
}
