import { keptOnDevice, type DeviceStore } from './keptondevice.ts'
import { readAhead, strikeAhead, writeAhead } from './ahead.ts'
import { type Entry, type Refused } from './queue.ts'

/** What of the queue outlives the page. */
export interface Kept {
  entry: Entry
  /** Why the server would not take it. */
  message: string | null
}
export type QueueStore = DeviceStore<Kept>
export const splitKept = (all: readonly Kept[]): { waiting: Entry[]; refused: Refused[] } => ({
  waiting: all.filter((k) => k.message === null).map((k) => k.entry),
  refused: all.flatMap(({ entry, message }) => (message === null ? [] : [{ entry, message }])),
})

const onDevice = (): QueueStore =>
  keptOnDevice<Kept>({ database: 'idle-spool-queue', table: 'entries', keyOf: (kept) => kept.entry.key })

/** In the browser's database; what is still on its way there is written ahead, and so it is here from the moment it was noted. */
export function deviceStore(store: QueueStore = onDevice()): QueueStore {
  return {
    all: async () => {
      const kept = await store.all()
      const known = new Set(kept.map((k) => k.entry.key))
      const ahead = readAhead(Date.now()).filter((entry) => !known.has(entry.key))
      return [...kept, ...ahead.map((entry) => ({ entry, message: null }))]
    },
    put: async (kept) => {
      if (kept.message === null) writeAhead(kept.entry)
      await store.put(kept)
      strikeAhead(kept.entry.key)
    },
    remove: (key) => {
      strikeAhead(key)
      return store.remove(key)
    },
  }
}
