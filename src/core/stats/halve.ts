/** Halvings after which no double can be told from its neighbour, whatever the span. */
const MOST = 200
export interface Halved {
  x: number
  steps: number
  /** The ends came as near each other as was asked. */
  isClose: boolean
}

/**
 * Where a condition that holds at the first end and not at the second turns over, by halving: slower than Newton by some steps, and never
 * lost. Ends in either order, both finite; stops once they differ by `close` · max(1, |x|), or by no double. Misuse throws.
 * Source: bisection (any textbook; here as in Press et al. 2007, §9.1).
 * @example halved((x) => x * x < 2, [0, 2]).x // 1.41421…
 */
export function halved(
  holds: (x: number) => boolean,
  ends: readonly [inside: number, outside: number],
  { close = 1e-13, most = MOST }: { close?: number; most?: number } = {},
): Halved {
  let [inside, outside] = ends
  if (!Number.isFinite(inside) || !Number.isFinite(outside))
    throw new RangeError(`halved: expected finite ends, got ${inside}, ${outside}`)
  let steps = 0
  while (Math.abs(outside - inside) > close * Math.max(1, Math.abs(inside)) && steps < most) {
    const middle = (inside + outside) / 2
    if (middle === inside || middle === outside) break
    if (holds(middle)) inside = middle
    else outside = middle
    steps++
  }
  return { x: (inside + outside) / 2, steps, isClose: steps < most }
}
