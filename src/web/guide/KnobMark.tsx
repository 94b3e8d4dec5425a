import { useState } from 'react'
import { type GuideStep } from '@contract/guide.ts'
import { newKey } from '@web/api/client.ts'
import { plainly, typed, unread } from '@web/format/measures.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useNoteMark } from './queries.ts'

const MARK = plainly('', 'plain')
/** Where the arm is opened, and where it is closed again. */
export const isArmOpened = (step: Pick<GuideStep, 'key'>) => step.key === 'armOpen'
export const isArmClosed = (step: Pick<GuideStep, 'key'>) => step.key === 'armClosed'

/** The mark on the knob, read before the arm opens: kept for this feeder and its wire, and told where the arm closes. Left empty, nothing is kept. */
export function MarkKeys(props: {
  stationId: string
  onDone: (mark: number | null) => void
  onSkip: (() => void) | null
}) {
  const note = useNoteMark()
  const [text, setText] = useState('')
  const [key] = useState(newKey)
  const mark = typed(text, MARK)
  const why = text === '' ? null : unread(text, MARK)
  const done = () => {
    if (mark === null) return props.onDone(null)
    note.mutate(
      {
        key,
        stationId: props.stationId,
        what: 'tension',
        method: 'knob',
        how: 'looked',
        value: mark,
        left: null,
        grade: null,
      },
      { onSuccess: () => props.onDone(mark) },
    )
  }
  return (
    <>
      <TextField
        id="knob-mark"
        label="The mark on the knob"
        inputMode="decimal"
        autoComplete="off"
        {...field(text, setText)}
        {...(why ? { why } : {})}
      />
      <Trouble problem={note.error} />
      <div className={props.onSkip ? 'step-keys' : 'step-keys is-gate'}>
        <Key tone="chalk" disabled={note.isPending || why !== null} onClick={done}>
          {mark === null ? 'Done, not read' : `Done, it is at ${mark}`}
        </Key>
        {props.onSkip ? <Key onClick={props.onSkip}>Skip</Key> : null}
      </div>
    </>
  )
}
