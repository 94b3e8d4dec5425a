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

/** What is in a loose gun, as somebody at the bench read it. */
const found = async (name: string, parts: Readonly<Record<string, string>>) => {
  const { guns } = (await lead.get<{ guns: SpareGun[] }>('/gun/spares')).body
  const carrierId = guns.find((g) => g.name === name)?.gunId
  const acts = Object.entries(parts).map(([position, code]) => ({ act: 'found', position, partId: at.part(code) }))
  const sent = await lead.post('/cells/bench', { key: nextKey(), carrierId, acts })
  later()
  return sent
}
const verdict = async (place: string, name: string) => {
  const { guns } = (await lead.get<{ guns: SpareGun[] }>(`/gun/spares?stationId=${id(place)}`)).body
  return guns.find((g) => g.name === name)?.here
}
const spareGun = async (name: string, family: string, cableM: number) => {
  const familyId = at.shop.families.find((f) => f.name === family)?.id ?? null
  await lead.post('/gun/spare', { key: nextKey(), name, familyId, cableM })
  later()
}

describe('a ready gun', () => {
  it('of which nobody knows liner and tip is not offered, and it is said what to look at', async () => {
    await spareGun('30', 'Kelp', 4)
    expect(await spare('B1')).toBeNull()
    expect(await verdict('B1', '30')).toMatchObject({
      is: 'toMakeRight',
      amiss: [
        { is: 'untold', kindKey: 'liner' },
        { is: 'untold', kindKey: 'tip' },
      ],
    })
  })
  it('known to suit this wire is offered', async () => {
    await lead.post('/rightparts/look', lookOf(at, 'B2'))
    later()
    const old = await swapFor('B2', '31')
    expect(await spare('B1')).toMatchObject({ name: old })
  })
  it('is right too once the bench has read what is in it', async () => {
    const { positions } = await gunOf('B1')
    await lead.post('/rightparts/look', lookOf(at, 'B1'))
    later()
    const codes = Object.fromEntries(
      (await gunOf('B1')).positions.flatMap((p) =>
        ['liner', 'tip'].includes(p.position) && p.partCode ? [[p.position, p.partCode]] : [],
      ),
    )
    expect(positions.length).toBeGreaterThan(0)
    expect((await found('30', codes)).status).toBe(200)
    expect(await verdict('B1', '30')).toEqual({ is: 'right', amiss: [], minutes: 0 })
  })
  it('of too short a cable is not, of another seat it never will be', async () => {
    await spareGun('32', 'Kelp', 3)
    expect(await verdict('B1', '32')).toMatchObject({ is: 'toMakeRight' })
    expect((await verdict('B1', '32'))?.amiss).toContainEqual({ is: 'length', wantsM: 4, hasM: 3 })
    await spareGun('33', 'Reed', 4)
    expect((await verdict('B1', '33'))?.amiss.map((a) => a.is)).toContain('seat')
  })
  it('known to be of another wire is not offered', async () => {
    // Another wire here: what was right for the first is wrong for it.
    const load = { stationId: id('B1'), act: 'newSpool', wireId: at.wire('alu 1.2') }
    await lead.post('/logbook', { key: nextKey(), acts: [load] })
    later()
    expect(await spare('B1')).toBeNull()
  })
})
