import { afterEach, describe, expect, it } from 'vitest'
import { stage, unstage } from '@web/testing/stage.tsx'
import { life } from '@web/testing/lifesamples.ts'
import { USUAL_TERMS } from '@core/liner/clauses.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { LinerSigns } from './LinerSigns.tsx'
import { clauseSeenWords, recordWords, signsSeenWords } from './lifewords.ts'

afterEach(unstage)

describe('the liner by signs on Part life', () => {
  const linerSigns = (over: Partial<NonNullable<LifeAnswer['liner']>> = {}): NonNullable<LifeAnswer['liner']> => {
    const clause = { of: 0, ahead: 0, fine: 0 }
    const byClause = { kink: clause, tips: clause, straighten: clause, tension: clause, length: clause }
    const pull = { of: 9, ahead: 6, fine: 1 }
    const record = { worn: 9, ahead: 6, unlooked: 20, leftShare: 0.2, fine: 1, byClause: { ...byClause, pull } }
    return { school: 'signs', terms: USUAL_TERMS, record, isGuess: false, ...over }
  }
  it('what signs would have seen, as a whole and by each clause; where nothing was looked at it says so', () => {
    const words = recordWords(linerSigns())
    for (const part of [
      'Of 9 worn liners that were looked at, 6 had',
      '2 tenths of its life left',
      'At 20 more',
      '1 with a sign was found without fault',
    ])
      expect(words).toContain(part)
    expect(clauseSeenWords(linerSigns(), 'pull')).toBe(
      'Here it spoke in time of 6 of the 9 worn ones it could have; 1 found without fault.',
    )
    expect(clauseSeenWords(linerSigns(), 'kink')).toContain('could not have spoken')
    expect(recordWords(linerSigns({ record: null }))).toContain('a guess')
    expect(signsSeenWords(linerSigns())).toBe('of 9 worn ones looked at, 6 showed one in time')
    expect(signsSeenWords(null)).toContain('guess')
  })
  it('switching a clause asks what the others would have seen, and makes the rule of them', async () => {
    const other = { signs: linerSigns({ terms: { ...USUAL_TERMS, on: ['pull'] } }), line: null }
    const at = life({ kind: 'liner', classKey: 'booth', liner: linerSigns() })
    const asked: string[] = []
    const { user, getByLabelText, findByText, sent } = stage(<LinerSigns at={at} units="metric" />, {
      '/life/signs?where=class%3Atraining&on=pull%2Ctips%2Cstraighten%2Ctension%2Clength&pullRatio=1.5&tips=2': () => {
        asked.push('signs')
        return other
      },
      '/life/preview': { opens: ['A4'], closes: [], due: 1, places: 9 },
    })
    await user.click(getByLabelText('A kink'))
    await user.click(await findByText('Make it the rule …'))
    await findByText(/On Floor A4 would open/)
    expect(asked).toEqual(['signs'])
    await user.click(await findByText('Make it the rule'))
    expect(sent[0]).toMatchObject({
      path: '/life/rule',
      body: { kindKey: 'liner', classKey: 'booth', school: 'signs', terms: { on: USUAL_TERMS.on.slice(1) } },
    })
  })
})
