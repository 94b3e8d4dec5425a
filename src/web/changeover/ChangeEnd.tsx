import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type Overrun } from '@core/ledger/event.ts'
import { type GunChange } from '@contract/changeover.ts'
import { newKey } from '@web/api/client.ts'
import { Standing, WhatHeld } from '@web/guide/GuideEnd.tsx'
import { endOf, workedIn, type WalkState } from '@web/guide/walk.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useLogChange, type ChangeAsked } from './queries.ts'

/** The end of a change of wire: what stands tied, what held it up, one key that logs it. */
export function ChangeEnd(props: {
  gun: GunChange
  asked: ChangeAsked & { isScrapped: boolean }
  walked: { state: WalkState; beginMs: number }
  onDone: () => void
}) {
  const { gun, asked, walked } = props
  const log = useLogChange()
  const [key] = useState(newKey)
  const [held, setHeld] = useState<Overrun | null>(null)
  const end = endOf(gun.steps, walked.state)
  const worked = workedIn(gun.steps, walked.state, { beginMs: walked.beginMs, reason: held })
  const { wireId, procedureId, isScrapped } = asked
  return (
    <div className="step-words">
      <p className="step-do">Changed.</p>
      <Standing end={end} />
      {worked.isLong ? <WhatHeld held={held} onHeld={setHeld} /> : null}
      <Key
        tone="chalk"
        disabled={log.isPending}
        onClick={() =>
          log.mutate(
            {
              key,
              stationIds: [gun.stationId],
              wireId,
              procedureId,
              isScrapped,
              minutes: worked.minutes,
              settled: end.settled,
              stillTied: end.stillTied,
              skipped: end.skipped,
              note: end.asked.length > 0 ? `not yet: ${end.asked.join(' ')}`.slice(0, 200) : null,
            },
            { onSuccess: props.onDone },
          )
        }
      >
        Log it
      </Key>
      <Trouble problem={log.error} />
    </div>
  )
}
