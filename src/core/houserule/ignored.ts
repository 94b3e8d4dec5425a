/** One ended life under a limit of use. */
export interface LimitedLife {
  used: number
  /** It stopped the gun, or came out as no part should. */
  isHarm: boolean
}
export interface IgnoredRule {
  /** Lives that ran past the limit, one after the other without harm. */
  past: number
  /** What the limit might be: what three in four of those ran to at least. */
  suggested: number
}

/** Past the limit by less than this is a matter of the next break. */
const PAST_SHARE = 1.1
const LEAST_PAST = 5
const SHARE_OF_ALL = 0.5

/**
 * A limit that people run past and nothing comes of it asks to be changed: at least five of the lives, and half of all, went over 1.1 of it,
 * and none of those did harm. The suggestion is the lower quartile of what they ran to. Null: it is kept, or it is right to ask for it.
 */
export function ignoredRule(of: { limit: number; lives: readonly LimitedLife[] }): IgnoredRule | null {
  if (!(of.limit > 0)) throw new RangeError(`ignoredRule: expected limit > 0, got ${of.limit}`)
  const past = of.lives.filter((l) => l.used > PAST_SHARE * of.limit)
  if (past.length < LEAST_PAST || past.length < SHARE_OF_ALL * of.lives.length || past.some((l) => l.isHarm))
    return null
  const sorted = past.map((l) => l.used).sort((a, b) => a - b)
  return { past: past.length, suggested: sorted[Math.floor(sorted.length / 4)] ?? of.limit }
}
