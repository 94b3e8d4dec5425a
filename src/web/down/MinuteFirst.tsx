import { Key } from '@web/kit/Keys.tsx'
import { minutesOf, type Check } from '@core/diagnose/knowledge.ts'
import { type Hint, type Said } from '@core/diagnose/session.ts'
import { hintWords } from './downwords.ts'
import { CheckView } from './Steps.tsx'

/** One minute on the equipment before a setting: a starved feed looks like a bad setting. */
function Look(props: {
  check: Check
  hints: readonly Hint[]
  left: number
  onAnswer: (outcome: string) => void
  onLeaveOut: () => void
}) {
  const signs = [
    ...new Set(props.hints.filter((h) => h.sign !== null && h.factor > 1).map((h) => hintWords(h.because))),
  ]
  const why = signs.filter(Boolean).slice(0, 2).join(', ')
  return (
    <>
      <p className="step-look tune-why">
        One minute first{why ? `, since ${why}` : ''}: a starved feed looks like a bad setting.
        <span className="dim"> {props.left === 1 ? 'The last look.' : `${props.left} looks.`}</span>
      </p>
      <CheckView check={props.check} minutes={minutesOf(props.check)} because="" onAnswer={props.onAnswer} />
      <Key size="low" onClick={props.onLeaveOut}>
        Leave the minute out
      </Key>
    </>
  )
}

/** Something was seen: it is no setting. */
function Found(props: { check: Check; said: readonly Said[]; onSearch: () => void; onLeaveOut: () => void }) {
  const last = props.said.at(-1)
  const outcome = last?.type === 'check' ? props.check.outcomes.find((o) => o.key === last.outcome) : undefined
  return (
    <>
      <p className="step-do">That is no setting yet.</p>
      <p className="step-look">
        {outcome?.says ?? ''}: put that right first. Turning the knob would hide it from the next one.
      </p>
      <div className="walk-keys">
        <Key tone="chalk" onClick={props.onSearch}>
          What first? Search from here
        </Key>
        <Key onClick={props.onLeaveOut}>Set it all the same</Key>
      </div>
    </>
  )
}
export const MinuteFirst = { Look, Found }
