import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type OrderAnswer, type StockAnswer } from '@contract/stock.ts'
import { money } from '@web/format/numbers.ts'
import { shortDate } from '@web/format/times.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { isCount } from './buyingwords.ts'

/** Orders that are not all in: what came is put on the shelf from here. */
export function OnTheWay({ at }: { at: StockAnswer }) {
  if (at.orders.length === 0) return null
  return (
    <section aria-label="On the way">
      <h2>On the way</h2>
      {at.orders.map((order) => (
        <OneOrder key={order.id} order={order} at={at} />
      ))}
    </section>
  )
}

const leftOf = (l: OrderAnswer['lines'][number]) => Math.max(0, l.quantity - l.received)

function OneOrder({ order, at }: { order: OrderAnswer; at: StockAnswer }) {
  const came = useSave('/parts/order/received')
  const close = useSave('/parts/order/closed')
  const [counts, setCounts] = useState<Record<string, string>>({})
  const open = order.lines.filter((l) => leftOf(l) > 0)
  const typed = (l: OrderAnswer['lines'][number]) => counts[l.partId] ?? String(leftOf(l))
  const unread = open.some((l) => !isCount(typed(l)))
  const lines = open
    .map((l) => ({ partId: l.partId, quantity: Number(typed(l)) }))
    .filter((l) => l.quantity > 0 && Number.isInteger(l.quantity))
  const total = order.lines.reduce((sum, l) => sum + (l.eachMinor ?? 0) * l.quantity, 0)
  return (
    <div className={order.isLate ? 'order order-late' : 'order'}>
      <p>
        <strong>{order.supplierName}</strong>, ordered {shortDate(order.orderedMs, at.zone)}
        {total > 0 ? `, ${money(total, at.currency)}` : ''}:{' '}
        {order.isLate ? (
          <strong>late, due {shortDate(order.dueMs, at.zone)}</strong>
        ) : (
          `due ${shortDate(order.dueMs, at.zone)}`
        )}
        . <a href={`/api/parts/order.pdf?id=${order.id}`}>on paper</a>{' '}
        <a href={`/api/parts/order.csv?id=${order.id}`}>as a sheet</a>
      </p>
      <ul className="order-lines">
        {open.map((l) => (
          <li key={l.partId}>
            <label>
              <span>
                <strong>{l.code}</strong> <span className="dim">{l.name}</span>
                {l.received > 0 ? <span className="dim">, {l.received} are in</span> : null}
              </span>
              <Form.Control
                inputMode="numeric"
                aria-label={`${l.code}: how many came`}
                value={typed(l)}
                onChange={(e) => setCounts({ ...counts, [l.partId]: e.target.value })}
              />
            </label>
          </li>
        ))}
      </ul>
      {unread ? <p className="small-print">Write whole numbers: 0 for what did not come.</p> : null}
      <Button
        variant="chalk"
        disabled={came.isPending || unread || lines.length === 0}
        onClick={() => came.mutate({ orderId: order.id, lines }, { onSuccess: () => setCounts({}) })}
      >
        It came: on the shelf
      </Button>{' '}
      <Bare disabled={close.isPending} onClick={() => close.mutate({ orderId: order.id })}>
        the rest does not come
      </Bare>
      <Trouble problem={came.error ?? close.error} />
    </div>
  )
}
