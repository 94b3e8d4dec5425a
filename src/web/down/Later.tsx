import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type DownNowAnswer } from '@contract/down.ts'
import { newKey } from '@web/api/client.ts'
import { minutes } from '@web/format/numbers.ts'
import { when } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { PickKnown, PickSymptom } from './Picks.tsx'
import { useDown, useExplain } from './queries.ts'

type Stop = DownNowAnswer['stops'][number]
const SHOWN = 6

/** Stops nobody explained, the newest first: what was it, in three taps; or never. */
export function Unexplained({ now }: { now: DownNowAnswer }) {
  const [open, setOpen] = useState<Stop | null>(null)
  const list = now.stops.filter(
    (s) => !s.isExplained && !now.down.some((d) => d.stationId === s.stationId && d.fromMs === s.fromMs),
  )
  if (list.length === 0) return null
  if (open) return <WhatWasIt stop={open} onDone={() => setOpen(null)} />
  return (
    <section aria-label="Not explained">
      <h2>Nobody said why</h2>
      <ul className="plain device-list">
        {list
          .slice(-SHOWN)
          .reverse()
          .map((s) => (
            <li key={`${s.stationId} ${s.fromMs}`}>
              <span>
                <strong>{s.name}</strong> {when(s.fromMs, now.nowMs, now.zone)}, {minutes(s.minutes)}
                {s.column ? `, ${s.column}` : ''}
              </span>
              <Key size="low" onClick={() => setOpen(s)}>
                what was it?
              </Key>
            </li>
          ))}
      </ul>
    </section>
  )
}

function WhatWasIt({ stop, onDone }: { stop: Stop; onDone: () => void }) {
  const down = useDown(stop.stationId)
  const explain = useExplain()
  const [symptom, setSymptom] = useState<string | null>(null)
  const [cause, setCause] = useState<string | null>(null)
  const [key] = useState(newKey)
  if (!down.data) return <Trouble problem={down.error} />
  const { symptoms, causes } = down.data.knowledge
  const listed = symptoms.find((s) => s.key === symptom)?.causes ?? []
  const chosen = causes.find((c) => c.key === cause)
  const say = (isCertain: boolean) =>
    explain.mutate(
      {
        ...{ key, stationId: stop.stationId, stopFromMs: stop.fromMs, symptom: symptom ?? '', cause, isCertain },
        by: 'later',
        closing: 'notTested',
      },
      { onSuccess: onDone },
    )
  return (
    <section aria-label="What was it" className="down-now">
      <h2>
        {stop.name}, {minutes(stop.minutes)}
      </h2>
      {symptom === null ? (
        <PickSymptom symptoms={symptoms} onPick={setSymptom} />
      ) : !chosen ? (
        <PickKnown
          place="it was"
          causes={causes.filter((c) => listed.includes(c.key))}
          onPick={setCause}
          onBack={() => setSymptom(null)}
        />
      ) : (
        <>
          <p className="step-do">{capital(chosen.says)}: how sure?</p>
          <div className="down-list is-two">
            <Key disabled={explain.isPending} onClick={() => say(true)}>
              Sure
            </Key>
            <Key disabled={explain.isPending} onClick={() => say(false)}>
              Not sure
            </Key>
          </div>
        </>
      )}
      <Trouble problem={explain.error} />
      <Key size="low" onClick={onDone}>
        leave it
      </Key>
    </section>
  )
}
