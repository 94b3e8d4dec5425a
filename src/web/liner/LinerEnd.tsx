import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type Overrun } from '@core/ledger/event.ts'
import { trimRecord } from '@core/liner/trimjob.ts'
import { type OutReason } from '@core/path/columns.ts'
import { type LinerAnswer } from '@contract/liner.ts'
import { REASON_WORD } from '@web/format/words.ts'
import { Standing, WhatHeld } from '@web/guide/GuideEnd.tsx'
import { endOf, workedIn } from '@web/guide/walk.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { type LinerJob } from './job.ts'
import { useLinerDone } from './queries.ts'

/** The end of a liner job: why the old one came out, what held it up, and it is logged as one act. */
export function LinerEnd({ liner, job, onDone }: { liner: LinerAnswer; job: LinerJob; onDone: () => void }) {
  const send = useLinerDone()
  const [held, setHeld] = useState<Overrun | null>(null)
  const end = endOf(liner.steps, job.walk)
  const worked = workedIn(liner.steps, job.walk, { beginMs: job.beginMs, reason: held })
  const record = trimRecord(job.trim)
  const log = (outReason: OutReason) =>
    send.mutate(
      {
        key: job.key,
        stationId: liner.stationId,
        outReason,
        old: job.old.found.length > 0 || job.old.lengthMm !== null ? job.old : null,
        isBlown: job.isBlown,
        cut: record && liner.by !== 'notTold' ? { ...record, by: liner.by, lengthMm: job.lengthMm } : null,
        minutes: worked.minutes,
        overrun: held,
        settled: end.settled,
        stillTied: end.stillTied,
        note: end.asked.length > 0 ? `not yet: ${end.asked.join(' ')}`.slice(0, 200) : null,
      },
      { onSuccess: onDone },
    )
  return (
    <div className="step-words guide-end">
      <Standing end={end} />
      {worked.isLong ? <WhatHeld held={held} onHeld={setHeld} /> : null}
      <p className="step-do">Why did the old liner come out?</p>
      <div className="guide-reasons">
        {[...liner.reasons, 'notSaid' as const].map((r) => (
          <Key key={r} disabled={send.isPending} onClick={() => log(r)}>
            {REASON_WORD[r]}
          </Key>
        ))}
      </div>
      <Trouble problem={send.error} />
    </div>
  )
}
