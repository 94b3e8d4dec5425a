/**
 * Orders of looks whose minutes and chances are known: the ratio rule, and the exact best order of a few, to hold the rule against.
 * One fault is there (or `isIndependent`: any number, and the first found ends the search). Minutes of a look that finds are paid.
 */
export interface Looks {
  probability: readonly number[]
  cost: readonly number[]
  /** Chance that a look shows what is there; left out: always. */
  detection?: readonly number[]
  isIndependent?: boolean
  /** The last that is left is not looked at. */
  isLastInferred?: boolean
  /** Going over to another place costs its set-up. */
  group?: readonly number[]
  setupCost?: readonly number[]
  /** Faults each look shows, where a look shows several. */
  coverage?: readonly (readonly number[])[]
  /** Pairs: the first comes before the second. */
  before?: readonly (readonly number[])[]
}
const MOST = 9
const looksOf = ({ cost }: Looks) => cost.map((_, i) => i)
const covered = (l: Looks, look: number) => l.coverage?.[look] ?? [look]
const shows = (l: Looks, look: number) => l.detection?.[look] ?? 1
const sumOf = (list: readonly number[]) => list.reduce((a, b) => a + b, 0)

/**
 * Expected minutes of one order: Σ (cost + set-up) · P(not found before).
 * @throws RangeError where the order breaks what has to come before.
 * @example expectedCost({ probability: [0.4, 0.6], cost: [4, 1] }, [1, 0]) // 1 + 0.4 · 4
 */
export function expectedCost(l: Looks, order: readonly number[]): number {
  if (!isFeasible(l, order)) throw new RangeError(`expectedCost: ${order.join(', ')} breaks what has to come before`)
  const seen = new Set<number>()
  let [total, missed] = [0, 1]
  let at: number | null = null
  order.forEach((look, n) => {
    const isPaid = !(l.isLastInferred && n === order.length - 1)
    const group = l.group?.[look] ?? null
    const setup = group !== null && group !== at ? (l.setupCost?.[group] ?? 0) : 0
    at = group
    if (isPaid) total += missed * ((l.cost[look] ?? 0) + setup)
    const fresh = covered(l, look).filter((fault) => !seen.has(fault))
    fresh.forEach((fault) => seen.add(fault))
    const hit = sumOf(fresh.map((fault) => l.probability[fault] ?? 0)) * shows(l, look)
    missed = l.isIndependent ? missed * (1 - hit) : missed - hit
  })
  return total
}
export const isFeasible = (l: Looks, order: readonly number[]) =>
  (l.before ?? []).every(([a, b]) => order.indexOf(a ?? -1) < order.indexOf(b ?? -1))

/** Most chance for its minutes first: p · q / c, falling. Ties as they stand. @example ratioOrder({ probability: [0.4, 0.6], cost: [4, 1] }) // [1, 0] */
export function ratioOrder(l: Looks): number[] {
  const ratio = (look: number) =>
    (sumOf(covered(l, look).map((f) => l.probability[f] ?? 0)) * shows(l, look)) / (l.cost[look] ?? 1)
  return looksOf(l).sort((a, b) => ratio(b) - ratio(a))
}

/** Each time what shows most for its minutes of what is left and may be done: what the search does, one look after another. */
export function greedyOrder(l: Looks): number[] {
  const order: number[] = []
  const seen = new Set<number>()
  const ratio = (look: number) =>
    (sumOf(
      covered(l, look)
        .filter((f) => !seen.has(f))
        .map((f) => l.probability[f] ?? 0),
    ) *
      shows(l, look)) /
    (l.cost[look] ?? 1)
  const mayBe = (look: number) => (l.before ?? []).every(([a, b]) => b !== look || order.includes(a ?? -1))
  while (order.length < l.cost.length) {
    const open = looksOf(l).filter((look) => !order.includes(look) && mayBe(look))
    const best = open.sort((a, b) => ratio(b) - ratio(a))[0]
    if (best === undefined) throw new RangeError('greedyOrder: what has to come before goes in a circle')
    order.push(best)
    covered(l, best).forEach((f) => seen.add(f))
  }
  return order
}

