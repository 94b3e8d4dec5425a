import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { GASES, type Gas } from '@core/rightparts/facts.ts'
import { UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { measures, shown, typed } from '@web/format/measures.ts'
import { wireSize } from '@web/format/numbers.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { WIRE_SPECS } from './fitspecs.ts'
import { factsOf, SpecFields, textsOf, Unread, type Texts } from './SpecFields.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

type Wire = ShopAnswer['wires'][number]
const DENSITY: Record<string, number> = { solid: 7.85, 'flux-cored': 6.1, 'metal-cored': 6.9, aluminium: 2.68 }

/** Wires the shop feeds, and how they are wound: the empty spool's weight and sizes tell what is left on one. */
export function Wires({ shop }: { shop: ShopAnswer }) {
  const [open, setOpen] = useState<Wire | 'new' | null>(null)
  const { mass } = measures(shop.site.units)
  return (
    <section>
      <h2>Wires</h2>
      <ul className="plain">
        {shop.wires.map((w) => (
          <li key={w.id}>
            <button type="button" className="bare" onClick={() => setOpen(w)}>
              {w.name}
            </button>{' '}
            <span className="dim">
              {wireSize(w.diameterMm, shop.site.units)}, {w.construction}, spool {shown(w.spoolKg, mass)} {mass.word}
              {w.coreMm !== null && w.fullMm !== null ? `, wound ${w.coreMm}–${w.fullMm} mm` : ''}
            </span>
          </li>
        ))}
      </ul>
      {open ? (
        <WireForm
          key={open === 'new' ? 'new' : open.id}
          shop={shop}
          wire={open === 'new' ? null : open}
          onDone={() => setOpen(null)}
        />
      ) : (
        <Button onClick={() => setOpen('new')}>a new wire</Button>
      )}
    </section>
  )
}

const roundPrice = (facts: Record<string, unknown>) => {
  const price = facts['pricePerKgMinor']
  return typeof price === 'number' ? { ...facts, pricePerKgMinor: Math.round(price) } : facts
}

const number = (text: string) => (text.trim() ? parseNumber(text) : null)
const text = (value: number | null | undefined) => (value == null ? '' : String(value))

function WireForm({ shop, wire, onDone }: { shop: ShopAnswer; wire: Wire | null; onDone: () => void }) {
  const save = useSave('/shop/wire')
  const { mass } = measures(shop.site.units)
  const [name, setName] = useState(wire?.name ?? '')
  const [size, setSize] = useState(wire ? `${wire.diameterMm} mm` : '')
  const [construction, setConstruction] = useState(wire?.construction ?? 'solid')
  const [kg, setKg] = useState(wire ? shown(wire.spoolKg, mass) : '15')
  const [tare, setTare] = useState(wire?.tareKg == null ? '' : shown(wire.tareKg, mass))
  const [core, setCore] = useState(text(wire?.coreMm))
  const [full, setFull] = useState(text(wire?.fullMm))
  const [width, setWidth] = useState(text(wire?.widthMm))
  const [texts, setTexts] = useState<Texts>(() => textsOf(WIRE_SPECS, wire?.fit))
  const [gases, setGases] = useState<Gas[]>(wire?.fit?.gases ?? [])
  const told = factsOf(WIRE_SPECS, texts)
  const sizes = { coreMm: number(core), fullMm: number(full), widthMm: number(width) }
  const densityGPerCm3 = wire?.construction === construction ? wire.densityGPerCm3 : DENSITY[construction]
  const send = () =>
    save.mutate(
      {
        name,
        size,
        construction,
        densityGPerCm3,
        spoolKg: typed(kg, mass),
        tareKg: tare.trim() ? typed(tare, mass) : null,
        ...sizes,
        fit: { ...UNTOLD_WIRE, ...(told.ok ? roundPrice(told.facts) : {}), gases: gases.length > 0 ? gases : null },
      },
      { onSuccess: onDone },
    )
  return (
    <Form
      className="built-form boxed"
      onSubmit={(e) => {
        e.preventDefault()
        send()
      }}
    >
      <TextField id="w-name" label="name" disabled={wire !== null} {...field(name, setName)} />
      <TextField id="w-size" label="size" placeholder="0.9 mm, .035" {...field(size, setSize)} />
      <PickOne
        id="w-con"
        label="made as"
        value={construction}
        options={Object.keys(DENSITY).map((d) => [d, d])}
        onPick={setConstruction}
      />
      <TextField id="w-kg" label={`${mass.word} on a full spool`} inputMode="decimal" {...field(kg, setKg)} />
      <TextField id="w-tare" label={`${mass.word} an empty one weighs`} inputMode="decimal" {...field(tare, setTare)} />
      <TextField id="w-core" label="core across, mm" inputMode="decimal" {...field(core, setCore)} />
      <TextField id="w-full" label="full one across, mm" inputMode="decimal" {...field(full, setFull)} />
      <TextField id="w-width" label="wound width, mm" inputMode="decimal" {...field(width, setWidth)} />
      <SpecFields id="w" specs={WIRE_SPECS} texts={texts} onChange={setTexts} />
      <fieldset className="built-keys">
        <legend className="small-print">gases its data name; none ticked: not told</legend>
        {GASES.map((g) => (
          <label key={g} className="on-gun">
            <Form.Check.Input
              checked={gases.includes(g)}
              onChange={(e) => setGases(e.target.checked ? [...gases, g] : gases.filter((x) => x !== g))}
            />{' '}
            {g}
          </label>
        ))}
      </fieldset>
      <Unread why={told.ok ? null : told.why} />
      <Trouble problem={save.error} />
      <div className="built-keys">
        <Button type="submit" variant="chalk" disabled={!name.trim() || !size.trim() || !told.ok || save.isPending}>
          Save
        </Button>
        <Button onClick={onDone}>leave it</Button>
      </div>
    </Form>
  )
}
