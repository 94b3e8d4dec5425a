import { Bare } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { ownUnit, shownQuantity } from '@core/units/quantity.ts'
import { GASES, type Gas } from '@core/rightparts/facts.ts'
import { UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { measures, shown } from '@web/format/measures.ts'
import { wireSize } from '@web/format/numbers.ts'
import { asItIs, needed, neededWords, quantity, useReadForm, wireSizeText } from '@web/kit/readform.ts'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { WIRE_SPECS } from './fitspecs.ts'
import { SpecFields } from './SpecFields.tsx'
import { specsReader, textsOf } from './specs.ts'
import { useSave } from '@web/shopmodel/queries.ts'

type Wire = ShopAnswer['wires'][number]
const DENSITY: Record<string, number> = { solid: 7.85, 'flux-cored': 6.1, 'metal-cored': 6.9, aluminium: 2.68 }

/** Wires the shop feeds, and how they are wound: the empty spool's weight and sizes tell what is left on one. */
export function Wires({ shop }: { shop: ShopAnswer }) {
  const [open, setOpen] = useState<Wire | 'new' | null>(null)
  const { mass, rule } = measures(shop.site.units)
  return (
    <section>
      <h2>Wires</h2>
      <ul className="plain">
        {shop.wires.map((w) => (
          <li key={w.id}>
            <Bare onClick={() => setOpen(w)}>{w.name}</Bare>{' '}
            <span className="dim">
              {wireSize(w.diameterMm, shop.site.units)}, {w.construction}, spool {shown(w.spoolKg, mass)} {mass.word}
              {w.coreMm !== null && w.fullMm !== null
                ? `, wound ${shown(w.coreMm, rule)}–${shown(w.fullMm, rule)} ${rule.word}`
                : ''}
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

/** Sizes of the spool it comes on. */
const SIZES = [
  ['core', 'core across'],
  ['full', 'full one across'],
  ['width', 'wound width'],
] as const

function useWireForm(shop: ShopAnswer, wire: Wire | null) {
  const { units } = shop.site
  const [mass, rule] = [{ of: 'mass', units } as const, { of: 'rule', units } as const]
  const fit = { units, facts: wire?.fit }
  return useReadForm(
    {
      name: neededWords('Write what the shop calls it.'),
      size: wireSizeText,
      construction: asItIs<string>(),
      kg: needed({ ...mass, above: 0, kept: wire?.spoolKg }),
      tare: quantity({ ...mass, from: 0, kept: wire?.tareKg }),
      core: quantity({ ...rule, above: 0, kept: wire?.coreMm }),
      full: quantity({ ...rule, above: 0, kept: wire?.fullMm }),
      width: quantity({ ...rule, above: 0, kept: wire?.widthMm }),
      gases: asItIs<Gas[]>(),
      fit: specsReader(WIRE_SPECS, fit),
    },
    {
      name: wire?.name ?? '',
      size: wire ? `${wire.diameterMm} mm` : '',
      construction: wire?.construction ?? 'solid',
      kg: shownQuantity(wire ? wire.spoolKg : 15, mass),
      tare: shownQuantity(wire?.tareKg, mass),
      core: shownQuantity(wire?.coreMm, rule),
      full: shownQuantity(wire?.fullMm, rule),
      width: shownQuantity(wire?.widthMm, rule),
      gases: wire?.fit?.gases ?? [],
      fit: textsOf(WIRE_SPECS, fit),
    },
  )
}

function WireForm({ shop, wire, onDone }: { shop: ShopAnswer; wire: Wire | null; onDone: () => void }) {
  const save = useSave('/shop/wire')
  const { units } = shop.site
  const form = useWireForm(shop, wire)
  const { mass } = measures(units)
  const send = form.submit(({ name, size, construction, kg, tare, core, full, width, gases, fit }) =>
    save.mutate(
      {
        ...{ name, size, construction, spoolKg: kg, tareKg: tare, coreMm: core, fullMm: full, widthMm: width },
        densityGPerCm3: wire?.construction === construction ? wire.densityGPerCm3 : DENSITY[construction],
        fit: { ...UNTOLD_WIRE, ...fit, gases: gases.length > 0 ? gases : null },
      },
      { onSuccess: onDone },
    ),
  )
  return (
    <Form noValidate className="built-form boxed" onSubmit={send}>
      <TypedField form={form} name="name" id="w-name" label="name" disabled={wire !== null} />
      <TypedField form={form} name="size" id="w-size" label="size" placeholder="0.9 mm, .035" />
      <PickTyped
        form={form}
        name="construction"
        id="w-con"
        label="made as"
        options={Object.keys(DENSITY).map((d) => [d, d])}
      />
      <QuantityField form={form} name="kg" id="w-kg" label={`${mass.word} on a full spool`} />
      <QuantityField form={form} name="tare" id="w-tare" label={`${mass.word} an empty one weighs`} />
      {SIZES.map(([name, label]) => (
        <QuantityField
          key={name}
          form={form}
          name={name}
          id={`w-${name}`}
          label={`${label}, ${ownUnit({ of: 'rule', units })}`}
        />
      ))}
      <SpecFields id="w" form={form} specs={WIRE_SPECS} units={units} />
      <Gases named={form.typed('gases')} onChange={(gases) => form.put('gases', gases)} />
      <Trouble problem={save.error} />
      <div className="built-keys">
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Save
        </Button>
        <Button onClick={onDone}>leave it</Button>
      </div>
    </Form>
  )
}

function Gases({ named, onChange }: { named: readonly Gas[]; onChange: (gases: Gas[]) => void }) {
  return (
    <fieldset className="built-keys">
      <legend className="small-print">gases its data name; none ticked: not told</legend>
      {GASES.map((g) => (
        <label key={g} className="on-gun">
          <Form.Check.Input
            checked={named.includes(g)}
            onChange={(e) => onChange(e.target.checked ? [...named, g] : named.filter((x) => x !== g))}
          />{' '}
          {g}
        </label>
      ))}
    </fieldset>
  )
}
