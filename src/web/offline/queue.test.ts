import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import {
  BATCH,
  canTakeBack,
  EMPTY,
  queueStep,
  type Entry,
  type QueueEffect,
  type QueueEvent,
  type QueueState,
  type Refused,
} from './queue.ts'

const entry = (n: number, over: Partial<Entry> = {}): Entry => ({
  key: `key-${n}`,
  kind: 'walk',
  path: '/walk/found',
  body: { n },
  atMs: n,
  says: `A${n}`,
  ...over,
})

/** A device with its store, which a crash leaves as it is, and a server that keeps by key. */
class Device {
  state: QueueState = EMPTY
  store = new Map<string, { entry: Entry; refused: Refused | null }>()
  onAir: Entry[][] = []
  constructor(public nowMs = 0) {}
  tell(event: QueueEvent): void {
    const { state, effects } = queueStep(this.state, event, this.nowMs)
    this.state = state
    for (const effect of effects) this.act(effect)
  }
  private act(effect: QueueEffect): void {
    if (effect.do === 'store') this.store.set(effect.entry.key, { entry: effect.entry, refused: null })
    if (effect.do === 'remove') for (const key of effect.keys) this.store.delete(key)
    if (effect.do === 'storeRefused')
      for (const r of effect.refused) this.store.set(r.entry.key, { entry: r.entry, refused: r })
    if (effect.do === 'send') this.onAir.push([...effect.batch])
  }
  /** As the driver does: what another tab had answered, or took back, is gone from the store and does not go. */
  sendTo(server: Server, batch: readonly Entry[]) {
    const gone = batch.filter((e) => !this.store.has(e.key))
    return [
      ...gone.map((e) => ({ key: e.key, is: 'before' as const, message: null })),
      ...server.take(batch.filter((e) => this.store.has(e.key))),
    ]
  }
  /** The page is closed or the battery dies; opened again it reads its store. */
  crash(): void {
    this.state = EMPTY
    this.onAir = []
    this.reload()
  }
  reload(): void {
    const all = [...this.store.values()]
    this.tell({
      type: 'restored',
      waiting: all.filter((s) => !s.refused).map((s) => s.entry),
      refused: all.flatMap((s) => s.refused ?? []),
    })
  }
}
/** Keeps each key once; some it refuses for good. */
class Server {
  kept: string[] = []
  constructor(private readonly refuses: (e: Entry) => boolean) {}
  take(batch: readonly Entry[]) {
    return batch.map((e) => {
      if (this.refuses(e)) return { key: e.key, is: 'refused' as const, message: 'No such place.' }
      if (this.kept.includes(e.key)) return { key: e.key, is: 'before' as const, message: null }
      this.kept.push(e.key)
      return { key: e.key, is: 'kept' as const, message: null }
    })
  }
}

