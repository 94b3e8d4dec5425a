import { idIn } from '@web/kit/idin.ts'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { shownQuantity } from '@core/units/quantity.ts'
import { PickOne, type Option } from '@web/kit/Field.tsx'
import { quantity, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { measures } from '@web/format/measures.ts'
import { type BuiltExcept } from '@core/shop/built.ts'
import { GASES, MODES } from '@core/rightparts/facts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { partLabel } from '@web/format/words.ts'

/** A feeder of a known type says its rolls by itself. */
function rollsOf(shop: ShopAnswer, feederTypeId: string): BuiltExcept {
  const type = shop.feederTypes.find((f) => f.id === feederTypeId)
  return type ? { rollCount: type.fit.rollCount } : {}
}

/** What was typed of cable and speed; left empty where nothing was said, it stays as the bay. */
const said = (read: { cable: number | null; speed: number | null }, before: BuiltExcept): BuiltExcept => ({
  ...(read.cable === null && before.cableM === undefined ? {} : { cableM: read.cable }),
  ...(read.speed === null && before.wireSpeedMPerMin === undefined ? {} : { wireSpeedMPerMin: read.speed }),
})

/** How guns are built: wire, family, cable, mode, wire speed, and which part code sits where. Empty: not said, or as the bay. */
export function BuiltForm(props: {
  shop: ShopAnswer
  built: BuiltExcept
  onSave: (built: BuiltExcept) => void
  onDone: () => void
  emptyWord?: string
}) {
  const { shop } = props
  const [built, setBuilt] = useState<BuiltExcept>(props.built)
  const none = props.emptyWord ?? 'not said'
  const set = (change: BuiltExcept) => setBuilt({ ...built, ...change })
  const { units } = shop.site
  const { cable, speed, mass } = measures(units)
  const [cableIs, speedIs] = [{ of: 'cable', units } as const, { of: 'speed', units } as const]
  const form = useReadForm(
    {
      cable: quantity({ ...cableIs, above: 0, kept: props.built.cableM }),
      speed: quantity({ ...speedIs, above: 0, kept: props.built.wireSpeedMPerMin }),
    },
    {
      cable: shownQuantity(props.built.cableM, cableIs),
      speed: shownQuantity(props.built.wireSpeedMPerMin, speedIs),
    },
  )
  const picks = [...howBuilt(shop, built, set), ...whatIsOn(shop, built, set)]
  return (
    <Form
      noValidate
      className="built-form"
      onSubmit={form.submit((read) => props.onSave({ ...built, ...said(read, props.built) }))}
    >
      {picks.map((p) => (
        <PickOne key={p.label} id={`pick-${p.label.replace(/\W+/g, '-')}`} none={none} {...p} />
      ))}
      <QuantityField form={form} name="cable" id="b-cable" label={`cable, ${cable.word}`} />
      <QuantityField
        form={form}
        name="speed"
        id="b-speed"
        label={`wire speed, ${speed.word} (a guess turns ${mass.word} into hours)`}
      />
      <div className="built-keys">
        <Button type="submit" variant="chalk">
          Save
        </Button>
        <Button onClick={props.onDone}>leave it</Button>
      </div>
    </Form>
  )
}

interface Pick {
  label: string
  value: string
  options: readonly Option[]
  onPick: (value: string) => void
}
type Set = (change: BuiltExcept) => void

function howBuilt(shop: ShopAnswer, built: BuiltExcept, set: Set): Pick[] {
  return [
    {
      label: 'wire',
      value: built.wireId ?? '',
      options: shop.wires.map((w) => [w.id, w.name]),
      onPick: (v) => set({ wireId: idIn(shop.wires, v) }),
    },
    {
      label: 'fit family',
      value: built.familyId ?? '',
      options: shop.families.map((f) => [f.id, f.name]),
      onPick: (v) => set({ familyId: idIn(shop.families, v) }),
    },
    {
      label: 'mode',
      value: built.mode ?? '',
      options: MODES.map((m) => [m, m]),
      onPick: (v) => set({ mode: MODES.find((m) => m === v) ?? null }),
    },
    {
      label: 'feeder',
      value: built.feederTypeId ?? '',
      options: shop.feederTypes.map((f) => [f.id, f.name]),
      onPick: (v) => set({ feederTypeId: idIn(shop.feederTypes, v), ...rollsOf(shop, v) }),
    },
    {
      label: 'procedure',
      value: built.procedureId ?? '',
      options: shop.procedures.map((p) => [p.id, p.name]),
      onPick: (v) => set({ procedureId: idIn(shop.procedures, v) }),
    },
    {
      label: 'gas',
      value: built.gas ?? '',
      options: GASES.map((g) => [g, g]),
      onPick: (v) => set({ gas: GASES.find((g) => g === v) ?? null }),
    },
    {
      label: 'drive rolls',
      value: built.rollCount ? String(built.rollCount) : '',
      options: [
        ['2', '2 rolls'],
        ['4', '4 rolls'],
      ],
      onPick: (v) => set({ rollCount: v === '2' ? 2 : v === '4' ? 4 : null }),
    },
  ]
}

/** One choice per kind of part that the shop has parts of. */
function whatIsOn(shop: ShopAnswer, built: BuiltExcept, set: Set): Pick[] {
  return shop.kinds.flatMap((k) => {
    const parts = shop.parts.filter((p) => p.kindKey === k.key)
    if (parts.length === 0) return []
    const { [k.key]: now, ...rest } = built.parts ?? {}
    return [
      {
        label: `${k.name} on it`,
        value: now ?? '',
        options: parts.map((p): Option => [p.id, partLabel(p)]),
        onPick: (v: string) => {
          const id = idIn(parts, v)
          set({ parts: id ? { ...rest, [k.key]: id } : rest })
        },
      },
    ]
  })
}
