import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import {
  type CalendarAnswer,
  type ClassesAnswer,
  type GroupsAnswer,
  type IcsPreview,
  type PairLine,
  type QuizAnswer,
  type QuizKnown,
  type TechniqueAnswer,
} from '@contract/classes.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type Problem } from '@contract/common.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { Client, nextKey, type TestServer } from '@server/testing/testserver.ts'

/** A training shop of four booths and two groups: its week, what is found between two classes, and what may be told to whom. */
let server: TestServer
let lead: Client
let at: FitShop
const HOUR = 3_600_000
const DAY = 24 * HOUR
/** A Monday, 07:00 in Oslo; the clocks went back eight days before. */
const START = Date.UTC(2026, 10, 2, 6)
const id = (name: string) => at.ids.get(name) ?? ''
const send = async <T>(path: string, body: Record<string, unknown>, who = lead) => {
  const sent = await who.post<T>(path, { key: nextKey(), ...body })
  return { ...sent, problem: sent.body as unknown as Problem }
}
const groups = async () => (await lead.get<GroupsAnswer>('/classes/groups')).body.groups
const groupId = async (name: string) => (await groups()).find((g) => g.name === name)?.id ?? ''
const classes = async (who = lead) => (await who.get<ClassesAnswer>('/classes')).body
const calendar = async (from = '2026-11-02', days = 7) =>
  (await lead.get<CalendarAnswer>(`/calendar?from=${from}&days=${days}`)).body
const entryOf = async (name: string) => (await calendar()).entries.find((e) => e.name === name)
const entry = (own: Record<string, unknown>) => ({
  ...{ id: null, kind: 'class', areaId: null, firstDay: '2026-10-19', start: '08:50', end: '10:20' },
  ...{ weekly: { weekdays: [1, 2, 3, 4, 5], untilDay: null, everyWeeks: 1 } },
  ...own,
})
const booths = (...names: string[]) => names.map((n, i) => ({ stationId: id(n), wireId: null, learner: `L${i + 1}` }))
let people = 0
/** Somebody with a role of their own. */
async function person(role: string): Promise<Client> {
  const name = `The ${role} ${people++}`
  const password = 'a long password too'
  await send('/people/person', { name, role, password, isActive: true })
  const client = new Client(server.url)
  await client.post('/people/sign-in', { name, password })
  return client
}

serverForAll({ nowMs: START }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'T1–T4', { classKey: 'training', placeWord: 'booth' })
  await send('/shop/site', { name: 'School', zone: 'Europe/Oslo', units: 'metric', currency: 'EUR' })
})

describe('groups', () => {
  it('are made with booths and codes; a name is refused, a code twice too', async () => {
    const reed = { id: null, name: 'Reed', level: 'new', size: 4, booths: booths('T1', 'T2', 'T3', 'T4') }
    expect((await send('/classes/group', reed)).status).toBe(200)
    const sedge = { id: null, name: 'Sedge', level: 'some', size: 3, booths: booths('T1', 'T2') }
    expect((await send('/classes/group', sedge)).status).toBe(200)
    expect((await groups()).map((g) => [g.name, g.booths.length])).toEqual([
      ['Reed', 4],
      ['Sedge', 2],
    ])
    const named = await send('/classes/group', {
      ...{ ...reed, name: 'Moss' },
      booths: [{ stationId: id('T1'), wireId: null, learner: 'Johanna' }],
    })
    expect(named.status).toBe(400)
    expect(named.problem.message).toContain('could be a name')
    const twice = await send('/classes/group', {
      ...{ ...reed, name: 'Moss' },
      booths: [...booths('T1'), { stationId: id('T2'), wireId: null, learner: 'l1' }],
    })
    expect(twice.problem.message).toBe('l1 is at T1 and at T2.')
    expect((await send('/classes/group', reed)).problem.message).toContain('with that name already')
  })
})

