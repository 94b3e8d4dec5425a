import { Table } from 'react-bootstrap'
import { type ImportPreview, type NoteDecision } from '@contract/ingest.ts'
import { PickOne, type Option } from '@web/kit/Field.tsx'
import { FillField } from './FillField.tsx'
import { counts, FILLABLE, notesWould, rowName } from './sheetwords.ts'
import { type useSheet } from './useSheet.ts'
import { Sideways } from '../kit/Sideways.tsx'

/** What was read in a sheet: what is wrong cell by cell, which column is which, and its first rows. */
export function Previewed({ preview, sheet }: { preview: ImportPreview; sheet: ReturnType<typeof useSheet> }) {
  const { bad, rowNames } = preview
  const isFilled = (key: string) => Boolean(sheet.said.fill?.[key])
  return (
    <>
      <h2>{verdictOn(preview, sheet.decisions)}</h2>
      {bad.length > 0 ? (
        <Grid
          heads={['row', 'column', 'it says', 'why not']}
          rows={bad
            .slice(0, MOST_SHOWN)
            .map((b) => [rowName(b.row, rowNames), b.column, b.value ? `“${b.value}”` : 'nothing', b.why])}
        />
      ) : null}
      {preview.leftOut.length > 0 ? (
        <details>
          <summary>
            {preview.leftOut.length} {preview.leftOut.length === 1 ? 'row says' : 'rows say'} nothing to take in: left
            out
          </summary>
          <p className="small-print">
            {preview.leftOut.map((l) => `row ${rowName(l.row, rowNames)}: ${l.text}`).join(' · ')}
          </p>
        </details>
      ) : null}
      <div className="built-form align-items-start">
        {preview.wanted.map((w) => (
          <div key={w.key} className="d-grid gap-1">
            <PickOne
              id={`col-${w.key}`}
              label={`${w.label}${w.isNeeded ? '' : ' (if any)'}`}
              none="no such column"
              value={isFilled(w.key) ? '' : String(preview.columns[w.key] ?? '')}
              options={preview.headings.map((h, i): Option => [String(i), h || `column ${i + 1}`])}
              onPick={(v) => sheet.remap(w.key, v === '' ? null : Number(v))}
            />
            {FILLABLE.has(w.key) && !w.isNeeded && (isFilled(w.key) || preview.columns[w.key] === undefined) ? (
              <FillField column={w} sheet={sheet} />
            ) : null}
          </div>
        ))}
      </div>
      <Grid heads={preview.headings} rows={preview.sample} />
    </>
  )
}

function verdictOn(
  { bad, rows, would, canTake, kind, groups }: ImportPreview,
  decisions: Record<string, NoteDecision>,
) {
  const does = counts(kind === 'history' ? notesWould(groups, decisions) : would)
  if (bad.length === 0)
    return rows === 1 ? `Its one row can be read: ${does}.` : `All ${rows} rows can be read: ${does}.`
  const isOne = bad.length === 1
  const cells = isOne ? 'One cell to mend' : `${bad.length} cells to mend`
  if (!canTake) return `${cells}; nothing is taken before that.`
  return `${cells}, or ${isOne ? 'it is left out' : 'they are left out'}.`
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
