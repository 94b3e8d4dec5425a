import { describe, expect, it } from 'vitest'
import { indexOf } from '@core/diagnose/belief.ts'
import { drawScenario, isRunning, type Scenario } from '@core/practice/drill.ts'
import { bestPlay } from '@core/practice/engine.ts'
import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { makeRandom } from '@core/random/random.ts'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { type PracticeAnswer, type SkillAnswer } from '@contract/practice.ts'
import { type GroupsAnswer } from '@contract/classes.ts'
import { type Problem } from '@contract/common.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { Client, nextKey, type TestServer } from '@server/testing/testserver.ts'

/** Drills of a training shop: its own guns as booths, drills set for a group, what was played kept once and of nobody. */
let server: TestServer
let lead: Client
let at: FitShop
const HOUR = 3_600_000
/** A Monday, 07:00 in Oslo. */
const START = Date.UTC(2026, 10, 2, 6)
const id = (name: string) => at.ids.get(name) ?? ''
const send = async (path: string, body: Record<string, unknown>, who = lead) => {
  const sent = await who.post<Problem>(path, { key: nextKey(), ...body })
  return { status: sent.status, problem: sent.body }
}
const practice = async (who = lead, stationId = id('T1')) =>
  (await who.get<PracticeAnswer>(`/practice?stationId=${stationId}`)).body
const drill = (over: Partial<Scenario> = {}): Scenario => ({
  ...{ version: 1 as const, name: 'gas at the pin', setup: USUAL_BOOTHS[0]!, faults: [{ key: 'orings', bad: 0.9 }] },
  ...{ complaint: 'porosity', seed: 4, ...over },
})
const attempt = (over: Record<string, unknown> = {}) => ({
  ...{ stationId: id('T1'), setId: null, faults: ['orings'], complaint: 'porosity', minutes: 6, bestMin: 5 },
  ...{
    acts: [
      { do: 'look', key: 'flow' },
      { do: 'fix', key: 'changed orings' },
    ],
    ...over,
  },
})
let reed = ''

serverForAll({ nowMs: START }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'T1–T4', { classKey: 'training', placeWord: 'booth' })
  await send('/shop/site', { name: 'School', zone: 'Europe/Oslo', units: 'metric', currency: 'EUR' })
  for (const [name, booths] of [
    ['Reed', ['T1', 'T2']],
    ['Sedge', ['T3']],
  ] as const)
    await send('/classes/group', {
      ...{ id: null, name, level: 'new', size: 4, isActive: true },
      booths: booths.map((n) => ({ stationId: id(n), wireId: null, learner: null })),
    })
  const { groups } = (await lead.get<GroupsAnswer>('/classes/groups')).body
  reed = groups.find((g) => g.name === 'Reed')?.id ?? ''
  await send('/calendar/entry', {
    ...{ id: null, kind: 'class', name: 'Reed’s', areaId: null, groupId: reed, firstDay: '2026-11-02' },
    ...{ start: '08:00', end: '10:00', weekly: null },
  })
})

describe('what a device drills with', () => {
  it('is this shop’s own guns, each kind once, and its own knowledge; a drill can be drawn and ended on each', async () => {
    const { setups, knowledge, day, place } = await practice()
    expect([day, place?.name]).toEqual(['2026-11-02', 'T1'])
    expect(setups.length).toBeGreaterThan(0)
    expect(new Set(setups.map((s) => s.name)).size).toBe(setups.length)
    const index = indexOf(knowledge as Knowledge)
    for (const setup of setups) {
      const scenario = drawScenario(index, setup, { random: makeRandom(3) })
      expect(scenario && isRunning(bestPlay(index, scenario))).toBe(true)
    }
  })
  it('names the group that has the booth by the calendar, and nobody else', async () => {
    server.clock.nowMs = START + 1.5 * HOUR
    expect((await practice()).groupName).toBe('Reed')
    expect((await practice(lead, id('T3'))).groupName).toBeNull()
  })
})

