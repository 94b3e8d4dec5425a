import { betaCdf, quantileOf } from './beta.ts'

export interface ShareInterval {
  share: number
  low: number
  high: number
}

/**
 * So many of so many, with the exact interval (Clopper and Pearson 1934): low is the α/2 quantile of Beta(k, n − k + 1), high the 1 − α/2 quantile of
 * Beta(k + 1, n − k). Of none it is 0…1.
 * @example shareInterval(3, 20) // 0.15, 0.042–0.344 at 0.9
 */
export function shareInterval(k: number, n: number, level = 0.9): ShareInterval {
  if (!(k >= 0 && n >= k && Number.isInteger(k) && Number.isInteger(n)))
    throw new RangeError(`shareInterval: expected 0 <= k <= n whole, got ${k} of ${n}`)
  if (n === 0) return { share: 0, low: 0, high: 1 }
  const tail = (1 - level) / 2
  return {
    share: k / n,
    low: k === 0 ? 0 : quantileOf((x) => betaCdf(x, k, n - k + 1), tail),
    high: k === n ? 1 : quantileOf((x) => betaCdf(x, k + 1, n - k), 1 - tail),
  }
}
