import { Button, Form } from 'react-bootstrap'
import { shownQuantity } from '@core/units/quantity.ts'
import { asItIs, neededWords, quantity, useReadForm, type Reader } from '@web/kit/readform.ts'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { type ShopAnswer } from '@contract/shop.ts'
import { useIsOwner } from '@web/people/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const WORLDS = [
  ['metric', 'mm, kg'],
  ['us', 'inch, lb'],
] as const
const threeLetters: Reader<string> = (text) =>
  /^[a-z]{3}$/i.test(text.trim())
    ? { ok: true, value: text.trim().toUpperCase() }
    : { ok: false, why: 'Three letters, like EUR or USD.' }

export function SiteForm({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/shop/site')
  const isOwner = useIsOwner()
  const money = { of: 'money', from: 0 } as const
  const { name, zone, units, currency, gasMinorPerM3 } = shop.site
  const form = useReadForm(
    {
      name: neededWords('Write what the shop is called.'),
      zone: neededWords('Write the time zone, like Europe/Berlin.'),
      units: asItIs<typeof units>(),
      currency: threeLetters,
      gasMinorPerM3: quantity(money),
    },
    { name, zone, units, currency, gasMinorPerM3: shownQuantity(gasMinorPerM3, money) },
  )
  return (
    <Form noValidate className="built-form" onSubmit={form.submit((read) => save.mutate({ ...shop.site, ...read }))}>
      <TypedField form={form} name="name" id="st-name" label="the shop is called" />
      <TypedField form={form} name="zone" id="st-zone" label="time zone" />
      <PickTyped form={form} name="units" id="st-units" label="units" options={WORLDS} />
      <TypedField form={form} name="currency" id="st-cur" label="currency, three letters" maxLength={3} />
      <QuantityField
        form={form}
        name="gasMinorPerM3"
        id="st-gas"
        label={`a cubic metre of gas, ${form.typed('currency')}`}
      />
      <Trouble problem={save.error} />
      <div className="built-keys">
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Save
        </Button>
        <span className="small-print" role="status">
          {save.isSuccess ? 'Saved.' : ''}
        </span>
      </div>
      {isOwner ? <AsOneFile /> : null}
    </Form>
  )
}

function AsOneFile() {
  return (
    <p className="built-keys">
      <a className="btn" href="/api/shop/whole.jsonl" download>
        everything as one file
      </a>
      <span className="small-print">
        The whole shop with its history. An empty shop takes it in on its first page. Keep it like a key: people’s
        sign-ins are in it.
      </span>
    </p>
  )
}
