import { HOUR_MS } from '@core/units/time.ts'
import { type EventId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
import { byTime, type Standing } from './resolve.ts'

/**
 * A station's running and standing, from every standing fact logged at it.
 *
 *   running ──stopped──> down ──restarted──> running
 *   down ──any later log here──> running, marked `log`: somebody worked on it, nobody said when it ran again
 *   down ──a part put on to try──> down: that is the search, and not its end
 *   ended by a log ──restarted──> it ended then, where that is within a shift's length
 *   in use ──parked──> parked ──unparked | any later log here──> in use
 *
 * 1. At most one stoppage is open. A second "it's down" names the place, it does not start another.
 */
export interface FoldedStoppage {
  fromMs: number
  fromEventId: EventId
  position: Position | null
  toMs: number | null
  endedBy: 'running' | 'log' | null
}
export interface StationStory {
  stoppages: FoldedStoppage[]
  isParked: boolean
  lastMs: number | null
}

const SHOWS_USE = new Set(['fitted', 'removed', 'cleaned', 'confirmed', 'wireLoaded', 'mounted'])

export function foldStation(facts: readonly Standing[]): StationStory {
  const story: StationStory = { stoppages: [], isParked: false, lastMs: null }
  for (const { fact, happenedMs, eventId } of [...facts].sort(byTime)) {
    if (fact.kind === 'stopped')
      open(story, { fromMs: happenedMs, fromEventId: eventId, position: fact.position, toMs: null, endedBy: null })
    else if (fact.kind === 'restarted') close(story, happenedMs, 'running')
    else if (SHOWS_USE.has(fact.kind) && !isTried(fact)) close(story, happenedMs, 'log')
    if (fact.kind === 'parked') story.isParked = true
    else if (
      fact.kind === 'unparked' ||
      fact.kind === 'stopped' ||
      fact.kind === 'restarted' ||
      SHOWS_USE.has(fact.kind)
    )
      story.isParked = false
    if (fact.kind !== 'usageEntered' && fact.kind !== 'shopChanged') story.lastMs = happenedMs
  }
  return story
}

/** A part put on to see whether it helps. */
const isTried = (fact: Standing['fact']) => fact.kind === 'fitted' && fact.outReason === 'toTry'

function open(story: StationStory, stoppage: FoldedStoppage): void {
  const last = story.stoppages.at(-1)
  if (last && last.toMs === null) last.position = stoppage.position ?? last.position
  else story.stoppages.push(stoppage)
}

/** Said to run again so long after a log that ended it: it had stood till then. */
const SHIFT_MS = 10 * HOUR_MS
function close(story: StationStory, atMs: number, by: 'running' | 'log'): void {
  const last = story.stoppages.at(-1)
  if (!last) return
  const isSaidLate = by === 'running' && last.endedBy === 'log' && atMs - (last.toMs ?? atMs) < SHIFT_MS
  if (last.toMs === null || isSaidLate) Object.assign(last, { toMs: atMs, endedBy: by })
}
