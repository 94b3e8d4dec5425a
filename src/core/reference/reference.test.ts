import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { judgeCase, type ReferenceCase } from './case.ts'
import { solverFor } from './solvers.ts'

const FILES = [
  '../life/reference/kaplan-meier.json',
  '../life/reference/weibull-mle.json',
  '../life/reference/logrank.json',
  '../life/reference/aft-weibull.json',
  '../life/reference/age-replacement.json',
  '../spools/reference/spool-and-wire.json',
  '../spools/reference/spool-assignment.json',
  '../stock/reference/reorder.json',
  '../cell/reference/spare-necks.json',
  '../liner/reference/feed-details.json',
  '../drag/reference/feed-details.json',
  '../drag/reference/feed-force.json',
  '../drag/reference/feed-window.json',
  '../trend/reference/trend.json',
  '../diagnose/reference/diagnosis-order.json',
]

describe.each(FILES)('%s', (file) => {
  const { set, cases } = JSON.parse(readFileSync(new URL(file, import.meta.url), 'utf8')) as {
    set: string
    cases: ReferenceCase[]
  }
  it.each(cases)('$id agrees', (one) => {
    const solve = solverFor(set, one.kind)
    expect(solve && judgeCase(one, solve)).toMatchObject({ verdict: 'ok' })
  })
})

describe('judging a case', () => {
  const one = { id: 'x', inputs: {}, expected: { a: 1, ok: true }, tolerance: { a: { rel: 1e-6 } } }
  it('accepts what is within tolerance and tells the largest error', () =>
    expect(judgeCase(one, () => ({ a: 1 + 5e-7, ok: true }))).toMatchObject({ verdict: 'ok', where: 'a' }))
  it('refuses a list with more in it than expected', () => {
    const lists = { ...one, expected: { a: [1] }, tolerance: { a: 'exact' } }
    expect(judgeCase(lists, () => ({ a: [1, 2] })).verdict).toBe('off')
    expect(judgeCase(lists, () => ({ a: [1] })).verdict).toBe('ok')
  })
  it('takes words at their word, and a case that expects an error as met by a refusal and by nothing else', () => {
    const word = { id: 'w', inputs: {}, expected: { mode: 'euler' } }
    expect(judgeCase(word, () => ({ mode: 'johnson' })).verdict).toBe('off')
    expect(judgeCase(word, () => ({})).verdict).toBe('ok')
    const error = { id: 'e', inputs: {}, expected: { error: 'misuse' } }
    const misuse = () => {
      throw new RangeError('expected more')
    }
    expect(judgeCase(error, misuse).verdict).toBe('ok')
    expect(judgeCase(error, () => ({ reason: 'no failures' })).verdict).toBe('ok')
    expect(judgeCase(error, () => ({ a: 1 })).verdict).toBe('off')
    expect(() => judgeCase(error, () => JSON.parse('{') as never)).toThrow(SyntaxError)
  })
  it('leaves one example of many to what stands beside it', () => {
    const any = { ...one, expected: { a: 1, list: [0, 1] }, tolerance: { a: 'exact', list: 'any that attains a' } }
    expect(judgeCase(any, () => ({ a: 1, list: [1, 0] })).verdict).toBe('ok')
    expect(judgeCase(any, () => ({ a: 2, list: [0, 1] })).verdict).toBe('off')
  })
  it('refuses what is not, what is missing, and what is NaN', () => {
    for (const a of [1.1, null, NaN]) expect(judgeCase(one, () => ({ a, ok: true })).verdict).toBe('off')
    expect(judgeCase(one, () => ({ a: 1, ok: false })).verdict).toBe('off')
  })
})
