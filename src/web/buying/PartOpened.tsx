import { useEffect, useRef, useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { type OfferLine, type StockAnswer, type StockPart } from '@contract/stock.ts'
import { aboutMoney, type Units } from '@web/format/numbers.ts'
import { shortDate } from '@web/format/times.ts'
import { capital, inN } from '@web/format/words.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { quantity, useReadForm, words } from '@web/kit/readform.ts'
import { Sideways } from '@web/kit/Sideways.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { HandOut } from './HandOut.tsx'
import { OfferForm } from './OfferForm.tsx'
import {
  buyBecause,
  partOfCode,
  buyWords,
  hereWords,
  leadWords,
  needBecause,
  needWords,
  nowOrWait,
  priceWords,
} from './buyingwords.ts'

interface Props {
  part: StockPart
  at: StockAnswer
  units: Units
  isOwner: boolean
  /** Opened by a scanner: the next thing typed is how many are there. */
  isScanned: boolean
  onOpen: (partId: string) => void
}
/** One part: what is here, what will be asked for, what to buy and why. */
export function PartOpened(props: Props) {
  const { part, at } = props
  const top = useRef<HTMLElement>(null)
  // Below a phone's many bins it would open out of sight.
  useEffect(() => void top.current?.scrollIntoView({ block: 'nearest' }), [])
  return (
    <section ref={top} className="stock-open" aria-label={`${part.code}, ${part.name}`}>
      <h2>
        {part.code} <span className="dim">{part.code === part.name ? part.kindName : part.name}</span>
      </h2>
      <div className="stock-three">
        <Here {...props} />
        <div>
          <h3>Will be wanted</h3>
          <p>{needWords(part, at.untilDays)}</p>
          <p className="dim">{needBecause(part)}</p>
          <HandOut part={part} />
        </div>
        <Buy part={part} at={at} />
      </div>
      <Offers {...props} />
    </section>
  )
}

function Here({ part, at, isScanned, onOpen }: Props) {
  const count = useSave('/parts/count')
  const came = useSave('/parts/received')
  const form = useReadForm({ n: quantity({ of: 'count', from: 0 }) }, { n: '' })
  // An empty field is no fault until somebody sends it: left with a tap elsewhere, nothing may move under the finger.
  // Empty at once: the next label may be scanned before the answer is there. What was not taken stands there again.
  const send = form.submit(({ n }) => {
    if (n === null) return form.refuse('n', 'How many are there?')
    form.begin({ n: '' })
    count.mutate({ counts: [{ partId: part.partId, quantity: n }] }, { onError: () => form.put('n', String(n)) })
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
    form.begin({ n: '' })
    onOpen(scanned.partId)
  }
  const arrive = form.submit(({ n }) => {
    if (n === null) return form.refuse('n', 'How many came?')
    if (n < 1) return form.refuse('n', 'A delivery of none puts nothing on the shelf.')
    form.begin({ n: '' })
    came.mutate({ partId: part.partId, quantity: n }, { onError: () => form.put('n', String(n)) })
  })
  return (
    <div>
      <h3>Here</h3>
      <p>{hereWords(part, at)}</p>
      {part.coming.map((c) => (
        <p key={c.dueMs}>
          {c.quantity} more{' '}
          {c.isLate ? (
            <strong>should have come {shortDate(c.dueMs, at.zone)}</strong>
          ) : (
            `due ${shortDate(c.dueMs, at.zone)}`
          )}
          .
        </p>
      ))}
      <form className="stock-count" noValidate onSubmit={send} onKeyDown={next}>
        <QuantityField form={form} name="n" id="stock-n" label="how many" />
        <Button type="submit" variant="chalk" disabled={count.isPending}>
          Counted
        </Button>
        <Button variant="outline-chalk" disabled={came.isPending} onClick={arrive}>
          Came in
        </Button>
      </form>
      <Trouble problem={count.error ?? came.error} />
      <Lies part={part} />
    </div>
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

function Buy({ part, at }: Pick<Props, 'part' | 'at'>) {
  const { advice } = part
  if (!advice)
    return (
      <div>
        <h3>Buy</h3>
        <p>
          Nothing to say yet: count the shelf twice, some weeks apart, or bring the purchase list in, and what is wanted
          shows.
        </p>
      </div>
    )
  const wait = nowOrWait(part, at)
  return (
    <div>
      <h3>Buy</h3>
      <p>
        <strong>{buyWords(part, at)}</strong>
      </p>
      <p className="dim">{buyBecause(part, at)}</p>
      {wait ? <p>{wait}</p> : null}
      <p className="dim">
        {advice.weekWithoutMinor >= 100
          ? `A week without it costs about ${aboutMoney(advice.weekWithoutMinor, at.currency)}.`
          : 'What standing costs nobody has said: Our shop, places, rates.'}
        {part.ready > 0
          ? ` ${capital(`${part.ready} ready ${part.ready === 1 ? 'gun' : 'guns'}`)} of the family would be hung first.`
          : ''}
        {advice.tiedUpMinor >= 100 ? ` About ${aboutMoney(advice.tiedUpMinor, at.currency)} lie there on average.` : ''}
      </p>
    </div>
  )
}

/** Who sells it, side by side: what an order of today comes to by each. */
function Offers({ part, at, isOwner, units }: Props) {
  const [openId, setOpen] = useState<string | null>(null)
  const said = part.offers.filter((o) => o.id !== null)
  return (
    <>
      {said.length > 0 ? (
        <Sideways>
          <Table className="stock-offers">
            <thead>
              <tr>
                <th>from</th>
                <th>price each</th>
                <th className="num">pack of</th>
                <th>takes</th>
                <th>known to fit</th>
                <th>an order of today</th>
                <th>short until then</th>
              </tr>
            </thead>
            <tbody>
              {said.map((o) => (
                <tr key={o.id}>
                  <td>
                    {isOwner ? <Bare onClick={() => setOpen(o.supplierId)}>{o.supplierName}</Bare> : o.supplierName}
                    {o.theirCode ? <span className="dim"> {o.theirCode}</span> : null}
                  </td>
                  <td>{priceWords(o, at.currency)}</td>
                  <td className="num">{o.packOf}</td>
                  <td>{leadWords(o)}</td>
                  <td>{o.isSure ? 'yes' : 'only heard: try it out on a few guns first'}</td>
                  <td>{todayWords(o, at)}</td>
                  <td>{part.onHand === null ? '' : inN(o.chanceShort)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Sideways>
      ) : (
        <p className="dim">
          Nobody said who sells it: the week an order takes{part.advice?.eachMinor == null ? '' : ' and its price'} is a
          guess.
        </p>
      )}
      {isOwner ? (
        openId === null ? (
          <p>
            <Bare onClick={() => setOpen('')}>{said.length > 0 ? 'somebody else sells it' : 'say who sells it'}</Bare>
          </p>
        ) : (
          <OfferForm key={openId} part={part} at={at} supplierId={openId} units={units} onDone={() => setOpen(null)} />
        )
      ) : null}
    </>
  )
}
function todayWords(o: OfferLine, at: StockAnswer): string {
  if (o.quantity === 0) return ''
  const stand = o.standMinor >= 100 ? `, and about ${aboutMoney(o.standMinor, at.currency)} of standing` : ''
  return `${o.quantity} for ${aboutMoney(o.minor, at.currency)}${stand}`
}
