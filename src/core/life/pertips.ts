import { poissonCdf } from '@core/stats/poisson.ts'

export interface PerPlace {
  key: string
  /** Changes of the part, and of tips, there. */
  n: number
  tips: number
}
export interface OverPlace extends PerPlace {
  per100: number
}
/** So unlikely by chance, over all places together, before a place is named. */
const CHANCE = 0.01

/**
 * Parts used up for 100 tips, over all places, and the places that use more than chance allows: a forced tip spoils what it screws into. Each is
 * held against the others, P(N ≥ n | tips · rate of the others) < 0.01 ÷ places (Bonferroni). Both are logged by the same hands, so who logs more of
 * all is not named. Null without tips. Source: Poisson counts, as in `poissonCdf`.
 * @example perTips([{ key: 'A', n: 2, tips: 100 }, { key: 'B', n: 12, tips: 100 }])?.over[0]?.key // 'B'
 */
export function perTips(
  places: readonly PerPlace[],
): { per100: number; n: number; tips: number; over: OverPlace[] } | null {
  const sum = (of: (p: PerPlace) => number) => places.reduce((s, p) => s + of(p), 0)
  const [n, tips] = [sum((p) => p.n), sum((p) => p.tips)]
  if (tips <= 0) return null
  const over = places.filter((p) => {
    const others = tips - p.tips
    if (p.n < 2 || others <= 0) return false
    // Half a part more among the others: none of them is no proof that there could be none.
    const mean = (p.tips * (n - p.n + 0.5)) / others
    return 1 - poissonCdf(p.n - 1, mean) < CHANCE / places.length
  })
  return {
    per100: (100 * n) / tips,
    ...{ n, tips },
    over: over.map((p) => ({ ...p, per100: (100 * p.n) / Math.max(1, p.tips) })).sort((a, b) => b.per100 - a.per100),
  }
}
