import { drawNormal, makeRandom, pick, shuffled } from '@core/random/random.ts'
import { indexOf, outcomeChance, type Index } from './belief.ts'
import { isAbout, minutesOf, usualShares, type Cause, type Check, type Knowledge, type Outcome } from './knowledge.ts'
import { CLOSE_MIN, fixGroups, type FixGroup } from './moves.ts'
import { leftStanding, planned } from './plan.ts'
import { isFor } from './ratio.ts'
import { reckon, type Hint, type Said } from './session.ts'

/**
 * Orders raced against each other on made-up stops: a world holds the true chances, which no order is given, and answers each check by them.
 */
export interface World {
  truth: Index
  shares: ReadonlyMap<string, readonly number[]>
}
/** Shares of causes and what checks show, each × e^N(0, spread), shares made to sum to 1 again. */
export function drawWorld(knowledge: Knowledge, random: () => number, spread: number): World {
  const stray = () => (spread === 0 ? 1 : Math.exp(spread * drawNormal(random)))
  const shares = new Map(
    knowledge.symptoms.map((s) => {
      const weights = usualShares(s).map((w) => w * stray())
      const sum = weights.reduce((a, b) => a + b, 0)
      return [s.key, weights.map((w) => w / sum)] as const
    }),
  )
  const checks = knowledge.checks.map((c) => ({ ...c, shows: Math.min(0.99, Math.max(0.2, c.shows * stray())) }))
  return { truth: indexOf({ ...knowledge, checks }), shares }
}

export interface Fault {
  symptom: string
  /** One cause; of ten, one has two. */
  causes: readonly number[]
  /** What is known of the gun before it is looked at, true or not. */
  hints?: readonly Hint[]
}
const TWO_FAULTS = 0.1
/** `twoShare`: so many have two causes. */
export function drawFault(
  world: World,
  random: () => number,
  { symptom, twoShare = TWO_FAULTS }: { symptom: string; twoShare?: number | undefined },
): Fault {
  const s = world.truth.symptoms.find((x) => x.key === symptom)
  const shares = world.shares.get(symptom) ?? []
  const one = () => {
    let u = random()
    const at = shares.findIndex((p) => (u -= p) < 0)
    return world.truth.causeAt.get(s?.causes[at < 0 ? 0 : at] ?? '') ?? 0
  }
  const first = one()
  const second = random() < twoShare ? one() : first
  return { symptom, causes: second === first ? [first] : [first, second] }
}

const FIX_WORKS = 0.95
const GIVE_UP_MIN = 60
const MOST_STEPS = 60
/** A fix over so many minutes is a long one. */
const DEAR_MIN = 3
/** The gun on the bench: what is wrong with it now, and how it answers. */
class Bench {
  minutes = 0
  /** Looks that found all well there, fixes that mended nothing, and long fixes begun while a look of a minute at just that was not had. */
  vainLooks = 0
  wrongFixes = 0
  dearEarly = 0
  private left: number[]
  private readonly had = new Map<string, string>()
  constructor(
    private readonly world: World,
    private readonly fault: Fault,
    private readonly luck: { random: () => number; errShare: number },
  ) {
    this.left = [...fault.causes]
  }
  get hints(): readonly Hint[] {
    return this.fault.hints ?? []
  }
  get isRunning(): boolean {
    return this.left.length === 0
  }
  look(check: Check): string {
    this.minutes += minutesOf(check)
    const outcomes = check.outcomes
    const { random, errShare } = this.luck
    if (errShare > 0 && random() < errShare) return this.answered(check, pick(random, outcomes))
    let u = random()
    const at = outcomes.findIndex(
      (_, outcome) => (u -= outcomeChance(this.world.truth, check, { set: this.left.slice(0, 2), outcome })) < 0,
    )
    const seen = outcomes[at < 0 ? outcomes.length - 1 : at] as Outcome
    // A swap that brings it back has mended it.
    if (check.mends && seen.points.length > 0)
      this.left = this.left.filter((i) => !seen.points.includes(this.world.truth.causes[i]?.key ?? ''))
    return this.answered(check, seen)
  }
  private answered(check: Check, seen: Outcome): string {
    if (seen.points.length === 0) this.vainLooks++
    this.had.set(check.key, seen.key)
    return seen.key
  }
  mend(group: FixGroup): void {
    if (this.isEarly(group)) this.dearEarly++
    if (!group.causes.some((i) => this.left.includes(i))) this.wrongFixes++
    this.minutes += group.minutes + CLOSE_MIN
    this.left = this.left.filter((i) => !(group.causes.includes(i) && this.luck.random() < FIX_WORKS))
  }
  /** Nothing spoke for it, it is long, and a look of a minute could have. */
  private isEarly({ causes, minutes }: FixGroup): boolean {
    if (minutes <= DEAR_MIN) return false
    const { checks, causes: all } = this.world.truth
    const keys = new Set(causes.map((i) => all[i]?.key ?? ''))
    const spoke = checks.some((c) =>
      c.outcomes.some((o) => this.had.get(c.key) === o.key && isAbout({ outcomes: [o] }, keys)),
    )
    const isKnown = this.hints.some((h) => h.isKnown && keys.has(h.cause))
    const listed = new Set(this.world.truth.symptoms.find((s) => s.key === this.fault.symptom)?.causes)
    const named = new Set([...keys].filter((key) => listed.has(key)))
    return (
      !spoke &&
      !isKnown &&
      checks.some(
        (c) =>
          minutesOf(c) <= 1 &&
          !this.had.has(c.key) &&
          isFor(c, this.fault.symptom) &&
          (c.after === undefined || this.had.has(c.after)) &&
          isAbout(c, named),
      )
    )
  }
  /** Help comes, and it runs. */
  help(): void {
    this.minutes += GIVE_UP_MIN
    this.left = []
  }
}
export type Order = (bench: Bench, symptom: string) => void

