import { useState } from 'react'
import { TAG_TEXT, type Tag } from '@core/changeover/tags.ts'
import { questionByCode } from '@core/houserule/schools.ts'
import { type ChangeStep, type GunChange } from '@contract/changeover.ts'
import { capital } from '@web/format/words.ts'
import { Trouble } from '@web/shell/Trouble.tsx'
import { afterStep, atStep, BEGIN, endOf, type WalkEnd } from './walk.ts'

/**
 * One step a screen, for one thumb: what to do, what to look for, the caution where the hand is about to be. A gate stands where
 * power comes on.
 */
export function StepWalk(props: {
  gun: GunChange
  toWire: string
  isSending: boolean
  problem: unknown
  onLeave: () => void
  onDone: (end: WalkEnd) => void
}) {
  const { gun } = props
  const [state, setState] = useState(BEGIN)
  const step = atStep(gun.steps, state)
  const tell = (said: 'done' | 'skipped' | 'back') => setState(afterStep(gun.steps, state, said))
  const number = state.done.length + 1
  return (
    <main className="step-walk">
      <header>
        <button
          type="button"
          className="key key-low"
          onClick={() => (state.done.length === 0 ? props.onLeave() : tell('back'))}
        >
          back
        </button>
        <h1>{gun.name}</h1>
        <p className="dim">
          {step ? `${number} of ${gun.steps.length}` : 'done'}
          <br />
          to {props.toWire}
        </p>
      </header>
      {step ? (
        <>
          <p className={step.phase === 'on' ? 'step-power is-live' : 'step-power'}>{powerWords(step)}</p>
          <StepWords step={step} />
          <div className={step.canSkip ? 'step-keys' : 'step-keys is-gate'}>
            <button type="button" className="key key-chalk" onClick={() => tell('done')}>
              {step.key === 'on' ? 'Hands and tools are clear' : step.do.endsWith('?') ? 'Yes' : 'Done'}
            </button>
            {step.canSkip ? (
              <button type="button" className="key" onClick={() => tell('skipped')}>
                {step.do.endsWith('?') ? 'Not yet' : 'Skip'}
              </button>
            ) : null}
          </div>
        </>
      ) : (
        <Ended {...props} end={endOf(gun.steps, state)} />
      )}
    </main>
  )
}

const powerWords = (step: ChangeStep) =>
  step.power === 'on' ? 'Power on: it is live' : step.power === 'off' ? 'Power off' : 'Before you leave it'

function StepWords({ step }: { step: ChangeStep }) {
  const rule = step.byRule ? questionByCode.get(step.byRule) : undefined
  return (
    <div className="step-words">
      <p className="step-do">{step.do}</p>
      {step.look ? <p className="step-look">{step.look}</p> : null}
      {step.hazard ? <p className="step-hazard">{step.hazard}</p> : null}
      {rule ? (
        <details className="question">
          <summary>House rule: {rule.ask}</summary>
          <ul className="plain schools">
            {rule.schools.map((s) => (
              <li key={s.key}>
                <strong>{capital(s.name)}</strong> <span className="dim">{s.reason}</span>
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </div>
  )
}

function Ended(props: { end: WalkEnd; isSending: boolean; problem: unknown; onDone: (end: WalkEnd) => void }) {
  const { end } = props
  return (
    <div className="step-words">
      <p className="step-do">Changed.</p>
      {end.stillTied.length > 0 ? (
        <p className="step-look">
          Stays tied as a reminder: {end.stillTied.map((t) => TAG_TEXT[t as Tag].says).join(', ')}.
        </p>
      ) : null}
      {end.skipped.length > 0 ? <p className="step-look">Not swapped: {end.skipped.join(', ')}.</p> : null}
      {end.asked.length > 0 ? <p className="step-look">Not yet: {end.asked.join(' ')}</p> : null}
      <button type="button" className="key key-chalk" disabled={props.isSending} onClick={() => props.onDone(end)}>
        Log it
      </button>
      <Trouble problem={props.problem} />
    </div>
  )
}
