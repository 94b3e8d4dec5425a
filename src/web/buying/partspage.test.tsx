import { within } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { ME, saidOf, stage, unstage } from '@web/testing/stage.tsx'
import { NOW, sampleAdvice, samplePart, sampleStock } from '@web/testing/stocksamples.ts'
import { PartsPage } from './PartsPage.tsx'

afterEach(unstage)
const tip = samplePart({
  advice: sampleAdvice({ chanceShort: 0.9, orderInDays: 0, runsOut: { low: 1, middle: 3, high: 6 } }),
})
const liner = samplePart({
  ...{ partId: anId('part', 'part_2'), code: 'L-10', name: 'liner 1.0', kindKey: 'liner', kindName: 'liner' },
  ...{ column: 'liner', shelf: null },
})
const order = {
  ...{ id: anId('order', 'order_1'), supplierId: anId('supplier', 'supp_1'), supplierName: 'By post' },
  ...{ orderedMs: NOW - 20 * 86_400_000, dueMs: NOW - 86_400_000, isLate: true },
  lines: [
    { partId: tip.partId, code: 'T-10', name: 'tip 1.0', quantity: 100, received: 40, eachMinor: 64 },
    { partId: liner.partId, code: 'L-10', name: 'liner 1.0', quantity: 2, received: 2, eachMinor: 3100 },
  ],
}
const CUPBOARD = {
  ...{ id: anId('store', 'store_1'), name: 'Cell cupboard', fillDays: 7, areaIds: [] },
  fill: [{ partId: tip.partId, code: 'T-10', name: 'tip 1.0', onHand: 6, level: 12, mean: 8, carry: 5, main: 5 }],
}
const LIES = [
  { storeId: null, onHand: 44, countedMs: tip.countedMs ?? 0 },
  { storeId: CUPBOARD.id, onHand: 6, countedMs: NOW - 2 * 86_400_000 },
]
const NO_KITS = { nowMs: NOW, zone: 'UTC', lines: [], unknown: [], packed: [] }
const show = (stock = sampleStock([tip, liner], { orders: [order] }), path = '/parts', more = {}) =>
  stage(<PartsPage />, { '/parts': stock, '/parts/kit': NO_KITS, ...more }, path)