describe('what really stopped', () => {
  it('can be met again in that gun’s booth, by leads; of a learner it is not told', async () => {
    const said = { cause: 'gunOut', isCertain: true, by: 'search', closing: 'good', symptom: 'porosity' }
    await send('/logbook', { acts: [{ stationId: id('T2'), act: 'down', position: 'tip' }] })
    await send('/down/explained', { stationId: id('T2'), ...said })
    const { stops } = await practice()
    expect(stops).toMatchObject([{ name: 'T2', fault: 'gunOut' }])
    expect(stops[0]?.setup?.name).toContain('T2')
  })
})

describe('drills that are set', () => {
  it('are seen by their group, and counted as they are played', async () => {
    expect((await send('/practice/set', { name: 'Tuesday', groupId: reed, scenarios: [drill()] })).status).toBe(200)
    const [set] = (await practice()).sets
    expect(set).toMatchObject({ name: 'Tuesday', groupName: 'Reed', played: 0 })
    expect(set?.scenarios[0]).toEqual(JSON.parse(JSON.stringify(drill())))
    await send('/practice/attempt', attempt({ setId: set?.id }))
    await send('/practice/attempt', attempt({ setId: set?.id, minutes: 30 }))
    expect((await practice()).sets[0]).toMatchObject({ played: 2, well: 1 })
  })
  it('that show nothing, or complain of what this shop does not list, are refused in words', async () => {
    const refused = async (s: Scenario) =>
      (await send('/practice/set', { name: 'x', groupId: null, scenarios: [s] })).problem.message
    expect(await refused(drill({ complaint: 'sings' }))).toContain('no complaint “sings”')
    expect(await refused(drill({ faults: [{ key: 'spoolTangled', bad: 0 }] }))).toContain('nothing shows')
    const cast = { ...drill(), seed: -1 }
    expect((await send('/practice/set', { name: 'x', groupId: null, scenarios: [cast] })).status).toBe(400)
    expect((await send('/practice/set', { name: 'x', groupId: 'grp_none', scenarios: [drill()] })).status).toBe(404)
  })
  it('are gone for everybody once they are taken back, and what was played stays', async () => {
    const [set] = (await practice()).sets
    expect((await send('/practice/end', { id: set?.id })).status).toBe(200)
    expect((await practice()).sets).toEqual([])
    const { skills } = (await lead.get<SkillAnswer>('/practice/skill')).body
    expect(skills).toMatchObject([{ groupName: 'Reed', fault: 'orings', well: 1, tried: 2 }])
    expect((await send('/practice/end', { id: 'dset_none' })).status).toBe(404)
  })
})

describe('what was played', () => {
  it('is kept once however often it is sent, of the group that has the booth', async () => {
    const body = { key: nextKey(), ...attempt({ minutes: 60 }) }
    for (let n = 0; n < 3; n++) await lead.post('/practice/attempt', body)
    const { skills } = (await lead.get<SkillAnswer>('/practice/skill')).body
    expect(skills).toMatchObject([{ groupName: 'Reed', well: 1, tried: 3, says: 'O-rings of the pin torn' }])
  })
  it('without a class, or at no booth, is of nobody; nonsense is refused', async () => {
    server.clock.nowMs = START + 8 * HOUR
    await send('/practice/attempt', attempt({ faults: ['gunOut'] }))
    await send('/practice/attempt', attempt({ faults: ['gunOut'], stationId: null }))
    const { skills } = (await lead.get<SkillAnswer>('/practice/skill')).body
    expect(skills.find((s) => s.fault === 'gunOut')).toMatchObject({ groupName: null, tried: 2 })
    expect((await send('/practice/attempt', attempt({ faults: ['magic'] }))).status).toBe(400)
    expect((await send('/practice/attempt', attempt({ minutes: -1 }))).status).toBe(400)
  })
  it('a learner may play and be told nothing of groups', async () => {
    const name = 'A learner'
    await send('/people/person', { name, role: 'learner', password: 'a long password too', isActive: true })
    const learner = new Client(server.url)
    await learner.post('/people/sign-in', { name, password: 'a long password too' })
    expect((await send('/practice/attempt', attempt(), learner)).status).toBe(200)
    expect((await practice(learner)).stops).toEqual([])
    expect((await learner.get('/practice/skill')).status).toBe(403)
    expect((await send('/practice/set', { name: 'x', groupId: null, scenarios: [drill()] }, learner)).status).toBe(403)
  })
})
