/**
 * Which booth runs which wire in which period, so that changing costs least. What is needed is so many booths of each wire a
 * period; which booths they are is free, except where a gun cannot be changed to a wire (an infinite cost).
 *
 *   minimise Σ periods Σ booths cost(booth, wire before, wire now)  with  #booths of wire w in period p ≥ need(p, w)
 *
 * Exact to 8 booths × 4 wires by dynamic programming over assignments: costs add up over booths, so one period's step is a
 * min-plus product taken one booth at a time (Bellman 1957). Beyond that: a greedy start, then local search over swaps of two
 * booths and of one booth's wire, over all periods; deterministic.
 */
export interface Grouping {
  booths: readonly { id: string; startsWith: number | null }[]
  wires: readonly string[]
  periods: readonly string[]
  /** need[period][wire]: booths wanted. */
  need: readonly (readonly number[])[]
  /** Cost of changing a booth from wire to wire, in money or minutes; 0 where nothing changes. `from` null: nobody knows. */
  cost: (booth: number, from: number | null, to: number) => number
}
export interface Grouped {
  ok: true
  /** wire index per period and booth. */
  plan: number[][]
  cost: number
  changes: number
  isExact: boolean
}
export type GroupResult = Grouped | { ok: false; reason: string; period: string | null }

const MOST_BOOTHS = 8
const MOST_WIRES = 4

export function groupByWire(day: Grouping): GroupResult {
  const short = day.need.findIndex((need) => sum(need) > day.booths.length)
  if (short >= 0)
    return {
      ok: false,
      reason: `more booths are wanted than there are (${day.booths.length})`,
      period: day.periods[short] ?? null,
    }
  const isSmall = day.booths.length <= MOST_BOOTHS && day.wires.length <= MOST_WIRES
  const plan = isSmall ? exact(day) : search(day)
  if (!plan) return { ok: false, reason: 'no set of booths can run these wires', period: null }
  return { ok: true, plan, cost: costOfPlan(day, plan), changes: changesOf(day, plan), isExact: isSmall }
}

const sum = (list: readonly number[]) => list.reduce((s, n) => s + n, 0)

/** What a given assignment costs, from how the booths stand in the morning. */
export function costOfPlan(day: Grouping, plan: readonly (readonly number[])[]): number {
  return fold(day, plan, (booth, from, to) => (from === to ? 0 : day.cost(booth, from, to)))
}
export function changesOf(day: Grouping, plan: readonly (readonly number[])[]): number {
  return fold(day, plan, (_booth, from, to) => (from === to ? 0 : 1))
}
function fold(
  day: Grouping,
  plan: readonly (readonly number[])[],
  each: (booth: number, from: number | null, to: number) => number,
): number {
  let total = 0
  let before: (number | null)[] = day.booths.map((b) => b.startsWith)
  for (const now of plan) {
    now.forEach((wire, booth) => (total += each(booth, before[booth] ?? null, wire)))
    before = [...now]
  }
  return total
}

interface Table {
  cost: Float64Array
  /** Where each state came from, for every period. */
  from: Int32Array[]
}

function exact(day: Grouping): number[][] | null {
  const [n, w] = [day.booths.length, day.wires.length]
  const states = w ** n
  const table: Table = { cost: new Float64Array(states).fill(Infinity), from: [] }
  const meets = day.need.map((need) => allowedStates(need, n, w))
  day.need.forEach((_, period) => {
    const stepped = period === 0 ? firstStep(day, states) : nextStep(day, table.cost)
    const allowed = meets[period]
    stepped.cost.forEach((_c, state) => {
      if (!allowed?.[state]) stepped.cost[state] = Infinity
    })
    table.cost = stepped.cost
    table.from.push(stepped.from)
  })
  return walkBack(day, table)
}

const wireOf = (state: number, booth: number, wires: number) => Math.floor(state / wires ** booth) % wires

function allowedStates(need: readonly number[], booths: number, wires: number): Uint8Array {
  const states = wires ** booths
  const allowed = new Uint8Array(states)
  for (let state = 0; state < states; state++) {
    const have = new Array<number>(wires).fill(0)
    for (let b = 0; b < booths; b++) {
      const wire = wireOf(state, b, wires)
      have[wire] = (have[wire] ?? 0) + 1
    }
    allowed[state] = need.every((n, wire) => (have[wire] ?? 0) >= n) ? 1 : 0
  }
  return allowed
}

function firstStep(day: Grouping, states: number) {
  const cost = new Float64Array(states)
  for (let state = 0; state < states; state++)
    for (const [booth, { startsWith }] of day.booths.entries()) {
      const to = wireOf(state, booth, day.wires.length)
      cost[state] = (cost[state] ?? 0) + (startsWith === to ? 0 : day.cost(booth, startsWith, to))
    }
  return { cost, from: new Int32Array(states).fill(-1) }
}

