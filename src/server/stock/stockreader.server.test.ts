import { afterAll, beforeAll, expect, it } from 'vitest'
import { type StockAnswer } from '@contract/stock.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'
import { StockReader } from './stockreader.ts'

/** What is kept of the shelves, on a real database: how long it takes to work out is the test's. */
const NOW = Date.UTC(2026, 10, 20, 12)
const MIN = 60_000
let server: TestServer
let lead: Client
let partId = ''
let nowMs = NOW

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  lead = await openShop(server)
  await makePlaces(lead, 'A1')
  await lead.post('/shop/part', { key: nextKey(), code: 'K-T10', name: 'Kelp tip', kindKey: 'tip', priceMinor: 64 })
  partId = (await lead.get<{ parts: { id: string }[] }>('/shop')).body.parts[0]?.id ?? ''
})
afterAll(() => server.close())

const count = (quantity: number) => lead.post('/parts/count', { key: nextKey(), counts: [{ partId, quantity }] })

/** A reader whose work takes so long and is done when the test says; each answer bears its number. */
function readerOf(tookMs: number) {
  const open: (() => void)[] = []
  let [made, clock] = [0, 0]
  const work = () => {
    const n = ++made
    return new Promise<StockAnswer>((done) =>
      open.push(() => {
        clock += tookMs
        done({ currency: String(n) } as StockAnswer)
      }),
    )
  }
  const deps = { db: server.parts.deps.db, shops: server.parts.deps.shops, now: () => nowMs }
  const reader = new StockReader(deps, { work, timer: () => clock })
  const finish = async () => {
    while (open.length === 0) await new Promise((next) => setImmediate(next))
    open.splice(0).forEach((done) => done())
    await new Promise((next) => setImmediate(next))
  }
  const read = async () => (await reader.read(undefined)).currency
  return { read, finish, made: () => made }
}
const first = async (tookMs: number) => {
  const of = readerOf(tookMs)
  const answer = of.read()
  await of.finish()
  expect(await answer).toBe('1')
  return of
}

it('where it is quick, a minute later it is worked out anew, and waited for', async () => {
  const { read, finish } = await first(100)
  expect(await read()).toBe('1')
  nowMs += 2 * MIN
  const again = read()
  await finish()
  expect(await again).toBe('2')
})
it('where it takes long, the one before is shown while the next is made, once', async () => {
  const { read, finish, made } = await first(5000)
  nowMs += 2 * MIN
  expect(await Promise.all([read(), read()])).toEqual(['1', '1'])
  expect(made()).toBe(2)
  await finish()
  expect(await read()).toBe('2')
})
it('a count is seen at once all the same', async () => {
  const { read, finish } = await first(5000)
  await count(44)
  const after = read()
  await finish()
  expect(await after).toBe('2')
})
it('nothing older than ten minutes is shown', async () => {
  const { read, finish } = await first(5000)
  nowMs += 11 * MIN
  const after = read()
  await finish()
  expect(await after).toBe('2')
})
