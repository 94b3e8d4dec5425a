import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sql } from 'drizzle-orm'
import { startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { inTurn, withLease } from './lease.ts'

/** Something that one server does at a time, whichever node of the database it talks to. */
let server: TestServer
let second: TestServer
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  second = await server.second()
})
afterAll(async () => {
  await second.close()
  await server.close()
})
const here = () => server.parts.deps.db
const there = () => second.parts.deps.db

describe('a lease', () => {
  it('is had by one at a time, and free when the work is done or has failed', async () => {
    let [inside, most] = [0, 0]
    const work = async () => {
      most = Math.max(most, ++inside)
      await new Promise((done) => setTimeout(done, 50))
      inside--
      return 'done'
    }
    const all = await Promise.all([here(), there(), here(), there()].map((db) => withLease(db, 'a', work)))
    expect([most, all.filter((a) => a === 'done').length]).toEqual([1, 1])
    await expect(withLease(there(), 'a', () => Promise.reject(new Error('fell')))).rejects.toThrow('fell')
    expect(await withLease(here(), 'a', work)).toBe('done')
  })
  it('of one who died is over after a while, and another name’s is another', async () => {
    const set = (untilMs: number) =>
      here().execute(sql`replace into lease (name, holder, until_ms) values ('b', 'dead', ${untilMs})`)
    await set(Date.now() + 60_000)
    expect(await withLease(there(), 'b', () => Promise.resolve(1))).toBeNull()
    expect(await withLease(there(), 'c', () => Promise.resolve(1))).toBe(1)
    await set(Date.now() - 1)
    expect(await withLease(there(), 'b', () => Promise.resolve(1))).toBe(1)
  })
  it('is waited for, in turn, and not for ever', async () => {
    const order: number[] = []
    const at = { name: 'd', waitMs: 5000 }
    const one = (n: number, db = here()) => inTurn(db, at, async () => void order.push(n))
    await Promise.all([one(1), one(2, there()), one(3)])
    expect(order.sort()).toEqual([1, 2, 3])
    await here().execute(sql`replace into lease (name, holder, until_ms) values ('d', 'x', ${Date.now() + 60_000})`)
    await expect(inTurn(there(), { name: 'd', waitMs: 300 }, () => Promise.resolve())).rejects.toThrow(/Another server/)
  })
})
