export interface RollFace {
  groove: 'flat' | 'U' | 'V' | 'knurled'
  /** Included angle of a V. */
  includedAngleRad: number | null
  /** Of a knurled face, in place of its groove. */
  biteFactor: number | null
  driven: boolean
}
export interface RollPair {
  /** Force of the pair at two marks of the knob, N; linear through them and beyond. */
  calibration: readonly [readonly [mark: number, forceN: number], readonly [mark: number, forceN: number]]
  faces: readonly RollFace[]
}
export interface Line {
  atZeroN: number
  perMarkN: number
}

export function pairForce({ calibration: [[m1, n1], [m2, n2]] }: RollPair): Line {
  if (m1 === m2) throw new RangeError(`pairForce: expected two marks, got ${m1} twice`)
  const perMarkN = (n2 - n1) / (m2 - m1)
  return { atZeroN: n1 - perMarkN * m1, perMarkN }
}

/** How much more a groove grips than a flat: U 1, V 1/sin(half the included angle), knurled its bite. */
function grooveFactor(face: RollFace): number {
  if (face.groove === 'knurled') return face.biteFactor ?? 1
  if (face.groove !== 'V') return 1
  const half = (face.includedAngleRad ?? Math.PI) / 2
  if (!(half > 0 && half <= Math.PI / 2))
    throw new RangeError(`grooveFactor: expected an included angle in (0, π], got ${2 * half}`)
  return 1 / Math.sin(half)
}

/** Traction at a mark, N, as a line: µ·Σ over pairs of N(mark)·Σ over that pair's driven faces of the groove factor. */
export function tractionLine(pairs: readonly RollPair[], rollFriction: number): Line {
  if (!(rollFriction >= 0)) throw new RangeError(`tractionLine: expected friction ≥ 0, got ${rollFriction}`)
  return pairs.reduce<Line>(
    (sum, pair) => {
      const n = pairForce(pair)
      const grip = rollFriction * pair.faces.reduce((g, f) => g + (f.driven ? grooveFactor(f) : 0), 0)
      return { atZeroN: sum.atZeroN + grip * n.atZeroN, perMarkN: sum.perMarkN + grip * n.perMarkN }
    },
    { atZeroN: 0, perMarkN: 0 },
  )
}
/** The mark at which a line reaches a force; a knob that changes nothing reaches none. */
export const markAt = (line: Line, forceN: number): number | null =>
  line.perMarkN > 0 ? (forceN - line.atZeroN) / line.perMarkN : null