describe('the calendar', () => {
  it('has classes on the site’s wall, and says which fall on each other', async () => {
    const reed = await groupId('Reed')
    const sedge = await groupId('Sedge')
    const made = await send<{ clashes: string[] }>('/calendar/entry', entry({ name: 'Reed mornings', groupId: reed }))
    expect(made.body.clashes).toEqual([])
    const late = entry({ name: 'Sedge mornings', groupId: sedge, start: '10:00', end: '11:30' })
    const over = await send<{ clashes: string[] }>('/calendar/entry', late)
    expect(over.body.clashes).toHaveLength(1)
    expect(over.body.clashes[0]).toMatch(/T1, T2 are Reed’s and Sedge’s at once\.$/)
    const known = await entryOf('Sedge mornings')
    const put = await send<{ clashes: string[] }>('/calendar/entry', {
      ...late,
      id: known?.id,
      start: '10:30',
      end: '12:00',
    })
    expect(put.body.clashes).toEqual([])
    const { occurrences, days } = await calendar()
    expect(days).toHaveLength(7)
    expect(occurrences).toHaveLength(10)
  })
  it('refuses what cannot be, in words', async () => {
    const reed = await groupId('Reed')
    expect((await send('/calendar/entry', entry({ name: 'x', groupId: null }))).problem.message).toBe(
      'Whose class is it?',
    )
    expect((await send('/calendar/entry', entry({ name: 'x', groupId: reed, end: '08:50' }))).problem.message).toBe(
      'It begins and ends at 08:50.',
    )
    const never = entry({ name: 'x', groupId: reed, weekly: { weekdays: [1], untilDay: '2026-01-01', everyWeeks: 1 } })
    expect((await send('/calendar/entry', never)).problem.message).toContain('never takes place')
    expect((await send('/calendar/move', { entryId: 'cal_none', day: '2026-11-02', to: null })).status).toBe(404)
  })
  it('moves one time, drops one, and puts it back', async () => {
    const one = await entryOf('Reed mornings')
    const move = (own: Record<string, unknown>) =>
      send('/calendar/move', { entryId: one?.id, day: '2026-11-04', ...own })
    await move({ to: { day: '2026-11-05', start: '13:00', end: '14:00' } })
    const times = async () => (await calendar()).occurrences.filter((o) => o.entryId === one?.id)
    expect((await times()).find((o) => o.day === '2026-11-04')?.movedTo).toBe('2026-11-05')
    await move({ to: null })
    expect(await times()).toHaveLength(4)
    await move({ to: null, isBack: true })
    expect(await times()).toHaveLength(5)
    expect((await move({ day: '2026-11-07', to: null })).problem.message).toContain('does not take place on 2026-11-07')
  })
  it('is what Floor and each gun go by: a class that begins, one that was dropped', async () => {
    const one = await entryOf('Reed mornings')
    const cutoff = async () => (await lead.get<FloorAnswer>('/floor')).body.cutoff
    const ofGun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body.cutoff
    const MIN = 60_000
    const reed = { byMs: START + 110 * MIN, atMs: START + 200 * MIN, of: { is: 'classBegins', name: 'Reed' } }
    expect(await cutoff()).toMatchObject(reed)
    expect(await ofGun('T3')).toMatchObject(reed)
    await send('/calendar/move', { entryId: one?.id, day: '2026-11-02', to: null })
    expect(await cutoff()).toMatchObject({ byMs: START + 210 * MIN, of: { is: 'classBegins', name: 'Sedge' } })
    expect(await ofGun('T3')).toMatchObject({ byMs: START + DAY + 110 * MIN, of: { name: 'Reed' } })
    await send('/calendar/move', { entryId: one?.id, day: '2026-11-02', to: null, isBack: true })
    expect(await cutoff()).toMatchObject(reed)
  })
  it('goes out as a file and comes back the same, taken in twice too', async () => {
    const one = await entryOf('Reed mornings')
    await send('/calendar/move', {
      entryId: one?.id,
      day: '2026-11-05',
      to: { day: '2026-11-06', start: '13:00', end: '14:00' },
    })
    await send('/calendar/move', { entryId: one?.id, day: '2026-11-03', to: null })
    await send('/calendar/entry', {
      ...entry({ kind: 'cellStop', name: 'Cells stand', groupId: null, weekly: null }),
      firstDay: '2026-11-06',
    })
    const before = await calendar()
    const text = (await lead.get<string>('/calendar.ics')).body
    expect(text).toContain('BEGIN:VTIMEZONE')
    const { lines, refused } = (await send<IcsPreview>('/calendar/preview', { text })).body
    expect(refused).toEqual([])
    expect(lines.map((l) => [l.name, l.start, l.isKnown]).sort()).toEqual([
      ['Cells stand', '08:50', true],
      ['Reed mornings', '08:50', true],
      ['Sedge mornings', '10:30', true],
    ])
    const take = lines.map((l) => ({
      ...{ uid: l.uid, areaId: null, groupId: l.groupId },
      as: l.groupId ? 'class' : 'cellStop',
    }))
    for (let i = 0; i < 2; i++) expect((await send('/calendar/take', { text, take })).status).toBe(200)
    const plain = ({ occurrences }: CalendarAnswer) => occurrences.map((o) => [o.name, o.fromMs, o.toMs, o.movedTo])
    expect(plain(await calendar())).toEqual(plain(before))
    await send('/calendar/move', { entryId: one?.id, day: '2026-11-05', to: null, isBack: true })
    await send('/calendar/move', { entryId: one?.id, day: '2026-11-03', to: null, isBack: true })
  })
  it('holidays of a file are the shop’s, and no class falls on one', async () => {
    const text = [
      'BEGIN:VCALENDAR',
      'BEGIN:VEVENT',
      'UID:h1',
      'SUMMARY:Autumn',
      'DTSTART;VALUE=DATE:20261109',
      'DTEND;VALUE=DATE:20261111',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n')
    const take = [{ uid: 'h1', as: 'holiday', areaId: null, groupId: null }]
    expect((await send('/calendar/take', { text, take })).status).toBe(200)
    const { days, occurrences } = await calendar('2026-11-09')
    expect(days.slice(0, 3).map((d) => d.holiday)).toEqual(['Autumn', 'Autumn', null])
    expect(occurrences.filter((o) => o.kind === 'class' && o.day < '2026-11-11')).toEqual([])
    expect((await send('/calendar/take', { text: 'nonsense', take })).problem.message).toContain('no calendar file')
  })
})

describe('a booth between two classes', () => {
  const found = (stationId: string, own: Record<string, unknown>, who = lead) =>
    send<{ ofClass: string | null }>('/classes/found', { stationId, ...own }, who)
  const ALL = {
    flow: 'right',
    gunHome: 'right',
    tip: 'right',
    cable: 'right',
    menu: 'right',
    hanger: 'right',
    clamp: 'right',
  }

  it('is looked at for the class that comes, and told of the one that left it', async () => {
    // Monday 10:20, Reed has just gone; Sedge comes at 10:30.
    server.clock.nowMs = Date.UTC(2026, 10, 2, 9, 22)
    const kept = await found(id('T1'), { found: { ...ALL, gunHome: 'halfOut', clamp: 'off' }, still: ['clamp'] })
    expect(kept.body.ofClass).toBe('Sedge mornings')
    const { period, is, leftBy, booths: stand, found: counts } = await classes()
    expect([period?.name, is, leftBy]).toEqual(['Sedge mornings', 'next', 'Reed'])
    expect(stand.map((b) => [b.name, b.learner, b.look?.still ?? null])).toEqual([
      ['T1', 'L1', ['clamp']],
      ['T2', 'L2', null],
    ])
    expect(counts.find((c) => c.item === 'gunHome')).toMatchObject({ wrong: 1, looked: 1 })
  })
  it('what is still wrong stands on the gun; what was put right does not', async () => {
    const { alarms, tape } = (await lead.get<GunAnswer>(`/gun/${id('T1')}`)).body
    expect(alarms.map((a) => a.what)).toEqual(['clamp'])
    expect(tape[0]?.fact).toMatchObject({ kind: 'handedOver' })
  })
  it('the same look sent again is one; taken back it is none, and so are its readings', async () => {
    const key = nextKey()
    const body = { key, stationId: id('T2'), found: { ...ALL, gunHome: 'halfOut' }, still: ['gunHome'] }
    await lead.post('/classes/found', body)
    await lead.post('/classes/found', body)
    const gun = async () => (await lead.get<GunAnswer>(`/gun/${id('T2')}`)).body
    const line = (await gun()).tape.find((l) => l.fact.kind === 'handedOver')
    expect((await gun()).tape.filter((l) => l.fact.kind === 'handedOver')).toHaveLength(1)
    expect((await gun()).alarms.map((a) => a.what)).toEqual(['pinHome'])
    await send('/logbook/undo', { eventIds: [line?.eventId] })
    expect((await gun()).alarms).toEqual([])
    expect((await classes()).booths.find((b) => b.name === 'T2')?.look).toBeNull()
  })
  it('is refused where nothing was looked at, or the answer is none', async () => {
    expect((await found(id('T1'), { found: {} })).problem.message).toBe('Nothing was looked at.')
    expect((await found(id('T1'), { found: { tip: 'lovely' } })).problem.message).toContain('is no answer to that')
    expect((await found(id('T1'), { found: { tip: 'right' }, still: ['tip'] })).problem.message).toContain(
      'was not found wrong',
    )
  })
  it('noted without a link it counts where it was noted', async () => {
    const happenedMs = Date.UTC(2026, 10, 2, 9, 25)
    server.clock.nowMs = Date.UTC(2026, 10, 2, 15)
    const kept = await found(id('T2'), { found: { ...ALL, menu: 'changed' }, happenedMs })
    expect(kept.body.ofClass).toBe('Sedge mornings')
  })
})

describe('who may see what', () => {
  it('a learner looks and says, and sees no codes, no counts of groups, no lessons', async () => {
    const learner = await person('learner')
    const seen = (await learner.get<ClassesAnswer>('/classes')).body
    expect(seen.teach).toEqual([])
    expect(seen.lessons).toEqual([])
    expect(seen.booths.every((b) => b.learner === null)).toBe(true)
    const told = (await learner.get<GroupsAnswer>('/classes/groups')).body
    expect(told.groups.flatMap((g) => g.booths).every((b) => b.learner === null)).toBe(true)
    expect((await learner.get('/classes/teach')).status).toBe(403)
    expect((await send('/classes/found', { stationId: id('T3'), found: { tip: 'right' } }, learner)).status).toBe(200)
    expect(
      (await send('/classes/group', { id: null, name: 'X', level: 'new', size: 1, booths: [] }, learner)).status,
    ).toBe(403)
  })
  it('an instructor runs classes', async () => {
    const instructor = await person('instructor')
    expect(
      (await send('/classes/taught', { groupId: await groupId('Reed'), item: 'gunHome' }, instructor)).status,
    ).toBe(200)
    expect((await instructor.get('/classes/teach')).status).toBe(200)
  })
})

describe('cards and quizzes', () => {
  const jpeg = async () =>
    new Uint8Array(
      await sharp({ create: { width: 300, height: 200, channels: 3, background: '#888' } })
        .jpeg()
        .toBuffer(),
    )
  const pairs = async (who = lead) => (await who.get<{ pairs: PairLine[] }>('/classes/pairs')).body.pairs
  const own = { right: null, wrong: null, why: null, exercise: null, image: null, source: null, isWrongHere: false }

  it('a card takes own words with who looked it over; emptied it says what it came with', async () => {
    const before = (await pairs()).find((p) => p.key === 'tipTight')
    expect(before).toMatchObject({ isOwn: false, reviewedBy: null })
    await send('/classes/pair', { ...own, pair: 'tipTight', right: 'Two fingers and a nudge.', image: 'A jam jar.' })
    const after = (await pairs()).find((p) => p.key === 'tipTight')
    expect(after).toMatchObject({
      right: 'Two fingers and a nudge.',
      image: 'A jam jar.',
      isOwn: true,
      reviewedBy: 'Lead',
    })
    await send('/classes/pair', { ...own, pair: 'tipTight', right: '' })
    expect((await pairs()).find((p) => p.key === 'tipTight')?.right).toBe(before?.right)
  })
  it('wrong here it is shown to no learner and not printed', async () => {
    await send('/classes/pair', { ...own, pair: 'brush', isWrongHere: true })
    const learner = await person('learner')
    expect((await pairs()).some((p) => p.key === 'brush' && p.isWrongHere)).toBe(true)
    expect((await pairs(learner)).some((p) => p.key === 'brush')).toBe(false)
    expect((await lead.get('/print/pairs.pdf?pair=brush')).status).toBe(404)
  })
  it('own photos stand on their side and are printed with it; of no pair, or from a learner, none is kept', async () => {
    const sent = await lead.send<{ id: string }>(`/photo?type=pair&key=nozzle%20wrong&once=${nextKey()}`, await jpeg())
    expect(sent.status).toBe(200)
    expect((await pairs()).find((p) => p.key === 'nozzle')?.photos).toMatchObject([{ id: sent.body.id, side: 'wrong' }])
    expect((await lead.send(`/photo?type=pair&key=nozzle%20sideways&once=${nextKey()}`, await jpeg())).status).toBe(404)
    const learner = await person('hand')
    expect((await learner.send(`/photo?type=pair&key=nozzle%20right&once=${nextKey()}`, await jpeg())).status).toBe(403)
    const one = await lead.bytes('/print/pairs.pdf?pair=nozzle')
    const all = await lead.bytes('/print/pairs.pdf')
    expect(one.subarray(0, 5).toString()).toBe('%PDF-')
    expect(all.length).toBeGreaterThan(one.length)
  })
  it('a quiz is made of the own gun; its answers count for the group, once', async () => {
    const quiz = (await lead.get<QuizAnswer>(`/classes/quiz?stationId=${id('T1')}&seed=5`)).body
    expect(quiz.questions).toHaveLength(10)
    expect((await lead.get<QuizAnswer>(`/classes/quiz?stationId=${id('T1')}&seed=5`)).body).toEqual(quiz)
    const answers = quiz.questions.map(({ kind, about }, i) => ({ kind, about, isRight: i > 0 }))
    const body = { key: nextKey(), stationId: id('T1'), answers }
    await lead.post('/classes/quiz', body)
    await lead.post('/classes/quiz', body)
    const { known } = (await lead.get<QuizKnown>('/classes/known')).body
    expect(known).toHaveLength(10)
    expect(known.every((k) => k.asked === 1)).toBe(true)
    expect(known[0]).toMatchObject({ right: 0 })
    expect((await send('/classes/quiz', { stationId: id('T1'), answers: [] })).status).toBe(400)
  })
})

describe('technique', () => {
  const ask = async (own = '') =>
    (await lead.get<TechniqueAnswer>(`/classes/technique?stationId=${id('T1')}${own}`)).body
  it('waits for a minute on the equipment, unless the house looks at the hand first', async () => {
    expect(await ask()).toMatchObject({ minuteFirst: true, workDeg: 45 })
    expect(await ask('&joint=groove')).toMatchObject({ workDeg: 90 })
    const rule = { code: 'D26', scopeType: 'site', scopeKey: '*' }
    await send('/houserule', { ...rule, option: 'hand' })
    expect((await ask()).minuteFirst).toBe(false)
    await send('/houserule', { ...rule, option: 'minute' })
  })
  it('what it was is counted once, of nobody', async () => {
    const body = { key: nextKey(), stationId: id('T1'), was: 'distance' }
    await lead.post('/classes/technique', body)
    await lead.post('/classes/technique', body)
    await send('/classes/technique', { stationId: id('T1'), was: 'equipment' })
    const { was } = await ask()
    expect(was.map((w) => [w.key, w.n])).toEqual([
      ['equipment', 1],
      ['distance', 1],
    ])
    expect((await send('/classes/technique', { stationId: id('T1'), was: 'the learner' })).status).toBe(400)
  })
})

describe('weeks of it', () => {
  it('tell what a group leaves more than others, a lesson, and whether it helped', async () => {
    const reed = await groupId('Reed')
    const monday = Date.UTC(2026, 10, 3, 6)
    // Reed leaves guns half out in front of Sedge; Sedge leaves them home before Reed the next morning.
    for (let day = 0; day < 10; day++) {
      const noon = monday + day * DAY
      for (const [n, name] of ['T1', 'T2'].entries()) {
        server.clock.nowMs = noon + 3 * HOUR + (22 + n) * 60_000
        await send('/classes/found', {
          stationId: id(name),
          found: { gunHome: (day + n) % 4 < 3 ? 'halfOut' : 'right', tip: 'right' },
        })
      }
    }
    const { teach, lessons } = await classes()
    expect(lessons.every((l) => l.says === 'tooEarly')).toBe(true)
    expect(teach.find((t) => t.item === 'gunHome')).toMatchObject({ why: 'everywhere' })
    expect((await send('/classes/taught', { groupId: reed, item: 'gunHome' })).status).toBe(200)
  })
  it('a group that left keeps what it left behind, and gives its booths back', async () => {
    const sedge = (await groups()).find((g) => g.name === 'Sedge')
    await send('/classes/group', {
      id: sedge?.id,
      name: 'Sedge',
      level: 'some',
      size: 3,
      isActive: false,
      booths: booths('T1'),
    })
    expect((await groups()).find((g) => g.name === 'Sedge')).toMatchObject({ isActive: false, booths: [] })
    const one = entry({ name: 'x', groupId: sedge?.id })
    expect((await send('/calendar/entry', one)).problem.message).toBe('Sedge has left.')
  })
})
