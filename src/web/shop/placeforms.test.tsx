import { afterEach, describe, expect, it } from 'vitest'
import { within } from '@testing-library/react'
import { anId } from '@core/testing/ids.ts'
import { shopAnswer, stage, taken, unstage, saidOf as said } from '@web/testing/stage.tsx'
import { IgnoredRules } from './IgnoredRules.tsx'
import { KindReasons } from './KindReasons.tsx'
import { PlaceForm } from './PlaceForm.tsx'

afterEach(unstage)
const A1 = anId('station', 'stn_00a1')

describe('one place', () => {
  const show = (answers = {}) => {
    const shop = shopAnswer()
    const [place] = shop.stations
    if (!place) throw new Error('the sample shop has places')
    return stage(<PlaceForm shop={shop} place={place} onDone={() => undefined} />, answers)
  }
  it('is renamed; a name that is taken is said, and what was typed stays', async () => {
    const { user, getByLabelText, getByRole, findByText, sent } = show({ '/shop/station': taken })
    expect(getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true)
    await user.clear(getByLabelText('painted on it'))
    await user.type(getByLabelText('painted on it'), 'A2')
    await user.click(getByRole('button', { name: 'Save' }))
    await findByText('There is one with that name already.')
    expect(getByLabelText('painted on it')).toHaveProperty('value', 'A2')
    expect(said(sent)).toEqual([['/shop/station', { stationId: A1, name: 'A2', classKey: 'booth' }]])
  })
  it('lacks a part, and a part that only some guns have is one more', async () => {
    const { user, getByRole, sent } = show()
    await user.click(getByRole('checkbox', { name: 'liner' }))
    expect(said(sent)).toEqual([['/shop/station', { stationId: A1, absent: ['liner'] }]])
  })
  it('has more made like it, in the same area', async () => {
    const { user, getByLabelText, getByRole, sent } = show({ '/shop/places': { made: [], kept: [] } })
    await user.type(getByLabelText('more like this one'), 'A3–A9')
    await user.click(getByRole('button', { name: 'Set them up' }))
    expect(said(sent)).toEqual([['/shop/places', { names: 'A3–A9', areaName: 'Bay A', likeStationId: A1 }]])
  })
  it('gets the gun that really hangs there', async () => {
    const { user, getByLabelText, getByRole, sent } = show()
    const hang = getByRole('button', { name: 'Hang it here; swap the two' })
    expect(hang).toHaveProperty('disabled', true)
    await user.selectOptions(getByLabelText(/the gun here/), 'A2: gun A2')
    await user.click(hang)
    expect(said(sent)).toEqual([['/shop/move', { stationId: A1, gunOfStationId: 'stn_00a2' }]])
  })
  it('is built as its bay, except', async () => {
    const { user, getByRole, getAllByRole, getByLabelText, sent } = show()
    await user.click(getByRole('button', { name: 'as the bay, except …' }))
    await user.selectOptions(getByLabelText('fit family'), 'Kite')
    await user.selectOptions(getByLabelText('contact tip on it'), 'T-10 tip 1.0')
    await user.click(getAllByRole('button', { name: 'Save' })[1] as HTMLElement)
    expect(sent[0]?.body['except']).toMatchObject({ familyId: 'fam_1', parts: { tip: 'part_1' } })
  })
})

describe('why parts come out', () => {
  it('is a few reasons a kind; none at all can’t be kept', async () => {
    const { user, getByRole, getByText, sent } = stage(<KindReasons shop={shopAnswer()} />)
    const row = within(getByText('nozzle').closest('li') ?? document.body)
    const save = getByRole('button', { name: 'Save the reasons of the nozzle' })
    expect(save).toHaveProperty('disabled', true)
    await user.click(row.getByRole('checkbox', { name: /worn/i }))
    await user.click(row.getByRole('checkbox', { name: /due/i }))
    expect(save).toHaveProperty('disabled', true)
    await user.click(row.getByRole('checkbox', { name: /knocked/i }))
    await user.click(save)
    expect(said(sent)).toEqual([['/shop/kind', { kindKey: 'nozzle', reasons: ['knocked'] }]])
  })
  it('and what each is to this shop; a diffuser’s own duties are offered for it alone', async () => {
    const { user, getByLabelText, getByText, sent } = stage(<KindReasons shop={shopAnswer()} />)
    expect(getByText(/Process consumables: wire, gas\. Wear parts: /)).toBeTruthy()
    await user.selectOptions(getByLabelText('the nozzle is'), 'lasts, and is mended')
    expect(said(sent)).toEqual([['/shop/kind', { kindKey: 'nozzle', partClass: 'durable part' }]])
    const rowOf = (name: string) => within(getByText(name, { selector: 'strong' }).closest('li') ?? document.body)
    await user.selectOptions(rowOf('liner').getByLabelText('its life is counted in'), 'length of wire')
    expect(said(sent)[1]).toEqual(['/shop/kind', { kindKey: 'liner', lifeUnit: 'km' }])
    expect(rowOf('nozzle').queryByRole('checkbox', { name: /poor current/ })).toBeNull()
  })
})

describe('a rule that is ignored without harm', () => {
  const rule = { kindKey: 'tip', classKey: 'booth', limit: 6, unit: 'arcHours', past: 14, suggested: 8.234 }
  it('asks to be changed, keeps what else the rule says, and changes nothing by itself', async () => {
    const rules = [
      {
        ...{ kindKey: 'tip' as const, classKey: 'booth', changeLimit: 6, cleanLimit: 2, lookDays: 14 },
        ...{ unit: 'arcHours' as const, chosenBy: null, chosenMs: 0, isTrade: false },
      },
    ]
    const { user, findByRole, sent } = stage(<IgnoredRules shop={shopAnswer({ rules })} />, {
      '/houserule/ignored': { days: 60, rules: [rule] },
    })
    const key = await findByRole('button', { name: 'make it 8.2 h' })
    expect(key.parentElement?.textContent).toMatch(
      /^Booths, tip: 14 ran past 6(\.0)? h in 60 days, and nothing came of it\./,
    )
    expect(sent).toEqual([])
    await user.click(key)
    expect(said(sent)).toEqual([
      ['/shop/rule', { kindKey: 'tip', classKey: 'booth', changeLimit: 8.2, cleanLimit: 2, lookDays: 14 }],
    ])
  })
  it('where there is none, nothing is said', async () => {
    const { container } = stage(<IgnoredRules shop={shopAnswer()} />, { '/houserule/ignored': { days: 60, rules: [] } })
    await Promise.resolve()
    expect(container.querySelector('section')).toBeNull()
  })
})
