import { anId } from '@core/testing/ids.ts'
import { within } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { shopAnswer, stage, unstage } from '@web/testing/stage.tsx'
import { type SupplyAnswer } from '@contract/parts.ts'
import { Supply } from './Supply.tsx'

afterEach(unstage)
const NOW = Date.UTC(2026, 10, 23, 9)
const supply = (over: Partial<SupplyAnswer> = {}): SupplyAnswer => ({
  nowMs: NOW,
  zone: 'UTC',
  lossShare: 0.05,
  shares: [],
  bought: [],
  tins: [],
  ...over,
})
const share = {
  areaId: anId('area', 'area_1'),
  kindKey: 'tip' as const,
  kindName: 'contact tip',
  source: 'tin' as const,
  fromMs: NOW - 14 * 86_400_000,
  toMs: NOW,
  taken: 105,
  sdTaken: 2,
  logged: 57,
  share: 0.57,
  low: 0.48,
  high: 0.66,
  isOver: false,
  reason: null,
}
const parts = [
  {
    id: anId('part', 'part_1'),
    code: 'T-10',
    name: 'tip',
    kindKey: 'tip' as const,
    familyId: null,
    wireSizeMm: null,
    priceMinor: null,
    onHand: 40,
    lies: [],
    fit: null,
  },
  {
    id: anId('part', 'part_2'),
    code: 'N-1',
    name: 'nozzle',
    kindKey: 'nozzle' as const,
    familyId: null,
    wireSizeMm: null,
    priceMinor: null,
    onHand: null,
    lies: [],
    fit: null,
  },
]
const shop = shopAnswer({ parts })
const show = (answer: SupplyAnswer, isLead = true) =>
  stage(<Supply shop={shop} isLead={isLead} />, { '/parts/supply': answer })

describe('counts and purchases', () => {
  it('tells what purchases tell, and the share that was logged with its band', async () => {
    const bought = {
      kindKey: 'tip' as const,
      kindName: 'contact tip',
      pieces: 3100,
      kg: 9400,
      months: 12,
      kgEach: 3.03,
      lowKg: 2.84,
      highKg: 3.23,
    }
    const { findByText, getByRole } = show(supply({ shares: [share], bought: [bought] }))
    await findByText(/One contact tip per 3.0 kg of wire/)
    const row = getByRole('row', { name: /contact tip Bay A old-part tin/ })
    expect(row.textContent).toContain('105 ± 3')
    expect(row.textContent).toContain('About 6 in 10 (5–7)')
  })
  it('says what to do where nothing tells yet, and why a share can’t be told', async () => {
    const none = show(supply())
    await none.findByText(/Weigh the tin of old tips two Fridays running/)
    unstage()
    const few = show(supply({ shares: [{ ...share, share: null, low: null, high: null, reason: 'only 3 taken' }] }))
    await few.findByText('can’t tell yet: only 3 taken')
  })
  it('where parts lie in two places each round is of one, and shows what lies there', async () => {
    const [first] = parts
    const storeId = anId('store', 'store_1')
    const lies = [
      { storeId: null, onHand: 30 },
      { storeId, onHand: 4 },
    ]
    const two = shopAnswer({
      parts: first ? [{ ...first, onHand: 34, lies }] : [],
      stores: [{ id: storeId, name: 'Cell drawer' }],
    })
    const { user, findByLabelText, getByRole, sent } = stage(<Supply shop={two} isLead />, {
      '/parts/supply': supply(),
    })
    const field = await findByLabelText(/how many are there$/)
    expect(field).toHaveProperty('placeholder', '30?')
    const round = within(getByRole('region', { name: 'Count the shelf' }))
    await user.selectOptions(round.getByLabelText('where'), 'Cell drawer')
    expect(field).toHaveProperty('placeholder', '4?')
    await user.type(field, '5')
    await user.click(round.getByRole('button', { name: 'Counted 1' }))
    const came = within(getByRole('region', { name: 'A delivery' }))
    await user.selectOptions(came.getByLabelText('part'), String(first?.id))
    await user.type(came.getByLabelText('how many'), '20')
    await user.selectOptions(came.getByLabelText('where'), 'Cell drawer')
    await user.click(came.getByRole('button', { name: 'On the shelf' }))
    expect(sent.map((s) => [s.path, s.body])).toEqual([
      ['/parts/count', expect.objectContaining({ counts: [{ partId: first?.id, quantity: 5 }], storeId })],
      ['/parts/received', expect.objectContaining({ partId: first?.id, quantity: 20, storeId })],
    ])
  })
  it('is the lead’s', () => expect(show(supply(), false).container.querySelector('.supply')).toBeNull())
  it('the tin: fifty are counted once, after that only the scale is read', async () => {
    const { user, findByLabelText, findByText, getByLabelText, getByRole, sent } = show(supply())
    await user.type(await findByLabelText('on the scale (g)'), '640')
    await user.click(getByRole('button', { name: 'Weighed' }))
    await findByText('Weigh them together once: it tells what one weighs.')
    expect(sent).toEqual([])
    await user.type(getByLabelText('they weigh (g)'), '670')
    await user.click(getByRole('button', { name: 'Weighed' }))
    expect(sent[0]).toMatchObject({
      path: '/parts/tin',
      body: {
        areaId: anId('area', 'area_1'),
        kindKey: 'tip' as const,
        grams: 640,
        pieces: 50,
        gramsOfPieces: 670,
        isEmptied: true,
      },
    })
    unstage()
    const tins = [
      {
        areaId: anId('area', 'area_1'),
        kindKey: 'tip' as const,
        day: '2026-11-20',
        grams: 600,
        gramsEach: 13.4,
        pieces: 50,
        isEmptied: true,
      },
    ]
    const again = show(supply({ tins }))
    await again.findByText('Last on 2026-11-20: 600 g, emptied.')
    await again.user.type(again.getByLabelText('on the scale (g)'), '512')
    await again.user.click(again.getByRole('button', { name: 'Weighed' }))
    expect(again.sent[0]?.body['gramsOfPieces']).toBeCloseTo(670, 9)
  })
  it('the shelf: only what was counted is sent, and Enter goes on', async () => {
    const { user, findByLabelText, findByText, getByLabelText, getByRole, sent } = show(supply())
    await user.type(await findByLabelText('T-10: how many are there'), '38{Enter}')
    expect(document.activeElement).toBe(getByLabelText('N-1: how many are there'))
    await user.keyboard('a few')
    await user.click(getByRole('button', { name: 'Counted 2' }))
    await findByText(/"a few" can’t be read/)
    expect(sent).toEqual([])
    await user.clear(getByLabelText('N-1: how many are there'))
    await user.click(getByRole('button', { name: 'Counted 1' }))
    expect(sent).toMatchObject([
      { path: '/parts/count', body: { counts: [{ partId: anId('part', 'part_1'), quantity: 38 }] } },
    ])
  })
  it('a delivery needs a part and a number', async () => {
    const { user, findByLabelText, getByLabelText, getByRole, sent } = show(supply())
    await user.selectOptions(await findByLabelText('part'), 'part_2')
    await user.type(getByLabelText('how many'), '20')
    await user.click(getByRole('button', { name: 'On the shelf' }))
    expect(sent).toMatchObject([{ path: '/parts/received', body: { partId: anId('part', 'part_2'), quantity: 20 } }])
  })
})
