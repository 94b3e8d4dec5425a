import { ME, shopAnswer, stage, type Sent } from '@web/testing/stage.tsx'
import { afterEach, describe, expect, it } from 'vitest'
import { cleanup } from '@testing-library/react'
import { NOTHING_BUILT } from '@core/shop/built.ts'
import { anId } from '@core/testing/ids.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { BayPage } from './BayPage.tsx'
import { Helps } from './Helps.tsx'

afterEach(cleanup)
/** What was sent, without its key. */
const said = (sent: readonly Sent[]) =>
  sent.map(({ path, body: { key: _, ...body } }): [string, Record<string, unknown>] => [path, body])
const AREA = anId('area', 'area_1')
const bare = (over: Partial<ShopAnswer> = {}) =>
  shopAnswer({
    areas: [{ id: AREA, name: 'Bay A', built: NOTHING_BUILT }],
    ...{ wires: [], parts: [], families: [] },
    ...over,
  })
const at = (shop: ShopAnswer, path = '/bay') => stage(<BayPage />, { '/shop': shop }, path)

describe('seven questions', () => {
  it('open one after the other; what nobody knows is left, and nothing is sent before the last key', async () => {
    const { user, findByRole, getByRole, sent } = at(bare())
    await user.click(await findByRole('button', { name: /^solid steel/ }))
    await user.click(getByRole('button', { name: '0.9' }))
    await user.type(await findByRole('textbox', { name: 'its name here' }), 'the grey one')
    await user.click(getByRole('button', { name: 'That is it' }))
    await user.click(await findByRole('button', { name: /^screwed on/ }))
    await user.click(await findByRole('button', { name: 'don’t know' }))
    await user.click(await findByRole('button', { name: /^pulse/ }))
    await user.click(await findByRole('button', { name: /^90\/10/ }))
    await user.type(await findByRole('textbox', { name: /or another length/ }), '11 ft')
    await user.click(getByRole('button', { name: 'That is it' }))
    expect(sent).toEqual([])
    expect(getByRole('region', { name: 'What this makes' }).textContent).toContain('contact tip 0.9')
    await user.click(getByRole('button', { name: 'That is Bay A' }))
    const [[path, body] = ['', {}]] = said(sent)
    expect(path).toBe('/shop/bay')
    expect(body).toMatchObject({
      areaId: AREA,
      answers: {
        ...{ wire: { kind: 'steel', sizeMm: 0.9 }, gunName: 'the grey one', nozzle: 'threaded', feeder: null },
        ...{ mode: 'pulse', gas: 'mix90', cableM: expect.closeTo(3.353, 2) as number },
      },
    })
  })
  it('a length that can’t be read is said, and the question stays open', async () => {
    const { user, findByRole, findByText, getByRole } = at(bare())
    await user.click(await findByRole('button', { name: /How long is the gun’s cable/ }))
    await user.type(await findByRole('textbox', { name: /or another length/ }), 'long')
    await user.click(getByRole('button', { name: 'That is it' }))
    expect(await findByText(/can’t be read|is no length|not a length|“long”/)).toBeTruthy()
    expect(getByRole('textbox', { name: /or another length/ })).toBeTruthy()
  })
  it('a gas that does not go with the wire stands last and says why; taken all the same, the doubt is told', async () => {
    const { user, findByRole, getByRole, getByText } = at(bare())
    await user.click(await findByRole('button', { name: /^aluminium 4xxx/ }))
    await user.click(getByRole('button', { name: '1.2' }))
    await user.click(getByRole('button', { name: /What gas/ }))
    const co2 = await findByRole('button', { name: /^CO2/ })
    expect(co2.textContent).toContain('not for aluminium 4xxx')
    await user.click(co2)
    expect(getByText('CO2: not for aluminium 4xxx.')).toBeTruthy()
  })
  it('a second bay is as the first, except what is tapped', async () => {
    const built = { ...NOTHING_BUILT, wireId: anId('wire', 'wire_1'), rollCount: 4 as const, gas: 'CO2' as const }
    const shop = shopAnswer({
      areas: [
        { id: AREA, name: 'Bay A', built },
        { id: anId('area', 'area_2'), name: 'Bay B', built: NOTHING_BUILT },
      ],
      stations: shopAnswer().stations.map((s, i) => ({ ...s, areaId: i === 0 ? AREA : anId('area', 'area_2') })),
    })
    const { user, findByRole, getByRole } = at(shop, '/bay?area=area_2')
    await user.click(await findByRole('button', { name: 'As Bay A, except …' }))
    expect(getByRole('button', { name: /What wire/ }).textContent).toContain('solid steel 1.0')
    expect(getByRole('button', { name: /What gas/ }).textContent).toContain('CO2')
    expect(getByRole('button', { name: /How is the wire driven/ }).textContent).toContain('four rolls')
  })
  it('are to look at for who is no lead, and lead to Floor where there are no guns', async () => {
    const hand = stage(<BayPage />, {
      '/shop': bare(),
      '/people/me': { ...ME, person: null },
    })
    expect(await hand.findByText(/A lead signs in/)).toBeTruthy()
    cleanup()
    expect(await at(bare({ stations: [] })).findByRole('link', { name: /numbers painted/ })).toBeTruthy()
  })
})

