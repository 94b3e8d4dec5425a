import { Tick } from '@web/kit/Tick.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { type Closing as Closed } from '@core/ledger/event.ts'
import { type Cause } from '@core/diagnose/knowledge.ts'
import { capital } from '@web/format/words.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { CautionLines } from '@web/guide/CautionLines.tsx'

/** After the fix: fed free, welded a little. Right, or the search goes on; and what brought it back, in one tap. */
export function Closing(props: {
  causes: readonly Cause[]
  likely: string | null
  isSending: boolean
  onStill: () => void
  onDone: (said: { cause: string | null; isCertain: boolean; closing: Closed; scrapped: number | null }) => void
}) {
  const [cause, setCause] = useState<string | null>(props.likely)
  const [isCertain, setCertain] = useState(true)
  const [scrapped, setScrapped] = useState<number | null>(null)
  const done = (closing: Closed) => props.onDone({ cause, isCertain: isCertain && cause !== null, closing, scrapped })
  return (
    <>
      <div className="down-what">
        <p className="step-do">Feed free, then weld a little.</p>
        <p className="step-look">No jerk. Wire seen, then a short cone; an even tone; a clean bead.</p>
        <CautionLines className="step-hazard" hazards={['live', 'arc']} />
        <Drawing of="closing" />
      </div>
      <div className="down-brought" role="group" aria-label="What brought it back">
        {props.causes.map((c) => (
          <Key key={c.key} size="low" aria-pressed={cause === c.key} onClick={() => setCause(c.key)}>
            {capital(c.says)}
          </Key>
        ))}
        <Key size="low" aria-pressed={cause === null} onClick={() => setCause(null)}>
          Nobody knows
        </Key>
        <Tick isOn={!isCertain} onTick={(isUnsure) => setCertain(!isUnsure)}>
          not sure
        </Tick>
      </div>
      <Scrapped n={scrapped} onPick={setScrapped} />
      <div className="walk-keys" role="group" aria-label="Closing test">
        <Key tone="chalk" disabled={props.isSending} onClick={() => done('good')}>
          Right: it runs
        </Key>
        <Key onClick={props.onStill}>Still there</Key>
        <Key disabled={props.isSending} onClick={() => done('notTested')}>
          Not tried
        </Key>
      </div>
    </>
  )
}

const PIECES = [0, 1, 2, 3] as const
/** Work that went with it; left alone, nobody said. */
function Scrapped({ n, onPick }: { n: number | null; onPick: (n: number | null) => void }) {
  return (
    <div className="down-tried" role="group" aria-label="Work scrapped">
      <span className="dim">Work scrapped:</span>
      {PIECES.map((p) => (
        <Key key={p} size="low" aria-pressed={n === p} onClick={() => onPick(n === p ? null : p)}>
          {p === 0 ? 'none' : p === 3 ? '3 or more' : p}
        </Key>
      ))}
    </div>
  )
}
