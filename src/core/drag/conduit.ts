import { type CellFit, type ConduitLining, type ConduitPiece } from '@core/rightparts/facts.ts'
import { CONDUIT_FRICTION, type Guess } from './guess.ts'

/** Friction of wire on what a conduit is lined with. Guesses. */
export const LINING_FRICTION: Record<ConduitLining, Guess> = {
  polymer: CONDUIT_FRICTION,
  'steel coil': { low: 0.15, typical: 0.2, high: 0.28 },
  rollers: { low: 0.02, typical: 0.04, high: 0.08 },
}
const QUARTER_DEG = 90

export interface ConduitWay {
  lengthMm: number
  bendDeg: number
  /** Of all its bends together: each counts by what it is lined with there. */
  friction: Guess
}

/**
 * Several lengths of conduit as one: lengths and bends add; pulls multiply by e^(μθ), so μ of the whole is the mean of the pieces weighed by their
 * bends, Σμθ/Σθ (by length where nothing bends). Source: Euler 1769, Eytelwein 1808. Null where no conduit was told.
 */
export function conduitWay(pieces: readonly ConduitPiece[]): ConduitWay | null {
  if (pieces.length === 0) return null
  const bends = pieces.reduce((s, p) => s + p.bends, 0)
  const lengthM = pieces.reduce((s, p) => s + p.lengthM, 0)
  const weight = (p: ConduitPiece) => (bends > 0 ? p.bends / bends : p.lengthM / lengthM)
  const mean = (of: (g: Guess) => number) => pieces.reduce((s, p) => s + weight(p) * of(LINING_FRICTION[p.lining]), 0)
  return {
    lengthMm: lengthM * 1000,
    bendDeg: bends * QUARTER_DEG,
    friction: { low: mean((g) => g.low), typical: mean((g) => g.typical), high: mean((g) => g.high) },
  }
}

/** What a robot's place is told to draw wire through. */
export const conduitTold = (cell: CellFit | null | undefined): ConduitWay | null =>
  cell?.conduit ? conduitWay(cell.conduit) : null
export const hasBooster = (cell: CellFit | null | undefined): boolean =>
  cell?.booster === 'air' || cell?.booster === 'electric'
