import { keptOnDevice, type DeviceStore } from './keptondevice.ts'
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

export const deviceStore = (): QueueStore =>
  keptOnDevice<Kept>({ database: 'idle-spool-queue', table: 'entries', keyOf: (kept) => kept.entry.key })
