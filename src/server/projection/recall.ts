import { type CarrierId, type StationId } from '@core/ids/id.ts'
import { type HeadClocks } from '@core/clock/headclock.ts'
import { foldCarrier, type CarrierStory } from '@core/ledger/fold.ts'
import { standingFacts, type Standing } from '@core/ledger/resolve.ts'
import { carrierOf } from '@core/ledger/event.ts'
import { type Draft } from '@server/ledger/lines.ts'

/** A carrier as this server last read it: its lines, folded; of a head the clocks they and its entries of use made. */
interface Kept {
  /** How many acts had spoken of it. */
  said: number
  lines: readonly Standing[]
  /** Of a place: nothing but its lines. */
  story: CarrierStory | null
  clocks?: KeptClocks | undefined
}
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

/** Some 40 MB. */
const MOST_LINES = 60_000

/**
 * What one server remembers of carriers and places, so that the next act need not read years of lines again.
 * 1. Kept under the number of acts that had spoken of the carrier (`carrier.said`; of a place, of its own carrier), which whoever appends counts in the
 *    same transaction: another count, and it is read anew, whoever wrote.
 * 2. The count is read before the lines, so what is kept is at least as new as it says.
 * 3. Taken in after the commit only: what was rolled back never happened.
 * 4. Bounded by lines; what was longest not asked for goes first. Nothing depends on it: an empty store reads what it lacks.
 */
export class StoryStore {
  private readonly kept = new Map<string, Kept>()
  private lines = 0

  constructor(private readonly mostLines = MOST_LINES) {}

  of(key: string): Kept | undefined {
    const kept = this.kept.get(key)
    if (!kept) return undefined
    // Asked for last, it stands last.
    this.kept.delete(key)
    this.kept.set(key, kept)
    return kept
  }

  take(fresh: ReadonlyMap<string, Kept>): void {
    for (const [key, kept] of fresh) {
      this.drop(key)
      this.kept.set(key, kept)
      this.lines += weightOf(kept)
    }
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
const PIECES_A_LINE = 4
/** In lines; of pieces of a clock several are as large as one. */
const weightOf = ({ lines, clocks }: Kept): number =>
  1 +
  lines.length +
  Object.values(clocks?.clocks ?? {}).reduce((sum, clock) => sum + (clock?.pieces.length ?? 0), 0) / PIECES_A_LINE

const placeKey = (row: SaidRow) => `at ${row.id}`

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
  private readonly fresh = new Map<string, Kept>()

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

  /** A carrier's story without reading its lines; null where they have to be read. */
  storyOf(row: SaidRow): CarrierStory | null {
    const here = this.fresh.get(row.id)
    if (here?.said === row.said) return here.story
    const kept = this.keptOf(row.id, row)
    if (!kept?.story) return null
    const clocks = this.isUse && this.counted.has(row.id) ? undefined : kept.clocks
    const added = this.added.get(row.id) ?? []
    if (added.length > 0) return this.tell(row, [...kept.lines, ...standingFacts(added.map(asRead))], clocks)
    this.fresh.set(row.id, { ...kept, said: row.said, clocks })
    return kept.story
  }

  /** Folds what was read of it, and remembers it. */
  tell(row: SaidRow, lines: readonly Standing[], clocks?: KeptClocks): CarrierStory {
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

  /** What was said at a place, by its own carrier; null where it has to be read. */
  linesAt(stationId: StationId, row: SaidRow): readonly Standing[] | null {
    const kept = this.keptOf(placeKey(row), row)
    if (!kept) return null
    const added = this.addedAt.get(stationId) ?? []
    const lines = added.length > 0 ? [...kept.lines, ...standingFacts(added.map(asRead))] : kept.lines
    this.keepAt(row, lines)
    return lines
  }

  keepAt(row: SaidRow, lines: readonly Standing[]): void {
    this.fresh.set(placeKey(row), { said: row.said, lines, story: null })
  }

  /** To be called when all of it is written for good. */
  written(): void {
    this.store.take(this.fresh)
  }

  private keptOf(key: string, row: SaidRow): Kept | null {
    const counted = this.counted.get(row.id) ?? 0
    if (counted > 0 && this.isCorrecting) return null
    const kept = this.store.of(key)
    return kept?.said === row.said - counted ? kept : null
  }
}

/** As it would be read: what was left out is not there. */
const asRead = (draft: Draft): Draft => ({ ...draft, body: JSON.parse(JSON.stringify(draft.body)) as Draft['body'] })
