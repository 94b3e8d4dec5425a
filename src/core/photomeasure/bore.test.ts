import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { measureBore, type BoreMeasured } from './bore.ts'
import { drawTip, type DrawnTip } from './drawn.ts'
import { axesOf, fitEllipse, rectified } from './ellipse.ts'
import { grayOf, sample } from './gray.ts'

const tip = (over: Partial<DrawnTip>, seed = 1): DrawnTip => ({
  pxPerMm: 14,
  outerMm: 6,
  boreMaxMm: 1.2,
  boreMinMm: 1.2,
  ovalAngleRad: 0.4,
  tiltRad: 0,
  tiltAxisRad: 0.7,
  blurPx: 0.8,
  noise: 4,
  glare: 0,
  random: makeRandom(seed),
  ...over,
})
const measure = (of: DrawnTip) => {
  const image = drawTip(of)
  const centre = { x: image.width / 2 + 2, y: image.height / 2 - 2 }
  return measureBore({ image, centre, borePx: null, outerPx: null, outerMm: of.outerMm })
}
const good = (of: DrawnTip): BoreMeasured => {
  const made = measure(of)
  if (!made.ok) throw new Error(`not measured: ${made.reason}`)
  return made
}

describe('a bore on a picture with a known answer', () => {
  it('from 12 px a millimetre up, within 0.03 mm or 3 %, tilted, noisy, soft and with a glare', () => {
    const random = makeRandom(4)
    for (let i = 0; i < 24; i++) {
      const boreMinMm = 0.9 + random() * 0.8
      const of = tip(
        {
          pxPerMm: 12 + random() * 20,
          boreMinMm,
          boreMaxMm: boreMinMm * (1 + random() * 0.2),
          ovalAngleRad: random() * 3,
          tiltRad: random() * 0.35,
          tiltAxisRad: random() * 3,
          blurPx: 0.4 + random() * 0.8,
          noise: 2 + random() * 6,
          glare: random() * 60,
        },
        i + 10,
      )
      const made = good(of)
      const within = Math.max(0.03, 0.03 * of.boreMinMm)
      expect(Math.abs(made.minMm - of.boreMinMm), `min of ${i}`).toBeLessThan(within)
      expect(Math.abs(made.maxMm - of.boreMaxMm), `max of ${i}`).toBeLessThan(Math.max(0.03, 0.03 * of.boreMaxMm))
    }
  })
  it('tells an oval of 10 % from one of 5 % in 95 of 100', () => {
    const random = makeRandom(8)
    let right = 0
    for (let i = 0; i < 100; i++) {
      const isWorn = i % 2 === 0
      const of = tip(
        {
          pxPerMm: 14 + random() * 4,
          outerMm: 5,
          boreMinMm: 1.2,
          boreMaxMm: 1.2 * (isWorn ? 1.1 : 1.05),
          ovalAngleRad: random() * 3,
          tiltRad: random() * 0.25,
          tiltAxisRad: random() * 3,
          noise: 5,
        },
        i + 200,
      )
      if (good(of).oval > 0.075 === isWorn) right += 1
    }
    expect(right).toBeGreaterThanOrEqual(95)
  })
  it('its own error is about what it is off by', () => {
    const offs = Array.from({ length: 20 }, (_, i) => {
      const made = good(tip({ pxPerMm: 16 }, i + 500))
      return Math.abs(made.minMm - 1.2) / made.sdMm
    })
    expect(offs.filter((o) => o < 3).length).toBeGreaterThanOrEqual(18)
  })
  it('tilt is told, and does not pass for an oval', () => {
    const made = good(tip({ tiltRad: 0.4, pxPerMm: 20 }))
    expect(made.tiltDeg).toBeCloseTo(22.9, 0)
    expect(made.oval).toBeLessThan(0.03)
  })
})

describe('a picture that tells nothing is refused with the reason', () => {
  it('blurred, tilted, too far away, no bore, no rim', () => {
    expect(measure(tip({ blurPx: 4.5 }))).toEqual({ ok: false, reason: 'blurred' })
    expect(measure(tip({ tiltRad: 0.65, pxPerMm: 20 }))).toEqual({ ok: false, reason: 'tilted' })
    expect(measure(tip({ pxPerMm: 7, boreMinMm: 2, boreMaxMm: 2, blurPx: 0.3 }))).toEqual({
      ok: false,
      reason: 'tooSmall',
    })
    const flat = { width: 60, height: 60, data: new Float32Array(3600).fill(120) }
    const asked = { image: flat, centre: { x: 30, y: 30 }, outerMm: 8 }
    expect(measureBore({ ...asked, borePx: null, outerPx: null })).toEqual({ ok: false, reason: 'noBore' })
    expect(measureBore({ ...asked, borePx: 8, outerPx: 25 })).toEqual({ ok: false, reason: 'noBore' })
    expect(() => measureBore({ ...asked, borePx: 8, outerPx: 25, outerMm: 0 })).toThrow(RangeError)
  })
})

describe('the parts of it', () => {
  it('an ellipse through its own points, with a third of them wild', () => {
    const points = Array.from({ length: 90 }, (_, i) => {
      const t = (2 * Math.PI * i) / 90
      const wild = i % 3 === 0 ? 1.3 : 1
      return { x: 50 + wild * 20 * Math.cos(t), y: 40 + wild * 15 * Math.sin(t) }
    })
    const fit = fitEllipse(points, { x: 49, y: 41 })
    const axes = fit && axesOf(fit.ellipse)
    expect(axes?.long).toBeCloseTo(20, 1)
    expect(axes?.short).toBeCloseTo(15, 1)
    expect(fit?.ellipse.centre.x).toBeCloseTo(50, 1)
    expect(fitEllipse(points.slice(0, 5), { x: 50, y: 40 })).toBeNull()
  })
  it('a circle seen from the side, turned back by another, is a circle', () => {
    const circle = (r: number, squeeze: number) => ({
      centre: { x: 0, y: 0 },
      a: 1 / r ** 2,
      b: 0,
      c: 1 / (r * squeeze) ** 2,
    })
    const back = rectified(circle(3, 0.8), circle(10, 0.8))
    expect(back.long).toBeCloseTo(0.3, 12)
    expect(back.short).toBeCloseTo(0.3, 12)
  })
  it('between pixels and beyond the edge', () => {
    const image = { width: 2, height: 1, data: new Float32Array([10, 20]) }
    expect([sample(image, 0.5, 0), sample(image, -3, 0), sample(image, 9, 5)]).toEqual([15, 10, 20])
    expect(grayOf(new Uint8ClampedArray([255, 255, 255, 255]), 1, 1).data[0]).toBeCloseTo(255, 3)
    expect(() => grayOf(new Uint8ClampedArray(3), 1, 1)).toThrow(RangeError)
  })
})
