import { Table } from 'react-bootstrap'
import { type ImportPreview } from '@contract/ingest.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { counts } from './sheetwords.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** What was read in a sheet: what is wrong cell by cell, which column is which, and its first rows. */
export function Previewed(props: { preview: ImportPreview; onColumn: (key: string, index: number | null) => void }) {
  const { preview } = props
  const { bad } = preview
  return (
    <>
      <h2>{verdictOn(preview)}</h2>
      {bad.length > 0 ? (
        <Grid
          heads={['row', 'column', 'it says', 'why not']}
          rows={bad
            .slice(0, MOST_SHOWN)
            .map((b) => [String(b.row), b.column, b.value ? `“${b.value}”` : 'nothing', b.why])}
        />
      ) : null}
      {preview.leftOut.length > 0 ? (
        <details>
          <summary>
            {preview.leftOut.length} {preview.leftOut.length === 1 ? 'row says' : 'rows say'} nothing to take in: left
            out
          </summary>
          <p className="small-print">{preview.leftOut.map((l) => `row ${l.row}: ${l.text}`).join(' · ')}</p>
        </details>
      ) : null}
      <div className="built-form">
        {preview.wanted.map((w) => (
          <PickOne
            key={w.key}
            id={`col-${w.key}`}
            label={`${w.label}${w.isNeeded ? '' : ' (if any)'}`}
            none="no such column"
            value={String(preview.columns[w.key] ?? '')}
            options={preview.headings.map((h, i) => [String(i), h || `column ${i + 1}`])}
            onPick={(v) => props.onColumn(w.key, v === '' ? null : Number(v))}
          />
        ))}
      </div>
      <Grid heads={preview.headings} rows={preview.sample} />
    </>
  )
}

function verdictOn({ bad, rows, would, canTake }: ImportPreview): string {
  if (bad.length === 0) return `All ${rows} rows can be read: ${counts(would)}.`
  const cells = `${bad.length} ${bad.length === 1 ? 'cell' : 'cells'} to mend`
  return canTake ? `${cells}, or their rows are left out.` : `${cells}; nothing is taken before that.`
}

const MOST_SHOWN = 200

function Grid({ heads, rows }: { heads: readonly string[]; rows: readonly (readonly string[])[] }) {
  return (
    <Sideways>
      <Table>
        <thead>
          <tr>
            {heads.map((h, i) => (
              <th key={i}>{h}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((c, j) => (
                <td key={j}>{c}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </Sideways>
  )
}
