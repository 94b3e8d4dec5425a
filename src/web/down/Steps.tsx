import { CAUTIONS, type Hazard } from '@core/guide/cautions.ts'
import { GUIDE_KEYS } from '@core/guide/keys.ts'
import { Link } from 'react-router'
import { type Cause, type Check } from '@core/diagnose/knowledge.ts'
import { capital } from '@web/format/words.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { spanWords } from './downwords.ts'
import { useShortcuts } from '@web/shell/useShortcuts.ts'

export function CautionLines({ hazards }: { hazards: readonly Hazard[] }) {
  if (hazards.length === 0) return null
  return <p className="step-hazard">{hazards.map((h) => CAUTIONS[h].words).join(' ')}</p>
}

/** One look: what to do, how, the drawing, what it is about, and answers in words of what is seen. */
export function CheckView(props: {
  check: Check
  minutes: number
  because: string
  onAnswer: (outcome: string) => void
}) {
  const { check, because, onAnswer } = props
  useShortcuts(Object.fromEntries(check.outcomes.map((o, i) => [String(i + 1), () => onAnswer(o.key)])), true)
  return (
    <>
      <div className="down-what">
        <p className="step-do">{check.do}</p>
        <p className="step-look">
          {check.how} <span className="dim">{spanWords(props.minutes)}</span>
        </p>
        <p className="dim down-because">{because}</p>
        <CautionLines hazards={check.hazards} />
        {check.drawing ? <Drawing of={check.drawing} /> : null}
      </div>
      <div
        className={check.outcomes.length > 2 ? 'walk-keys' : 'walk-keys is-one'}
        role="group"
        aria-label="What is seen"
      >
        {check.outcomes.map((o, i) => (
          <button key={o.key} type="button" className="key" onClick={() => onAnswer(o.key)}>
            <span>
              <kbd>{i + 1}</kbd> {o.says}
            </span>
          </button>
        ))}
      </div>
    </>
  )
}

/** One fix, with what it costs beside what is on the shelf: with none it is cleaned and run on. */
export function FixView(props: {
  cause: Cause
  minutes: number
  because: string
  onHand: number | null
  isOneSign: boolean
  stationId: string
  onRuns: () => void
  onStill: () => void
}) {
  const { cause, onHand } = props
  const isNone = cause.fix.act === 'changed' && onHand === 0
  useShortcuts({ '1': props.onRuns, '2': props.onStill }, true)
  return (
    <>
      <div className="down-what">
        <p className="step-do">{cause.fix.do}</p>
        <p className="step-look">
          {capital(cause.says)}. <span className="dim">{spanWords(props.minutes)}</span>
        </p>
        {isNone ? (
          <p className="step-look">None on the shelf: clean it and run on, and say in Parts that it is out.</p>
        ) : null}
        {props.isOneSign ? (
          <p className="step-look">Only one kind of sign speaks for it, and no other is to be had.</p>
        ) : null}
        {cause.kind === 'hand' || cause.kind === 'elsewhere' ? (
          <p className="step-look">That is off the wire: no part of the gun.</p>
        ) : null}
        {cause.fix.isLicensed ? (
          <p className="step-hazard">Not here: it stays off until a licensed trade has seen it.</p>
        ) : null}
        <p className="dim down-because">{props.because}</p>
        <CautionLines hazards={cause.fix.hazards} />
        {guideOf(cause) ? (
          <p>
            <Link to={`/guide?gun=${props.stationId}&do=${guideOf(cause)}`}>How it is done</Link>
          </p>
        ) : null}
      </div>
      <div className="walk-keys" role="group" aria-label="Done">
        <button type="button" className="key key-chalk" onClick={props.onRuns}>
          <span>
            <kbd>1</kbd> Done: it runs
          </span>
        </button>
        <button type="button" className="key" onClick={props.onStill}>
          <span>
            <kbd>2</kbd> Done: still there
          </span>
        </button>
      </div>
    </>
  )
}

/** The guide of the part that is changed. */
const guideOf = ({ fix }: Cause): string | null =>
  fix.act === 'changed' && GUIDE_KEYS.some((key) => key === fix.position) ? fix.position : null
