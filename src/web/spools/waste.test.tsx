import { afterEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { packageYear } from '@core/spools/package.ts'
import { type WasteAnswer } from '@contract/waste.ts'
import { bulk } from '@web/format/numbers.ts'
import { stage, unstage } from '@web/testing/stage.tsx'
import { WastePage } from './WastePage.tsx'
import { packageSentence, shareWords, wasteTold } from './wastewords.ts'

afterEach(unstage)
const group = {
  ...{ wireName: 'solid 1.2', className: 'Cells', guns: 3, kgPerYear: 9000, spoolKg: 15, pricePerKgMinor: 300 },
  ...{ changeMin: 8, isMinLearnt: false, standMinorPerHour: 9000, labourMinorPerHour: 3800 },
  ...{ shortKg: 0.75, isShortSeen: false },
}
const at = (over: Partial<WasteAnswer> = {}): WasteAnswer => ({
  ...{ nowMs: 0, currency: 'EUR', months: 6, usedKg: 4000 },
  whys: [
    { why: 'nest', kg: 12, minor: 3600, times: 30 },
    { why: 'short end', kg: 4, minor: null, times: 3 },
  ],
  byMonth: [
    { month: '2026-10', kg: 16, minor: 3600, times: 33 },
    { month: '2026-11', kg: 0, minor: null, times: 0 },
  ],
  areas: [{ areaId: anId('area', 'area_1'), name: 'Bay A', most: 'nest', kg: 16, minor: 3600, times: 33, perTonne: 4 }],
  groups: [group, { ...group, wireName: 'cored 1.2', pricePerKgMinor: null }],
  ...over,
})
const show = (waste = at()) => stage(<WastePage />, { '/spools/waste': waste }, '/waste')

describe('where wire goes', () => {
  it('says how much, in nests most of it, where and when, and what is not measured', async () => {
    const { findByRole, getByText, getAllByText } = show()
    await findByRole('heading', {
      name: 'In six months 16 kg of wire never became weld, about €36: 1 part in 250 of what was welded. Most of it in nests.',
    })
    getByText(/Not measured here: wire fed with the trigger held/)
    getByText(/Short ends to short jobs/)
    getByText('no price')
    expect(getAllByText(/1 part in 250 of its wire/)).toHaveLength(1)
    getByText('nothing noted')
  })
  it('nothing noted is no waste of none', () => {
    expect(wasteTold(at({ whys: [] }), 'metric')).toContain('No wire was noted as lost')
    const little = at({ whys: [{ why: 'nest', kg: 0.1, minor: null, times: 1 }] })
    expect(wasteTold(little, 'metric')).toContain('or hardly any of it was noted')
    expect([0.03, 0.002, 1e-6].map(shareWords)).toEqual(['3 in 100', '1 part in 500', 'next to nothing'])
  })
})

describe('spool, bigger spool or drum', () => {
  it('is weighed as soon as both prices stand there, and anew with every number', async () => {
    const { user, findByText, getByLabelText, getByText } = show()
    await findByText(/The bigger one saves about €\d[\d,]+ a year here: 630 changes a year become 36/)
    await user.clear(getByLabelText('its price a kg'))
    await user.type(getByLabelText('its price a kg'), '9.90')
    getByText(/The bigger one pays at no use with these prices|costs about .* a year more here/)
    await user.clear(getByLabelText('its price a kg'))
    getByText('Write what both cost; then it is weighed.')
  })
  it('of another wire whose price nobody said, it asks for it', async () => {
    const { user, findByLabelText, getByText } = show()
    await user.selectOptions(await findByLabelText('for the guns with'), 'cored 1.2, Cells')
    getByText('Write what both cost; then it is weighed.')
  })
  it('nothing welded yet: it says what will stand there', async () => {
    const { findByText } = show(at({ groups: [] }))
    await findByText(/No wire was counted yet/)
  })
  it('from which use on', () => {
    const use = { ...group, guns: 1 }
    const first = packageYear({ kg: 15, pricePerKgMinor: 300, onceMinor: 0, floorMinorPerYear: 0 }, use)
    const second = packageYear({ kg: 250, pricePerKgMinor: 300, onceMinor: 9e8, floorMinorPerYear: 0 }, use)
    const of = { name: 'A drum', currency: 'EUR', units: 'us' as const }
    const said = { first, second, kgPerYear: 9000 }
    expect(packageSentence({ ...said, breakEven: 50_000 }, of)).toMatch(
      /^A drum costs about .* It pays from about 110000 lb a year on/,
    )
    expect(packageSentence({ ...said, breakEven: null }, of)).toContain('pays at no use')
    expect(packageSentence({ first: second, second: first, kgPerYear: 9, breakEven: 0 }, of)).toContain('at any use')
    expect([900, 2500].map((kg) => bulk(kg, 'metric'))).toEqual(['900 kg', '2.5 t'])
  })
})
