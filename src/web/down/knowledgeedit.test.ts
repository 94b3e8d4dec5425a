import { describe, expect, it } from 'vitest'
import { knowledgeFaults, usualShares } from '@core/diagnose/knowledge.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { edited } from './knowledgeedit.ts'

const causesOf = (k: typeof SHIPPED, key: string) => k.symptoms.find((s) => s.key === key)?.causes ?? []

describe('what a lead changes', () => {
  it('moves a cause up, takes it out and puts it in, and touches nothing else', () => {
    const [first = '', second = ''] = causesOf(SHIPPED, 'jerk')
    const up = edited(SHIPPED, { do: 'up', symptom: 'jerk', cause: second })
    expect(causesOf(up, 'jerk').slice(0, 2)).toEqual([second, first])
    expect(edited(SHIPPED, { do: 'up', symptom: 'jerk', cause: first }).symptoms).toEqual(SHIPPED.symptoms)
    const out = edited(SHIPPED, { do: 'out', symptom: 'jerk', cause: first })
    expect(causesOf(out, 'jerk')).not.toContain(first)
    expect(causesOf(edited(out, { do: 'in', symptom: 'jerk', cause: first }), 'jerk').at(-1)).toBe(first)
    expect(causesOf(out, 'nest')).toEqual(causesOf(SHIPPED, 'nest'))
  })
  it('says how often a cause is behind it; taken out, what was said of it goes along', () => {
    const share = (k: typeof SHIPPED, cause: string) => {
      const of = k.symptoms.find((s) => s.key === 'porosity')
      return of ? (usualShares(of)[of.causes.indexOf(cause)] ?? 0) : 0
    }
    const often = edited(SHIPPED, { do: 'odds', symptom: 'porosity', cause: 'supply', odds: 'often' })
    // From rarely to often: eight times the weight, of a whole that grew by as much.
    expect(share(often, 'supply')).toBeGreaterThan(6 * share(SHIPPED, 'supply'))
    expect(share(often, 'supply')).toBeCloseTo(share(often, 'nozzleClogged'), 12)
    expect(knowledgeFaults(often)).toEqual([])
    const out = edited(often, { do: 'out', symptom: 'porosity', cause: 'supply' })
    const kept = out.symptoms.find((s) => s.key === 'porosity')
    expect([kept?.odds, kept?.source].map((of) => Object.keys(of ?? {}).includes('supply'))).toEqual([false, false])
    expect(knowledgeFaults(out)).toEqual([])
  })
  it('its own words and minutes hold together as what ships does', () => {
    const own = edited(edited(SHIPPED, { do: 'words', cause: 'tipWorn', says: 'tip egg-shaped' }), {
      do: 'effort',
      cause: 'tipWorn',
      effort: 'E0',
    })
    expect(own.causes.find((c) => c.key === 'tipWorn')).toMatchObject({ says: 'tip egg-shaped', fix: { effort: 'E0' } })
    expect(knowledgeFaults(own)).toEqual([])
    expect(knowledgeFaults(edited(SHIPPED, { do: 'shows', check: 'pull', shows: 2 }))).toHaveLength(1)
  })
  it('a cause of its own holds together once a look shows it', () => {
    const own = edited(SHIPPED, { do: 'newCause', symptom: 'jerk', says: 'cable under a wheel', at: 'liner' })
    const [made] = own.causes.filter((c) => !SHIPPED.causes.includes(c))
    expect(causesOf(own, 'jerk').at(-1)).toBe(made?.key)
    expect(knowledgeFaults(own).map((f) => f.says)).toEqual(['no check shows it: point an outcome at it'])
    const [check] = own.checks
    const outcome = check?.outcomes[0]?.key ?? ''
    const at = { check: check?.key ?? '', outcome, cause: made?.key ?? '' }
    const shown = edited(own, { do: 'point', ...at, isOn: true })
    expect(knowledgeFaults(shown)).toEqual([])
    expect(knowledgeFaults(edited(shown, { do: 'point', ...at, isOn: false }))).toHaveLength(1)
  })
  it('a look of its own has its answers, and the last stays the one where all is well', () => {
    const with1 = edited(SHIPPED, { do: 'newCheck', says: 'Look under the bench' })
    const [made] = with1.checks.filter((c) => !SHIPPED.checks.includes(c))
    const check = made?.key ?? ''
    const more = edited(with1, { do: 'newAnswer', check, says: 'A wheel stands on it' })
    const outcomes = more.checks.find((c) => c.key === check)?.outcomes ?? []
    expect(outcomes.map((o) => o.says)).toEqual(['Something is off', 'A wheel stands on it', 'All well there'])
    const pointed = edited(more, {
      do: 'point',
      check,
      outcome: outcomes[1]?.key ?? '',
      cause: 'cableCoiled',
      isOn: true,
    })
    expect(knowledgeFaults(pointed)).toEqual([])
    const words = edited(pointed, { do: 'check', check, change: { how: 'On your knees', minutes: 2 } })
    expect(words.checks.find((c) => c.key === check)).toMatchObject({ how: 'On your knees', minutes: 2 })
    const renamed = edited(words, { do: 'answer', check, outcome: 'well', says: 'Nothing there' })
    expect(renamed.checks.find((c) => c.key === check)?.outcomes.at(-1)?.says).toBe('Nothing there')
    const fewer = edited(renamed, { do: 'noAnswer', check, outcome: outcomes[0]?.key ?? '' })
    expect(fewer.checks.find((c) => c.key === check)?.outcomes).toHaveLength(2)
    expect(edited(fewer, { do: 'noCheck', check }).checks).toEqual(SHIPPED.checks)
  })
})
