import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { measures, shown, typed } from '@web/format/measures.ts'
import { type BuiltExcept } from '@core/shop/built.ts'
import { type ShopAnswer } from '@contract/shop.ts'

const MODES = ['short circuit', 'spray', 'pulse', 'globular'] as const

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
  const { cable, speed, mass } = measures(shop.site.units)
  const kinds = shop.kinds.filter((k) => shop.parts.some((p) => p.kindKey === k.key))
  const partOf = (kind: string, partId: string) => {
    const parts = { ...(built.parts ?? {}) }
    if (partId) parts[kind] = partId
    else delete parts[kind]
    set({ parts })
  }
  return (
    <Form
      className="built-form"
      onSubmit={(e) => {
        e.preventDefault()
        props.onSave(built)
      }}
    >
      <Pick
        label="wire"
        value={built.wireId ?? ''}
        none={none}
        options={shop.wires.map((w) => [w.id, w.name])}
        onPick={(v) => set({ wireId: v || null })}
      />
      <Pick
        label="fit family"
        value={built.familyId ?? ''}
        none={none}
        options={shop.families.map((f) => [f.id, f.name])}
        onPick={(v) => set({ familyId: v || null })}
      />
      <Pick
        label="mode"
        value={built.mode ?? ''}
        none={none}
        options={MODES.map((m) => [m, m])}
        onPick={(v) => set({ mode: MODES.find((m) => m === v) ?? null })}
      />
      <Pick
        label="drive rolls"
        value={built.rollCount ? String(built.rollCount) : ''}
        none={none}
        options={[
          ['2', '2 rolls'],
          ['4', '4 rolls'],
        ]}
        onPick={(v) => set({ rollCount: v === '2' ? 2 : v === '4' ? 4 : null })}
      />
      <Form.Group>
        <Form.Label htmlFor="b-cable">cable, {cable.word}</Form.Label>
        <Form.Control
          id="b-cable"
          inputMode="decimal"
          defaultValue={shown(props.built.cableM, cable)}
          onChange={(e) => set({ cableM: typed(e.target.value, cable) })}
        />
      </Form.Group>
      <Form.Group>
        <Form.Label htmlFor="b-speed">
          wire speed, {speed.word} (a guess turns {mass.word} into hours)
        </Form.Label>
        <Form.Control
          id="b-speed"
          inputMode="decimal"
          defaultValue={shown(props.built.wireSpeedMPerMin, speed)}
          onChange={(e) => set({ wireSpeedMPerMin: typed(e.target.value, speed) })}
        />
      </Form.Group>
      {kinds.map((k) => (
        <Pick
          key={k.key}
          label={`${k.name} on it`}
          value={built.parts?.[k.key] ?? ''}
          none={none}
          options={shop.parts.filter((p) => p.kindKey === k.key).map((p) => [p.id, `${p.code} ${p.name}`])}
          onPick={(v) => partOf(k.key, v)}
        />
      ))}
      <div className="built-keys">
        <Button type="submit" variant="chalk">
          Save
        </Button>
        <Button onClick={props.onDone}>leave it</Button>
      </div>
    </Form>
  )
}

function Pick(props: {
  label: string
  value: string
  none: string
  options: (readonly [string, string])[]
  onPick: (value: string) => void
}) {
  const id = `pick-${props.label.replace(/\W+/g, '-')}`
  return (
    <Form.Group>
      <Form.Label htmlFor={id}>{props.label}</Form.Label>
      <Form.Select id={id} value={props.value} onChange={(e) => props.onPick(e.target.value)}>
        <option value="">{props.none}</option>
        {props.options.map(([v, t]) => (
          <option key={v} value={v}>
            {t}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  )
}
