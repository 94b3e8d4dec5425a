import { solve } from '@core/stats/solve.ts'
export interface Point {
  x: number
  y: number
}
/** (p − c)ᵀM(p − c) = 1, M = [[a, b], [b, c]]. */
export interface Ellipse {
  centre: Point
  a: number
  b: number
  c: number
}

/** Half axes, longest first; and the direction of the longest. */
export function axesOf({ a, b, c }: Pick<Ellipse, 'a' | 'b' | 'c'>): { long: number; short: number; angleRad: number } {
  const mean = (a + c) / 2
  const half = Math.hypot((a - c) / 2, b)
  const [small, large] = [mean - half, mean + half]
  return { long: 1 / Math.sqrt(small), short: 1 / Math.sqrt(large), angleRad: Math.atan2(small - a, b || 1e-18) }
}

/** Distance of a point from the ellipse along the ray from its centre: positive outside. */
export function radialResidual(e: Ellipse, { x, y }: Point): number {
  const [dx, dy] = [x - e.centre.x, y - e.centre.y]
  const r = Math.hypot(dx, dy)
  const q = Math.sqrt(e.a * dx * dx + 2 * e.b * dx * dy + e.c * dy * dy)
  return q === 0 ? -Infinity : r - r / q
}

const ROUNDS = 8
/** Tukey's biweight goes to nought at so many robust standard deviations. */
const CUT = 4

/**
 * Ellipse through points round a seed: conic Ax² + Bxy + Cy² + Dx + Ey = 1 by weighted least squares in coordinates about the seed,
 * weights by Tukey's biweight of the radial residual (scale 1.4826·MAD, at least `floorPx`), eight rounds. `isNear`: the points were looked
 * for near an ellipse found before, so few of them are wild and no start is sought. Null where the points lie on
 * no ellipse. Also the residual scale. Beaton & Tukey 1974.
 */
export function fitEllipse(
  points: readonly Point[],
  seed: Point,
  of: { floorPx?: number; isNear?: boolean } = {},
): { ellipse: Ellipse; residualPx: number; used: number } | null {
  if (points.length < 8) return null
  const size = points.reduce((s, p) => s + Math.hypot(p.x - seed.x, p.y - seed.y), 0) / points.length
  if (!(size > 0)) return null
  const local = points.map((p) => ({ x: (p.x - seed.x) / size, y: (p.y - seed.y) / size }))
  const { floorPx = 0.05, isNear = false } = of
  let weights = isNear ? local.map(() => 1) : firstWeights(local)
  let best: { ellipse: Ellipse; residualPx: number; used: number } | null = null
  for (let round = 0; round < ROUNDS; round++) {
    const unit = conic(local, weights)
    if (!unit) return best
    const residuals = local.map((p) => radialResidual(unit, p))
    const scale = Math.max(1.4826 * medianOf(residuals.map(Math.abs)), floorPx / size)
    weights = residuals.map((r) => {
      const u = r / (CUT * scale)
      return Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0
    })
    best = { ellipse: scaled(unit, seed, size), residualPx: scale * size, used: weights.filter((w) => w > 0.1).length }
  }
  return best
}

const TRIES = 80
const FEW = 6
/** Of many ellipses through a few points each the one nearest to half of all of them: wild points then never steer the first fit. */
function firstWeights(points: readonly Point[]): number[] {
  let best: { spread: number; residuals: number[] } | null = null
  let state = 12_345
  for (let t = 0; t < TRIES; t++) {
    const chosen = new Array<number>(points.length).fill(0)
    for (let k = 0; k < FEW; k++) {
      // A small linear congruence is random enough to choose points by, and the same every time.
      state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
      chosen[state % points.length] = 1
    }
    const made = conic(points, chosen)
    if (!made) continue
    const residuals = points.map((p) => radialResidual(made, p))
    const spread = medianOf(residuals.map(Math.abs))
    if (Number.isFinite(spread) && (!best || spread < best.spread)) best = { spread, residuals }
  }
  const near = Math.max(0.01, (best?.spread ?? Infinity) * 4)
  return best ? best.residuals.map((r) => (Math.abs(r) < near ? 1 : 0)) : points.map(() => 1)
}

const scaled = (e: Ellipse, seed: Point, size: number): Ellipse => ({
  centre: { x: seed.x + e.centre.x * size, y: seed.y + e.centre.y * size },
  a: e.a / size ** 2,
  b: e.b / size ** 2,
  c: e.c / size ** 2,
})

export function medianOf(list: readonly number[]): number {
  const sorted = [...list].sort((a, b) => a - b)
  return sorted[sorted.length >> 1] ?? NaN
}

function conic(points: readonly Point[], weights: readonly number[]): Ellipse | null {
  const normal = Array.from({ length: 5 }, () => new Array<number>(6).fill(0))
  points.forEach(({ x, y }, i) => {
    const w = weights[i] ?? 0
    if (w === 0) return
    const row = [x * x, x * y, y * y, x, y]
    for (let r = 0; r < 5; r++) {
      const line = normal[r]
      if (!line) continue
      for (let c = 0; c < 5; c++) line[c] = (line[c] ?? 0) + w * (row[r] ?? 0) * (row[c] ?? 0)
      line[5] = (line[5] ?? 0) + w * (row[r] ?? 0)
    }
  })
  const { x, rank } = solve(normal, 1e-14)
  if (rank < normal.length) return null
  const [A = 0, B = 0, C = 0, D = 0, E = 0] = x
  const det = 4 * A * C - B * B
  if (!(det > 0)) return null
  const centre = { x: (B * E - 2 * C * D) / det, y: (B * D - 2 * A * E) / det }
  const k = 1 - (D * centre.x + E * centre.y) / 2
  if (!(k > 0) || !(A / k > 0)) return null
  return { centre, a: A / k, b: B / (2 * k), c: C / k }
}

/**
 * An ellipse as it would be seen from straight in front, where `round` is known to be a circle in the same plane: both under T = √M of
 * the round one, which becomes the unit circle. Half axes in radii of the round one.
 */
export function rectified(e: Ellipse, round: Ellipse): { long: number; short: number } {
  const root = sqrtOf(round)
  const det = root.a * root.c - root.b ** 2
  const inv = { a: root.c / det, b: -root.b / det, c: root.a / det }
  // T⁻¹ᵀ M T⁻¹, T symmetric.
  const [p, q, r] = [inv.a * e.a + inv.b * e.b, inv.a * e.b + inv.b * e.c, inv.b * e.a + inv.c * e.b]
  const s = inv.b * e.b + inv.c * e.c
  return axesOf({ a: p * inv.a + q * inv.b, b: p * inv.b + q * inv.c, c: r * inv.b + s * inv.c })
}

/** Square root of a symmetric positive 2 × 2 matrix: (M + √det·I)/√(tr + 2√det). */
function sqrtOf({ a, b, c }: Pick<Ellipse, 'a' | 'b' | 'c'>) {
  const d = Math.sqrt(a * c - b * b)
  const t = Math.sqrt(a + c + 2 * d)
  return { a: (a + d) / t, b: b / t, c: (c + d) / t }
}
