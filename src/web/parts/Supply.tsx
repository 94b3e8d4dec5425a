import { Table } from 'react-bootstrap'
import { type LoggingShareLine, type SupplyAnswer } from '@contract/parts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { shortDate } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { CountShelves } from './CountShelves.tsx'
import { Delivery } from './Delivery.tsx'
import { WeighTin } from './WeighTin.tsx'
import { useSupply } from './queries.ts'
import { boughtSentence, shareBand, shareWord, SOURCE_WORD } from './supplywords.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** Things that cannot forget: the purchase list, the shelf, the tin. What they tell first, then where to say it. */
export function Supply({ shop, isLead }: { shop: ShopAnswer; isLead: boolean }) {
  const supply = useSupply(isLead)
  if (!isLead) return null
  return (
    <div className="supply">
      <Trouble problem={supply.error} />
      {supply.data ? <Told supply={supply.data} shop={shop} /> : null}
      <div className="supply-forms">
        <WeighTin shop={shop} tins={supply.data?.tins ?? []} />
        <Delivery shop={shop} />
        <CountShelves shop={shop} />
      </div>
    </div>
  )
}

export function Told({ supply, shop }: { supply: SupplyAnswer; shop: ShopAnswer }) {
  const { units } = shop.site
  return (
    <>
      {supply.bought.length > 0 ? (
        <section aria-label="As bought">
          {supply.bought.slice(0, 4).map((line) => (
            <p className="bought" key={line.kindKey}>
              {boughtSentence(line, units)}
            </p>
          ))}
        </section>
      ) : (
        <p className="said">
          A purchase list tells what a part costs in wire before anything is logged: item, month, how many. Bring it in
          as a sheet.
        </p>
      )}
      <h2>How much of what is changed gets logged</h2>
      {supply.shares.length > 0 ? (
        <ShareTable supply={supply} shop={shop} />
      ) : (
        <p className="said">
          Nothing tells yet. Weigh the tin of old tips two Fridays running, count the shelf twice, or bring the purchase
          list in.
        </p>
      )}
    </>
  )
}

function ShareTable({ supply, shop }: { supply: SupplyAnswer; shop: ShopAnswer }) {
  const areaName = new Map(shop.areas.map((a) => [a.id, a.name]))
  const rows = [...supply.shares].sort((a, b) => byKind(a, b) || (a.areaId === null ? -1 : 1))
  return (
    <>
      <Sideways>
        <Table>
          <thead>
            <tr>
              <th>part</th>
              <th>where</th>
              <th>told by</th>
              <th>from – to</th>
              <th className="num">taken</th>
              <th className="num">logged</th>
              <th>share logged</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((s) => (
              <tr key={`${s.kindKey} ${s.areaId} ${s.source}`}>
                <td>{s.kindName}</td>
                <td>{s.areaId ? (areaName.get(s.areaId) ?? '') : 'the whole shop'}</td>
                <td>{SOURCE_WORD[s.source]}</td>
                <td>
                  {shortDate(s.fromMs, supply.zone)} – {shortDate(s.toMs, supply.zone)}
                </td>
                <td className="num">
                  {Math.round(s.taken)}
                  {s.sdTaken >= 0.5 ? ` ± ${Math.round(1.645 * s.sdTaken)}` : ''}
                </td>
                <td className="num">{s.logged}</td>
                <td>{shareCell(s)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Sideways>
      <p className="small-print">
        The band in brackets holds the truth 9 times in 10. About {Math.round(supply.lossShare * 100)} in 100 parts
        taken are lost or pocketed, not put on: a guess of the trade, allowed for. Shares are per bay and kind of part,
        never per person.
      </p>
    </>
  )
}

const byKind = (a: LoggingShareLine, b: LoggingShareLine) =>
  a.kindName < b.kindName ? -1 : a.kindName > b.kindName ? 1 : 0

function shareCell(line: LoggingShareLine): string {
  if (line.share === null) return `can’t tell yet: ${line.reason ?? ''}`
  const over = line.isOver ? '; more logged than taken: count again' : ''
  return `${capital(shareWord(line.share))}${shareBand(line)}${over}`
}
