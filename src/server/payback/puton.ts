import { and, eq, gte, inArray, lt, sql } from 'drizzle-orm'
import { idsFrom, type EventId, type PartId, type StationId } from '@core/ids/id.ts'
import { standingFacts, type Said, type Standing } from '@core/ledger/resolve.ts'
import { type Position } from '@core/path/columns.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Deps } from '@server/call/context.ts'
import { type Reader } from '@server/db/db.ts'
import { saidWhere } from '@server/ledger/chains.ts'

/** A part that was put on, as the log says now. */
export interface PutOn {
  eventId: EventId
  happenedMs: number
  stationId: StationId | null
  position: Position
  partId: PartId | null
  n: number
  /** It was new then, and not one that hung there when somebody first looked. */
  isNew: boolean
}

/** A piece of work that writes for longer than this, or a server whose clock is further behind, is not counted on. */
const OVERLAP_MS = 10 * MIN_MS

/**
 * Parts put on since some day, kept as they stand: half a year of a large shop is tens of thousands of lines, of which a day adds a hundred.
 * 1. Kept by the line that was said first. An id begins with the time at which it was made: what was written from a while before the newest look on is
 *    read again, and every line it puts right with it.
 * 2. Asked for further back than it goes, all of it is read anew.
 * 3. Nothing depends on one process: an empty store reads what it lacks.
 */
export class PutOnStore {
  private kept: { sinceMs: number; readMs: number; byRoot: Map<EventId, PutOn> } | null = null
  private reading: Promise<unknown> = Promise.resolve()

  /** Since then, in no order. */
  async read(db: Reader, sinceMs: number, nowMs: number): Promise<PutOn[]> {
    // One at a time: two that read it whole beside each other would do it twice.
    const read = this.reading.then(() => this.renew(db, sinceMs, nowMs))
    this.reading = read.catch(() => (this.kept = null))
    const byRoot = await read
    return [...byRoot.values()].filter((p) => p.happenedMs >= sinceMs)
  }

  private async renew(db: Reader, sinceMs: number, nowMs: number): Promise<Map<EventId, PutOn>> {
    const { kept } = this
    if (!kept || kept.sinceMs > sinceMs || kept.readMs > nowMs) return this.whole(db, sinceMs, nowMs)
    const roots = await writtenSince(db, kept.readMs - OVERLAP_MS)
    // Past work was brought in: by then one read of all of it is quicker than a long list of lines.
    if (roots.length > MOST_ROOTS) return this.whole(db, kept.sinceMs, nowMs)
    roots.forEach((id) => kept.byRoot.delete(id))
    if (roots.length > 0)
      for (const p of stand(await saidWhere(db, inArray(ledgerEvent.rootId, roots)))) kept.byRoot.set(p.eventId, p)
    kept.readMs = nowMs
    return kept.byRoot
  }

  private async whole(db: Reader, sinceMs: number, nowMs: number): Promise<Map<EventId, PutOn>> {
    const byRoot = new Map((await readPutOn(db, { sinceMs, nowMs })).map((p) => [p.eventId, p]))
    this.kept = { sinceMs, readMs: nowMs, byRoot }
    return byRoot
  }
}

const MOST_ROOTS = 2000
/** Parts put on, and lines that were put right, as far as they were written since: the lines they were first said as. */
async function writtenSince(db: Reader, sinceMs: number): Promise<EventId[]> {
  const since = gte(ledgerEvent.id, sql`${idsFrom('event', sinceMs)}`)
  const rows = await db
    .selectDistinct({ rootId: ledgerEvent.rootId })
    .from(ledgerEvent)
    .where(and(since, inArray(ledgerEvent.kind, ['fitted', 'corrected'])))
    .limit(MOST_ROOTS + 1)
  return rows.map((r) => r.rootId)
}

/** So many days of lines are held at once as they are read; what is made of them is a tenth as large. */
const SLICE_MS = 60 * DAY_MS
/** The same, read at once and not kept. */
export async function readPutOn(db: Reader, { sinceMs, nowMs }: { sinceMs: number; nowMs: number }): Promise<PutOn[]> {
  const all: PutOn[] = []
  for (let fromMs = sinceMs; fromMs <= nowMs; fromMs += SLICE_MS) {
    const isLast = fromMs + SLICE_MS > nowMs
    const here = and(
      eq(ledgerEvent.kind, 'fitted'),
      gte(ledgerEvent.happenedMs, fromMs),
      isLast ? undefined : lt(ledgerEvent.happenedMs, fromMs + SLICE_MS),
    )
    all.push(...stand(await saidWhere(db, here)))
  }
  return all
}

const stand = (rows: readonly Said[]): PutOn[] => standingFacts(rows).flatMap(putOnOf)

function putOnOf({ fact, eventId, happenedMs, stationId }: Standing): PutOn[] {
  if (fact.kind !== 'fitted') return []
  const { position, partId, count: n } = fact
  return [{ eventId, happenedMs, stationId, position, partId, n, isNew: fact.entryAge === 'new' }]
}

/** What it takes to say what stops cost: the parts put on, kept. */
export type PutOnDeps = Deps & { putOn: PutOnStore }
