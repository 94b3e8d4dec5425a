import { Table } from 'react-bootstrap'
import { type PaybackAnswer } from '@contract/payback.ts'
import { forUnit, minutes, twoFigures, unitWord, type Units } from '@web/format/numbers.ts'
import { diffuserSentence, spanOf } from './paybackwords.ts'
import { Sideways } from '../kit/Sideways.tsx'

type Rates = PaybackAnswer['rates']
/** With its spread, per 100 lb where the shop counts in pounds. */
const ofWire = (r: Rates[number]['per100kg'], units: Units) =>
  r && { rate: forUnit(r.rate, 'kg', units), low: forUnit(r.low, 'kg', units), high: forUnit(r.high, 'kg', units) }
/** "1 h in 500": of the time it should have run. */
const stoodWords = (upShare: number | null) =>
  upShare === null ? '–' : upShare >= 1 ? 'none' : `1 h in ${twoFigures(1 / (1 - upShare))}`

/** Left out on a phone. */
const WIDE = 'text-end d-none d-md-table-cell'
/** How often it stood for what was welded, with exact intervals. */
export function RatesTable({ rates, units }: { rates: Rates; units: Units }) {
  const isEstimated = rates.some((r) => r.estimatedShare > 0.2)
  return (
    <Sideways as="section" aria-label="How often">
      <h2>How often, for what was welded</h2>
      <Table className="payback-table">
        <thead>
          <tr>
            <th>where</th>
            <th className="text-end">stops</th>
            <th className="text-end">for 100 arc hours</th>
            <th className={WIDE}>for 100 {unitWord('kg', units)}</th>
            <th className={WIDE}>arc hours from one to the next</th>
            <th className="text-end">each</th>
            <th className={WIDE}>stood</th>
            <th className={WIDE}>diffusers for 100 tips</th>
          </tr>
        </thead>
        <tbody>
          {rates.map((r) => (
            <tr key={r.areaId ?? 'all'}>
              <th scope="row">{r.areaId === null ? 'Everywhere' : r.name}</th>
              <td className="text-end">{r.stops}</td>
              <td className="text-end">{spanOf(r.per100h)}</td>
              <td className={WIDE}>{spanOf(ofWire(r.per100kg, units))}</td>
              <td className={WIDE}>{r.betweenArcH === null ? '–' : twoFigures(r.betweenArcH)}</td>
              <td className="text-end">{r.meanMin === null ? '–' : minutes(r.meanMin)}</td>
              <td className={WIDE}>{stoodWords(r.upShare)}</td>
              <td className={WIDE}>{spanOf(r.diffusersFor100Tips)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="dim">
        In brackets what it may truly be, 19 times in 20, from so few stops.
        {isEstimated ? ' Some of the hours nobody counted: est., from wire or from the usual rate.' : ''}{' '}
        {diffuserSentence(rates)}
      </p>
    </Sideways>
  )
}
