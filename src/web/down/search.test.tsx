import { gun } from '@web/testing/samples.ts'
import { stage, unstage } from '@web/testing/stage.tsx'
import { within } from '@testing-library/react'
import { useState } from 'react'
import { Key } from '@web/kit/Keys.tsx'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { RULES } from '@core/rightparts/finding.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { NO_EVIDENCE } from '@core/liner/signs.ts'
import { USUAL_TERMS } from '@core/liner/clauses.ts'
import { type DownAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { finding } from '@web/testing/samplefindings.ts'
import { NOW } from '@web/testing/samples.ts'
import { DownSearch } from './DownSearch.tsx'

const downOf = (over: Partial<DownAnswer> = {}): DownAnswer => ({
  ...{ nowMs: NOW, zone: 'UTC', stationId: gun().stationId, isCell: false, isTraining: false, isCored: false },
  ...{ version: 0, isShipped: true, turned: [], others: { gas: 0, sameWire: 0, power: 0 }, spare: null, priceMin: {} },
  knowledge: SHIPPED as unknown as DownAnswer['knowledge'],
  schools: { first: 'bySign', clean: 'byBore', swap: 'liner', liner: 'byUse', blame: 'minute' },
  liner: { terms: USUAL_TERMS, evidence: NO_EVIDENCE },
  lastStops: [],
  ...over,
})
/** A gun that stands, with nothing on it that speaks for anything. */
const standing = (over: Partial<GunAnswer> = {}): GunAnswer =>
  gun({
    ...{ downSinceMs: NOW - 60_000, downMinutes: 1, positions: [], findings: [], alarms: [], tags: [], followUps: [] },
    ...{ tape: [], cleaningRises: false },
    ...over,
  })
const stand = (
  over: { gun?: Partial<GunAnswer>; down?: Partial<DownAnswer> } = {},
  answers: Record<string, unknown> = {},
) => stage(<DownSearch gun={standing(over.gun)} down={downOf(over.down)} />, answers)
type Staged = ReturnType<typeof stand>
const tap = async ({ user, findByRole }: Staged, name: string | RegExp) =>
  user.click(await findByRole('button', { name }))
const asks = ({ container }: Staged) => container.querySelector('.down-now .step-do')?.textContent ?? ''
const begin = async (staged: Staged, words: readonly (string | RegExp)[]) => {
  for (const name of words) await tap(staged, name)
}
beforeEach(() => {
  localStorage.clear()
  vi.stubGlobal('scrollTo', vi.fn())
})
afterEach(unstage)

describe('answers given in a search', () => {
  it('are all kept when the reply to an earlier one comes late', async () => {
    let reply: (answer: unknown) => void = () => undefined
    const late = new Promise((done) => (reply = done))
    const staged = stand({}, { 'POST /logbook': () => late })
    await begin(staged, ['Stuck in tip', 'Wire burned back into the tip', 'Nothing'])
    expect(asks(staged)).toBe('Free the wire: tip off, a fresh one on')
    await tap(staged, /Burned in, else sound/)
    const kept = () => {
      const all = JSON.parse(localStorage.getItem('idle-spool-down') ?? '{}') as Record<
        string,
        { said: { key: string }[] }
      >
      return all[standing().stationId]?.said.map((s) => s.key) ?? []
    }
    const before = kept().length
    const second = asks(staged)
    const keys = staged.getByRole('group', { name: 'What is seen' }).querySelectorAll('button')
    await staged.user.click(keys[keys.length - 1] as HTMLButtonElement)
    expect(kept()).toHaveLength(before + 1)
    const third = asks(staged)
    reply({ logged: [{ eventId: 'evt_1' }] })
    await new Promise((done) => setTimeout(done, 50))
    expect(kept()).toHaveLength(before + 1)
    expect(asks(staged)).toBe(third)
    expect(third).not.toBe(second)
  })
  it('what is seen is sent at once, so that it counts for the neighbours', async () => {
    const staged = stand()
    await begin(staged, ['Holes in weld'])
    expect(staged.sent.filter((s) => s.path === '/down/explained')).toMatchObject([
      { body: { symptom: 'porosity', by: 'seen', cause: null, closing: 'notTested', stopFromMs: NOW - 60_000 } },
    ])
  })
})

describe('what is known of this gun', () => {
  const turned = finding({ rule: 'rollTurned', at: 'rolls', severity: 'stops', kept: null })
  it('comes first, with its own sentence; right by now, the search goes on', async () => {
    const staged = stand({ gun: { findings: [turned] } })
    await begin(staged, ['Jerks', 'It needs more pressure than usual', 'Nothing'])
    expect(asks(staged)).toContain('Turn or change the rolls')
    expect(staged.container.textContent).toContain(RULES.rollTurned.what.split(':')[0])
    await tap(staged, 'It is right by now')
    expect(asks(staged)).not.toContain('Turn or change the rolls')
  })
  it('still there, the same screen does not come back', async () => {
    const staged = stand({ gun: { findings: [turned] } })
    await begin(staged, ['Jerks', 'It needs more pressure than usual', 'Nothing'])
    const first = asks(staged)
    await tap(staged, /Done: still there/)
    expect(asks(staged)).not.toBe(first)
  })
})

describe('what the welder knows', () => {
  it('a pressure raised is no sign of too little; what was checked is not asked again', async () => {
    const staged = stand()
    await begin(staged, ['Jerks', 'Wire jerks though the rolls turn evenly', 'A setting', 'Pressure raised'])
    await tap(staged, 'Some of it is known already')
    const group = await staged.findByRole('group', { name: 'Lift the cable straight' })
    await staged.user.click(group.querySelector('button') as HTMLButtonElement)
    await tap(staged, 'Go on: what first?')
    expect(asks(staged)).not.toBe('Lift the cable straight')
    expect(staged.getByRole('heading', { name: 'So far' }).parentElement?.textContent).toContain('Runs smooth')
  })
  it('signs of robots are asked at robots only', async () => {
    const staged = stand()
    await staged.findByRole('button', { name: 'Something else' })
    expect(staged.queryByRole('button', { name: 'At the robot' })).toBeNull()
    unstage()
    const cell = stand({ down: { isCell: true } })
    await tap(cell, 'At the robot')
    expect(await cell.findByRole('button', { name: 'The torch hit something' })).toBeTruthy()
  })
})

describe('what is seen', () => {
  it('is drawn where several are told apart by eye, and each is one tap by its words', async () => {
    const staged = stand()
    await tap(staged, 'Arc or bead')
    const keys = [...staged.container.querySelectorAll('.down-list .key')]
    expect(keys.length).toBeGreaterThan(3)
    for (const key of keys) expect(key.querySelector('svg[aria-hidden="true"]'), key.textContent).not.toBeNull()
    await tap(staged, 'Soot, with a short steady arc')
    expect(await staged.findByText('What was touched last?')).toBeTruthy()
  })
  it('of a nest: it is cut out before all else, each answer drawn, its guide at hand', async () => {
    const staged = stand()
    await begin(staged, ['Nest', 'Nest at the rolls', 'Nothing'])
    expect(asks(staged)).toBe('Cut the nest out first')
    const link = await staged.findByRole('link', { name: 'How it is done' })
    expect(link.getAttribute('href')).toBe(`/guide?gun=${gun().stationId}&do=nest`)
    const answers = staged.container.querySelectorAll('.walk-keys .key')
    expect([...answers].every((key) => key.querySelector('svg'))).toBe(true)
  })
})

describe('what stands on the screen', () => {
  function Arriving() {
    const [isHere, setHere] = useState(false)
    const alarms = isHere ? [{ what: 'bore' as const, at: 'tip' as const, is: 'act' as const, sinceMs: NOW }] : []
    return (
      <>
        <Key onClick={() => setHere(true)}>it arrives</Key>
        <DownSearch gun={standing({ alarms })} down={downOf()} />
      </>
    )
  }
  it('stays until it is answered, whatever arrives meanwhile; then what arrived counts', async () => {
    const staged = stage(<Arriving />)
    await begin(staged, ['Arc or bead', /^Arc sits at the tip/, 'Nothing'])
    const before = asks(staged)
    expect(before).not.toBe('New tip')
    await tap(staged, 'it arrives')
    expect(asks(staged)).toBe(before)
    const answers = within(await staged.findByRole('group', { name: 'What is seen' })).getAllByRole('button')
    await staged.user.click(answers.at(-1) as HTMLElement)
    expect(asks(staged)).toBe('New tip')
  })
})

describe('what is seen', () => {
  function Standing() {
    const [isDown, setDown] = useState(false)
    return (
      <>
        <Key onClick={() => setDown(true)}>the stop is known</Key>
        <DownSearch gun={standing({ downSinceMs: isDown ? NOW - 60_000 : null })} down={downOf()} />
      </>
    )
  }
  it('is told once the stop stands, though it was picked before, once, and then photos have their line', async () => {
    const staged = stage(<Standing />, { 'POST /down/explained': { eventId: 'ev_seen' } })
    await begin(staged, ['Jerks', /^Wire jerks/])
    const told = () => staged.sent.filter((s) => s.path === '/down/explained')
    expect(told()).toEqual([])
    expect(staged.queryByLabelText('clip of it')).toBeNull()
    await tap(staged, 'the stop is known')
    await staged.findByLabelText('clip of it')
    expect(told()).toMatchObject([{ body: { symptom: 'jerk', by: 'seen', cause: null } }])
    await tap(staged, 'Nothing')
    expect(told()).toHaveLength(1)
  })
})

describe('what was touched last', () => {
  it('is not asked where the trouble itself says it, or it makes no odds', async () => {
    const staged = stand()
    await begin(staged, ['Jerks', 'Sticks and pops since the wire size changed'])
    expect(asks(staged)).not.toContain('touched last')
    expect(await staged.findByRole('group', { name: 'What is seen' })).toBeTruthy()
    unstage()
    const stuck = stand()
    await begin(stuck, ['Stuck in tip', 'Tip will not come out'])
    expect(asks(stuck)).toBe('Cold first: what holds the tip?')
  })
})

describe('at a training booth', () => {
  it('a look is guessed before it is had', async () => {
    const staged = stand({ down: { isTraining: true } })
    await begin(staged, ['Holes in weld', 'Nothing'])
    const answers = () => [...staged.getByRole('group', { name: 'What is seen' }).querySelectorAll('button')]
    expect(answers().every((b) => b.disabled)).toBe(true)
    const guess = staged.getByRole('group', { name: 'Guess first' }).querySelector('button') as HTMLButtonElement
    await staged.user.click(guess)
    expect(answers().some((b) => b.disabled)).toBe(false)
    expect(staged.container.textContent).toContain('Your guess:')
  })
})

describe('where nothing is left', () => {
  it('the two likeliest are named, with what was done about each', async () => {
    const staged = stand()
    await begin(staged, ['Jerks', 'Wire comes out curled, wanders off', 'Nothing'])
    for (let n = 0; n < 40 && !asks(staged).startsWith('Nothing is left'); n++) {
      const seen = staged.queryByRole('group', { name: 'What is seen' })
      if (seen) await staged.user.click([...seen.querySelectorAll('button')].at(-1) as HTMLButtonElement)
      else await tap(staged, /Done: still there/)
    }
    expect(asks(staged)).toMatch(/^Nothing is left/)
    expect(staged.container.querySelectorAll('.down-left li').length).toBeGreaterThan(0)
    expect(staged.container.textContent).toMatch(/Done once, no help|Nothing was done about it/)
  })
})
