import { afterEach, describe, expect, it } from 'vitest'
import { READINGS } from '@core/reading/keys.ts'
import { type ReadingLine } from '@contract/reading.ts'
import { stage, unstage } from '@web/testing/stage.tsx'
import { NOW } from '@web/testing/samples.ts'
import { kept, readingAnswer, readingLine, trend } from '@web/testing/samplereadings.ts'
import { ReadPage } from './ReadPage.tsx'
import {
  againstSentence,
  alarmSentence,
  foundTitle,
  foundWhy,
  changedSentence,
  cleaningSentence,
  gasLeftSentence,
  raisedSentence,
  readingMeasure,
  readingValue,
  targetWords,
  trendSentence,
} from './readingwords.ts'

afterEach(unstage)
const AT = { nowMs: NOW, zone: 'UTC', units: 'metric' as const }
const DONE = { eventId: 'ev_2', is: 'good', because: 'inside', target: null }
const open = (line: Partial<ReadingLine>, what: string | null) =>
  stage(
    <ReadPage />,
    { '/reading': readingAnswer([readingLine(line)]), 'POST /reading': DONE },
    `/read?gun=stn_00b7${what ? `&what=${what}` : ''}`,
  )
const body = (view: ReturnType<typeof stage>) => view.sent.find((s) => s.path === '/reading' && s.body['what'])?.body

const verdict = (view: ReturnType<typeof stage>) => view.container.querySelector('p[role=status]')?.textContent ?? ''

