import { nestForce, type Gap, type Nest } from './nest.ts'
import { sectionOf, type WireBeam } from './section.ts'
import { forceChain, type Segment } from './segment.ts'
import { tipDrag, type TipBearing } from './tipdrag.ts'
import { markAt, pairForce, tractionLine, type Line, type RollPair } from './traction.ts'

/** What pulls back on the wire before the rolls: a braked spool, or a drum. A booster pushes against it. */
export type Payoff =
  | { kind: 'spool'; brakeTorqueNmm: number; woundRadiusMm: number; boosterPushN: number }
  | { kind: 'drum'; pullN: number; boosterPushN: number }

/** The whole way of the wire through one drive, and what turns its knob. */
export interface FeedPath {
  wire: WireBeam
  payoff: Payoff
  /** From the payoff to the rolls. */
  inletSegments: readonly Segment[]
  /** From the tip to the rolls: neck first. */
  outletSegments: readonly Segment[]
  tip: TipBearing
  gap: Gap
  pairs: readonly RollPair[]
  rollFriction: number
  scaleMin: number
  scaleMax: number
  /** Force of a pair at which it flattens the wire; null: not known. */
  crushLimitN: number | null
  /** From slip pulls at two marks: stands in place of roll friction, grooves and pair forces, which then only tell crush. */
  measuredTraction?: Line | null
  /** Push and back tension at which the feeder's motor stalls; null: not told. */
  motorPushN?: number | null
}

/** Traction asked for above the push needed, for jerks and posture; and kept below what nests. */
export const SLIP_FACTOR = 1.5
export const NEST_FACTOR = 1.2

export type Limit = 'nest' | 'crush' | 'arm'
export interface TensionWindow {
  /** Before a booster takes off its share. */
  payoffPullN: number
  backTensionN: number | null
  tip: { bowMm: number; centreForceN: number; dragN: number }
  /** At the tip and after each segment, towards the rolls; null from where it cannot feed. */
  forceChainN: (number | null)[]
  pushN: number | null
  /** Push and back tension together. */
  neededN: number | null
  traction: Line
  nest: Nest
  nestMark: number | null
  crushMark: number | null
  lowMark: number | null
  highMark: number
  limit: Limit
  isOpen: boolean
}

/**
 * The window of the knob, in its own marks: low where traction = 1.5·(push + back tension), not below the first mark; high the least of
 * traction = nest force/1.2, a pair's force = crush limit, the last mark. N, mm, rad, MPa. Where the way grips so that nothing feeds
 * (µθ over 700) push and low edge are null and the window shut.
 */
export function tensionWindow(path: FeedPath, factors = { slip: SLIP_FACTOR, nest: NEST_FACTOR }): TensionWindow {
  const section = sectionOf(path.wire)
  const of = { wire: path.wire, section }
  const payoffPullN = pullOf(path.payoff)
  const boosted = Math.max(0, payoffPullN - path.payoff.boosterPushN)
  const backTensionN = forceChain(boosted, path.inletSegments, of).at(-1) ?? null
  const tip = tipDrag(path.tip, of)
  const forceChainN = forceChain(tip.dragN, path.outletSegments, of)
  const pushN = forceChainN.at(-1) ?? null
  const neededN = pushN === null || backTensionN === null ? null : pushN + backTensionN
  const traction = path.measuredTraction ?? tractionLine(path.pairs, path.rollFriction)
  const nest = nestForce(path.gap, of)
  const lowest = neededN === null ? null : markAt(traction, factors.slip * neededN)
  const lowMark = lowest === null ? null : Math.max(path.scaleMin, lowest)
  const high = highEdge(path, { traction, nestForceN: nest.nestForceN / factors.nest })
  const isOpen = lowMark !== null && lowMark < high.highMark
  return { payoffPullN, backTensionN, tip, forceChainN, pushN, neededN, traction, nest, lowMark, isOpen, ...high }
}

function pullOf(payoff: Payoff): number {
  if (payoff.kind === 'drum') return payoff.pullN
  if (!(payoff.woundRadiusMm > 0))
    throw new RangeError(`tensionWindow: expected a wound radius > 0, got ${payoff.woundRadiusMm}`)
  return payoff.brakeTorqueNmm / payoff.woundRadiusMm
}

function highEdge(
  path: FeedPath,
  at: { traction: Line; nestForceN: number },
): Pick<TensionWindow, 'nestMark' | 'crushMark' | 'highMark' | 'limit'> {
  const nestMark = markAt(at.traction, at.nestForceN)
  const { crushLimitN, scaleMax } = path
  const crushMarks = crushLimitN === null ? [] : path.pairs.flatMap((p) => markAt(pairForce(p), crushLimitN) ?? [])
  const crushMark = crushMarks.length > 0 ? Math.min(...crushMarks) : null
  const highMark = Math.min(nestMark ?? Infinity, crushMark ?? Infinity, scaleMax)
  const limit: Limit = nestMark === highMark ? 'nest' : crushMark === highMark ? 'crush' : 'arm'
  return { nestMark, crushMark, highMark, limit }
}

/** What the wire wants is more than the motor has, whatever the rolls grip. */
export const isStalled = ({ motorPushN }: FeedPath, { neededN }: TensionWindow) =>
  typeof motorPushN === 'number' && (neededN ?? Infinity) > motorPushN

export type Verdict = 'feeds with margin' | 'feeds without margin' | 'cannot feed'
/**
 * Three verdicts that stay apart: with both margins at some mark; only without them; not at all, since the push needed is above what
 * nests, or above the traction of the last mark, or more than the motor has.
 */
export function feedVerdict(path: FeedPath, w: TensionWindow): Verdict {
  if (isStalled(path, w)) return 'cannot feed'
  if (w.isOpen) return 'feeds with margin'
  const most = w.traction.atZeroN + w.traction.perMarkN * path.scaleMax
  return (w.pushN ?? Infinity) >= w.nest.nestForceN || (w.neededN ?? Infinity) >= most
    ? 'cannot feed'
    : 'feeds without margin'
}

/** Traction at the high edge over that at the low: 2 or more comfortable, 1.3 narrow, above 1 nearly closed; null: no low edge. */
export function windowRatio(w: TensionWindow): number | null {
  if (w.lowMark === null) return null
  const at = (mark: number) => w.traction.atZeroN + w.traction.perMarkN * mark
  const low = at(w.lowMark)
  return low > 0 ? at(w.highMark) / low : null
}
