import { makeRandom } from '@core/random/random.ts'

/**
 * Which spool for which job, where a job is not to change its spool. Amounts in any one unit, whole numbers best.
 *
 * 1. A job goes whole to one spool, and no spool gives more than is on it.
 * 2. What stays on a spool that was used is scrap where it is less than can be used, all of it; nothing left is no scrap, and a spool nobody used is none.
 * 3. Wanted, in this order: most jobs, least scrap, fewest spools, fewest of them opened for it.
 */
export interface SpoolLeft {
  left: number
  /** Less than this on it is of no use to anybody. */
  leastUsable: number
  /** Nobody has used any of it. */
  isFull?: boolean
}
export interface Assignment {
  /** Of each job the spool it goes to; null: none is left for it. */
  spoolOf: (number | null)[]
  jobs: number
  scrap: number
  spools: number
  opened: number
  /** Every way was looked at; else it is as good as was found. */
  isExact: boolean
}

/** As many jobs as every way of dealing them out can be looked at for: 3^n sums a spool. */
const MOST_EXACT = 10

const scrapOf = ({ left, leastUsable }: SpoolLeft, used: number): number => {
  const rest = left - used
  return used > 0 && rest > 0 && rest < leastUsable ? rest : 0
}

/**
 * The best assignment: of up to ten jobs every way, by tables over sets of jobs; of more, best fit from the largest down, then a few spools with their jobs
 * taken out again and dealt anew by the same tables, as long as it gets better (Shaw's large neighbourhood). The same for the same seed. Misuse throws.
 * Source: Martello & Toth (1990) for the exact part.
 * @example assignSpools([{ left: 5000, leastUsable: 500 }, { left: 3200, leastUsable: 500 }], [3000, 2000, 1500]).scrap // 0
 */
export function assignSpools(
  spools: readonly SpoolLeft[],
  jobs: readonly number[],
  {
    seed = 1,
    rounds = 400,
    onRound,
  }: { seed?: number; rounds?: number; onRound?: (done: number, of: number) => void } = {},
): Assignment {
  if (jobs.some((j) => !(j > 0))) throw new RangeError('assignSpools: expected every job to want more than nothing')
  if (spools.some((s) => !(s.left >= 0 && s.leastUsable >= 0)))
    throw new RangeError('assignSpools: expected nothing below zero on a spool')
  if (jobs.length <= MOST_EXACT) return { ...summed(spools, jobs, dealt(spools, jobs)), isExact: true }
  let best = summed(spools, jobs, bestFit(spools, jobs))
  const random = makeRandom(seed)
  for (let i = 0; i < rounds; i++) {
    const next = dealtAnew(spools, jobs, { from: best, random })
    if (order(next, best) < 0) best = next
    onRound?.(i + 1, rounds)
  }
  return best
}

/** Below zero where the first is better. */
const order = (a: Assignment, b: Assignment) =>
  [b.jobs - a.jobs, a.scrap - b.scrap, a.spools - b.spools, a.opened - b.opened].find((d) => d !== 0) ?? 0

function summed(spools: readonly SpoolLeft[], jobs: readonly number[], spoolOf: (number | null)[]): Assignment {
  const used = spools.map(() => 0)
  spoolOf.forEach((s, j) => {
    if (s !== null) used[s] = (used[s] ?? 0) + (jobs[j] ?? 0)
  })
  return {
    spoolOf,
    jobs: spoolOf.filter((s) => s !== null).length,
    scrap: spools.reduce((sum, spool, s) => sum + scrapOf(spool, used[s] ?? 0), 0),
    spools: used.filter((u) => u > 0).length,
    opened: spools.filter((spool, s) => spool.isFull === true && (used[s] ?? 0) > 0).length,
    isExact: false,
  }
}

/** A spool used, and a little more for one that is opened: one number, compared as two. */
const weightOf = (spool: SpoolLeft) => 4096 + (spool.isFull ? 1 : 0)

const countOf = (set: number): number => {
  let n = 0
  for (let s = set; s > 0; s &= s - 1) n++
  return n
}

