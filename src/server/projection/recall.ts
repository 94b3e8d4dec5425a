import { type CarrierId, type StationId } from '@core/ids/id.ts'
import { type HeadClocks } from '@core/clock/headclock.ts'
import { foldCarrier, type CarrierStory } from '@core/ledger/fold.ts'
import { foldStation, type StationStory } from '@core/ledger/foldstation.ts'
import { standingFacts, type Standing } from '@core/ledger/resolve.ts'
import { carrierOf } from '@core/ledger/event.ts'
import { type Draft } from '@server/ledger/lines.ts'

/** A carrier as this server last read it: its lines, folded; of a head the clocks they and its entries of use made. */
interface Kept {
  /** How many acts had spoken of it. */
  said: number
  lines: readonly Standing[]
  story: CarrierStory
  clocks?: KeptClocks | undefined
}
/** A place as it was last read: what was said there, under its own carrier. */
interface KeptPlace {
  said: number
  lines: readonly Standing[]
  place: StationStory
}
/** Rows of one table as this server last wrote them for a carrier: a digest under each row's own key. */
interface KeptRows {
  /** How often the carrier had been projected. */
  revision: number
  digests: RowDigests
}
type Anything = Kept | KeptPlace | KeptRows
export type RowDigests = ReadonlyMap<string, number>
interface KeptClocks {
  /** What they were made by besides entries of use: spools, schedule, conversion, wires, what equipment sent. */
  madeBy: string
  clocks: HeadClocks
}
/** A carrier, with how many acts have spoken of it. */
export interface SaidRow {
  id: CarrierId
  said: number
}
interface SeenRow extends SaidRow {
  /** How often it was projected, this time too. */
  revision: number
}

/** Some ten megabytes. */
const MOST_LINES = 20_000

/**
 * What one server remembers of carriers and places, so that the next act need not read years of lines again.
 * 1. Kept under the number of acts that had spoken of the carrier (`carrier.said`; of a place, of its own carrier), which whoever appends counts in the
 *    same transaction: another count, and it is read anew, whoever wrote.
 * 2. The count is read before the lines, so what is kept is at least as new as it says.
 * 3. Taken in after the commit only: what was rolled back never happened.
 * 4. What rows were written is kept under the number of projections (`carrier.revision`), which every projection counts, whoever makes it.
 * 5. Bounded by lines; what was longest not asked for goes first. Nothing depends on it: an empty store reads what it lacks.
 */
export class StoryStore {
  private readonly kept = new Map<string, Anything>()
  private lines = 0

  constructor(private mostLines = MOST_LINES) {}

  /** Holds another number of lines from now on; absent: as usual. */
  hold(mostLines = MOST_LINES): void {
    this.mostLines = mostLines
    this.trim()
  }

  of(key: string): Anything | undefined {
    const kept = this.kept.get(key)
    if (!kept) return undefined
    // Asked for last, it stands last.
    this.kept.delete(key)
    this.kept.set(key, kept)
    return kept
  }

  take(fresh: ReadonlyMap<string, Anything>): void {
    for (const [key, kept] of fresh) {
      this.drop(key)
      this.kept.set(key, kept)
      this.lines += weightOf(kept)
    }
    this.trim()
  }

  private trim(): void {
    for (const key of this.kept.keys()) {
      if (this.lines <= this.mostLines) return
      this.drop(key)
    }
  }

  private drop(key: string): void {
    const kept = this.kept.get(key)
    if (!kept) return
    this.kept.delete(key)
    this.lines -= weightOf(kept)
  }
}
const stores = new WeakMap<object, StoryStore>()
/** What this program remembers of the carriers of a database; a thread with a door of its own remembers for itself. */
export function storiesOf(db: object): StoryStore {
  const known = stores.get(db) ?? new StoryStore()
  stores.set(db, known)
  return known
}

