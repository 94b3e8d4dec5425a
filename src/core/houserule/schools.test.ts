import { describe, expect, it } from 'vitest'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { QUESTIONS, questionsAt, rulingFor, type Choice, type QuestionCode } from './schools.ts'

const choice = (over: Partial<Choice>): Choice => ({
  code: 'D10',
  scopeType: 'site',
  scopeKey: '*',
  option: 'on',
  ...over,
})

describe('where practitioners differ', () => {
  it('thirty-two questions or more, by their codes one after another, each once', () => {
    expect(QUESTIONS.length).toBeGreaterThanOrEqual(32)
    expect(QUESTIONS.map((q) => q.code)).toEqual(Array.from(QUESTIONS, (_, i) => `D${String(i + 1).padStart(2, '0')}`))
  })
  it.each(QUESTIONS.map((q) => [q.code, q] as const))(
    '%s has two schools or more, reasons, and a usual one among them',
    (_, q) => {
      const keys = q.schools.map((s) => s.key)
      expect(keys.length).toBeGreaterThanOrEqual(2)
      expect(new Set(keys).size).toBe(keys.length)
      expect(keys).toContain(q.usual)
      for (const text of [q.ask, q.why, ...q.schools.flatMap((s) => [s.name, s.reason])])
        expect(text.length).toBeGreaterThan(1)
      expect(q.ask.endsWith('?')).toBe(true)
    },
  )
  it('bear on parts that there are', () => {
    const kinds = new Set(KIND_DEFAULTS.map((k) => k.key))
    for (const q of QUESTIONS) for (const at of q.at) expect(kinds).toContain(at)
  })
  it('every part but the bare ones has at least one a tap away', () => {
    for (const kind of ['hub', 'inlet', 'rolls', 'liner', 'diffuser', 'tip', 'nozzle'] as const)
      expect(questionsAt(kind).length).toBeGreaterThan(0)
  })
})

describe('the rule that holds for a gun', () => {
  const gun = { family: 'fam_1', feeder: '4', mode: 'spray', class: 'cell' }
  it('is the usual one until somebody chooses', () =>
    expect(rulingFor('D10', gun, [])).toMatchObject({ school: { key: 'off' }, choice: null }))
  it('is the site’s for everybody', () =>
    expect(rulingFor('D10', {}, [choice({})])).toMatchObject({ school: { key: 'on' }, choice: { scopeType: 'site' } }))
  it('the narrowest that fits wins: family over feeder over mode over class over site', () => {
    const all = [
      choice({ option: 'on' }),
      choice({ scopeType: 'class', scopeKey: 'cell', option: 'off' }),
      choice({ scopeType: 'mode', scopeKey: 'spray', option: 'on' }),
      choice({ scopeType: 'feeder', scopeKey: '4', option: 'off' }),
      choice({ scopeType: 'family', scopeKey: 'fam_1', option: 'on' }),
    ]
    for (let n = all.length; n > 0; n--) {
      const some = all.slice(0, n)
      expect(rulingFor('D10', gun, [...some].reverse()).choice).toEqual(some.at(-1))
    }
  })
  it('another gun’s choice is not its own', () =>
    expect(rulingFor('D10', gun, [choice({ scopeType: 'family', scopeKey: 'fam_2' })]).choice).toBeNull())
  it('a choice of a school that is no more is passed over', () =>
    expect(rulingFor('D10', gun, [choice({ option: 'gone' })]).school.key).toBe('off'))
  it('an unknown code is misuse', () => expect(() => rulingFor('D99' as QuestionCode, gun, [])).toThrow(RangeError))
})
