import { anId } from '@core/testing/ids.ts'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { guideOf, step } from '@web/testing/sampleguide.ts'
import { gun } from '@web/testing/samples.ts'
import { ME, saidOf, stage, unstage } from '@web/testing/stage.tsx'
import { FollowUps } from '@web/followup/FollowUps.tsx'
import { Cautions } from './Cautions.tsx'
import { Drawing } from './Drawing.tsx'
import { GuidePage } from './GuidePage.tsx'
import { newCautions } from './GuideSheet.tsx'
import { byPower, minutesSentence } from './guidewords.ts'
import { NearMiss } from './NearMiss.tsx'
import { afterStep, BEGIN, endOf, workedIn, type WalkState } from './walk.ts'

afterEach(() => {
  vi.useRealTimers()
  unstage()
})
const HAND = { ...ME, person: { id: 'per_2', name: 'Bo', role: 'hand' } }

describe('a guide on a desk', () => {
  it('tells what to take along, every step with its drawing, and each caution where it first holds', async () => {
    const view = stage(
      <GuidePage />,
      { '/guide': guideOf(), '/photo': { photos: [], zone: 'UTC' } },
      '/guide?gun=stn_00b7&do=tip',
    )
    expect(await view.findByText('Contact tip, on B7.')).toBeTruthy()
    expect(view.getByText(/12 on the shelf/)).toBeTruthy()
    expect(view.getByText('Look at the old tip.')).toBeTruthy()
    expect(view.getAllByText(/stay hot for minutes/)).toHaveLength(1)
    expect(view.getByRole('img', { name: /right round: it stays/ })).toBeTruthy()
    expect(view.getByText(/House rule here: each joint its own/)).toBeTruthy()
    expect(view.getByRole('link', { name: 'On one page' }).getAttribute('href')).toBe(
      '/api/print/guide.pdf?stationId=stn_00b7&guide=tip',
    )
  })
  it('a lead says a step in the shop’s own words; a hand is not asked', async () => {
    const answers = { '/guide': guideOf(), '/photo': { photos: [], zone: 'UTC' } }
    const lead = stage(<GuidePage />, answers, '/guide?gun=stn_00b7&do=tip')
    await lead.user.click(await lead.findByRole('button', { name: /say steps in our own words/ }))
    await lead.user.click(lead.getAllByRole('button', { name: 'in our own words …' })[3] as HTMLElement)
    await lead.user.type(lead.getByLabelText('in your own words'), 'like a jam jar')
    await lead.user.click(lead.getByLabelText(/in place of what it says/))
    await lead.user.click(lead.getByRole('button', { name: 'Keep it' }))
    expect(saidOf(lead.sent)).toEqual([
      ['/guide/note', { guide: 'tip', step: 'tipOn', familyId: 'fam_1', words: 'like a jam jar', isInstead: true }],
    ])
    unstage()
    const feederType = { id: anId('feederType', 'feed_1'), name: 'quay four' }
    const rolls = { ...answers, '/guide': { ...guideOf(), guide: 'rolls' as const, feederType } }
    const there = stage(<GuidePage />, rolls, '/guide?gun=stn_00b7&do=rolls')
    await there.user.click(await there.findByRole('button', { name: /say steps in our own words/ }))
    await there.user.click(there.getAllByRole('button', { name: 'in our own words …' })[0] as HTMLElement)
    // At the feeder it is the feeder's: its arm, its retainer, its switch.
    expect((there.getByLabelText('for which guns') as HTMLSelectElement).selectedOptions[0]?.text).toBe(
      'feeder quay four',
    )
    unstage()
    const hand = stage(<GuidePage />, { ...answers, '/people/me': HAND }, '/guide?gun=stn_00b7&do=tip')
    expect(await hand.findByText('Contact tip, on B7.')).toBeTruthy()
    expect(hand.queryByRole('button', { name: /own words/ })).toBeNull()
  })
  it('goes to the liner job for a liner, and lists the other work', async () => {
    const liner = guideOf({ guide: 'liner', title: 'Liner', kindKey: 'liner' })
    const view = stage(
      <GuidePage />,
      { '/guide': liner, '/photo': { photos: [], zone: 'UTC' } },
      '/guide?gun=stn_00b7&do=liner',
    )
    expect((await view.findByRole('link', { name: 'Do the liner job' })).getAttribute('href')).toBe(
      '/liner?gun=stn_00b7',
    )
    await view.user.click(view.getByRole('button', { name: /Contact tip/ }))
    expect(view.where()).toBe('/guide?gun=stn_00b7&do=tip')
  })
  it('says what is wrong when there is no such guide here', async () => {
    const problem = { code: 'not-found', message: 'B7 has no insulator as far as anybody said.', details: ['Say it.'] }
    const view = stage(<GuidePage />, { '/guide': { problem } }, '/guide?gun=stn_00b7&do=insulator')
    expect(await view.findByText(/no insulator/)).toBeTruthy()
  })
})

