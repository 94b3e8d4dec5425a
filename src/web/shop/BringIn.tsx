import { PickOne, TextField, type Option } from '@web/shell/Field.tsx'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
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
  const { kind, text, preview, take, choose, type, load, remap, read, takeIn } = useSheet()
  return (
    <div className="bring">
      <div className="d-flex gap-3 flex-wrap align-items-end">
        <PickOne id="i-kind" label="the sheet holds" value={kind} options={KINDS} onPick={choose} />
        <TextField
          id="i-file"
          label="a CSV file"
          type="file"
          accept=".csv,text/csv,text/plain"
          onChange={(e) => void load((e.target as HTMLInputElement).files?.[0])}
        />
        <Button onClick={() => type(EXAMPLE[kind])}>show me an example</Button>
      </div>
      <TextField
        id="i-text"
        label="or paste it here"
        as="textarea"
        rows={7}
        className="sheet"
        value={text}
        onChange={(e) => type(e.target.value)}
        onBlur={() => read({})}
      />
      <div className="d-flex gap-2">
        <Button disabled={!text.trim() || preview.isPending} onClick={() => read({})}>
          Read it
        </Button>
        <Button variant="chalk" disabled={!preview.data?.canTake || take.isPending || take.isSuccess} onClick={takeIn}>
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

const KINDS: readonly Option[] = [
  ['places', 'places and the parts on them'],
  ['usage', 'usage per shift or day'],
]

/** The sheet at hand: its text, which column is which, what the server read in it, and taking it in. */
function useSheet() {
  const [kind, setKind] = useState<ImportRequest['kind']>('places')
  const [text, setText] = useState('')
  const [columns, setColumns] = useState<Record<string, number> | undefined>()
  const preview = usePreview()
  const take = useTakeIn()
  const read = (next: Partial<ImportRequest>) => {
    take.reset()
    const request = { kind, text, ...(columns ? { columns } : {}), ...next }
    if (request.text.trim()) preview.mutate(request)
    else preview.reset()
  }
  const type = (next: string) => {
    setText(next)
    setColumns(undefined)
    preview.reset()
  }
  const choose = (value: string) => {
    const next = value === 'usage' ? 'usage' : 'places'
    setKind(next)
    setColumns(undefined)
    read({ kind: next, columns: undefined })
  }
  const load = async (file: File | undefined) => {
    if (!file) return
    const loaded = await file.text()
    type(loaded)
    read({ text: loaded, columns: undefined })
  }
  const remap = (key: string, index: number | null) => {
    const { [key]: _, ...rest } = preview.data?.columns ?? {}
    const next = index === null ? rest : { ...rest, [key]: index }
    setColumns(next)
    read({ columns: next })
  }
  const takeIn = () => take.mutate({ kind, text, ...(columns ? { columns } : {}) })
  return { kind, text, preview, take, choose, type, load, remap, read, takeIn }
}

const counts = (did: Record<string, number>) =>
  Object.entries(did)
    .map(([what, n]) => `${n} ${what}`)
    .join(', ')

function Previewed(props: { preview: ImportPreview; onColumn: (key: string, index: number | null) => void }) {
  const { preview } = props
  const { bad } = preview
  return (
    <>
      <h2>
        {bad.length === 0
          ? `All ${preview.rows} rows can be read: ${counts(preview.would)}.`
          : `${bad.length} ${bad.length === 1 ? 'cell' : 'cells'} to mend; nothing is taken before that.`}
      </h2>
      {bad.length > 0 ? (
        <Grid
          heads={['row', 'column', 'it says', 'why not']}
          rows={bad
            .slice(0, MOST_SHOWN)
            .map((b) => [String(b.row), b.column, b.value ? `“${b.value}”` : 'nothing', b.why])}
        />
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

const MOST_SHOWN = 200

function Grid({ heads, rows }: { heads: readonly string[]; rows: readonly (readonly string[])[] }) {
  return (
    <div className="table-responsive">
      <table className="table">
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
      </table>
    </div>
  )
}
