import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { FEEDER, NO_PROCEDURE, partOf, wireOf } from '@core/testing/sampleparts.ts'
import { type Setup } from '@core/rightparts/facts.ts'
import { changedSince, contradicts, judgeNumber, judgeReading, outsidePhysics, type Said } from './judge.ts'
import { READINGS, type ReadingKey } from './keys.ts'
import { READING } from './specs.ts'
import { guideClearance } from '@core/drag/clearance.ts'
import { targetFor, type TargetFacts } from './target.ts'
import { asksPurpose, judgedAsMeant } from './purpose.ts'
import { isAlarmLive, isToPutRight } from './alarms.ts'

const SETUP: Setup = {
  wire: {
    id: anId('wire', 'w'),
    name: '0.9 steel',
    construction: 'solid',
    diameterMm: 0.9,
    densityGPerCm3: 7.85,
    fit: null,
  },
  family: null,
  feeder: null,
  procedure: null,
  mode: 'short circuit',
  gas: 'argon mix',
  cableM: 4,
  settings: {},
  parts: {},
  polarityBy: 'wire',
  tipStands: 'byMode',
}
const facts = (over: Partial<TargetFacts> = {}): TargetFacts => ({
  setup: SETUP,
  window: null,
  baseline: null,
  norm: null,
  runsToRolls: false,
  ...over,
})
const said = (over: Partial<Said> = {}): Said => ({
  atMs: 1000,
  what: 'tension',
  method: 'block',
  is: 'good',
  value: 2.4,
  left: null,
  ...over,
})

describe('the table of readings', () => {
  it('hangs each at a position there is, with methods that can be answered and cautions there are', () => {
    const kinds = new Set(KIND_DEFAULTS.map((k) => k.key))
    for (const what of READINGS) {
      const spec = READING[what]
      expect(kinds.has(spec.at), what).toBe(true)
      expect(spec.methods.length, what).toBeGreaterThan(0)
      for (const m of spec.methods) {
        expect(m.grades.length > 0 || m.number !== 'none', `${what} ${m.key}`).toBe(true)
        if (m.grades.length > 0)
          expect(
            m.grades.some((x) => x.is === 'good'),
            `${what} ${m.key}`,
          ).toBe(true)
        for (const h of m.hazards) expect(CAUTIONS[h]).toBeDefined()
      }
      expect(spec.usual[0], what).toBeGreaterThanOrEqual(spec.physics[0])
      expect(spec.usual[1], what).toBeLessThanOrEqual(spec.physics[1])
      for (const kind of spec.resetBy) expect(kinds.has(kind), what).toBe(true)
      if (spec.worse) expect([spec.asksFor.length > 0, spec.sd > 0], what).toEqual([true, true])
    }
  })
  it('what touches a hot front, a wire end or the drive carries its caution', () => {
    const hazards = (what: ReadingKey, method: string) => READING[what].methods.find((m) => m.key === method)?.hazards
    expect(hazards('pull', 'pulls')).toEqual(['isolate', 'hot', 'stab'])
    expect(hazards('tension', 'pinch')).toContain('circuit')
    expect(hazards('bore', 'twoDiameters')).toContain('hot')
    expect(hazards('gasFlow', 'meter')).toContain('trigger')
  })
})