describe('step by step', () => {
  it('the mark is read where the arm opens, kept, and told where it closes; left empty nothing is kept', async () => {
    const steps = [step('armOpen', { do: 'Note the mark on the knob.' }), step('armClosed', { do: 'Arm closed.' })]
    const read = { eventId: 'ev_000000000abc', is: 'good', because: 'no window', target: null }
    const answers = { '/guide': { ...guideOf(), steps }, '/reading': read }
    const view = stage(<GuidePage />, answers, '/guide?gun=stn_00b7&do=rolls&at=walk')
    expect(await view.findByRole('button', { name: 'Done, not read' })).toBeTruthy()
    await view.user.type(view.getByLabelText('The mark on the knob'), '2.4')
    await view.user.click(view.getByRole('button', { name: 'Done, it is at 2.4' }))
    expect(await view.findByText('It stood at 2.4.')).toBeTruthy()
    expect(saidOf(view.sent)).toMatchObject([
      ['/reading', { stationId: 'stn_00b7', what: 'tension', method: 'knob', how: 'looked', value: 2.4, left: null }],
    ])
    unstage()
    const empty = stage(<GuidePage />, answers, '/guide?gun=stn_00b7&do=rolls&at=walk')
    await empty.user.click(await empty.findByRole('button', { name: 'Done, not read' }))
    expect(empty.getByText('Arm closed.')).toBeTruthy()
    expect(saidOf(empty.sent)).toEqual([])
  })
  it('waits for the answer of a caution that asks, takes back, and ends with why the part came out', async () => {
    const answers = { '/guide': guideOf(), '/guide/done': { eventId: 'ev_000000000abc' } }
    const view = stage(<GuidePage />, answers, '/guide?gun=stn_00b7&do=tip&at=walk')
    await view.user.click(await view.findByRole('button', { name: 'It is isolated' }))
    expect(view.getByText(/stay hot for minutes/)).toBeTruthy()
    expect(view.queryByRole('button', { name: 'Skip' })).toBeNull()
    await view.user.click(view.getByRole('button', { name: 'Done' }))
    await view.user.click(view.getByRole('button', { name: 'back' }))
    expect(view.getByText('2 of 5', { exact: false })).toBeTruthy()
    for (const name of ['Done', 'Done', 'Done']) await view.user.click(view.getByRole('button', { name }))
    await view.user.click(view.getByRole('button', { name: 'Not yet' }))
    await view.user.click(view.getByRole('button', { name: 'burned back' }))
    expect(saidOf(view.sent)).toEqual([
      [
        '/guide/done',
        {
          stationId: 'stn_00b7',
          guide: 'tip',
          did: 'changed',
          outReason: 'burnedBack',
          minutes: null,
          overrun: null,
          settled: [],
          stillTied: [],
          note: 'not yet: Dead centre?',
        },
      ],
    ])
    await vi.waitFor(() => expect(view.where()).toBe('/gun/stn_00b7'))
  })
  it('of a family that hangs nowhere is read through, and nothing is logged', async () => {
    const view = stage(
      <GuidePage />,
      { '/guide': guideOf({ stationId: null, steps: [step('look')] }) },
      '/guide?family=fam_1&do=tip&at=walk',
    )
    await view.user.click(await view.findByRole('button', { name: 'Done' }))
    await view.user.click(view.getByRole('button', { name: 'Read through' }))
    expect(view.sent).toEqual([])
  })
})

