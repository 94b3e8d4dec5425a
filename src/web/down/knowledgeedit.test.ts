import { describe, expect, it } from 'vitest'
import { knowledgeFaults } from '@core/diagnose/knowledge.ts'
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
})
