import { useEffect, useRef, useState } from 'react'
import { Table } from 'react-bootstrap'
import { type OfferLine, type StockAnswer, type StockPart } from '@contract/stock.ts'
import { aboutMoney, type Units } from '@web/format/numbers.ts'
import { capital, inN } from '@web/format/words.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Sideways } from '@web/kit/Sideways.tsx'
import { HandOut } from './HandOut.tsx'
import { Here } from './Here.tsx'
import { OfferForm } from './OfferForm.tsx'
import { buyBecause, buyWords, leadWords, needBecause, needWords, nowOrWait, priceWords } from './buyingwords.ts'

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
