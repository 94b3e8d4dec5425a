import { betaCdf, quantileOf } from '@core/stats/beta.ts'

/**
 * Which share of the changes made were logged. Of `taken` parts a share went astray (lost, dropped, pocketed) and was never
 * put on; of the rest, `logged` were written down. With n = taken·(1 − loss) the share is Beta(logged + ½, n − logged + ½)
 * (Jeffreys); the spread of `taken` (three-point Gauss–Hermite) and of the loss guess (× and ÷ `lossFactor` at a quarter each)
 * are mixed in. Answers the median and the band that holds 9 in 10. Old parts in a tin were put on for certain, and some never
 * reach the tin: there n = taken ÷ (1 − loss).
 *
 * Logged more than taken: the shelf was counted wrong, or parts came from elsewhere; the share is then near one, and
 * `isOver` says so. Under five parts taken it says nothing.
 * Source: Jeffreys (1961), Theory of Probability; thinned records after models 6b.
 * @example loggingShare({ logged: 57, taken: 105, sdTaken: 0 }) // about 0.57 (0.48–0.66)
 */
export interface LoggingShare {
  share: number
  low: number
  high: number
  isOver: boolean
}
export type LoggingShareAnswer = ({ ok: true } & LoggingShare) | { ok: false; reason: string }

/** A shipped guess: one part in twenty that leaves the crib is never put on. */
export const LOSS_GUESS = 0.05
/** Shipped guesses have a spread of at least this factor either way. */
const LOSS_FACTOR = 2.5
const LEAST_TAKEN = 5

export function loggingShare(seen: {
  logged: number
  taken: number
  sdTaken: number
  lossShare?: number
  /** Counted as old parts that came off, not as new ones that left the shelf. */
  isOld?: boolean
}): LoggingShareAnswer {
  const { logged, taken, sdTaken, lossShare = LOSS_GUESS, isOld = false } = seen
  if (!(logged >= 0 && taken >= 0 && sdTaken >= 0))
    throw new RangeError(`loggingShare: expected counts >= 0, got ${logged}, ${taken}, ${sdTaken}`)
  if (!(lossShare >= 0 && lossShare < 0.4))
    throw new RangeError(`loggingShare: expected lossShare in 0…0.4, got ${lossShare}`)
  if (taken < LEAST_TAKEN) return { ok: false, reason: `only ${Math.round(taken)} taken` }
  const nodes = nodesOf({ taken, sdTaken, lossShare, isOld })
  const cdf = (x: number) =>
    nodes.reduce((sum, { weight, n }) => sum + weight * betaCdf(x, logged + 0.5, Math.max(0, n - logged) + 0.5), 0)
  return {
    ok: true,
    share: quantileOf(cdf, 0.5),
    low: quantileOf(cdf, 0.05),
    high: quantileOf(cdf, 0.95),
    isOver: logged > taken + 2 * sdTaken,
  }
}

function nodesOf(at: {
  taken: number
  sdTaken: number
  lossShare: number
  isOld: boolean
}): { weight: number; n: number }[] {
  const spread = Math.sqrt(3) * at.sdTaken
  const takens = [
    { weight: 1 / 6, value: Math.max(0, at.taken - spread) },
    { weight: 2 / 3, value: at.taken },
    { weight: 1 / 6, value: at.taken + spread },
  ]
  const losses = [
    { weight: 1 / 4, value: at.lossShare / LOSS_FACTOR },
    { weight: 1 / 2, value: at.lossShare },
    { weight: 1 / 4, value: at.lossShare * LOSS_FACTOR },
  ]
  return takens.flatMap((t) =>
    losses.map((l) => ({
      weight: t.weight * l.weight,
      n: at.isOld ? t.value / (1 - l.value) : t.value * (1 - l.value),
    })),
  )
}
