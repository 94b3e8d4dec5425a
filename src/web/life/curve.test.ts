import { expect, it } from 'vitest'
import { curveSeries } from './Curve.tsx'

it('a life is a band, what was fitted, and what was logged, in parts of a hundred', () => {
  const curve = [
    { at: 0, left: 1, low: 1, high: 1 },
    { at: 5, left: 0.5, low: 0.4, high: 0.6 },
  ]
  const [band, fit, log] = curveSeries({ curve, steps: [{ at: 5, left: 0.7 }] })
  expect(band?.points[1]).toEqual({ x: 5, low: 40, high: 60 })
  expect(fit?.points[1]).toEqual({ x: 5, y: 50 })
  expect(log?.points).toEqual([{ x: 5, y: 70 }])
})
