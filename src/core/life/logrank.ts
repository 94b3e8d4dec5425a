import { chi2Upper } from '@core/stats/gamma.ts'
import { solve } from '@core/stats/solve.ts'

export interface GroupedLives {
  time: readonly number[]
  /** 1 worn out, 0 taken out good or still in. */
  event: readonly number[]
  group: readonly string[]
}
export interface LogRank {
  groups: string[]
  n: number[]
  observed: number[]
  /** Ends to be expected in each group, were all alike. */
  expected: number[]
  variance: number[][]
  chi2: number
  df: number
  p: number
}

/**
 * Do groups of parts wear out alike? At each time of an end E_g = d·n_g/n, V_gh = d(n − d)/(n − 1) · n_g/n (δ_gh − n_h/n), summed;
 * χ² = (O − E)'V⁻(O − E) with groups − 1 degrees of freedom. Groups in the order in which they first stand. One group, or no
 * end with two groups at risk, answers χ² 0, p 1. Source: Mantel 1966.
 * @example logRank({ time: [1, 2], event: [1, 1], group: ['a', 'b'] }).df // 1
 */
export function logRank({ time, event, group }: GroupedLives): LogRank {
  if (time.length !== event.length || time.length !== group.length)
    throw new RangeError(`logRank: expected as many events and groups as times, got ${event.length}, ${group.length}`)
  const groups = [...new Set(group)]
  const place = new Map(groups.map((g, i) => [g, i]))
  const zeros = () => groups.map(() => 0)
  const made = { n: zeros(), observed: zeros(), expected: zeros(), variance: groups.map(zeros) }
  const atRisk = zeros()
  const rows = time.map((t, i) => ({ t, isEnd: event[i] === 1, g: place.get(group[i] ?? '') ?? 0 }))
  for (const { g, isEnd } of rows) {
    made.n[g] = (made.n[g] ?? 0) + 1
    made.observed[g] = (made.observed[g] ?? 0) + (isEnd ? 1 : 0)
  }
  // From the longest down: who is at risk only grows.
  rows.sort((a, b) => b.t - a.t)
  for (let i = 0; i < rows.length;) {
    const t = rows[i]?.t
    let ends = 0
    for (; i < rows.length && rows[i]?.t === t; i++) {
      const row = rows[i]
      if (!row) break
      atRisk[row.g] = (atRisk[row.g] ?? 0) + 1
      if (row.isEnd) ends++
    }
    if (ends > 0) count(made, atRisk, ends)
  }
  const df = groups.length - 1
  const chi2 = df > 0 ? statistic(made) : 0
  return { groups, ...made, chi2, df, p: df > 0 ? chi2Upper(chi2, df) : 1 }
}

type Sums = Pick<LogRank, 'observed' | 'expected' | 'variance'>
function count({ expected, variance }: Sums, atRisk: readonly number[], ends: number): void {
  const n = atRisk.reduce((a, b) => a + b, 0)
  const spread = n > 1 ? (ends * (n - ends)) / (n - 1) : 0
  atRisk.forEach((ng, g) => {
    expected[g] = (expected[g] ?? 0) + (ends * ng) / n
    const row = variance[g] ?? []
    atRisk.forEach((nh, h) => (row[h] = (row[h] ?? 0) + spread * (ng / n) * ((g === h ? 1 : 0) - nh / n)))
  })
}

/** Quadratic form, the last group left out: the others tell all; a group never at risk tells nothing. */
function statistic({ observed, expected, variance }: Sums): number {
  const m = observed.length - 1
  const off = observed.slice(0, m).map((o, i) => o - (expected[i] ?? 0))
  const rows = off.map((d, i) => [...(variance[i] ?? []).slice(0, m), d])
  const { x } = solve(rows, 1e-12)
  return Math.max(
    0,
    x.reduce((sum, v, i) => sum + v * (off[i] ?? 0), 0),
  )
}
