import { PickField, TextField } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type GunAnswer } from '@contract/gun.ts'
import { parseNumber } from '@core/units/number.ts'
import { newKey } from '@web/api/client.ts'
import { measures, typed } from '@web/format/measures.ts'
import { dayKey } from '@web/format/times.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useShop } from '@web/shopmodel/queries.ts'
import { useEnterUsage } from '@web/gunnow/queries.ts'

/** A shift total typed in: arc hours, or kg of wire, or both. */
export function ShiftTotal({ gun }: { gun: GunAnswer }) {
  const [isOpen, setOpen] = useState(false)
  if (!isOpen)
    return (
      <Button variant="" onClick={() => setOpen(true)}>
        Enter a shift’s usage
      </Button>
    )
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
  const { mass } = measures(shop.data?.site.units ?? 'metric')
  const own = shop.data?.shifts.filter((s) => s.areaId === gun.areaId) ?? []
  const shifts = own.length > 0 ? own : (shop.data?.shifts.filter((s) => s.areaId === null) ?? [])
  const isBad = (text: string) => text !== '' && parseNumber(text) === null
  const submit = () =>
    enter.mutate(
      {
        key,
        stationId: gun.stationId,
        day,
        shift: shift || null,
        arcHours: hours ? parseNumber(hours) : null,
        kg: typed(kg, mass),
      },
      { onSuccess: onDone },
    )
  return (
    <Form
      className="shift-total"
      onSubmit={(e) => {
        e.preventDefault()
        submit()
      }}
    >
      <TextField
        id="u-day"
        label="day"
        type="date"
        value={day}
        max={dayKey(gun.nowMs, gun.zone)}
        onChange={(e) => setDay(e.target.value)}
      />
      <PickField id="u-shift" label="shift" value={shift} onChange={(e) => setShift(e.target.value)}>
        <option value="">whole day</option>
        {shifts.map((s) => (
          <option key={s.name}>{s.name}</option>
        ))}
      </PickField>
      <TextField
        id="u-hours"
        label="arc hours"
        inputMode="decimal"
        autoFocus
        value={hours}
        isInvalid={isBad(hours)}
        onChange={(e) => setHours(e.target.value)}
      />
      <TextField
        id="u-kg"
        label={`${mass.word} of wire`}
        inputMode="decimal"
        value={kg}
        isInvalid={isBad(kg)}
        onChange={(e) => setKg(e.target.value)}
      />
      <Trouble problem={enter.error} />
      <div className="shift-total-keys">
        <Button
          type="submit"
          variant="chalk"
          disabled={enter.isPending || isBad(hours) || isBad(kg) || (!hours && !kg)}
        >
          Enter
        </Button>
        <Button onClick={onDone}>leave it</Button>
      </div>
    </Form>
  )
}
