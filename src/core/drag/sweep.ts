import { atShare } from '@core/stats/mean.ts'
import { pathOf } from './path.ts'
import { PARAMS, withValues, type DragSetup, type Guesses, type Param } from './setup.ts'
import { tensionWindow, windowRatio } from './window.ts'

export interface Edges {
  low: number | null
  high: number
  isOpen: boolean
}
export interface Sensitivity {
  param: Param
  atLow: Edges
  atHigh: Edges
  /** How far the ratio of the window goes over that span, as the log of largest over smallest. */
  weight: number
}

function edges(setup: DragSetup): Edges & { ratio: number } {
  const w = tensionWindow(pathOf(setup))
  return { low: w.lowMark, high: w.highMark, isOpen: w.isOpen, ratio: windowRatio(w) ?? 0 }
}
const bare = ({ low, high, isOpen }: Edges): Edges => ({ low, high, isOpen })

/** One number at a time over its span, all else as it is: which of them moves the edges most. Marks of the knob. */
export function sensitivities(setup: DragSetup, spans: Guesses): Sensitivity[] {
  return PARAMS.flatMap((param) => {
    const { low, high } = spans[param]
    if (low === high) return []
    const [a, b] = [edges(withValues(setup, { [param]: low })), edges(withValues(setup, { [param]: high }))]
    const weight = Math.abs(Math.log(Math.max(a.ratio, 1e-6) / Math.max(b.ratio, 1e-6)))
    return weight > 1e-9 ? [{ param, atLow: bare(a), atHigh: bare(b), weight }] : []
  }).sort((a, b) => b.weight - a.weight)
}

export interface Spread {
  /** Share of what the spans allow in which the window is open. */
  openShare: number
  /** 10th, 50th and 90th percentile of each edge, marks; a low edge beyond reach counts as beyond the scale. */
  low: readonly [number, number, number]
  high: readonly [number, number, number]
  draws: number
}

/** Triangular draw by inversion on [low, high] with its mode at typical. */
export function drawTriangular(
  u: number,
  { low, typical, high }: { low: number; typical: number; high: number },
): number {
  if (high === low) return low
  const at = (typical - low) / (high - low)
  return u < at
    ? low + Math.sqrt(u * (high - low) * (typical - low))
    : high - Math.sqrt((1 - u) * (high - low) * (high - typical))
}

/**
 * The window under everything nobody has measured: each number drawn from its span (triangular, mode at what it is taken as), so many
 * times. Shares and percentiles; the random source is an argument.
 */
export function spreadOf(setup: DragSetup, spans: Guesses, by: { draws: number; random: () => number }): Spread {
  const lows: number[] = []
  const highs: number[] = []
  let open = 0
  for (let i = 0; i < by.draws; i++) {
    const over = Object.fromEntries(
      PARAMS.map((p) => {
        const typical = setup.values[p]
        const { low, high } = spans[p]
        return [p, drawTriangular(by.random(), { low: Math.min(low, typical), typical, high: Math.max(high, typical) })]
      }),
    )
    const at = edges(withValues(setup, over))
    if (at.isOpen) open += 1
    lows.push(at.low ?? setup.shape.feeder.scale[1] * 10)
    highs.push(at.high)
  }
  return { openShare: open / by.draws, low: deciles(lows), high: deciles(highs), draws: by.draws }
}

function deciles(list: number[]): [number, number, number] {
  const sorted = [...list].sort((a, b) => a - b)
  return [atShare(sorted, 0.1), atShare(sorted, 0.5), atShare(sorted, 0.9)]
}
