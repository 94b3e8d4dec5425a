import { makeRandom, shuffled } from '@core/random/random.ts'
import { shareInterval, type ShareInterval } from '@core/stats/share.ts'
import { HAND_ITEM_KEYS, RIGHT, type FoundAtBooth, type HandItemKey } from './items.ts'

/** One look at a booth: who had it before, as a group, and how it was found. */
export interface BoothFound {
  boothId: string
  /** The group that had the booth before; null: nobody, or no class that is known of. */
  leftBy: string | null
  /** The period it was found in; by days. */
  day: string
  found: FoundAtBooth
}
export interface Counted {
  wrong: number
  looked: number
}
export interface OfGroup extends Counted, ShareInterval {
  group: string
  item: HandItemKey
  /** The chance that some group and some thing stand out so far where none differs; null: too little was looked at. */
  byLuck: number | null
  /** Named: by luck at most one shop in twenty would name any. */
  isBeyond: boolean
}

/** At most so often anything is named where nothing differs. */
export const NAMED_AT = 0.05
const SHUFFLES = 1999
/** Booths that two groups or more had, and looks in all, before a group can stand out. */
const LEAST_BOOTHS = 4
const LEAST_LOOKS = 20

type Cell = Counted
/** booth → group → what was found there: a cell is, near enough, one pair of hands. */
type Cells = Map<string, Map<string, Cell>>

export function countedCells(looks: readonly BoothFound[], item: HandItemKey): Cells {
  const cells: Cells = new Map()
  for (const { boothId, leftBy, found } of looks) {
    const answer = found[item]
    if (leftBy === null || answer === undefined) continue
    const booth = cells.get(boothId) ?? new Map<string, Cell>()
    const cell = booth.get(leftBy) ?? { wrong: 0, looked: 0 }
    booth.set(leftBy, { wrong: cell.wrong + (answer === RIGHT ? 0 : 1), looked: cell.looked + 1 })
    cells.set(boothId, booth)
  }
  return cells
}

/**
 * What each group leaves wrong more often than others do at the same booths. Per booth the groups’ counts are shuffled among the groups that had it: a
 * booth with a worn socket tells on nobody, nor does one pair of clumsy hands (a cell is one learner, near enough) name a class. Statistic: Σ over
 * booths of (wrong − looked × the booth’s own share), over its standard deviation under shuffling; against the largest of all groups and things in each
 * shuffle (Westfall and Young 1993), so that all of it together names anybody in at most one shop of twenty. Seeded: the same looks, the same answer.
 */
export function beyondChance(looks: readonly BoothFound[]): OfGroup[] {
  const random = makeRandom(looks.length * 7919 + 17)
  const tables = HAND_ITEM_KEYS.map((item) => tableOf(item, countedCells(looks, item)))
  const usable = tables.filter((t) => t.booths.length >= LEAST_BOOTHS && t.looked >= LEAST_LOOKS)
  const draws = usable.map((t) => shuffles(t, random))
  const scored = usable.map((t, i) => scoresOf(t, draws[i] ?? []))
  const largest = Array.from({ length: SHUFFLES }, (_, n) =>
    scored.reduce((most, s) => Math.max(most, s.shuffled[n] ?? -Infinity), -Infinity),
  )
  return tables.flatMap((t) => {
    const at = usable.indexOf(t)
    return t.groups.map((group, g): OfGroup => {
      const { wrong, looked } = t.totals[g] ?? { wrong: 0, looked: 0 }
      const score = scored[at]?.own[g]
      const byLuck =
        score === undefined || wrong < 2 ? null : (1 + largest.filter((l) => l >= score).length) / (SHUFFLES + 1)
      const isBeyond = byLuck !== null && byLuck <= NAMED_AT
      return { group, item: t.item, wrong, looked, ...shareInterval(wrong, looked), byLuck, isBeyond }
    })
  })
}

interface Table {
  item: HandItemKey
  groups: string[]
  totals: Counted[]
  looked: number
  /** Only booths that two groups had: of the others nothing can be told apart. */
  booths: { share: number; cells: { group: number; cell: Cell }[] }[]
}
function tableOf(item: HandItemKey, cells: Cells): Table {
  const groups = [...new Set([...cells.values()].flatMap((booth) => [...booth.keys()]))].sort()
  const totals = groups.map((g) => sum([...cells.values()].map((booth) => booth.get(g) ?? { wrong: 0, looked: 0 })))
  const booths = [...cells.values()]
    .filter((booth) => booth.size > 1)
    .map((booth) => {
      const all = sum([...booth.values()])
      return {
        share: all.wrong / all.looked,
        cells: [...booth].map(([group, cell]) => ({ group: groups.indexOf(group), cell })),
      }
    })
  return { item, groups, totals, booths, looked: sum(totals).looked }
}
export const sum = (list: readonly Counted[]): Counted =>
  list.reduce((a, b) => ({ wrong: a.wrong + b.wrong, looked: a.looked + b.looked }), { wrong: 0, looked: 0 })

const excess = (cell: Cell, share: number) => cell.wrong - cell.looked * share
/** Excess of each group, as it is. */
function excessOf({ groups, booths }: Table): number[] {
  const out = groups.map(() => 0)
  for (const { share, cells } of booths)
    for (const { group, cell } of cells) out[group] = (out[group] ?? 0) + excess(cell, share)
  return out
}
/** Excess of each group in each shuffle. */
function shuffles({ groups, booths }: Table, random: () => number): number[][] {
  return Array.from({ length: SHUFFLES }, () => {
    const out = groups.map(() => 0)
    for (const { share, cells } of booths) {
      const order = shuffled(
        cells.map(({ cell }) => cell),
        random,
      )
      cells.forEach(({ group }, i) => (out[group] = (out[group] ?? 0) + excess(order[i] as Cell, share)))
    }
    return out
  })
}
/** Each group’s excess over its spread under shuffling, and the largest of them in each shuffle. */
function scoresOf(table: Table, draws: readonly number[][]): { own: number[]; shuffled: number[] } {
  const spread = table.groups.map((_, g) => Math.sqrt(draws.reduce((s, d) => s + (d[g] ?? 0) ** 2, 0) / SHUFFLES))
  const score = (out: readonly number[]) => out.map((x, g) => ((spread[g] ?? 0) > 0 ? x / (spread[g] ?? 1) : 0))
  return { own: score(excessOf(table)), shuffled: draws.map((d) => Math.max(...score(d))) }
}
