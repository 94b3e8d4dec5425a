import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { linerOf } from '@web/testing/sampleguide.ts'
import { anId } from '@core/testing/ids.ts'
import { floorGun, floorOf, NOW, want } from '@web/testing/samples.ts'
import { ME, saidOf, stage, unstage, type Answers } from '@web/testing/stage.tsx'
import { LinerPage } from './LinerPage.tsx'
import { ruleLength } from '@web/format/lengths.ts'
import { orderSentence, ruleSentence } from './linerwords.ts'

beforeEach(() => localStorage.clear())
afterEach(unstage)

type View = ReturnType<typeof stage>
const open = (over: Parameters<typeof linerOf>[0] = {}, answers: Answers = {}) =>
  stage(<LinerPage />, { '/liner': linerOf(over), ...answers }, '/liner?gun=stn_00b7')
const tap = async (view: View, name: string | RegExp) => view.user.click(await view.findByRole('button', { name }))
async function upTo(view: View, gate: 'oldLiner' | 'push' | 'trim'): Promise<void> {
  await tap(view, 'Begin')
  await tap(view, 'It is isolated')
  if (gate === 'oldLiner') return
  await tap(view, 'Not looked at: go on')
  await tap(view, 'Skip')
  await tap(view, 'Done')
  if (gate === 'trim') await tap(view, 'It glided in')
}
const measure = async (view: View, text: string) => {
  await view.user.type(await view.findByRole('textbox'), text)
}

describe('before a tool is picked up', () => {
  it('liners that want changing elsewhere are told: one clear floor, one session', async () => {
    const wants = [want({ position: 'liner', minutes: 23 })]
    const guns = ['A8', 'B6'].map((name) =>
      floorGun(name, { stationId: anId('station', `stn_00${name.toLowerCase()}`), wants }),
    )
    const view = open({}, { '/floor': floorOf(guns) })
    expect(await view.findByText(/A8 and B6 want a liner too: on the same clear floor about 46 min more/)).toBeTruthy()
  })
  it('tells liner, room, hands, cut, and what was left last time', async () => {
    const view = open({
      secondPerson: ['longCable'],
      last: { atMs: NOW - 86_400_000, by: 'A', leftMm: 18, lengthMm: 4208 },
      stuckBefore: [{ atMm: 1420, atMs: NOW }],
    })
    expect(await view.findByText(/at least 4.36 m/)).toBeTruthy()
    expect(view.getByText(/about 0.29 m comes off/)).toBeTruthy()
    expect(view.getByText(/4.67 m: the gun lies dead straight/)).toBeTruthy()
    expect(view.getByText(/second person .* the cable is long/)).toBeTruthy()
    expect(view.getByText(/18 mm left standing out, 4.21 m long in all/)).toBeTruthy()
    expect(view.getByText(/stuck here at 1.42 m/)).toBeTruthy()
  })
  it('does not begin where nobody has told how the family is cut', async () => {
    const view = open({ by: 'notTold', neededMm: null })
    expect((await view.findByRole('button', { name: 'Begin' })).hasAttribute('disabled')).toBe(true)
    expect(view.getByText(/not told, or a figure of it is missing/)).toBeTruthy()
  })
})

