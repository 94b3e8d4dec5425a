import { type Point } from '@core/photomeasure/ellipse.ts'
import { type Line } from '@core/photomeasure/span.ts'

/**
 * Two lines put on a picture from the side: the first across a part of known size, the second across what is measured.
 *
 *   none ──tap──> first end ──tap──> known ──tap──> ──tap──> both
 *                    both ──an end is pulled──> both, the other ends as they are
 *
 * 1. Pure: the same taps and pulls make the same lines.
 * 2. A tap beyond the fourth moves the nearest end: nobody has to hit a small circle with a glove.
 */
export interface SideLines {
  points: readonly Point[]
  /** Lines stay where they are put, in place of going to the edges near them. */
  isByHand: boolean
}
export type SideEvent =
  | { type: 'tap'; at: Point }
  | { type: 'pull'; end: number; at: Point }
  | { type: 'byHand'; is: boolean }
  | { type: 'again' }

export const NO_LINES: SideLines = { points: [], isByHand: false }
const ENDS = 4

export function sideStep(state: SideLines, event: SideEvent): SideLines {
  switch (event.type) {
    case 'tap':
      return state.points.length < ENDS
        ? { ...state, points: [...state.points, event.at] }
        : moved(state, nearest(state.points, event.at), event.at)
    case 'pull':
      return moved(state, event.end, event.at)
    case 'byHand':
      return { ...state, isByHand: event.is }
    case 'again':
      return { ...NO_LINES, isByHand: state.isByHand }
  }
}

const moved = (state: SideLines, end: number, at: Point): SideLines => ({
  ...state,
  points: state.points.map((p, i) => (i === end ? at : p)),
})
function nearest(points: readonly Point[], at: Point): number {
  const far = points.map((p) => Math.hypot(p.x - at.x, p.y - at.y))
  return far.indexOf(Math.min(...far))
}

/** Both lines, once all four ends are put. */
export function linesOf({ points }: SideLines): { known: Line; span: Line } | null {
  const [a, b, c, d] = points
  return a && b && c && d ? { known: { from: a, to: b }, span: { from: c, to: d } } : null
}

/** What to tap next, in words; null once all is put. */
export function nextTap({ points }: SideLines, known: string): string | null {
  return (
    [
      `Tap one edge of ${known}.`,
      'Tap its other edge, straight across.',
      'Now one end of what is measured.',
      'And its other end.',
    ][points.length] ?? null
  )
}
