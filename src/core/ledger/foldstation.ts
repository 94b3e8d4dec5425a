import { type EventId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
import { byTime, type Standing } from './resolve.ts'

/**
 * A station's running and standing, from every standing fact logged at it.
 *
 *   running ──stopped──> down ──restarted──> running
 *   down ──any later log here──> running, marked `log`: somebody worked on it, nobody said when it ran again
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
    else if (SHOWS_USE.has(fact.kind)) close(story, happenedMs, 'log')
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

function open(story: StationStory, stoppage: FoldedStoppage): void {
  const last = story.stoppages.at(-1)
  if (last && last.toMs === null) last.position = stoppage.position ?? last.position
  else story.stoppages.push(stoppage)
}

function close(story: StationStory, atMs: number, by: 'running' | 'log'): void {
  const last = story.stoppages.at(-1)
  if (last && last.toMs === null) Object.assign(last, { toMs: atMs, endedBy: by })
}
