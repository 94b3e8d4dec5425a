import { describe, expect, it } from 'vitest'
import { knowledgeFaults, outcomeChances, type Knowledge } from './knowledge.ts'
import { SHIPPED } from './shipped/knowledge.ts'

describe('what ships', () => {
  it('has no orphan, and every cause can be shown by a check', () => expect(knowledgeFaults(SHIPPED)).toEqual([]))
  it('tells nobody to lay a hand on the front end, or into the rolls, while it is live', () => {
    const front: ReadonlySet<string> = new Set(['tip', 'nozzle', 'insulator', 'diffuser', 'neck'])
    const at = new Map(SHIPPED.causes.map((c) => [c.key, c.at]))
    for (const c of SHIPPED.causes)
      if (front.has(c.at) && c.kind !== 'hand') expect(c.fix.hazards, c.key).toContain('isolate')
    for (const c of SHIPPED.checks) {
      const isOfFront = c.outcomes.some((o) => o.points.length > 0 && o.points.every((p) => front.has(at.get(p) ?? '')))
      if (c.sign === 'feel' && isOfFront) expect(c.hazards, c.key).toContain('isolate')
      if (c.mends) expect(c.hazards, c.key).toContain('isolate')
    }
    const nest = SHIPPED.checks.find((c) => c.key === 'nestOut')
    expect(nest?.hazards).toEqual(expect.arrayContaining(['isolate', 'stab']))
  })
  it('says what is seen in few words, and what to do in a line or two of a phone', () => {
    for (const c of SHIPPED.checks) {
      expect(c.do.length, c.key).toBeLessThanOrEqual(40)
      for (const o of c.outcomes) expect(o.says.length, `${c.key} ${o.key}`).toBeLessThanOrEqual(40)
    }
  })
  it('chances of each check sum to 1 for every cause, whole and not negative', () => {
    for (const check of SHIPPED.checks)
      for (const { key } of SHIPPED.causes) {
        const chances = outcomeChances(check, key)
        expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
        for (const p of chances) expect(p, `${check.key} ${key}`).toBeGreaterThan(0)
      }
  })
})

describe('a knowledge that is off', () => {
  const off = (over: Partial<Knowledge>) => knowledgeFaults({ ...SHIPPED, ...over }).map((f) => `${f.where}: ${f.says}`)
  it('is told by place, and what to do', () => {
    const [first, ...rest] = SHIPPED.symptoms
    expect(off({ symptoms: [{ ...first!, causes: ['noSuch'] }, ...rest] }).join()).toContain(
      'names a cause that is not there: noSuch',
    )
    const orphan = { ...SHIPPED.causes[0]!, key: 'lonely' }
    expect(off({ causes: [...SHIPPED.causes, orphan] })).toEqual([
      'cause lonely: no symptom has it: put it under one, or take it out',
      'cause lonely: no check shows it: point an outcome at it',
    ])
    expect(off({ symptoms: [{ ...first!, first: 'noLook', told: ['noEye'] }, ...rest] })).toEqual([
      `symptom ${first!.key}: names a check that is not there: noEye`,
      `symptom ${first!.key}: names a check that is not there: noLook`,
    ])
    expect(off({ symptoms: [{ ...first!, odds: { ...first!.odds, orings: 'often' } }, ...rest] })).toEqual([
      `symptom ${first!.key}: says how often it is orings, which is none of its causes`,
    ])
    const [cause, ...causes] = SHIPPED.causes
    expect(off({ causes: [{ ...cause!, fix: { ...cause!.fix, wants: 'noLook' } }, ...causes] })).toEqual([
      `cause ${cause!.key}: goes by a check that is not there: noLook`,
    ])
    const [check, ...checks] = SHIPPED.checks
    expect(off({ checks: [{ ...check!, onlyFor: ['blue'], after: 'noLook' }, ...checks] })).toEqual([
      `check ${check!.key}: speaks of a symptom that is not there: blue`,
      `check ${check!.key}: comes after a check that is not there: noLook`,
    ])
    expect(off({ checks: [{ ...check!, shows: 1.2 }, ...checks] })[0]).toContain('shows its cause with a chance')
    expect(off({ checks: [...SHIPPED.checks, check!] })[0]).toContain('stands there twice')
    expect(off({ checks: [{ ...check!, outcomes: check!.outcomes.slice(0, 1) }, ...checks] }).join()).toContain(
      'needs two outcomes',
    )
  })
})
