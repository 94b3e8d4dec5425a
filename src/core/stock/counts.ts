import { poissonTerm } from '@core/stats/poisson.ts'

/** How many will be wanted, as chances of 0, 1, 2 …; what lies beyond the last is less than anybody asks after. */
export type Counts = readonly number[]

/** What is left out beyond the last. */
const REST = 1e-15

/** A Poisson count of mean m ≥ 0. Misuse throws. */
export function poissonCounts(mean: number): number[] {
  if (!(mean >= 0) || !Number.isFinite(mean)) throw new RangeError(`poissonCounts: expected mean >= 0, got ${mean}`)
  if (mean === 0) return [1]
  const counts: number[] = []
  const far = mean + 12 * Math.sqrt(mean) + 30
  for (let k = 0; k <= far; k++) {
    const term = poissonTerm(k, mean)
    if (k > mean && term < REST * REST) break
    counts.push(term)
  }
  return counts
}

export const meanOf = (counts: Counts): number => counts.reduce((sum, p, k) => sum + p * k, 0)

export const varianceOf = (counts: Counts): number => {
  const mean = meanOf(counts)
  return counts.reduce((sum, p, k) => sum + p * (k - mean) ** 2, 0)
}

/** P(N ≤ n). */
export const atMost = (counts: Counts, n: number): number =>
  Math.min(
    1,
    counts.slice(0, Math.max(0, n + 1)).reduce((a, b) => a + b, 0),
  )

/** Wanted beyond n on average, E(N − n)+, summed from the tail. */
export const beyond = (counts: Counts, n: number): number => {
  let sum = 0
  for (let k = counts.length - 1; k > n; k--) sum += (counts[k] ?? 0) * (k - n)
  return sum
}

/** The fewest that are enough with that chance. */
export function enoughFor(counts: Counts, chance: number): number {
  if (!(chance >= 0 && chance < 1)) throw new RangeError(`enoughFor: expected 0 <= chance < 1, got ${chance}`)
  let sum = 0
  for (const [k, p] of counts.entries()) {
    sum += p
    if (sum >= chance) return k
  }
  return counts.length
}

/** Two counts together, of things that do not know of each other: the sum of every pair. */
export function together(a: Counts, b: Counts): number[] {
  const sum = new Array<number>(a.length + b.length - 1).fill(0)
  for (let i = 0; i < a.length; i++) {
    const p = a[i] as number
    if (p > 0) for (let j = 0; j < b.length; j++) sum[i + j] = (sum[i + j] as number) + p * (b[j] as number)
  }
  while (sum.length > 1 && (sum.at(-1) ?? 1) < REST * REST) sum.pop()
  return sum
}

/** One of several, each with its chance. */
export function mixed(parts: readonly { weight: number; counts: Counts }[]): Counts {
  const sum = new Array<number>(Math.max(1, ...parts.map((p) => p.counts.length))).fill(0)
  for (const { weight, counts } of parts)
    if (weight > 0) counts.forEach((p, k) => (sum[k] = (sum[k] as number) + weight * p))
  return sum
}
