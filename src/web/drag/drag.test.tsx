import { fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { stage, unstage, type Answers } from '@web/testing/stage.tsx'
import { dragAnswer } from '@web/testing/samplereadings.ts'
import { atKnob, explain } from '@core/drag/explain.ts'
import { forceProfile } from '@core/drag/profile.ts'
import { withShape, withValues } from '@core/drag/setup.ts'
import { begin, dragStep, freeSetup, isMoved } from './dragstate.ts'
import { aboutMarks, becauseSentence, dragSentence, knobSentence, nestSentence, spreadSentence } from './dragwords.ts'
import { DragPage } from './DragPage.tsx'
import { readForces } from './ForceList.tsx'
import { cablePath, cableWave, coilRings, forceGraph, gapOfX, guideX } from './gunshape.ts'
import { pulled } from './GunPicture.tsx'
import { windowWords } from './KnobScale.tsx'
import { frictionSentence } from './Pulls.tsx'

afterEach(unstage)
const gun = (over = {}, shape = {}) => withValues(withShape(freeSetup(), shape), over)
const open = (answers: Answers = {}, path = '/drag?gun=stn_00b7') =>
  stage(<DragPage />, { '/drag': dragAnswer(), ...answers }, path)
const slide = (name: RegExp, value: number) =>
  fireEvent.change(screen.getByRole('slider', { name }), { target: { value: String(value) } })

const told = (view: ReturnType<typeof stage>) => view.container.querySelector('p[role=status]')?.textContent ?? ''

describe('a gun on Drag', () => {
  it('coiled, its window shuts and the coils are named; uncoiled on the picture it opens again', async () => {
    const view = open()
    expect(await view.findByText('B7 feeds, with room on the knob.')).toBeTruthy()
    slide(/Coils/, 3)
    expect(view.getByRole('heading', { level: 1 }).textContent).toMatch(/No setting both feeds B7|Nothing on the knob/)
    expect(view.getByText(/The coils take most of it. Do not turn the knob: uncoil the cable/)).toBeTruthy()
    expect(view.getByText('no window')).toBeTruthy()
    await view.user.click(view.getByRole('button', { name: /Uncoil the cable.*opens/ }))
    expect(view.getByText('B7 feeds, with room on the knob.')).toBeTruthy()
  })
  it('put back it is as it is on the floor', async () => {
    const view = open()
    await view.findByText('B7 feeds, with room on the knob.')
    expect(view.queryByRole('button', { name: 'As it is on the floor' })).toBeNull()
    slide(/Friction/, 0.5)
    slide(/^Knob/, 4)
    await view.user.click(view.getByRole('button', { name: 'As it is on the floor' }))
    expect(screen.getByRole<HTMLInputElement>('slider', { name: /Friction/ }).value).toBe('0.17')
  })
  it('not calibrated it tells no mark, calibrated it does', async () => {
    const view = open()
    expect(await view.findByText(/Not calibrated, so no marks/)).toBeTruthy()
    unstage()
    const { drag } = dragAnswer()
    if (!drag) throw new Error('sample')
    const setup = withShape(drag.setup, { slip: { atZeroN: 7, perMarkN: 36 } })
    const told = open({ '/drag': dragAnswer({ drag: { ...drag, setup }, calibratedMs: 1 }) })
    expect(await told.findByText(/^From mark/)).toBeTruthy()
  })
  it('where nobody told the wire it says so', async () => {
    const view = open({ '/drag': dragAnswer({ drag: null }) })
    expect(await view.findByText(/nobody told which wire is on/)).toBeTruthy()
  })
  it('without a gun it is one of nobody’s, all guesses', async () => {
    const view = open({}, '/drag')
    expect(await view.findByText(/Every number here is a guess/)).toBeTruthy()
    await view.user.selectOptions(view.getByLabelText('Wire'), 'aluminium 4xxx')
    expect(view.getByRole('heading', { level: 1 }).textContent).not.toMatch(/with room/)
  })
})

describe('two pulls', () => {
  it('give friction and how sure, and are kept with the gun', async () => {
    const view = open({ 'POST /reading': { eventId: 'ev_1', is: 'good', because: 'no window', target: null } })
    await view.user.click(await view.findByRole('button', { name: 'Friction from two pulls' }))
    const keep = view.getByRole('button', { name: 'Keep it with the gun' })
    expect(keep.hasAttribute('disabled')).toBe(true)
    await view.user.type(view.getByLabelText(/dead straight/), '6.1 6.4 6,0')
    await view.user.type(view.getByLabelText(/One loop/), '14.9 15.6 15.1')
    expect(told(view)).toMatch(/Friction 0.14 \(0.13 to 0.15, 19 in 20\).*At least/)
    await view.user.click(keep)
    expect(view.sent.find((s) => s.path === '/reading')?.body).toMatchObject({
      what: 'pull',
      method: 'pulls',
      from: { straightN: [6.1, 6.4, 6], loopedN: [14.9, 15.6, 15.1], loops: 1 },
    })
  })
  it('that tell nothing are refused with what to do', async () => {
    const view = open()
    await view.user.click(await view.findByRole('button', { name: 'Friction from two pulls' }))
    await view.user.type(view.getByLabelText(/dead straight/), '1.2')
    await view.user.type(view.getByLabelText(/One loop/), '3')
    expect(told(view)).toMatch(/under 2 N.*Snug the hub brake/)
    await view.user.type(view.getByLabelText(/dead straight/), ' heavy')
    expect(view.getByText('Not a force: heavy.')).toBeTruthy()
  })
})

describe('the knob calibrated', () => {
  it('tells what a mark grips before it is kept', async () => {
    const view = open({ 'POST /drag/calibrate': { eventId: 'ev_1', atZeroN: 7.7, perMarkN: 36.3 } })
    await view.user.click(await view.findByRole('button', { name: 'Calibrate the knob' }))
    const [low, high] = view.getAllByLabelText(/It slid at/)
    if (!low || !high) throw new Error('no fields')
    await view.user.type(low, '43 45 44')
    await view.user.type(high, '20')
    expect(told(view)).toMatch(/did not slip harder/)
    await view.user.clear(high)
    await view.user.type(high, '150 153 156')
    expect(told(view)).toMatch(/A mark grips 36 N more/)
    await view.user.click(view.getByRole('button', { name: 'Keep it with the feeder' }))
    expect(view.sent.find((s) => s.path === '/drag/calibrate')?.body).toMatchObject({
      pulls: [{ mark: 1, forcesN: [43, 45, 44] }, { mark: 4 }],
    })
  })
})

describe('the picture', () => {
  it('draws as much bend as there is: the turning of its half waves adds up', () => {
    for (const deg of [0, 60, 360, 700]) {
      const wave = cableWave(deg)
      const slope = (wave.amplitude * Math.PI * wave.waves) / 680
      const turning = 2 * wave.waves * Math.atan(slope) * (180 / Math.PI)
      expect(turning).toBeCloseTo(deg, 6)
    }
    expect(cablePath(0)).toMatch(/^M250.0 118.0L/)
  })
  it('a coil is a ring, half a coil half a ring; the guide stands off to scale', () => {
    expect(coilRings(gun({ coils: 1.5 })).map((r) => r.share)).toEqual([1, 0.5])
    expect(coilRings(gun())).toEqual([])
    expect(gapOfX(guideX(9))).toBeCloseTo(9, 9)
  })
  it('pulled down it bends, along it coils, off the rolls the guide stands off; never beyond what there is', () => {
    expect(pulled('cable', gun({ bendDeg: 300 }), { dx: 0, dy: 50 })).toEqual(['bendDeg', 420])
    expect(pulled('cable', gun({ bendDeg: 30 }), { dx: 0, dy: -900 })).toEqual(['bendDeg', 0])
    expect(pulled('coils', gun(), { dx: 140, dy: 0 })).toEqual(['coils', 2])
    expect(pulled('guide', gun({ gapMm: 8 }), { dx: 16, dy: 0 })).toEqual(['gapMm', 13])
  })
  it('the force graph starts at the rolls, and breaks off where nothing feeds', () => {
    const graph = (setup: ReturnType<typeof gun>) => forceGraph(forceProfile(setup), { cableMm: 4000, nestN: 150 })
    expect(graph(gun()).line).toMatch(/^M178.0/)
    expect(graph(gun()).breaksAtX).toBeNull()
    expect(graph(gun({ friction: 0.8, coils: 200 })).breaksAtX).toBeGreaterThan(178)
    expect(graph(gun()).yOf(0)).toBeGreaterThan(graph(gun()).yOf(100))
  })
})

describe('what is done to it on the screen', () => {
  it('a thinner wire rattles in the guide of the thicker; back is as it began', () => {
    const state = begin(gun(), 2)
    const thin = dragStep(state, { type: 'wire', material: 'steel', diameterMm: 0.6 })
    expect(thin.drawn.values.clearanceMm).toBeCloseTo(0.7, 9)
    expect(isMoved(thin)).toBe(true)
    expect(dragStep(thin, { type: 'back' })).toEqual(state)
    expect(isMoved(dragStep(state, { type: 'knob', mark: 3 }))).toBe(true)
  })
})

describe('words', () => {
  it('name what happens at the knob', () => {
    const at = (mark: number, over = {}) => {
      const setup = gun(over)
      return knobSentence(atKnob(setup, mark), explain(setup), 'metric')
    }
    expect(at(0.2)).toMatch(/the rolls slip: they grip .* the wire wants/)
    expect(at(2)).toMatch(/it feeds \(80 N for .*\)\. Stopped at the tip, the rolls slip\./)
    expect(at(5)).toMatch(/it nests: 190 N against the 150 N the gap bears/)
    expect(knobSentence(atKnob(gun(), 2), explain(gun()), 'us')).toMatch(/lbf/)
  })
  it('why it nested: stopped, feeding, or not by these numbers', () => {
    const why = (mark: number, over = {}) => {
      const setup = gun(over)
      return nestSentence(atKnob(setup, mark), explain(setup), 'metric')
    }
    expect(why(5)).toMatch(/Any stop at the tip nests it: the rolls grip 190 N/)
    expect(why(3.6)).toMatch(/a jerk, or a guide a little off/)
    expect(why(2)).toMatch(/it should have slipped .* look at the outlet guide/)
    expect(why(2, { friction: 0.5, coils: 2 })).toMatch(/Feeding alone asks for more push/)
  })
  it('of a hopeless one: not by the knob', () => {
    const hopeless = explain(gun({ friction: 0.9, coils: 6 }))
    expect(dragSentence('it', hopeless)).toBe('Nothing on the knob feeds it as it is.')
    expect(becauseSentence(hopeless)).toMatch(/Do not turn the knob/)
  })
  it('uncalibrated, how far from here', () => {
    const setup = gun()
    expect(aboutMarks(setup, 36, 36)).toBe('about 1 marks higher')
    expect(aboutMarks(setup, -2, 36)).toBe('about where it is')
    expect(aboutMarks(setup, 400, 36)).toBe('beyond the top of the scale')
    const said = explain(setup)
    const words = windowWords({ setup, said, at: atKnob(setup, 2), isCalibrated: false, units: 'metric' })
    expect(words).toMatch(/of grip \(nest\). The low end is about .* marks lower/)
  })
  it('how sure, in natural counts', () => {
    const spread = (openShare: number) => spreadSentence({ openShare, low: [0, 0, 0], high: [0, 0, 0], draws: 100 })
    expect([1, 0.62, 0].map(spread)).toEqual([
      'Open in all that the guesses allow.',
      'Open in 6 of 10 of what the guesses allow.',
      'Shut in all that the guesses allow.',
    ])
    expect(frictionSentence({ friction: 0.17, standardError: null, freedom: null }, 'pulls')).toMatch(/single pulls/)
  })
  it('forces are read apart, a comma is a point, lbf are lbf', () => {
    expect(readForces(' 6,1;6.4  x 0', 'metric')).toEqual({ forcesN: [6.1, 6.4], wrong: ['x', '0'] })
    expect(readForces('10', 'us').forcesN[0]).toBeCloseTo(44.48, 1)
  })
})
