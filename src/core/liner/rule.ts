import type { FamilyFit } from '../rightparts/facts.ts'

/** From where what stands out is measured. */
export type MeasuredFrom = 'neckThread' | 'tipHolder' | 'wholeLength' | 'guideSeat'
export interface TrimTarget {
  rule: 'A' | 'B' | 'C' | 'feeder'
  from: MeasuredFrom
  neededMm: number
  /** Under C: what the family should have instead, told by how it is built. */
  shouldBe: 'A' | 'B' | null
}
export type TrimRefusal = 'noRule' | 'seatDepthNotTold' | 'pushBackNotTold' | 'oldLengthNotTold' | 'oldWasShort'
export interface OldLiner {
  lengthMm: number | null
  /** Found cut short when it came out: a copy of it would be short again. */
  wasShort: boolean
}

/**
 * What must be left standing out at the front (mm), by the family's rule: A the depth of the seat in the diffuser, measured from the neck
 * thread; B what is pushed back before cutting level with the tip holder, because the tip presses it home again: lying free, so much stands out of it; C the old liner's whole
 * length. A family without the figure gives no target and says which is missing.
 * @example frontTarget({ ...fit, linerRule: 'A', seatDepthMm: 18 }, old) // { ok: true, target: { rule: 'A', from: 'neckThread', neededMm: 18, … } }
 */
export function frontTarget(
  fit: FamilyFit | null,
  old: OldLiner,
): { ok: true; target: TrimTarget } | { ok: false; reason: TrimRefusal } {
  const rule = fit?.linerRule
  if (!fit || !rule) return { ok: false, reason: 'noRule' }
  if (rule === 'A') return fit.seatDepthMm === null ? no('seatDepthNotTold') : yes(rule, 'neckThread', fit.seatDepthMm)
  if (rule === 'B') return fit.pushBackMm === null ? no('pushBackNotTold') : yes(rule, 'tipHolder', fit.pushBackMm)
  if (old.lengthMm === null) return no('oldLengthNotTold')
  if (old.wasShort) return no('oldWasShort')
  return { ok: true, target: { rule, from: 'wholeLength', neededMm: old.lengthMm, shouldBe: ruleByBuild(fit) } }
}
const no = (reason: TrimRefusal) => ({ ok: false, reason }) as const
const yes = (rule: 'A' | 'B', from: MeasuredFrom, neededMm: number) =>
  ({ ok: true, target: { rule, from, neededMm, shouldBe: null } }) as const

/** Which rule a family calls for by how it is built: a tip that presses the liner home, B; a diffuser it ends in, A; else not known. */
export function ruleByBuild(fit: FamilyFit): 'A' | 'B' | null {
  if (fit.doesTipSeatLiner) return 'B'
  return fit.linerHeldBy === 'set screw' || fit.linerHeldBy === 'butt' ? 'A' : null
}

/** A liner that runs to the rolls ends so far short of where they meet: nearer and the rolls chew it, further and the wire nests. */
export const SHORT_OF_ROLLS_MM = [1, 2] as const
/** Where nothing else is told of the feeder: between the two, a guess. */
export const NIP_CLEARANCE_MM = 1.5

/**
 * What stands out of the guide's seat when a long liner ends a clearance short of where the rolls meet: seat to nip − clearance, mm.
 * Misuse throws.
 */
export function feederTarget({
  seatToNipMm,
  clearanceMm = NIP_CLEARANCE_MM,
}: {
  seatToNipMm: number
  clearanceMm?: number
}): TrimTarget {
  if (!(clearanceMm > 0) || !(seatToNipMm > clearanceMm) || !Number.isFinite(seatToNipMm))
    throw new RangeError(
      `feederTarget: expected a nip further off than its clearance, got ${seatToNipMm} and ${clearanceMm} mm`,
    )
  return { rule: 'feeder', from: 'guideSeat', neededMm: seatToNipMm - clearanceMm, shouldBe: null }
}

/** What a liner is ordered longer than the way it takes, so that both ends can be cut. */
export const SPARE_MM = 150
/**
 * Shortest liner to order, mm: cable + neck + what runs inside the feeder + 150. Misuse throws.
 * @example orderLengthMm({ cableMm: 3000, neckMm: 180, feederSideMm: 60 }) // 3390
 */
export function orderLengthMm({
  cableMm,
  neckMm,
  feederSideMm,
}: {
  cableMm: number
  neckMm: number
  feederSideMm: number
}): number {
  if (!(cableMm > 0) || !(neckMm >= 0) || !(feederSideMm >= 0) || !Number.isFinite(cableMm + neckMm + feederSideMm))
    throw new RangeError(
      `orderLengthMm: expected a cable > 0 mm and ends ≥ 0 mm, got ${cableMm}, ${neckMm}, ${feederSideMm}`,
    )
  return cableMm + neckMm + feederSideMm + SPARE_MM
}

/**
 * How much of a bare front is left after a cut, against the neck it has to be bare through (mm): under 0, jacket ends up in the heat.
 */
export function bareLeftMm({
  bareFrontMm,
  cutMm,
  neckMm,
}: {
  bareFrontMm: number
  cutMm: number
  neckMm: number
}): number {
  if (!(bareFrontMm >= 0) || !(cutMm >= 0) || !(neckMm >= 0))
    throw new RangeError(`bareLeftMm: expected lengths ≥ 0 mm, got ${bareFrontMm}, ${cutMm}, ${neckMm}`)
  return bareFrontMm - cutMm - neckMm
}
