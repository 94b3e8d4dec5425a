import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { answered } from './answered.ts'
import { type GateProps } from './LinerGate.tsx'

const QUESTIONS = ['The liner is out of it', 'The air is filtered and dry', 'Eyes are covered, nobody in front']

/** The three questions before air: all of them yes, or it is skipped. */
export function Air({ job, onJob, at, liner }: GateProps) {
  const [yes, setYes] = useState<ReadonlySet<string>>(new Set())
  const toggle = (q: string) => setYes(new Set(yes.has(q) ? [...yes].filter((x) => x !== q) : [...yes, q]))
  return (
    <div className="gate-form">
      <div className="gate-keys">
        {QUESTIONS.map((q) => (
          <Key key={q} aria-pressed={yes.has(q)} onClick={() => toggle(q)}>
            {q}
          </Key>
        ))}
      </div>
      <div className="step-keys">
        <Key
          tone="chalk"
          disabled={yes.size < QUESTIONS.length}
          onClick={() => onJob(answered(job, liner.steps, { isBlown: true }))}
        >
          Blown, air at the front
        </Key>
        <Key onClick={at.skip}>Skip</Key>
      </div>
    </div>
  )
}