describe('a reading taken', () => {
  it('tells its verdict before it is kept, and says how it was come by', async () => {
    const target = { from: 3, to: 11, actBelow: 1, actAbove: 15, by: 'guess' as const }
    const view = open({ what: 'gap', target }, 'gap')
    await view.user.type(await view.findByLabelText('Found, mm'), '13')
    expect(verdict(view)).toMatch(/^Look, above its window\. Left as it is, it comes up again /)
    await view.user.type(view.getByLabelText('Left at'), '8')
    expect(verdict(view)).toBe('Good.')
    await view.user.click(view.getByRole('checkbox', { name: /somebody said so/ }))
    await view.user.click(view.getByRole('button', { name: 'Keep it' }))
    expect(body(view)).toMatchObject({ what: 'gap', method: 'feeler', how: 'said', value: 13, left: 8 })
  })
  it('what can’t be read is said under it, and is not kept as no number', async () => {
    const view = open({ what: 'tension' }, 'tension')
    await view.user.type(await view.findByLabelText(/^Found/), 'about 3')
    view.getByText('"about 3" can’t be read: write a number like 1.5 marks.')
    expect(view.getByRole('button', { name: 'Keep it' })).toHaveProperty('disabled', true)
    await view.user.click(view.getByRole('button', { name: 'curls and keeps coming' }))
    expect(view.getByRole('button', { name: 'Keep it' })).toHaveProperty('disabled', true)
    await view.user.clear(view.getByLabelText(/^Found/))
    await view.user.type(view.getByLabelText(/^Found/), '3')
    expect(view.getByRole('button', { name: 'Keep it' })).toHaveProperty('disabled', false)
  })
  it('asks back what no gun shows, offers what was meant, and takes it where it is meant', async () => {
    const view = open({ what: 'hubDrag' }, 'hubDrag')
    await view.user.type(await view.findByLabelText('Found, N'), '450')
    expect(view.getByRole('alert').textContent).toContain('450 N is beyond any gun.')
    expect(view.queryByRole('button', { name: 'Keep it' })).toBeNull()
    await view.user.click(view.getByRole('button', { name: 'Did you mean 4.5 N?' }))
    expect(body(view)).toMatchObject({ value: 4.5, isMeant: false })
  })
  it('two diameters make an oval; what is seen can be kept without a number', async () => {
    const view = open(
      { what: 'bore', target: { from: null, to: 0.075, actBelow: null, actAbove: 0.075, by: 'rule' } },
      'bore',
    )
    await view.user.type(await view.findByLabelText('Widest, mm'), '1.1')
    await view.user.type(view.getByLabelText(/Narrowest/), '1')
    expect(verdict(view)).toBe('Put right, above its window.')
    await view.user.click(view.getByRole('button', { name: 'beside a fresh one' }))
    await view.user.click(view.getByRole('button', { name: 'round' }))
    await view.user.click(view.getByRole('button', { name: 'Keep it' }))
    expect(body(view)).toMatchObject({ method: 'look', grade: 'round', value: null, how: 'looked' })
  })
  it('a tip that stands otherwise than written down is asked about: drift, or on purpose and why', async () => {
    const target = { from: 0, to: 3, actBelow: null, actAbove: null, by: 'rule' as const }
    const view = open({ what: 'recess', target, last: null }, 'recess')
    await view.user.type(await view.findByLabelText('Found, mm'), '2')
    expect(view.queryByRole('button', { name: /^Yes/ })).toBeNull()
    await view.user.clear(view.getByLabelText('Found, mm'))
    await view.user.type(view.getByLabelText('Found, mm'), '6')
    expect(verdict(view)).toBe('Look, above its window.')
    expect(view.queryByRole('button', { name: 'Keep it' })).toBeNull()
    // A tip further out cools nothing; further in it reaches nothing.
    expect(view.queryByRole('button', { name: /cool/ })).toBeNull()
    await view.user.clear(view.getByLabelText('Found, mm'))
    await view.user.type(view.getByLabelText('Found, mm'), '-4')
    expect(view.getAllByRole('button', { name: /^Yes/ }).map((b) => b.textContent)).toEqual(['Yes, this job is set so'])
    await view.user.clear(view.getByLabelText('Found, mm'))
    await view.user.type(view.getByLabelText('Found, mm'), '6')
    await view.user.click(view.getByRole('button', { name: 'Yes, to reach the joint' }))
    expect(body(view)).toMatchObject({ value: 6, isOnPurpose: true, note: 'On purpose: to reach the joint.' })
  })
  it('a knob left higher is asked why; to keep it going has a day', async () => {
    const view = open({ what: 'tension' }, 'tension')
    await view.user.type(await view.findByLabelText('Found, mark'), '2.4')
    await view.user.type(view.getByLabelText('Left at'), '3.2')
    expect(view.queryByRole('button', { name: 'Keep it' })).toBeNull()
    expect(view.getByText(/hides it from the next one/)).toBeTruthy()
    await view.user.click(view.getByRole('button', { name: /To keep it going/ }))
    expect(body(view)).toMatchObject({ value: 2.4, left: 3.2, keepGoing: { days: 7 } })
  })
  it('a shop that never raises offers to put it back; one that does sets no day', async () => {
    const raised = async (raise: 'never' | 'raise') => {
      const schools = { tension: 'pinch' as const, raise }
      const answer = readingAnswer([readingLine({ what: 'tension', last: null })], { schools })
      const view = stage(<ReadPage />, { '/reading': answer, 'POST /reading': DONE }, '/read?gun=stn_00b7&what=tension')
      expect((await view.findByRole('button', { name: 'pinched with a glove' })).getAttribute('aria-pressed')).toBe(
        'true',
      )
      await view.user.type(view.getByLabelText(/^Found/), '2')
      await view.user.type(view.getByLabelText('Left at'), '3')
      return view
    }
    const never = await raised('never')
    expect(never.queryByRole('button', { name: /keep it going/ })).toBeNull()
    await never.user.click(never.getByRole('button', { name: 'It is back at 2' }))
    expect(body(never)).toMatchObject({ value: 2, left: 2, keepGoing: null })
    unstage()
    const raise = await raised('raise')
    await raise.user.click(raise.getByRole('button', { name: 'To keep it going' }))
    expect(body(raise)).toMatchObject({ value: 2, left: 3, keepGoing: { days: null } })
  })
  it('slip is worked out from the roll and the wire that came; a cylinder may be told what it holds', async () => {
    const view = open({ what: 'slip', last: null }, 'slip')
    await view.user.type(await view.findByLabelText('Across the roll, in its groove, mm'), '30')
    await view.user.type(view.getByLabelText('Turns'), '10')
    expect(view.getByRole('button', { name: 'Keep it' })).toHaveProperty('disabled', true)
    await view.user.type(view.getByLabelText('Wire that came, mm'), '895.4')
    await view.user.click(view.getByRole('button', { name: 'Keep it' }))
    expect(body(view)).toMatchObject({ what: 'slip', from: { rollMm: 30, turns: 10, wireMm: 895.4 } })
    unstage()
    const gas = open({ what: 'cylinder', last: null }, 'cylinder')
    await gas.user.type(await gas.findByLabelText('The gauge, bar'), '50')
    expect(gas.getByRole('button', { name: 'Keep it' })).toHaveProperty('disabled', false)
    await gas.user.type(gas.getByLabelText('It holds when full, where somebody knows, m³'), '10')
    await gas.user.click(gas.getByRole('button', { name: 'Keep it' }))
    expect(body(gas)).toMatchObject({ value: 50, from: { bar: 50, fullM3: 10 } })
  })
  it('open holes are so many of so many', async () => {
    const view = open({ what: 'holes' }, 'holes')
    await view.user.type(await view.findByLabelText('Open'), '6')
    expect(view.getByRole('button', { name: 'Keep it' }).hasAttribute('disabled')).toBe(true)
    await view.user.type(view.getByLabelText('Of'), '8')
    await view.user.click(view.getByRole('button', { name: 'Keep it' }))
    expect(body(view)).toMatchObject({ value: 0.75, from: { open: 6, total: 8 } })
  })
  it('shows right and wrong beside it, and the caution where the hand goes', async () => {
    const view = open({ what: 'bore' }, 'bore')
    expect(await view.findByRole('figure')).toBeTruthy()
    expect(view.container.querySelector('.caution-line')?.textContent).toMatch(/hot/i)
  })
})