describe('windows', () => {
  it('the knob: the calibrated window, else the baseline and a mark, else none', () => {
    expect(targetFor('tension', facts({ window: { lowMark: 1, highMark: 3 }, baseline: 2 }))).toMatchObject({
      from: 1,
      to: 3,
      by: 'window',
    })
    expect(targetFor('tension', facts({ baseline: 2 }))).toMatchObject({ to: 3, by: 'baseline' })
    expect(targetFor('tension', facts({ window: { lowMark: 3, highMark: 2 } }))).toBeNull()
  })
  it('the knob read for the first time: by the others like it, else by its own scale; over-tight at first is no beginning', () => {
    const norm = { low: 2, high: 3, n: 6 }
    expect(targetFor('tension', facts({ norm }))).toMatchObject({ from: 2, to: 3, actAbove: 4, by: 'shop', n: 6 })
    expect(targetFor('tension', facts({ norm, baseline: 2.4 }))).toMatchObject({ to: 3.4, by: 'baseline' })
    expect(targetFor('tension', facts({ norm, baseline: 4.6 }))).toMatchObject({ to: 3, by: 'shop' })
    const scale = (wire: Setup['wire']) =>
      targetFor('tension', facts({ setup: { ...SETUP, feeder: FEEDER, wire } }))?.to ?? 0
    expect(scale(wireOf('solid', 0.9))).toBeCloseTo(4, 9)
    expect(scale(wireOf('flux-cored', 1.2))).toBeCloseTo(2.75, 9)
    expect(scale(wireOf('aluminium', 1.2))).toBeCloseTo(2.5, 9)
  })
  it('a liner run to the rolls wants the gap of a soft wire', () => {
    expect(targetFor('gap', facts({ runsToRolls: true }))?.to).toBeLessThan(targetFor('gap', facts())?.to ?? 0)
  })
  it('the tip’s place goes by mode, the wire’s end by the procedure', () => {
    expect(targetFor('recess', facts())).toMatchObject({ from: 0, to: 3 })
    expect(targetFor('recess', facts({ setup: { ...SETUP, mode: 'spray' } }))).toMatchObject({ from: -12, to: -3 })
    expect(targetFor('stickOut', facts())).toBeNull()
  })
  it('gas goes by wire, mode and gas: what is right for a hot arc is much for a short one, and none is wanted of some', () => {
    const flow = (over: Partial<Setup>, value: number) => {
      const target = targetFor('gasFlow', facts({ setup: { ...SETUP, ...over } }))
      return target && judgeNumber(value, target).is
    }
    expect([flow({}, 14), flow({}, 22), flow({}, 26)]).toEqual(['good', 'look', 'act'])
    expect(flow({ mode: 'spray' }, 22)).toBe('good')
    const cored = { wire: wireOf('metal-cored', 1.2), mode: 'spray' as const }
    expect([flow(cored, 22), flow(cored, 24), flow(cored, 12)]).toEqual(['good', 'good', 'look'])
    const alu = { wire: wireOf('aluminium', 1.2), gas: 'argon' as const }
    expect([flow(alu, 22), flow({ ...alu, settings: { gas: 'argon-helium' } }, 30)]).toEqual(['good', 'good'])
    expect(flow({ gas: 'none' }, 14)).toBeNull()
  })
  it('gas as the procedure has it before any guess; a wide nozzle wants more, a narrow one less', () => {
    const at = (over: Partial<Setup>) => targetFor('gasFlow', facts({ setup: { ...SETUP, ...over } }))
    const procedure = { ...NO_PROCEDURE, flowLPerMin: [18, 20] as [number, number] }
    expect(at({ procedure })).toMatchObject({ from: 18, to: 20, actBelow: 13, by: 'procedure' })
    const nozzle = (boreMm: number) => ({ parts: { nozzle: partOf('nozzle', 'N', { fit: { boreMm } }) } })
    expect(at(nozzle(20))?.to).toBeCloseTo(24, 6)
    expect(at(nozzle(12))?.from).toBeCloseTo(9.6, 6)
    expect(at(nozzle(40))?.to).toBeCloseTo(18 * 1.35, 6)
  })
  it('friction goes by the new liner, in proportion', () => {
    const target = targetFor('pull', facts({ baseline: 0.16 }))
    expect(judgeNumber(0.2, target).is).toBe('good')
    expect(judgeNumber(0.26, target)).toEqual({ is: 'look', because: 'above' })
    expect(judgeNumber(0.31, target).is).toBe('act')
  })
  it('a guide of the next size leaves more play', () => {
    expect(guideClearance(1.2, 0.9)).toBeCloseTo(0.7, 9)
    expect(guideClearance(0.9, 0.9)).toBeCloseTo(0.4, 9)
    expect(guideClearance(null, 0.9)).toBeNull()
  })
})

describe('a verdict as typed', () => {
  const read = (what: ReadingKey, method: string, over: { grade?: string; value?: number; left?: number } = {}) =>
    judgeReading(
      { what, method, grade: over.grade ?? null, value: over.value ?? null, left: over.left ?? null },
      targetFor(what, facts({ baseline: 2.2 })),
    )
  it('by what is seen, by the number, and the worse of both', () => {
    expect(read('tension', 'block', { grade: 'stalls', value: 2.3 })).toEqual({ is: 'act', because: 'grade' })
    expect(read('tension', 'knob', { value: 3.4 })).toEqual({ is: 'look', because: 'above' })
    expect(read('tension', 'block', { grade: 'curls', value: 4.5 })).toEqual({ is: 'act', because: 'above' })
    expect(read('orings', 'look', { grade: 'torn' }).is).toBe('act')
  })
  it('once it is set, as it was left counts', () => {
    expect(read('tension', 'block', { grade: 'stalls', value: 1, left: 2.3 })).toEqual({
      is: 'good',
      because: 'inside',
    })
    expect(read('gap', 'feeler', { value: 16, left: 8 }).is).toBe('good')
  })
  it('a bore much wider than its wire is worn, however round: in millimetres or inches, by the wire that is on', () => {
    const bore = (maxMm: number, minMm: number, wire = facts().setup.wire) => {
      const target = targetFor('bore', facts({ setup: { ...SETUP, wire } }))
      const value = (maxMm - minMm) / minMm
      return judgeReading(
        { what: 'bore', method: 'twoDiameters', grade: null, value, left: null, from: { maxMm, minMm } },
        target,
      )
    }
    const size = facts().setup.wire?.diameterMm ?? 0
    expect(bore(size + 0.15, size + 0.13)).toEqual({ is: 'good', because: 'inside' })
    expect(bore(size + 0.32, size + 0.3)).toEqual({ is: 'look', because: 'wide' })
    expect(bore(size + 0.6, size + 0.58)).toEqual({ is: 'act', because: 'wide' })
    expect(bore((size + 0.6) / 25.4, (size + 0.58) / 25.4).is).toBe('act')
    // Oval is said as oval; where nobody knows the wire, only that can be.
    expect(bore(1.25, 1.05).is).toBe('act')
    expect(bore(size + 0.6, size + 0.58, null).is).toBe('good')
    // Aluminium grows in a hot tip: its bores are wider when new.
    expect(bore(1.5, 1.49, wireOf('aluminium', 1.2)).is).toBe('good')
    expect(bore(1.5, 1.49, wireOf('solid', 1.2)).is).toBe('good')
    expect(bore(1.6, 1.59, wireOf('solid', 1.2)).is).toBe('look')
  })
  it('an oval bore over the threshold is changed, 5 % is not', () => {
    expect(read('bore', 'twoDiameters', { value: 0.1 }).is).toBe('act')
    expect(read('bore', 'twoDiameters', { value: 0.05 }).is).toBe('good')
  })
  it('a number at its very limit is inside', () => {
    const target = { from: 12, to: 20, actBelow: 8, actAbove: 26, by: 'guess' as const }
    expect([12, 20, 20.2, 11.8].map((v) => judgeNumber(v, target).is)).toEqual(['good', 'good', 'look', 'look'])
    expect([7.9, 26].map((v) => judgeNumber(v, target).is)).toEqual(['act', 'act'])
  })
})

