import { describe, expect, it } from 'vitest'
import { drawNormal, makeRandom } from '@core/random/random.ts'
import { type Gray } from './gray.ts'
import { measureNozzle } from './nozzle.ts'

interface Drawn {
  pxPerMm: number
  /** Spatter on the wall: so many degrees of the ring, so far in from the wall as a share of the ring. */
  spatterDeg: number
  depth: number
  offMm: number
  squeeze: number
  noise: number
  soft: number
  seed: number
  /** How bright spatter is. */
  shine: number
}
const TIP_MM = 8
const NOZZLE_MM = 16
/** End-on: tip in the middle, dark ring, bright nozzle; spatter shines on the ring from the wall inwards. */
function drawn(over: Partial<Drawn> = {}): { image: Gray; open: number } {
  const of = {
    pxPerMm: 10,
    spatterDeg: 0,
    depth: 0,
    offMm: 0,
    squeeze: 1,
    noise: 4,
    soft: 0.5,
    seed: 1,
    shine: 150,
    ...over,
  }
  const random = makeRandom(of.seed)
  const size = Math.ceil(22 * of.pxPerMm * 1.2)
  const data = new Float32Array(size * size)
  let [open, ring] = [0, 0]
  const step = (mm: number) => 1 / (1 + Math.exp((-mm * of.pxPerMm) / of.soft))
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const [mx, my] = [(x - size / 2) / of.pxPerMm, (y - size / 2) / of.pxPerMm / of.squeeze]
      const r = Math.hypot(mx, my)
      const tip = Math.hypot(mx - of.offMm, my)
      const angle = ((Math.atan2(my, mx) * 180) / Math.PI + 360) % 360
      const isSpatter = angle < of.spatterDeg && r > NOZZLE_MM / 2 - of.depth * ((NOZZLE_MM - TIP_MM) / 2)
      const isRing = r < NOZZLE_MM / 2 && tip > TIP_MM / 2
      if (isRing) ring += 1
      if (isRing && !isSpatter) open += 1
      const wall = 165 * step(r - NOZZLE_MM / 2) * step(10.5 - r)
      const face = 180 * step(TIP_MM / 2 - tip)
      data[y * size + x] = 22 + Math.max(wall, face, isRing && isSpatter ? of.shine : 0) + of.noise * drawNormal(random)
    }
  return { image: { width: size, height: size, data }, open: open / ring }
}
const measure = (over: Partial<Drawn> = {}) => {
  const { image, open } = drawn(over)
  const made = measureNozzle({
    image,
    centre: { x: image.width / 2 + 3, y: image.height / 2 - 3 },
    tipPx: null,
    innerPx: null,
  })
  return { made, open }
}

describe('a nozzle’s opening on a picture with a known answer', () => {
  it('clean it is open; with spatter on part of the wall by as much less', () => {
    for (const of of [
      {},
      { spatterDeg: 120, depth: 0.5 },
      { spatterDeg: 200, depth: 0.6, noise: 7 },
      { spatterDeg: 150, depth: 0.45, squeeze: 0.95 },
    ]) {
      const { made, open } = measure(of)
      expect(made.ok, JSON.stringify(of)).toBe(true)
      if (made.ok) expect(Math.abs(made.open - open), JSON.stringify(of)).toBeLessThan(0.06)
    }
  })
  it('spatter all round that hides the wall is not taken for the wall', () => {
    expect(measure({ spatterDeg: 360, depth: 0.6 }).made).toEqual({ ok: false, reason: 'noNozzle' })
  })
  it('spatter that outshines the tip is not taken for the tip', () => {
    const { made, open } = measure({ spatterDeg: 220, depth: 0.7, shine: 225 })
    expect(made.ok && Math.abs(made.open - open)).toBeLessThan(0.08)
  })
  it('tells how far the tip stands off the middle', () => {
    const { made } = measure({ offMm: 0.8 })
    expect(made.ok && made.offCentre).toBeCloseTo(0.1, 1)
    const straight = measure().made
    expect(straight.ok && straight.offCentre).toBeLessThan(0.02)
  })
  it('refuses what is soft, tilted, too small, or shows no tip', () => {
    expect(measure({ soft: 7, pxPerMm: 9 }).made).toMatchObject({ ok: false })
    expect(measure({ squeeze: 0.8 }).made).toEqual({ ok: false, reason: 'tilted' })
    expect(measure({ pxPerMm: 1.6, soft: 0.2 }).made).toMatchObject({ ok: false })
    const flat = { width: 80, height: 80, data: new Float32Array(6400).fill(90) }
    expect(measureNozzle({ image: flat, centre: { x: 40, y: 40 }, tipPx: null, innerPx: null })).toEqual({
      ok: false,
      reason: 'noTip',
    })
  })
})
