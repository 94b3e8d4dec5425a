import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { drawSide, sidePlace, type DrawnSide } from './drawn.ts'
import { measureSpan, type Line, type SpanAnswer } from './span.ts'

const side = (over: Partial<DrawnSide> = {}, seed = 1): DrawnSide => ({
  pxPerMm: 12,
  knownMm: 16,
  gapMm: 8,
  turnRad: 0.3,
  slantPerMm: 0,
  blurPx: 0.8,
  noise: 4,
  random: makeRandom(seed),
  ...over,
})
/** Lines as a hand puts them: each end a few per cent beside its edge. */
function measure(of: DrawnSide, more: { off?: number; byHand?: { known?: boolean; span?: boolean } } = {}): SpanAnswer {
  const { off = 0.06, byHand } = more
  const image = drawSide(of)
  const at = (x: number, y: number) => sidePlace(of, image.width, [x, y])
  const beside = (size: number) => (of.random() - 0.5) * 2 * off * size
  const known: Line = {
    from: at(-8, -of.knownMm / 2 + beside(of.knownMm)),
    to: at(-8, of.knownMm / 2 + beside(of.knownMm)),
  }
  const span: Line = { from: at(beside(of.gapMm), 0), to: at(of.gapMm + beside(of.gapMm), 0.4) }
  return measureSpan({ image, known, knownMm: of.knownMm, span, ...(byHand ? { byHand } : {}) })
}
const good = (made: SpanAnswer) => {
  if (!made.ok) throw new Error(`not measured: ${made.reason}`)
  return made
}
const reason = (made: SpanAnswer) => (made.ok ? null : made.reason)

describe('a length on a side picture with a known answer', () => {
  it('lines put beside the edges go to them: within 3 % or 0.1 mm, turned, soft and noisy', () => {
    const random = makeRandom(3)
    for (let i = 0; i < 24; i++) {
      const of = side(
        {
          pxPerMm: 8 + random() * 12,
          gapMm: 2 + random() * 14,
          turnRad: random() * 6,
          blurPx: random() * 1.5,
          noise: 6,
        },
        i + 1,
      )
      const made = good(measure(of))
      expect(Math.abs(made.length - of.gapMm)).toBeLessThan(Math.max(0.1, 0.03 * of.gapMm))
    }
  })
  it('says how far it may be off: 19 in 20 within twice its spread', () => {
    const off = Array.from({ length: 30 }, (_, i) => {
      const of = side({ turnRad: i, gapMm: 3 + (i % 9) }, i + 50)
      const made = good(measure(of))
      return Math.abs(made.length - of.gapMm) / made.sd
    })
    expect(off.filter((z) => z < 2).length).toBeGreaterThanOrEqual(28)
  })
  it('in lengths of the known thing itself, where that is the unit', () => {
    const of = side()
    const image = drawSide(of)
    const at = (x: number, y: number) => sidePlace(of, image.width, [x, y])
    const known = { from: at(-8, -8), to: at(-8, 8) }
    const made = good(measureSpan({ image, known, knownMm: 1, span: { from: at(0, 0), to: at(8, 0) } }))
    expect(made.length).toBeCloseTo(0.5, 2)
  })
  it('a line put by hand stays where it is, and is less sure', () => {
    const of = side()
    const [found, put] = [good(measure(of)), good(measure(side(), { off: 0, byHand: { span: true } }))]
    expect(put.sd).toBeGreaterThan(found.sd)
    expect(Math.abs(put.length - of.gapMm)).toBeLessThan(0.25)
  })
})

describe('what a side picture cannot tell', () => {
  it('blurred, from the side, or too small is refused with the reason', () => {
    expect(reason(measure(side({ blurPx: 14, gapMm: 4 })))).toBe('blurred')
    expect(reason(measure(side({ slantPerMm: 0.03 })))).toBe('tilted')
    expect(reason(measure(side({ pxPerMm: 1.5 })))).toBe('tooSmall')
  })
  it('where there is no edge none is made up', () => {
    const of = side({ noise: 2 })
    const image = drawSide(of)
    const flat = { from: { x: 4, y: 4 }, to: { x: 60, y: 4 } }
    const at = (x: number, y: number) => sidePlace(of, image.width, [x, y])
    const known = { from: at(-8, -8), to: at(-8, 8) }
    expect(reason(measureSpan({ image, known, knownMm: 16, span: flat }))).toBe('noSpan')
    expect(reason(measureSpan({ image, known: flat, knownMm: 16, span: known }))).toBe('noKnown')
  })
  it('a known size that is none is misuse', () =>
    expect(() => measureSpan({ image: drawSide(side()), known: LINE, knownMm: 0, span: LINE })).toThrow(RangeError))
})
const LINE: Line = { from: { x: 0, y: 0 }, to: { x: 90, y: 0 } }