describe('parts', () => {
  it('hangs bins on the path, the short one first in words, each with what it lasts', async () => {
    const { findByRole, getByRole } = show()
    await findByRole('heading', { name: /One part runs out before an order of today could be here: T-10/ })
    getByRole('button', { name: 'T-10, tip 1.0: 50 here, 3 d, runs out before an order of today is in' })
    getByRole('button', { name: 'L-10, liner 1.0: 50 here, 22 d' })
  })
  it('any word for a part finds it', async () => {
    const { user, findByLabelText, queryByRole } = show()
    await user.type(await findByLabelText('Which part'), 'liner')
    expect(queryByRole('button', { name: /^T-10, tip/ })).toBeNull()
    expect(queryByRole('button', { name: /^L-10, liner/ })).not.toBeNull()
  })
  it('opened: counted, come in, lies elsewhere, handed out', async () => {
    const { user, findByRole, getByLabelText, getByRole, sent } = show(undefined, '/parts', {
      'POST /parts/issue': { partId: tip.partId, onHand: 49 },
    })
    await user.click(await findByRole('button', { name: /^T-10, tip/ }))
    await user.type(getByLabelText('how many'), '44')
    await user.click(getByRole('button', { name: 'Counted' }))
    await user.type(getByLabelText('how many'), '100')
    await user.click(getByRole('button', { name: 'Came in' }))
    await user.click(getByRole('button', { name: 'elsewhere' }))
    await user.clear(getByLabelText('lies in'))
    await user.type(getByLabelText('lies in'), 'drawer 3')
    await user.click(getByRole('button', { name: 'Keep' }))
    await user.type(getByLabelText(/one out, for the gun at/), 'a1')
    await user.click(getByRole('button', { name: 'Hand out' }))
    expect(saidOf(sent)).toEqual([
      ['/parts/count', { counts: [{ partId: tip.partId, quantity: 44 }] }],
      ['/parts/received', { partId: tip.partId, quantity: 100 }],
      ['/parts/shelf', { partId: tip.partId, shelf: 'drawer 3', shelfMost: null }],
      ['/parts/issue', { stationId: 'stn_00a1', partId: tip.partId, quantity: 1 }],
    ])
  })
  it('a count that is none, a delivery of none, a place there is not: said, and nothing sent', async () => {
    const { user, findByRole, getByLabelText, getByRole, findByText, sent } = show()
    await user.click(await findByRole('button', { name: /^T-10, tip/ }))
    await user.type(getByLabelText('how many'), 'ten')
    await user.click(getByRole('button', { name: 'Counted' }))
    await user.clear(getByLabelText('how many'))
    await user.type(getByLabelText('how many'), '0')
    await user.click(getByRole('button', { name: 'Came in' }))
    await findByText('A delivery of none puts nothing on the shelf.')
    await user.type(getByLabelText(/one out, for the gun at/), 'Q9')
    await findByText('There is no place called “Q9”.')
    expect(sent).toEqual([])
  })
  it('a label scanned opens its bin; counted, the next one is scanned into the field', async () => {
    const { user, findByRole, getByLabelText, sent } = show(undefined, '/parts?part=part_1&by=scan')
    await findByRole('heading', { name: /^T-10/ })
    expect(document.activeElement).toBe(getByLabelText('how many'))
    await user.keyboard('44{Enter}')
    await user.clear(getByLabelText('how many'))
    await user.keyboard('L-10{Enter}')
    await findByRole('heading', { name: /^L-10/ })
    await user.keyboard('7{Enter}')
    expect(saidOf(sent)).toEqual([
      ['/parts/count', { counts: [{ partId: tip.partId, quantity: 44 }] }],
      ['/parts/count', { counts: [{ partId: liner.partId, quantity: 7 }] }],
    ])
  })
  it('lies in two places: said, counted where one stands, carried to the other', async () => {
    const { user, findByRole, getByLabelText, getByRole, findByText, getByText, sent } = show(
      sampleStock([{ ...tip, lies: LIES }], { stores: [CUPBOARD] }),
    )
    await findByText(/carry 5 T-10 there\. T-10 \(12 wanted\) will not last 7 days: the main shelf has too few/)
    await user.click(await findByRole('button', { name: /^T-10, tip/ }))
    getByText('44 on the main shelf; 6 at Cell cupboard (counted 21 Nov).')
    await user.selectOptions(getByLabelText('where'), 'Cell cupboard')
    await user.type(getByLabelText('how many'), '7')
    await user.click(getByRole('button', { name: 'Counted' }))
    await user.click(getByRole('button', { name: 'carry some to another place' }))
    await user.click(getByRole('button', { name: 'Carried' }))
    await findByText('How many?')
    await user.type(getByLabelText('carry'), '4')
    await user.selectOptions(getByLabelText('to'), 'the main shelf')
    await user.click(getByRole('button', { name: 'Carried' }))
    await findByText('They lie there already.')
    await user.selectOptions(getByLabelText('from'), 'Cell cupboard')
    await user.click(getByRole('button', { name: 'Carried' }))
    await user.clear(getByLabelText('T-10: how many to carry to Cell cupboard'))
    await user.type(getByLabelText('T-10: how many to carry to Cell cupboard'), '3')
    await user.click(getByRole('button', { name: 'Carried there' }))
    const [partId, store] = [tip.partId, CUPBOARD.id]
    expect(saidOf(sent)).toEqual([
      ['/parts/count', { counts: [{ partId, quantity: 7 }], storeId: store }],
      ['/parts/carry', { fromStoreId: store, toStoreId: null, lines: [{ partId, quantity: 4 }] }],
      ['/parts/carry', { fromStoreId: null, toStoreId: store, lines: [{ partId, quantity: 3 }] }],
    ])
  })
  it('a place is named, filled for so many days, serves areas, and can be given up', async () => {
    const { user, findByRole, findByText, getByLabelText, getByRole, sent } = show(
      sampleStock([tip], { stores: [{ ...CUPBOARD, fill: [] }] }),
    )
    await findByText(/nothing is kept there yet/)
    await user.click(getByRole('button', { name: 'one more place' }))
    await user.click(getByRole('button', { name: 'Keep' }))
    await findByText('What is it called?')
    await user.type(getByLabelText('what it is called'), 'Drawer')
    await user.clear(getByLabelText('filled up every so many days'))
    await user.type(getByLabelText('filled up every so many days'), '3')
    await user.click(getByRole('checkbox', { name: /Bay A/ }))
    await user.click(getByRole('button', { name: 'Keep' }))
    await user.click(await findByRole('button', { name: 'change' }))
    await user.click(getByRole('button', { name: /Given up/ }))
    expect(saidOf(sent)).toEqual([
      ['/parts/store', { id: null, name: 'Drawer', fillDays: 3, areaIds: ['area_1'] }],
      ['/parts/store/closed', { storeId: CUPBOARD.id }],
    ])
  })
  it('what is to be ordered goes by supplier, with numbers that can be others', async () => {
    const { user, findByLabelText, getByRole, findByText, sent } = show()
    const field = await findByLabelText('T-10: how many to order')
    await user.clear(field)
    await user.type(field, 'x')
    await findByText('Write whole numbers: 0 leaves a part out.')
    await user.clear(field)
    await user.type(field, '200')
    await user.click(getByRole('button', { name: 'Ordered' }))
    expect(saidOf(sent)).toEqual([
      ['/parts/order', { supplierId: 'supp_1', lines: [{ partId: tip.partId, quantity: 200 }] }],
    ])
  })
  it('what would come too late is bridged first, from the quickest', async () => {
    const bridge = {
      ...{ supplierName: 'By post', quantity: 20, minor: 4600, standWithMinor: 0 },
      ...{ standWithoutMinor: 90_000, chanceShort: 0.9 },
    }
    const part = { ...tip, advice: { ...sampleAdvice({ chanceShort: 0.9 }), bridge }, coming: [] }
    const { user, findByRole, sent } = show(sampleStock([part]))
    const section = await findByRole('region', { name: 'Bridge it today' })
    await user.click(within(section).getByRole('button', { name: 'Ordered' }))
    expect(saidOf(sent)).toEqual([
      ['/parts/order', { supplierId: 'supp_1', lines: [{ partId: tip.partId, quantity: 20 }] }],
    ])
  })
  it('what is on its way: late, what came of it, the rest that does not', async () => {
    const { user, findByText, getByLabelText, getByRole, sent } = show()
    await findByText('late, due 22 Nov')
    expect(getByLabelText('T-10: how many came')).toHaveProperty('value', '60')
    await user.click(getByRole('button', { name: 'It came: on the shelf' }))
    await user.click(getByRole('button', { name: 'the rest does not come' }))
    expect(saidOf(sent)).toEqual([
      ['/parts/order/received', { orderId: 'order_1', lines: [{ partId: tip.partId, quantity: 60 }] }],
      ['/parts/order/closed', { orderId: 'order_1' }],
    ])
  })
  it('the lead says who sells it and for what; an instructor sees it', async () => {
    const { user, findByRole, getByLabelText, getByRole, sent } = show()
    await user.click(await findByRole('button', { name: /^T-10, tip/ }))
    await user.click(getByRole('button', { name: 'somebody else sells it' }))
    await user.type(getByLabelText(/price each/), '0.99')
    await user.clear(getByLabelText('pack of'))
    await user.type(getByLabelText('pack of'), '10')
    await user.click(getByRole('button', { name: 'Keep' }))
    expect(saidOf(sent)[0]?.[1]).toMatchObject({ supplierId: 'supp_1', packOf: 10, bands: [{ from: 0, each: 99 }] })
    unstage()
    const me = { ...ME, person: { id: anId('person', 'per_2'), name: 'Ann', role: 'instructor' as const } }
    const seen = show(undefined, '/parts?part=part_1', { '/people/me': me })
    await seen.findByRole('heading', { name: /^T-10/ })
    expect(seen.queryByRole('button', { name: 'somebody else sells it' })).toBeNull()
    expect(seen.queryByRole('button', { name: 'somebody else' })).toBeNull()
  })
  it('a kit for what is due, in shelf order, packed and given back', async () => {
    const line = {
      ...{ partId: tip.partId, code: 'T-10', name: 'tip 1.0', shelf: 'rack A', onHand: 1 },
      quantity: 2,
      guns: ['A1', 'A2'],
    }
    const kits = {
      ...{ nowMs: NOW, zone: 'UTC', lines: [line], unknown: [{ kindName: 'Liner', guns: ['B7'] }] },
      packed: [{ id: 'kit_1', name: 'noon', madeMs: NOW, lines: [line] }],
    }
    const { user, findByRole, getByRole, getByText, getByLabelText, sent } = show(undefined, '/parts', {
      '/parts/kit': kits,
    })
    await user.click(await findByRole('button', { name: 'used or given back' }))
    await user.click(getByRole('button', { name: 'a kit for what is due' }))
    getByText('only 1 there')
    getByText('Nobody knows which liner goes on B7: look there first.')
    await user.clear(getByLabelText('T-10: how many into the kit'))
    await user.type(getByLabelText('T-10: how many into the kit'), '1')
    await user.click(getByRole('button', { name: 'Packed' }))
    expect(saidOf(sent)).toEqual([
      ['/parts/kit/closed', { kitId: 'kit_1' }],
      ['/parts/kit', { name: 'all guns, 23 Nov', lines: [{ partId: tip.partId, quantity: 1, guns: ['A1', 'A2'] }] }],
    ])
  })
  it('nothing counted yet: the shelf to count stands open; what no gun takes is named', async () => {
    const { findByRole, getByRole, getByText } = show(
      sampleStock([samplePart({ onHand: null })], {
        orphans: [{ partId: anId('part', 'part_9'), code: 'OLD-1', onHand: 9, minor: 900 }],
      }),
    )
    await findByRole('heading', { name: /Nobody has counted the shelf yet/ })
    getByRole('region', { name: 'Count the shelf' })
    getByText(/OLD-1 \(9\): on the shelf, and on no gun there is/)
  })
})
