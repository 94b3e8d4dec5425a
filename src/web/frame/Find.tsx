import { Bare, Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Form, Modal } from 'react-bootstrap'
import { useNavigate } from 'react-router'
import { newKey } from '@web/api/client.ts'
import { useLog } from '@web/log/queries.ts'
import { matchKinds, matchPlaces } from '@web/places/find.ts'
import { usePlaces } from '@web/places/usePlaces.ts'

/** Two characters and Enter get to any gun; asked from "it's down", the same two say which. */
export function Find({ isOpen, isDown, onClose }: { isOpen: boolean; isDown: boolean; onClose: () => void }) {
  const places = usePlaces(isOpen)
  const [typed, setTyped] = useState('')
  const go = useNavigate()
  const log = useLog()
  const found = matchPlaces(places.data?.places ?? [], typed)
  // A stop is at a gun; parts are found by whoever looks for one.
  const parts = isDown ? [] : matchKinds(places.data?.kinds ?? [], typed)
  const close = () => {
    setTyped('')
    onClose()
  }
  const openColumn = (column: string) => {
    close()
    go(`/?column=${column}`)
  }
  const open = (stationId: string) => {
    close()
    if (isDown) log.mutate({ key: newKey(), acts: [{ stationId, act: 'down' }] })
    go(`/gun/${stationId}`)
  }
  // Fingers are faster than the list: Enter waits for one that is still on its way, and looks once more before it gives up.
  const enter = async () => {
    if (!typed.trim()) return
    const [part] = parts
    if (part && found.length === 0) return openColumn(part.column)
    const isSure = found.length > 0 && !places.isFetching
    const list = isSure
      ? found
      : matchPlaces((await places.refetch({ cancelRefetch: false })).data?.places ?? [], typed)
    if (list[0]) open(list[0].stationId)
  }
  return (
    <Modal show={isOpen} onHide={close} animation={false} aria-label="Find a gun" fullscreen="sm-down" scrollable>
      <Modal.Header>
        <Form
          className="find-form"
          onSubmit={(e) => {
            e.preventDefault()
            void enter()
          }}
        >
          <Form.Control
            autoFocus
            size="lg"
            placeholder={isDown ? 'which gun is down?' : 'the number on the gun, or a part'}
            aria-label="The number on the gun"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
        </Form>
        <Bare onClick={close}>close</Bare>
      </Modal.Header>
      <Modal.Body className="find-list">
        {found.slice(0, 40).map((p, i) => (
          <Plain
            key={p.stationId}
            className={i === 0 && typed ? 'find-line is-first' : 'find-line'}
            onClick={() => open(p.stationId)}
          >
            <strong>{p.name}</strong>
            <span className="dim">
              {p.placeWord}, {p.areaName}
            </span>
          </Plain>
        ))}
        {parts.map((kind) => (
          <Plain key={kind.key} className="find-line" onClick={() => openColumn(kind.column)}>
            <strong>{kind.name}</strong>
            <span className="dim">on every gun</span>
          </Plain>
        ))}
        {places.data && found.length === 0 && parts.length === 0 ? (
          <p className="said">No gun has “{typed}” painted on it.</p>
        ) : null}
      </Modal.Body>
    </Modal>
  )
}
