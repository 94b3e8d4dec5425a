import { expect, it } from 'vitest'
import { FEEDER } from '@core/testing/sampleparts.ts'
import { ROLL_SETTINGS } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY } from '@core/rightparts/untold.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type SpareGun } from '@contract/spareguns.ts'
import { openFitShop, STEEL, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { makePlaces, nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'

/** Every spare against every place: what is offered as right is hung, and then nothing that came with it is wrong there. */
let server: TestServer
let lead: Client
let at: FitShop
const PINS = { Kelp: 'long', Dune: 'short', Reed: null, Fern: 'long' } as const
type Family = keyof typeof PINS
const FAMILIES = Object.keys(PINS) as Family[]
const FEEDERS = { 'seat long': 'long', 'seat short': 'short', 'seat untold': null } as const
type Feeder = keyof typeof FEEDERS
const FEEDER_NAMES = Object.keys(FEEDERS) as Feeder[]
const INSIDES = [['LS10', 'T9'], ['LS10', 'T12'], ['LP12', 'T9'], []] as const
const places = new Map<string, { stationId: string; family: Family; feeder: Feeder }>()
const spares: { gunId: string; name: string; family: Family; inside: (typeof INSIDES)[number] }[] = []

const later = () => (server.clock.nowMs += 60_000)
const idOf = (list: readonly { id: string; name: string }[], name: string) => list.find((x) => x.name === name)?.id
async function send(path: string, body: Record<string, unknown>) {
  const sent = await lead.post(path, { key: nextKey(), ...body })
  expect(sent.status, `${path} ${JSON.stringify(sent.body)}`).toBe(200)
  later()
}
const allSpares = async (query = '') => (await lead.get<{ guns: SpareGun[] }>(`/gun/spares${query}`)).body.guns

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'Z1')
  await send('/shop/family', { name: 'Dune', fit: { ...UNTOLD_FAMILY, pin: 'short' } })
  await send('/shop/family', { name: 'Fern', fit: { ...UNTOLD_FAMILY, pin: 'long' } })
  const { id: _, name: __, ...feeder } = FEEDER
  for (const name of FEEDER_NAMES) await send('/shop/feedertype', { name, fit: { ...feeder, pin: FEEDERS[name] } })
  const shop = (await lead.get<ShopAnswer>('/shop')).body
  const built = at.shop.areas[0]?.built
  for (const family of FAMILIES)
    for (const name of FEEDER_NAMES) {
      const own = { familyId: idOf(shop.families, family), feederTypeId: idOf(shop.feederTypes, name) }
      const called = `${family} ${name}`
      const made = await makePlaces(lead, called, { areaName: called, built: { ...built, ...own } })
      const stationId = [...made.values()][0]
      if (!stationId) throw new Error(`no place ${called}`)
      places.set(called, { stationId, family, feeder: name })
      const settings = ROLL_SETTINGS.map((roll) => ({ name: roll, value: '0.9' }))
      await send('/rightparts/look', { stationId, wireId: at.wire(STEEL), parts: [], settings })
    }
  for (const family of FAMILIES)
    for (const inside of INSIDES) {
      const name = [family, ...inside].join(' ')
      await send('/gun/spare', { name, familyId: idOf(shop.families, family), cableM: 4 })
      const gunId = (await allSpares()).find((g) => g.name === name)?.gunId ?? ''
      const acts = inside.map((code) => ({
        act: 'found',
        position: code[0] === 'T' ? 'tip' : 'liner',
        partId: at.part(code),
      }))
      if (acts.length > 0) await send('/cells/bench', { carrierId: gunId, acts, status: 'ready' })
      spares.push({ gunId, name, family, inside })
    }
})

it('is right where its seat, its liner and its tip are, and hung there nothing of it is wrong', async () => {
  let right = 0
  for (const [called, place] of places) {
    const { gunId: own } = (await lead.get<GunAnswer>(`/gun/${place.stationId}`)).body
    const judged = new Map((await allSpares(`?stationId=${place.stationId}`)).map((g) => [g.name, g.here]))
    for (const spare of spares.filter((s) => judged.has(s.name))) {
      const verdict = judged.get(spare.name)
      const [has, wants] = [PINS[spare.family], FEEDERS[place.feeder]]
      const seats = has && wants ? has === wants : spare.family === place.family
      expect(verdict?.is === 'never', `${spare.name} at ${called}`).toBe(!seats)
      if (verdict?.is !== 'right') continue
      right++
      expect(spare.inside).toEqual(INSIDES[0])
      await send('/gun/swap', { stationId: place.stationId, gunId: spare.gunId, oldGun: 'ready' })
      const { findings } = (await lead.get<GunAnswer>(`/gun/${place.stationId}`)).body
      const wrong = findings.filter((f) => f.severity !== 'note' && ['liner', 'tip', 'off'].includes(f.at))
      expect(wrong, `${spare.name} at ${called}`).toEqual([])
      await send('/gun/swap', { stationId: place.stationId, gunId: own, oldGun: 'ready' })
    }
  }
  // Kelp's tips belong to Kelp: on another family they are looked at as another's.
  expect(right).toBeGreaterThan(2)
})
