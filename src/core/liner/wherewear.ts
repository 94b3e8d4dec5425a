import { betaCdf } from '@core/stats/beta.ts'

/** Where along the liner: the stretch behind the machine, the cable's middle, the bend of the neck. */
export const WEAR_PLACES = ['rear', 'middle', 'neck'] as const
export type WearPlace = (typeof WEAR_PLACES)[number]
/** Share of the way from the feeder at which each ends. */
const ENDS: Record<WearPlace, number> = { rear: 1 / 3, middle: 0.85, neck: 1 }
const LENGTHS: Record<WearPlace, number> = { rear: ENDS.rear, middle: ENDS.middle - ENDS.rear, neck: 1 - ENDS.middle }
const placeOf = (share: number): WearPlace => WEAR_PLACES.find((p) => share <= ENDS[p]) ?? 'neck'

export interface WearPattern {
  n: number
  counts: Record<WearPlace, number>
  /** Where more lie than its length alone would bring, beyond chance; null: nowhere, or too few. */
  most: WearPlace | null
}
/** Fewer of them are no pattern; and beyond chance means this seldom by chance. */
const LEAST = 5
const BY_CHANCE = 0.05

/**
 * Where liners were worn, of so many looked at on the bench (P034): shares of the way from the feeder, 0 to 1. A place stands out where so many or more
 * of n would lie there by its length alone in less than 1 of 20: P(X ≥ k) = I_p(k, n − k + 1), of three places each by a third of that (Bonferroni).
 * @example wearPattern([0.1, 0.2, 0.1, 0.3, 0.25, 0.15, 0.9]).most // 'rear'
 */
export function wearPattern(shares: readonly number[]): WearPattern {
  const counts: WearPattern['counts'] = { rear: 0, middle: 0, neck: 0 }
  for (const share of shares) {
    if (!(share >= 0 && share <= 1)) throw new RangeError(`wearPattern: expected shares of the way, got ${share}`)
    counts[placeOf(share)]++
  }
  const n = shares.length
  const byChance = (place: WearPlace) => {
    const k = counts[place]
    return k === 0 ? 1 : betaCdf(LENGTHS[place], k, n - k + 1)
  }
  const [most] = [...WEAR_PLACES].sort((a, b) => byChance(a) - byChance(b))
  const isOne = n >= LEAST && most !== undefined && byChance(most) < BY_CHANCE / WEAR_PLACES.length
  return { n, counts, most: isOne ? most : null }
}
