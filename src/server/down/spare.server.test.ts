import { describe, expect, it } from 'vitest'
import { type DownAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type SpareGun } from '@contract/spareguns.ts'
import { lookOf, openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'

/** The ready gun that a search offers: never one that is known to be of another wire, one that is known to suit it first. */
let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const spare = async (name: string) => (await lead.get<DownAnswer>(`/down?stationId=${id(name)}`)).body.spare
const gunOf = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const later = () => (server.clock.nowMs += 60_000)
/** A new gun hung in place of the one that is there, which becomes a ready one with what is in it. */
async function swapFor(place: string, name: string) {
  const familyId = at.shop.families.find((f) => f.name === 'Kelp')?.id ?? null
  await lead.post('/gun/spare', { key: nextKey(), name, familyId, cableM: 4 })
  later()
  const { guns } = (await lead.get<{ guns: SpareGun[] }>('/gun/spares')).body
  const old = (await gunOf(place)).gunName
  const gunId = guns.find((g) => g.name === name)?.gunId
  await lead.post('/gun/swap', { key: nextKey(), stationId: id(place), gunId, oldGun: 'ready' })
  later()
  return old
}

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'B1–B4')
})

describe('a ready gun', () => {
  it('of which nobody knows liner and tip says so', async () => {
    const familyId = at.shop.families.find((f) => f.name === 'Kelp')?.id ?? null
    await lead.post('/gun/spare', { key: nextKey(), name: '30', familyId, cableM: 4 })
    later()
    expect(await spare('B1')).toMatchObject({ name: '30', untold: ['liner', 'tip'] })
  })
  it('known to suit this wire comes before it, whatever their names', async () => {
    await lead.post('/rightparts/look', lookOf(at, 'B2'))
    later()
    const old = await swapFor('B2', '31')
    expect(await spare('B1')).toMatchObject({ name: old, untold: [] })
  })
  it('known to be of another wire is not offered', async () => {
    // Another wire here: what was right for the first is wrong for it.
    const load = { stationId: id('B1'), act: 'newSpool', wireId: at.wire('alu 1.2') }
    await lead.post('/logbook', { key: nextKey(), acts: [load] })
    later()
    expect(await spare('B1')).toMatchObject({ name: '30' })
  })
})
