import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type GunAnswer } from '@contract/gun.ts'
import { parseNumber } from '@core/ingest/columns.ts'
import { newKey } from '@web/api/client.ts'
import { dayKey } from '@web/format/times.ts'
import { Trouble } from '@web/shell/Trouble.tsx'
import { useShop } from '@web/shop/queries.ts'
import { useEnterUsage } from './queries.ts'

/** A shift total typed in: arc hours, or kg of wire, or both. */
export function ShiftTotal({ gun }: { gun: GunAnswer }) {
  const [isOpen, setOpen] = useState(false)
  if (!isOpen) return <button type="button" className="btn" onClick={() => setOpen(true)}>Enter a shift’s usage</button>
  return <ShiftTotalForm gun={gun} onDone={() => setOpen(false)} />
}

function ShiftTotalForm({ gun, onDone }: { gun: GunAnswer; onDone: () => void }) {
  const shop = useShop()
  const enter = useEnterUsage()
  const [day, setDay] = useState(dayKey(gun.nowMs, gun.zone))
  const [shift, setShift] = useState('')
  const [hours, setHours] = useState('')
  const [kg, setKg] = useState('')
  const [key] = useState(newKey)
  const own = shop.data?.shifts.filter((s) => s.areaId === gun.areaId) ?? []
  const shifts = own.length > 0 ? own : (shop.data?.shifts.filter((s) => s.areaId === null) ?? [])
  const isBad = (text: string) => text !== '' && parseNumber(text) === null
  const submit = () => enter.mutate({ key, stationId: gun.stationId, day, shift: shift || null, arcHours: hours ? parseNumber(hours) : null, kg: kg ? parseNumber(kg) : null }, { onSuccess: onDone })
  return (
    <Form className="shift-total" onSubmit={(e) => { e.preventDefault(); submit() }}>
      <Form.Group controlId="u-day"><Form.Label>day</Form.Label><Form.Control type="date" value={day} max={dayKey(gun.nowMs, gun.zone)} onChange={(e) => setDay(e.target.value)} /></Form.Group>
      <Form.Group controlId="u-shift"><Form.Label>shift</Form.Label><Form.Select value={shift} onChange={(e) => setShift(e.target.value)}><option value="">whole day</option>{shifts.map((s) => <option key={s.name}>{s.name}</option>)}</Form.Select></Form.Group>
      <Form.Group controlId="u-hours"><Form.Label>arc hours</Form.Label><Form.Control inputMode="decimal" autoFocus value={hours} isInvalid={isBad(hours)} onChange={(e) => setHours(e.target.value)} /></Form.Group>
      <Form.Group controlId="u-kg"><Form.Label>kg of wire</Form.Label><Form.Control inputMode="decimal" value={kg} isInvalid={isBad(kg)} onChange={(e) => setKg(e.target.value)} /></Form.Group>
      <Trouble problem={enter.error} />
      <div className="shift-total-keys"><Button type="submit" variant="chalk" disabled={enter.isPending || isBad(hours) || isBad(kg) || (!hours && !kg)}>Enter</Button><Button onClick={onDone}>leave it</Button></div>
    </Form>
  )
}
