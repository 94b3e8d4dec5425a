import { anId } from '@core/testing/ids.ts'
import { afterEach, describe, expect, it } from 'vitest'
import { shopAnswer, stage, unstage } from '@web/testing/stage.tsx'
import { type ChoiceLine } from '@contract/houserule.ts'
import { Schools } from './Schools.tsx'
import { NO_NAMES, scopesOf, scopeWord, whose } from './rulewords.ts'

afterEach(unstage)
const choice = (over: Partial<ChoiceLine> = {}): ChoiceLine => ({
  code: 'D10',
  scopeType: 'site',
  scopeKey: '*',
  option: 'on',
  terms: null,
  note: null,
  chosenBy: 'Oda',
  chosenMs: Date.UTC(2026, 10, 20, 9),
  ...over,
})

describe('house rules on the screen', () => {
  it('each question that is here, with what holds and whose it is; what waits is not asked', async () => {
    const { findByText, getByText, container } = stage(<Schools shop={shopAnswer()} isLead />, {
      '/houserule': { zone: 'UTC', choices: [choice()] },
    })
    await findByText('Is the tip on while wire is fed through?')
    expect(container.querySelectorAll('.question')).toHaveLength(28)
    expect(getByText('Chosen everywhere, Oda, 20 Nov.', { exact: false })).toBeTruthy()
  })
  it('what is told and no rule has no key, not for a lead either', async () => {
    const { user, findByText, getByText, queryByText, getByLabelText } = stage(<Schools shop={shopAnswer()} isLead />, {
      '/houserule': { zone: 'UTC', choices: [] },
    })
    await user.type(await findByText('find').then(() => getByLabelText('find')), 'leave the spool')
    await user.click(await findByText('Which way does wire leave the spool?'))
    expect(getByText('It stands with each feeder type', { exact: false })).toBeTruthy()
    expect(queryByText('Make it the rule')).toBeNull()
  })
  it('a lead makes another way the rule, for a family or everywhere', async () => {
    const shop = shopAnswer({ families: [{ id: anId('family', 'fam_1'), name: 'Kite', fit: null }] })
    const { user, findByText, getByLabelText, sent, container } = stage(<Schools shop={shop} isLead />, {
      '/houserule': { zone: 'UTC', choices: [] },
    })
    await user.type(await findByText('find').then(() => getByLabelText('find')), 'tip on while')
    await user.click(await findByText('Is the tip on while wire is fed through?'))
    await user.selectOptions(getByLabelText('here we do'), 'on')
    await user.selectOptions(getByLabelText('where'), 'for family Kite')
    await user.click(container.querySelector('.question .btn-chalk') as HTMLElement)
    expect(sent.map((s) => [s.path, s.body])).toMatchObject([
      ['/houserule', { code: 'D10', scopeType: 'family', scopeKey: 'fam_1', option: 'on' }],
    ])
  })
  it('the liner’s rule by signs is chosen with each clause a switch', async () => {
    const { user, findByText, getByLabelText, sent, container } = stage(<Schools shop={shopAnswer()} isLead />, {
      '/houserule': { zone: 'UTC', choices: [] },
    })
    await user.type(await findByText('find').then(() => getByLabelText('find')), 'liner changed')
    await user.click(await findByText('When is the liner changed?'))
    expect((container.querySelector('.question .btn-chalk') as HTMLButtonElement).disabled).toBe(false)
    await user.click(getByLabelText('Tension that creeps up'))
    await user.selectOptions(getByLabelText('a pull this much above its beginning'), '1.7')
    await user.click(container.querySelector('.question .btn-chalk') as HTMLElement)
    expect(sent[0]?.body).toMatchObject({
      ...{ code: 'D06', option: 'signs' },
      terms: { on: ['kink', 'pull', 'tips', 'straighten', 'length'], pullRatio: 1.7, tips: 2 },
    })
    await user.selectOptions(getByLabelText('here we do'), 'last')
    expect(container.querySelector('.liner-terms')).toBeNull()
  })
  it('others look, and are offered nothing to change', async () => {
    const { findByText, queryByText } = stage(<Schools shop={shopAnswer()} isLead={false} />, {
      '/houserule': { zone: 'UTC', choices: [] },
    })
    await findByText('What becomes of the wire in the cable?')
    expect(queryByText('Make it the rule')).toBeNull()
  })
})

describe('whose rule it is', () => {
  it('nobody’s until chosen; then where, by whom, when and why', () => {
    expect(whose(null, NO_NAMES, 'UTC')).toContain('nobody here has chosen')
    expect(whose(choice({ chosenBy: null, note: 'it seats the liner' }), NO_NAMES, 'UTC')).toBe(
      'chosen everywhere, 20 Nov: it seats the liner',
    )
  })
  it.each([
    ['feeder', '4', 'on 4-roll feeders'],
    ['mode', 'spray', 'in spray'],
    ['family', 'fam_9', 'for family no longer there'],
    ['class', 'cell', 'for cell'],
  ] as const)('%s %s is %s', (type, key, word) => expect(scopeWord(type, key, NO_NAMES)).toBe(word))
  it('a gun offers the scopes it has', () =>
    expect(scopesOf({ family: 'fam_1', feeder: null, mode: 'spray', class: 'booth' }).map((s) => s.type)).toEqual([
      'site',
      'class',
      'mode',
      'family',
    ]))
})
