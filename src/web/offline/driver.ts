import {
  canTakeBack,
  EMPTY,
  queueStep,
  type Entry,
  type QueueEffect,
  type QueueEvent,
  type QueueState,
} from './queue.ts'
import { splitKept, type QueueStore } from './store.ts'

export type Answered = Extract<QueueEvent, { type: 'answered' }>['results']
export interface DriverParts {
  store: QueueStore
  /** Null: no link, or a server that tripped: another try may bring it through. */
  send: (batch: readonly Entry[]) => Promise<Answered | null>
  now: () => number
  wakeAt: (atMs: number, wake: () => void) => void
  onAnswered?: () => void
}

/** Does what the queue says and tells it what came of it; every rule is in `queue.ts`. */
export class QueueDriver {
  private state: QueueState = EMPTY
  private readonly watchers = new Set<() => void>()
  /** Not in the store, because there is no room: as long as the page is open they go all the same. */
  private readonly unstored = new Set<string>()
  constructor(private readonly parts: DriverParts) {}

  read = (): QueueState => this.state
  watch = (watcher: () => void): (() => void) => {
    this.watchers.add(watcher)
    return () => this.watchers.delete(watcher)
  }
  /** What is in the store joins what is known: at the start, and when another tab may have gone. */
  restore = async (): Promise<void> => this.tell({ type: 'restored', ...splitKept(await this.parts.store.all()) })
  /** Stored when this answers: only then is it noted. */
  add = (entry: Entry): Promise<void> => this.tell({ type: 'made', entry })
  go = (isLinkBack = false): Promise<void> => this.tell({ type: 'go', isLinkBack })
  /** Whether it was still here to be taken back. */
  takeBack = async (key: string): Promise<boolean> => {
    const isHere = canTakeBack(this.state, key)
    await this.tell({ type: 'takenBack', key })
    return isHere
  }
  putAway = (key: string): Promise<void> => this.tell({ type: 'putAway', key })

  private async tell(event: QueueEvent): Promise<void> {
    const { state, effects } = queueStep(this.state, event, this.parts.now())
    const isChanged = state !== this.state
    this.state = state
    if (isChanged) for (const watcher of this.watchers) watcher()
    // One that fails is told; the others are done all the same.
    const failed: unknown[] = []
    for (const effect of effects) await this.act(effect).catch((problem: unknown) => failed.push(problem))
    if (failed.length > 0) throw failed[0]
  }

  private async act(effect: QueueEffect): Promise<void> {
    const { store, wakeAt } = this.parts
    switch (effect.do) {
      case 'store':
        this.unstored.add(effect.entry.key)
        await store.put({ entry: effect.entry, message: null })
        this.unstored.delete(effect.entry.key)
        return
      case 'remove':
        await Promise.all(effect.keys.map((key) => store.remove(key)))
        return
      case 'storeRefused':
        await Promise.all(effect.refused.map((r) => store.put(r)))
        return
      case 'wakeAt':
        return wakeAt(effect.atMs, () => void this.go())
      case 'send':
        // Sent beside: whoever noted something does not wait for the network.
        void this.send(effect.batch)
    }
  }

  private async send(batch: readonly Entry[]): Promise<void> {
    // Gone from the store meanwhile: another tab had its answer, or somebody took it back there.
    const stored = new Set((await this.parts.store.all()).map((kept) => kept.entry.key))
    const isHere = (e: Entry) => stored.has(e.key) || this.unstored.has(e.key)
    const gone = batch.filter((e) => !isHere(e)).map((e) => ({ key: e.key, is: 'before' as const, message: null }))
    const left = batch.filter(isHere)
    const results = left.length > 0 ? await this.parts.send(left) : []
    if (!results) return this.tell({ type: 'failed' })
    await this.tell({ type: 'answered', results: [...gone, ...results] })
    this.parts.onAnswered?.()
  }
}
