import { describe, expect, it } from 'vitest'
import { type CellsAnswer } from '@contract/cell.ts'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'

/** Robot cells with necks that go round, set up by hand in a shop with no other. */
let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const HOUR = 3_600_000
const later = (ms = 60_000) => (server.clock.nowMs += ms)
const cells = async () => (await lead.get<CellsAnswer>('/cells')).body
const cell = async (name: string) => {
  const found = (await cells()).cells.find((c) => c.name === name)
  if (!found) throw new Error(`no cell ${name}`)
  return found
}
const thing = async (name: string) => {
  const found = (await cells()).bench.find((b) => b.name === name)
  if (!found) throw new Error(`no ${name} on the bench`)
  return found
}
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const part = async (name: string, position: string) => (await gun(name)).positions.find((p) => p.position === position)
async function act(body: Record<string, unknown>) {
  const sent = await lead.post('/logbook', { key: nextKey(), acts: [body] })
  later()
  return sent
}
async function swap(name: string, neck: string, more: Record<string, unknown> = {}) {
  const { bench, cells: all } = await cells()
  const neckId =
    bench.find((b) => b.name === neck)?.carrierId ?? all.find((c) => c.neckName === neck)?.neckId ?? 'car_none'
  const body = { key: nextKey(), stationId: id(name), neckId, oldNeck: 'toRefurbish', ...more }
  const sent = await lead.post<Problem>('/cells/swap', body)
  later()
  return { ...sent, again: () => lead.post('/cells/swap', body) }
}
async function bench(name: string, acts: object[], status: string | null = null) {
  const { carrierId } = await thing(name)
  const sent = await lead.post<Problem>('/cells/bench', { key: nextKey(), carrierId, acts, status })
  later()
  return sent
}

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'C1–C3', { classKey: 'cell', placeWord: 'cell' })
  await act({ stationId: id('C1'), act: 'changed', position: 'tip', partId: at.part('T9') })
})

describe('necks that go round', () => {
  it('take tip and nozzle with them, and what was on stays on', async () => {
    const body = { key: nextKey(), stationIds: [id('C1'), id('C2'), id('C3')] }
    expect((await lead.post('/cells/round', body)).status).toBe(200)
    const before = await contentOf(server)
    await lead.post('/cells/round', body)
    expect(await contentOf(server)).toEqual(before)
    later()
    expect((await cells()).cells.map((c) => c.neckName)).toEqual(['N1', 'N2', 'N3'])
    expect(await part('C1', 'tip')).toMatchObject({ partCode: 'T9', entryAge: 'unknown' })
    expect((await gun('C1')).positions.filter((p) => p.position === 'tip')).toHaveLength(1)
  })
  it('a new one is not ready before the bench says so', async () => {
    const familyId = at.shop.families.find((f) => f.name === 'Kelp')?.id
    await lead.post('/cells/neck', { key: nextKey(), name: 'N4', familyId })
    later()
    const same = await lead.post<Problem>('/cells/neck', { key: nextKey(), name: 'N4', familyId })
    expect(same.body.message).toContain('a neck "N4" already')
    expect(await thing('N4')).toMatchObject({ status: 'toRefurbish', rightFor: [] })
    expect((await cell('C1')).ready).toMatchObject([{ name: 'N4', verdict: { is: 'toMakeRight' } }])
    expect((await bench('N4', [{ act: 'found', position: 'liner' }])).body.message).toContain('has no liner')
    await bench('N4', [{ act: 'changed', position: 'tip', partId: at.part('T9') }], 'ready')
    expect((await cell('C1')).ready).toMatchObject([{ name: 'N4', verdict: { is: 'right' } }])
    expect((await thing('N4')).rightFor).toEqual(['C1', 'C2', 'C3'])
  })
  it('swapped, each keeps its own life: it ages where it hangs, and not on the bench', async () => {
    const swapped = await swap('C1', 'N4')
    expect(swapped.status).toBe(200)
    const before = await contentOf(server)
    await swapped.again()
    expect(await contentOf(server)).toEqual(before)
    expect(await cell('C1')).toMatchObject({
      neckName: 'N4',
      todo: [{ task: 'toolCentre', why: 'another neck went on' }],
    })
    expect(await thing('N1')).toMatchObject({ status: 'toRefurbish' })
    later(HOUR)
    await lead.post('/clock/usage', { key: nextKey(), stationId: id('C1'), day: '2026-11-02', arcHours: 5 })
    later()
    expect((await part('C1', 'tip'))?.used).toBeGreaterThan(0.5)
    const off = (await thing('N1')).parts.find((p) => p.position === 'tip')
    expect(off?.partCode).toBe('T9')
    // The minutes before the swap.
    expect(off?.used).toBeLessThan(0.1)
  })
  it('said to hang on two robots is asked about, and kept as it is told', async () => {
    const asked = await swap('C2', 'N4')
    expect(asked.body.code).toBe('asked-back')
    expect(asked.body.message).toBe('N4 hangs on C1, as far as anybody said.')
    await swap('C2', 'N4', { isFromElsewhere: true })
    expect(await cell('C2')).toMatchObject({ neckName: 'N4' })
    expect(await cell('C1')).toMatchObject({ neckName: null })
    await swap('C1', 'N2')
    expect(await cell('C1')).toMatchObject({ neckName: 'N2' })
  })
  it('what hangs is logged at its cell, not on the bench', async () => {
    const { neckId } = await cell('C2')
    const body = { key: nextKey(), carrierId: neckId, acts: [{ act: 'cleaned', position: 'nozzle' }] }
    expect((await lead.post<Problem>('/cells/bench', body)).body.message).toBe('N4 hangs on C2.')
  })
  it('is told in the logbook by its name', async () => {
    const { lines } = (await lead.get<LogbookAnswer>('/logbook?day=2026-11-02')).body
    const named = lines.filter((l) => l.fact.kind === 'mounted').map((l) => [l.stationName, l.names.carrier])
    expect(named).toContainEqual(['C1', 'N4'])
    expect(lines.some((l) => l.fact.kind === 'fitted' && l.stationName === null && l.names.carrier === 'N4')).toBe(true)
  })
})

