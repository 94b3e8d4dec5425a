import { describe, expect, it } from 'vitest'
import { type Knowledge } from './knowledge.ts'
import { RELIED_ON, reliedFaults } from './relied.ts'
import { SHIPPED } from './shipped/knowledge.ts'

const without = (check: string, outcome?: string): Knowledge => ({
  ...SHIPPED,
  checks: SHIPPED.checks.flatMap((c) => {
    if (c.key !== check) return [c]
    return outcome ? [{ ...c, outcomes: c.outcomes.filter((o) => o.key !== outcome) }] : []
  }),
})
const told = (after: Knowledge, before: Knowledge = SHIPPED) =>
  reliedFaults(before, after).map((f) => `${f.where}: ${f.says}`)

describe('what the program goes by in a shop’s own knowledge', () => {
  it('stands in what is shipped', () => {
    for (const [check, answers] of Object.entries(RELIED_ON.answers)) {
      const keys = SHIPPED.checks.find((c) => c.key === check)?.outcomes.map((o) => o.key)
      for (const answer of answers) expect(keys, check).toContain(answer)
    }
    for (const key of RELIED_ON.symptoms) expect(SHIPPED.symptoms.map((s) => s.key)).toContain(key)
    for (const key of RELIED_ON.causes) expect(SHIPPED.causes.map((c) => c.key)).toContain(key)
  })
  it.each(Object.entries(RELIED_ON.answers))('cannot lose the look %s or its answers in silence', (check, answers) => {
    const words = SHIPPED.checks.find((c) => c.key === check)?.do ?? ''
    expect(told(without(check))).toEqual([expect.stringContaining(words)])
    for (const answer of answers) expect(told(without(check, answer)).join()).toContain('it stays')
  })
  it('nor a symptom or a cause', () => {
    expect(told({ ...SHIPPED, symptoms: SHIPPED.symptoms.filter((s) => s.key !== 'porosity') })).toHaveLength(1)
    expect(told({ ...SHIPPED, causes: SHIPPED.causes.filter((c) => c.key !== 'linerKinked') })).toHaveLength(1)
  })
  it('words, order and minutes are the shop’s; what was gone before is not asked for again', () => {
    const reworded = { ...SHIPPED, checks: SHIPPED.checks.map((c) => ({ ...c, do: `${c.do}!`, minutes: 3 })).reverse() }
    expect(told(reworded)).toEqual([])
    expect(told(without('block'), without('block'))).toEqual([])
  })
})
