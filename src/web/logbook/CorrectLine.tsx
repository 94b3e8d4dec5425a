import { type StationId } from '@core/ids/id.ts'
import { PickOne, TextField, type Option } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import { Button, Modal } from 'react-bootstrap'
import { OUT_REASONS, type OutReason } from '@core/path/columns.ts'
import { findAnswer } from '@contract/gun.ts'
import { type CorrectRequest, type LogLine } from '@contract/logbook.ts'
import { getJson, newKey } from '@web/api/client.ts'
import { REASON_WORD } from '@web/format/words.ts'
import { type Units } from '@web/format/numbers.ts'
import { useCorrect } from '@web/log/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Photos } from '@web/photo/Photos.tsx'
import { lineSentence } from './lines.ts'

/** Minutes, and how people say them. */
const EARLIER: readonly Option[] = [
  ['0', 'as said'],
  ['30', 'half an hour'],
  ['60', 'an hour'],
  ['120', '2 hours'],
  ['240', '4 hours'],
  ['480', 'a shift'],
  ['1440', 'a day'],
]

/** What a line should have said. The old line stays and says it was corrected. */
export function CorrectLine({ line, units, onDone }: { line: LogLine; units: Units; onDone: () => void }) {
  const places = useQuery({ queryKey: ['find'], queryFn: () => getJson('/find', findAnswer) })
  const correct = useCorrect()
  const [key] = useState(newKey)
  const [stationId, setStation] = useState<StationId | ''>(line.stationId ?? '')
  const said = 'outReason' in line.fact ? line.fact.outReason : null
  const [reason, setReason] = useState<OutReason>(said ?? 'notSaid')
  const [minutesOff, setMinutesOff] = useState('0')
  const [note, setNote] = useState('')
  const send = (change: Partial<CorrectRequest>) =>
    correct.mutate({ key, eventId: line.eventId, ...(note ? { note } : {}), ...change }, { onSuccess: onDone })
  const shift = Number(minutesOff) * 60_000
  const changed = {
    ...(stationId && stationId !== line.stationId ? { stationId } : {}),
    ...(said && reason !== said ? { outReason: reason } : {}),
    ...(shift !== 0 ? { happenedMs: line.happenedMs - shift } : {}),
  }
  const isWithdrawn = line.standing === 'withdrawn'
  const isSame = Object.keys(changed).length === 0
  return (
    <Modal show onHide={onDone} animation={false} aria-label="Correct this line">
      <Modal.Body className="stack">
        <h2>
          {line.stationName}: {lineSentence(line, units)}
        </h2>
        <Photos of={{ type: 'event', key: line.eventId }} clipWord="a clip" />
        {isWithdrawn ? (
          <p>This line was taken back. If it did happen, log it again.</p>
        ) : (
          <>
            <PickOne
              id="c-place"
              label="It was on"
              value={stationId}
              options={(places.data?.places ?? []).map((p) => [p.stationId, `${p.name}, ${p.areaName}`])}
              onPick={(v) => setStation(places.data?.places.find((p) => p.stationId === v)?.stationId ?? '')}
            />
            {said ? (
              <PickOne
                id="c-why"
                label="It came out because"
                value={reason}
                options={OUT_REASONS.map((r) => [r, REASON_WORD[r]])}
                onPick={(v) => setReason(OUT_REASONS.find((r) => r === v) ?? 'notSaid')}
              />
            ) : null}
            <PickOne
              id="c-when"
              label="It was earlier by"
              value={minutesOff}
              options={EARLIER}
              onPick={setMinutesOff}
            />
            <TextField
              id="c-note"
              label="A word why, if you like"
              value={note}
              maxLength={200}
              onChange={(e) => setNote(e.target.value)}
            />
          </>
        )}
        <Trouble problem={correct.error} />
        <div className="d-flex gap-2 flex-wrap">
          {isWithdrawn ? null : (
            <>
              <Button variant="chalk" disabled={isSame || correct.isPending} onClick={() => send(changed)}>
                Correct it
              </Button>
              <Button disabled={correct.isPending} onClick={() => send({ withdraw: true })}>
                It did not happen
              </Button>
            </>
          )}
          <Button onClick={onDone}>leave it</Button>
        </div>
      </Modal.Body>
    </Modal>
  )
}
