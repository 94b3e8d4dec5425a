/**
 * What was written without a link, kept on the device until the server has it.
 *
 *   made ──store──> waiting ──send──> on the way ──kept · before──> gone
 *                      ^                   │  └──refused──> refused (kept, listed, until somebody puts it away)
 *                      │  └──no link · fault──┘   and later each time, up to a minute
 *                      └──taken back, while it is not on the way──> gone
 *
 * 1. An entry is stored before it counts as noted, and leaves the store only after the server answered for it by its key.
 * 2. One batch is on the way at a time; what is made meanwhile waits for the next.
 * 3. Entries go in the order they were made; a batch is of one kind.
 * 4. Nothing is lost and nothing doubled: every entry ever made is waiting, answered, refused or taken back, whatever the order of losses, retries,
 *    restarts and second tabs. What the server had before counts as answered.
 * 5. Pure: the driver does what the effects say, and tells what came of it.
 */
export type EntryKind = 'walk' | 'post'
export interface Entry {
  key: string
  kind: EntryKind
  /** Where it goes, below /api. */
  path: string
  body: object
  /** When it was made, by the device's clock. */
  atMs: number
  /** What it is, in a line for people. */
  says: string
}
export interface Refused {
  entry: Entry
  message: string
}
export interface QueueState {
  waiting: readonly Entry[]
  onTheWay: readonly string[]
  refused: readonly Refused[]
  /** Not before this; null: at once. */
  retryAtMs: number | null
  failures: number
}
export type QueueEvent =
  | { type: 'restored'; waiting: readonly Entry[]; refused: readonly Refused[] }
  | { type: 'made'; entry: Entry }
  /** Time passed, the link came back, another tab is gone. */
  | { type: 'go'; isLinkBack?: boolean }
  | { type: 'answered'; results: readonly { key: string; is: 'kept' | 'before' | 'refused'; message: string | null }[] }
  | { type: 'failed' }
  | { type: 'putAway'; key: string }
  | { type: 'takenBack'; key: string }
export type QueueEffect =
  | { do: 'store'; entry: Entry }
  | { do: 'send'; batch: readonly Entry[] }
  | { do: 'remove'; keys: readonly string[] }
  | { do: 'storeRefused'; refused: readonly Refused[] }
  | { do: 'wakeAt'; atMs: number }

export const EMPTY: QueueState = { waiting: [], onTheWay: [], refused: [], retryAtMs: null, failures: 0 }
/** As many as the server takes at once. */
export const BATCH = 2000
const FIRST_WAIT_MS = 1000
const LONGEST_WAIT_MS = 60_000

export interface Step {
  state: QueueState
  effects: QueueEffect[]
}
const same = (state: QueueState): Step => ({ state, effects: [] })

export function queueStep(state: QueueState, event: QueueEvent, nowMs: number): Step {
  switch (event.type) {
    case 'restored':
      return sent({ ...state, ...withRestored(state, event) }, nowMs)
    case 'made': {
      if (state.waiting.some((e) => e.key === event.entry.key)) return same(state)
      const next = { ...state, waiting: [...state.waiting, event.entry] }
      const { state: after, effects } = sent(next, nowMs)
      return { state: after, effects: [{ do: 'store', entry: event.entry }, ...effects] }
    }
    case 'go':
      return sent(event.isLinkBack ? { ...state, retryAtMs: null } : state, nowMs)
    case 'answered':
      return answered(state, event.results, nowMs)
    case 'failed': {
      const failures = state.failures + 1
      const retryAtMs = nowMs + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (failures - 1))
      return { state: { ...state, onTheWay: [], failures, retryAtMs }, effects: [{ do: 'wakeAt', atMs: retryAtMs }] }
    }
    case 'takenBack':
      if (!canTakeBack(state, event.key)) return same(state)
      return {
        state: { ...state, waiting: state.waiting.filter((e) => e.key !== event.key) },
        effects: [{ do: 'remove', keys: [event.key] }],
      }
    case 'putAway':
      return {
        state: { ...state, refused: state.refused.filter((r) => r.entry.key !== event.key) },
        effects: [{ do: 'remove', keys: [event.key] }],
      }
  }
}

/** Still here and nowhere else: after that it is corrected in the logbook. */
export const canTakeBack = ({ waiting, onTheWay }: QueueState, key: string) =>
  waiting.some((e) => e.key === key) && !onTheWay.includes(key)

/** What the store holds and this page does not know yet: its own from before, or another tab's. */
function withRestored(state: QueueState, from: { waiting: readonly Entry[]; refused: readonly Refused[] }) {
  const known = new Set([...state.waiting.map((e) => e.key), ...state.refused.map((r) => r.entry.key)])
  const waiting = [...state.waiting, ...from.waiting.filter((e) => !known.has(e.key))]
  return {
    waiting: waiting.sort((a, b) => a.atMs - b.atMs),
    refused: [...state.refused, ...from.refused.filter((r) => !known.has(r.entry.key))],
  }
}

/** Sends the next batch, where nothing is on the way and it is time. */
function sent(state: QueueState, nowMs: number): Step {
  const [first] = state.waiting
  if (!first || state.onTheWay.length > 0) return same(state)
  if (state.retryAtMs !== null && nowMs < state.retryAtMs) return same(state)
  const end = state.waiting.findIndex((e) => e.kind !== first.kind)
  const most = first.kind === 'post' ? 1 : BATCH
  const batch = state.waiting.slice(0, Math.min(most, end === -1 ? state.waiting.length : end))
  return {
    state: { ...state, onTheWay: batch.map((e) => e.key), retryAtMs: null },
    effects: [{ do: 'send', batch }],
  }
}

function answered(
  state: QueueState,
  results: Extract<QueueEvent, { type: 'answered' }>['results'],
  nowMs: number,
): Step {
  const byKey = new Map(results.map((r) => [r.key, r]))
  const gone = state.waiting.filter((e) => byKey.has(e.key))
  const refused = gone.flatMap((entry) => {
    const result = byKey.get(entry.key)
    return result?.is === 'refused' ? [{ entry, message: result.message ?? 'The server would not take it.' }] : []
  })
  const kept = gone.filter((e) => byKey.get(e.key)?.is !== 'refused').map((e) => e.key)
  const next = {
    ...state,
    waiting: state.waiting.filter((e) => !byKey.has(e.key)),
    refused: [...state.refused, ...refused],
    onTheWay: [],
    failures: 0,
    retryAtMs: null,
  }
  const after = sent(next, nowMs)
  const effects: QueueEffect[] = []
  if (refused.length > 0) effects.push({ do: 'storeRefused', refused })
  if (kept.length > 0) effects.push({ do: 'remove', keys: kept })
  return { state: after.state, effects: [...effects, ...after.effects] }
}

/** Since when the oldest has been waiting; null: nothing waits. */
export const waitingSince = ({ waiting }: QueueState): number | null => waiting[0]?.atMs ?? null
