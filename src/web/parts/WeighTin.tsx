import { Button, Form } from 'react-bootstrap'
import { type KindKey } from '@core/path/columns.ts'
import { readQuantity } from '@core/units/quantity.ts'
import { type SupplyAnswer } from '@contract/parts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { asItIs, needed, quantity, useReadForm } from '@web/kit/readform.ts'
import { PickTyped, QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const PIECES = 50
const LEAST_PIECES = 5

/** One tin per bay, on the scale on Friday. What one old part weighs is found once, by counting fifty. */
export function WeighTin({ shop, tins }: { shop: ShopAnswer; tins: SupplyAnswer['tins'] }) {
  const save = useSave('/parts/tin')
  const form = useReadForm(
    {
      areaId: asItIs<string>(),
      kindKey: asItIs<KindKey>(),
      grams: needed({ of: 'grams', from: 0 }),
      pieces: needed({ of: 'count', from: LEAST_PIECES }),
      gramsOfPieces: quantity({ of: 'grams', above: 0 }),
      isEmptied: asItIs<boolean>(),
    },
    {
      ...{ areaId: shop.areas[0]?.id ?? '', kindKey: 'tip', grams: '', pieces: String(PIECES), gramsOfPieces: '' },
      isEmptied: true,
    },
  )
  const [areaId, kindKey, pieces] = [form.typed('areaId'), form.typed('kindKey'), form.typed('pieces')]
  const before = tins.find((t) => t.areaId === areaId && t.kindKey === kindKey)
  const weightOf = (count: number) => (before ? before.gramsEach * count : null)
  const count = readQuantity(pieces, { of: 'count' })
  const usual = count.ok && count.value !== null ? weightOf(count.value) : null
  const send = form.submit((read) => {
    const gramsOfPieces = read.gramsOfPieces ?? weightOf(read.pieces)
    if (gramsOfPieces === null)
      return form.refuse('gramsOfPieces', 'Weigh them together once: it tells what one weighs.')
    save.mutate({ ...read, gramsOfPieces }, { onSuccess: () => form.put('grams', '') })
  })
  return (
    <section aria-label="The tin">
      <h2>The tin of old parts</h2>
      <Form noValidate onSubmit={send}>
        <div className="built-form">
          <PickTyped
            form={form}
            name="areaId"
            id="tin-area"
            label="whose tin"
            options={shop.areas.map((a) => [a.id, a.name])}
          />
          <PickTyped
            form={form}
            name="kindKey"
            id="tin-kind"
            label="old"
            options={shop.kinds.map((k) => [k.key, k.name])}
          />
          <QuantityField form={form} name="grams" id="tin-grams" label="on the scale (g)" />
          <QuantityField form={form} name="pieces" id="tin-pieces" label="counted once" />
          <QuantityField
            form={form}
            name="gramsOfPieces"
            id="tin-weight"
            label="they weigh (g)"
            placeholder={usual === null ? '' : usual.toFixed(0)}
          />
          <Form.Check
            id="tin-emptied"
            label="emptied after"
            checked={form.typed('isEmptied')}
            onChange={(e) => form.put('isEmptied', e.target.checked)}
          />
        </div>
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Weighed
        </Button>
      </Form>
      <Trouble problem={save.error} />
      <p className="small-print" role="status">
        {save.isSuccess
          ? 'Kept. It tells from the second weighing on.'
          : before
            ? `Last on ${before.day}: ${Math.round(before.grams)} g${before.isEmptied ? ', emptied' : ''}.`
            : 'Count fifty old ones once and weigh them together; after that only the tin goes on the scale.'}
      </p>
    </section>
  )
}