/** By what is known after each answer. */
export const byReckoning =
  (knowledge: Index): Order =>
  (bench, symptom) => {
    const said: Said[] = []
    for (let n = 0; n < MOST_STEPS && !bench.isRunning; n++) {
      const [next] = planned(reckon(knowledge, { symptom, said }, bench))
      if (!next) break
      if (next.step.kind === 'check') {
        const { check } = next.step
        said.push({ type: 'check', key: check.key, outcome: bench.look(check) })
      } else {
        bench.mend(next.step.group)
        said.push({ type: 'fix', key: next.step.group.key })
      }
    }
    // The last page names what stands all the same: each of it once more, then help.
    for (const { group } of leftStanding(reckon(knowledge, { symptom, said }, bench)))
      if (!bench.isRunning) bench.mend(group)
    if (!bench.isRunning) bench.help()
  }

/** The most telling check of a cause: the one that points at the fewest, then the quickest. */
export function ownCheck(knowledge: Index, cause: string): Check | null {
  const breadth = (c: Check) =>
    new Set(c.outcomes.filter((o) => o.points.includes(cause)).flatMap((o) => o.points)).size
  const [best] = knowledge.checks
    .filter((c) => c.outcomes.some((o) => o.points.includes(cause)))
    .sort((a, b) => breadth(a) - breadth(b) || minutesOf(a) - minutesOf(b))
  return best ?? null
}

/** In one order whatever is seen: each cause is looked at, and what a look points at is mended; then, without looking, all of them once more. */
const inOrder =
  (knowledge: Index, sorted: (causes: Cause[]) => Cause[]): Order =>
  (bench, symptom) => {
    const listed = (knowledge.symptoms.find((s) => s.key === symptom)?.causes ?? []).map(
      (key) => knowledge.causes[knowledge.causeAt.get(key) ?? 0] as Cause,
    )
    const order = sorted([...listed])
    const groupOf = (c: Cause) =>
      fixGroups(knowledge).find((g) => g.causes.includes(knowledge.causeAt.get(c.key) ?? -1)) as FixGroup
    const asked = new Set<string>()
    const mended = new Set<string>()
    const mend = (c: Cause) => {
      const group = groupOf(c)
      if (mended.has(group.key)) return
      mended.add(group.key)
      bench.mend(group)
    }
    for (const cause of order) {
      if (bench.isRunning) return
      const look = ownCheck(knowledge, cause.key)
      if (!look || asked.has(look.key)) continue
      asked.add(look.key)
      const seen = look.outcomes.find((o) => o.key === bench.look(look))
      for (const c of order.filter((c) => seen?.points.includes(c.key))) if (!bench.isRunning) mend(c)
    }
    for (const cause of order) if (!bench.isRunning) mend(cause)
    if (!bench.isRunning) bench.help()
  }
/** Minutes of looking at it and mending it. */
const byMinutes = (knowledge: Index) => (a: Cause, b: Cause) => {
  const cost = (c: Cause) => {
    const look = ownCheck(knowledge, c.key)
    const group = fixGroups(knowledge).find((g) => g.causes.includes(knowledge.causeAt.get(c.key) ?? -1))
    return (look ? minutesOf(look) : 0) + (group?.minutes ?? 0)
  }
  return cost(a) - cost(b)
}
/** Quick and cheap first, the liner last because it takes longest. */
export const quickFirst = (knowledge: Index): Order => inOrder(knowledge, (causes) => causes.sort(byMinutes(knowledge)))
/** The liner first, then the rest from the quickest. */
export const linerEarly = (knowledge: Index): Order =>
  inOrder(knowledge, (causes) =>
    causes.sort((a, b) => Number(b.at === 'liner') - Number(a.at === 'liner') || byMinutes(knowledge)(a, b)),
  )
export const anyOrder = (knowledge: Index, random: () => number): Order =>
  inOrder(knowledge, (causes) => shuffled(causes, random))

export type Raced = Pick<Bench, 'minutes' | 'vainLooks' | 'wrongFixes' | 'dearEarly'>
/** Each fault under one order; the gun answers by its own seed, so that orders meet the same luck where they ask the same. `errShare`: so many looks are answered by chance. */
export function raced(
  world: World,
  faults: readonly Fault[],
  { order, errShare = 0 }: { order: Order; errShare?: number },
): Raced[] {
  return faults.map((fault, n) => {
    const bench = new Bench(world, fault, { random: makeRandom(1000 + n), errShare })
    order(bench, fault.symptom)
    return bench
  })
}
/** Minutes of each fault under one order. */
export const race = (world: World, faults: readonly Fault[], order: Order): number[] =>
  raced(world, faults, { order }).map((r) => r.minutes)
