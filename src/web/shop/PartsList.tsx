import { NO_ID } from '@core/ids/id.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { LongTable, type Column } from '@web/kit/LongTable.tsx'
import { useMemo, useState } from 'react'
import { Button } from 'react-bootstrap'
import { type ShopAnswer } from '@contract/shop.ts'
import { money, wireSize } from '@web/format/numbers.ts'
import { Photos } from '@web/photo/Photos.tsx'
import { PartForm } from './PartForm.tsx'
import { Wires } from './Wires.tsx'

/** Parts with price and count, and wires. */
export function PartsList({ shop }: { shop: ShopAnswer }) {
  const [open, setOpen] = useState<Partial<Part> | null>(null)
  const columns = useMemo(() => columnsOf(shop), [shop])
  return (
    <>
      {open ? <PartForm key={open.id ?? 'new'} shop={shop} part={open} onDone={() => setOpen(null)} /> : null}
      {open?.id ? <Photos of={{ type: 'part', key: open.id }} /> : null}
      <LongTable
        id="parts"
        rows={shop.parts}
        columns={columns}
        keyOf={(p) => p.id}
        wordsOf={(p) => `${p.code} ${p.name} ${columns.map((c) => c.by(p) ?? '').join(' ')}`}
        findLabel="find"
        none="No part yet: add one, or bring in the list you have under “bring in a sheet”."
        actions={(p) => <Bare onClick={() => setOpen(p)}>change</Bare>}
      >
        <Button onClick={() => setOpen({})}>a new part</Button>
      </LongTable>
      <Wires shop={shop} />
    </>
  )
}

type Part = ShopAnswer['parts'][number]
function columnsOf(shop: ShopAnswer): Column<Part>[] {
  const family = new Map(shop.families.map((f) => [f.id, f.name]))
  const kind = new Map(shop.kinds.map((k) => [k.key, k.name]))
  const familyOf = (p: Part) => family.get(p.familyId ?? NO_ID) ?? null
  const kindOf = (p: Part) => kind.get(p.kindKey) ?? null
  const { units, currency } = shop.site
  return [
    { key: 'code', head: 'code', by: (p) => p.code, cell: (p) => (p.code === p.name ? 'none yet' : p.code) },
    { key: 'part', head: 'part', by: (p) => p.name, cell: (p) => p.name },
    { key: 'kind', head: 'kind', by: kindOf, cell: kindOf },
    { key: 'family', head: 'family', by: familyOf, cell: familyOf },
    {
      key: 'wire',
      head: 'wire',
      by: (p) => p.wireSizeMm,
      cell: (p) => (p.wireSizeMm ? wireSize(p.wireSizeMm, units) : ''),
    },
    {
      key: 'price',
      head: 'price',
      isNumber: true,
      by: (p) => p.priceMinor,
      cell: (p) => (p.priceMinor === null ? '' : money(p.priceMinor, currency)),
    },
    {
      key: 'hand',
      head: 'on hand',
      isNumber: true,
      by: (p) => p.onHand,
      cell: (p) => p.onHand ?? <span className="dim">not counted</span>,
    },
  ]
}