describe('minutes of a walk', () => {
  const STEPS = [step('a', { minutes: 2 }), step('b', { minutes: 2 }), step('c', { minutes: 2 })]
  const walked = (...atMin: number[]) =>
    atMin.reduce<WalkState>((s, m) => afterStep(STEPS, s, { said: 'done', atMs: m * 60_000 }), BEGIN)
  it('are those worked; a pause is cut to the usual, unless somebody says what held it up', () => {
    expect(workedIn(STEPS, walked(2, 4, 6), { beginMs: 0, reason: null })).toEqual({ minutes: 6, isLong: false })
    expect(workedIn(STEPS, walked(2, 44, 46), { beginMs: 0, reason: null })).toEqual({ minutes: 6, isLong: true })
    expect(workedIn(STEPS, walked(2, 44, 46), { beginMs: 0, reason: 'orings' })).toEqual({ minutes: 46, isLong: true })
  })
  it('are none where it was only read through', () =>
    expect(workedIn(STEPS, walked(0.2, 0.3, 0.4), { beginMs: 0, reason: null }).minutes).toBeNull())
  it('settle what was done on the way, not what was skipped', () => {
    const steps = [step('t', { settles: 'tension' }), step('o', { settles: 'orings' })]
    const state = afterStep(steps, afterStep(steps, BEGIN, { said: 'done', atMs: 0 }), { said: 'skipped', atMs: 0 })
    expect(endOf(steps, state).settled).toEqual(['tension'])
  })
  it('say whose they are', () => {
    const of = (n: number, others = 0) =>
      minutesSentence({ median: 21.4, p80: 30, n, others, held: n > 5 ? [{ reason: 'orings', n: 2 }] : [] })
    expect(of(0)).toBe('About 21 min; 4 in 5 are done in 30. A guess until yours are logged.')
    expect(of(0, 3)).toContain('From 3 jobs on other guns here.')
    expect(of(1)).toContain('Yours, 1 job, and the guess behind them.')
    expect(of(9)).toContain('Held up: stuck in its O-rings 2. Yours, 9 jobs.')
  })
})

describe('on a sheet', () => {
  it('steps run by the state of the power, numbered through', () => {
    const groups = byPower([step('a'), step('b', { power: 'on' }), step('c', { power: 'either', phase: 'close' })])
    expect(groups.map((g) => [g.word, g.from])).toEqual([
      ['power off', 1],
      ['power on', 2],
      ['before you leave it', 3],
    ])
  })
  it('a caution is not repeated by the next step', () => {
    const { steps } = guideOf()
    expect(steps.map((s) => newCautions(steps, s).map((c) => c.hazard))).toEqual([['isolate'], ['hot'], [], [], []])
  })
  it('a drawing tells right from wrong in words', () => {
    const view = stage(<Drawing of="linerEnd" />)
    expect(view.getAllByRole('img').map((i) => i.getAttribute('aria-label')?.split(': ')[1]?.split(' ')[0])).toEqual([
      'right',
      'wrong',
      'wrong',
      'wrong',
    ])
  })
})

describe('what follows, and what nearly happened', () => {
  it('a follow-up says why and since when, and one tap settles it; one that waits says so', async () => {
    const followUps = [
      { task: 'tension' as const, sinceMs: gun().nowMs - 3_600_000, why: 'liner changed', isAsked: true },
      { task: 'seat' as const, sinceMs: gun().nowMs, why: 'gun seated', isAsked: false },
    ]
    const view = stage(<FollowUps gun={gun({ followUps })} />)
    expect(view.getByText(/Liner changed, 60 min ago/)).toBeTruthy()
    expect(view.getByText(/Set the tension. When it has run a little: look again/)).toBeTruthy()
    expect(view.getByRole('link', { name: 'How it is done' }).getAttribute('href')).toBe('/guide?gun=stn_00b7')
    await view.user.click(view.getByRole('button', { name: 'tension is set' }))
    expect(saidOf(view.sent)).toEqual([['/followup', { stationId: 'stn_00b7', task: 'tension' }]])
  })
  it('a near miss is one more tap', async () => {
    const over = vi.fn()
    const view = stage(<NearMiss stationId="stn_00b7" onDone={over} />)
    await view.user.click(view.getByRole('button', { name: 'spool let go' }))
    expect(saidOf(view.sent)).toEqual([['/guide/nearmiss', { stationId: 'stn_00b7', hazard: 'spring' }]])
    expect(over).toHaveBeenCalled()
  })
  it('cautions are shown worst first, and said in the site’s own words', async () => {
    const line = { shipped: 'Hot.', own: null, how: 'tell' as const, nearMisses: 0, lastMs: null, places: [] }
    const cautions = [
      { ...line, hazard: 'hot' as const },
      { ...line, hazard: 'spring' as const, shipped: 'Springs.', nearMisses: 2, places: ['T2', 'T4'] },
    ]
    const view = stage(<Cautions />, { '/guide/cautions': { zone: 'UTC', cautions, other: 1 } })
    expect(await view.findByText(/3 near misses in a year/)).toBeTruthy()
    expect(view.getAllByRole('listitem')[0]?.textContent).toContain('2 near misses: T2, T4')
    await view.user.click(view.getAllByRole('button', { name: 'in our own words …' })[1] as HTMLElement)
    const words = view.getByLabelText('as it is said here')
    await view.user.clear(words)
    await view.user.type(words, 'Gloves.')
    await view.user.click(view.getByRole('button', { name: 'Keep it' }))
    expect(saidOf(view.sent)).toEqual([['/guide/caution', { hazard: 'hot', words: 'Gloves.' }]])
  })
})
