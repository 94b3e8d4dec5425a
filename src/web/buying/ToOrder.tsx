import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type StockAnswer, type StockPart } from '@contract/stock.ts'
import { aboutMoney } from '@web/format/numbers.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { isCount, isShort, isToOrder } from './buyingwords.ts'

/** What is to be ordered, by supplier, as it is proposed: every number can be another. */
export function ToOrder({ at, onOpen }: { at: StockAnswer; onOpen: (partId: string) => void }) {
  const wanted = at.parts.filter((p) => p.inUse > 0 && (isShort(p) || isToOrder(p)) && !isComing(p))
  const unsold = wanted.filter((p) => offerOf(p)?.supplierId == null)
  const bySupplier = new Map<string, StockPart[]>()
  for (const p of wanted) {
    const id = offerOf(p)?.supplierId
    if (id) bySupplier.set(id, [...(bySupplier.get(id) ?? []), p])
  }
  if (wanted.length === 0) return null
  return (
    <section aria-label="To order">
      <h2>To order</h2>
      {[...bySupplier].map(([supplierId, parts]) => (
        <OneSupplier
          key={`${supplierId} ${parts.map((p) => p.code).join(' ')}`}
          supplierId={supplierId}
          parts={parts}
          at={at}
          onOpen={onOpen}
        />
      ))}
      {unsold.length > 0 ? (
        <p>
          Nobody said who sells{' '}
          {unsold.map((p, i) => (
            <span key={p.partId}>
              {i > 0 ? ', ' : ''}
              <Bare onClick={() => onOpen(p.partId)}>{p.code}</Bare>
            </span>
          ))}
          : open one and say it, then it is ordered from here.
        </p>
      ) : null}
    </section>
  )
}
/** What is coming is enough until then: it is looked at under what is on its way. */
const isComing = (p: StockPart) => p.coming.length > 0 && !isToOrder(p)
const offerOf = (p: StockPart) => p.offers.find((o) => o.id !== null && o.id === p.advice?.offerId)

function OneSupplier(props: {
  supplierId: string
  parts: readonly StockPart[]
  at: StockAnswer
  onOpen: (partId: string) => void
}) {
  const { supplierId, parts, at } = props
  const order = useSave('/parts/order')
  const [typed, setTyped] = useState<Record<string, string>>({})
  const textOf = (p: StockPart) => typed[p.partId] ?? String(p.advice?.quantity ?? 0)
  const unread = parts.filter((p) => !isCount(textOf(p)))
  const lines = parts
    .map((p) => ({ partId: p.partId, quantity: Number(textOf(p)), each: p.advice?.eachMinor ?? 0 }))
    .filter((l) => l.quantity > 0)
  const total = lines.reduce((sum, l) => sum + l.quantity * l.each, 0)
  const name = at.suppliers.find((s) => s.id === supplierId)?.name ?? ''
  return (
    <div className="order">
      <p>
        <strong>{name}</strong>
        {total > 0 && unread.length === 0 ? `, about ${aboutMoney(total, at.currency)}` : ''}
      </p>
      <ul className="order-lines">
        {parts.map((p) => (
          <li key={p.partId}>
            <label>
              <span>
                <Bare onClick={() => props.onOpen(p.partId)}>{p.code}</Bare> <span className="dim">{p.name}</span>
                {isShort(p) ? <strong> short</strong> : null}
              </span>
              <Form.Control
                inputMode="numeric"
                aria-label={`${p.code}: how many to order`}
                value={textOf(p)}
                isInvalid={unread.includes(p)}
                onChange={(e) => setTyped({ ...typed, [p.partId]: e.target.value })}
              />
            </label>
          </li>
        ))}
      </ul>
      {unread.length > 0 ? <p className="small-print">Write whole numbers: 0 leaves a part out.</p> : null}
      <Button
        variant="chalk"
        disabled={order.isPending || unread.length > 0 || lines.length === 0}
        onClick={() => order.mutate({ supplierId, lines: lines.map(({ partId, quantity }) => ({ partId, quantity })) })}
      >
        Ordered
      </Button>
      <Trouble problem={order.error} />
    </div>
  )
}
