import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type CalendarAnswer } from '@contract/classes.ts'
import { type Units } from '@web/format/numbers.ts'
import { clockTime, dayKey, longDay } from '@web/format/times.ts'
import { anyDay, wallText, writtenDay } from '@web/kit/day.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { TypedField } from '@web/kit/TypedField.tsx'
import { useReadForm } from '@web/kit/readform.ts'
import { Clashes } from './Clashes.tsx'
import { useMove } from './queries.ts'

/** One time of it: when it is, and moved once, called off, or back where its rule has it. */
export function MoveForm(props: {
  at: CalendarAnswer
  of: CalendarAnswer['occurrences'][number]
  units: Units
  isLead: boolean
  onDone: () => void
}) {
  const { at, of, units, isLead, onDone } = props
  const move = useMove()
  const [clashes, setClashes] = useState<string[] | null>(null)
  const today = dayKey(at.nowMs, at.zone)
  const day = dayKey(of.fromMs, at.zone)
  const form = useReadForm(
    { day: anyDay(units, today, 'To which day?'), start: wallText, end: wallText },
    { day: writtenDay(day, units), start: clockTime(of.fromMs, at.zone), end: clockTime(of.toMs, at.zone) },
  )
  const ask = { entryId: of.entryId, day: of.day }
  const onSuccess = (answer: { clashes: string[] }) =>
    answer.clashes.length > 0 ? setClashes(answer.clashes) : onDone()
  if (clashes) return <Clashes lines={clashes} onDone={onDone} />
  return (
    <section className="move-form" aria-label={of.name}>
      <h2>
        {of.name}, {longDay(day)}, {clockTime(of.fromMs, at.zone)} to {clockTime(of.toMs, at.zone)}
      </h2>
      {of.movedTo ? <p>Moved from {longDay(of.day)}.</p> : null}
      {isLead ? (
        <Form
          noValidate
          onSubmit={form.submit((read) =>
            move.mutate({ ...ask, to: { day: read.day ?? day, start: read.start, end: read.end } }, { onSuccess }),
          )}
        >
          <div className="group-fields">
            <TypedField form={form} name="day" id="move-day" label="This once on" />
            <TypedField form={form} name="start" id="move-start" label="From" />
            <TypedField form={form} name="end" id="move-end" label="To" />
          </div>
          <p>
            <Button type="submit" variant="chalk" disabled={move.isPending || !form.isChanged}>
              Move it this once
            </Button>{' '}
            <Bare onClick={() => move.mutate({ ...ask, to: null }, { onSuccess })}>not this time</Bare>{' '}
            {of.movedTo ? (
              <Bare onClick={() => move.mutate({ ...ask, to: null, isBack: true }, { onSuccess })}>
                back where it was
              </Bare>
            ) : null}{' '}
            <Bare onClick={onDone}>leave it</Bare>
          </p>
        </Form>
      ) : null}
      <Trouble problem={move.error} />
    </section>
  )
}
