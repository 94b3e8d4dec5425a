import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type FloorAnswer } from '@contract/floor.ts'
import { DEMO_LEAD } from '@server/demo/yard.ts'
import { Client, nextKey, sentOf, startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { YARD_MS } from '@server/testing/worlds.ts'

/** What grows with a shop's years: read by an index, or the fifth year is slower than the first. */
const GROWING = new Set([
  ...['ledger_event', 'life', 'usage_span', 'telemetry_hour', 'telemetry_row', 'reading', 'stoppage'],
  ...['task_done', 'photo', 'mount'],
])

let server: TestServer
let lead: Client
let guns: FloorAnswer['guns']
beforeAll(async () => {
  server = await startTestServer({ nowMs: YARD_MS, isYard: true })
  lead = new Client(server.url)
  await lead.post('/people/sign-in', DEMO_LEAD)
  guns = (await lead.get<FloorAnswer>('/floor')).body.guns
})
afterAll(() => server.close())

const gun = (n: number) => guns[n]?.stationId ?? ''
/** Another gun each time: nothing is kept of it yet. */
const tip = (n: number) => () =>
  lead.post('/logbook', {
    key: nextKey(),
    acts: [{ stationId: gun(n), act: 'changed', position: 'tip', outReason: 'worn' }],
  })
const WORK: readonly (readonly [name: string, most: number, work: () => Promise<unknown>])[] = [
  ['Floor', 12, () => lead.get('/floor')],
  ['a gun', 30, () => lead.get(`/gun/${gun(3)}`)],
  ['a tip logged', 35, tip(4)],
  ['a walk', 14, () => lead.get('/walk?minutes=25')],
  ['a reading’s page', 20, () => lead.get(`/reading?stationId=${gun(5)}`)],
  ['the day’s tape', 14, () => lead.get('/logbook')],
  ['a gun that is down', 28, () => lead.get(`/down?stationId=${gun(6)}`)],
]
const isRead = (statement: string) => /^\s*(select|with)\b/i.test(statement)
const rowsOf = async (statement: string): Promise<Record<string, unknown>[]> => {
  const [rows] = await server.parts.deps.db.execute(sql.raw(statement.replaceAll('?', '\\?')))
  return rows as unknown as Record<string, unknown>[]
}

/** Tables that a statement reads from one end to the other, by the name they go under in it. */
async function readWhole(statement: string): Promise<string[]> {
  const tableOf = new Map(
    [...statement.matchAll(/(?:from|join)\s+`(\w+)`(?:\s+(?:as\s+)?`?(\w+)`?)?/gi)].flatMap(([, table = '', as]) => [
      [table, table],
      [as ?? table, table],
    ]),
  )
  const plan = await rowsOf(`explain ${statement}`)
  return plan.flatMap(({ table, type, possible_keys: keys }) => {
    const name = tableOf.get(String(table)) ?? ''
    // Where an index would serve and most of a small table is asked for, the database may still take the table.
    return (type === 'ALL' || type === 'index') && keys === null && GROWING.has(name) ? [name] : []
  })
}

describe('what an answer costs the database, whatever the machine', () => {
  it.each(WORK)('%s: no more than %i statements, none through the whole of what grows', async (_name, most, work) => {
    await work()
    const sent = await sentOf(server, work)
    expect(sent.length).toBeGreaterThan(1)
    const whole = await Promise.all(
      sent.filter(isRead).map(async (s) => ({ s: s.slice(-700), tables: await readWhole(s) })),
    )
    expect(whole.filter((w) => w.tables.length > 0)).toEqual([])
    expect(sent.length).toBeLessThanOrEqual(most)
  })
  it('Floor once more reads a handful of rows a gun, however many parts hang there and however old the shop', async () => {
    const sent = await sentOf(server, () => lead.get('/floor'))
    const rows = await Promise.all(sent.filter(isRead).map(rowsOf))
    expect(rows.flat().length / guns.length).toBeLessThan(8)
  })
})
