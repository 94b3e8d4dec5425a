import { describe, expect, it } from 'vitest'
import { bySightSdKg, cableWireKg, labelSdKg, leftByDiameter, leftByWeight, leftSince, shortEnd } from './left.ts'
import { outerDiameterMm, packingFromFullSpool } from './wire.ts'

const steel = { diameterMm: 1, densityGPerCm3: 7.85 }
const winding = (outer: number) => ({ outerDiameterMm: outer, hubDiameterMm: 180, widthMm: 90 })
const full = { outerDiameterMm: 275, massKg: 15 }
const ok = (answer: ReturnType<typeof leftByWeight>) => {
  if (!answer.ok) throw new Error(answer.reason)
  return answer
}

describe('left by weight', () => {
  it('is gross less tare', () =>
    expect(ok(leftByWeight({ grossKg: 8.4, tareKg: 0.9, isTareKnown: true })).kg).toBeCloseTo(7.5, 12))
  it('is known worse where the tare is a guess', () => {
    const known = ok(leftByWeight({ grossKg: 8, tareKg: 1, isTareKnown: true }))
    const guessed = ok(leftByWeight({ grossKg: 8, tareKg: 1, isTareKnown: false }))
    expect(guessed.sdKg).toBeGreaterThan(4 * known.sdKg)
  })
  it('lighter than an empty one is asked about; a scale’s error under it is empty', () => {
    expect(leftByWeight({ grossKg: 0.4, tareKg: 0.9, isTareKnown: true })).toMatchObject({ ok: false })
    expect(ok(leftByWeight({ grossKg: 0.85, tareKg: 0.9, isTareKnown: true })).kg).toBe(0)
  })
  it('refuses what no scale shows', () =>
    expect(() => leftByWeight({ grossKg: -1, tareKg: 0, isTareKnown: true })).toThrow(RangeError))
})

describe('left by wound diameter', () => {
  const at = (outer: number) => ok(leftByDiameter({ winding: winding(outer), densityGPerCm3: 7.85, full }))
  it('is the whole of a full one, nothing at the core, and (D² − d²) in between', () => {
    expect(at(275).kg).toBeCloseTo(15, 12)
    expect(at(180).kg).toBe(0)
    expect(at(230).kg).toBeCloseTo((15 * (230 ** 2 - 180 ** 2)) / (275 ** 2 - 180 ** 2), 12)
  })
  it('undoes the diameter that a mass makes', () => {
    const packingFactor = packingFromFullSpool(winding(275), 7.85, 15)
    for (const kg of [1, 6.2, 14]) {
      const outer = outerDiameterMm({ hubDiameterMm: 180, widthMm: 90, packingFactor, densityGPerCm3: 7.85 }, kg)
      expect(at(outer).kg).toBeCloseTo(kg, 10)
    }
  })
  it('a rule’s error matters as the slope says', () => {
    const step = (at(240.01).kg - at(239.99).kg) / 0.02
    expect(at(240).sdKg).toBeCloseTo(step * 1.5, 6)
  })
  it('without a known full one the packing is a guess and widens the band', () => {
    const guess = ok(leftByDiameter({ winding: winding(275), densityGPerCm3: 7.85, full: null }))
    expect(guess.kg).toBeCloseTo((Math.PI / 4) * (275 ** 2 - 180 ** 2) * 90 * 0.84 * 7.85e-6, 9)
    expect(guess.sdKg).toBeGreaterThan(1.5 * at(275).sdKg)
  })
  it('under the core and over a full one are asked about', () => {
    expect(leftByDiameter({ winding: winding(170), densityGPerCm3: 7.85, full })).toMatchObject({ ok: false })
    expect(leftByDiameter({ winding: winding(290), densityGPerCm3: 7.85, full })).toMatchObject({ ok: false })
  })
})

describe('wire in hand', () => {
  it('what ran off is gone, never under nothing, and both are unsure', () => {
    expect(leftSince({ kg: 15, sdKg: 0.3 }, { kg: 5, sdKg: 0.4 })).toEqual({ kg: 10, sdKg: 0.5 })
    expect(leftSince({ kg: 1, sdKg: 0 }, { kg: 5, sdKg: 0 }).kg).toBe(0)
  })
  it('four metres of 1.0 steel are 25 grams', () => expect(cableWireKg(steel, 4)).toBeCloseTo(0.02466, 5))
  it('a short end is under a seventh of a full one, and tells its metres', () => {
    expect(shortEnd({ kg: 1.5, sdKg: 0 }, { fullKg: 15, wire: steel })).toMatchObject({ isShort: true })
    expect(shortEnd({ kg: 3, sdKg: 0 }, { fullKg: 15, wire: steel })).toMatchObject({ isShort: false })
    expect(shortEnd({ kg: 1.5, sdKg: 0 }, { fullKg: 15, wire: steel }).metres).toBeCloseTo(243.3, 1)
    expect(shortEnd({ kg: 0, sdKg: 0 }, { fullKg: 15, wire: steel }).metres).toBe(0)
  })
  it('eyes and labels have their spreads', () => expect([bySightSdKg(15), labelSdKg(15)]).toEqual([1.5, 0.15]))
})