describe('the trade’s limits', () => {
  it('are taken one by one or all at once, those that are set are left', async () => {
    const rules = [
      {
        kindKey: 'tip' as const,
        classKey: '*',
        changeLimit: 6,
        cleanLimit: null,
        lookDays: null,
        chosenBy: null,
        chosenMs: 0,
        isTrade: false,
      },
    ]
    const { user, findByRole, sent } = at(bare({ rules }), '/bay?step=limits')
    await user.click(await findByRole('button', { name: 'Take it: liner' }))
    await user.click(await findByRole('button', { name: 'Take all 2' }))
    expect(said(sent)).toEqual([
      ['/shop/limits', { classKey: '*', limits: [{ kindKey: 'liner', changeLimit: 250, lookDays: 30 }] }],
      [
        '/shop/limits',
        {
          classKey: '*',
          limits: [
            { kindKey: 'nozzle', changeLimit: 60, lookDays: 7 },
            { kindKey: 'liner', changeLimit: 250, lookDays: 30 },
          ],
        },
      ],
    ])
  })
})

describe('about how long the arc is on', () => {
  it('is one tap, or hours as people say them; more than a day has is refused', async () => {
    const { user, findByRole, findByText, sent } = at(bare(), '/bay?step=hours')
    const field = await findByRole('textbox', { name: 'or so many hours' })
    await user.type(field, '30')
    await user.click(await findByRole('button', { name: 'That is it' }))
    expect(sent).toEqual([])
    expect(await findByText(/24/)).toBeTruthy()
    await user.clear(field)
    await user.type(field, '90 min')
    await user.click(await findByRole('button', { name: 'That is it' }))
    expect(said(sent)).toEqual([['/clock/standing', { areaId: AREA, arcHours: 1.5 }]])
    expect(await findByRole('link', { name: 'To Floor' })).toBeTruthy()
  })
})

describe('what else would help', () => {
  const helps = {
    '/shop/helps': {
      helps: [
        { key: 'bay', areaId: AREA },
        { key: 'cards', areaId: null },
      ],
    },
  }
  it('leads to the very thing, and is put away for good by the lead', async () => {
    const { user, findByRole, sent } = stage(<Helps isLead />, helps)
    expect((await findByRole('link', { name: /Seven questions/ })).getAttribute('href')).toBe('/bay?area=area_1')
    await user.click(await findByRole('button', { name: 'they hang' }))
    await user.click(await findByRole('button', { name: /don’t show/ }))
    expect(said(sent)).toEqual([
      ['/shop/helps-closed', { what: 'cards' }],
      ['/shop/helps-closed', { what: 'all' }],
    ])
  })
  it('is not asked of hands', () => {
    const { container } = stage(<Helps isLead={false} />, helps)
    expect(container.querySelector('.helps')).toBeNull()
  })
})
