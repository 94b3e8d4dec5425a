/**
 * A liner is cut to length in two cuts, from two measurements:
 *
 *   measured ──firstCut──▶ cut once ──measured again──▶ secondCut ──▶ done
 *      │                                   │
 *      ├─ tooShort: needs another liner    └─ disagree: nothing is cut until both measurements tell the same
 *      └─ fits: nothing to cut
 *
 * 1. What stands out is measured with the liner’s nut home at the back, its end pressed in from the front, the cable straight.
 * 2. The first cut always leaves at least LEAVE_MM too much, and LEAVE_LONG_MM of a long one.
 * 3. The second cut is only told when the second measurement is what the first one and the first cut make of it.
 * 4. No cut is ever longer than what is too much.
 */
export const LEAVE_MM = 3
export const LEAVE_LONG_MM = 50
/** More than this is a long one: its own tape error is worth a wide margin. */
export const LONG_EXCESS_MM = 200
/** Cutters do not take a slice thinner than this off a coil cleanly: so little is left for the one cut. */
export const THIN_SLICE_MM = 3
/** Two measurements further apart than this do not tell the same. */
export const AGREE_MM = 1
/** A cut this close is as good as hands get: nothing is cut. */
export const CLOSE_MM = 0.5

export interface Measured {
  /** What stands out now, or the whole length where an old liner is copied. */
  standsOutMm: number
  /** What has to stand out when done. */
  neededMm: number
}
export type FirstCut =
  | { is: 'cut'; cutMm: number; leavesMm: number; excessMm: number }
  /** Too little to cut twice: measured again, then one cut. */
  | { is: 'measureAgain'; excessMm: number }
  | { is: 'fits' }
  | { is: 'tooShort'; byMm: number }

/**
 * The first of two cuts: excess x = standing out − needed (mm); leaves 3 mm, or 50 mm where x > 200 mm, because a liner cut short
 * cannot be lengthened. Where that would be a slice under 3 mm, nothing is cut before the second measurement. Lengths ≥ 0, misuse throws.
 * @example firstCut({ standsOutMm: 48, neededMm: 18 }) // { is: 'cut', cutMm: 27, leavesMm: 3, excessMm: 30 }
 */
export function firstCut(measured: Measured): FirstCut {
  const excessMm = excessOf(measured)
  if (excessMm < -CLOSE_MM) return { is: 'tooShort', byMm: -excessMm }
  if (excessMm <= CLOSE_MM) return { is: 'fits' }
  const leavesMm = excessMm > LONG_EXCESS_MM ? LEAVE_LONG_MM : LEAVE_MM
  if (excessMm - leavesMm < THIN_SLICE_MM) return { is: 'measureAgain', excessMm }
  return { is: 'cut', cutMm: excessMm - leavesMm, leavesMm, excessMm }
}

export type SecondCut =
  | { is: 'cut'; cutMm: number }
  | { is: 'fits' }
  | { is: 'tooShort'; byMm: number }
  /** byMm over 0: more stands out than it should, so it crept forward or less was cut. */
  | { is: 'disagree'; expectedMm: number; byMm: number }

/**
 * The last cut: the second measurement less what is needed, told only where the second measurement is within 1 mm of the first less the
 * first cut. Otherwise one of the two was taken with the liner not home or the cable bent, and a cut by it would be a guess. Misuse throws.
 * @example secondCut({ standsOutMm: 48, neededMm: 18 }, { cutMm: 27, nowMm: 21.2 }) // { is: 'cut', cutMm: 3.2 }
 */
export function secondCut(first: Measured, then: { cutMm: number; nowMm: number }): SecondCut {
  const excessMm = excessOf({ standsOutMm: then.nowMm, neededMm: first.neededMm })
  if (!(then.cutMm >= 0) || then.cutMm > Math.max(0, excessOf(first)))
    throw new RangeError(`secondCut: expected a first cut from 0 to what was too much, got ${then.cutMm}`)
  const expectedMm = first.standsOutMm - then.cutMm
  const byMm = then.nowMm - expectedMm
  if (Math.abs(byMm) > AGREE_MM) return { is: 'disagree', expectedMm, byMm }
  if (excessMm < -CLOSE_MM) return { is: 'tooShort', byMm: -excessMm }
  return excessMm <= CLOSE_MM ? { is: 'fits' } : { is: 'cut', cutMm: excessMm }
}

function excessOf({ standsOutMm, neededMm }: Measured): number {
  if (!(standsOutMm >= 0) || !(neededMm >= 0) || !Number.isFinite(standsOutMm + neededMm))
    throw new RangeError(`trim: expected lengths of 0 mm or more, got ${standsOutMm} and ${neededMm}`)
  return standsOutMm - neededMm
}

export interface Bend {
  conduitBoreMm: number
  linerOutsideMm: number
  /** All bends of the cable added up, each as its size whichever way it turns. */
  bendRad: number
}

/**
 * How far off a liner cut in a bent cable comes out, mm: e·Σθ with e = (bore − liner outside) / 2. A relaxed liner takes the inside of
 * the bend, stands out further and ends up short by this; one pressed home takes the outside and ends up long. Geometry of concentric
 * arcs. A liner as wide as its conduit has no way to go: 0. Misuse throws.
 * @example bendErrorMm({ conduitBoreMm: 6, linerOutsideMm: 4.5, bendRad: 2 * Math.PI }) // 4.71
 */
export function bendErrorMm({ conduitBoreMm, linerOutsideMm, bendRad }: Bend): number {
  if (
    !(linerOutsideMm > 0) ||
    !(conduitBoreMm >= linerOutsideMm) ||
    !(bendRad >= 0) ||
    !Number.isFinite(conduitBoreMm + bendRad)
  )
    throw new RangeError(
      `bendErrorMm: expected 0 < liner ≤ conduit (mm) and a bend ≥ 0 (rad), got ${linerOutsideMm}, ${conduitBoreMm}, ${bendRad}`,
    )
  return ((conduitBoreMm - linerOutsideMm) / 2) * bendRad
}
