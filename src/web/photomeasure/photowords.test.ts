import { describe, expect, it } from 'vitest'
import { type BoreMeasured } from '@core/photomeasure/bore.ts'
import { type NozzleMeasured } from '@core/photomeasure/nozzle.ts'
import { answerSentence, REFUSED, ringsOf } from './photowords.ts'

const ELLIPSE = { centre: { x: 10, y: 10 }, a: 1, b: 0, c: 1 }
const bore = (over: Partial<BoreMeasured> = {}): BoreMeasured => ({
  ok: true,
  maxMm: 1.29,
  minMm: 1.12,
  oval: 0.152,
  sdMm: 0.01,
  ovalSd: 0.01,
  pxPerMm: 20,
  tiltDeg: 5,
  blurPx: 1,
  bore: ELLIPSE,
  outer: { ...ELLIPSE, a: 0.01, c: 0.01 },
  ...over,
})
const nozzle = (over: Partial<NozzleMeasured> = {}): NozzleMeasured => ({
  ok: true,
  open: 0.62,
  openSd: 0.02,
  offCentre: 0.03,
  tiltDeg: 4,
  tip: ELLIPSE,
  inner: ELLIPSE,
  ...over,
})

describe('what a photo tells', () => {
  it('a bore: two diameters, oval, each with what it may be off', () =>
    expect(answerSentence({ is: 'bore', of: bore() })).toBe(
      '1.29 by 1.12 mm, each to 0.02; 15 % oval, give or take 2.',
    ))
  it('a nozzle: how open, and whether the tip stands in the middle', () => {
    expect(answerSentence({ is: 'nozzle', of: nozzle() })).toBe(
      '62 % open, give or take 4. The tip stands in the middle.',
    )
    expect(answerSentence({ is: 'nozzle', of: nozzle({ offCentre: 0.2 }) })).toMatch(/off the middle/)
  })
  it('too near its limit it says so, as a person would', () => {
    expect(answerSentence({ is: 'bore', of: bore({ oval: 0.08 }) })).toMatch(/too near the limit/)
    expect(answerSentence({ is: 'nozzle', of: nozzle({ open: 0.73 }) })).toMatch(/too near the limit/)
    expect(answerSentence({ is: 'bore', of: bore() })).not.toMatch(/too near/)
  })
  it('refused, it says why and what to do; every reason has its words', () => {
    for (const [reason, words] of Object.entries(REFUSED)) expect(words.length, reason).toBeGreaterThan(30)
    expect(answerSentence({ is: 'nozzle', of: { ok: false, reason: 'tilted' } })).toMatch(/straight into it/)
    expect(answerSentence({ is: 'bore', of: { ok: false, reason: 'blurred' } })).toMatch(/Hold still/)
  })
  it('rings are drawn of what was found only', () => {
    expect(ringsOf({ is: 'bore', of: bore() })?.[1].a).toBe(0.01)
    expect(ringsOf({ is: 'nozzle', of: nozzle() })).toHaveLength(2)
    expect(ringsOf({ is: 'bore', of: { ok: false, reason: 'noBore' } })).toBeNull()
    expect(ringsOf(null)).toBeNull()
  })
})
