import { Bare } from '@web/kit/Keys.tsx'
import { TextField } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { type ShopAnswer } from '@contract/shop.ts'
import { money, wireSize } from '@web/format/numbers.ts'
import { Photos } from '@web/photo/Photos.tsx'
import { PartForm } from './PartForm.tsx'
import { Wires } from './Wires.tsx'

/** Parts with price and count, and wires. */
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
        <Table>
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
                  <Bare onClick={() => setOpen(p)}>change</Bare>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <Wires shop={shop} />
    </>
  )
}