describe('the cuts', () => {
  it('two measurements, two cuts, and the job is logged as one', async () => {
    const view = open({}, { '/liner/done': { eventId: 'ev_1' } })
    await upTo(view, 'trim')
    await measure(view, '48')
    await tap(view, 'That is what it measures')
    expect(view.getByText('Cut 27 mm off, no more.')).toBeTruthy()
    await tap(view, '27 mm are off')
    await measure(view, '21.2')
    await tap(view, 'That is what it measures')
    await tap(view, '3.2 mm are off')
    await tap(view, 'Square, no burr')
    await tap(view, 'It is out of the circuit')
    await tap(view, 'Yes')
    await tap(view, 'worn')
    const [[path, said] = ['', {}]] = saidOf(view.sent)
    expect(path).toBe('/liner/done')
    expect(said).toMatchObject({ outReason: 'worn', old: null, isBlown: false, settled: ['tension', 'freeFeed'] })
    expect(said['cut']).toMatchObject({ by: 'A', neededMm: 18, standsOutMm: 48, firstCutMm: 27, nowMm: 21.2 })
    expect((said['cut'] as { lengthMm: number }).lengthMm).toBeCloseTo(4500 - 30.2, 6)
    await vi.waitFor(() => expect(view.where()).toBe('/gun/stn_00b7'))
    expect(localStorage.length).toBe(0)
  })
  it('stops where the second measurement does not agree, and says why', async () => {
    const view = open()
    await upTo(view, 'trim')
    await measure(view, '48')
    await tap(view, 'That is what it measures')
    await tap(view, '27 mm are off')
    await measure(view, '26')
    await tap(view, 'That is what it measures')
    expect(view.getByText(/21 mm was expected, 26 mm measured. Nothing more is cut/)).toBeTruthy()
    expect(view.queryByRole('button', { name: /are off/ })).toBeNull()
    await tap(view, /begin from it/)
    expect(view.getByText('Cut 5 mm off, no more.')).toBeTruthy()
  })
  it('asks back for a slip of the unit and takes nothing below nought', async () => {
    const view = open()
    await upTo(view, 'trim')
    await measure(view, '4.8')
    await tap(view, 'Did you mean 48 mm, in cm?')
    expect(view.getByText('Cut 27 mm off, no more.')).toBeTruthy()
    await tap(view, /measured wrong/)
    await measure(view, '-3')
    expect(view.getByText(/shorter than nothing/)).toBeTruthy()
    await view.user.clear(view.getByRole('textbox'))
    await measure(view, 'long')
    expect(view.getByText(/that is no length/)).toBeTruthy()
  })
  it('says what a liner too short already means, and goes on with another', async () => {
    const view = open()
    await upTo(view, 'trim')
    await measure(view, '11')
    await tap(view, /No, 11 mm it is|That is what it measures/)
    expect(view.getByText(/7 mm too short already: nothing is cut/)).toBeTruthy()
    expect(view.getByText(/hunts in the gap/)).toBeTruthy()
    await tap(view, 'Another, longer liner')
    expect(view.getByText('Unpack it.')).toBeTruthy()
    expect(view.sent).toEqual([])
  })
  it('one that was cut short is said to be spoiled', async () => {
    const view = open()
    await upTo(view, 'trim')
    for (const [text, name] of [
      ['48', 'That is what it measures'],
      ['', '27 mm are off'],
      ['12', 'That is what it measures'],
      ['', /begin from it/],
    ] as const) {
      if (text) await measure(view, text)
      await tap(view, name)
    }
    expect(view.getByText(/6 mm too short already/)).toBeTruthy()
  })
  it('copies the old one’s length where the shop does, not one that had been cut short', async () => {
    const view = open({ by: 'C', neededMm: null, shouldBe: 'A' })
    expect(await view.findByText(/By its build this family should be cut by rule A/)).toBeTruthy()
    await upTo(view, 'oldLiner')
    await tap(view, 'had been cut short')
    await measure(view, '4170')
    await tap(view, 'That is what it shows')
    await tap(view, 'Skip')
    await tap(view, 'Done')
    await tap(view, 'It glided in')
    expect(view.getByText(/a copy would be short again/)).toBeTruthy()
  })
})

describe('a liner that runs to the rolls', () => {
  const steps = linerOf().steps.map((s) =>
    s.gate === 'trim' ? { ...s, key: 'trimFeeder', gate: 'trimFeeder' as const } : s,
  )
  it('is cut by where the rolls meet, which is measured twice before anything goes by it', async () => {
    const view = open({ by: 'feeder', neededMm: null, steps })
    await upTo(view, 'trim')
    await measure(view, '75')
    await tap(view, 'That is what it measures')
    await measure(view, '71')
    await tap(view, 'That is what it measures')
    expect(view.getByText(/they do not agree/)).toBeTruthy()
    await measure(view, '75')
    await tap(view, 'That is what it measures')
    await measure(view, '75.4')
    await tap(view, 'That is what it measures')
    expect(view.getByText(/73.9 mm must be left/)).toBeTruthy()
    await measure(view, '103.9')
    await tap(view, 'That is what it measures')
    expect(view.getByText('Cut 27 mm off, no more.')).toBeTruthy()
  })
  it('goes by one measurement where it is what it was last time', async () => {
    const view = open({ by: 'feeder', neededMm: null, seatToNipMm: 75, steps })
    await upTo(view, 'trim')
    expect(view.getByLabelText(/75 mm last time/)).toBeTruthy()
    await measure(view, '75')
    await tap(view, 'That is what it measures')
    expect(view.getByText(/73.5 mm must be left/)).toBeTruthy()
  })
})

