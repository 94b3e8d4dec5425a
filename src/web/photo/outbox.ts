import { type Clip } from '@core/photo/clip.ts'
import { type PhotoOf } from '@core/photo/photo.ts'

/**
 * Photos that could not be sent yet, kept on the device until there is a link.
 *
 *   taken ──kept──> waiting ──sent──> gone
 *                   waiting ──no link──> waiting (the rest waits too)
 *                   waiting ──refused──> gone, and the reason is told
 *
 * 1. A photo is in storage before it is sent and leaves it only after the server has it or has refused it: a page that is
 *    closed in between loses nothing.
 * 2. It goes under one key however often it is tried, so the server keeps it once.
 * 3. One round at a time; photos go in the order they were taken. A link that comes back while a round is failing is not missed: the round goes once more.
 */
export interface Waiting {
  once: string
  of: PhotoOf
  blob: Blob
  atMs: number
  clip?: Clip
}
export interface Storage {
  all: () => Promise<Waiting[]>
  put: (photo: Waiting) => Promise<void>
  remove: (once: string) => Promise<void>
}
export type Sent = 'sent' | 'no link' | { refused: string }
export interface OutboxState {
  waiting: readonly Pick<Waiting, 'once' | 'of'>[]
  refused: string | null
}

export class Outbox {
  private state: OutboxState = { waiting: [], refused: null }
  private round: Promise<void> | null = null
  private isAskedAgain = false
  private readonly watchers = new Set<() => void>()

  constructor(
    private readonly storage: Storage,
    private readonly send: (photo: Waiting) => Promise<Sent>,
    private readonly onSent: () => void = () => {},
  ) {}

  read = (): OutboxState => this.state
  watch = (watcher: () => void): (() => void) => {
    this.watchers.add(watcher)
    return () => this.watchers.delete(watcher)
  }

  /** Keeps a photo and tries to send it. */
  async add(photo: Waiting): Promise<void> {
    await this.storage.put(photo)
    await this.flush()
  }

  /** Sends what waits, as far as there is a link. A round that runs takes along what was added meanwhile. */
  flush(): Promise<void> {
    if (this.round) this.isAskedAgain = true
    this.round ??= this.rounds().finally(() => (this.round = null))
    return this.round
  }

  private async rounds(): Promise<void> {
    do {
      this.isAskedAgain = false
      await this.run()
    } while (this.isAskedAgain)
  }

  private async run(): Promise<void> {
    let refused: string | null = null
    for (let waiting = await this.list(); waiting[0]; waiting = await this.list()) {
      const [photo] = waiting
      this.tell({ waiting, refused })
      const answer = await this.send(photo)
      if (answer === 'no link') return
      await this.storage.remove(photo.once)
      if (answer === 'sent') this.onSent()
      else refused = answer.refused
    }
    this.tell({ waiting: [], refused })
  }

  private async list(): Promise<Waiting[]> {
    return (await this.storage.all()).sort((a, b) => a.atMs - b.atMs || (a.once < b.once ? -1 : 1))
  }

  private tell(state: OutboxState): void {
    this.state = state
    this.watchers.forEach((watcher) => watcher())
  }
}
