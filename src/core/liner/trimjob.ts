import { lengthSlip, type Slip } from '@core/units/length.ts'
import { AGREE_MM, CLOSE_MM, firstCut, secondCut, type FirstCut } from './trim.ts'

/**
 * What comes next at the bench while a liner is cut, from what has been measured and cut so far:
 *
 *   needed? ─▶ measure ─▶ cut first ─▶ measure again ─▶ cut the rest ─▶ cut right
 *                │  └─ little too much: measure again, then one cut        ▲
 *                ├─ too short: no liner for this gun, or spoiled           │
 *                └─ fits ───────────────────────────────────────────────────┘
 *   measure again that does not agree: nothing is cut; measured anew, or begun anew from it
 *
 * 1. Nothing is told to be cut that both measurements do not bear out.
 * 2. What was once said to be cut stays cut: it can be begun anew from a new measurement, not taken back.
 */
export interface Trimming {
  /** What has to stand out when done, mm; null while it is not known. */
  neededMm: number | null
  standsOutMm: number | null
  /** The first cut, once it was made. */
  firstCutMm: number | null
  nowMm: number | null
  secondCutMm: number | null
}
export const NOT_BEGUN: Trimming = {
  neededMm: null,
  standsOutMm: null,
  firstCutMm: null,
  nowMm: null,
  secondCutMm: null,
}

export type TrimStage =
  | { is: 'needed' }
  | { is: 'measure'; neededMm: number }
  | { is: 'tooShort'; byMm: number; wasCut: boolean }
  | { is: 'cutFirst'; cutMm: number; leavesMm: number; excessMm: number }
  /** Expected: what the second measurement should be; the first cut may be none. */
  | { is: 'measureAgain'; expectedMm: number; isUncut: boolean }
  | { is: 'disagree'; expectedMm: number; nowMm: number; byMm: number }
  | { is: 'cutRest'; cutMm: number }
  | { is: 'right'; leftMm: number }

/** Where a liner job stands with its cuts. Lengths in mm ≥ 0, misuse throws. */
export function trimStage(t: Trimming): TrimStage {
  const { neededMm, standsOutMm } = t
  if (neededMm === null) return { is: 'needed' }
  if (standsOutMm === null) return { is: 'measure', neededMm }
  const first = firstCut({ standsOutMm, neededMm })
  if (first.is === 'tooShort') return { is: 'tooShort', byMm: first.byMm, wasCut: false }
  if (first.is === 'fits') return { is: 'right', leftMm: standsOutMm }
  return afterFirst(t, first, { standsOutMm, neededMm })
}

type Measured = { standsOutMm: number; neededMm: number }
function afterFirst(t: Trimming, first: Exclude<FirstCut, { is: 'tooShort' | 'fits' }>, m: Measured): TrimStage {
  const isUncut = first.is === 'measureAgain'
  if (!isUncut && t.firstCutMm === null)
    return { is: 'cutFirst', cutMm: first.cutMm, leavesMm: first.leavesMm, excessMm: first.excessMm }
  const cutMm = isUncut ? 0 : (t.firstCutMm ?? 0)
  if (t.nowMm === null) return { is: 'measureAgain', expectedMm: m.standsOutMm - cutMm, isUncut }
  const second = secondCut(m, { cutMm, nowMm: t.nowMm })
  if (second.is === 'disagree')
    return { is: 'disagree', expectedMm: second.expectedMm, nowMm: t.nowMm, byMm: second.byMm }
  if (second.is === 'tooShort') return { is: 'tooShort', byMm: second.byMm, wasCut: cutMm > 0 }
  if (second.is === 'fits') return { is: 'right', leftMm: t.nowMm }
  if (t.secondCutMm === null) return { is: 'cutRest', cutMm: second.cutMm }
  return { is: 'right', leftMm: t.nowMm - t.secondCutMm }
}

/** Begun anew from the last measurement: what was measured before was taken with the liner not home. */
export const beginAnew = (t: Trimming): Trimming => ({ ...NOT_BEGUN, neededMm: t.neededMm, standsOutMm: t.nowMm })

/** Everything that was cut off, and what was measured first, for the record; null before it is right. */
export function trimRecord(t: Trimming): {
  neededMm: number
  standsOutMm: number
  firstCutMm: number
  nowMm: number | null
  secondCutMm: number
  leftMm: number
} | null {
  const stage = trimStage(t)
  if (stage.is !== 'right' || t.neededMm === null || t.standsOutMm === null) return null
  return {
    neededMm: t.neededMm,
    standsOutMm: t.standsOutMm,
    firstCutMm: t.firstCutMm ?? 0,
    nowMm: t.nowMm,
    secondCutMm: t.secondCutMm ?? 0,
    leftMm: stage.leftMm,
  }
}

/** Nothing longer stands out of a gun than a liner bought for one twice its length. */
export const MOST_STANDING_MM = 6000

/** The slip a first measurement may be: less than what has to be left, or more than can stand out. */
export const slipOfFirst = (mm: number, neededMm: number): Slip | null =>
  lengthSlip(mm, { fromMm: Math.max(0, neededMm - CLOSE_MM), toMm: MOST_STANDING_MM })

/** The slip a second measurement may be: typed in another unit it would agree. */
export const slipOfSecond = (mm: number, expectedMm: number): Slip | null =>
  lengthSlip(mm, { fromMm: Math.max(0, expectedMm - AGREE_MM), toMm: expectedMm + AGREE_MM })
