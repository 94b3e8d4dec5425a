import { describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type TuneAnswer } from '@contract/tune.ts'
import { makePlaces, nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const tune = async (name: string) => (await lead.get<TuneAnswer>(`/down/tune?stationId=${id(name)}`)).body
const trial = (name: string, over: Record<string, unknown> = {}) =>
  lead.post<{ eventId: string } & Problem>('/down/tune', {
    ...{ key: nextKey(), stationId: id(name), name: 'wireSpeed', from: 8, to: 9, saw: 'better' },
    ...{ symptom: 'stubs', guard: 'clear', ...over },
  })

serverForAll({ nowMs: Date.UTC(2026, 10, 16, 8), stepMs: 5 * 60_000 }, async (here) => {
  ;({ server, lead } = here)
  ids = await makePlaces(lead, 'A1–A3', { built: { mode: 'spray', gas: 'argon mix' } })
})

describe('a setting changed by itself', () => {
  it('is a line of the log with what was seen, and is not doubled', async () => {
    const key = nextKey()
    const first = await trial('A1', { key })
    server.clock.nowMs += 60_000
    expect((await trial('A1', { key })).body.eventId).toBe(first.body.eventId)
    await trial('A1', { name: 'volts', from: 20, to: 21, saw: 'worse' })
    expect((await tune('A1')).trials.map((t) => [t.name, t.from, t.to, t.saw])).toEqual([
      ['wireSpeed', 8, 9, 'better'],
      ['volts', 20, 21, 'worse'],
    ])
    const { lines } = (await lead.get<LogbookAnswer>(`/logbook?stationId=${id('A1')}`)).body
    expect(lines.filter((l) => l.fact.kind === 'tuned')).toHaveLength(2)
  })
  it('that changes nothing, or that no machine has, is refused with what to do', async () => {
    const same = await trial('A2', { from: 9, to: 9 })
    expect(same).toMatchObject({ status: 400, body: { message: expect.stringContaining('nothing was changed') } })
    const far = await trial('A2', { to: 900 })
    expect(far.body.details).toEqual(['Was it typed in another unit?'])
    expect((await tune('A2')).trials).toEqual([])
  })
  it('taken back is no trial any more', async () => {
    const { body } = await trial('A2')
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: [body.eventId] })
    expect((await tune('A2')).trials).toEqual([])
  })
  it('is what was touched last', async () => {
    const { tape } = (await lead.get<GunAnswer>(`/gun/${id('A1')}`)).body
    expect(tape[0]?.fact.kind).toBe('tuned')
  })
})

describe('settings that worked', () => {
  it('end the row of beads, and are offered again with the wire and mode they are for', async () => {
    await lead.post('/down/tune/kept', {
      ...{ key: nextKey(), stationId: id('A1'), symptom: 'stubs', values: { wireSpeed: 9, volts: 20 } },
    })
    const { trials, kept } = await tune('A1')
    expect(trials).toEqual([])
    expect(kept).toMatchObject([{ values: { wireSpeed: 9, volts: 20 }, mode: 'spray', isSame: true }])
  })
  it('of another mode stand behind, marked', async () => {
    await lead.post('/shop/station', { key: nextKey(), stationId: id('A1'), except: { mode: 'pulse' } })
    expect((await tune('A1')).kept[0]?.isSame).toBe(false)
  })
  it('without a value are none', async () => {
    const none = await lead.post<Problem>('/down/tune/kept', {
      ...{ key: nextKey(), stationId: id('A3'), symptom: null, values: {} },
    })
    expect(none.status).toBe(400)
    expect(none.body.details?.[0]).toContain('wire speed')
  })
})
