import { makeRandom, shuffled } from '@core/random/random.ts'
import { isAnswered } from './needed.ts'
import { type Comparison } from './compare.ts'

/** How a try-out ended, as it was then. */
export interface TryoutEnd {
  answer: ReturnType<typeof isAnswered>
  ratio: number | null
  low: number | null
  high: number | null
  ends: number
}

/** Places dealt to two sides by lot, as even as can be; the same seed deals the same. @example dealOut(['a', 'b', 'c', 'd'], 7) */
export function dealOut<T>(places: readonly T[], seed: number): [T[], T[]] {
  const left = shuffled(places, makeRandom(seed))
  const half = Math.ceil(left.length / 2)
  return [left.slice(0, half), left.slice(half)]
}

/** Where a try-out stands: what it compared, and whether that answers it. */
export function tryoutNow(compared: Comparison | null, needed: number): TryoutEnd {
  if (!compared) return { answer: 'notYet', ratio: null, low: null, high: null, ends: 0 }
  const { ends, p, ratio, low, high } = compared
  return { answer: isAnswered(ends, needed, p), ratio, low, high, ends }
}
