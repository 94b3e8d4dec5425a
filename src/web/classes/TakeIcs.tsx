import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { type CalendarAnswer, type IcsPreview } from '@contract/classes.ts'
import { type Units } from '@web/format/numbers.ts'
import { writtenDay } from '@web/kit/day.ts'
import { idIn } from '@web/kit/idin.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Clashes } from './Clashes.tsx'
import { usePreviewIcs, useTakeIcs } from './queries.ts'

/** A calendar file of somebody else’s: what is in it, line by line, before any of it is taken. */
export function TakeIcs({ at, units, onDone }: { at: CalendarAnswer; units: Units; onDone: () => void }) {
  const preview = usePreviewIcs()
  const [text, setText] = useState('')
  const [why, setWhy] = useState<string | null>(null)
  const read = async (file: File | undefined) => {
    if (!file) return
    if (file.size > 2_000_000) return setWhy('That file is larger than 2 MB: give the calendar of a year, not of ten.')
    setWhy(null)
    const found = await file.text()
    setText(found)
    preview.mutate({ text: found })
  }
  return (
    <section className="take-ics" aria-label="From a calendar file">
      <h2>From a calendar file</h2>
      <Form.Group controlId="ics-file">
        <Form.Label>A file that ends in .ics, as any calendar gives it out</Form.Label>
        <Form.Control
          type="file"
          accept=".ics,text/calendar"
          onChange={(e) => void read((e.target as HTMLInputElement).files?.[0])}
        />
      </Form.Group>
      {why ? (
        <p className="trouble" role="alert">
          {why}
        </p>
      ) : null}
      <Trouble problem={preview.error} />
      {preview.data ? <Lines key={text.length} at={at} found={preview.data} {...{ units, text, onDone }} /> : null}
      <Bare onClick={onDone}>leave it</Bare>
    </section>
  )
}

type As = 'leave' | 'holiday' | 'other' | 'cellStop' | `class ${string}`
interface LinesProps {
  at: CalendarAnswer
  units: Units
  found: IcsPreview
  text: string
  onDone: () => void
}
function Lines({ at, units, found, text, onDone }: LinesProps) {
  const take = useTakeIcs()
  const [as, setAs] = useState<ReadonlyMap<string, As>>(
    new Map(found.lines.map((l) => [l.uid, l.isHoliday ? 'holiday' : l.groupId ? `class ${l.groupId}` : 'other'])),
  )
  const [clashes, setClashes] = useState<string[] | null>(null)
  const wanted = found.lines.filter((l) => as.get(l.uid) !== 'leave')
  const send = () =>
    take.mutate(
      {
        text,
        take: wanted.map((l) => {
          const said = as.get(l.uid) ?? 'other'
          const groupId = said.startsWith('class ') ? (idIn(at.groups, said.slice(6)) ?? null) : null
          return {
            uid: l.uid,
            as: said.startsWith('class ') ? ('class' as const) : (said as 'other'),
            areaId: null,
            groupId,
          }
        }),
      },
      { onSuccess: (answer) => (answer.clashes.length > 0 ? setClashes(answer.clashes) : onDone()) },
    )
  if (clashes) return <Clashes lines={clashes} onDone={onDone} />
  return (
    <>
      <Table className="group-table">
        <thead>
          <tr>
            <th scope="col">in the file</th>
            <th scope="col">when</th>
            <th scope="col">take it as</th>
          </tr>
        </thead>
        <tbody>
          {found.lines.map((l) => (
            <LineRow
              key={l.uid}
              {...{ l, at, units }}
              as={as.get(l.uid) ?? 'other'}
              onAs={(to) => setAs(new Map(as).set(l.uid, to))}
            />
          ))}
        </tbody>
      </Table>
      {found.refused.length > 0 ? (
        <>
          <p>Not taken:</p>
          <ul>
            {found.refused.map((r, i) => (
              <li key={`${r.name} ${i}`}>
                {r.name}: {r.why}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <Trouble problem={take.error} />
      <p>
        <Button variant="chalk" disabled={take.isPending || wanted.length === 0} onClick={send}>
          {wanted.length === 0 ? 'Nothing to take' : `Take ${wanted.length}`}
        </Button>
      </p>
    </>
  )
}

function LineRow(props: {
  l: IcsPreview['lines'][number]
  at: CalendarAnswer
  units: Units
  as: As
  onAs: (as: As) => void
}) {
  const { l, at, units, as, onAs } = props
  return (
    <tr>
      <th scope="row">
        {l.name}
        {l.isKnown ? <small className="dim"> here already: it is changed</small> : null}
      </th>
      <td>
        {writtenDay(l.firstDay, units)}
        {l.isHoliday ? (l.days > 1 ? `, ${l.days} days` : '') : ` ${l.start}–${l.end}`}
        {l.rule ? `, ${l.times} times in a year` : ''}
        {l.notes.map((n) => (
          <small key={n} className="dim">
            {' '}
            {n}
          </small>
        ))}
      </td>
      <td>
        <Form.Select aria-label={`Take ${l.name} as`} value={as} onChange={(e) => onAs(e.target.value as As)}>
          {l.isHoliday ? <option value="holiday">a day off</option> : null}
          {l.isHoliday
            ? null
            : at.groups.map((g) => <option key={g.id} value={`class ${g.id}`}>{`class of ${g.name}`}</option>)}
          {l.isHoliday ? null : <option value="cellStop">a planned stop of cells</option>}
          {l.isHoliday ? null : <option value="other">something else</option>}
          <option value="leave">leave it</option>
        </Form.Select>
      </td>
    </tr>
  )
}
