/** One part number that does the same as others: what is wanted of it while an order is on its way, and its price. */
export interface Like {
  mean: number
  sd: number
  eachMinor: number
}
export interface Fewer {
  /** Kept against running short, in all: of each for itself, and of one in place of all. */
  safetyNow: number
  safetyThen: number
  /** A year: what the rest would have cost to keep, and what counting and ordering the others takes. */
  savedMinor: number
}

/**
 * What one part in place of several would save: safety stock z·Σσᵢ of each for itself against z·√Σσᵢ² of one, as needs do not know of each other;
 * at `keepShare` of its price a year, and with `kindMinor` a year for each part number less (its counts, its orders).
 * Source: Eppen (1979), Effects of centralization on expected costs. Misuse throws.
 * @example fewer([{ mean: 4, sd: 3, eachMinor: 100 }, { mean: 4, sd: 4, eachMinor: 100 }], { z: 2, keepShare: 0.2, kindMinor: 0 }).safetyThen // 10
 */
export function fewer(
  likes: readonly Like[],
  { z, keepShare, kindMinor }: { z: number; keepShare: number; kindMinor: number },
): Fewer {
  if (likes.length === 0 || likes.some((l) => !(l.sd >= 0 && l.mean >= 0)))
    throw new RangeError('fewer: expected parts, each with a need of nothing below zero')
  const each = likes.reduce((sum, l) => sum + l.eachMinor, 0) / likes.length
  const safetyNow = z * likes.reduce((sum, l) => sum + l.sd, 0)
  const safetyThen = z * Math.hypot(...likes.map((l) => l.sd))
  const savedMinor = (safetyNow - safetyThen) * each * keepShare + (likes.length - 1) * kindMinor
  return { safetyNow, safetyThen, savedMinor }
}
