/**
 * Linear equations by Gauss–Jordan with the largest pivot in each column; each row of `m` ends with its right side and is used up. A column without a
 * pivot over `least` is passed over and answers 0, so that a singular system that holds together still has an answer; `rank` tells.
 * @example solve([[2, 0, 4], [0, 1, 3]], 1e-14).x // [2, 3]
 */
export function solve(m: number[][], least: number): { x: number[]; rank: number } {
  const n = m.length
  const free = new Set(m.keys())
  const rowOf: (number | null)[] = []
  for (let col = 0; col < n; col++) {
    let best: number | null = null
    for (const r of free) if (best === null || Math.abs(m[r]?.[col] ?? 0) > Math.abs(m[best]?.[col] ?? 0)) best = r
    const top = best === null ? undefined : m[best]
    if (best === null || !top || Math.abs(top[col] ?? 0) < least) {
      rowOf.push(null)
      continue
    }
    free.delete(best)
    rowOf.push(best)
    m.forEach((line, r) => {
      if (r === best) return
      const factor = (line[col] ?? 0) / (top[col] ?? 1)
      for (let c = col; c <= n; c++) line[c] = (line[c] ?? 0) - factor * (top[c] ?? 0)
    })
  }
  const x = rowOf.map((r, col) => (r === null ? 0 : (m[r]?.[n] ?? 0) / (m[r]?.[col] ?? 1)))
  return { x, rank: n - free.size }
}
