import { type KindKey } from '@core/path/columns.ts'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { UNTOLD_PART } from '@core/rightparts/untold.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { FaceFields, facesOf, groovesOf, type Faces } from './RollFaces.tsx'
import { PART_SPECS, PROOF_SPEC } from './fitspecs.ts'
import { factsOf, SpecFields, textsOf, Unread, type Texts } from './SpecFields.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

type Part = Partial<ShopAnswer['parts'][number]>

const specsOf = (kindKey: KindKey) => [...(PART_SPECS[kindKey] ?? []), PROOF_SPEC]

/** What is told of a part beyond its name, as typed; `why` says what cannot be read. */
function useToldFit(part: Part, kindKey: KindKey) {
  const [texts, setTexts] = useState<Texts>(() => textsOf(specsOf(part.kindKey ?? 'tip'), part.fit))
  const [faces, setFaces] = useState<Faces>(() => facesOf(part.fit?.grooves ?? null))
  const [also, setAlso] = useState<string[]>(part.fit?.alsoFamilyIds ?? [])
  const specs = specsOf(kindKey)
  const told = factsOf(specs, texts)
  const grooves = kindKey === 'rolls' ? groovesOf(faces) : { ok: true as const, grooves: null }
  return {
    specs,
    texts,
    setTexts,
    faces,
    setFaces,
    also,
    setAlso,
    why: told.ok ? (grooves.ok ? null : grooves.why) : told.why,
    fit: {
      ...UNTOLD_PART,
      ...(told.ok ? told.facts : {}),
      grooves: grooves.ok ? grooves.grooves : null,
      alsoFamilyIds: also,
    },
  }
}

/** One part: what it is called, which family and wire it is for, and what its kind asks. */
export function PartForm({ shop, part, onDone }: { shop: ShopAnswer; part: Part; onDone: () => void }) {
  const save = useSave('/shop/part')
  const [code, setCode] = useState(part.code ?? '')
  const [name, setName] = useState(part.name ?? '')
  const [kindKey, setKind] = useState(part.kindKey ?? 'tip')
  const [familyId, setFamily] = useState(part.familyId ?? '')
  const [size, setSize] = useState(part.wireSizeMm ? `${part.wireSizeMm} mm` : '')
  const [price, setPrice] = useState(part.priceMinor == null ? '' : String(part.priceMinor / 100))
  const [count, setCount] = useState('')
  const told = useToldFit(part, kindKey)
  const priceMinor = price ? Math.round((parseNumber(price) ?? NaN) * 100) : null
  const onHand = count ? parseNumber(count) : null
  const isBad =
    (priceMinor !== null && !Number.isFinite(priceMinor)) || (count !== '' && onHand === null) || told.why !== null
  const facts = { code, name, kindKey, familyId: familyId || null, wireSize: size || null, priceMinor, onHand }
  return (
    <Form
      className="built-form boxed"
      onSubmit={(e) => {
        e.preventDefault()
        save.mutate({ ...facts, fit: told.fit }, { onSuccess: onDone })
      }}
    >
      <TextField id="pt-code" label="code" readOnly={Boolean(part.id)} {...field(code, setCode)} />
      <TextField id="pt-name" label="name" {...field(name, setName)} />
      <PickOne
        id="pt-kind"
        label="kind"
        value={kindKey}
        options={shop.kinds.map((k) => [k.key, k.name])}
        onPick={setKind}
      />
      <PickOne
        id="pt-fam"
        label="fit family"
        none="any"
        value={familyId}
        options={shop.families.map((f) => [f.id, f.name])}
        onPick={setFamily}
      />
      <TextField id="pt-size" label="for wire" placeholder="0.9 mm, .035" {...field(size, setSize)} />
      <TextField id="pt-price" label={`price, ${shop.site.currency}`} inputMode="decimal" {...field(price, setPrice)} />
      <TextField
        id="pt-count"
        label="counted now"
        inputMode="numeric"
        placeholder={part.onHand == null ? '' : `${part.onHand} by the log`}
        {...field(count, setCount)}
      />
      <SpecFields id="pt" specs={told.specs} texts={told.texts} onChange={told.setTexts} />
      {kindKey === 'rolls' ? <FaceFields faces={told.faces} onChange={told.setFaces} /> : null}
      <AlsoFits shop={shop} own={familyId} also={told.also} onChange={told.setAlso} />
      <Unread why={told.why} />
      <Trouble problem={save.error} />
      <div className="built-keys">
        <Button type="submit" variant="chalk" disabled={!code || !name || isBad || save.isPending}>
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
