import { field, PickOne, TextField } from '@web/shell/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { parseNumber } from '@core/ingest/columns.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { money, wireSize } from '@web/format/numbers.ts'
import { Photos } from '@web/photo/Photos.tsx'
import { Trouble } from '@web/shell/Trouble.tsx'
import { Wires } from './Wires.tsx'
import { useSave } from './queries.ts'

/** Parts with price and count, wires, fit families. */
export function PartsList({ shop }: { shop: ShopAnswer }) {
  const [filter, setFilter] = useState('')
  const [open, setOpen] = useState<Partial<ShopAnswer['parts'][number]> | null>(null)
  const family = new Map(shop.families.map((f) => [f.id, f.name]))
  const shown = shop.parts.filter((p) =>
    `${p.code} ${p.name} ${p.kindKey} ${family.get(p.familyId ?? '') ?? ''}`
      .toLowerCase()
      .includes(filter.toLowerCase()),
  )
  return (
    <>
      <div className="d-flex gap-2 flex-wrap align-items-end mb-2">
        <TextField id="f-part" label="find" value={filter} onChange={(e) => setFilter(e.target.value)} />
        <Button onClick={() => setOpen({})}>a new part</Button>
      </div>
      {open ? <PartForm key={open.id ?? 'new'} shop={shop} part={open} onDone={() => setOpen(null)} /> : null}
      {open?.id ? <Photos of={{ type: 'part', key: open.id }} /> : null}
      <div className="table-responsive">
        <table className="table">
          <thead>
            <tr>
              <th>code</th>
              <th>part</th>
              <th>kind</th>
              <th>family</th>
              <th>wire</th>
              <th className="text-end">price</th>
              <th className="text-end">on hand</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {shown.map((p) => (
              <tr key={p.id}>
                <td>{p.code}</td>
                <td>{p.name}</td>
                <td>{shop.kinds.find((k) => k.key === p.kindKey)?.name}</td>
                <td>{family.get(p.familyId ?? '') ?? ''}</td>
                <td>{p.wireSizeMm ? wireSize(p.wireSizeMm, shop.site.units) : ''}</td>
                <td className="text-end">{p.priceMinor === null ? '' : money(p.priceMinor, shop.site.currency)}</td>
                <td className="text-end">{p.onHand ?? <span className="dim">not counted</span>}</td>
                <td className="text-end">
                  <button type="button" className="bare" onClick={() => setOpen(p)}>
                    change
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="cols">
        <Wires shop={shop} />
        <Families shop={shop} />
      </div>
    </>
  )
}

function PartForm({
  shop,
  part,
  onDone,
}: {
  shop: ShopAnswer
  part: Partial<ShopAnswer['parts'][number]>
  onDone: () => void
}) {
  const save = useSave('/shop/part')
  const [code, setCode] = useState(part.code ?? '')
  const [name, setName] = useState(part.name ?? '')
  const [kindKey, setKind] = useState(part.kindKey ?? 'tip')
  const [familyId, setFamily] = useState(part.familyId ?? '')
  const [size, setSize] = useState(part.wireSizeMm ? `${part.wireSizeMm} mm` : '')
  const [price, setPrice] = useState(part.priceMinor == null ? '' : String(part.priceMinor / 100))
  const [count, setCount] = useState('')
  const priceMinor = price ? Math.round((parseNumber(price) ?? NaN) * 100) : null
  const onHand = count ? parseNumber(count) : null
  const isBad = (priceMinor !== null && !Number.isFinite(priceMinor)) || (count !== '' && onHand === null)
  const submit = () =>
    save.mutate(
      { code, name, kindKey, familyId: familyId || null, wireSize: size || null, priceMinor, onHand },
      { onSuccess: onDone },
    )
  return (
    <Form
      className="built-form boxed"
      onSubmit={(e) => {
        e.preventDefault()
        submit()
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

function Families({ shop }: { shop: ShopAnswer }) {
  const save = useSave('/shop/family')
  const [name, setName] = useState('')
  return (
    <section>
      <h2>Fit families</h2>
      <p className="small-print">Parts that screw and seat together.</p>
      <ul className="plain">
        {shop.families.map((f) => (
          <li key={f.id}>{f.name}</li>
        ))}
      </ul>
      <Form
        className="d-flex gap-2 mt-2"
        onSubmit={(e) => {
          e.preventDefault()
          save.mutate({ name }, { onSuccess: () => setName('') })
        }}
      >
        <Form.Control aria-label="Name of a fit family" value={name} onChange={(e) => setName(e.target.value)} />
        <Button type="submit" disabled={!name.trim()}>
          Add
        </Button>
      </Form>
      <Trouble problem={save.error} />
    </section>
  )
}
