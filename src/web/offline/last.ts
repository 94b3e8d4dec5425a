import { useSyncExternalStore } from 'react'
import { type Act, type LoggedAct } from '@contract/logbook.ts'

/** The last thing logged on this device: its pay-back line and undo stay until the next one. */
export interface LastLogged {
  acts: readonly Act[]
  logged: readonly LoggedAct[]
  /** No link: it waits on this device under its key. */
  kept?: { key: string; says: string }
}
let last: (LastLogged & { atMs: number }) | null = null
const watchers = new Set<() => void>()

export function keepLast(next: LastLogged | null): void {
  last = next && { ...next, atMs: Date.now() }
  watchers.forEach((watch) => watch())
}
export const useLast = () =>
  useSyncExternalStore(
    (watch) => {
      watchers.add(watch)
      return () => watchers.delete(watch)
    },
    () => last,
  )
