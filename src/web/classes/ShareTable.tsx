import { Table } from 'react-bootstrap'

export interface ShareRow {
  says: string
  groupName: string | null
  good: number
  of: number
  /** Of all such, likely between. */
  low: number
  high: number
}
/** What groups know or find, thing by thing: counts with their spread, nobody’s. */
export function ShareTable(props: { title: string; about: string; good: string; rows: readonly ShareRow[] }) {
  const { title, about, good, rows } = props
  if (rows.length === 0) return null
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <Table className="group-table">
        <thead>
          <tr>
            <th scope="col">{about}</th>
            <th scope="col">group</th>
            <th scope="col">{good}</th>
            <th scope="col">of 100, likely</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={`${r.groupName} ${r.says}`}>
              <th scope="row">{r.says}</th>
              <td>{r.groupName ?? 'no class then'}</td>
              <td>
                {r.good} of {r.of}
              </td>
              <td>
                {Math.round(r.low * 100)} to {Math.round(r.high * 100)}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  )
}
