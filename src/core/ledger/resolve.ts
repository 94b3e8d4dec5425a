import { type EventId } from '@core/ids/id.ts'
import { FACTS } from './facts.ts'
import { type Correction, type LedgerEvent, type Occurrence } from './event.ts'

/**
 * What the ledger says now, corrections applied.
 *
 *   fact ──corrected by──> correction (replacement | withdrawn) ──corrected by──> …
 *
 * 1. Of several corrections of one line the one logged last stands (ties: greater id).
 * 2. A correction that is itself withdrawn is as if never made: what it corrected stands again.
 * 3. A correction that is itself replaced says the newer replacement.
 * 4. The order in which lines arrive changes nothing.
 */
export interface Standing extends Occurrence {
  eventId: EventId
  loggedMs: number
}

/** Of a line what it says, and what decides which of two stands. */
export type Said = Pick<LedgerEvent, 'id' | 'happenedMs' | 'loggedMs' | 'precision' | 'stationId' | 'body'>

export function standingFacts(events: readonly Said[]): Standing[] {
  const corrections = lastCorrections(events)
  return events.flatMap((event) => {
    if (event.body.type === 'correction') return []
    const said = {
      fact: event.body.fact,
      happenedMs: event.happenedMs,
      precision: event.precision,
      stationId: event.stationId,
    }
    const standing = resolve(event.id, said, corrections)
    return standing ? [{ ...standing, eventId: event.id, loggedMs: event.loggedMs }] : []
  })
}

type CorrectionEvent = Said & { body: Correction }

function lastCorrections(events: readonly Said[]): Map<EventId, CorrectionEvent[]> {
  const byTarget = new Map<EventId, CorrectionEvent[]>()
  for (const event of events) {
    if (event.body.type !== 'correction') continue
    const list = byTarget.get(event.body.correctsId) ?? []
    list.push(event as CorrectionEvent)
    byTarget.set(event.body.correctsId, list)
  }
  for (const list of byTarget.values()) list.sort((a, b) => b.loggedMs - a.loggedMs || (a.id < b.id ? 1 : -1))
  return byTarget
}

function resolve(id: EventId, said: Occurrence, corrections: Map<EventId, CorrectionEvent[]>): Occurrence | null {
  for (const correction of corrections.get(id) ?? []) {
    const verdict = resolveCorrection(correction, corrections)
    if (verdict !== 'withdrawn') return verdict.says
  }
  return said
}

/** A withdrawn correction is skipped; any other says its replacement, or the newest one put in its place. */
function resolveCorrection(
  correction: CorrectionEvent,
  corrections: Map<EventId, CorrectionEvent[]>,
): 'withdrawn' | { says: Occurrence | null } {
  for (const newer of corrections.get(correction.id) ?? []) {
    const verdict = resolveCorrection(newer, corrections)
    if (verdict === 'withdrawn') continue
    return verdict.says === null ? 'withdrawn' : verdict
  }
  return { says: correction.body.replacement }
}

/** Order of a carrier's life: by when it happened; at the same instant removed before fitted; then as logged. */
export function byTime(a: Standing, b: Standing): number {
  return (
    a.happenedMs - b.happenedMs ||
    FACTS[a.fact.kind].rank - FACTS[b.fact.kind].rank ||
    a.loggedMs - b.loggedMs ||
    (a.eventId < b.eventId ? -1 : a.eventId > b.eventId ? 1 : 0)
  )
}
