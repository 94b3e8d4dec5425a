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
          <button type="button" key={q} className="key" aria-pressed={yes.has(q)} onClick={() => toggle(q)}>
            {q}
          </button>
        ))}
      </div>
      <div className="step-keys">
        <button
          type="button"
          className="key key-chalk"
          disabled={yes.size < QUESTIONS.length}
          onClick={() => onJob(answered(job, liner.steps, { isBlown: true }))}
        >
          Blown, air at the front
        </button>
        <button type="button" className="key" onClick={at.skip}>
          Skip
        </button>
      </div>
    </div>
  )
}
