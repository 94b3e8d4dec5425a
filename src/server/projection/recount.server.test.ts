import { expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { meta } from '@server/db/schema.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { driftOf, makePlaces, nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { recount, toBeRecounted } from './recount.ts'

/** Guns counted again after shifts change: never in the way, and never forgotten. */
let server: TestServer
let lead: Client
let ids: Map<string, string>
serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12) }, async (here) => {
  ;({ server, lead } = here)
  ids = await makePlaces(lead, 'A1–A12')
  for (const [i, stationId] of [...ids.values()].entries()) {
    const act = { stationId, act: 'changed', position: 'tip', outReason: 'worn', happenedMs: Date.UTC(2026, 10, 20, 8) }
    await lead.post('/logbook', { key: nextKey(), acts: [act] })
    await lead.post('/clock/usage', { key: nextKey(), stationId, day: '2026-11-20', arcHours: 1 + (i % 3) })
  }
})
const shift = (start: string, end: string) => ({
  areaId: null,
  shifts: [{ name: 'day', weekdays: [1, 2, 3, 4, 5], start, end, breaks: [] }],
})
const marks = async () => server.parts.deps.db.select().from(meta).where(eq(meta.key, 'recount'))

it('is done when the change is answered, and what is stored is what the ledger comes to', async () => {
  expect((await lead.post('/shop/shifts', { key: nextKey(), ...shift('06:00', '14:00') })).status).toBe(200)
  expect([await marks(), await driftOf(server)]).toEqual([[], 0])
})
it('is done by whoever is sent the same again, or starts, where it was cut off', async () => {
  const { deps } = server.parts
  const { transaction } = deps.db
  // The change stands, and then the power fails at the third gun counted.
  let left = 2
  deps.db.transaction = ((...given: Parameters<typeof transaction>) =>
    left-- > 0 ? transaction.apply(deps.db, given) : Promise.reject(new Error('power cut'))) as typeof transaction
  const sent = { key: nextKey(), ...shift('07:00', '11:00') }
  expect((await lead.post('/shop/shifts', sent)).status).toBe(500)
  server.faults.length = 0
  deps.db.transaction = transaction
  expect(await marks()).toHaveLength(1)
  expect(await driftOf(server)).toBeGreaterThan(0)
  expect((await lead.post('/shop/shifts', sent)).status).toBe(200)
  expect([await marks(), await driftOf(server)]).toEqual([[], 0])
  await deps.db.transaction((tx) => toBeRecounted(tx, 'of a server that died'))
  expect([await recount(deps), await recount(deps), await marks()]).toEqual([true, false, []])
})
it('leaves the mark of a change that was made meanwhile', async () => {
  const { deps } = server.parts
  await deps.db.transaction((tx) => toBeRecounted(tx, 'first'))
  const [counted] = await Promise.all([recount(deps), deps.db.transaction((tx) => toBeRecounted(tx, 'second'))])
  expect(counted).toBe(true)
  const now = (await marks()).map((m) => m.value)
  expect([[], ['second']]).toContainEqual(now)
  await recount(deps)
  expect(await marks()).toEqual([])
})
it('other guns are logged at meanwhile', async () => {
  const tip = { act: 'changed', position: 'tip', outReason: 'worn' }
  const [changed, ...logged] = await Promise.all([
    lead.post('/shop/shifts', { key: nextKey(), ...shift('06:00', '15:00') }),
    ...[...ids.values()].map((stationId) => lead.post('/logbook', { key: nextKey(), acts: [{ stationId, ...tip }] })),
  ])
  expect([changed.status, ...logged.map((l) => l.status)]).toEqual(Array.from({ length: 13 }, () => 200))
  expect(await driftOf(server)).toBe(0)
})
