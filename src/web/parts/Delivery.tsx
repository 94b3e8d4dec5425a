import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

/** What came in and went on the shelf today. */
export function Delivery({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/parts/received')
  const [partId, setPart] = useState('')
  const [quantity, setQuantity] = useState('')
  const count = Math.round(parseNumber(quantity) ?? NaN)
  return (
    <section aria-label="A delivery">
      <h2>A delivery</h2>
      <div className="built-form">
        <PickOne
          id="in-part"
          label="part"
          value={partId}
          none="which part?"
          options={shop.parts.map((p) => [p.id, `${p.code} ${p.name}`])}
          onPick={setPart}
        />
        <TextField id="in-count" label="how many" inputMode="numeric" {...field(quantity, setQuantity)} />
      </div>
      <Button
        variant="chalk"
        disabled={!partId || !(count > 0) || save.isPending}
        onClick={() => save.mutate({ partId, quantity: count }, { onSuccess: () => setQuantity('') })}
      >
        On the shelf
      </Button>
      <Trouble problem={save.error} />
      {save.isSuccess ? (
        <p className="small-print" role="status">
          Kept.
        </p>
      ) : null}
    </section>
  )
}