/** Pieces of a clock, and digests of rows, are as large as one line. */
const PIECES_A_LINE = 8
function weightOf(kept: Anything): number {
  if ('digests' in kept) return 1 + kept.digests.size / PIECES_A_LINE
  if ('place' in kept) return 1 + kept.lines.length
  const pieces = Object.values(kept.clocks?.clocks ?? {}).reduce((sum, clock) => sum + (clock?.pieces.length ?? 0), 0)
  return 1 + kept.lines.length + pieces / PIECES_A_LINE
}

const placeKey = (row: SaidRow) => `at ${row.id}`
const rowsKey = (table: string, id: string) => `${table} of ${id}`

/**
 * What may be remembered within one transaction: what the store holds, and the lines this act adds to it.
 * A carrier or place that the act corrects a line of is read anew.
 */
export class Recall {
  private readonly added = new Map<string, Draft[]>()
  private readonly addedAt = new Map<string, Draft[]>()
  private readonly isCorrecting: boolean
  /** Use was entered with it. */
  private readonly isUse: boolean
  /** Whose count this transaction has raised, and how often. */
  private readonly counted = new Map<CarrierId, number>()
  private readonly newlyCounted = new Set<CarrierId>()
  /** How often this transaction projects each, and how often it had been by then. */
  private readonly projected = new Map<string, number>()
  private readonly seen = new Map<string, number>()
  private readonly fresh = new Map<string, Kept>()
  private readonly freshPlaces = new Map<string, KeptPlace>()
  private readonly freshRows = new Map<string, KeptRows>()

  constructor(
    private readonly store: StoryStore,
    drafts: readonly Draft[],
  ) {
    this.isCorrecting = drafts.some((d) => d.body.type === 'correction')
    this.isUse = drafts.some((d) => d.body.type === 'fact' && d.body.fact.kind === 'usageEntered')
    const add = (to: Map<string, Draft[]>, key: string | null, draft: Draft) => {
      if (key) to.set(key, [...(to.get(key) ?? []), draft])
    }
    for (const draft of drafts) {
      if (draft.body.type !== 'fact') continue
      add(this.added, carrierOf(draft.body.fact), draft)
      add(this.addedAt, draft.stationId, draft)
    }
  }

  /** Its count was raised in this transaction. */
  count(ids: Iterable<CarrierId>): void {
    for (const id of ids) this.counted.set(id, (this.counted.get(id) ?? 0) + 1)
  }

  /** What equipment counted of these has changed: their clocks are made anew. */
  forgetClocks(ids: Iterable<CarrierId>): void {
    for (const id of ids) this.newlyCounted.add(id)
  }

  /** They are projected in this transaction, and counted so. */
  project(ids: Iterable<CarrierId>): void {
    for (const id of ids) this.projected.set(id, (this.projected.get(id) ?? 0) + 1)
  }

  /** As they were read after they were counted. */
  see(rows: readonly SeenRow[]): void {
    for (const { id, revision } of rows) this.seen.set(id, revision)
  }

  /** The rows of a table as they stand for some carriers; null where they have to be read. */
  rowsOf(table: string, ids: readonly string[]): ReadonlyMap<string, RowDigests> | null {
    const found = new Map<string, RowDigests>()
    for (const id of ids) {
      const kept = this.freshRows.get(rowsKey(table, id)) ?? this.keptRows(table, id)
      if (!kept) return null
      found.set(id, kept.digests)
    }
    return found
  }

  /** What stands there from now on. */
  keepRows(table: string, id: string, digests: RowDigests): void {
    const revision = this.seen.get(id)
    if (revision !== undefined) this.freshRows.set(rowsKey(table, id), { revision, digests })
  }

