import { anId } from '@core/testing/ids.ts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { asc, eq } from 'drizzle-orm'
import { makeRandom } from '@core/random/random.ts'
import { carrier, device, importRun, ledgerEvent, positionNow, telemetryRow, usageSpan } from '@server/db/schema.ts'
import { startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { YARD_MS } from '@server/testing/worlds.ts'
import { insertMany, readMany, readSome, transact } from './db.ts'

/** Reading and writing many rows past the mapper gives what the mapper gives. */
let server: TestServer
beforeAll(async () => {
  server = await startTestServer({ nowMs: YARD_MS, isYard: true })
}, 300_000)
afterAll(() => server.close())
const db = () => server.parts.deps.db

describe('reading many rows', () => {
  it.each([
    ['the ledger', ledgerEvent, ledgerEvent.id],
    ['positions', positionNow, positionNow.carrierId],
    ['usage', usageSpan, usageSpan.id],
    ['carriers', carrier, carrier.id],
  ] as const)('of %s gives the mapper’s own, JSON and nothings included', async (_, table, key) => {
    const byKey = <T>(rows: T[]) => [...rows].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1))
    const [one] = (await db().select({ id: key }).from(table).orderBy(asc(key)).limit(1)) as { id: string }[]
    const where = eq(key, (one?.id ?? '') as never)
    expect(byKey(await readMany(db(), table, where))).toEqual(byKey(await db().select().from(table).where(where)))
    const all = await readMany(db(), table, undefined)
    expect(all.length).toBeGreaterThan(0)
    expect(all.length).toBe((await db().select({ id: key }).from(table)).length)
  })
  it('of each what is wanted: the same, and no more of it', async () => {
    const wanted = ['id', 'happenedMs', 'body'] as const
    const where = eq(ledgerEvent.kind, 'cleaned')
    const whole = await readMany(db(), ledgerEvent, where)
    const some = await readSome(db(), ledgerEvent, { where, wanted })
    expect(some.length).toBeGreaterThan(0)
    expect(some).toEqual(whole.map(({ id, happenedMs, body }) => ({ id, happenedMs, body })))
  })
  it('of a table with booleans is misuse: the driver gives 0 and 1', async () =>
    expect(readMany(db(), device, undefined)).rejects.toThrow('expected a table without booleans'))
})

describe('writing many rows', () => {
  const awkward = [
    'plain',
    "it's",
    'a "quote"',
    'back\\slash',
    'new\nline',
    'ünï 😀',
    '?',
    '%s',
    '`tick`',
    'NULL',
    "'); drop table x; --",
  ]
  it('keeps every letter, number and nothing as the mapper does', async () => {
    const random = makeRandom(4)
    const rows = awkward.map((text, i) => ({
      equipmentId: text.slice(0, 40),
      bootId: 'boot',
      seq: i,
      atMs: 1_796_000_000_123 + i,
      wireFedM: random() * 1e6,
      arcOnS: i === 0 ? 0 : random() / 3,
      arcStarts: i,
      amps: i % 2 === 0 ? null : 212.5,
      volts: null,
      motorAmps: null,
      gasFlowLpm: 14.25,
      rollFedM: null,
      startsFailed: null,
    }))
    await insertMany(db(), telemetryRow, { rows })
    const back = await db()
      .select()
      .from(telemetryRow)
      .where(eq(telemetryRow.bootId, 'boot'))
      .orderBy(asc(telemetryRow.seq))
    expect(back).toEqual(rows)
  })
  it('JSON goes in whole, and a left-out column takes its default', async () => {
    const summary = Object.fromEntries(awkward.map((text, i) => [text, i]))
    await insertMany(db(), importRun, { rows: [{ idempotencyKey: 'k1', kind: 'usage', atMs: 5, summary }] })
    const [back] = await db().select().from(importRun).where(eq(importRun.idempotencyKey, 'k1'))
    expect(back).toEqual({
      idempotencyKey: 'k1',
      kind: 'usage',
      atMs: 5,
      byId: null,
      summary,
      headings: null,
      columns: null,
    })
    await insertMany(db(), device, { rows: [{ id: anId('device', 'dev_x'), name: 'x' }] })
    expect(
      await db()
        .select()
        .from(device)
        .where(eq(device.id, anId('device', 'dev_x'))),
    ).toMatchObject([{ isActive: true, areaId: null }])
  })
  it('replaces where asked to, and fails whole where not', async () => {
    const row = (kind: string) => ({ idempotencyKey: 'k2', kind, atMs: 1, summary: {} })
    await insertMany(db(), importRun, { rows: [row('a')] })
    await insertMany(db(), importRun, { rows: [row('b')], isReplacing: true })
    const kindNow = async () => (await db().select().from(importRun).where(eq(importRun.idempotencyKey, 'k2')))[0]?.kind
    expect(await kindNow()).toBe('b')
    await expect(
      transact(db(), async (tx) => {
        await insertMany(tx, importRun, { rows: [{ ...row('c'), idempotencyKey: 'k3' }, row('c')] })
      }),
    ).rejects.toThrow()
    expect(await db().select().from(importRun).where(eq(importRun.idempotencyKey, 'k3'))).toEqual([])
    expect(await kindNow()).toBe('b')
  })
  it('of nothing does nothing', async () => expect(await insertMany(db(), importRun, { rows: [] })).toBeUndefined())
  it('of more than fits one statement goes in several', async () => {
    const rows = Array.from({ length: 4500 }, (_, seq) => ({
      equipmentId: 'many',
      bootId: 'b',
      seq,
      atMs: seq,
      wireFedM: seq,
      arcOnS: 0,
      arcStarts: 0,
    }))
    await insertMany(db(), telemetryRow, { rows })
    expect(
      (await db().select({ seq: telemetryRow.seq }).from(telemetryRow).where(eq(telemetryRow.equipmentId, 'many')))
        .length,
    ).toBe(4500)
  })
})
