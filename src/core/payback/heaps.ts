import { addCost, NO_COST, totalMinor, type StopCost } from './stopcost.ts'

export interface HeapedStop {
  /** Column of the path where it began; null: nobody said. */
  column: string | null
  minutes: number
  cost: StopCost
}
export interface Heap {
  column: string | null
  stops: number
  minutes: number
  cost: StopCost
}
/** Minutes and money heaped on the path, the dearest first; of stops of which nobody said where, one heap. */
export function heapsOf(stops: readonly HeapedStop[]): Heap[] {
  const heaps = new Map<string | null, Heap>()
  for (const { column, minutes, cost } of stops) {
    const heap = heaps.get(column) ?? { column, stops: 0, minutes: 0, cost: NO_COST }
    heaps.set(column, {
      column,
      stops: heap.stops + 1,
      minutes: heap.minutes + minutes,
      cost: addCost(heap.cost, cost),
    })
  }
  return [...heaps.values()].sort((a, b) => totalMinor(b.cost) - totalMinor(a.cost) || b.minutes - a.minutes)
}

export interface MiddleHalf {
  n: number
  mean: number
  /** A quarter of them lie below, a quarter above; null with fewer than four. */
  low: number | null
  high: number | null
}
const LEAST = 4
/** What one of them comes to: mean, since it is what adds up, and the middle half of the single ones. Quantiles by linear interpolation (type 7). */
export function middleHalf(list: readonly number[]): MiddleHalf | null {
  const n = list.length
  if (n === 0) return null
  const sorted = [...list].sort((a, b) => a - b)
  const at = (p: number) => {
    const i = (n - 1) * p
    const below = sorted[Math.floor(i)] ?? 0
    return below + (i - Math.floor(i)) * ((sorted[Math.ceil(i)] ?? below) - below)
  }
  const mean = sorted.reduce((a, b) => a + b, 0) / n
  return n < LEAST ? { n, mean, low: null, high: null } : { n, mean, low: at(0.25), high: at(0.75) }
}
