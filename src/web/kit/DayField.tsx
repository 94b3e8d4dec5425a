import { useEffect, useState } from 'react'
import { Form } from 'react-bootstrap'
import { type UnitWorld } from '@core/units/quantity.ts'
import { comingDay, pastDay, writtenDay } from './day.ts'

/** A day, typed as people write it and read when it is left; what is no day, or still to come, is said beside it and nothing is asked for. */
export function DayField(props: {
  id?: string
  label: string
  /** yyyy-mm-dd, or empty. */
  day: string
  units: UnitWorld
  today: string
  /** A day from today on, or none; else one until today. */
  isComing?: boolean
  placeholder?: string
  /** Shown above it; else only spoken. */
  isShown?: boolean
  onPick: (day: string) => void
}) {
  const { day, units, today, label } = props
  const id = props.id ?? 'day'
  const [text, setText] = useState(writtenDay(day, units))
  const [why, setWhy] = useState<string | null>(null)
  useEffect(() => {
    setText(writtenDay(day, units))
    setWhy(null)
  }, [day, units])
  const read = () => {
    if (text.trim() === writtenDay(day, units)) return setWhy(null)
    const got = (props.isComing ? comingDay : pastDay)(units, today)(text)
    setWhy(got.ok ? null : got.why)
    if (got.ok) props.onPick(got.value)
  }
  return (
    <Form.Group controlId={id} className="day-field">
      {props.isShown ? <Form.Label>{label}</Form.Label> : null}
      <Form.Control
        {...(props.isShown ? {} : { 'aria-label': label })}
        autoComplete="off"
        placeholder={props.placeholder}
        value={text}
        isInvalid={why !== null}
        aria-describedby={`${id}-why`}
        onChange={(e) => setText(e.target.value)}
        onBlur={read}
        onKeyDown={(e) => e.key === 'Enter' && read()}
      />
      <Form.Control.Feedback type="invalid" id={`${id}-why`} role={why ? 'alert' : undefined}>
        {why}
      </Form.Control.Feedback>
    </Form.Group>
  )
}