/** The best order of all, by trying them. @throws RangeError over nine looks. */
export function bestOrder(l: Looks): { order: number[]; cost: number } {
  const all = looksOf(l)
  if (all.length > MOST) throw new RangeError(`bestOrder: expected ${MOST} looks or fewer, got ${all.length}`)
  let best = { order: all, cost: Infinity }
  const walk = (order: number[], left: readonly number[]) => {
    if (left.length === 0) {
      if (!isFeasible(l, order)) return
      const cost = expectedCost(l, order)
      if (cost < best.cost - 1e-12) best = { order: [...order], cost }
      return
    }
    for (const look of left)
      walk(
        [...order, look],
        left.filter((x) => x !== look),
      )
  }
  walk([], all)
  return best
}

/**
 * Looks that may be had more than once: the j-th look at i has the ratio p q (1 − q)^(j − 1) / c, and all of them sorted by it are the best
 * sequence, since the ratios of one cause fall.
 */
export function repeatedLooks(
  l: Required<Pick<Looks, 'probability' | 'cost' | 'detection'>> & { maxLooks: readonly number[] },
): {
  sequence: number[]
  cost: number
  found: number
} {
  const { probability, cost, detection, maxLooks } = l
  const all = probability.flatMap((p, i) =>
    Array.from({ length: maxLooks[i] ?? 1 }, (_, j) => {
      const q = detection[i] ?? 1
      const hit = p * q * (1 - q) ** j
      return { i, hit, ratio: hit / (cost[i] ?? 1) }
    }),
  )
  all.sort((a, b) => b.ratio - a.ratio)
  let [total, missed] = [0, 1]
  for (const { i, hit } of all) {
    total += missed * (cost[i] ?? 0)
    missed -= hit
  }
  return { sequence: all.map((look) => look.i), cost: total, found: 1 - missed }
}

/** The least cost of all sequences of repeated looks, by going back from the end over how often each was had. */
export function leastRepeatedCost(l: Parameters<typeof repeatedLooks>[0]): number {
  const known = new Map<string, number>()
  const missed = (had: readonly number[]) =>
    sumOf(had.map((n, i) => (l.probability[i] ?? 0) * (1 - (l.detection[i] ?? 1)) ** n))
  const from = (had: readonly number[]): number => {
    const key = had.join()
    const before = known.get(key)
    if (before !== undefined) return before
    const next = had.flatMap((n, i) =>
      n < (l.maxLooks[i] ?? 1) ? [missed(had) * (l.cost[i] ?? 0) + from(had.map((m, j) => (j === i ? m + 1 : m)))] : [],
    )
    const least = next.length > 0 ? Math.min(...next) : 0
    known.set(key, least)
    return least
  }
  return from(l.probability.map(() => 0))
}

export interface Bayes {
  prior: readonly number[]
  /** P(sign | cause), a row for each sign. */
  likelihood: readonly (readonly number[])[]
  /** Null: not looked at. */
  observed: readonly (boolean | null)[]
  /** A look at a cause that showed nothing, and how surely it would have shown it. */
  negativeChecks: readonly { cause: number; detection: number }[]
}
/** Bayes' rule for one fault and signs that are independent given it; in logarithms, so that nothing underflows. Null where it is impossible. */
export function bayes(b: Bayes): { posterior: number[] | null; logEvidence: number | null; isPossible: boolean } {
  const logs = b.prior.map((p, cause) => {
    const signs = b.observed.map((is, s) => {
      const chance = b.likelihood[s]?.[cause] ?? 0
      return is === null ? 0 : Math.log(is ? chance : 1 - chance)
    })
    const missed = b.negativeChecks.filter((n) => n.cause === cause).map((n) => Math.log(1 - n.detection))
    return Math.log(p) + sumOf(signs) + sumOf(missed)
  })
  const most = Math.max(...logs)
  if (most === -Infinity) return { posterior: null, logEvidence: null, isPossible: false }
  const weights = logs.map((log) => Math.exp(log - most))
  const sum = sumOf(weights)
  return { posterior: weights.map((w) => w / sum), logEvidence: most + Math.log(sum), isPossible: true }
}
