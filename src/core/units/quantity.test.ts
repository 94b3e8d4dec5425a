import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readQuantity, readSpan, shownQuantity, shownSpan, type QuantityKind, type QuantityRule } from './quantity.ts'

const value = (text: string, rule: QuantityRule) => {
  const read = readQuantity(text, rule)
  return read.ok ? read.value : read.why
}

describe('a quantity as it is typed', () => {
  it.each<[string, QuantityRule, number]>([
    ['15', { of: 'mass' }, 15],
    ['3,2', { of: 'mass' }, 3.2],
    ['33 lb', { of: 'mass' }, 14.968548],
    ['33', { of: 'mass', units: 'us' }, 14.968548],
    ['15 kg', { of: 'mass', units: 'us' }, 15],
    ['500 g', { of: 'mass' }, 0.5],
    ['8 oz', { of: 'grams' }, 226.796],
    ['.035', { of: 'rule', units: 'us' }, 0.889],
    ['3/4', { of: 'rule', units: 'us' }, 19.05],
    ['1 1/2 in', { of: 'rule' }, 38.1],
    ['1-1/2"', { of: 'rule' }, 38.1],
    ['1½', { of: 'rule', units: 'us' }, 38.1],
    ['18', { of: 'rule' }, 18],
    ["15'", { of: 'cable' }, 4.572],
    ['15', { of: 'cable', units: 'us' }, 4.572],
    ['300 ipm', { of: 'speed' }, 7.62],
    ['35 cfh', { of: 'flow' }, 16.518],
    ['35 ft3/h', { of: 'flow' }, 16.518],
    ['20', { of: 'share' }, 0.2],
    ['20 %', { of: 'share' }, 0.2],
    ['1,250', { of: 'mass', units: 'us' }, 1250 * 0.45359237],
    ['1,250', { of: 'mass' }, 1.25],
    ['4.50', { of: 'money' }, 450],
    ['€ 4,50', { of: 'money' }, 450],
    ['4.50 $', { of: 'money' }, 450],
    ['2 weeks', { of: 'days' }, 14],
    ['4.50', { of: 'moneyPerMass' }, 450],
    ['2', { of: 'moneyPerMass', units: 'us' }, 441],
    ['2 /lb', { of: 'moneyPerMass' }, 441],
    ['EUR 4.50 a kg', { of: 'moneyPerMass', units: 'us' }, 450],
    ['45 kr', { of: 'money' }, 4500],
    ['-6', { of: 'rule' }, -6],
    ['−6', { of: 'rule' }, -6],
  ])('%s', (text, rule, wanted) => expect(value(text, rule)).toBeCloseTo(wanted, 3))

  it('nothing typed is nothing, unless it is needed', () => {
    expect(value('  ', { of: 'mass' })).toBeNull()
    expect(value('', { of: 'mass', units: 'us', isNeeded: true })).toBe('Write a number like 1.5 lb.')
  })
  it.each<[string, QuantityRule, RegExp]>([
    ['heavy', { of: 'mass' }, /"heavy" can’t be read: write a number like 1.5 kg/],
    ['4 bar', { of: 'flow' }, /bar is no unit for this; write a number like 1.5 L\/min/],
    ['15 mm', { of: 'mass' }, /mm is no unit/],
    ['1/0', { of: 'rule' }, /can’t be read/],
    ['4 a ton', { of: 'moneyPerMass' }, /a ton is no unit/],
    ['4 kg', { of: 'money' }, /kg is no unit/],
    ['12 3', { of: 'plain', to: 100 }, /At most 100/],
    ['1.5', { of: 'count' }, /whole number/],
    ['0', { of: 'mass', above: 0 }, /more than 0 kg/],
    ['0.5', { of: 'mass', from: 1, to: 30, units: 'us' }, /at least 2.2 lb and at most 66.1 lb/],
    ['-1', { of: 'money', from: 0 }, /at least 0/],
  ])('%s is refused with what to write', (text, rule, words) => expect(value(text, rule)).toMatch(words))

  const KINDS: QuantityKind[] = ['mass', 'cable', 'rule', 'speed', 'force', 'flow', 'hours', 'minutes', 'days', 'amps']
  it('what stands in a field is read as what is kept, to three figures, in both worlds', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...KINDS),
        fc.constantFrom('metric' as const, 'us' as const),
        fc.double({ min: 0.01, max: 5000, noNaN: true }),
        (of, units, kept) => {
          const again = readQuantity(shownQuantity(kept, { of, units }), { of, units })
          return again.ok && again.value !== null && Math.abs(again.value / kept - 1) < 0.006
        },
      ),
      { seed: 20, numRuns: 400 },
    ))
  it('nothing that is typed throws', () =>
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...KINDS, 'money' as const), (text, of) => {
        const read = readQuantity(text, { of })
        return read.ok ? read.value === null || Number.isFinite(read.value) : read.why.length > 5
      }),
      { seed: 21, numRuns: 500 },
    ))
})

describe('two ends', () => {
  const span = (text: string, rule: QuantityRule) => {
    const read = readSpan(text, rule)
    return read.ok ? read.value : read.why
  }
  it.each<[string, QuantityRule, [number, number] | null]>([
    ['3–8', { of: 'rule' }, [3, 8]],
    ['8-3', { of: 'rule' }, [3, 8]],
    ['-6–-3', { of: 'rule' }, [-6, -3]],
    ['3 to 8 mm', { of: 'rule', units: 'us' }, [3, 8]],
    ['1/2-1', { of: 'rule', units: 'us' }, [12.7, 25.4]],
    ['0,8 .. 1,2', { of: 'rule' }, [0.8, 1.2]],
    ['180', { of: 'amps' }, [180, 180]],
    ['', { of: 'amps' }, null],
  ])('%s', (text, rule, wanted) => expect(span(text, rule)).toEqual(wanted))
  it('what is none is refused', () => {
    expect(span('3–8 bar', { of: 'rule' })).toMatch(/^"3–8 bar" can’t be read: bar is no unit.*or two like 3–8\.$/)
    expect(span('a–b', { of: 'rule' })).toMatch(/can’t be read/)
  })
  it('stand in a field as they are read', () => {
    expect(shownSpan([12.7, 19.05], { of: 'rule', units: 'us' })).toBe('0.5–0.75')
    expect(shownSpan(null, { of: 'rule' })).toBe('')
  })
})
