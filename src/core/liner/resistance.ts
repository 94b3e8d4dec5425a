/** How near two places along a cable must be to be the same one, mm: felt through a coil, by eye on a tape. A guess. */
export const SAME_PLACE_MM = 100

export interface Stuck {
  /** From the feeder end of the cable. */
  atMm: number
  atMs: number
}
export type ResistanceVerdict =
  /** A kinked liner is scrap, whatever it looks like from outside. */
  | { is: 'scrap' }
  /** Another liner stuck here before: it is the cable’s own tube. */
  | { is: 'cable'; before: Stuck }
  /** Near the neck: the bend does that. Very short pushes, a jiggle, or somebody lifts the cable. */
  | { is: 'neck' }
  | { is: 'straighten' }
  | { is: 'glides' }

/**
 * Where a cable's own tube holds liners back: the later of the last two that stuck within SAME_PLACE_MM of each other, short of the neck;
 * null where no two did. mm along the cable from the feeder end.
 * @example kinkedAt([{ atMm: 1400, atMs: 1 }, { atMm: 1450, atMs: 9 }], 3000) // { atMm: 1450, atMs: 9 }
 */
export function kinkedAt(stuck: readonly Stuck[], cableMm: number): Stuck | null {
  const along = stuck.filter((one) => one.atMm <= cableMm - SAME_PLACE_MM)
  return (
    along.findLast((one, i) => along.slice(0, i).some((before) => Math.abs(before.atMm - one.atMm) <= SAME_PLACE_MM)) ??
    null
  )
}

export interface Pushed {
  metAtMm: number | null
  isKinked: boolean
  cableMm: number
  neckMm: number
  /** Where liners before this one stuck in this same cable. */
  before: readonly Stuck[]
}

/**
 * What a liner that sticks on the way in tells, the surest first: a kink is scrap, no matter what else; a second liner stuck within
 * SAME_PLACE_MM of where one stuck before condemns the cable; within the neck it is the bend; elsewhere the cable is not straight.
 * Lengths ≥ 0 mm, measured along the cable from the feeder. A place beyond the gun throws.
 * @example judgePush({ metAtMm: 1400, isKinked: false, cableMm: 3000, neckMm: 180, before: [{ atMm: 1450, atMs: 0 }] }) // cable
 */
export function judgePush({ metAtMm, isKinked, cableMm, neckMm, before }: Pushed): ResistanceVerdict {
  if (metAtMm !== null && !(metAtMm >= 0 && metAtMm <= cableMm + neckMm))
    throw new RangeError(`judgePush: expected a place from 0 to ${cableMm + neckMm} mm, got ${metAtMm}`)
  if (isKinked) return { is: 'scrap' }
  if (metAtMm === null) return { is: 'glides' }
  const isInNeck = metAtMm > cableMm - SAME_PLACE_MM
  const same = before.find((one) => Math.abs(one.atMm - metAtMm) <= SAME_PLACE_MM)
  if (same && !isInNeck) return { is: 'cable', before: same }
  return { is: isInNeck ? 'neck' : 'straighten' }
}
