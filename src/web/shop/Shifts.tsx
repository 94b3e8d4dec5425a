import { idIn } from '@web/kit/idin.ts'
import { type AreaId } from '@core/ids/id.ts'
import { type UnitWorld } from '@core/units/quantity.ts'
import { Bare, Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { type ShopAnswer } from '@contract/shop.ts'
import { Told, Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { readDays, readShifts, typedDays, typedShift, type TypedShift } from './typedshifts.ts'

type Shift = ShopAnswer['shifts'][number]
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']

/** The week's shifts in wall time: clocks run only inside them, and their breaks are when hands come free. */
export function Shifts({ shop }: { shop: ShopAnswer }) {
  const [areaId, setArea] = useState<AreaId | null>(null)
  const list = shop.shifts.filter((s) => s.areaId === areaId)
  return (
    <>
      <p className="said">
        Clocks run only in these hours. Without any, they run round the clock. Classes and planned stops stand in the{' '}
        <Link to="/calendar">calendar</Link>.
      </p>
      <Form.Group controlId="s-area" className="rule-class">
        <Form.Label>for</Form.Label>
        <Form.Select value={areaId ?? ''} onChange={(e) => setArea(idIn(shop.areas, e.target.value))}>
          <option value="">every area without its own</option>
          {shop.areas.map((a) => (
            <option key={a.id} value={a.id}>
              {a.name}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <ShiftEditor
        key={`${areaId}-${list.length}`}
        areaId={areaId}
        shifts={list}
        holidays={shop.holidays}
        units={shop.site.units}
      />
    </>
  )
}

function ShiftEditor(props: {
  areaId: AreaId | null
  shifts: Shift[]
  holidays: ShopAnswer['holidays']
  units: UnitWorld
}) {
  const save = useSave('/shop/shifts')
  const [shifts, setShifts] = useState(props.shifts.map(typedShift))
  const [holidays, setHolidays] = useState(typedDays(props.holidays))
  const [unread, setUnread] = useState<string[]>([])
  const change = (i: number, part: Partial<TypedShift>) =>
    setShifts(shifts.map((s, j) => (j === i ? { ...s, ...part } : s)))
  const submit = () => {
    const [read, days] = [readShifts(shifts), readDays(holidays, props.units)]
    setUnread([...(read.ok ? [] : read.why), ...(days.ok ? [] : days.why)])
    if (!read.ok || !days.ok) return
    save.mutate({ areaId: props.areaId, shifts: read.value, holidays: days.value })
    setHolidays(typedDays(days.value))
  }
  return (
    <>
      {shifts.map((s, i) => (
        <ShiftRow
          key={i}
          shift={s}
          onChange={(part) => change(i, part)}
          onDrop={() => setShifts(shifts.filter((_, j) => j !== i))}
        />
      ))}
      <Button onClick={() => setShifts([...shifts, { ...BLANK, areaId: props.areaId }])}>one more shift</Button>
      <Form.Group controlId="s-hol" className="mt-3 holidays">
        <Form.Label>days off, one a line: 2026-12-25 name</Form.Label>
        <Form.Control as="textarea" rows={4} value={holidays} onChange={(e) => setHolidays(e.target.value)} />
      </Form.Group>
      <Trouble problem={save.error} />
      {unread.length > 0 ? <Told says="Nothing was saved yet." details={unread} /> : null}
      <div className="d-flex gap-2 mt-2 align-items-center">
        <Button variant="chalk" disabled={save.isPending} onClick={submit}>
          Save the shifts
        </Button>
        <span role="status" className="small-print">
          {save.isSuccess && unread.length === 0 ? 'Saved.' : ''}
        </span>
      </div>
    </>
  )
}
const BLANK: TypedShift = {
  ...{ areaId: null, name: 'day', weekdays: [1, 2, 3, 4, 5], start: '06:00', end: '14:00' },
  breaks: [],
}
function ShiftRow({
  shift,
  onChange,
  onDrop,
}: {
  shift: TypedShift
  onChange: (part: Partial<TypedShift>) => void
  onDrop: () => void
}) {
  const toggle = (day: number) =>
    onChange({
      weekdays: shift.weekdays.includes(day)
        ? shift.weekdays.filter((d) => d !== day)
        : [...shift.weekdays, day].sort(),
    })
  const setBreak = (i: number, part: Partial<Break>) =>
    onChange({ breaks: shift.breaks.map((b, j) => (j === i ? { ...b, ...part } : b)) })
  return (
    <div className="shift-row">
      <Form.Control
        aria-label="Name of the shift"
        className="shift-name"
        value={shift.name}
        onChange={(e) => onChange({ name: e.target.value })}
      />
      <span className="shift-days" role="group" aria-label="Days">
        {DAYS.map((d, i) => (
          <Plain key={d} aria-pressed={shift.weekdays.includes(i + 1)} onClick={() => toggle(i + 1)}>
            {d}
          </Plain>
        ))}
      </span>
      <Form.Control
        aria-label="Starts"
        type="time"
        value={shift.start}
        onChange={(e) => onChange({ start: e.target.value })}
      />
      <Form.Control
        aria-label="Ends"
        type="time"
        value={shift.end}
        onChange={(e) => onChange({ end: e.target.value })}
      />
      {shift.breaks.map((b, i) => (
        <BreakField
          key={i}
          pause={b}
          onChange={(part) => setBreak(i, part)}
          onDrop={() => onChange({ breaks: shift.breaks.filter((_, j) => j !== i) })}
        />
      ))}
      <Bare onClick={() => onChange({ breaks: [...shift.breaks, { start: '10:00', minutes: '15' }] })}>a break</Bare>
      <Bare onClick={onDrop}>no such shift</Bare>
    </div>
  )
}

type Break = TypedShift['breaks'][number]
function BreakField(props: { pause: Break; onChange: (part: Partial<Break>) => void; onDrop: () => void }) {
  const { pause, onChange } = props
  return (
    <span className="shift-break">
      <Form.Control
        aria-label="Break at"
        type="time"
        value={pause.start}
        onChange={(e) => onChange({ start: e.target.value })}
      />
      <Form.Control
        aria-label="Minutes of break"
        inputMode="decimal"
        className="shift-minutes"
        value={pause.minutes}
        onChange={(e) => onChange({ minutes: e.target.value })}
      />
      <span className="dim">min</span>
      <Bare aria-label="No such break" onClick={props.onDrop}>
        ×
      </Bare>
    </span>
  )
}
