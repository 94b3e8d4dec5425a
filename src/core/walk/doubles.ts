import { type CarrierId, type EventId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
/** Parts changed or cleaned, as the log has them: by whom and from where only to tell two hands apart. */
export interface DoneAct {
  eventId: EventId
  carrierId: CarrierId
  position: Position
  kind: string
  happenedMs: number
  by: string
}
/** The same act at one part from two devices within this is most likely one act, said twice. */
export const SAME_ACT_MS = 10 * 60_000

/**
 * Pairs of acts that may be one: the same thing done at the same part, by two devices or people, within ten minutes; each act in one pair at
 * most, the nearest. Both are kept: somebody is asked.
 */
export function doublesOf(acts: readonly DoneAct[]): [DoneAct, DoneAct][] {
  const sorted = [...acts].sort((a, b) => a.happenedMs - b.happenedMs)
  const open = new Map<string, DoneAct>()
  const pairs: [DoneAct, DoneAct][] = []
  for (const act of sorted) {
    const key = `${act.carrierId} ${act.position} ${act.kind}`
    const before = open.get(key)
    if (before && before.by !== act.by && act.happenedMs - before.happenedMs <= SAME_ACT_MS) {
      pairs.push([before, act])
      open.delete(key)
    } else open.set(key, act)
  }
  return pairs
}