/** One period on: for each booth in turn, the best wire it can have come from with all others as they are. */
function nextStep(day: Grouping, before: Float64Array) {
  const wires = day.wires.length
  let cost = before
  let from = Int32Array.from(before, (_, state) => state)
  day.booths.forEach((_, booth) => {
    const stride = wires ** booth
    const nextCost = new Float64Array(cost.length)
    const nextFrom = new Int32Array(cost.length)
    for (let state = 0; state < cost.length; state++) {
      const to = wireOf(state, booth, wires)
      const zero = state - to * stride
      const best = bestFrom(day, { cost, zero, stride, booth, to })
      nextCost[state] = best.cost
      nextFrom[state] = from[best.state] ?? -1
    }
    cost = nextCost
    from = nextFrom
  })
  return { cost, from }
}

function bestFrom(
  day: Grouping,
  at: { cost: Float64Array; zero: number; stride: number; booth: number; to: number },
): { cost: number; state: number } {
  let best = { cost: Infinity, state: -1 }
  for (let wire = 0; wire < day.wires.length; wire++) {
    const state = at.zero + wire * at.stride
    const cost = (at.cost[state] ?? Infinity) + (wire === at.to ? 0 : day.cost(at.booth, wire, at.to))
    if (cost < best.cost) best = { cost, state }
  }
  return best
}

function walkBack(day: Grouping, table: Table): number[][] | null {
  let state = -1
  let least = Infinity
  table.cost.forEach((cost, s) => {
    if (cost < least) {
      least = cost
      state = s
    }
  })
  if (state < 0) return null
  const plan: number[][] = []
  for (let period = day.periods.length - 1; period >= 0; period--) {
    plan.unshift(day.booths.map((_, b) => wireOf(state, b, day.wires.length)))
    state = table.from[period]?.[state] ?? -1
  }
  return plan
}

/** Beyond the exact size: each period greedily from the one before, then swaps while anything gets cheaper. */
function search(day: Grouping): number[][] | null {
  const plan: number[][] = []
  let before: (number | null)[] = day.booths.map((b) => b.startsWith)
  for (const need of day.need) {
    const now = greedy(day, before, need)
    if (!now) return null
    plan.push(now)
    before = now
  }
  const MOST_ROUNDS = 200
  for (let round = 0; round < MOST_ROUNDS && improve(day, plan); round++);
  return plan
}

/** Booths that have the wire keep it; the rest of what is needed goes where it is cheapest. */
function greedy(day: Grouping, before: readonly (number | null)[], need: readonly number[]): number[] | null {
  const left = [...need]
  const now: (number | null)[] = before.map((wire) => {
    if (wire === null || (left[wire] ?? 0) <= 0) return null
    left[wire] = (left[wire] ?? 0) - 1
    return wire
  })
  for (const [wire, missing] of left.entries())
    for (let i = 0; i < missing; i++) {
      const free = now.flatMap((w, booth) =>
        w === null ? [{ booth, cost: day.cost(booth, before[booth] ?? null, wire) }] : [],
      )
      const [best] = free.sort((a, b) => a.cost - b.cost || a.booth - b.booth)
      if (!best || !Number.isFinite(best.cost)) return null
      now[best.booth] = wire
    }
  return now.map((wire, booth) => wire ?? before[booth] ?? cheapest(day, booth))
}

function cheapest(day: Grouping, booth: number): number {
  const costs = day.wires.map((_, wire) => day.cost(booth, null, wire))
  return costs.indexOf(Math.min(...costs))
}

/** The first change of two booths' or one booth's wires, over a run of periods, that makes the whole cheaper. */
function improve(day: Grouping, plan: number[][]): boolean {
  const cost = costOfPlan(day, plan)
  for (const move of movesOf(day, plan)) {
    const kept = plan.map((row) => [...row])
    move()
    if (costOfPlan(day, plan) < cost - 1e-9 && isMet(day, plan)) return true
    kept.forEach((row, i) => (plan[i] = row))
  }
  return false
}

function* movesOf(day: Grouping, plan: number[][]): Generator<() => void> {
  const last = plan.length
  for (let from = 0; from < last; from++)
    for (let to = from + 1; to <= last; to++)
      for (let a = 0; a < day.booths.length; a++) {
        for (let b = a + 1; b < day.booths.length; b++)
          yield () => {
            for (let p = from; p < to; p++) swap(plan[p] ?? [], a, b)
          }
        for (let wire = 0; wire < day.wires.length; wire++)
          yield () => {
            for (let p = from; p < to; p++) (plan[p] ?? [])[a] = wire
          }
      }
}
function swap(row: number[], a: number, b: number): void {
  const kept = row[a] ?? 0
  row[a] = row[b] ?? 0
  row[b] = kept
}

function isMet(day: Grouping, plan: readonly (readonly number[])[]): boolean {
  return day.need.every((need, period) => {
    const have = new Array<number>(day.wires.length).fill(0)
    for (const wire of plan[period] ?? []) have[wire] = (have[wire] ?? 0) + 1
    return need.every((n, wire) => (have[wire] ?? 0) >= n)
  })
}
