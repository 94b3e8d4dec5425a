import { describe, expect, it } from 'vitest'
import { Outbox, type Sent, type Storage, type Waiting } from './outbox.ts'

const photo = (once: string, atMs = 1): Waiting => ({
  once,
  of: { type: 'spool', key: 'spool_1' },
  blob: new Blob([once]),
  atMs,
})
function memory(): Storage & { kept: Map<string, Waiting> } {
  const kept = new Map<string, Waiting>()
  return {
    kept,
    all: () => Promise.resolve([...kept.values()]),
    put: (p) => Promise.resolve(void kept.set(p.once, p)),
    remove: (once) => Promise.resolve(void kept.delete(once)),
  }
}
/** A line that answers as told, and remembers what came over it. */
function line(...answers: Sent[]) {
  const came: string[] = []
  const send = (p: Waiting): Promise<Sent> => {
    came.push(p.once)
    return Promise.resolve(answers.shift() ?? 'sent')
  }
  return { came, send }
}

describe('photos that wait for a link', () => {
  it('with a link go at once and leave nothing behind', async () => {
    const [storage, { came, send }] = [memory(), line()]
    let sent = 0
    const outbox = new Outbox(storage, send, () => sent++)
    await outbox.add(photo('a'))
    expect([came, storage.kept.size, sent, outbox.read()]).toEqual([['a'], 0, 1, { waiting: [], refused: null }])
  })
  it('without one wait, and go later under the same key, in the order they were taken', async () => {
    const [storage, { came, send }] = [memory(), line('no link', 'no link')]
    const outbox = new Outbox(storage, send)
    await outbox.add(photo('b', 2))
    await outbox.add(photo('a', 1))
    expect(outbox.read().waiting.map((w) => w.once)).toEqual(['a', 'b'])
    await outbox.flush()
    expect(came).toEqual(['b', 'a', 'a', 'b'])
    expect([storage.kept.size, outbox.read().waiting]).toEqual([0, []])
  })
  it('outlive the page: another one on the same storage sends them', async () => {
    const storage = memory()
    await new Outbox(storage, line('no link').send).add(photo('a'))
    const { came, send } = line()
    await new Outbox(storage, send).flush()
    expect([came, storage.kept.size]).toEqual([['a'], 0])
  })
  it('refused by the server are told and not tried again; the next one goes', async () => {
    const [storage, { came, send }] = [memory(), line('no link', { refused: 'no picture' })]
    const outbox = new Outbox(storage, send)
    await outbox.add(photo('a', 1))
    await outbox.add(photo('b', 2))
    expect(came).toEqual(['a', 'a', 'b'])
    expect([storage.kept.size, outbox.read()]).toEqual([0, { waiting: [], refused: 'no picture' }])
  })
  it('go once more when the link comes back while a round is failing', async () => {
    const storage = memory()
    const came: string[] = []
    const outbox: Outbox = new Outbox(storage, (p) => {
      came.push(p.once)
      if (came.length > 1) return Promise.resolve('sent')
      void outbox.flush()
      return Promise.resolve('no link')
    })
    await outbox.add(photo('a'))
    expect([came, storage.kept.size]).toEqual([['a', 'a'], 0])
  })
  it('are sent once by rounds that overlap, and one added meanwhile goes along', async () => {
    const storage = memory()
    const came: string[] = []
    let open = () => {}
    const gate = new Promise<void>((done) => (open = done))
    const outbox = new Outbox(storage, async (p) => {
      came.push(p.once)
      await gate
      return 'sent'
    })
    const rounds = [outbox.add(photo('a', 1)), outbox.add(photo('b', 2)), outbox.flush()]
    open()
    await Promise.all(rounds)
    await outbox.flush()
    expect(came).toEqual(['a', 'b'])
  })
  it('a watcher is told of every change until it stops watching', async () => {
    const outbox = new Outbox(memory(), line('no link').send)
    let told = 0
    const stop = outbox.watch(() => told++)
    await outbox.add(photo('a'))
    expect(told).toBe(1)
    stop()
    await outbox.flush()
    expect(told).toBe(1)
  })
})
