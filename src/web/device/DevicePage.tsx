import { lower } from '@web/format/words.ts'
import { Button } from 'react-bootstrap'
import { Key } from '@web/kit/Keys.tsx'
import { useEffect, useState } from 'react'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { clockTime, when } from '@web/format/times.ts'
import { OwnPassword } from '@web/people/OwnPassword.tsx'
import { useMe } from '@web/people/queries.ts'
import { useOutbox } from '@web/photo/keeping.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { usePlaces } from '@web/places/usePlaces.ts'
import { queue, takeBack, useQueue } from '@web/offline/device.ts'
import { heldMs } from './holdarea.ts'
import { canTakeBack, type Entry, type QueueState } from '@web/offline/queue.ts'
import { deviceSentence, heldSentence, placeOfEntry, storageSentence, type Storage } from './devicewords.ts'

/** Whether the browser promised to keep what is here, as far as it says. */
function useStorage(): Storage {
  const [storage, setStorage] = useState<Storage>('asking')
  useEffect(() => {
    const asked = navigator.storage?.persisted?.() ?? Promise.resolve(null)
    void asked.then((is) => setStorage(is === null ? 'unknown' : is ? 'kept' : 'notPromised')).catch(() => undefined)
  }, [])
  return storage
}

/** This device: what waits on it and since when, what was not taken, what it holds for when there is no link. */
export function DevicePage() {
  const state = useQueue()
  const photos = useOutbox()
  const me = useMe()
  const storage = useStorage()
  const isPhone = useIsPhone()
  const nowMs = Date.now()
  const zone = me.data?.zone ?? 'UTC'
  const device = me.data?.device ?? null
  const places = usePlaces()
  const nameOf: ListProps['nameOf'] = ({ says, body }) => {
    const id = placeOfEntry(body)
    const name = places.data?.places.find((p) => p.stationId === id)?.name
    return name && !says.startsWith(name) ? `${name}: ${lower(says)}` : says
  }
  return (
    <main className="walk device">
      <h1 className="sentence">{deviceSentence({ state, photos: photos.waiting.length, nowMs, zone })}</h1>
      <Waiting state={state} nowMs={nowMs} zone={zone} nameOf={nameOf} />
      <Refused state={state} nowMs={nowMs} zone={zone} nameOf={nameOf} />
      {photos.refused ? <p className="trouble">A photo was not taken: {photos.refused}</p> : null}
      <p>{heldSentence({ name: device?.name ?? null, areaId: device?.areaId ?? null, heldMs: heldMs(), nowMs })}</p>
      <p className="dim">{storageSentence(storage)}</p>
      {me.data?.person ? <OwnPassword name={me.data.person.name} /> : null}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

interface ListProps {
  state: QueueState
  nowMs: number
  zone: string
  nameOf: (entry: Entry) => string
}
function Waiting({ state, nowMs, zone, nameOf }: ListProps) {
  if (state.waiting.length === 0) return null
  return (
    <>
      <p className="dim">
        {state.retryAtMs === null ? 'On its way.' : `Tried again at ${clockTime(state.retryAtMs, zone)}, or now:`}{' '}
        {state.retryAtMs === null ? null : (
          <Button variant="" onClick={() => void queue.go(true)}>
            try now
          </Button>
        )}
      </p>
      <ul className="plain device-list">
        {state.waiting.map((e) => (
          <li key={e.key}>
            <span>
              {nameOf(e)} <span className="dim">{when(e.atMs, nowMs, zone)}</span>
            </span>
            {canTakeBack(state, e.key) ? (
              <Key size="low" onClick={() => void takeBack(e.key)}>
                take it back
              </Key>
            ) : null}
          </li>
        ))}
      </ul>
    </>
  )
}

function Refused({ state, nowMs, zone, nameOf }: ListProps) {
  if (state.refused.length === 0) return null
  return (
    <>
      <h2>Not taken</h2>
      <ul className="plain device-list">
        {state.refused.map(({ entry, message }) => (
          <li key={entry.key}>
            <span>
              {nameOf(entry)} <span className="dim">{when(entry.atMs, nowMs, zone)}</span>
              <br />
              {message} It is kept here until it is put away; log it anew where it belongs.
            </span>
            <Key size="low" onClick={() => void queue.putAway(entry.key)}>
              put it away
            </Key>
          </li>
        ))}
      </ul>
    </>
  )
}
