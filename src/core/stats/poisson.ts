import { halved } from './halve.ts'
import { logGamma } from './beta.ts'

/** P(N = k) for a Poisson count of mean m > 0, by logs. */
export const poissonTerm = (k: number, mean: number): number => Math.exp(k * Math.log(mean) - mean - logGamma(k + 1))

/** P(N ≤ n) for a Poisson count of mean m, summed in logs from the largest term on. */
export function poissonCdf(n: number, mean: number): number {
  if (!(mean >= 0)) throw new RangeError(`poissonCdf: expected mean >= 0, got ${mean}`)
  if (n < 0) return 0
  if (mean === 0) return 1
  let total = 0
  for (let k = 0; k <= n; k++) total += poissonTerm(k, mean)
  return Math.min(1, total)
}

export interface RateInterval {
  rate: number
  low: number
  high: number
}

/**
 * Exact interval of a rate from a count n over an exposure t: the means at which n or more, and n or fewer, would be seen with
 * probability (1 − level)/2. Source: Garwood (1936). The ends are found by halving. Misuse throws.
 * @example rateInterval(10, 1, 0.95) // { rate: 10, low: 4.795, high: 18.390 }
 */
export function rateInterval(count: number, exposure: number, level = 0.95): RateInterval {
  if (!(count >= 0) || !Number.isInteger(count) || !(exposure > 0))
    throw new RangeError(`rateInterval: expected a whole count >= 0 and exposure > 0, got ${count}, ${exposure}`)
  const tail = (1 - level) / 2
  const most = count + 20 + 10 * Math.sqrt(count + 1)
  const low = count === 0 ? 0 : halved((m) => 1 - poissonCdf(count - 1, m) < tail, [0, most]).x
  const high = halved((m) => poissonCdf(count, m) > tail, [0, most]).x
  return { rate: count / exposure, low: low / exposure, high: high / exposure }
}
