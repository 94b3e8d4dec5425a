import { afterEach, describe, expect, it } from 'vitest'
import { Button, Form } from 'react-bootstrap'
import { z } from 'zod'
import { stage, unstage } from '@web/testing/stage.tsx'
import {
  anyWireSizeText,
  asItIs,
  needed,
  neededWords,
  quantity,
  readAll,
  shaped,
  useReadForm,
  words,
} from './readform.ts'
import { CellField, PickTyped, QuantityField, TypedField, Why } from './TypedField.tsx'

afterEach(unstage)

const KEPT_KG = 14.968548
const READERS = {
  name: neededWords('Write a name.'),
  kind: shaped(z.enum(['solid', 'cored']), 'Solid or cored?'),
  kg: needed({ of: 'mass', units: 'us', above: 0, kept: KEPT_KG }),
  tare: quantity({ of: 'mass', units: 'us', from: 0 }),
  size: anyWireSizeText,
  note: words,
  lanes: asItIs<string[]>(),
  fit: (texts: Record<string, string>) =>
    texts['neck'] === 'long'
      ? { ok: false as const, why: 'neck', by: { neck: 'How long, in mm?' } }
      : { ok: true as const, value: texts['neck'] ?? null },
}

function Sample({ onSend }: { onSend: (read: unknown) => void }) {
  const form = useReadForm(READERS, {
    ...{ name: '', kind: 'solid', kg: '33', tare: '', size: '', note: ' ', lanes: ['a'] },
    fit: { neck: 'long' },
  })
  return (
    <Form noValidate onSubmit={form.submit(onSend)}>
      <TypedField form={form} name="name" id="n" label="name" />
      <PickTyped form={form} name="kind" id="k" label="kind" none="?" options={[['solid', 'solid']]} />
      <QuantityField form={form} name="kg" id="kg" label="lb" />
      <CellField form={form} name="tare" label="tare" unit="lb" />
      <TypedField form={form} name="size" id="s" label="size" />
      <TypedField form={form} name="fit.neck" id="f" label="neck" />
      <Why form={form} name="fit.neck" />
      <output>{form.now() === null ? 'not yet' : 'can be sent'}</output>
      <Button type="submit">Send</Button>
    </Form>
  )
}
const show = () => {
  const got: unknown[] = []
  return { got, ...stage(<Sample onSend={(read) => got.push(read)} />) }
}

describe('a form that is read', () => {
  it('says beside each field what can’t be read, goes to the first, and sends nothing', async () => {
    const { user, got, getByLabelText, getByRole, findByText, getAllByText } = show()
    await user.type(getByLabelText('tare'), 'light')
    await user.type(getByLabelText('size'), 'thin')
    await user.click(getByRole('button', { name: 'Send' }))
    await findByText('Write a name.')
    await findByText('"light" can’t be read: write a number like 1.5 lb.')
    await findByText(/"thin" is not a wire size/)
    expect(getAllByText('How long, in mm?')).toHaveLength(2)
    expect(document.activeElement).toBe(getByLabelText('name'))
    expect(got).toEqual([])
  })
  it('says it as soon as a field was left, and takes it back when it is put right', async () => {
    const { user, getByLabelText, findByText, queryByText } = show()
    await user.type(getByLabelText('lb'), ' stone')
    await user.tab()
    await findByText(/stone is no unit for this; write a number like 1.5 lb/)
    await user.clear(getByLabelText('lb'))
    await user.type(getByLabelText('lb'), '15 kg')
    expect(queryByText(/is no unit/)).toBeNull()
  })
  it('sends what was read: kept as it was where nothing was typed over it', async () => {
    const { user, got, getByLabelText, getByRole, findByText } = show()
    await findByText('not yet')
    await user.type(getByLabelText('name'), ' D1 ')
    await user.type(getByLabelText('tare'), '1 1/2')
    await user.clear(getByLabelText('neck'))
    await findByText('can be sent')
    await user.click(getByRole('button', { name: 'Send' }))
    expect(got).toEqual([
      {
        name: 'D1',
        kind: 'solid',
        kg: KEPT_KG,
        tare: expect.closeTo(0.680389, 5) as number,
        size: null,
        note: null,
        lanes: ['a'],
        fit: '',
      },
    ])
  })
  it('a pick the contract does not know is told in its own words', () =>
    expect(readAll({ kind: READERS.kind }, { kind: 'hollow' }).errors).toEqual({
      kind: { type: 'read', message: 'Solid or cored?' },
    }))
})
