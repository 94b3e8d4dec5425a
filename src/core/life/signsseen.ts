import { makeRandom } from '@core/random/random.ts'
import { type SignRecord } from '@core/liner/record.ts'
import { betaCdf, quantileOf } from '@core/stats/beta.ts'
import { type SignsSeen } from './rulecost.ts'

/** Before any record: signs come in time as often as not, with a fifth of its life left. Guesses, as much as two liners each way. */
const GUESS = { ahead: 2, missed: 2, atShare: 0.8 }
const SEED = 60_017

/**
 * What a shop's record says signs are worth: the chance that one comes in time, Beta(2 + ahead, 2 + missed) with its mean and draws of it; at
 * which share of the life; and false ones for one unit of use, those found without fault over all use. Use > 0, else misuse throws.
 * @example signsSeen({ ...record, worn: 9, ahead: 6 }, { used: 5400, draws: 2, readMin: 0 }).seen.chance // 8/13
 */
export function signsSeen(
  record: Pick<SignRecord, 'worn' | 'ahead' | 'leftShare' | 'fine'>,
  at: { used: number; draws: number; readMin: number },
): { seen: SignsSeen; drawn: SignsSeen[]; isGuess: boolean } {
  if (!(at.used > 0)) throw new RangeError(`signsSeen: expected use > 0, got ${at.used}`)
  const [a, b] = [GUESS.ahead + record.ahead, GUESS.missed + record.worn - record.ahead]
  const atShare = Math.min(1, Math.max(0.05, record.leftShare === null ? GUESS.atShare : 1 - record.leftShare))
  const falseRate = record.fine / at.used
  const { readMin } = at
  const random = makeRandom(SEED)
  const seen = { chance: a / (a + b), atShare, falseRate, readMin }
  const drawn = Array.from({ length: at.draws }, () => {
    const u = Math.min(0.999, Math.max(0.001, random()))
    return { atShare, falseRate, readMin, chance: quantileOf((x) => betaCdf(x, a, b), u) }
  })
  return { seen, drawn, isGuess: record.worn < GUESS.ahead + GUESS.missed }
}
