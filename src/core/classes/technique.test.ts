import { describe, expect, it } from 'vitest'
import { wireOf } from '@core/testing/sampleparts.ts'
import { MODES } from '@core/rightparts/facts.ts'
import { JOINTS_WELDED, POSITIONS_WELDED, technique, type TechniqueAsked } from './technique.ts'

const of = (own: Partial<TechniqueAsked> = {}) =>
  technique({
    ...{ mode: 'short circuit', wire: wireOf('solid', 0.9), joint: 'fillet', position: 'flat', stickOutMm: null },
    pushPull: 'process',
    ...own,
  })

describe('technique as numbers', () => {
  it('a groove is met square, a fillet at half', () => {
    expect(of({ joint: 'groove' }).workDeg).toBe(90)
    expect(of().workDeg).toBe(45)
    expect(of().travelDeg).toEqual([10, 15])
  })
  it('the procedure’s distance stands before the trade’s', () => {
    expect(of()).toMatchObject({ stickOutMm: [8, 13], stickOutBy: 'trade' })
    expect(of({ stickOutMm: [12, 14] })).toMatchObject({ stickOutMm: [12, 14], stickOutBy: 'procedure' })
    expect(of({ wire: wireOf('flux-cored', 1.2) }).stickOutMm[1]).toBeGreaterThan(of().stickOutMm[1])
  })
  it('push or pull goes by the process, or is one’s own; aluminium is pushed either way', () => {
    expect(of({ mode: 'spray' }).way).toBe('push')
    expect(of({ wire: wireOf('flux-cored', 1.2) }).way).toBe('pull')
    expect(of().way).toBe('either')
    expect(of({ mode: 'spray', pushPull: 'same' }).way).toBe('either')
    for (const pushPull of ['process', 'same'] as const)
      expect(of({ wire: wireOf('aluminium', 1.2), mode: 'spray', pushPull }).way).toBe('push')
  })
  it('has a window for every process, joint and position, and is slower uphill', () => {
    for (const mode of [...MODES, null])
      for (const joint of JOINTS_WELDED)
        for (const position of POSITIONS_WELDED) {
          const t = of({ mode, joint, position })
          for (const [low, high] of [t.stickOutMm, t.travelDeg, t.speedMmS]) expect(low).toBeLessThan(high)
        }
    expect(of({ position: 'vertical' }).speedMmS[1]).toBeLessThan(of().speedMmS[1])
  })
})