  /** A carrier's story without reading its lines; null where they have to be read. */
  storyOf(row: SaidRow): CarrierStory | null {
    const here = this.fresh.get(row.id)
    if (here?.said === row.said) return here.story
    const kept = this.keptOf(row.id, row)
    if (!kept || !('story' in kept)) return null
    const isNew = (this.isUse && this.counted.has(row.id)) || this.newlyCounted.has(row.id)
    const clocks = isNew ? undefined : kept.clocks
    const added = this.added.get(row.id) ?? []
    if (added.length > 0) return this.fold(row, [...kept.lines, ...standingFacts(added.map(asRead))], clocks)
    this.fresh.set(row.id, { ...kept, said: row.said, clocks })
    return kept.story
  }

  /** Folds what was read of it, and remembers it. */
  tell(row: SaidRow, read: readonly Standing[]): CarrierStory {
    return this.fold(row, slim(read))
  }

  private fold(row: SaidRow, lines: readonly Standing[], clocks?: KeptClocks): CarrierStory {
    const story = foldCarrier(lines)
    this.fresh.set(row.id, { said: row.said, lines, story, clocks })
    return story
  }

  /** A head's clocks, made by the same, where no use was entered since. Its story is asked for first. */
  clocksOf(row: SaidRow, madeBy: string): HeadClocks | null {
    const clocks = this.fresh.get(row.id)?.clocks
    return clocks?.madeBy === madeBy ? clocks.clocks : null
  }

  keepClocks(row: SaidRow, made: KeptClocks): void {
    const fresh = this.fresh.get(row.id)
    if (fresh) this.fresh.set(row.id, { ...fresh, clocks: made })
  }

  /** A place's story without reading what was said there; null where it has to be read. By its own carrier. */
  placeOf(stationId: StationId, row: SaidRow): StationStory | null {
    const kept = this.keptOf(placeKey(row), row)
    if (!kept || !('place' in kept)) return null
    const added = this.addedAt.get(stationId) ?? []
    if (added.length > 0) return this.foldPlace(row, [...kept.lines, ...standingFacts(added.map(asRead))])
    this.freshPlaces.set(placeKey(row), { ...kept, said: row.said })
    return kept.place
  }

  /** Folds what was read of a place, and remembers it where its own carrier is known. */
  tellPlace(row: SaidRow | undefined, read: readonly Standing[]): StationStory {
    return row ? this.foldPlace(row, slim(read)) : foldStation(read)
  }

  private foldPlace(row: SaidRow, lines: readonly Standing[]): StationStory {
    const place = foldStation(lines)
    this.freshPlaces.set(placeKey(row), { said: row.said, lines, place })
    return place
  }

  /** To be called when all of it is written for good. */
  written(): void {
    this.store.take(this.fresh)
    this.store.take(this.freshPlaces)
    this.store.take(this.freshRows)
  }

  private keptRows(table: string, id: string): KeptRows | null {
    const [projected, revision] = [this.projected.get(id), this.seen.get(id)]
    if (!projected || revision === undefined) return null
    const kept = this.store.of(rowsKey(table, id))
    return kept && 'digests' in kept && kept.revision === revision - projected ? kept : null
  }

  private keptOf(key: string, row: SaidRow): Kept | KeptPlace | null {
    const counted = this.counted.get(row.id) ?? 0
    if (counted > 0 && this.isCorrecting) return null
    const kept = this.store.of(key)
    return kept && 'said' in kept && kept.said === row.said - counted ? kept : null
  }
}

/** As it would be read: what was left out is not there. */
const asRead = (draft: Draft): Draft => ({ ...draft, body: JSON.parse(JSON.stringify(draft.body)) as Draft['body'] })

/** Words that come again line after line stand once: as they are read each is a text of its own, and years of them are megabytes. */
function slim(lines: readonly Standing[]): readonly Standing[] {
  const words = new Map<unknown, unknown>()
  const once = (of: object) => {
    const fields = of as Record<string, unknown>
    for (const [name, value] of Object.entries(fields)) {
      if (typeof value !== 'string') continue
      if (!words.has(value)) words.set(value, value)
      fields[name] = words.get(value)
    }
  }
  for (const line of lines) {
    once(line)
    once(line.fact)
  }
  return lines
}
