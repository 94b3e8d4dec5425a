import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

type Counts = Record<string, string>
const isWhole = (text: string) => {
  const value = parseNumber(text)
  return value !== null && value >= 0 && Number.isInteger(value)
}

/** A round of the shelves: type what is there, Enter goes on to the next. A part left empty was not counted. */
export function CountShelves({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/parts/count')
  const [counts, setCounts] = useState<Counts>({})
  const typed = Object.entries(counts).filter(([, text]) => text.trim() !== '')
  const isBad = typed.some(([, text]) => !isWhole(text))
  const send = () =>
    save.mutate(
      { counts: typed.map(([partId, text]) => ({ partId, quantity: parseNumber(text) ?? 0 })) },
      { onSuccess: () => setCounts({}) },
    )
  return (
    <section aria-label="Count the shelf" className="count-shelf">
      <h2>Count the shelf</h2>
      <div className="shelf" onKeyDown={nextOnEnter}>
        {shop.parts.map((p) => (
          <label key={p.id}>
            <span>
              <strong>{p.code}</strong> <span className="dim">{p.name}</span>
            </span>
            <Form.Control
              inputMode="numeric"
              aria-label={`${p.code}: how many are there`}
              placeholder={p.onHand === null ? '' : `${Math.max(0, p.onHand)}?`}
              value={counts[p.id] ?? ''}
              isInvalid={(counts[p.id] ?? '').trim() !== '' && !isWhole(counts[p.id] ?? '')}
              onChange={(e) => setCounts({ ...counts, [p.id]: e.target.value })}
            />
          </label>
        ))}
      </div>
      <Button variant="chalk" disabled={typed.length === 0 || isBad || save.isPending} onClick={send}>
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

function nextOnEnter(e: React.KeyboardEvent<HTMLElement>): void {
  if (e.key !== 'Enter') return
  e.preventDefault()
  const fields = [...e.currentTarget.querySelectorAll('input')]
  fields[fields.indexOf(e.target as HTMLInputElement) + 1]?.focus()
}
