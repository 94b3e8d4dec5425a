import { type CarrierId, type PartId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { NECK_KINDS, type KindKey, type OutReason, type Position } from '@core/path/columns.ts'
import { drawLogNormal } from '@core/random/random.ts'
import { type SimEvent } from '@core/simulator/simulator.ts'
import { DAY_MS, HOUR_MS, MIN_MS } from '@core/units/time.ts'

/** So long ago necks began to go round at the cells. */
const ROUND_DAYS = 34
/** Every so manieth tip at a cell comes with another neck. */
const EVERY = 6
/** Hours on the bench: half within, and how they spread. */
const BENCH_H = 20
const BENCH_SIGMA = 0.6

/** One thing that was said of the round: a fact, when, and at which cell; null: on the bench. */
export interface RoundFact {
  atMs: number
  cell: string | null
  fact: Fact
}
export interface Round {
  /** The neck that hung at a cell then; null: necks did not go round yet. */
  neckAt: (cell: string, atMs: number) => CarrierId | null
  facts: RoundFact[]
  /** Tips that came on with their neck: not said once more. */
  isTaken: (e: SimEvent) => boolean
}

interface Neck {
  id: CarrierId
  readyMs: number
}
interface Hung {
  cell: string
  neckId: CarrierId
  fromMs: number
}
export interface RoundAsked {
  cells: readonly { name: string; gunId: CarrierId }[]
  /** More necks than cells. */
  neckIds: readonly CarrierId[]
  events: readonly SimEvent[]
  nowMs: number
  random: () => number
  partOf: (position: Position) => PartId | null
}
const ON_NECK = ['diffuser', 'tip', 'nozzle', 'insulator', 'neck'] as const satisfies readonly KindKey[]

/** Necks that went round at the yard's cells for a month: a worn one comes off whole, is mended within a day or so, and hangs again elsewhere. */
export function planRound(of: RoundAsked): Round {
  const yard = new RoundYard(of)
  yard.begin()
  const count = new Map<string, number>()
  for (const e of tipsAtCells(of)) {
    const n = (count.get(e.gun) ?? 0) + 1
    count.set(e.gun, n)
    if (n % EVERY === 0) yard.swap(e)
  }
  return { neckAt: yard.neckAt, facts: yard.facts, isTaken: (e) => yard.taken.has(e) }
}

const tipsAtCells = ({ events, cells, nowMs }: RoundAsked): SimEvent[] =>
  events
    .filter((e) => e.isLogged && e.atMs > nowMs - ROUND_DAYS * DAY_MS && e.atMs < nowMs)
    .filter((e) => e.act.kind === 'fitted' && e.act.position === 'tip' && cells.some((c) => c.name === e.gun))
    .sort((a, b) => a.atMs - b.atMs)

class RoundYard {
  readonly facts: RoundFact[] = []
  readonly taken = new Set<SimEvent>()
  private readonly hung: Hung[] = []
  private readonly spare: Neck[] = []
  private readonly of: RoundAsked
  private readonly fromMs: number
  constructor(of: RoundAsked) {
    this.of = of
    this.fromMs = of.nowMs - ROUND_DAYS * DAY_MS
  }

  private say(atMs: number, cell: string | null, fact: Fact): void {
    this.facts.push({ atMs, cell, fact })
  }
  private fit(carrierId: CarrierId, position: Position, how: { age: 'new' | 'unknown'; why: OutReason }): Fact {
    const partId = this.of.partOf(position)
    const { age: entryAge, why: outReason } = how
    return { kind: 'fitted', carrierId, position, partId, outReason, count: 1, entryAge }
  }

  readonly neckAt = (cell: string, atMs: number): CarrierId | null =>
    this.hung.filter((h) => h.cell === cell && h.fromMs <= atMs).sort((a, b) => b.fromMs - a.fromMs)[0]?.neckId ?? null

  /** What was on each gun goes on its neck; two more lie ready. */
  begin(): void {
    const { fromMs } = this
    this.of.cells.forEach(({ name, gunId }, i) => {
      const neckId = this.of.neckIds[i]
      if (!neckId) return
      this.hung.push({ cell: name, neckId, fromMs })
      this.say(fromMs, name, { kind: 'mounted', carrierId: neckId, onId: gunId, as: 'keyedNeck' })
      for (const position of ON_NECK) {
        this.say(fromMs, name, { kind: 'removed', carrierId: gunId, position, outReason: 'notSaid' })
        this.say(fromMs + 1, name, this.fit(neckId, position, { age: 'unknown', why: 'notSaid' }))
      }
    })
    for (const id of this.of.neckIds.slice(this.of.cells.length)) {
      for (const position of ON_NECK)
        this.say(fromMs - HOUR_MS, null, this.fit(id, position, { age: 'new', why: 'notSaid' }))
      this.say(fromMs - HOUR_MS, null, { kind: 'gunStatus', carrierId: id, status: 'ready' })
      this.spare.push({ id, readyMs: fromMs })
    }
  }

  /** A worn tip goes with its neck, where another is ready; on the bench it gets the next one. */
  swap(e: SimEvent): void {
    const next = this.spare.find((s) => s.readyMs <= e.atMs)
    const oldId = this.neckAt(e.gun, e.atMs)
    const gunId = this.of.cells.find((c) => c.name === e.gun)?.gunId
    if (!next || !oldId || !gunId || e.act.kind !== 'fitted') return
    this.taken.add(e)
    this.spare.splice(this.spare.indexOf(next), 1)
    this.hung.push({ cell: e.gun, neckId: next.id, fromMs: e.atMs })
    this.say(e.atMs, e.gun, { kind: 'mounted', carrierId: next.id, onId: gunId, as: 'keyedNeck' })
    this.say(e.atMs, e.gun, { kind: 'mounted', carrierId: oldId, onId: null, as: 'neck' })
    this.say(e.atMs, e.gun, { kind: 'gunStatus', carrierId: oldId, status: 'toRefurbish' })
    this.mend(oldId, e)
  }

  private mend(id: CarrierId, e: SimEvent): void {
    const readyMs = e.atMs + Math.round(drawLogNormal(this.of.random, BENCH_H, BENCH_SIGMA) * HOUR_MS)
    this.spare.push({ id, readyMs })
    if (readyMs >= this.of.nowMs || e.act.kind !== 'fitted') return
    this.say(readyMs - 4 * MIN_MS, null, this.fit(id, 'tip', { age: 'new', why: e.act.reason }))
    this.say(readyMs - 2 * MIN_MS, null, { kind: 'cleaned', carrierId: id, position: 'nozzle' })
    this.say(readyMs, null, { kind: 'gunStatus', carrierId: id, status: 'ready' })
  }
}

/** What a neck of the yard has on it. */
export const NECK_POSITIONS: readonly Position[] = NECK_KINDS.filter((k) => ON_NECK.some((p) => p === k))
