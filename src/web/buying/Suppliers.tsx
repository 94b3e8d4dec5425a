import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { shownQuantity } from '@core/units/quantity.ts'
import { SHEET_FIELDS, type SheetColumn, type SheetField } from '@core/stock/ordersheet.ts'
import { type StockAnswer, type SupplierAnswer } from '@contract/stock.ts'
import { money, twoFigures } from '@web/format/numbers.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { neededWords, quantity, useReadForm, type Reader } from '@web/kit/readform.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { inDays } from './buyingwords.ts'

/** Who sells parts: how long an order takes, what one costs, in which columns they want it. */
export function Suppliers({ at, isOwner }: { at: StockAnswer; isOwner: boolean }) {
  const [openId, setOpen] = useState<string | null>(null)
  const opened = at.suppliers.find((s) => s.id === openId)
  return (
    <section aria-label="Who sells parts">
      <h2>Who sells parts</h2>
      {at.suppliers.length === 0 ? (
        <p className="said dim">
          {isOwner
            ? 'Nobody yet. Say who, and how long they take; then orders go by it.'
            : 'Nobody yet: the lead says who.'}
        </p>
      ) : (
        <ul className="stock-suppliers">
          {at.suppliers.map((s) => (
            <li key={s.id}>
              {isOwner ? <Bare onClick={() => setOpen(s.id)}>{s.name}</Bare> : <strong>{s.name}</strong>}:{' '}
              {takesWords(s)}
              {s.orderMinor === null ? '' : `; one order costs ${money(s.orderMinor, at.currency)} beside the parts`}.
            </li>
          ))}
        </ul>
      )}
      {!isOwner ? null : openId === null ? (
        <p>
          <Bare onClick={() => setOpen('')}>{at.suppliers.length === 0 ? 'say who sells parts' : 'somebody else'}</Bare>
        </p>
      ) : (
        <SupplierForm key={openId} supplier={opened} at={at} onDone={() => setOpen(null)} />
      )}
    </section>
  )
}
function takesWords(s: SupplierAnswer): string {
  if (s.learnt)
    return `an order takes ${inDays(s.learnt.days)} ± ${twoFigures(1.645 * s.learnt.sd)}, by ${s.learnt.n} orders${s.leadDays === null ? '' : ` (said: ${s.leadDays})`}`
  return s.leadDays === null ? 'nobody said how long an order takes' : `an order takes ${inDays(s.leadDays)}, as said`
}

const FIELD_WORD: Record<SheetField, string> = {
  theirCode: 'their number',
  code: 'our number',
  name: 'part',
  quantity: 'how many',
  packs: 'packs',
  each: 'price each',
  total: 'price',
}
const byWord = new Map(SHEET_FIELDS.map((f) => [FIELD_WORD[f], f]))
/** "Item = their number; Qty = packs"; nothing typed: our own columns. */
export const columnsReader: Reader<SheetColumn[] | null> = (text) => {
  if (text.trim() === '') return { ok: true, value: null }
  const columns: SheetColumn[] = []
  for (const part of text.split(';')) {
    const [head = '', is = ''] = part.split('=').map((t) => t.trim())
    const field = byWord.get(is.toLowerCase())
    if (head === '' || !field)
      return {
        ok: false,
        why: `“${part.trim()}”: write what stands above the column, = and what is in it: ${[...byWord.keys()].join(', ')}.`,
      }
    columns.push({ head, is: field })
  }
  return { ok: true, value: columns }
}
export const columnsText = (columns: readonly SheetColumn[] | null): string =>
  (columns ?? []).map((c) => `${c.head} = ${FIELD_WORD[c.is]}`).join('; ')

function SupplierForm(props: { supplier: SupplierAnswer | undefined; at: StockAnswer; onDone: () => void }) {
  const { supplier, at, onDone } = props
  const save = useSave('/parts/supplier')
  const form = useReadForm(
    {
      name: neededWords('What are they called?'),
      leadDays: quantity({ of: 'days', from: 0 }),
      orderMinor: quantity({ of: 'money', from: 0, kept: supplier?.orderMinor }),
      columns: columnsReader,
    },
    {
      name: supplier?.name ?? '',
      leadDays: supplier?.leadDays == null ? '' : String(supplier.leadDays),
      orderMinor: shownQuantity(supplier?.orderMinor, { of: 'money' }),
      columns: columnsText(supplier?.columns ?? null),
    },
  )
  const send = form.submit(({ leadDays, ...read }) =>
    save.mutate(
      { id: supplier?.id ?? null, ...read, leadDays: leadDays === null ? null : Math.round(leadDays) },
      { onSuccess: onDone },
    ),
  )
  return (
    <Form noValidate onSubmit={send}>
      <div className="built-form">
        <TypedField form={form} name="name" id="sup-name" label="who" maxLength={60} />
        <QuantityField form={form} name="leadDays" id="sup-lead" label="days an order takes" />
        <QuantityField
          form={form}
          name="orderMinor"
          id="sup-order"
          label={`one order beside the parts (${at.currency}): post, trip`}
        />
        <TypedField
          form={form}
          name="columns"
          id="sup-columns"
          label="columns they want an order in"
          placeholder="Item = their number; Qty = packs"
          autoComplete="off"
        />
      </div>
      <Button type="submit" variant="chalk" disabled={save.isPending}>
        Keep
      </Button>{' '}
      <Bare onClick={onDone}>leave it</Bare>
      <Trouble problem={save.error} />
    </Form>
  )
}
