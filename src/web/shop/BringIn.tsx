import { PickField, TextField } from '@web/shell/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type ImportPreview, type ImportRequest } from '@contract/ingest.ts'
import { Trouble } from '@web/shell/Trouble.tsx'
import { usePreview, useTakeIn } from './queries.ts'

const EXAMPLE = {
  places:
    'place,area,part kind,part,put on,wire,cable\nA1,Bay A,tip,,2026-11-20,,4\nA1,Bay A,liner,,2026-09-01,,4\nA2,Bay A,,,,,4',
  usage: 'place,date,shift,arc hours,kg\nA1,2026-11-20,,2.4,\nA2,2026-11-20,,,6.1',
}

/** A sheet comes in whole or not at all: columns guessed, every bad cell named, nothing written before it is right. */
export function BringIn() {
  const [kind, setKind] = useState<ImportRequest['kind']>('places')
  const [text, setText] = useState('')
  const [columns, setColumns] = useState<Record<string, number> | undefined>()
  const preview = usePreview()
  const take = useTakeIn()
  const request = (over: Partial<ImportRequest> = {}): ImportRequest => ({
    kind,
    text,
    ...(columns ? { columns } : {}),
    ...over,
  })
  const read = (next: Partial<ImportRequest>) => {
    take.reset()
    if ((next.text ?? text).trim()) preview.mutate(request(next))
    else preview.reset()
  }
  const load = async (file: File | undefined) => {
    if (!file) return
    const loaded = await file.text()
    setText(loaded)
    setColumns(undefined)
    read({ text: loaded, columns: undefined })
  }
  const remap = (key: string, index: number | null) => {
    const next = Object.fromEntries(
      Object.entries({ ...(preview.data?.columns ?? {}), [key]: index }).filter(
        (pair): pair is [string, number] => pair[1] !== null,
      ),
    )
    setColumns(next)
    read({ columns: next })
  }
  return (
    <div className="bring">
      <div className="d-flex gap-3 flex-wrap align-items-end">
        <PickField
          id="i-kind"
          label="the sheet holds"
          value={kind}
          onChange={(e) => {
            const next = e.target.value === 'usage' ? 'usage' : 'places'
            setKind(next)
            setColumns(undefined)
            read({ kind: next, columns: undefined })
          }}
        >
          <option value="places">places and the parts on them</option>
          <option value="usage">usage per shift or day</option>
        </PickField>
        <TextField
          id="i-file"
          label="a CSV file"
          type="file"
          accept=".csv,text/csv,text/plain"
          onChange={(e) => void load((e.target as HTMLInputElement).files?.[0])}
        />
        <Button
          onClick={() => {
            setText(EXAMPLE[kind])
            setColumns(undefined)
            preview.reset()
          }}
        >
          show me an example
        </Button>
      </div>
      <TextField
        id="i-text"
        label="or paste it here"
        as="textarea"
        rows={7}
        className="sheet"
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setColumns(undefined)
        }}
        onBlur={() => read({})}
      />
      <div className="d-flex gap-2">
        <Button disabled={!text.trim() || preview.isPending} onClick={() => read({})}>
          Read it
        </Button>
        <Button
          variant="chalk"
          disabled={!preview.data?.canTake || take.isPending || take.isSuccess}
          onClick={() => take.mutate(request(columns ? { columns } : {}))}
        >
          Take it in
        </Button>
      </div>
      <Trouble problem={preview.error ?? take.error} />
      {take.data ? (
        <p className="said" role="status">
          {take.data.isRepeat
            ? 'This very sheet was taken in before; nothing changed.'
            : `Taken in: ${counts(take.data.did)}.`}
        </p>
      ) : null}
      {preview.data ? <Previewed preview={preview.data} onColumn={remap} /> : null}
    </div>
  )
}

const counts = (did: Record<string, number>) =>
  Object.entries(did)
    .map(([what, n]) => `${n} ${what}`)
    .join(', ')

function Previewed({
  preview,
  onColumn,
}: {
  preview: ImportPreview
  onColumn: (key: string, index: number | null) => void
}) {
  return (
    <>
      <h2>
        {preview.bad.length === 0
          ? `All ${preview.rows} rows can be read: ${counts(preview.would)}.`
          : `${preview.bad.length} ${preview.bad.length === 1 ? 'cell' : 'cells'} to mend; nothing is taken before that.`}
      </h2>
      {preview.bad.length > 0 ? (
        <div className="table-responsive">
          <table className="table">
            <thead>
              <tr>
                <th>row</th>
                <th>column</th>
                <th>it says</th>
                <th>why not</th>
              </tr>
            </thead>
            <tbody>
              {preview.bad.slice(0, 200).map((b, i) => (
                <tr key={i}>
                  <td>{b.row}</td>
                  <td>{b.column}</td>
                  <td>{b.value ? `“${b.value}”` : 'nothing'}</td>
                  <td>{b.why}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      <div className="built-form">
        {preview.wanted.map((w) => (
          <Form.Group key={w.key} controlId={`col-${w.key}`}>
            <Form.Label>
              {w.label}
              {w.isNeeded ? '' : ' (if any)'}
            </Form.Label>
            <Form.Select
              value={preview.columns[w.key] ?? ''}
              onChange={(e) => onColumn(w.key, e.target.value === '' ? null : Number(e.target.value))}
            >
              <option value="">no such column</option>
              {preview.headings.map((h, i) => (
                <option key={i} value={i}>
                  {h || `column ${i + 1}`}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        ))}
      </div>
      <div className="table-responsive">
        <table className="table">
          <thead>
            <tr>
              {preview.headings.map((h, i) => (
                <th key={i}>{h}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {preview.sample.map((row, i) => (
              <tr key={i}>
                {row.map((c, j) => (
                  <td key={j}>{c}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}