describe('on the way in', () => {
  it('kinked is scrap: the one way on is another liner', async () => {
    const view = open({}, { '/liner/stuck': { is: 'scrap', beforeMs: null } })
    await upTo(view, 'push')
    await tap(view, 'It sticks')
    await tap(view, 'near the neck')
    await tap(view, 'Kinked')
    expect(saidOf(view.sent)).toEqual([['/liner/stuck', { stationId: 'stn_00b7', atMm: 3880, isKinked: true }]])
    expect(await view.findByText(/Kinked is scrap/)).toBeTruthy()
    expect(view.queryByRole('button', { name: 'Now it is in' })).toBeNull()
    await tap(view, 'Another liner')
    expect(view.getByText('Unpack it.')).toBeTruthy()
  })
  it('a second one at the same place condemns the cable', async () => {
    const view = open({}, { '/liner/stuck': { is: 'cable', beforeMs: NOW - 86_400_000 } })
    await upTo(view, 'push')
    await tap(view, 'It sticks')
    await view.user.type(view.getByRole('textbox'), '1.44 m')
    await tap(view, 'No kink')
    expect(saidOf(view.sent)[0]?.[1]).toMatchObject({ atMm: 1440, isKinked: false })
    expect(await view.findByText(/it is the cable’s own tube/)).toBeTruthy()
    expect(view.getByRole('link', { name: /another gun goes on/ })).toBeTruthy()
  })
  it('air wants all three answers', async () => {
    const view = open()
    await upTo(view, 'oldLiner')
    await tap(view, 'coils bunched')
    await tap(view, 'near the neck')
    await tap(view, 'may be from pulling it out')
    await tap(view, 'That is what it shows')
    const blown = () => view.getByRole('button', { name: /Blown/ })
    for (const q of [/liner is out/, /filtered and dry/]) await tap(view, q)
    expect(blown().hasAttribute('disabled')).toBe(true)
    await tap(view, /Eyes are covered/)
    await view.user.click(blown())
    expect(view.getByText('Unpack it.')).toBeTruthy()
  })
})

describe('a reload on the way', () => {
  it('costs nothing: the job goes on at its step, with what was measured', async () => {
    const first = open()
    await upTo(first, 'trim')
    await measure(first, '48')
    await tap(first, 'That is what it measures')
    unstage()
    const again = open()
    await tap(again, /Go on, step 6/)
    expect(again.getByText('Cut 27 mm off, no more.')).toBeTruthy()
  })
  it('or is begun anew', async () => {
    const first = open()
    await upTo(first, 'push')
    unstage()
    const again = open()
    await tap(again, 'Begin anew')
    expect(again.getByText('Power off.')).toBeTruthy()
  })
})

describe('in a shop of inches', () => {
  it('reads fractions and says lengths as a rule shows them', async () => {
    const view = open({}, { '/people/me': { ...ME, units: 'us' } })
    await upTo(view, 'trim')
    await measure(view, '1 7/8')
    await tap(view, 'That is what it measures')
    expect(view.getByText('Cut 1 1/16 in off, no more.')).toBeTruthy()
    expect(ruleLength(18, 'us')).toBe('11/16 in')
    expect(ruleLength(25.4, 'us')).toBe('1 in')
    expect(ruleLength(0.4, 'us')).toBe('0.02 in')
  })
  it('says which rule it is, and what is too short to buy', () => {
    expect(ruleSentence(linerOf({ by: 'B', neededMm: 3 }), 'metric')).toContain('3 mm stand out of the tip holder')
    expect(ruleSentence(linerOf({ by: 'feeder' }), 'metric')).toContain('front is not cut')
    expect(orderSentence(linerOf({ putLengthMm: 4000 }), 'metric')).toContain('too short for this gun')
    expect(orderSentence(linerOf({ orderMm: null }), 'metric')).toContain('Nobody has said')
  })
})
