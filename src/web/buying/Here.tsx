import { useEffect, useState } from 'react'
import { Button } from 'react-bootstrap'
import { type StockAnswer, type StockPart } from '@contract/stock.ts'
import { shortDate } from '@web/format/times.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { asItIs, quantity, useReadForm, words } from '@web/kit/readform.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useSave } from '@web/shopmodel/queries.ts'
import { placesOf } from '@web/parts/places.ts'
import { hereWords, partOfCode, placesWords } from './buyingwords.ts'

interface Props {
  part: StockPart
  at: StockAnswer
  /** Opened by a scanner: the next thing typed is how many are there. */
  isScanned: boolean
  onOpen: (partId: string) => void
}
/** What is here of a part, place by place; counted, come in, carried. */
export function Here({ part, at, isScanned, onOpen }: Props) {
  const count = useSave('/parts/count')
  const came = useSave('/parts/received')
  // Where the scanner stands: said once, it holds for the next label too.
  const { get, put } = useAddress()
  const known = at.stores.some((s) => s.id === get('at')) ? get('at') : ''
  const form = useReadForm(
    { n: quantity({ of: 'count', from: 0 }), storeId: asItIs<string>() },
    { n: '', storeId: known },
  )
  // An empty field is no fault until somebody sends it: left with a tap elsewhere, nothing may move under the finger.
  // Empty at once: the next label may be scanned before the answer is there. What was not taken stands there again.
  const begin = () => {
    const storeId = form.typed('storeId')
    form.begin({ n: '', storeId })
    if (storeId !== known) put({ at: storeId })
  }
  const send = form.submit(({ n, storeId }) => {
    if (n === null) return form.refuse('n', 'How many are there?')
    begin()
    const counts = [{ partId: part.partId, quantity: n }]
    count.mutate({ counts, ...(storeId ? { storeId } : {}) }, { onError: () => form.put('n', String(n)) })
  })
  useEffect(() => {
    if (isScanned) document.getElementById('stock-n')?.focus()
  }, [isScanned])
  // The next bin's label, scanned into the field.
  const next = (event: React.KeyboardEvent) => {
    if (event.key !== 'Enter') return
    const scanned = partOfCode(at.parts, form.typed('n'))
    if (!scanned) return
    event.preventDefault()
    begin()
    onOpen(scanned.partId)
  }
  const arrive = form.submit(({ n, storeId }) => {
    if (n === null) return form.refuse('n', 'How many came?')
    if (n < 1) return form.refuse('n', 'A delivery of none puts nothing on the shelf.')
    begin()
    const said = { partId: part.partId, quantity: n, ...(storeId ? { storeId } : {}) }
    came.mutate(said, { onError: () => form.put('n', String(n)) })
  })
  const places = placesWords(part, at)
  return (
    <div>
      <h3>Here</h3>
      <p>{hereWords(part, at)}</p>
      {places ? <p>{places}</p> : null}
      <Coming part={part} at={at} />
      <form className="stock-count" noValidate onSubmit={send} onKeyDown={next}>
        <QuantityField form={form} name="n" id="stock-n" label="how many" />
        {at.stores.length > 0 ? (
          <PickTyped form={form} name="storeId" id="stock-at" label="where" options={placesOf(at)} />
        ) : null}
        <Button type="submit" variant="chalk" disabled={count.isPending}>
          Counted
        </Button>
        <Button variant="outline-chalk" disabled={came.isPending} onClick={arrive}>
          Came in
        </Button>
      </form>
      <Trouble problem={count.error ?? came.error} />
      {at.stores.length > 0 ? <Carry part={part} at={at} /> : null}
      <Lies part={part} />
    </div>
  )
}

const Coming = ({ part, at }: Pick<Props, 'part' | 'at'>) =>
  part.coming.map((c) => (
    <p key={c.dueMs}>
      {c.quantity} more{' '}
      {c.isLate ? (
        <strong>should have come {shortDate(c.dueMs, at.zone)}</strong>
      ) : (
        `due ${shortDate(c.dueMs, at.zone)}`
      )}
      .
    </p>
  ))

/** From one place to another. */
function Carry({ part, at }: Pick<Props, 'part' | 'at'>) {
  const [isOpen, setOpen] = useState(false)
  const save = useSave('/parts/carry')
  const form = useReadForm(
    { n: quantity({ of: 'count', from: 1 }), from: asItIs<string>(), to: asItIs<string>() },
    { n: '', from: '', to: at.stores[0]?.id ?? '' },
  )
  if (!isOpen)
    return (
      <p>
        <Bare onClick={() => setOpen(true)}>carry some to another place</Bare>
      </p>
    )
  const send = form.submit(({ n, from, to }) => {
    if (n === null) return form.refuse('n', 'How many?')
    if (from === to) return form.refuse('to', 'They lie there already.')
    const lines = [{ partId: part.partId, quantity: n }]
    save.mutate({ fromStoreId: from || null, toStoreId: to || null, lines }, { onSuccess: () => setOpen(false) })
  })
  return (
    <form className="stock-count" noValidate onSubmit={send}>
      <QuantityField form={form} name="n" id="carry-n" label="carry" />
      <PickTyped form={form} name="from" id="carry-from" label="from" options={placesOf(at)} />
      <PickTyped form={form} name="to" id="carry-to" label="to" options={placesOf(at)} />
      <Button type="submit" variant="chalk" disabled={save.isPending}>
        Carried
      </Button>
      <Trouble problem={save.error} />
    </form>
  )
}

/** Where it lies, and how many go there. */
function Lies({ part }: { part: StockPart }) {
  const [isOpen, setOpen] = useState(false)
  const save = useSave('/parts/shelf')
  const form = useReadForm(
    { shelf: words, shelfMost: quantity({ of: 'count', from: 1 }) },
    { shelf: part.shelf ?? '', shelfMost: part.shelfMost === null ? '' : String(part.shelfMost) },
  )
  if (!isOpen)
    return (
      <p className="dim">
        {part.shelf ? `Lies in: ${part.shelf}` : 'Nobody said where it lies'}
        {part.shelfMost === null ? '' : `; ${part.shelfMost} go there`}.{' '}
        <Bare onClick={() => setOpen(true)}>{part.shelf ? 'elsewhere' : 'say it'}</Bare>
      </p>
    )
  const send = form.submit((read) => save.mutate({ partId: part.partId, ...read }, { onSuccess: () => setOpen(false) }))
  return (
    <form className="stock-count" noValidate onSubmit={send}>
      <TypedField form={form} name="shelf" id="stock-shelf" label="lies in" maxLength={40} />
      <QuantityField form={form} name="shelfMost" id="stock-most" label="go there at most" />
      <Button type="submit" variant="chalk" disabled={save.isPending}>
        Keep
      </Button>
      <Trouble problem={save.error} />
    </form>
  )
}
