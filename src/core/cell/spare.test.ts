import { describe, expect, it } from 'vitest'
import { check } from '@core/rightparts/check.ts'
import { type Setup } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY } from '@core/rightparts/untold.ts'
import { gunRating } from '@core/rightparts/rating.ts'
import { anId } from '@core/testing/ids.ts'
import { NO_PROCEDURE, partOf, RIGHT_STEEL } from '@core/testing/sampleparts.ts'
import { judgeSpare, type SpareAsked } from './spare.ts'

const FAMILY = {
  id: anId('family', 'fam-kelp'),
  name: 'Kelp',
  fit: { ...UNTOLD_FAMILY, mixedAmps: 400, co2Amps: 500, dutyFraction: 0.6 },
}

type Rated = 'tip' | 'nozzle' | 'neck'
/** A spare at a place that welds 350 A at 60 %, with parts of such a rating on it. */
function spare(rated: Partial<Record<Rated, number>>, own: Partial<Setup> = {}, amps = 350) {
  const { parts } = RIGHT_STEEL
  const withRating = (Object.entries(rated) as [Rated, number][]).map(([at, ratedAmps]) => {
    const part = parts[at]
    return [at, part?.fit ? { ...part, fit: { ...part.fit, ratedAmps } } : part] as const
  })
  const setup: Setup = {
    ...RIGHT_STEEL,
    ...{ family: FAMILY, mode: 'spray', gas: 'argon mix' },
    procedure: { ...NO_PROCEDURE, amps: [amps - 20, amps], dutyFraction: 0.6 },
    parts: { ...parts, ...Object.fromEntries(withRating) },
    ...own,
  }
  const asked: SpareAsked = {
    ...{ kind: 'gun', setup, findings: check(setup), seat: { fits: true, wants: null, has: null } },
    ...{ wantsM: null, isToMend: false, spent: [], changeMin: () => 3 },
  }
  return judgeSpare(asked)
}

describe('the rating of a spare', () => {
  it('is right where gun and front carry the program', () =>
    expect(spare({ tip: 500, nozzle: 500 })).toMatchObject({ is: 'right' }))
  it.each(['tip', 'nozzle'] as const)('with its own %s too light is to be made right, in minutes', (at) => {
    const verdict = spare({ [at]: 200 })
    expect(verdict).toMatchObject({
      is: 'toMakeRight',
      amiss: [{ is: 'part', kindKey: at, rule: 'rating' }],
      minutes: 3,
    })
  })
  it('with a neck of its own that is too light is that neck’s matter, not the gun’s', () => {
    const neck = partOf('neck', 'N45', { familyId: FAMILY.id, fit: { ratedAmps: 200 } })
    const verdict = spare({}, { parts: { ...RIGHT_STEEL.parts, neck } })
    expect(verdict).toMatchObject({ is: 'toMakeRight', amiss: [{ is: 'part', kindKey: 'neck', rule: 'rating' }] })
  })
  it('never hangs there where the gun itself is too light, and that is said once', () => {
    const verdict = spare({}, {}, 700)
    expect(verdict.is).toBe('never')
    expect(verdict.amiss.filter((a) => a.is === 'rating')).toHaveLength(1)
    expect(verdict.amiss.some((a) => a.is === 'part' && a.kindKey === 'neck')).toBe(false)
  })
  it('of a gun whose gas nobody told is taken with the mix, which carries less', () => {
    const untold = gunRating({
      ...{ ...RIGHT_STEEL, family: FAMILY },
      gas: null,
      procedure: { ...NO_PROCEDURE, amps: [300, 300], dutyFraction: 0.6 },
    })
    expect(untold?.ratedAmps).toBe(400)
  })
})
