import { Key } from '@web/kit/Keys.tsx'
import { type ReactNode, useState } from 'react'
import { questionByCode } from '@core/houserule/schools.ts'
import { type GuideStep } from '@contract/guide.ts'
import { capital } from '@web/format/words.ts'
import { Drawing } from './Drawing.tsx'
import { isArmClosed, isArmOpened, MarkKeys } from './KnobMark.tsx'
import { powerWord } from './guidewords.ts'
import { afterStep, atStep, BEGIN, type WalkState } from './walk.ts'

/** What a step of its own kind shows in place of "done" and "skip": it measures, asks, cuts. */
export interface GateAt {
  step: GuideStep
  done: () => void
  skip: () => void
}

/**
 * One step a screen, for one thumb: what to do, what to look for, the caution where the hand is about to be, the drawing. A
 * caution that asks is answered before the step is done.
 */
export function StepWalk(props: {
  name: string
  title: string
  steps: readonly GuideStep[]
  /** Where it is done: what is read on the way is kept there; null: at no gun. */
  stationId?: string | null
  /** Kept by whoever shows it, where a job must survive a reload. */
  kept?: { state: WalkState; onState: (state: WalkState) => void }
  gate?: (at: GateAt) => ReactNode
  ended: (state: WalkState) => ReactNode
  onLeave: () => void
}) {
  const { steps } = props
  const [own, setOwn] = useState(BEGIN)
  const [mark, setMark] = useState<number | null>(null)
  const state = props.kept?.state ?? own
  const setState = props.kept?.onState ?? setOwn
  const step = atStep(steps, state)
  const tell = (said: 'done' | 'skipped' | 'back') => setState(afterStep(steps, state, { said, atMs: Date.now() }))
  const gate = step && props.gate?.({ step, done: () => tell('done'), skip: () => tell('skipped') })
  return (
    <main className="step-walk">
      <header>
        <Key size="low" onClick={() => (state.done.length === 0 ? props.onLeave() : tell('back'))}>
          back
        </Key>
        <h1>{props.name}</h1>
        <p className="dim">
          {step ? `${state.done.length + 1} of ${steps.length}` : 'done'}
          <br />
          {props.title}
        </p>
      </header>
      {step ? (
        <>
          <p className={step.phase === 'on' ? 'step-power is-live' : 'step-power'}>{powerWords(step)}</p>
          {gate && OWN_WORDS.has(step.gate ?? '') ? null : <StepWords step={step} />}
          {mark !== null && isArmClosed(step) ? <p className="step-own">It stood at {mark}.</p> : null}
          {gate ??
            (props.stationId && isArmOpened(step) ? (
              <MarkKeys
                stationId={props.stationId}
                onDone={(read) => {
                  setMark(read)
                  tell('done')
                }}
                onSkip={step.canSkip ? () => tell('skipped') : null}
              />
            ) : (
              <StepKeys step={step} tell={tell} />
            ))}
        </>
      ) : (
        props.ended(state)
      )}
    </main>
  )
}

/** Where the screen is a measurement or a cut, what is to be done now stands first, in its own words. */
const OWN_WORDS: ReadonlySet<string> = new Set(['trim', 'trimFeeder'])

function StepKeys({ step, tell }: { step: GuideStep; tell: (said: 'done' | 'skipped') => void }) {
  const isQuestion = step.do.endsWith('?')
  return (
    <div className={step.canSkip ? 'step-keys' : 'step-keys is-gate'}>
      <Key tone="chalk" onClick={() => tell('done')}>
        {answerOf(step) ?? (isQuestion ? 'Yes' : 'Done')}
      </Key>
      {step.canSkip ? <Key onClick={() => tell('skipped')}>{isQuestion ? 'Not yet' : 'Skip'}</Key> : null}
    </div>
  )
}

/** What the key says where a caution asks: it is answered, not waved through. */
export const answerOf = (step: GuideStep): string | null => step.cautions.find((c) => c.how === 'ask')?.answer ?? null

const powerWords = (step: GuideStep) => (step.power === 'on' ? 'Power on: it is live' : capital(powerWord(step)))

/** What to do, in the shop's own words where it has them; what to look for; cautions; the drawing; the house rule. */
export function StepWords({ step }: { step: GuideStep }) {
  return (
    <div className="step-words">
      <StepDo step={step} />
      {step.look ? <p className="step-look">{step.look}</p> : null}
      <StepCautions step={step} />
      {step.drawing ? <Drawing of={step.drawing} /> : null}
      <StepRule step={step} />
    </div>
  )
}

export function StepDo({ step }: { step: GuideStep }) {
  const isInstead = step.own?.isInstead
  return (
    <>
      <p className="step-do">{isInstead ? step.own?.words : step.do}</p>
      {step.own && !isInstead ? <p className="step-own">{step.own.words}</p> : null}
    </>
  )
}

export function StepCautions({ step }: { step: GuideStep }) {
  return step.cautions.map((c) => (
    <p key={c.hazard} className="step-hazard">
      {c.words}
    </p>
  ))
}

export function StepRule({ step }: { step: GuideStep }) {
  const rule = step.byRule ? questionByCode.get(step.byRule) : undefined
  if (!rule) return null
  return (
    <details className="question">
      <summary>
        House rule: {rule.ask} <span className="dim">Here: {step.school}.</span>
      </summary>
      <ul className="plain schools">
        {rule.schools.map((s) => (
          <li key={s.key}>
            <strong>{capital(s.name)}</strong> <span className="dim">{s.reason}</span>
          </li>
        ))}
      </ul>
    </details>
  )
}