describe('what asks for hands', () => {
  const DAY = 86_400_000
  it('to be put right at once; remarked on and left in when its day is here; never what is put right in passing, nor a liner', () => {
    const asks = (what: 'orings' | 'bore' | 'layout' | 'pull', is: 'act' | 'look', days: number) =>
      isToPutRight({ what, is, sinceMs: 0 }, days * DAY)
    expect([asks('orings', 'act', 0), asks('layout', 'act', 0), asks('pull', 'act', 0)]).toEqual([true, false, false])
    expect([asks('bore', 'look', 0.5), asks('bore', 'look', 1), asks('orings', 'look', 13)]).toEqual([
      false,
      true,
      false,
    ])
  })
  it('what is put right in passing is no news the next shift, the rest for a month', () => {
    const live = (what: 'layout' | 'orings', days: number) =>
      isAlarmLive({ what, at: 'liner', is: 'act', sinceMs: 0 }, days * DAY)
    expect([live('layout', 0.4), live('layout', 0.6), live('orings', 20), live('orings', 31)]).toEqual([
      true,
      false,
      true,
      false,
    ])
  })
})

describe('outside on purpose', () => {
  const target = { from: 15, to: 18, actBelow: null, actAbove: null, by: 'procedure' as const }
  const asked = (what: 'stickOut' | 'gap', value: number, by: 'procedure' | 'guess' = 'procedure') =>
    asksPurpose(what, judgeNumber(value, target), { ...target, by })
  it('is asked of what may be meant, outside what somebody has written down', () => {
    expect([asked('stickOut', 24), asked('stickOut', 10), asked('stickOut', 17)]).toEqual([true, true, false])
    expect([asked('gap', 24), asked('stickOut', 24, 'guess')]).toEqual([false, false])
    expect(judgedAsMeant(judgeNumber(24, target))).toEqual({ is: 'good', because: 'above' })
  })
})

describe('what cannot be', () => {
  it('asks back with the likely slip', () => {
    expect(outsidePhysics('hubDrag', 450)).toEqual({ ok: false, suggest: 4.5 })
    expect(outsidePhysics('gasFlow', 30)).toEqual({ ok: true })
    expect(outsidePhysics('tension', 25)).toEqual({ ok: false, suggest: 2.5 })
    expect(outsidePhysics('nozzleOpen', 80)).toEqual({ ok: false, suggest: 0.8 })
    expect(outsidePhysics('stickOut', 900)).toEqual({ ok: false, suggest: 9 })
    expect(outsidePhysics('motorAmps', 1900)).toEqual({ ok: false, suggest: 1.9 })
    expect(outsidePhysics('bore', -3)).toEqual({ ok: false, suggest: null })
  })
  it('found otherwise than left: changed since, beyond reading error, within one method', () => {
    expect(changedSince(said({ value: 3.1 }), said({ value: 2, left: 2.4, atMs: 5 }))).toMatchObject({ sinceMs: 5 })
    expect(changedSince(said({ value: 2.6 }), said({ left: 2.4 }))).toBeNull()
    expect(changedSince(said({ value: 3.1, method: 'pinch' }), said({ left: 2.4 }))).toBeNull()
    expect(changedSince(said({ what: 'bore', value: 0.4 }), said({ what: 'bore', left: 0.1 }))).toBeNull()
    expect(changedSince(said(), null)).toBeNull()
  })
  it('two looks that cannot both be right are flagged, unless something was done between', () => {
    const good = said({ what: 'bore', method: 'look', is: 'good', value: null, atMs: 0 })
    const bad = said({ what: 'bore', method: 'twoDiameters', is: 'act', value: 0.12, atMs: 60_000 })
    expect(contradicts(bad, [good], null)).toBe(good)
    expect(contradicts(bad, [good], 30_000)).toBeNull()
    expect(contradicts({ ...bad, is: 'look' }, [good], null)).toBeNull()
    expect(contradicts({ ...bad, atMs: 9e7 }, [good], null)).toBeNull()
  })
})
