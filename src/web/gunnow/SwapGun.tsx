import { Bare, Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type GunAnswer } from '@contract/gun.ts'
import { type SpareGun } from '@contract/spareguns.ts'
import { cable } from '@web/format/numbers.ts'
import { useMe } from '@web/people/queries.ts'
import { spareWords } from './sparewords.ts'
import { useSave } from '@web/shopmodel/queries.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSpares, useSwap } from '@web/gunnow/queries.ts'

export const GUN_STATUS_WORD: Record<SpareGun['status'], string> = {
  ready: 'ready',
  toRefurbish: 'to refurbish',
  'not said': 'not said',
}

/** Another gun on this feeder: back to work now, the liner later. */
export function SwapGun({ gun, found, onDone }: { gun: GunAnswer; found: string | null; onDone: () => void }) {
  const spares = useSpares(gun.stationId)
  const swap = useSwap()
  const me = useMe()
  const [oldGun, setOldGun] = useState<'ready' | 'toRefurbish'>('toRefurbish')
  const units = me.data?.units ?? 'metric'
  const list = spares.data?.guns ?? []
  return (
    <div className="more-form">
      <p>
        {gun.gunName ?? 'The gun'} comes off and is{' '}
        <Bare aria-pressed={oldGun === 'ready'} onClick={() => setOldGun(oldGun === 'ready' ? 'toRefurbish' : 'ready')}>
          {oldGun === 'ready' ? 'still good: ready' : 'to refurbish'}
        </Bare>
        . Which one goes on {gun.name}?
      </p>
      <p className="small-print">Power off first, by the site’s own lock-out practice. Seat it flush, then lock it.</p>
      <div className="more-keys">
        {list.map((g) => (
          <Key
            key={g.gunId}
            size="low"
            tone={g.here?.is === 'right' ? 'chalk' : undefined}
            disabled={g.here?.is === 'never' || swap.isPending}
            onClick={() => swap.mutate({ stationId: gun.stationId, gunId: g.gunId, oldGun }, { onSuccess: onDone })}
          >
            {g.name} on {gun.name} now
            <small>
              {[g.familyName, g.cableM ? cable(g.cableM, units) : null].filter(Boolean).join(', ')}{' '}
              {g.here ? spareWords(g.here, units) : GUN_STATUS_WORD[g.status]}
            </small>
          </Key>
        ))}
      </div>
      <FoundHere gun={gun} elsewhere={spares.data?.elsewhere ?? []} found={found} onDone={onDone} />
      {spares.data && list.length === 0 ? <p>No gun hangs free. Leads name spare guns in Our shop.</p> : null}
      <Trouble problem={spares.error ?? swap.error} />
    </div>
  )
}

/** A gun that wandered: its number, typed or scanned, and one tap. What hung here goes where it came from. */
function FoundHere(props: {
  gun: GunAnswer
  elsewhere: readonly { name: string; stationId: string; stationName: string }[]
  /** The place whose gun was scanned here. */
  found: string | null
  onDone: () => void
}) {
  const { gun, elsewhere } = props
  const move = useSave('/shop/move')
  const [text, setText] = useState('')
  const wanted = text
    .trim()
    .toLowerCase()
    .replace(/^.*\/go\//, '')
  const scanned = wanted === '' ? elsewhere.filter((g) => g.stationId === props.found) : []
  const found =
    wanted === ''
      ? scanned
      : elsewhere.filter((g) => [g.name, g.stationName].some((n) => n.toLowerCase().includes(wanted))).slice(0, 4)
  return (
    <>
      <TextField id="swap-number" label="or the number on the gun that hangs here" {...field(text, setText)} />
      {found.length > 0 ? (
        <div className="more-keys">
          {found.map((g) => (
            <Key
              key={g.stationId}
              size="low"
              disabled={move.isPending}
              onClick={() =>
                move.mutate({ stationId: gun.stationId, gunOfStationId: g.stationId }, { onSuccess: props.onDone })
              }
            >
              {g.name} on {gun.name} now?
              <small>it hung on {g.stationName}; the two swap</small>
            </Key>
          ))}
        </div>
      ) : null}
      <Trouble problem={move.error} />
    </>
  )
}