/** Every set of jobs, spool after spool: the least scrap and fewest spools to serve just these. */
function dealt(spools: readonly SpoolLeft[], jobs: readonly number[]): (number | null)[] {
  const sets = 1 << jobs.length
  const want = new Float64Array(sets)
  for (let set = 1; set < sets; set++) {
    const low = 31 - Math.clz32(set & -set)
    want[set] = (want[set & (set - 1)] ?? 0) + (jobs[low] ?? 0)
  }
  let scrap = new Float64Array(sets).fill(Infinity)
  let used = new Int32Array(sets)
  scrap[0] = 0
  const taken: Int32Array[] = []
  for (const spool of spools) {
    const [nextScrap, nextUsed, took] = [scrap.slice(), used.slice(), new Int32Array(sets)]
    for (let set = 1; set < sets; set++)
      for (let mine = set; mine > 0; mine = (mine - 1) & set) {
        const amount = want[mine] ?? 0
        if (amount > spool.left) continue
        const before = set & ~mine
        const total = (scrap[before] ?? Infinity) + scrapOf(spool, amount)
        const spoolsUsed = (used[before] ?? 0) + weightOf(spool)
        const known = nextScrap[set] ?? Infinity
        if (total > known || (total === known && spoolsUsed >= (nextUsed[set] ?? 0))) continue
        nextScrap[set] = total
        nextUsed[set] = spoolsUsed
        took[set] = mine
      }
    ;[scrap, used] = [nextScrap, nextUsed]
    taken.push(took)
  }
  return readBack(bestSet(scrap, used), taken, jobs.length)
}

/** Of the sets that can be served: most jobs, then least scrap, then fewest spools. */
function bestSet(scrap: Float64Array, used: Int32Array): number {
  let best = 0
  for (let set = 1; set < scrap.length; set++) {
    if (scrap[set] === Infinity) continue
    const more = countOf(set) - countOf(best)
    const less = (scrap[set] ?? 0) - (scrap[best] ?? 0)
    if (more > 0 || (more === 0 && (less < 0 || (less === 0 && (used[set] ?? 0) < (used[best] ?? 0))))) best = set
  }
  return best
}

function readBack(set: number, taken: readonly Int32Array[], n: number): (number | null)[] {
  const spoolOf = new Array<number | null>(n).fill(null)
  for (let s = taken.length - 1, left = set; s >= 0 && left > 0; s--) {
    const mine = taken[s]?.[left] ?? 0
    for (let j = 0; j < n; j++) if (mine & (1 << j)) spoolOf[j] = s
    left &= ~mine
  }
  return spoolOf
}

/** From the largest job down, each to the spool that it leaves least scrap on, and of these the one with least left. */
function bestFit(spools: readonly SpoolLeft[], jobs: readonly number[]): (number | null)[] {
  const used = spools.map(() => 0)
  const spoolOf = new Array<number | null>(jobs.length).fill(null)
  const largestFirst = jobs.map((_, j) => j).sort((a, b) => (jobs[b] ?? 0) - (jobs[a] ?? 0))
  for (const j of largestFirst) {
    const want = jobs[j] ?? 0
    let best: { s: number; scrap: number; left: number } | null = null
    for (const [s, spool] of spools.entries()) {
      const left = spool.left - (used[s] ?? 0) - want
      if (left < 0) continue
      const scrap = scrapOf(spool, (used[s] ?? 0) + want) - scrapOf(spool, used[s] ?? 0)
      if (!best || scrap < best.scrap || (scrap === best.scrap && left < best.left)) best = { s, scrap, left }
    }
    if (!best) continue
    spoolOf[j] = best.s
    used[best.s] = (used[best.s] ?? 0) + want
  }
  return spoolOf
}

/** A few spools and their jobs, with those that found none, dealt anew. */
function dealtAnew(
  spools: readonly SpoolLeft[],
  jobs: readonly number[],
  { from, random }: { from: Assignment; random: () => number },
): Assignment {
  const some = new Set(Array.from({ length: 4 }, () => Math.floor(random() * spools.length)))
  const out = from.spoolOf.flatMap((s, j) => (s === null || some.has(s) ? [j] : []))
  const here = out.sort(() => random() - 0.5).slice(0, MOST_EXACT - 2)
  const stay = new Map<number, number>()
  from.spoolOf.forEach((s, j) => {
    if (s !== null && !here.includes(j)) stay.set(s, (stay.get(s) ?? 0) + (jobs[j] ?? 0))
  })
  const picked = [...some]
  // What stays on a spool is as good as gone from it; a spool that is used already costs none more.
  const parts = picked.map((s) => {
    const spool = spools[s] ?? { left: 0, leastUsable: 0 }
    const isFull = spool.isFull === true && !stay.has(s)
    return { left: spool.left - (stay.get(s) ?? 0), leastUsable: spool.leastUsable, isFull }
  })
  const anew = dealt(
    parts,
    here.map((j) => jobs[j] ?? 0),
  )
  const spoolOf = [...from.spoolOf]
  here.forEach((j, i) => {
    const at = anew[i]
    spoolOf[j] = at === null || at === undefined ? null : (picked[at] ?? null)
  })
  return summed(spools, jobs, spoolOf)
}
