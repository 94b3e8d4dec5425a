import { type KindKey } from '@core/path/columns.ts'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type Groove } from '@core/rightparts/facts.ts'
import { shownQuantity } from '@core/units/quantity.ts'
import { UNTOLD_PART } from '@core/rightparts/untold.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { anyWireSizeText, asItIs, neededWords, quantity, useReadForm, type Reader } from '@web/kit/readform.ts'
import { PickTyped, QuantityField, TypedField, Why } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { FaceFields, facesOf, groovesOf, type Faces } from './RollFaces.tsx'
import { PART_SPECS, PROOF_SPEC } from './fitspecs.ts'
import { SpecFields } from './SpecFields.tsx'
import { specsReader, textsOf } from './specs.ts'
import { MAIN_PLACE } from '@web/format/words.ts'
import { useSave } from '@web/shopmodel/queries.ts'

type Part = Partial<ShopAnswer['parts'][number]>

const specsOf = (kindKey: KindKey) => [...(PART_SPECS[kindKey] ?? []), PROOF_SPEC]

/** What may be told of a part of any kind: the fields shown follow the kind, what was typed for another is left out. */
const ALL_SPECS = [
  ...new Map(
    Object.values(PART_SPECS)
      .flat()
      .map((spec) => [spec.key, spec]),
  ).values(),
  PROOF_SPEC,
]

const facesReader: Reader<[Groove, Groove] | null, Faces> = (faces) => {
  const read = groovesOf(faces)
  return read.ok ? { ok: true, value: read.grooves } : { ok: false, why: read.why }
}

function usePartForm(shop: ShopAnswer, part: Part, kindKey: KindKey) {
  const { units } = shop.site
  const money = { of: 'money', from: 0 } as const
  const fit = { units, facts: part.fit }
  return useReadForm(
    {
      code: neededWords('Write the code it is ordered by.'),
      name: neededWords('Write what it is called.'),
      familyId: asItIs<string>(),
      size: anyWireSizeText,
      price: quantity({ ...money, kept: part.priceMinor }),
      count: quantity({ of: 'count', from: 0 }),
      fit: specsReader(specsOf(kindKey), fit),
      faces: kindKey === 'rolls' ? facesReader : noFaces,
      also: asItIs<string[]>(),
    },
    {
      code: part.code ?? '',
      name: part.name ?? '',
      familyId: part.familyId ?? '',
      size: part.wireSizeMm ? `${part.wireSizeMm} mm` : '',
      price: shownQuantity(part.priceMinor, money),
      count: '',
      fit: textsOf(ALL_SPECS, fit),
      faces: facesOf(part.fit?.grooves ?? null),
      also: part.fit?.alsoFamilyIds ?? [],
    },
  )
}
const noFaces: Reader<[Groove, Groove] | null, Faces> = () => ({ ok: true, value: null })

/** What a count here says: the main place, where there are several. */
function byLog({ onHand, lies = [] }: Part): string {
  if (lies.every((l) => l.storeId === null)) return onHand == null ? '' : `${onHand} by the log`
  const main = lies.find((l) => l.storeId === null)
  return `${MAIN_PLACE}${main ? `: ${main.onHand} by the log` : ''}`
}

/** One part: what it is called, which family and wire it is for, and what its kind asks. */
export function PartForm({ shop, part, onDone }: { shop: ShopAnswer; part: Part; onDone: () => void }) {
  const save = useSave('/shop/part')
  const [kindKey, setKind] = useState(part.kindKey ?? 'tip')
  const form = usePartForm(shop, part, kindKey)
  const send = form.submit(({ code, name, familyId, size, price, count, fit, faces, also }) =>
    save.mutate(
      {
        ...(part.id ? { id: part.id } : {}),
        ...{ code, name, kindKey, familyId: familyId || null, wireSize: size, priceMinor: price, onHand: count },
        fit: { ...UNTOLD_PART, ...fit, grooves: faces, alsoFamilyIds: also },
      },
      { onSuccess: onDone },
    ),
  )
  return (
    <Form noValidate className="built-form boxed" onSubmit={send}>
      <TypedField form={form} name="code" id="pt-code" label="code" />
      <TypedField form={form} name="name" id="pt-name" label="name" />
      <PickOne
        id="pt-kind"
        label="kind"
        value={kindKey}
        options={shop.kinds.map((k) => [k.key, k.name])}
        onPick={setKind}
      />
      <PickTyped
        form={form}
        name="familyId"
        id="pt-fam"
        label="fit family"
        none="any"
        options={shop.families.map((f) => [f.id, f.name])}
      />
      <TypedField form={form} name="size" id="pt-size" label="for wire" placeholder="0.9 mm, .035" />
      <QuantityField form={form} name="price" id="pt-price" label={`price, ${shop.site.currency}`} />
      <QuantityField form={form} name="count" id="pt-count" label="counted now" placeholder={byLog(part)} />
      <SpecFields id="pt" form={form} specs={specsOf(kindKey)} units={shop.site.units} />
      {kindKey === 'rolls' ? (
        <FaceFields faces={form.typed('faces')} onChange={(faces) => form.put('faces', faces)} />
      ) : null}
      <Why form={form} name="faces" />
      <AlsoFits
        shop={shop}
        own={form.typed('familyId')}
        also={form.typed('also')}
        onChange={(also) => form.put('also', also)}
      />
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

function AlsoFits(props: {
  shop: ShopAnswer
  own: string
  also: readonly string[]
  onChange: (also: string[]) => void
}) {
  const others = props.shop.families.filter((f) => f.id !== props.own)
  if (!props.own || others.length === 0) return null
  return (
    <fieldset className="built-keys">
      <legend className="small-print">fits these families too</legend>
      {others.map((f) => (
        <label key={f.id} className="on-gun">
          <Form.Check.Input
            checked={props.also.includes(f.id)}
            onChange={(e) =>
              props.onChange(e.target.checked ? [...props.also, f.id] : props.also.filter((id) => id !== f.id))
            }
          />{' '}
          {f.name}
        </label>
      ))}
    </fieldset>
  )
}
