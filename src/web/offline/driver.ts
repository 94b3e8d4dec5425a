import { EMPTY, queueStep, type Entry, type QueueEffect, type QueueEvent, type QueueState } from './queue.ts'
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
  putAway = (key: string): Promise<void> => this.tell({ type: 'putAway', key })

  private async tell(event: QueueEvent): Promise<void> {
    const { state, effects } = queueStep(this.state, event, this.parts.now())
    const isChanged = state !== this.state
    this.state = state
    if (isChanged) for (const watcher of this.watchers) watcher()
    for (const effect of effects) await this.act(effect)
  }

  private async act(effect: QueueEffect): Promise<void> {
    const { store, wakeAt } = this.parts
    switch (effect.do) {
      case 'store':
        return store.put({ entry: effect.entry, message: null })
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
    const results = await this.parts.send(batch)
    if (!results) return this.tell({ type: 'failed' })
    await this.tell({ type: 'answered', results })
    this.parts.onAnswered?.()
  }
}
