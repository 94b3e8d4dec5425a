import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type StockAnswer, type StoreAnswer } from '@contract/stock.ts'
import { listed, MAIN_PLACE } from '@web/format/words.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { asItIs, needed, neededWords, useReadForm } from '@web/kit/readform.ts'
import { Tick } from '@web/kit/Tick.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { useSave, useShop } from '@web/shopmodel/queries.ts'
import { fillBecause, fillWords } from './buyingwords.ts'
import { useCounts } from './counts.ts'

/** Where parts lie besides the main shelf, and what to carry there so that nobody has to walk. */
export function Stores({ at, isLead }: { at: StockAnswer; isLead: boolean }) {
  const [openId, setOpen] = useState<string | null>(null)
  if (!isLead && at.stores.length === 0) return null
  return (
    <section aria-label="Where parts lie">
      <h2>Where parts lie</h2>
      {at.stores.length === 0 ? (
        <p className="said dim">
          All on {MAIN_PLACE}, as far as this program knows. Where cells or a classroom have a cupboard of their own,
          say so: each is counted by itself, and this page says what to carry there.
        </p>
      ) : null}
      {at.stores.map((s) => (
        <OneStore key={s.id} store={s} isLead={isLead} onEdit={() => setOpen(s.id)} />
      ))}
      {!isLead ? null : openId === null ? (
        <p>
          <Bare onClick={() => setOpen('')}>
            {at.stores.length === 0 ? 'another place for parts' : 'one more place'}
          </Bare>
        </p>
      ) : (
        <StoreForm
          key={openId}
          store={at.stores.find((s) => s.id === openId)}
          stores={at.stores}
          onDone={() => setOpen(null)}
        />
      )}
    </section>
  )
}

function OneStore({ store, isLead, onEdit }: { store: StoreAnswer; isLead: boolean; onEdit: () => void }) {
  const shop = useShop()
  const areas = store.areaIds.flatMap((id) => shop.data?.areas.find((a) => a.id === id)?.name ?? [])
  return (
    <>
      <p>
        <strong>{store.name}</strong>
        {areas.length > 0 ? ` for the guns of ${listed(areas)}` : ', for no guns yet'}: {fillWords(store)}{' '}
        {isLead ? <Bare onClick={onEdit}>change</Bare> : null}
      </p>
      {isLead && store.fill.some((f) => f.carry > 0) ? (
        <FillUp key={store.fill.map((f) => f.carry).join()} store={store} />
      ) : null}
    </>
  )
}

/** What to carry: the numbers can be others, one tap says it was done. */
function FillUp({ store }: { store: StoreAnswer }) {
  const save = useSave('/parts/carry')
  const wants = store.fill.filter((f) => f.carry > 0)
  const { unread, counted, field } = useCounts(wants, (f) => f.carry)
  const lines = counted.map(({ row, quantity }) => ({ partId: row.partId, quantity }))
  return (
    <div className="order">
      <ul className="order-lines">
        {wants.map((f) => (
          <li key={f.partId}>
            <label>
              <span>
                <strong>{f.code}</strong> <span className="dim">{`${f.name}: ${fillBecause(f)}`}</span>
              </span>
              <Form.Control {...field(f, `${f.code}: how many to carry to ${store.name}`)} />
            </label>
          </li>
        ))}
      </ul>
      {unread.length > 0 ? <p className="small-print">Write whole numbers: 0 leaves a part out.</p> : null}
      <Button
        variant="chalk"
        disabled={save.isPending || unread.length > 0 || lines.length === 0}
        onClick={() => save.mutate({ fromStoreId: null, toStoreId: store.id, lines })}
      >
        Carried there
      </Button>
      <Trouble problem={save.error} />
    </div>
  )
}

function StoreForm(props: { store: StoreAnswer | undefined; stores: readonly StoreAnswer[]; onDone: () => void }) {
  const { store, stores, onDone } = props
  const shop = useShop()
  const save = useSave('/parts/store')
  const close = useSave('/parts/store/closed')
  const form = useReadForm(
    {
      name: neededWords('What is it called?'),
      fillDays: needed({ of: 'days', from: 1, to: 90 }),
      areaIds: asItIs<string[]>(),
    },
    { name: store?.name ?? '', fillDays: String(store?.fillDays ?? 7), areaIds: [...(store?.areaIds ?? [])] },
  )
  const areaIds = form.typed('areaIds')
  const send = form.submit(({ fillDays, ...read }) =>
    save.mutate({ id: store?.id ?? null, ...read, fillDays: Math.round(fillDays) }, { onSuccess: onDone }),
  )
  const otherOf = (areaId: string) => stores.find((s) => s.id !== store?.id && s.areaIds.some((id) => id === areaId))
  return (
    <Form noValidate onSubmit={send}>
      <div className="built-form">
        <TypedField form={form} name="name" id="store-name" label="what it is called" maxLength={40} />
        <QuantityField form={form} name="fillDays" id="store-days" label="filled up every so many days" />
      </div>
      <fieldset className="store-areas">
        <legend>the guns of these areas get theirs there</legend>
        {(shop.data?.areas ?? []).map((a) => (
          <Tick
            key={a.id}
            isOn={areaIds.includes(a.id)}
            onTick={(isOn) => form.put('areaIds', isOn ? [...areaIds, a.id] : areaIds.filter((id) => id !== a.id))}
          >
            {a.name}
            {otherOf(a.id) ? <span className="dim"> (now {otherOf(a.id)?.name})</span> : null}
          </Tick>
        ))}
      </fieldset>
      <div className="d-flex gap-2 flex-wrap mt-2">
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Keep
        </Button>
        <Button onClick={onDone}>Leave it</Button>
        {store ? (
          <Button
            variant="outline-chalk"
            disabled={close.isPending}
            onClick={() => close.mutate({ storeId: store.id }, { onSuccess: onDone })}
          >
            Given up: all of it goes to {MAIN_PLACE}
          </Button>
        ) : null}
      </div>
      <Trouble problem={save.error ?? close.error} />
    </Form>
  )
}
