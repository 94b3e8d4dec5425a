import { anId } from '@core/testing/ids.ts'
import { Readable, Writable } from 'node:stream'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { DEMO_LEAD } from '@server/demo/yard.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { settle } from '@server/settle/settle.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'
import { YARD_MS } from '@server/testing/worlds.ts'
import { exportAll, finishBuilding, importAll } from './whole.ts'

const NOW = Date.UTC(2026, 10, 23, 12)
const LEADING = { person: { id: anId('person', 'per_x'), name: 'x', role: 'lead' as const }, device: null }
let server: TestServer
let lead: Client
let file: string
beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  lead = await openShop(server)
  const ids = await makePlaces(lead, 'A1–A4')
  await lead.post('/shop/part', {
    key: nextKey(),
    code: 'T-1',
    name: 'tip "1.0", ünïcode\n',
    kindKey: 'tip',
    onHand: 9,
  })
  await lead.post('/logbook', {
    key: nextKey(),
    acts: [...ids.values()].map((stationId) => ({ stationId, act: 'changed', position: 'tip', note: 'a 😀 and a \\' })),
  })
  await lead.post('/clock/usage', { key: nextKey(), stationId: ids.get('A1'), day: '2026-11-22', arcHours: 3 })
  const f = await lead.post<{ token: string }>('/shop/feeder', {
    key: nextKey(),
    stationId: ids.get('A2'),
    equipmentId: 'WF-1',
  })
  await fetch(`${server.url}/api/ingest`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${f.body.token}` },
    body: JSON.stringify({
      sentMs: NOW,
      rows: [0, 1].map((seq) => ({
        equipmentId: 'WF-1',
        bootId: 'b',
        seq,
        deviceMs: NOW - 9000 + seq,
        wireFedM: seq,
        arcOnS: 0,
        arcStarts: 0,
      })),
    }),
  })
  while ((await settle(server.parts.deps)) > 0);
  file = await textOf(server)
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

async function textOf(from: TestServer): Promise<string> {
  const chunks: string[] = []
  const out = new Writable({
    highWaterMark: 64,
    write: (chunk: Buffer, _, done) => {
      chunks.push(chunk.toString())
      setImmediate(done)
    },
  })
  await exportAll(from.parts.deps, LEADING, out)
  return chunks.join('')
}
const rows = (text: string) => text.split('\n').slice(1)
async function emptyShop<T>(work: (fresh: TestServer, person: Client) => Promise<T>): Promise<T> {
  const fresh = await startTestServer({ nowMs: NOW })
  try {
    return await work(fresh, new Client(fresh.url))
  } finally {
    expect(fresh.faults).toEqual([])
    await fresh.close()
  }
}
const bring = (fresh: TestServer, text: string) =>
  fetch(`${fresh.url}/api/shop/whole`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', 'x-idle-spool': '1' },
    body: text,
  })

describe('a whole shop as one file', () => {
  it('out, into an empty shop, and out again is the same, line by line; and so is what is projected', async () => {
    await emptyShop(async (fresh) => {
      expect((await bring(fresh, file)).status).toBe(200)
      expect(rows(await textOf(fresh))).toEqual(rows(file))
      const without = ['session', 'import_progress', 'carrier']
      expect(await contentOf(fresh, without)).toEqual(await contentOf(server, without))
      const back = new Client(fresh.url)
      await back.post('/people/sign-in', LEAD)
      expect((await back.get<FloorAnswer>('/floor')).body.guns).toEqual(
        (await lead.get<FloorAnswer>('/floor')).body.guns,
      )
    })
  })
  it('with eighteen months of history comes back with every gun as it was', { timeout: 180_000 }, async () => {
    const yard = await startTestServer({ nowMs: YARD_MS, isYard: true })
    const text = await textOf(yard)
    const there = new Client(yard.url)
    await there.post('/people/sign-in', DEMO_LEAD)
    await emptyShop(async (fresh, person) => {
      fresh.clock.nowMs = YARD_MS
      expect((await importAll(fresh.parts.deps, Readable.from([text]))).rows).toBe(rows(text).filter(Boolean).length)
      await person.post('/people/sign-in', DEMO_LEAD)
      const floor = (await there.get<FloorAnswer>('/floor')).body
      // The stamp is a server's own.
      expect((await person.get<FloorAnswer>('/floor')).body).toEqual({ ...floor, stamp: expect.any(String) })
      for (const { stationId } of floor.guns.slice(0, 6))
        expect((await person.get<GunAnswer>(`/gun/${stationId}`)).body).toEqual(
          (await there.get<GunAnswer>(`/gun/${stationId}`)).body,
        )
    })
    await yard.close()
  })
  it('is for leads', async () => {
    expect((await new Client(server.url).get('/shop/whole.jsonl')).status).toBe(401)
    const got = await lead.get<string>('/shop/whole.jsonl')
    expect(got.status).toBe(200)
    expect(rows(got.body)).toEqual(rows(await textOf(server)))
  })
  it('goes into no shop that is there already', async () => {
    const before = await contentOf(server)
    const answer = await bring(server, file)
    expect([answer.status, ((await answer.json()) as Problem).code]).toEqual([409, 'already-set-up'])
    expect(await contentOf(server)).toEqual(before)
  })
  const lines = () => file.trimEnd().split('\n')
  it.each([
    ['nothing', () => '', 'empty'],
    ['a sheet', () => 'gun,date,what\nA1,2026-01-01,tip', 'Line 1 is cut or no JSON'],
    ['another program’s file', () => '{"format":"songs"}', 'no export of this program'],
    ['a file of a later version', () => file.replace('"version":2', '"version":9'), 'is of version 9'],
    ['a file cut between lines', () => lines().slice(0, -1).join('\n'), 'That file is cut: it should hold'],
    ['a file cut inside a line', () => file.trimEnd().slice(0, -20), 'is cut or no JSON'],
    ['a line that is no row', () => [...lines(), '[1,2]'].join('\n'), 'is no row'],
    ['a table nobody knows', () => [...lines(), '{"t":"songs","r":{}}'].join('\n'), 'speaks of "songs"'],
  ])('%s is refused in words, and nothing of it is kept', async (_, text, says) => {
    await emptyShop(async (fresh) => {
      const before = await contentOf(fresh)
      const answer = await bring(fresh, text())
      expect(answer.status).toBe(422)
      expect(((await answer.json()) as Problem).message).toContain(says)
      expect(await contentOf(fresh)).toEqual(before)
    })
  })
  /** The n-th transaction from now on ends as one does that met the counting of feeders at the same rows; `forever`: all from there on. */
  function deadlocks(other: TestServer, n: number, forever = false): () => void {
    const { db } = other.parts.deps
    const own = db.transaction.bind(db)
    let left = n
    db.transaction = (async (...given: Parameters<typeof own>) => {
      left--
      if (left === 0 || (forever && left < 0)) throw Object.assign(new Error('Deadlock found'), { errno: 1213 })
      return own(...given)
    }) as typeof own
    return () => (db.transaction = own)
  }
  it('that meets another writer while it is counted tries again, and comes in whole', async () => {
    const other = await startTestServer({ nowMs: NOW })
    deadlocks(other, 2)
    expect((await importAll(other.parts.deps, Readable.from(file))).rows).toBe(rows(file.trimEnd()).length)
    expect(Object.values(await rebuild(other.parts.deps, false)).every((n) => n === 0)).toBe(true)
    await other.close()
  })
  it('that can’t be counted to its end says what stands, and the next start goes on with it', async () => {
    const other = await startTestServer({ nowMs: NOW })
    const free = deadlocks(other, 2, true)
    await expect(importAll(other.parts.deps, Readable.from(file))).rejects.toMatchObject({
      code: 'busy',
      message: expect.stringMatching(/^All \d+ rows are in/) as string,
    })
    free()
    expect(await finishBuilding(other.parts.deps)).toBe(true)
    expect(await finishBuilding(other.parts.deps)).toBe(false)
    expect(Object.values(await rebuild(other.parts.deps, false)).every((n) => n === 0)).toBe(true)
    let again = ''
    const out = new Writable({ write: (chunk: Buffer, _, done) => ((again += chunk.toString()), done()) })
    await exportAll(other.parts.deps, LEADING, out)
    expect(rows(again)).toEqual(rows(file))
    await other.close()
  })
  it('cut off at the last moment leaves the shop empty, and then goes through', async () => {
    await emptyShop(async (fresh) => {
      const before = await contentOf(fresh)
      expect((await withPowerCut(fresh, () => bring(fresh, file))).status).toBe(500)
      expect(await contentOf(fresh)).toEqual(before)
      expect((await bring(fresh, file)).status).toBe(200)
    })
  })
  it('a shop of shelves alone, where no gun stands yet, counts the same rebuilt and elsewhere', async () => {
    const onHand = async (of: Client) =>
      (await of.get<{ parts: { code: string; onHand: number | null }[] }>('/shop')).body.parts.map((p) => [
        p.code,
        p.onHand,
      ])
    await emptyShop(async (shelves) => {
      const own = await openShop(shelves)
      const part = (code: string, onHand: number) => ({ key: nextKey(), code, name: code, kindKey: 'tip', onHand })
      await own.post('/shop/part', part('T-1', 12))
      await own.post('/shop/part', part('T-2', 0))
      const counted = await onHand(own)
      expect(counted).toEqual([
        ['T-1', 12],
        ['T-2', 0],
      ])
      expect(Object.values(await rebuild(shelves.parts.deps, false)).every((n) => n === 0)).toBe(true)
      const text = await textOf(shelves)
      await emptyShop(async (fresh) => {
        expect((await bring(fresh, text)).status).toBe(200)
        const back = new Client(fresh.url)
        await back.post('/people/sign-in', LEAD)
        expect(await onHand(back)).toEqual(counted)
      })
    })
  })
})
