import { NO_ID } from '@core/ids/id.ts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { makeRandom, pick } from '@core/random/random.ts'
import { type LogAnswer } from '@contract/logbook.ts'
import { positionNow } from '@server/db/schema.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'
import { PositionStore, readPositions, type CarrierState } from '@server/gunnow/positions.ts'

let server: TestServer
let lead: Client
let ids: string[]
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = [...(await makePlaces(lead, 'A1–A6')).values()]
})
afterAll(() => server.close())

const sorted = (states: Map<string, CarrierState>) =>
  [...states.values()]
    .flatMap((s) => s.rows)
    .sort((a, b) => (`${a.carrierId} ${a.position}` < `${b.carrierId} ${b.position}` ? -1 : 1))

describe('the store of positions', () => {
  it('is what the database holds after every one of many acts, undos and moves, also those of another server', async () => {
    const random = makeRandom(12)
    const second = await server.second()
    const { db } = server.parts.deps
    const store = new PositionStore()
    const logged: string[] = []
    for (let i = 0; i < 40; i++) {
      server.clock.nowMs += 60_000
      const stationId = pick(random, ids)
      const turn = random()
      if (turn < 0.7) {
        const acts = [
          { stationId, act: pick(random, ['changed', 'cleaned', 'seen']), position: pick(random, ['tip', 'nozzle']) },
        ]
        const answer = await lead.post<LogAnswer>('/logbook', { key: nextKey(), acts })
        logged.push(...answer.body.logged.map((l) => l.eventId))
      } else if (turn < 0.85 && logged.length > 0)
        await lead.post('/logbook/correct', {
          key: nextKey(),
          eventId: pick(random, logged),
          stationId: pick(random, ids),
        })
      else
        await lead.post('/shop/move', {
          key: nextKey(),
          stationId,
          gunOfStationId: pick(
            random,
            ids.filter((x) => x !== stationId),
          ),
        })
      expect(sorted(await store.readAll(db))).toEqual(sorted(await readPositions(db, null)))
      expect(sorted(await second.parts.deps.positions.readAll(second.parts.deps.db))).toEqual(
        sorted(await readPositions(db, null)),
      )
    }
    await second.close()
  })
  it('asks the database only for what changed', async () => {
    const { db } = server.parts.deps
    const store = new PositionStore()
    await store.readAll(db)
    const [one] = await db.select().from(positionNow).limit(1)
    // Written past the projection, which never happens but shows whether the row was read again.
    await db
      .update(positionNow)
      .set({ cleanings: 77 })
      .where(eq(positionNow.carrierId, one?.carrierId ?? NO_ID))
    const kept = (await store.readAll(db)).get(one?.carrierId ?? '')
    expect(kept?.rows.some((r) => r.cleanings === 77)).toBe(false)
    const fresh = (await new PositionStore().readAll(db)).get(one?.carrierId ?? '')
    expect(fresh?.rows.every((r) => r.cleanings === 77)).toBe(true)
  })
})
