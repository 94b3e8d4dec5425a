import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { indexOf } from './belief.ts'
import { minutesOf } from './knowledge.ts'
import { reckon } from './session.ts'
import { SHIPPED } from './shipped/knowledge.ts'
import { isMinuteAsked, minuteChecks, nextTrial, SAWS, trialFault, TUNED, valuesAfter, type Trial } from './tune.ts'

const k = indexOf(SHIPPED)
const trial = (name: Trial['name'], from: number | null, to: number, saw: Trial['saw'] = 'better'): Trial => ({
  ...{ name, from, to, saw },
})

describe('one value at a time', () => {
  it('what was better stays, the rest goes back', () => {
    const start = { wireSpeed: 8, volts: 20 }
    expect(
      valuesAfter(start, [
        trial('wireSpeed', 8, 9),
        trial('volts', 20, 21, 'worse'),
        trial('volts', 20, 19.5, 'same'),
        trial('flow', null, 15),
      ]),
    ).toEqual({ wireSpeed: 9, volts: 20, flow: 15 })
  })
  it('no run of trials that were not better moves anything', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.constantFrom(...TUNED),
            fc.double({ min: 1, max: 40, noNaN: true }),
            fc.constantFrom('same', 'worse'),
          ),
          { maxLength: 12 },
        ),
        (rows) => {
          const start = { wireSpeed: 8, volts: 20, trim: 3, flow: 14, stickOut: 12 }
          const trials = rows.map(([name, to, saw]) => trial(name, start[name], to, saw as Trial['saw']))
          expect(valuesAfter(start, trials)).toEqual(start)
        },
      ),
      { seed: 8, numRuns: 60 },
    )
  })
  it('speed before voltage; after a far change of speed voltage follows, the same way', () => {
    expect(nextTrial([], null)).toMatchObject({ name: 'wireSpeed', because: 'speedFirst' })
    expect(nextTrial([trial('wireSpeed', 8, 10)], null)).toEqual({ name: 'volts', way: 'up', because: 'together' })
    expect(nextTrial([trial('wireSpeed', 10, 8)], null)).toMatchObject({ way: 'down' })
    const both = [trial('wireSpeed', 8, 10), trial('volts', 20, 21)]
    expect(nextTrial(both, null)?.because).toBe('notYet')
  })
  it('goes the way the sign tells', () => {
    const tried = [trial('wireSpeed', 8, 8.2, 'same')]
    expect(nextTrial(tried, 'stubs')).toMatchObject({ name: 'volts', way: 'up' })
    expect(nextTrial(tried, 'longArc')).toMatchObject({ name: 'volts', way: 'down' })
  })
  it('leaves out what a machine has not, and ends', () => {
    expect(nextTrial([trial('wireSpeed', 8, 8.2, 'same')], null, ['wireSpeed', 'trim'])?.name).toBe('trim')
    expect(
      nextTrial(
        TUNED.map((name) => trial(name, 10, 10.1, 'same')),
        null,
      ),
    ).toBeNull()
  })
  it('is refused where nothing changes, or no machine can be set so', () => {
    expect(trialFault(trial('volts', 20, 20))).toBe('same')
    expect(trialFault(trial('volts', 20, 2))).toBe('span')
    expect(trialFault(trial('volts', null, 20))).toBeNull()
    expect(SAWS).toHaveLength(3)
  })
})

describe('one minute on the equipment', () => {
  it('is a few quick looks that fill no more than a minute, none of them at settings or the hand', () => {
    for (const symptom of ['longArc', 'stubs', 'spatters', 'burnback', 'stumbles']) {
      const checks = minuteChecks(reckon(k, { symptom, said: [] }))
      expect(checks.length, symptom).toBeGreaterThan(0)
      expect(checks.reduce((sum, c) => sum + minutesOf(c), 0)).toBeLessThanOrEqual(1.05)
      expect(checks.some((c) => ['compare', 'handWatch'].includes(c.key))).toBe(false)
    }
  })
  it('begins with what the gun itself speaks for', () => {
    const hints = [
      {
        cause: 'hubTight',
        factor: 40,
        sign: 'reading' as const,
        because: { how: 'read' as const, what: 'hubDrag' as const },
      },
    ]
    const [first] = minuteChecks(reckon(k, { symptom: 'stumbles', said: [] }, { hints }))
    expect(first?.key).toBe('spoolByHand')
  })
  it('is asked for where a sign of the feed or the front end stands, and not for a worn settings card', () => {
    const at = reckon(k, { symptom: 'longArc', said: [] })
    const hint = (cause: string, sign: unknown = 'reading', factor = 4) => [{ cause, factor, sign }]
    const isAsked = (hints: ReturnType<typeof hint>) => isMinuteAsked(at, { hints, blame: 'hand', isDown: false })
    expect(isAsked(hint('linerWorn'))).toBe(true)
    expect(isAsked(hint('settings'))).toBe(false)
    expect(isAsked(hint('linerWorn', null))).toBe(false)
    expect(isAsked(hint('linerWorn', 'reading', 0.2))).toBe(false)
  })
  it('a burnback on a gun nobody read is looked at before more wire speed; a bead that burns through is set', () => {
    const isAsked = (symptom: string, blame: 'minute' | 'hand' | 'machine') =>
      isMinuteAsked(reckon(k, { symptom, said: [] }), { hints: [], blame, isDown: false })
    expect(isAsked('burnback', 'minute')).toBe(true)
    expect(isAsked('burnThrough', 'minute')).toBe(false)
    expect(isAsked('burnThrough', 'machine')).toBe(true)
    expect(isAsked('burnback', 'hand')).toBe(false)
  })
})
