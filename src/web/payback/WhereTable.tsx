import { Table } from 'react-bootstrap'
import { type PaybackAnswer } from '@contract/payback.ts'
import { aboutMoney, minutes } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { costWords, heapMinor, placeOf, priceWords } from './paybackwords.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** Left out on a phone. */
const WIDE = 'd-none d-md-table-cell'
/** Where it began, the dearest first: the part's price beside what its stops cost. */
export function WhereTable({ at }: { at: PaybackAnswer }) {
  const heaps = [...at.heaps]
    .filter((h) => h.now.stops > 0)
    .sort((a, b) => heapMinor(b.now) - heapMinor(a.now) || b.now.minutes - a.now.minutes)
  if (heaps.length === 0) return null
  return (
    <Sideways as="section" aria-label="Where it began">
      <Table className="payback-table">
        <thead>
          <tr>
            <th>where it began</th>
            <th className="text-end">stops</th>
            <th className="text-end">time</th>
            {at.isMoney ? <th className="text-end">money</th> : null}
            {at.isMoney ? <th className={WIDE}>of it</th> : null}
            {at.isMoney ? <th className={WIDE}>the part</th> : null}
          </tr>
        </thead>
        <tbody>
          {heaps.map((h) => (
            <tr key={h.column ?? 'unsaid'}>
              <th scope="row">{capital(placeOf(h.column))}</th>
              <td className="text-end">{h.now.stops}</td>
              <td className="text-end">{minutes(h.now.minutes)}</td>
              {at.isMoney ? <td className="text-end">{aboutMoney(heapMinor(h.now), at.currency)}</td> : null}
              {at.isMoney ? (
                <td className={`dim ${WIDE}`}>{h.now.cost ? costWords(h.now.cost, at.currency) : ''}</td>
              ) : null}
              {at.isMoney ? (
                <td className={`dim ${WIDE}`}>{priceWords(h.partMinor, h.partKind, at.currency)}</td>
              ) : null}
            </tr>
          ))}
        </tbody>
      </Table>
    </Sideways>
  )
}
