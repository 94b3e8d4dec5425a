import { useEffect, useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { type ShopAnswer } from '@contract/shop.ts'
import { type StockAnswer, type StockPart } from '@contract/stock.ts'
import { aboutMoney, wireSize, type Units } from '@web/format/numbers.ts'
import { dayKey } from '@web/format/times.ts'
import { DayField } from '@web/kit/DayField.tsx'
import { Bare } from '@web/kit/Keys.tsx'
import { claimScans } from '@web/kit/wedge.ts'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Unbroken } from '@web/kit/Unbroken.tsx'
import { CountShelves } from '@web/parts/CountShelves.tsx'
import { useIsLead, useMe } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { useShop } from '@web/shopmodel/queries.ts'
import { absenceSentence, partOfCode, partsSentence } from './buyingwords.ts'
import { Bins } from './Bins.tsx'
import { FewerKinds, Orphans } from './Fewer.tsx'
import { Kits } from './Kits.tsx'
import { OnTheWay } from './OnTheWay.tsx'
import { PartOpened } from './PartOpened.tsx'
import { Stores } from './Stores.tsx'
import { Suppliers } from './Suppliers.tsx'
import { ToOrder } from './ToOrder.tsx'
import { useStock } from './queries.ts'

/** Parts: what will we run out of, when, what to buy, of whom. */
export function PartsPage() {
  const { get, put } = useAddress()
  const stock = useStock(get('until'))
  const me = useMe()
  const shop = useShop()
  const isPhone = useIsPhone()
  const isLead = useIsLead()
  const units = me.data?.units ?? 'metric'
  const known = stock.data?.parts
  useEffect(() => {
    if (!known) return
    return claimScans((text) => {
      const part = partOfCode(known, text)
      if (part) put({ part: part.partId, by: 'scan' })
      return part !== undefined
    })
  })
  if (!stock.data)
    return (
      <main className="stock">
        <Waiting says="Counting what will be wanted" problem={stock.error} />
      </main>
    )
  const at = stock.data
  const shown = at.parts.filter((p) => matches(p, { typed: get('find'), units, words: wordsOf(shop.data, p) }))
  const open = at.parts.find((p) => p.partId === get('part'))
  const inUse = shown.filter((p) => p.inUse > 0 || p.partId === open?.partId)
  return (
    <main className="stock" aria-busy={stock.isPlaceholderData}>
      <h1 className="sentence">
        <Unbroken text={partsSentence(at)} />
      </h1>
      <p className="stock-why">{absenceSentence(at)}</p>
      <Trouble problem={stock.error} />
      <div className="stock-find">
        <Form.Control
          value={get('find')}
          onChange={(e) => put({ find: e.target.value })}
          placeholder="any word of yours for a part"
          aria-label="Which part"
        />
        <DayField
          id="stock-until"
          label="Wanted until which day"
          day={get('until')}
          units={units}
          today={dayKey(at.nowMs, at.zone)}
          isComing
          placeholder="wanted until: a day, end of term"
          onPick={(until) => put({ until })}
        />
      </div>
      <Bins parts={inUse} openId={open?.partId ?? ''} onOpen={(partId) => put({ part: partId, by: null })} />
      {open ? (
        <PartOpened
          key={open.partId}
          part={open}
          at={at}
          units={units}
          isOwner={me.data?.person?.role === 'lead'}
          isScanned={get('by') === 'scan'}
          onOpen={(partId) => put({ part: partId, by: 'scan' })}
        />
      ) : null}
      <ToOrder at={at} onOpen={(partId) => put({ part: partId })} />
      <OnTheWay at={at} />
      <Stores at={at} isLead={isLead} />
      <Kits />
      <TiedUp at={at} />
      <Orphans at={at} />
      <FewerKinds at={at} />
      <Counting at={at} />
      <Suppliers at={at} isOwner={me.data?.person?.role === 'lead'} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

/** Any word of the shop's for it: code, name, kind, family, size, where it lies, whose it is. */
function matches(p: StockPart, of: { typed: string; units: Units; words: readonly string[] }): boolean {
  const { typed, units, words } = of
  const size = p.wireSizeMm === null ? '' : `${p.wireSizeMm} ${wireSize(p.wireSizeMm, units)}`
  const theirs = p.offers.map((o) => `${o.theirCode ?? ''} ${o.supplierName ?? ''}`).join(' ')
  const all =
    `${p.code} ${p.name} ${p.kindName} ${p.familyName ?? ''} ${size} ${p.shelf ?? ''} ${theirs} ${words.join(' ')}`.toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => all.includes(word))
}

const wordsOf = (shop: ShopAnswer | undefined, p: StockPart): readonly string[] =>
  shop?.kinds.find((k) => k.key === p.kindKey)?.synonyms ?? []

function TiedUp({ at }: { at: StockAnswer }) {
  if (at.tiedUpMinor < 100) return null
  return (
    <p className="honesty dim">
      By this advice about {aboutMoney(at.tiedUpMinor, at.currency)} lie on the shelves on average. How much of what is
      changed gets logged, tins and deliveries without an order stand in <Link to="/shop?part=counts">Our shop</Link>.
    </p>
  )
}

/** The whole shelf at once: folded away once there is a count. */
function Counting({ at }: { at: StockAnswer }) {
  const isFirst = at.parts.every((p) => p.onHand === null)
  const shop = useShop()
  const [isOpen, setOpen] = useState(false)
  if (!shop.data) return null
  if (shop.data.parts.length === 0)
    return (
      <p>
        No part has a number yet: <Link to="/shop?part=bring">bring a parts list in</Link>, or{' '}
        <Link to="/shop?part=parts">write them down</Link>. Then the shelf can be counted here.
      </p>
    )
  if (!isFirst && !isOpen)
    return (
      <p>
        <Bare onClick={() => setOpen(true)}>Count the whole shelf</Bare>
      </p>
    )
  return <CountShelves shop={shop.data} />
}
