import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type ChoiceLine } from '@contract/houserule.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { rulingFor } from '@core/houserule/schools.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'

/** Choices among schools: kept with who and when, scope by scope, each change a line of the Logbook. */
let server: TestServer
let lead: Client
let hand: Client
let ids: Map<string, string>
const choices = async (who = lead) => (await who.get<{ choices: ChoiceLine[] }>('/houserule')).body.choices
const choose = (over: Record<string, unknown> = {}) =>
  lead.post('/houserule', { key: nextKey(), code: 'D10', scopeType: 'site', scopeKey: '*', option: 'on', ...over })

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A2', { built: { rollCount: 4, mode: 'spray' } })
  const password = 'ten letters or more'
  await lead.post('/people/person', { key: nextKey(), name: 'Ana', role: 'hand', password, isActive: true })
  hand = new Client(server.url)
  await hand.post('/people/sign-in', { name: 'Ana', password })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('house rules', () => {
  it('there are none until somebody chooses', async () => expect(await choices()).toEqual([]))
  it('a choice is kept with where, who, when and why; hands do not see who', async () => {
    expect(await choose({ note: 'our tips seat the liner' })).toMatchObject({ status: 200 })
    const said = { code: 'D10', scopeType: 'site', option: 'on', note: 'our tips seat the liner' }
    expect(await choices()).toMatchObject([{ ...said, chosenBy: 'Lead', chosenMs: server.clock.nowMs }])
    expect(await choices(hand)).toMatchObject([{ ...said, chosenBy: null }])
  })
  it('a narrower one stands beside it and holds for the gun it fits', async () => {
    await choose({ scopeType: 'feeder', scopeKey: '4', option: 'off' })
    const { ruledBy } = (await lead.get<GunAnswer>(`/gun/${ids.get('A1') ?? ''}`)).body
    expect(ruledBy).toMatchObject({ feeder: '4', mode: 'spray', class: 'booth' })
    expect(rulingFor('D10', ruledBy, await choices())).toMatchObject({ school: { key: 'off' } })
    expect(rulingFor('D10', { ...ruledBy, feeder: '2' }, await choices())).toMatchObject({ school: { key: 'on' } })
  })
  it('chosen anew it is one choice still, and going back to the usual leaves none', async () => {
    await choose({ scopeType: 'feeder', scopeKey: '4', option: 'on' })
    expect(await choices()).toHaveLength(2)
    await choose({ scopeType: 'feeder', scopeKey: '4', option: null })
    await choose({ option: null })
    expect(await choices()).toEqual([])
  })
  it('every change is a line of the Logbook', async () => {
    const { lines } = (await lead.get<LogbookAnswer>('/logbook')).body
    const said = lines.flatMap(({ fact }) =>
      fact.kind === 'shopChanged' && fact.change.of === 'school' && fact.change.code === 'D10' ? [fact.change] : [],
    )
    expect(said).toContainEqual(expect.objectContaining({ scopeType: 'site', option: 'on', was: null }))
    expect(said).toContainEqual(expect.objectContaining({ scopeType: 'feeder', scopeKey: '4', option: 'off' }))
    expect(said).toContainEqual(expect.objectContaining({ scopeType: 'site', option: null, was: 'on' }))
  })
  it.each([
    ['a question that is none', { code: 'D77' }, 400],
    ['a school of another question', { option: 'block' }, 400],
    ['a family that is not here', { scopeType: 'family', scopeKey: 'fam_none' }, 404],
    ['a site with a name', { scopeKey: 'north' }, 404],
  ])('%s is refused and nothing is written', async (_, over, status) => {
    const before = await contentOf(server)
    expect(await choose(over)).toMatchObject({ status })
    expect(await contentOf(server)).toEqual(before)
  })
  it('a power cut leaves nothing; the same key twice is once', async () => {
    const before = await contentOf(server)
    await withPowerCut(server, () => choose())
    expect(await contentOf(server)).toEqual(before)
    const key = nextKey()
    for (let i = 0; i < 2; i++) await choose({ key })
    expect(await choices()).toHaveLength(1)
  })
})
