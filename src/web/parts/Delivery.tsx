import { Button, Form } from 'react-bootstrap'
import { type ShopAnswer } from '@contract/shop.ts'
import { asItIs, needed, neededWords, useReadForm } from '@web/kit/readform.ts'
import { PickTyped, QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { partLabel } from '@web/format/words.ts'
import { placesOf } from './places.ts'

/** What came in and went on the shelf today. */
export function Delivery({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/parts/received')
  const form = useReadForm(
    { partId: neededWords('Which part?'), quantity: needed({ of: 'count', from: 1 }), storeId: asItIs<string>() },
    { partId: '', quantity: '', storeId: '' },
  )
  const places = placesOf(shop)
  const send = form.submit(({ storeId, ...read }) =>
    save.mutate(storeId ? { ...read, storeId } : read, {
      onSuccess: () => form.begin({ ...form.all(), quantity: '' }),
    }),
  )
  return (
    <section aria-label="A delivery">
      <h2>A delivery</h2>
      <Form noValidate onSubmit={send}>
        <div className="built-form">
          <PickTyped
            form={form}
            name="partId"
            id="in-part"
            label="part"
            none="which part?"
            options={shop.parts.map((p) => [p.id, partLabel(p)])}
          />
          <QuantityField form={form} name="quantity" id="in-count" label="how many" />
          {places.length > 1 ? (
            <PickTyped form={form} name="storeId" id="in-at" label="where" options={places} />
          ) : null}
        </div>
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          On the shelf
        </Button>
      </Form>
      <Trouble problem={save.error} />
      {save.isSuccess ? (
        <p className="small-print" role="status">
          Kept.
        </p>
      ) : null}
    </section>
  )
}
