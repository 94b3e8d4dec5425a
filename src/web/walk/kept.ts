import { type WalkState } from './walkstate.ts'

const KEPT = 'idle-spool-walk'
/** What is kept on this device under a name; null: nothing, or what is there cannot be read. */
function kept<T extends object>(name: string, isWhole: (value: T) => boolean): T | null {
  const text = localStorage.getItem(name)
  if (!text) return null
  try {
    const value = JSON.parse(text) as T
    return isWhole(value) ? value : null
  } catch {
    return null
  }
}
/** The walk under way. */
export const keptWalk = () =>
  kept<WalkState>(KEPT, (s) => [s.stops, s.keys, s.noted, s.acts, s.settled].every((list) => Array.isArray(list)))
export const keepWalk = (state: WalkState) => localStorage.setItem(KEPT, JSON.stringify(state))
export const dropWalk = () => localStorage.removeItem(KEPT)

const PRINTED = 'idle-spool-walk-printed'
/** The walk as it was printed last. */
export interface PrintedWalk {
  stops: WalkState['stops']
  printedMs: number
}
export const printedWalk = () => kept<PrintedWalk>(PRINTED, (p) => Array.isArray(p.stops) && p.stops.length > 0)
export const keepPrinted = (printed: PrintedWalk) => localStorage.setItem(PRINTED, JSON.stringify(printed))
