import { Button, Form } from 'react-bootstrap'
import { readQuantity, shownQuantity } from '@core/units/quantity.ts'
import { type PriceBand } from '@core/stock/ordersize.ts'
import { type StockAnswer, type StockPart } from '@contract/stock.ts'
import { type Units } from '@web/format/numbers.ts'
import { asItIs, needed, neededWords, quantity, useReadForm, words, type Reader } from '@web/kit/readform.ts'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { Bare } from '@web/kit/Keys.tsx'
import { Tick } from '@web/kit/Tick.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

/** "0.64; from 500: 0.52": the first price is for each, others from so many on. */
export const bandsReader: Reader<PriceBand[]> = (text) => {
  const bands: PriceBand[] = []
  for (const [i, part] of text.split(';').entries()) {
    const [, from, price = ''] = /^\s*(?:from\s+(\d+)\s*:?\s*)?(.*?)\s*$/i.exec(part) ?? []
    const read = readQuantity(price, { of: 'money', above: 0 })
    if (!read.ok) return { ok: false, why: read.why }
    if (read.value === null) return { ok: false, why: 'Write what one costs, like 0.64; from 500: 0.52' }
    if (i === 0 && from && Number(from) > 1)
      return { ok: false, why: 'The first price is for one: 0.64; from 500: 0.52' }
    if (i > 0 && !from) return { ok: false, why: `From how many on does ${price} hold? Write: from 500: ${price}` }
    bands.push({ from: i === 0 ? 0 : Number(from), each: read.value })
  }
  const isRising = bands.every((b, i) => i === 0 || b.from > (bands[i - 1]?.from ?? 0))
  return isRising ? { ok: true, value: bands } : { ok: false, why: 'Each price begins after the one before.' }
}
export const bandsText = (bands: readonly PriceBand[]): string =>
  bands.map((b, i) => `${i === 0 ? '' : `from ${b.from}: `}${shownQuantity(b.each, { of: 'money' })}`).join('; ')

/** What somebody sells a part for; somebody new is made here too. */
export function OfferForm(props: {
  part: StockPart
  at: StockAnswer
  /** Empty: another one. */
  supplierId: string
  units: Units
  onDone: () => void
}) {
  const { part, at, supplierId, onDone } = props
  const save = useSave('/parts/offer')
  const has = part.offers.find((o) => o.supplierId !== null && o.supplierId === supplierId)
  const form = useReadForm(
    {
      supplierId: neededWords('Who sells it? Make them below first.'),
      theirCode: words,
      packOf: needed({ of: 'count', from: 1 }),
      bands: bandsReader,
      leadDays: quantity({ of: 'days', from: 0 }),
      isSure: asItIs<boolean>(),
    },
    {
      supplierId: supplierId || (at.suppliers.length === 1 ? (at.suppliers[0]?.id ?? '') : ''),
      theirCode: has?.theirCode ?? '',
      packOf: String(has?.packOf ?? 1),
      bands: has ? bandsText(has.bands) : '',
      leadDays: '',
      isSure: has?.isSure ?? true,
    },
  )
  const send = form.submit(({ leadDays, ...read }) =>
    save.mutate(
      { partId: part.partId, ...read, leadDays: leadDays === null ? null : Math.round(leadDays) },
      { onSuccess: onDone },
    ),
  )
  if (at.suppliers.length === 0) return <p>Say below, under who sells parts, who that is; then what it costs there.</p>
  return (
    <Form noValidate onSubmit={send} className="stock-offer-form">
      <div className="built-form">
        <PickTyped
          form={form}
          name="supplierId"
          id="offer-who"
          label="who sells it"
          none="who?"
          options={at.suppliers.map((s) => [s.id, s.name])}
        />
        <TypedField form={form} name="theirCode" id="offer-code" label="their number" maxLength={60} />
        <QuantityField form={form} name="packOf" id="offer-pack" label="pack of" />
        <TypedField
          form={form}
          name="bands"
          id="offer-price"
          label={`price each (${at.currency})`}
          placeholder="0.64; from 500: 0.52"
          autoComplete="off"
        />
        <QuantityField form={form} name="leadDays" id="offer-lead" label="days it takes" placeholder="as usual there" />
      </div>
      <Tick isOn={form.typed('isSure')} onTick={(isOn) => form.put('isSure', isOn)}>
        known to fit here (else somebody only says so, and it is tried out first)
      </Tick>
      <Button type="submit" variant="chalk" disabled={save.isPending}>
        Keep
      </Button>{' '}
      <Bare onClick={onDone}>leave it</Bare>
      <Trouble problem={save.error} />
    </Form>
  )
}
