import { isPosition, KIND_KEYS } from '@core/path/columns.ts'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { Button, Form } from 'react-bootstrap'
import { type LogLine } from '@contract/logbook.ts'
import { dayKey, longDay } from '@web/format/times.ts'
import { countWord, partName } from '@web/format/words.ts'
import { useMe } from '@web/people/queries.ts'
import { DayField } from '@web/kit/DayField.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { dayCounts, type DayCount } from './daycounts.ts'
import { CorrectLine } from './CorrectLine.tsx'
import { useLogbook } from './queries.ts'
import { Tape } from './Tape.tsx'

/** What was done: a day as a tape. The day and the filter are words in the sentence, and live in the address. */
export function LogbookPage() {
  const [params, setParams] = useSearchParams()
  const me = useMe()
  const book = useLogbook(params.toString())
  const [open, setOpen] = useState<LogLine | null>(null)
  const set = (key: string, value: string) =>
    setParams((p) => {
      if (value) p.set(key, value)
      else p.delete(key)
      return p
    })
  const units = me.data?.units ?? 'metric'
  const asked = params.get('position') ?? ''
  const only = isPosition(asked) ? asked : null
  if (!book.data)
    return (
      <main className="logbook">
        <Waiting says="Opening the day" problem={book.error} />
      </main>
    )
  const { day, lines, previousDay, nextDay, zone } = book.data
  return (
    <main className="logbook">
      <h1 className="sentence">
        {countWord(lines.length)} {lines.length === 1 ? 'line' : 'lines'} on {longDay(day)}
        {only ? `, ${partName(only)} only` : ''}.
      </h1>
      <div className="logbook-words">
        <Button variant="" disabled={!previousDay} onClick={() => previousDay && set('day', previousDay)}>
          earlier
        </Button>
        <DayField label="Day" day={day} units={units} today={dayKey(Date.now(), zone)} onPick={(d) => set('day', d)} />
        <Button variant="" disabled={!nextDay} onClick={() => nextDay && set('day', nextDay)}>
          later
        </Button>
        <Form.Select aria-label="Which part" value={only ?? ''} onChange={(e) => set('position', e.target.value)}>
          <option value="">every part</option>
          {KIND_KEYS.map((p) => (
            <option key={p} value={p}>
              {partName(p)}
            </option>
          ))}
        </Form.Select>
        <a className="btn" href={`/api/logbook.csv?from=${day}&to=${day}`} download>
          this day as CSV
        </a>
        <a className="btn" href={`/api/logbook.csv?from=${day.slice(0, 7)}-01&to=${day}`} download>
          the month so far
        </a>
      </div>
      {lines.length === 0 ? (
        <p className="said dim">Nothing was logged that day{only ? ' for that part' : ''}.</p>
      ) : (
        <div className="logbook-day">
          <Tape lines={lines} nowMs={Date.now()} zone={zone} units={units} onOpen={setOpen} />
          <DayCounts lines={lines} />
        </div>
      )}
      {open ? <CorrectLine line={open} units={units} onDone={() => setOpen(null)} /> : null}
    </main>
  )
}

/** What the day came to, beside its tape. */
function DayCounts({ lines }: { lines: readonly LogLine[] }) {
  const { did, guns } = dayCounts(lines)
  if (did.length === 0) return null
  return (
    <aside className="logbook-counts" aria-label="What the day came to">
      <h2>What it came to</h2>
      <Counts counts={did} />
      {guns.length > 0 ? (
        <>
          <h2>Most hands on</h2>
          <Counts counts={guns} />
        </>
      ) : null}
    </aside>
  )
}
const Counts = ({ counts }: { counts: readonly DayCount[] }) => (
  <ul className="plain">
    {counts.map((c) => (
      <li key={c.says}>
        <strong>{c.n}</strong> {c.says}
      </li>
    ))}
  </ul>
)
