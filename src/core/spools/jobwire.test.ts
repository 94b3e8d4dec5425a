import { describe, expect, test } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { type WireFacts } from '@core/rightparts/facts.ts'
import {
  chanceFinishes,
  efficiencyOf,
  jobWire,
  learntOf,
  piecesOf,
  sectionMm2,
  surely,
  type JobWork,
} from './jobwire.ts'

const wire = (construction: string, densityGPerCm3 = 7.85, alloy: 'steel' | 'aluminium 5xxx' = 'steel'): WireFacts => ({
  ...{ id: anId('wire', 'wire_1'), name: 'w', construction, diameterMm: 1.2, densityGPerCm3 },
  fit: { ...UNTOLD_WIRE, alloy },
})
const steel = wire('solid')
const work: JobWork = { joint: { kind: 'fillet', legMm: 6 }, lengthM: 1, pieces: 10, starts: 2, mode: 'spray' }

describe('wire for a job', () => {
  test('sections: a fillet and a groove as they are drawn, with what stands out', () => {
    expect(sectionMm2({ kind: 'fillet', legMm: 6 })).toBeCloseTo(19.8, 9)
    // 60° on 10 mm, 2 mm gap: 20 + 57.7 + cap of 13.5 mm × 1.5 × 2/3.
    expect(sectionMm2({ kind: 'vee', thicknessMm: 10, angleDeg: 60, gapMm: 2 })).toBeCloseTo(91.28, 1)
    expect(sectionMm2({ kind: 'section', mm2: 33 })).toBe(33)
  })
  test('section × length × density ÷ efficiency, and a snip at each start', () => {
    const { weldKg, kg, snipKg, sdKg } = jobWire(work, steel)
    expect(weldKg).toBeCloseTo(0.0198 * 10 * 7.85, 6)
    expect(kg).toBeCloseTo(weldKg / 0.98 + snipKg, 9)
    expect(snipKg).toBeCloseTo(20 * 0.03 * 0.00888, 4)
    expect(sdKg / kg).toBeCloseTo(0.153, 3)
    const twice = jobWire({ ...work, lengthM: 2 }, steel)
    expect(twice.weldKg).toBeCloseTo(2 * weldKg, 9)
  })
  test('efficiency by wire and mode', () => {
    expect(efficiencyOf(steel, 'short circuit')).toBe(0.93)
    expect(efficiencyOf(wire('metal-cored'), 'spray')).toBe(0.95)
    expect(efficiencyOf(wire('flux-cored'), null)).toBe(0.86)
    const noGas = wire('flux-cored')
    expect(efficiencyOf({ ...noGas, fit: { ...UNTOLD_WIRE, isSelfShielded: true } }, null)).toBe(0.8)
    expect(efficiencyOf(wire('aluminium', 2.66, 'aluminium 5xxx'), 'pulse')).toBe(0.95)
  })
  test('own jobs make it right and surer, from three on', () => {
    const done = [1.1, 1.15, 1.2].map((r) => ({ usedKg: r * 5, computedKg: 5 }))
    expect(learntOf(done.slice(1))).toBeNull()
    const learnt = learntOf(done)
    expect(learnt?.ratio).toBeCloseTo(1.15, 9)
    const [told, own] = [jobWire(work, steel), jobWire(work, steel, learnt)]
    expect(own.kg).toBeCloseTo(1.15 * told.kg, 9)
    expect(own.sdKg).toBeLessThan(told.sdKg)
  })
  test('a job of no length, of no pieces, of no weld is refused', () => {
    for (const over of [{ lengthM: 0 }, { pieces: 0 }, { joint: { kind: 'section' as const, mm2: 0 } }])
      expect(() => jobWire({ ...work, ...over }, steel)).toThrow('a weld of some size')
  })
})

describe('whether a spool finishes it', () => {
  const job = { kg: 4, sdKg: 0.4 }
  test('an even chance where it is just as much, nearly sure with nine in ten to spare', () => {
    expect(chanceFinishes({ kg: 4, sdKg: 0.2 }, [job])).toBeCloseTo(0.5, 6)
    expect(chanceFinishes({ kg: surely(job), sdKg: 0 }, [job])).toBeCloseTo(0.9, 3)
    expect(chanceFinishes({ kg: 4, sdKg: 0 }, [{ kg: 4, sdKg: 0 }])).toBe(1)
    expect(chanceFinishes({ kg: 9, sdKg: 0.1 }, [job, job])).toBeGreaterThan(0.9)
  })
  test('where it does not, it is changed between pieces', () => {
    const many = { ...job, pieces: 20 }
    const n = piecesOf({ kg: 2.5, sdKg: 0.1 }, many)
    expect(n).toBeGreaterThan(8)
    expect(n).toBeLessThan(13)
    expect(piecesOf({ kg: 0.01, sdKg: 0.1 }, many)).toBe(0)
    expect(piecesOf({ kg: 40, sdKg: 0.1 }, many)).toBe(20)
  })
})