describe('the readings of a gun', () => {
  it('what was read stands first with trend and target; the rest is one tap each', async () => {
    const view = stage(
      <ReadPage />,
      {
        '/reading': readingAnswer(
          [readingLine({ last: kept({ value: 2.6 }), trend: trend() }), readingLine({ what: 'orings' })],
          { alarms: [{ what: 'tension', at: 'liner', is: 'creeps', sinceMs: NOW }] },
        ),
      },
      '/read?gun=stn_00b7',
    )
    expect(await view.findByText('One reading on B7 asks for something.')).toBeTruthy()
    expect(view.getByText('Drive tension creeps: look at liner, tip and rolls.')).toBeTruthy()
    expect(view.getByText(/has crept from 2 to 2.6 over 90 kg; at its limit of 3 about/)).toBeTruthy()
    await view.user.click(view.getByRole('button', { name: 'O-rings' }))
    expect(await view.findByText(/Look round both rings/)).toBeTruthy()
  })
  it('nothing read, it says so', async () => {
    const view = open({}, null)
    expect(await view.findByText('Nothing is read on B7 yet.')).toBeTruthy()
  })
})

describe('words', () => {
  it('every reading has a value in words and a measure that turns back', () => {
    for (const what of READINGS)
      for (const units of ['metric', 'us'] as const) {
        expect(readingValue(what, 0.5, units)).not.toMatch(/undefined|NaN/)
        const m = readingMeasure(what, units)
        expect(m.fromSi(m.toSi(3))).toBeCloseTo(3, 9)
      }
    expect(readingValue('recess', -4, 'metric')).toBe('−4 mm')
    // Half a millimetre off is no nought in a shop that measures in inches.
    expect([0.5, 0.8].map((mm) => readingValue('toolCentre', mm, 'us'))).toEqual(['0.02 in', '0.03 in'])
    expect(readingValue('pinHome', 0.5, 'us')).toBe('0.02 in')
    expect(readingValue('gasFlow', 14.16, 'us')).toBe('30 ft³/h')
    expect(readingValue('bore', 0.104, 'metric')).toBe('10 % oval')
  })
  it('trends: steady, jumped, over, with dates', () => {
    const say = (over: Parameters<typeof trend>[0]) => trendSentence('tension', trend(over), AT)
    expect(say({ is: 'few' })).toBeNull()
    expect(say({ is: 'steady', crossing: null })).toBe('Drive tension is steady over 90 kg (4 readings).')
    expect(say({ jumpedMs: NOW - 86_400_000 })).toMatch(/jumped on 23 Nov, from 2 to 2.6/)
    expect(say({ is: 'over', crossing: null })).toMatch(/beyond its limit of 3/)
    expect(say({})).toMatch(/about 2 Dec \(Thu to 9 Dec\)/)
  })
  it('what it should be, whose that is', () => {
    const target = { from: 12, to: 20, actBelow: 8, actAbove: 26, by: 'guess' as const }
    expect(targetWords({ what: 'gasFlow', target }, 'metric')).toBe('12 L/min to 20 L/min (guess)')
    expect(targetWords({ what: 'tension', target: null }, 'metric')).toBe('')
  })
  it('changed since, contradictions, the knob raised, how often to clean', () => {
    const line = readingLine({
      what: 'gasFlow',
      last: kept({ method: 'meter', value: 22 }),
      changed: { sinceMs: NOW - 86_400_000, by: 8, leftBy: 'Oda' },
    })
    expect(changedSentence(line, AT)).toMatch(/Changed since yesterday .*left by Oda: 8 L\/min more/)
    const two = readingLine({
      what: 'bore',
      last: kept({ method: 'twoDiameters', is: 'act' }),
      against: kept({ method: 'look' }),
    })
    expect(againstSentence(two, AT)).toMatch(
      /cannot both be right: beside a fresh one says good, two diameters says put right/,
    )
    const raised = (untilMs: number) => raisedSentence({ sinceMs: NOW - 86_400_000, untilMs }, AT)
    expect(raised(NOW + 86_400_000)).toMatch(/till 25 Nov/)
    expect(raised(NOW - 3_600_000)).toMatch(/should have been back/)
    const clean = {
      limitH: 1.5,
      by: 'found',
      way: 'hours' as const,
      learntH: 1.5,
      n: 10,
      isHeld: null,
      sinceH: 1,
    } as const
    expect(cleaningSentence(clean)).toBe(
      'Clean the nozzle every 1.5 h of arc (yours, found 10 times), in about 30 min.',
    )
    expect(cleaningSentence({ ...clean, isHeld: 'down', sinceH: 2 })).toBe(
      'Clean the nozzle every 1.5 h of arc (yours, found 10 times), so now. What is found asks for less still: it halves at most at a step.',
    )
    expect(cleaningSentence({ ...clean, by: 'rule', limitH: 2, sinceH: null })).toBe(
      'Clean the nozzle every 2 h of arc (house rule). As it is found here it would be about every 1.5 h of arc (yours, found 10 times).',
    )
    const none = { ...clean, limitH: null, by: null, n: 0 }
    expect(cleaningSentence(none)).toBe(
      'No hours are set for cleaning the nozzle; by hours it would be about every 1.5 h of arc (trade).',
    )
    expect(cleaningSentence({ ...none, way: 'cleanUp' })).toContain('cleaned at clean-up')
    expect(alarmSentence({ what: 'orings', is: 'act' })).toBe('O-rings: put right.')
    expect(foundTitle({ what: 'bore', is: 'act' })).toBe('Change the tip')
    expect(foundTitle({ what: 'orings', is: 'act' })).toBe('O-rings: put right')
    expect(foundWhy([{ what: 'bore', at: 'tip' }])).toBe('found at the tip (tip bore).')
    // A number that can be too far one way only says what is done; one that may be either way does not.
    expect(alarmSentence({ what: 'bore', is: 'act' })).toBe('Tip bore: change the tip.')
    expect(alarmSentence({ what: 'gasFlow', is: 'act' })).toBe('Gas at the gun: put right.')
    expect(alarmSentence({ what: 'tension', is: 'act' })).toBe('Drive tension: put right.')
    const seen = { method: 'look', grade: 'torn' }
    expect(alarmSentence({ what: 'orings', is: 'act', seen })).toBe('Put right: O-rings, torn or missing.')
    const left = { hours: 2.976, lowH: 2.23, highH: 3.72, flowLPerMin: 14, isFlowRead: false, atMs: NOW }
    expect(gasLeftSentence(left, 'metric')).toBe('Gas for about 3 h of welding (2.2–3.7 h, at 14 L/min, a guess).')
    expect(gasLeftSentence({ ...left, isFlowRead: true }, 'us')).toContain('at 30 ft³/h).')
    expect(readingValue('cylinder', 50, 'us')).toBe('730 psi')
  })
})
