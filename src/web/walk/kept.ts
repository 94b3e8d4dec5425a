import { type WalkState } from './walkstate.ts'

const KEPT = 'idle-spool-walk'
/** The walk under way on this device; null: none, or what is there cannot be read. */
export function keptWalk(): WalkState | null {
  const text = localStorage.getItem(KEPT)
  if (!text) return null
  try {
    const state = JSON.parse(text) as WalkState
    return Array.isArray(state.stops) && Array.isArray(state.keys) && Array.isArray(state.noted) ? state : null
  } catch {
    return null
  }
}
export const keepWalk = (state: WalkState) => localStorage.setItem(KEPT, JSON.stringify(state))
export const dropWalk = () => localStorage.removeItem(KEPT)
