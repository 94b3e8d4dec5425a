import { Button, Form } from 'react-bootstrap'
import { priceAt } from '@core/stock/ordersize.ts'
import { type StockAnswer, type StockPart } from '@contract/stock.ts'
import { aboutMoney } from '@web/format/numbers.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { bridgeWorth, isShort, isToOrder } from './buyingwords.ts'
import { useCounts } from './counts.ts'

interface Proposed {
  part: StockPart
  quantity: number
  each: number
}
type Lists = Map<string, Proposed[]>
const add = (lists: Lists, supplierId: string, line: Proposed) =>
  lists.set(supplierId, [...(lists.get(supplierId) ?? []), line])

/** What is to be ordered, by supplier, as it is proposed: every number can be another. What an order would come too late for is bridged first. */
export function ToOrder({ at, onOpen }: { at: StockAnswer; onOpen: (partId: string) => void }) {
  const inUse = at.parts.filter((p) => p.inUse > 0)
  const wanted = inUse.filter((p) => (isShort(p) || isToOrder(p)) && !isComing(p))
  const unsold = wanted.filter((p) => offerOf(p)?.supplierId == null)
  const [orders, bridges]: [Lists, Lists] = [new Map(), new Map()]
  for (const part of wanted) {
    const id = offerOf(part)?.supplierId
    if (id) add(orders, id, { part, quantity: part.advice?.quantity ?? 0, each: part.advice?.eachMinor ?? 0 })
  }
  for (const part of inUse) {
    const bridge = bridgeWorth(part)
    const by = bridge && part.offers.find((o) => o.supplierName === bridge.supplierName)
    if (!bridge || !by?.supplierId) continue
    const each = priceAt(by, bridge.quantity)
    add(bridges, by.supplierId, { part, quantity: bridge.quantity, each })
  }
  if (wanted.length === 0 && bridges.size === 0) return null
  const list = (lists: Lists) =>
    [...lists].map(([supplierId, lines]) => (
      <OneSupplier
        key={`${supplierId} ${lines.map((l) => l.part.code).join(' ')}`}
        {...{ supplierId, lines, at, onOpen }}
      />
    ))
  return (
    <>
      {bridges.size > 0 ? (
        <section aria-label="Bridge it today">
          <h2>Bridge it today</h2>
          <p className="dim">What comes otherwise comes too late for these: so many carry over until it is here.</p>
          {list(bridges)}
        </section>
      ) : null}
      {wanted.length > 0 ? (
        <section aria-label="To order">
          <h2>To order</h2>
          {list(orders)}
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
      ) : null}
    </>
  )
}
/** What is coming is enough until then: it is looked at under what is on its way. */
const isComing = (p: StockPart) => p.coming.length > 0 && !isToOrder(p)
const offerOf = (p: StockPart) => p.offers.find((o) => o.id !== null && o.id === p.advice?.offerId)

function OneSupplier(props: {
  supplierId: string
  lines: readonly Proposed[]
  at: StockAnswer
  onOpen: (partId: string) => void
}) {
  const { supplierId, at } = props
  const order = useSave('/parts/order')
  const rows = props.lines.map((l) => ({ ...l, partId: l.part.partId }))
  const { unread, counted, field } = useCounts(rows, (l) => l.quantity)
  const lines = counted.map(({ row, quantity }) => ({ partId: row.part.partId, quantity, each: row.each }))
  const total = lines.reduce((sum, l) => sum + l.quantity * l.each, 0)
  const name = at.suppliers.find((s) => s.id === supplierId)?.name ?? ''
  return (
    <div className="order">
      <p>
        <strong>{name}</strong>
        {total > 0 && unread.length === 0 ? `, about ${aboutMoney(total, at.currency)}` : ''}
      </p>
      <ul className="order-lines">
        {rows.map((row) => (
          <li key={row.partId}>
            <label>
              <span>
                <Bare onClick={() => props.onOpen(row.partId)}>{row.part.code}</Bare>{' '}
                <span className="dim">{row.part.name}</span>
                {isShort(row.part) ? <strong> short</strong> : null}
              </span>
              <Form.Control {...field(row, `${row.part.code}: how many to order`)} />
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
