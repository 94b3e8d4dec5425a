import { anId } from '@core/testing/ids.ts'
import { afterEach, describe, expect, it } from 'vitest'
import { saidOf as said, shopAnswer, stage, unstage } from '@web/testing/stage.tsx'
import { BuiltForm } from './BuiltForm.tsx'
import { FitForms } from './FitForms.tsx'
import { specLabel, specsReader, textsOf, type Spec } from './specs.ts'
import { Wires } from './Wires.tsx'

afterEach(unstage)
const US = { name: 'x', zone: 'UTC', units: 'us', currency: 'USD', gasMinorPerM3: null } as const
const wire = {
  ...{ id: anId('wire', 'wire_1'), name: 'solid .035', diameterMm: 0.9, construction: 'solid', densityGPerCm3: 7.85 },
  ...{ spoolKg: 15, tareKg: 0.6, coreMm: 54, fullMm: 290, widthMm: null, fit: null },
}

describe('a wire', () => {
  it('with something that can’t be read is not saved with nothing in its place', async () => {
    const { user, getByText, getByLabelText, getByRole, findByText, sent } = stage(
      <Wires shop={shopAnswer({ wires: [wire] })} />,
    )
    await user.click(getByText('solid .035'))
    await user.clear(getByLabelText('core across, mm'))
    await user.type(getByLabelText('core across, mm'), 'about 50')
    await user.click(getByRole('button', { name: 'Save' }))
    await findByText(/"about 50" can’t be read/)
    expect(sent).toEqual([])
  })
  it('in an inch shop is shown and typed in inches and pounds; what was left alone is not rounded', async () => {
    const { user, getByText, getByLabelText, getByRole, sent } = stage(
      <Wires shop={shopAnswer({ site: US, wires: [wire] })} />,
    )
    await user.click(getByText('solid .035'))
    expect(getByLabelText('lb on a full spool')).toHaveProperty('value', '33.1')
    expect(getByLabelText('core across, in')).toHaveProperty('value', '2.13')
    await user.type(getByLabelText('wound width, in'), '3 7/8')
    await user.type(getByLabelText('price, a lb'), '2')
    await user.click(getByRole('button', { name: 'Save' }))
    const [[path, body] = []] = said(sent)
    expect(path).toBe('/shop/wire')
    expect(body).toMatchObject({ spoolKg: 15, tareKg: 0.6, coreMm: 54, fullMm: 290 })
    expect(body?.['widthMm']).toBeCloseTo(98.425, 3)
    expect(body).toMatchObject({ fit: { pricePerKgMinor: 441 } })
  })
})

describe('how guns are built', () => {
  const show = (built: Parameters<typeof BuiltForm>[0]['built']) => {
    const saved: unknown[] = []
    const view = stage(
      <BuiltForm
        shop={shopAnswer({ site: US })}
        built={built}
        onSave={(b) => saved.push(b)}
        onDone={() => undefined}
      />,
    )
    return { saved, ...view }
  }
  it('a cable that is no length is refused', async () => {
    const { user, saved, getByLabelText, getByRole, findByText } = show({ cableM: 4.5 })
    await user.clear(getByLabelText('cable, ft'))
    await user.type(getByLabelText('cable, ft'), 'long')
    await user.click(getByRole('button', { name: 'Save' }))
    await findByText('"long" can’t be read: write a number like 1.5 ft.')
    expect(saved).toEqual([])
  })
  it('left empty where nothing was said it stays as the bay; emptied it is no longer said', async () => {
    const first = show({})
    await first.user.click(first.getByRole('button', { name: 'Save' }))
    expect(first.saved).toEqual([{}])
    unstage()
    const again = show({ cableM: 4.5 })
    await again.user.clear(again.getByLabelText('cable, ft'))
    await again.user.click(again.getByRole('button', { name: 'Save' }))
    expect(again.saved).toEqual([{ cableM: null }])
  })
})

describe('a family', () => {
  it('names each field that can’t be read', async () => {
    const { user, getAllByRole, getByLabelText, getByRole, findByText, sent } = stage(<FitForms shop={shopAnswer()} />)
    await user.click(getAllByRole('button', { name: 'a new one' })[0] as HTMLElement)
    await user.type(getByLabelText('neck, mm'), 'x')
    await user.type(getByLabelText('at a duty of, %'), 'y')
    await user.click(getByRole('button', { name: 'Save' }))
    await findByText('Write what it is called.')
    await findByText(/"x" can’t be read/)
    await findByText(/"y" can’t be read/)
    expect(sent).toEqual([])
  })
})

describe('facts as data', () => {
  const SPECS: Spec[] = [
    { key: 'bore', label: 'bore', is: 'quantity', of: 'rule' },
    { key: 'amps', label: 'current', is: 'span', of: 'amps' },
    { key: 'flag', label: 'flag', is: 'flag' },
    { key: 'maybe', label: 'maybe', is: 'maybe' },
    { key: 'said', label: 'said', is: 'text' },
  ]
  const facts = { bore: 1.02, amps: [180, 220], flag: true, maybe: false, said: 'M6' }
  it('stand in fields and are read back exactly, in both worlds', () => {
    for (const units of ['metric', 'us'] as const) {
      const at = { units, facts }
      expect(specsReader(SPECS, at)(textsOf(SPECS, at))).toEqual({ ok: true, value: facts })
    }
  })
  it('nothing told stays nothing told', () => {
    const at = { units: 'metric' as const, facts: null }
    expect(specsReader(SPECS, at)(textsOf(SPECS, at))).toEqual({
      ok: true,
      value: { bore: null, amps: null, flag: false, maybe: null, said: null },
    })
  })
  it('a label names the unit of the shop', () =>
    expect(SPECS.map((s) => specLabel(s, 'us'))).toEqual(['bore, in', 'current, A', 'flag', 'maybe', 'said']))
})
