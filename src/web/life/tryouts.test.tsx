import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { shopAnswer, stage, taken, unstage, saidOf as said } from '@web/testing/stage.tsx'
import { life } from '@web/testing/lifesamples.ts'
import { Tryouts } from './Tryouts.tsx'

afterEach(unstage)
const [one] = shopAnswer().parts
if (!one) throw new Error('the sample shop has a part')
const two = { ...one, id: anId('part', 'part_2'), code: 'T-10S', name: 'tip 1.0 silver' }
const shop = shopAnswer({ parts: [one, two] })
const running: LifeAnswer['tryouts'][number] = {
  ...{ id: anId('tryout', 'try_1'), question: 'plain or silver?', nameA: 'plain', nameB: 'silver' },
  ...{ placesA: ['A1'], placesB: ['A2'], ratio: 1.5, needed: 48, fromMs: 0, toMs: null, daysLeft: 20 },
  ...{ unproven: [], now: { answer: 'notYet', ratio: 1.3, low: 0.9, high: 1.9, ends: 20 } },
}

describe('a try-out', () => {
  it('is not begun while the two sides are the same, or one is not told', async () => {
    const view = stage(<Tryouts at={life({ where: 'all', tryouts: [] })} />, { '/shop': shop })
    const begin = await view.findByText('Deal out 2 places by lot', {}, { timeout: 10_000 })
    expect(begin).toHaveProperty('disabled', true)
    await view.user.selectOptions(view.getByLabelText('This'), 'T-10 tip 1.0')
    await view.user.selectOptions(view.getByLabelText('or that'), 'T-10 tip 1.0')
    expect(begin).toHaveProperty('disabled', true)
    await view.user.selectOptions(view.getByLabelText('or that'), 'something done, not a part')
    expect(begin).toHaveProperty('disabled', true)
    await view.user.type(view.getByLabelText('What is done'), 'dip at each break')
    expect(begin).toHaveProperty('disabled', false)
    await view.user.selectOptions(view.getByLabelText('It would matter if one lasts'), '2 times as long')
    await view.user.click(begin)
    expect(said(view.sent)).toEqual([
      [
        '/life/tryout',
        {
          ...{
            kindKey: 'tip',
            question: 'tip 1.0 or dip at each break?',
            nameA: 'tip 1.0',
            nameB: 'dip at each break',
          },
          ...{ partAId: 'part_1', partBId: null, stationIds: ['stn_00a1', 'stn_00a2'], ratio: 2 },
        },
      ],
    ])
  })
  it('deals out only the places that are looked at', async () => {
    const view = stage(<Tryouts at={life({ where: 'area:area_9', tryouts: [] })} />, { '/shop': shop })
    await view.findByRole('button', { name: 'Deal out 0 places by lot', hidden: true })
  })
  it('that runs is ended with a tap; refused, it says why', async () => {
    const view = stage(<Tryouts at={life({ tryouts: [running] })} />, { '/shop': shop, '/life/tryout/end': taken })
    await view.user.click(view.getByRole('button', { name: 'End it' }))
    await view.findByText('There is one with that name already.')
    expect(said(view.sent)).toEqual([['/life/tryout/end', { id: 'try_1', fits: false }]])
  })
  it('of parts whose fit was only said is ended with what came of that', async () => {
    const view = stage(<Tryouts at={life({ tryouts: [{ ...running, unproven: ['silver'] }] })} />, { '/shop': shop })
    view.getByRole('button', { name: 'End it: not shown to fit' })
    await view.user.click(view.getByRole('button', { name: 'End it: silver fits, confirmed here' }))
    expect(said(view.sent)[0]?.[1]).toEqual({ id: 'try_1', fits: true })
  })
  it('that ended says when, and has no key', () => {
    const view = stage(<Tryouts at={life({ tryouts: [{ ...running, toMs: 86_400_000 }] })} />, { '/shop': shop })
    view.getByText(/, ended/)
    expect(view.queryByRole('button', { name: 'End it' })).toBeNull()
  })
})
