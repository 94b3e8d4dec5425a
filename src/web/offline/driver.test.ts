import { describe, expect, it } from 'vitest'
import { QueueDriver, type Answered } from './driver.ts'
import { type Entry } from './queue.ts'
import { type Kept } from './store.ts'

const entry = (key: string): Entry => ({ key, kind: 'post', path: '/reading', body: {}, atMs: 5, says: key })

/** A driver over a store in memory, and a server that answers when it is told to. */
function made(over: { hasRoom?: boolean } = {}) {
  const kept = new Map<string, Kept>()
  const sent: string[] = []
  let link: Answered | null = null
  const driver = new QueueDriver({
    store: {
      all: () => Promise.resolve([...kept.values()]),
      put: (k) => {
        if (over.hasRoom === false) return Promise.reject(new Error('no room'))
        kept.set(k.entry.key, k)
        return Promise.resolve()
      },
      remove: (key) => Promise.resolve(void kept.delete(key)),
    },
    send: (batch) => {
      sent.push(...batch.map((e) => e.key))
      return Promise.resolve(link && batch.map((e) => ({ key: e.key, is: 'kept' as const, message: null })))
    },
    now: () => 0,
    wakeAt: () => undefined,
  })
  return { driver, kept, sent, linkUp: () => (link = []) }
}
const settled = () => new Promise((done) => setTimeout(done, 5))

describe('the queue, driven', () => {
  it('keeps without a link, sends when it is back, and forgets what was answered', async () => {
    const { driver, kept, sent, linkUp } = made()
    await driver.add(entry('one'))
    await settled()
    expect([[...kept.keys()], sent, driver.read().failures]).toEqual([['one'], ['one'], 1])
    linkUp()
    await driver.go(true)
    await settled()
    expect([kept.size, sent, driver.read().waiting]).toEqual([0, ['one', 'one'], []])
  })
  it('does not send what another tab had answered or took back: it is gone from the store', async () => {
    const { driver, kept, sent, linkUp } = made()
    await driver.add(entry('one'))
    await settled()
    kept.delete('one')
    linkUp()
    await driver.go(true)
    await settled()
    expect([sent, driver.read().waiting]).toEqual([['one'], []])
  })
  it('without room says so, and sends it all the same while the page is open', async () => {
    const { driver, sent, linkUp } = made({ hasRoom: false })
    linkUp()
    await expect(driver.add(entry('one'))).rejects.toThrow('no room')
    await settled()
    expect([sent, driver.read().waiting]).toEqual([['one'], []])
  })
  it('takes back what waits, and says whether it was still here', async () => {
    const { driver, kept } = made()
    await driver.add(entry('one'))
    await settled()
    expect([await driver.takeBack('one'), kept.size]).toEqual([true, 0])
    expect(await driver.takeBack('one')).toBe(false)
  })
})
