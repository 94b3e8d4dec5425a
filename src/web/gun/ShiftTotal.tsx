import { asItIs, quantity, useReadForm } from '@web/kit/readform.ts'
import { pastDay, writtenDay } from '@web/kit/day.ts'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type GunAnswer } from '@contract/gun.ts'
import { newKey } from '@web/api/client.ts'
import { measures } from '@web/format/measures.ts'
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
  const [key] = useState(newKey)
  const units = shop.data?.site.units ?? 'metric'
  const today = dayKey(gun.nowMs, gun.zone)
  const form = useReadForm(
    {
      day: pastDay(units, today),
      shift: asItIs<string>(),
      hours: quantity({ of: 'hours', from: 0 }),
      kg: quantity({ of: 'mass', units, from: 0 }),
    },
    { day: writtenDay(today, units), shift: '', hours: '', kg: '' },
  )
  const own = shop.data?.shifts.filter((s) => s.areaId === gun.areaId) ?? []
  const shifts = own.length > 0 ? own : (shop.data?.shifts.filter((s) => s.areaId === null) ?? [])
  const send = form.submit(({ day, shift, hours, kg }) =>
    enter.mutate(
      { key, stationId: gun.stationId, day, shift: shift || null, arcHours: hours, kg },
      { onSuccess: onDone },
    ),
  )
  const isEmpty = form.typed('hours').trim() === '' && form.typed('kg').trim() === ''
  return (
    <Form noValidate className="shift-total" onSubmit={send}>
      <TypedField form={form} name="day" id="u-day" label="day" autoComplete="off" />
      <PickTyped
        form={form}
        name="shift"
        id="u-shift"
        label="shift"
        none="whole day"
        options={shifts.map((s) => [s.name, s.name])}
      />
      <QuantityField form={form} name="hours" id="u-hours" label="arc hours" autoFocus />
      <QuantityField form={form} name="kg" id="u-kg" label={`${measures(units).mass.word} of wire`} />
      <Trouble problem={enter.error} />
      <div className="shift-total-keys">
        <Button type="submit" variant="chalk" disabled={enter.isPending || isEmpty}>
          Enter
        </Button>
        <Button onClick={onDone}>leave it</Button>
      </div>
    </Form>
  )
}
