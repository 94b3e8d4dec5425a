import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { type SupplyAnswer } from '@contract/parts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const PIECES = 50

/** One tin per bay, on the scale on Friday. What one old part weighs is found once, by counting fifty. */
export function WeighTin({ shop, tins }: { shop: ShopAnswer; tins: SupplyAnswer['tins'] }) {
  const save = useSave('/parts/tin')
  const [areaId, setArea] = useState(shop.areas[0]?.id ?? '')
  const [kindKey, setKind] = useState('tip')
  const [grams, setGrams] = useState('')
  const [pieces, setPieces] = useState(String(PIECES))
  const [gramsOfPieces, setOfPieces] = useState('')
  const [isEmptied, setEmptied] = useState(true)
  const before = tins.find((t) => t.areaId === areaId && t.kindKey === kindKey)
  const number = (text: string) => parseNumber(text) ?? NaN
  const count = Math.round(number(pieces))
  const weight = gramsOfPieces.trim() ? number(gramsOfPieces) : (before?.gramsEach ?? NaN) * count
  const isReady = number(grams) >= 0 && count >= 5 && weight > 0
  const send = () =>
    save.mutate(
      { areaId, kindKey, grams: number(grams), pieces: count, gramsOfPieces: weight, isEmptied },
      { onSuccess: () => setGrams('') },
    )
  return (
    <section aria-label="The tin">
      <h2>The tin of old parts</h2>
      <div className="built-form">
        <PickOne
          id="tin-area"
          label="whose tin"
          value={areaId}
          options={shop.areas.map((a) => [a.id, a.name])}
          onPick={setArea}
        />
        <PickOne
          id="tin-kind"
          label="old"
          value={kindKey}
          options={shop.kinds.map((k) => [k.key, k.name])}
          onPick={setKind}
        />
        <TextField id="tin-grams" label="on the scale (g)" inputMode="decimal" {...field(grams, setGrams)} />
        <TextField id="tin-pieces" label="counted once" inputMode="numeric" {...field(pieces, setPieces)} />
        <TextField
          id="tin-weight"
          label="they weigh (g)"
          inputMode="decimal"
          placeholder={before ? (before.gramsEach * count).toFixed(0) : ''}
          {...field(gramsOfPieces, setOfPieces)}
        />
        <Form.Check
          id="tin-emptied"
          label="emptied after"
          checked={isEmptied}
          onChange={(e) => setEmptied(e.target.checked)}
        />
      </div>
      <Button variant="chalk" disabled={!isReady || save.isPending} onClick={send}>
        Weighed
      </Button>
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
