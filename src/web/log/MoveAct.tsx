import { type StationId } from '@core/ids/id.ts'
import { Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import { Form, Modal } from 'react-bootstrap'
import { findAnswer } from '@contract/gun.ts'
import { type LoggedAct } from '@contract/logbook.ts'
import { getJson, newKey } from '@web/api/client.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { matchPlaces } from '@web/places/find.ts'
import { keepLast, useLast } from '@web/offline/last.ts'
import { useCorrect } from './queries.ts'

/** "Not this gun": the line moves to the right one, as a correction. */
export function MoveAct({ logged, onDone }: { logged: LoggedAct; onDone: () => void }) {
  const places = useQuery({ queryKey: ['find'], queryFn: () => getJson('/find', findAnswer) })
  const [typed, setTyped] = useState('')
  const correct = useCorrect()
  const last = useLast()
  const found = matchPlaces(
    (places.data?.places ?? []).filter((p) => p.stationId !== logged.stationId),
    typed,
  )
  const move = (stationId: StationId, name: string) =>
    correct.mutate(
      { key: newKey(), eventId: logged.eventId, stationId },
      {
        onSuccess: () => {
          if (last)
            keepLast({ acts: last.acts, logged: [{ ...logged, stationId, stationName: name, didAmount: null }] })
          onDone()
        },
      },
    )
  return (
    <Modal show onHide={onDone} animation={false} scrollable aria-label="Which gun was it?">
      <Modal.Header>
        <Form.Control
          autoFocus
          size="lg"
          placeholder={`not ${logged.stationName}: which gun was it?`}
          aria-label="Which gun was it"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </Modal.Header>
      <Modal.Body className="find-list">
        <Trouble problem={correct.error} />
        {found.slice(0, 30).map((p) => (
          <Plain
            key={p.stationId}
            className="find-line"
            disabled={correct.isPending}
            onClick={() => move(p.stationId, p.name)}
          >
            <strong>{p.name}</strong>
            <span className="dim">{p.areaName}</span>
          </Plain>
        ))}
      </Modal.Body>
    </Modal>
  )
}
