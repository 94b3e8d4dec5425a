import { type Entry } from './queue.ts'

/**
 * Entries written down at once, before anything is waited for: the browser's small store answers in the same breath, its big one and the server do
 * not, and a page can be left, put to sleep or killed in between. One item an entry, so that two tabs never write over each other.
 */
const NAME = 'idle-spool-ahead/'
/** No page waits longer for the server than this before it keeps an entry itself. */
export const HELD_MS = 10_000

interface Ahead {
  entry: Entry
  /** The page that wrote it sends it itself until then; null: whoever finds it takes it up. */
  heldUntilMs: number | null
}

/** Without room it is not written ahead; whoever keeps it for good says so. */
export function writeAhead(entry: Entry, heldUntilMs: number | null = null): void {
  try {
    globalThis.localStorage?.setItem(NAME + entry.key, JSON.stringify({ entry, heldUntilMs } satisfies Ahead))
  } catch {
    return
  }
}
export const strikeAhead = (key: string): void => globalThis.localStorage?.removeItem(NAME + key)

function read(text: string | null): Partial<Ahead> {
  try {
    return JSON.parse(text ?? '{}') as Partial<Ahead>
  } catch {
    return {}
  }
}

/** What a page that is gone left behind, and what nobody holds. A clock that was put back holds nothing for longer than a page would. */
export function readAhead(nowMs: number): Entry[] {
  const store = globalThis.localStorage
  const names = Array.from({ length: store?.length ?? 0 }, (_, n) => store.key(n) ?? '')
  return names
    .filter((name) => name.startsWith(NAME))
    .flatMap((name) => {
      const { entry, heldUntilMs } = read(store.getItem(name))
      const leftMs = (heldUntilMs ?? 0) - nowMs
      return entry && (leftMs <= 0 || leftMs > HELD_MS) ? [entry] : []
    })
}
