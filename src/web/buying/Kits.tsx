import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type KitAnswer, type KitLineAnswer } from '@contract/stock.ts'
import { shortDate } from '@web/format/times.ts'
import { listed, lower, MAIN_PLACE } from '@web/format/words.ts'
import { useGroups } from '@web/classes/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Bare } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useIsLead } from '@web/people/queries.ts'
import { useSave, useShop } from '@web/shopmodel/queries.ts'
import { useCounts } from './counts.ts'
import { useKits, type KitFor } from './queries.ts'

/** What to take along for what is due and wrong, in the order it lies in; packed, it is nobody else's until it is used or given back. */
export function Kits() {
  const [isFor, setFor] = useState('')
  const [isOpen, setOpen] = useState(false)
  const kits = useKits(kitFor(isFor))
  const shop = useShop()
  const groups = (useGroups().data?.groups ?? []).filter((g) => g.isActive && g.booths.length > 0)
  const isLead = useIsLead()
  const close = useSave('/parts/kit/closed')
  const packed = kits.data?.packed ?? []
  const named = [
    ...(shop.data?.areas ?? []).map((a) => [`area ${a.id}`, a.name] as const),
    ...groups.map((g) => [`group ${g.id}`, `a class of ${g.name}`] as const),
  ]
  return (
    <section aria-label="Kits">
      <h2>Kits</h2>
      {packed.map((k) => (
        <p key={k.id}>
          <strong>{k.name}</strong>, packed {shortDate(k.madeMs, kits.data?.zone ?? 'UTC')}:{' '}
          {listed(k.lines.map((l) => `${l.quantity} ${l.code}`))}.{' '}
          <a href={`/api/parts/kit.pdf?id=${k.id}`}>on paper</a>{' '}
          {isLead ? (
            <Bare disabled={close.isPending} onClick={() => close.mutate({ kitId: k.id })}>
              used or given back
            </Bare>
          ) : null}
        </p>
      ))}
      <Trouble problem={close.error ?? kits.error} />
      {!isOpen ? (
        <p>
          <Bare onClick={() => setOpen(true)}>a kit for what is due</Bare>
        </p>
      ) : (
        <>
          <div className="built-form">
            <PickOne
              id="kit-area"
              label="for the guns of"
              value={isFor}
              none="all of them"
              options={named}
              onPick={setFor}
            />
          </div>
          {kits.data ? (
            <Pack
              key={`${isFor} ${kits.data.lines.map((l) => l.partId).join()}`}
              kits={kits.data}
              isForName={named.find(([value]) => value === isFor)?.[1] ?? null}
              isLead={isLead}
              onDone={() => setOpen(false)}
            />
          ) : null}
        </>
      )}
    </section>
  )
}

/** The choice is one word and an id. */
function kitFor(value: string): KitFor {
  const [of, id = ''] = value.split(' ')
  if (of === 'area') return { areaId: id }
  return of === 'group' ? { groupId: id } : null
}
/** "for T1 and T2; 2 more as a class may take". */
const forWords = ({ guns, forClass = 0 }: KitLineAnswer): string =>
  [
    guns.length > 0 ? `for ${listed(guns)}` : '',
    forClass > 0 ? `${forClass}${guns.length > 0 ? ' more' : ''} as a class may take` : '',
  ]
    .filter(Boolean)
    .join('; ')

/** "Cell cupboard 2, rack A 1". */
const fromWords = ({ from, shelf }: KitLineAnswer): string =>
  from.length === 0
    ? (shelf ?? 'nobody said where')
    : listed(from.map((f) => `${f.store ?? shelf ?? MAIN_PLACE}${from.length > 1 ? ` ${f.quantity}` : ''}`))

function Pack(props: { kits: KitAnswer; isForName: string | null; isLead: boolean; onDone: () => void }) {
  const { kits, isForName } = props
  const pack = useSave('/parts/kit')
  const { unread, counted, field } = useCounts(kits.lines, (l) => l.quantity)
  const [name, setName] = useState(`${isForName ?? 'all guns'}, ${shortDate(kits.nowMs, kits.zone)}`)
  const lines = counted.map(({ row: { partId, guns, forClass }, quantity }) => ({
    ...{ partId, quantity, guns, ...(forClass ? { forClass } : {}) },
  }))
  if (kits.lines.length === 0 && kits.unknown.length === 0)
    return <p className="dim">Nothing is due or wrong there now.</p>
  return (
    <div className="order">
      <ul className="order-lines kit-lines">
        {kits.lines.map((l) => (
          <li key={l.partId}>
            <label>
              <span>
                <strong>{fromWords(l)}</strong> {l.code}{' '}
                <span className="dim">
                  {l.name}, {forWords(l)}
                </span>
                {l.onHand !== null && l.onHand < l.quantity ? (
                  <strong> only {Math.max(0, l.onHand)} there</strong>
                ) : null}
              </span>
              <Form.Control {...field(l, `${l.code}: how many into the kit`)} />
            </label>
          </li>
        ))}
      </ul>
      {kits.unknown.map((u) => (
        <p key={u.kindName}>
          Nobody knows which {lower(u.kindName)} goes on {listed(u.guns)}: look there first.
        </p>
      ))}
      {unread.length > 0 ? <p className="small-print">Write whole numbers: 0 leaves a part out.</p> : null}
      {props.isLead && kits.lines.length > 0 ? (
        <div className="stock-count">
          <Form.Group controlId="kit-name">
            <Form.Label>called</Form.Label>
            <Form.Control value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
          </Form.Group>
          <Button
            variant="chalk"
            disabled={pack.isPending || unread.length > 0 || lines.length === 0 || name.trim() === ''}
            onClick={() => pack.mutate({ name, lines }, { onSuccess: props.onDone })}
          >
            Packed
          </Button>
          <Trouble problem={pack.error} />
        </div>
      ) : null}
    </div>
  )
}
