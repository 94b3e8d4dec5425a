import { describe, expect, it } from 'vitest'
import { makeRandom, pick } from '@core/random/random.ts'
import { type FloorAnswer, type FloorMoved } from '@contract/floor.ts'
import { makePlaces, nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

let server: TestServer
let lead: Client
let ids: string[]
serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12), stepMs: 3000 }, async (here) => {
  ;({ server, lead } = here)
  ids = [...(await makePlaces(lead, 'A1–A8')).values()]
})

const whole = async (client = lead) => (await client.get<FloorAnswer>('/floor')).body
const moved = async (since: string, client = lead) =>
  (await client.get<FloorMoved>(`/moved/floor?since=${encodeURIComponent(since)}`)).body
const tip = (stationId: string) =>
  lead.post('/logbook', { key: nextKey(), acts: [{ stationId, act: 'changed', position: 'tip', outReason: 'worn' }] })

describe('a floor asked for again', () => {
  it('tells only the gun that was worked on, and nothing where nothing was', async () => {
    const { stamp } = await whole()
    const none = await moved(stamp)
    expect([none.isWhole, none.guns]).toEqual([false, []])
    await tip(ids[2] ?? '')
    const one = await moved(none.stamp)
    expect(one.isWhole).toBe(false)
    expect(one.guns.map((g) => g.stationId)).toEqual([ids[2]])
  })
  it('by a stamp that nobody knows, of another server or of a floor with a gun less, is told whole', async () => {
    const { stamp } = await whole()
    expect((await moved('never said')).isWhole).toBe(true)
    const second = await server.second()
    const person = lead.at(second.url)
    expect((await moved(stamp, person)).isWhole).toBe(true)
    expect((await moved(stamp, person)).guns).toHaveLength(ids.length)
    await second.close()
    ids.push(...(await makePlaces(lead, 'A9')).values())
    expect((await moved(stamp)).isWhole).toBe(true)
  })
  it('clocks run on: after ten seconds every gun is looked at anew', async () => {
    const { stamp } = await whole()
    server.clock.nowMs += 10_000
    const later = await moved(stamp)
    expect(later.isWhole).toBe(false)
    expect(later.guns).toHaveLength(ids.length)
  })
  it('put together from what is told it is the whole floor, after every one of many acts, stops and moves', async () => {
    const random = makeRandom(5)
    let kept = await whole()
    for (let i = 0; i < 40; i++) {
      const stationId = pick(random, ids)
      const turn = random()
      if (turn < 0.5) await tip(stationId)
      else if (turn < 0.7)
        await lead.post('/logbook', {
          key: nextKey(),
          acts: [{ stationId, act: pick(random, ['down', 'running', 'parked', 'unparked']) }],
        })
      else if (turn < 0.85) await lead.post('/gun/status', { key: nextKey(), stationId, isParked: random() < 0.5 })
      else
        await lead.post('/shop/move', {
          key: nextKey(),
          stationId,
          gunOfStationId: pick(
            random,
            ids.filter((x) => x !== stationId),
          ),
        })
      const told = await moved(kept.stamp)
      const byId = new Map(told.guns.map((g) => [g.stationId, g]))
      kept = { ...told, guns: told.isWhole ? told.guns : kept.guns.map((g) => byId.get(g.stationId) ?? g) }
      // Nothing kept: what another server, which never saw this floor, makes of it at the same instant.
      const second = await server.second()
      const fresh = await whole(lead.at(second.url))
      await second.close()
      expect(kept.guns).toEqual(fresh.guns)
    }
  })
})
