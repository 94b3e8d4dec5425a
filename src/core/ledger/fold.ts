import { type CarrierId, type EventId, type PartId, type SpoolId, type WireId } from '@core/ids/id.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'
import { type Precision } from './event.ts'
import { byTime, type Standing } from './resolve.ts'

/**
 * One carrier's story from its standing facts, in the order they happened.
 *
 *   position:  empty ──fitted──> in place ──removed──> empty
 *              in place ──fitted──> in place (the old life ends, reason as said)
 *
 * 1. Pure: the same facts give the same story, whatever order they came in.
 * 2. Each position has at most one open life, and lives of one position never overlap.
 * 3. A carrier hangs on at most one other at a time.
 */
export interface FoldedLife {
  position: Position
  partId: PartId | null
  fromMs: number
  fromEventId: EventId
  fromPrecision: Precision
  entryAge: 'new' | 'unknown'
  toMs: number | null
  toEventId: EventId | null
  toPrecision: Precision | null
  outReason: OutReason | null
  /** How many parts this stretch stands for; over 1 the lives are coarse. */
  count: number
  /** Times it was cleaned while in place. */
  cleanings: number
}
export interface FoldedPosition {
  position: Position
  openLife: FoldedLife | null
  cleanedMs: number | null
  cleanings: number
  seenMs: number | null
}
export interface FoldedMount {
  onId: CarrierId
  fromMs: number
  toMs: number | null
  fromEventId: EventId
}
export interface FoldedSpool {
  atMs: number
  wireId: WireId | null
  labelKg: number | null
  leftKg: number | null
  loggedMs: number
  eventId: EventId
  spoolId: SpoolId | null
  /** When it came off again, before another went on; and what was then left on it, where somebody said. */
  offMs: number | null
  offLeftKg: number | null
  /** What was found on it while it hung there. */
  reads: { atMs: number; kg: number; sdKg: number; loggedMs: number; isWeighed: boolean }[]
}

export interface CarrierStory {
  lives: FoldedLife[]
  positions: Map<Position, FoldedPosition>
  mounts: FoldedMount[]
  spools: FoldedSpool[]
  lastMs: number | null
}

export function foldCarrier(facts: readonly Standing[]): CarrierStory {
  const story: CarrierStory = { lives: [], positions: new Map(), mounts: [], spools: [], lastMs: null }
  for (const fact of [...facts].sort(byTime)) apply(story, fact)
  for (const position of story.positions.values()) if (position.openLife) story.lives.push(position.openLife)
  return story
}

function positionOf(story: CarrierStory, position: Position): FoldedPosition {
  const known = story.positions.get(position)
  if (known) return known
  const made = { position, openLife: null, cleanedMs: null, cleanings: 0, seenMs: null }
  story.positions.set(position, made)
  return made
}

function apply(story: CarrierStory, standing: Standing): void {
  const { fact, happenedMs } = standing
  story.lastMs = happenedMs
  switch (fact.kind) {
    case 'fitted':
      return applyFitted(story, standing, fact)
    case 'removed':
      return applyRemoved(story, standing, fact)
    case 'cleaned':
      return applyCleaned(positionOf(story, fact.position), happenedMs)
    case 'confirmed':
      return applyConfirmed(story, fact.position, happenedMs)
    case 'mounted':
      return applyMounted(story, standing, fact.onId)
    case 'wireLoaded':
      story.spools.push({
        atMs: happenedMs,
        wireId: fact.wireId,
        labelKg: fact.labelKg,
        leftKg: fact.leftKg,
        loggedMs: standing.loggedMs,
        eventId: standing.eventId,
        spoolId: fact.spoolId ?? null,
        offMs: null,
        offLeftKg: null,
        reads: [],
      })
      return
    case 'wireOff':
      return applyOff(story, happenedMs, fact.leftKg)
    case 'spoolRead': {
      const { leftKg: kg, sdKg } = fact
      const read = { atMs: happenedMs, kg, sdKg, loggedMs: standing.loggedMs, isWeighed: fact.how === 'weighed' }
      story.spools.at(-1)?.reads.push(read)
      return
    }
    default:
      return
  }
}

function applyOff(story: CarrierStory, atMs: number, leftKg: number | null): void {
  const spool = story.spools.at(-1)
  if (!spool || spool.offMs !== null) return
  spool.offMs = atMs
  spool.offLeftKg = leftKg
}

function applyFitted(
  story: CarrierStory,
  standing: Standing,
  fact: Extract<Standing['fact'], { kind: 'fitted' }>,
): void {
  const position = positionOf(story, fact.position)
  // With ×n the part found on was the first of n since the last log: the stretch stands for n lives, none of them exact.
  if (position.openLife) closeLife(story, position, { standing, reason: fact.outReason, count: fact.count })
  position.openLife = {
    position: fact.position,
    partId: fact.partId,
    fromMs: standing.happenedMs,
    fromEventId: standing.eventId,
    fromPrecision: standing.precision,
    entryAge: fact.entryAge,
    toMs: null,
    toEventId: null,
    toPrecision: null,
    outReason: null,
    count: 1,
    cleanings: 0,
  }
  position.cleanedMs = standing.happenedMs
  position.cleanings = 0
  position.seenMs = standing.happenedMs
}

function closeLife(
  story: CarrierStory,
  position: FoldedPosition,
  end: { standing: Standing; reason: OutReason; count: number },
): void {
  const life = position.openLife
  if (!life) return
  story.lives.push({
    ...life,
    toMs: end.standing.happenedMs,
    toEventId: end.standing.eventId,
    toPrecision: end.standing.precision,
    outReason: end.reason,
    count: end.count,
    cleanings: position.cleanings,
  })
  position.openLife = null
}

function applyRemoved(
  story: CarrierStory,
  standing: Standing,
  fact: Extract<Standing['fact'], { kind: 'removed' }>,
): void {
  const position = positionOf(story, fact.position)
  closeLife(story, position, { standing, reason: fact.outReason, count: 1 })
  position.seenMs = standing.happenedMs
  position.cleanedMs = null
}

function applyCleaned(position: FoldedPosition, atMs: number): void {
  position.cleanedMs = atMs
  position.cleanings += 1
  position.seenMs = atMs
}

function applyConfirmed(story: CarrierStory, at: Position | null, atMs: number): void {
  if (at) positionOf(story, at).seenMs = atMs
  else {
    for (const position of story.positions.values()) position.seenMs = atMs
    positionOf(story, ALL_POSITIONS).seenMs = atMs
  }
}

/** Stands for "the whole carrier was looked at"; positions with no log of their own read it. */
export const ALL_POSITIONS: Position = '*'

function applyMounted(story: CarrierStory, standing: Standing, onId: CarrierId | null): void {
  const open = story.mounts.at(-1)
  if (open && open.toMs === null) {
    if (open.onId === onId) return
    open.toMs = standing.happenedMs
    if (open.toMs === open.fromMs) story.mounts.pop()
  }
  if (onId) story.mounts.push({ onId, fromMs: standing.happenedMs, toMs: null, fromEventId: standing.eventId })
}
