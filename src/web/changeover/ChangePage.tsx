import { Key } from '@web/kit/Keys.tsx'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { type ChangeAnswer, type GunChange } from '@contract/changeover.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { newKey } from '@web/api/client.ts'
import { useMe } from '@web/people/queries.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { WhichGun } from '@web/places/WhichGun.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { StepWalk } from '@web/guide/StepWalk.tsx'
import { isStuck } from '@web/guide/walk.ts'
import { ChangeSheet } from './ChangeSheet.tsx'
import { ChangeEnd } from './ChangeEnd.tsx'
import { useChange, useLogChange, type ChangeAsked } from './queries.ts'

/** Changing wire on one gun or many: which wire, what it takes, then step by step at the booth. */
export function ChangePage() {
  const shop = useShop()
  const me = useMe()
  const { get, put } = useAddress()
  const guns = get('guns')
  const stationIds = useMemo(() => guns.split(',').filter(Boolean), [guns])
  const [isScrapped, setScrapped] = useState<boolean | null>(null)
  const asked = { stationIds, wireId: get('wire'), procedureId: get('by') || null, isScrapped }
  const change = useChange(asked)
  const units = me.data?.units ?? 'metric'
  if (stationIds.length === 0) return <WhichGun named="guns" />
  if (!shop.data)
    return (
      <main className="change" aria-busy={shop.isPending}>
        <Waiting says="Looking what wires there are" problem={shop.error} />
      </main>
    )
  const names = stationIds.map((id) => shop.data.stations.find((s) => s.id === id)?.name ?? '')
  const set = (name: string, value: string) => put({ [name]: value })
  const atGun = get('at')
  const walked = change.data?.guns.find((g) => g.stationId === atGun)
  if (walked && change.data)
    return (
      <Walked
        change={change.data}
        gun={walked}
        asked={{ ...asked, isScrapped: isScrapped ?? false }}
        onLeave={() => set('at', '')}
      />
    )
  return (
    <main className="change">
      <h1 className="sentence">{title(names, change.data)}</h1>
      <WhichWire shop={shop.data} wireId={asked.wireId} procedureId={asked.procedureId} onPick={set} />
      <Trouble problem={change.error} />
      {change.data ? (
        <ChangeSheet
          change={change.data}
          units={units}
          isScrapped={isScrapped}
          onScrapped={setScrapped}
          onWalk={(id) => set('at', id)}
        />
      ) : null}
      {change.data ? <DoneAlready change={change.data} asked={asked} /> : null}
    </main>
  )
}

function title(names: readonly string[], change: ChangeAnswer | undefined): string {
  const where = names.length > 4 ? `${names.length} guns` : names.join(', ')
  return change
    ? `${where}: to ${change.toWire}, about ${Math.round(change.minutes)} minutes.`
    : `${where}: to which wire?`
}

function WhichWire(props: {
  shop: ShopAnswer
  wireId: string
  procedureId: string | null
  onPick: (name: string, value: string) => void
}) {
  const { shop } = props
  const fitting = shop.procedures.filter((p) => p.fit.wireId === props.wireId || p.fit.wireId === null)
  return (
    <div className="built-form">
      <PickOne
        id="change-wire"
        label="to which wire"
        none="choose …"
        value={props.wireId}
        options={shop.wires.map((w) => [w.id, w.name])}
        onPick={(v) => props.onPick('wire', v)}
      />
      {fitting.length > 0 ? (
        <PickOne
          id="change-by"
          label="by which procedure"
          none="none"
          value={props.procedureId ?? ''}
          options={fitting.map((p) => [p.id, p.name])}
          onPick={(v) => props.onPick('by', v)}
        />
      ) : null}
    </div>
  )
}

/** It was done already, on one gun or by several hands on many: said in two taps, the second tells whether the rolls were read. */
function DoneAlready({ change, asked }: { change: ChangeAnswer; asked: ChangeAsked }) {
  const log = useLogChange()
  const [key] = useState(newKey)
  const [isOpen, setOpen] = useState(false)
  const { guns } = change
  const [only] = guns
  const where = guns.length === 1 ? `on ${only?.name ?? ''}` : `on ${guns.length} guns`
  if (log.isSuccess)
    return (
      <p role="status" className="said">
        Logged {where}. <Link to="/">Floor</Link>
      </p>
    )
  const send = (isUnread: boolean) =>
    log.mutate({
      ...{ key, isUnread, wireId: asked.wireId, procedureId: asked.procedureId },
      ...{ isScrapped: asked.isScrapped ?? false, stillTied: [], skipped: [] },
      stationIds: guns.map((g) => g.stationId),
    })
  const isAnyUnread = guns.some((g) => g.unread !== null)
  return (
    <div className="change-foot">
      {isOpen ? (
        <>
          <p>Parts, rolls and settings as they stand above?</p>
          <Key tone="chalk" disabled={log.isPending} onClick={() => send(false)}>
            {isAnyUnread ? 'Yes, and every roll was read' : 'Yes, log it'}
          </Key>
          {isAnyUnread ? (
            <Key disabled={log.isPending} onClick={() => send(true)}>
              Yes, but nobody read the rolls
            </Key>
          ) : null}
        </>
      ) : (
        <Key disabled={guns.some(isStuck)} onClick={() => setOpen(true)}>
          {guns.length === 1 ? 'It is done already' : `All ${guns.length} are changed already`}
        </Key>
      )}
      <Trouble problem={log.error} />
    </div>
  )
}

function Walked(props: {
  change: ChangeAnswer
  gun: GunChange
  asked: ChangeAsked & { isScrapped: boolean }
  onLeave: () => void
}) {
  const { change, gun, asked } = props
  const go = useNavigate()
  const [beginMs] = useState(() => Date.now())
  return (
    <StepWalk
      name={gun.name}
      title={`to ${change.toWire}`}
      steps={gun.steps}
      stationId={gun.stationId}
      onLeave={props.onLeave}
      ended={(state) => (
        <ChangeEnd gun={gun} asked={asked} walked={{ state, beginMs }} onDone={() => go(`/gun/${gun.stationId}`)} />
      )}
    />
  )
}
