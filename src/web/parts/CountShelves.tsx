import { Button, Form } from 'react-bootstrap'
import { useController } from 'react-hook-form'
import { readQuantity } from '@core/units/quantity.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { PickTyped } from '@web/kit/TypedField.tsx'
import { asItIs, useReadForm, type Reader, type Readers, type ReadForm } from '@web/kit/readform.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { liesThere, placesOf } from './places.ts'

type Texts = Record<string, string>
/** Counts by part; what was left empty was not counted. */
const counts: Reader<{ partId: string; quantity: number }[], Texts> = (texts) => {
  const read = Object.entries(texts).map(
    ([partId, text]) => [partId, readQuantity(text, { of: 'count', from: 0 })] as const,
  )
  const by = Object.fromEntries(read.flatMap(([partId, r]) => (r.ok ? [] : [[partId, r.why]])))
  const [why] = Object.values(by)
  if (why !== undefined) return { ok: false, why, by }
  return {
    ok: true,
    value: read.flatMap(([partId, r]) => (r.ok && r.value !== null ? [{ partId, quantity: r.value }] : [])),
  }
}

/** A round of the shelves: type what is there, Enter goes on to the next. A part left empty was not counted. */
export function CountShelves({ shop }: { shop: ShopAnswer }) {
  const places = placesOf(shop)
  const save = useSave('/parts/count')
  const none = Object.fromEntries(shop.parts.map((p) => [p.id, '']))
  const form = useReadForm({ counts, storeId: asItIs<string>() }, { counts: none, storeId: '' })
  const typed = Object.values(form.typed('counts')).filter((text) => text.trim() !== '')
  const send = form.submit(({ counts: read, storeId }) =>
    save.mutate(
      { counts: read, ...(storeId ? { storeId } : {}) },
      { onSuccess: () => form.begin({ counts: none, storeId }) },
    ),
  )
  return (
    <section aria-label="Count the shelf" className="count-shelf">
      <h2>Count the shelf</h2>
      {places.length > 1 ? (
        <div className="built-form">
          <PickTyped form={form} name="storeId" id="count-at" label="where" options={places} />
        </div>
      ) : null}
      <div className="shelf" onKeyDown={nextOnEnter}>
        {shop.parts.map((p) => (
          <OneShelf key={p.id} form={form} part={p} there={liesThere(p, form.typed('storeId'))} />
        ))}
      </div>
      <Button variant="chalk" disabled={typed.length === 0 || save.isPending} onClick={send}>
        {typed.length === 0 ? 'Counted' : `Counted ${typed.length}`}
      </Button>
      <Trouble problem={save.error} />
      {save.isSuccess && typed.length === 0 ? (
        <p className="small-print" role="status">
          Kept. What a shelf lost between two counts was taken.
        </p>
      ) : null}
    </section>
  )
}

function OneShelf<R extends Readers>(props: {
  form: ReadForm<R>
  part: ShopAnswer['parts'][number]
  there: number | null
}) {
  const { form, part, there } = props
  const { field, fieldState } = useController({ name: `counts.${part.id}`, control: form.control })
  const why = fieldState.error?.message
  return (
    <label>
      <span>
        <strong>{part.code}</strong> <span className="dim">{part.name}</span>
      </span>
      <Form.Control
        {...field}
        value={field.value as string}
        inputMode="numeric"
        aria-label={`${part.code}: how many are there`}
        placeholder={there === null ? '' : `${Math.max(0, there)}?`}
        isInvalid={why !== undefined}
      />
      <Form.Control.Feedback type="invalid" role={why ? 'alert' : undefined}>
        {why}
      </Form.Control.Feedback>
    </label>
  )
}

function nextOnEnter(e: React.KeyboardEvent<HTMLElement>): void {
  if (e.key !== 'Enter') return
  e.preventDefault()
  const fields = [...e.currentTarget.querySelectorAll('input')]
  fields[fields.indexOf(e.target as HTMLInputElement) + 1]?.focus()
}
