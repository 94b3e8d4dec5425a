/** Arithmetic mean; of nothing NaN, so callers refuse an empty list before. */
export const mean = (list: readonly number[]) => list.reduce((s, x) => s + x, 0) / list.length

/** Sample variance Σ(x − mean)²/(n − 1); of a single value NaN. */
export function variance(list: readonly number[]): number {
  const m = mean(list)
  return list.reduce((s, x) => s + (x - m) ** 2, 0) / (list.length - 1)
}

/** Mean of a few, and one standard deviation of the next of their kind: s·√(1 + 1/n), for their mean is itself only known so well. */
export const meanAndNext = (list: readonly number[]): { mean: number; sd: number } => ({
  mean: mean(list),
  sd: Math.sqrt(variance(list) * (1 + 1 / list.length)),
})

/** Of sorted values the one with a share q of them below it, 0 to 1; of none NaN. */
export const atShare = (sorted: readonly number[], q: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? NaN

/** The mean, of none 0: for rows of a recording, plain or typed. */
export function meanOrNought(list: ArrayLike<number>): number {
  let sum = 0
  for (let i = 0; i < list.length; i++) sum += list[i] ?? 0
  return sum / Math.max(1, list.length)
}