describe('what waits for a link', () => {
  it('is stored before it is sent, and one batch goes at a time', () => {
    const { effects } = queueStep(EMPTY, { type: 'made', entry: entry(1) }, 0)
    expect(effects.map((e) => e.do)).toEqual(['store', 'send'])
    const device = new Device()
    for (let n = 0; n < 5; n++) device.tell({ type: 'made', entry: entry(n) })
    expect(device.onAir.map((b) => b.length)).toEqual([1])
    device.tell({ type: 'answered', results: [{ key: 'key-0', is: 'kept', message: null }] })
    expect(device.onAir.map((b) => b.length)).toEqual([1, 4])
  })
  it('goes in its order, by kind, no more at once than the server takes', () => {
    const device = new Device()
    device.tell({
      type: 'restored',
      waiting: [
        entry(3, { kind: 'post' }),
        ...Array.from({ length: BATCH + 200 }, (_, n) => entry(10 + n)),
        entry(1),
        entry(2),
      ],
      refused: [],
    })
    const sizes: number[] = []
    for (let i = 0; i < 10 && device.onAir.length > 0; i++) {
      const batch = device.onAir.shift() ?? []
      sizes.push(batch.length)
      device.tell({ type: 'answered', results: batch.map((e) => ({ key: e.key, is: 'kept', message: null })) })
    }
    expect(sizes).toEqual([2, 1, BATCH, 200])
  })
  it('without a link waits, longer each time up to a minute, and goes at once when the link is back', () => {
    const device = new Device()
    device.tell({ type: 'made', entry: entry(1) })
    const waits: number[] = []
    for (let i = 0; i < 9; i++) {
      device.onAir = []
      device.tell({ type: 'failed' })
      waits.push((device.state.retryAtMs ?? 0) - device.nowMs)
      device.tell({ type: 'go' })
      expect(device.onAir).toEqual([])
      device.nowMs = device.state.retryAtMs ?? 0
      device.tell({ type: 'go' })
      expect(device.onAir).toHaveLength(1)
    }
    expect(waits).toEqual([1, 2, 4, 8, 16, 32, 60, 60, 60].map((s) => s * 1000))
    device.onAir = []
    device.tell({ type: 'failed' })
    device.tell({ type: 'go', isLinkBack: true })
    expect(device.onAir).toHaveLength(1)
  })
  it('refused it is kept and listed until somebody puts it away', () => {
    const device = new Device()
    device.tell({ type: 'made', entry: entry(1) })
    device.tell({ type: 'answered', results: [{ key: 'key-1', is: 'refused', message: 'No such place.' }] })
    expect(device.state.refused).toMatchObject([{ message: 'No such place.' }])
    device.crash()
    expect(device.state.refused).toHaveLength(1)
    expect(device.onAir).toEqual([])
    device.tell({ type: 'putAway', key: 'key-1' })
    device.crash()
    expect(device.state.refused).toEqual([])
  })
  it('is taken back while it is here only; on the way it goes, and is corrected in the logbook', () => {
    const device = new Device()
    device.tell({ type: 'made', entry: entry(1) })
    device.tell({ type: 'made', entry: entry(2) })
    expect([canTakeBack(device.state, 'key-1'), canTakeBack(device.state, 'key-2')]).toEqual([false, true])
    device.tell({ type: 'takenBack', key: 'key-1' })
    device.tell({ type: 'takenBack', key: 'key-2' })
    expect(device.state.waiting.map((e) => e.key)).toEqual(['key-1'])
    device.crash()
    expect(device.state.waiting.map((e) => e.key)).toEqual(['key-1'])
  })
  it('whatever is lost, retried, crashed or seen twice: every entry arrives once, is listed as refused, or was taken back', () => {
    for (let seed = 1; seed <= 150; seed++) {
      const random = makeRandom(seed)
      const server = new Server((e) => Number(e.key.slice(4)) % 17 === 3)
      const devices = [new Device(), new Device()]
      // Two tabs of one browser: one store.
      const [one, two] = devices as [Device, Device]
      if (seed % 2 === 0) two.store = one.store
      let made = 0
      const takenBack = new Set<string>()
      for (let step = 0; step < 120; step++) {
        const device = random() < 0.5 ? one : two
        device.nowMs += 700
        const dice = random()
        if (dice < 0.3) device.tell({ type: 'made', entry: entry(made++) })
        else if (dice < 0.4) device.crash()
        else if (dice < 0.5) device.reload()
        else if (dice < 0.53 && made > 0) {
          const key = `key-${Math.floor(random() * made)}`
          if (!canTakeBack(device.state, key)) continue
          device.tell({ type: 'takenBack', key })
          takenBack.add(key)
        } else if (dice < 0.6) device.tell({ type: 'go', isLinkBack: random() < 0.3 })
        else {
          const batch = device.onAir.shift()
          if (!batch) continue
          // Lost on the way there, or on the way back after the server took it.
          if (random() < 0.3) device.tell({ type: 'failed' })
          else {
            const results = device.sendTo(server, batch)
            if (random() < 0.25) device.tell({ type: 'failed' })
            else device.tell({ type: 'answered', results })
          }
        }
      }
      for (const device of devices)
        for (let i = 0; i < 60; i++) {
          device.nowMs += 60_000
          device.reload()
          device.tell({ type: 'go', isLinkBack: true })
          const batch = device.onAir.shift()
          if (batch) device.tell({ type: 'answered', results: device.sendTo(server, batch) })
          else if (device.state.onTheWay.length > 0) device.tell({ type: 'failed' })
        }
      const refused = new Set(devices.flatMap((d) => d.state.refused.map((r) => r.entry.key)))
      expect(new Set(server.kept).size, `seed ${seed}`).toBe(server.kept.length)
      const all = Array.from({ length: made }, (_, n) => `key-${n}`)
      expect(
        all.filter((k) => !server.kept.includes(k) && !refused.has(k) && !takenBack.has(k)),
        `seed ${seed}`,
      ).toEqual([])
      expect(
        devices.every((d) => d.state.waiting.length === 0),
        `seed ${seed}`,
      ).toBe(true)
    }
  })
})