describe('a crash', () => {
  it('opens what has to be looked at; the tool centre stays open until it is read within its limit', async () => {
    await lead.post('/cells/crash', { key: nextKey(), stationId: id('C3') })
    later()
    const open = (await cell('C3')).todo.map((t) => t.task)
    expect(open.sort()).toEqual(['cableLook', 'neckStraight', 'reamer', 'toolCentre'])
    const read = (value: number, left: number | null) =>
      lead.post('/reading', {
        ...{ key: nextKey(), stationId: id('C3'), what: 'toolCentre', method: 'pointer', how: 'measured' },
        ...{ value, left, grade: null, from: {}, settled: [] },
      })
    expect((await read(0.8, null)).body).toMatchObject({ is: 'act' })
    later()
    expect((await cell('C3')).todo.map((t) => t.task)).toContain('toolCentre')
    expect((await read(0.8, 0.1)).body).toMatchObject({ is: 'good' })
    later()
    expect(await cell('C3')).toMatchObject({ centre: { offMm: 0.1 }, limitMm: 0.5, isLimitGuess: true })
    expect((await cell('C3')).todo.map((t) => t.task)).not.toContain('toolCentre')
  })
  it('is of robots only', async () => {
    await lead.post('/shop/station', { key: nextKey(), stationId: id('C3'), classKey: 'booth' })
    later()
    const body = { key: nextKey(), stationId: id('C3') }
    expect((await lead.post<Problem>('/cells/crash', body)).body.message).toBe('C3 is no robot cell.')
    await lead.post('/shop/station', { key: nextKey(), stationId: id('C3'), classKey: 'cell' })
    later()
  })
})

describe('how many necks are enough', () => {
  it('is reckoned from what hung and what was away, the trade’s guess before that', async () => {
    const { rounds } = await cells()
    expect(rounds).toMatchObject([{ familyName: 'Kelp', robots: 3, spares: 1, mendH: { by: 'trade', n: 0 } }])
    later(20 * HOUR)
    await bench('N1', [], 'ready')
    const [after] = (await cells()).rounds
    expect(after?.mendH).toMatchObject({ by: 'yours', n: 1 })
    expect(after?.ready).toBe(1)
  })
})

describe('a neck on the bench', () => {
  it('said to be ready with a tip at its limit, is not offered before the tip is changed', async () => {
    const rule = { kindKey: 'tip', classKey: 'cell', changeLimit: 6, cleanLimit: null, lookDays: null }
    expect((await lead.post('/shop/rule', { key: nextKey(), ...rule })).status).toBe(200)
    await lead.post('/clock/usage', { key: nextKey(), stationId: id('C2'), day: '2026-11-02', arcHours: 20 })
    later(3 * HOUR)
    await bench('N1', [{ act: 'changed', position: 'tip', partId: at.part('T9') }], 'ready')
    await swap('C2', 'N1')
    await bench('N4', [], 'ready')
    const offered = async () => (await cell('C1')).ready.find((r) => r.name === 'N4')?.verdict
    expect(await offered()).toMatchObject({ is: 'toMakeRight', amiss: [{ is: 'spent', kindKey: 'tip', limit: 6 }] })
    expect((await offered())?.minutes).toBeGreaterThan(0)
    expect((await thing('N4')).rightFor).toEqual([])
    await bench('N4', [{ act: 'changed', position: 'tip', partId: at.part('T9') }], 'ready')
    expect(await offered()).toMatchObject({ is: 'right' })
  })
})
