import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import { type Entry, type Refused } from './queue.ts'

/** What of the queue outlives the page. */
export interface Kept {
  entry: Entry
  /** Why the server would not take it. */
  message: string | null
}
export interface QueueStore {
  all: () => Promise<Kept[]>
  put: (kept: Kept) => Promise<void>
  remove: (key: string) => Promise<void>
}
export const splitKept = (all: readonly Kept[]): { waiting: Entry[]; refused: Refused[] } => ({
  waiting: all.filter((k) => k.message === null).map((k) => k.entry),
  refused: all.flatMap(({ entry, message }) => (message === null ? [] : [{ entry, message }])),
})

/** On the device, beyond this page; where a browser has no such place, as long as the page is open. */
export function deviceStore(): QueueStore {
  if (typeof indexedDB === 'undefined') {
    const kept = new Map<string, Kept>()
    return {
      all: () => Promise.resolve([...kept.values()]),
      put: (one) => Promise.resolve(void kept.set(one.entry.key, one)),
      remove: (key) => Promise.resolve(void kept.delete(key)),
    }
  }
  let opened: UseStore | null = null
  const store = () => (opened ??= createStore('idle-spool-queue', 'entries'))
  return {
    all: async () => (await entries<string, Kept>(store())).map(([, kept]) => kept),
    put: (one) => set(one.entry.key, one, store()),
    remove: (key) => del(key, store()),
  }
}
