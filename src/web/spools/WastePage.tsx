import { Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { type WasteAnswer } from '@contract/waste.ts'
import { aboutMoney, type Units } from '@web/format/numbers.ts'
import { Sideways } from '@web/kit/Sideways.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useMe } from '@web/people/queries.ts'
import { Packages } from './Packages.tsx'
import { weight } from './spoolwords.ts'
import { useWaste } from './queries.ts'
import { CUT_WORD, shareWords, WASTE_WORD, wasteTold } from './wastewords.ts'

/** Where wire goes that never becomes weld, what would cut it, and whether bigger spools or a drum would pay. */
export function WastePage() {
  const waste = useWaste()
  const units = useMe().data?.units ?? 'metric'
  if (!waste.data)
    return (
      <main className="spools">
        <Waiting says="Adding up what was lost" problem={waste.error} />
      </main>
    )
  const at = waste.data
  return (
    <main className="spools">
      <h1 className="sentence">{wasteTold(at, units)}</h1>
      <p className="honesty dim">
        Not measured here: wire fed with the trigger held and no arc, gas that runs while wire is threaded. Feeders that
        send their counters would tell the first.{' '}
        <Link className="bare" to="/spools">
          spools
        </Link>{' '}
        <Link className="bare" to="/jobs">
          wire for jobs
        </Link>
      </p>
      {at.whys.length > 0 ? <Whys at={at} units={units} /> : null}
      {at.areas.length > 0 ? <Where at={at} units={units} /> : null}
      <Packages at={at} units={units} />
    </main>
  )
}

const money = (minor: number | null, currency: string) => (minor === null ? 'no price' : aboutMoney(minor, currency))

function Whys({ at, units }: { at: WasteAnswer; units: Units }) {
  return (
    <Sideways as="section" aria-label="By why">
      <Table className="payback-table">
        <thead>
          <tr>
            <th>wire lost</th>
            <th className="text-end">times</th>
            <th className="text-end">how much</th>
            <th className="text-end">money</th>
            <th>what would cut it</th>
          </tr>
        </thead>
        <tbody>
          {at.whys.map((w) => (
            <tr key={w.why}>
              <th scope="row">{WASTE_WORD[w.why]}</th>
              <td className="text-end">{w.times}</td>
              <td className="text-end">{weight(w.kg, units)}</td>
              <td className="text-end">{money(w.minor, at.currency)}</td>
              <td>{CUT_WORD[w.why]}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Sideways>
  )
}

const MONTH = new Intl.DateTimeFormat('en', { month: 'short', year: 'numeric', timeZone: 'UTC' })
const monthName = (month: string) => MONTH.format(Date.parse(`${month}-01T00:00:00Z`))

function Where({ at, units }: { at: WasteAnswer; units: Units }) {
  return (
    <div className="stock-three">
      <section aria-label="By area">
        <h2>Where</h2>
        <ul className="plain">
          {at.areas.map((a) => (
            <li key={a.areaId}>
              <strong>{a.name}</strong>: {weight(a.kg, units)}, most {WASTE_WORD[a.most]}
              {a.perTonne === null ? '' : `; ${shareWords(a.perTonne / 1000)} of its wire`}.
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="By month">
        <h2>When</h2>
        <ul className="plain">
          {at.byMonth.map((m) => (
            <li key={m.month}>
              {monthName(m.month)}: {m.times === 0 ? <span className="dim">nothing noted</span> : weight(m.kg, units)}
              {m.minor === null ? '' : `, ${aboutMoney(m.minor, at.currency)}`}
            </li>
          ))}
        </ul>
      </section>
    </div>
  )
}
