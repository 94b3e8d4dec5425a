import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { GUIDE_KEYS } from '@core/guide/keys.ts'
import { Link } from 'react-router'
import { type Cause, type Check } from '@core/diagnose/knowledge.ts'
import { capital } from '@web/format/words.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { Drawing, DrawnAnswer } from '@web/guide/Drawing.tsx'
import { type CleanOrChange } from '@core/diagnose/cleanorchange.ts'
import { choiceWords, spanWords } from './downwords.ts'
import { useShortcuts } from '@web/kit/useShortcuts.ts'

/** One look: what to do, how, the drawing, what it is about, and answers in words of what is seen. */
export function CheckView(props: {
  check: Check
  minutes: number
  because: string
  /** It shows whether what was just done put it right. */
  isProof?: boolean
  /** Learners guess first. */
  isTraining?: boolean
  stationId?: string
  /** What it costs to force it. */
  forced?: string | null
  onAnswer: (outcome: string) => void
}) {
  const { check, because, onAnswer } = props
  const [guess, setGuess] = useState<string | null>(null)
  const isGuessing = props.isTraining === true && guess === null
  // Where each answer has its own picture, they stand in the answers.
  const isShown = check.outcomes.some((o) => o.panel !== undefined)
  useShortcuts(Object.fromEntries(check.outcomes.map((o, i) => [String(i + 1), () => onAnswer(o.key)])), !isGuessing)
  return (
    <>
      <div className="down-what">
        {props.isProof ? <p className="dim">Did that put it right?</p> : null}
        <p className="step-do">{check.do}</p>
        {props.forced ? <p className="step-hazard">{props.forced}</p> : null}
        <p className="step-look">
          {check.how} <span className="dim">{spanWords(props.minutes)}</span>
        </p>
        <p className="dim down-because">{because}</p>
        {props.isTraining ? <Guess outcomes={check.outcomes} guess={guess} onGuess={setGuess} /> : null}
        <CautionLines className="step-hazard" hazards={check.hazards} />
        <HowDone guide={check.guide} stationId={props.stationId} />
        {check.drawing && !isShown ? <Drawing of={check.drawing} /> : null}
      </div>
      <div
        className={`${check.outcomes.length > 2 ? 'walk-keys' : 'walk-keys is-one'}${isShown ? ' is-drawn' : ''}`}
        role="group"
        aria-label="What is seen"
      >
        {check.outcomes.map((o, i) => (
          <Key key={o.key} disabled={isGuessing} onClick={() => onAnswer(o.key)}>
            {check.drawing && o.panel !== undefined ? <DrawnAnswer of={check.drawing} panel={o.panel} /> : null}
            <span>
              <kbd>{i + 1}</kbd> {o.says}
            </span>
          </Key>
        ))}
      </div>
    </>
  )
}

/** At a training booth: why this look, and what one thinks it will show, before it is had. Nobody keeps it. */
function Guess(props: { outcomes: Check['outcomes']; guess: string | null; onGuess: (guess: string) => void }) {
  const { outcomes, guess, onGuess } = props
  const said = outcomes.find((o) => o.key === guess)
  return (
    <div className="down-tried" role="group" aria-label="Guess first">
      <span className="dim">{said ? `Your guess: ${said.says}. Now look.` : 'Guess first: what will it show?'}</span>
      {said
        ? null
        : outcomes.map((o) => (
            <Key key={o.key} size="low" onClick={() => onGuess(o.key)}>
              {o.says}
            </Key>
          ))}
      {said ? null : (
        <Key size="low" onClick={() => onGuess('')}>
          No idea
        </Key>
      )}
    </div>
  )
}

/** One fix, with what it costs beside what is on the shelf: with none it is cleaned and run on. */
export function FixView(props: {
  cause: Cause
  minutes: number
  because: string
  choice: CleanOrChange | null
  isOneSign: boolean
  /** It was done before in this stop. */
  isAgain: boolean
  /** What was written of this gun before it stopped and is just this. */
  found: string | null
  onNotSo: () => void
  stationId: string
  onRuns: () => void
  onStill: () => void
}) {
  const { cause, choice } = props
  useShortcuts({ '1': props.onRuns, '2': props.onStill }, true)
  return (
    <>
      <div className="down-what">
        {props.isAgain ? <p className="dim">Once more:</p> : null}
        {props.found ? <p className="step-look">Known of this gun: {props.found} Put that right first?</p> : null}
        <p className="step-do">{cause.fix.do}</p>
        <p className="step-look">
          {capital(cause.says)}. <span className="dim">{spanWords(props.minutes)}</span>
        </p>
        {choice ? <p className="step-look">{choiceWords(choice, cause)}</p> : null}
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
        <CautionLines className="step-hazard" hazards={cause.fix.hazards} />
        {cause.fix.isTuned ? (
          <p>
            <Link to={`/tune?gun=${props.stationId}`}>One value at a time, by a row of beads</Link>
          </p>
        ) : null}
        <HowDone guide={guideOf(cause)} stationId={props.stationId} />
      </div>
      <div className="walk-keys" role="group" aria-label="Done">
        <Key tone="chalk" onClick={props.onRuns}>
          <span>
            <kbd>1</kbd> Done: it runs
          </span>
        </Key>
        <Key onClick={props.onStill}>
          <span>
            <kbd>2</kbd> Done: still there
          </span>
        </Key>
        {props.found ? <Key onClick={props.onNotSo}>It is right by now</Key> : null}
      </div>
    </>
  )
}

function HowDone({ guide, stationId }: { guide: string | null | undefined; stationId: string | undefined }) {
  if (!guide || !stationId) return null
  return (
    <p>
      <Link to={`/guide?gun=${stationId}&do=${guide}`}>How it is done</Link>
    </p>
  )
}

/** The guide of the part that is changed. */
const guideOf = ({ fix }: Cause): string | null =>
  fix.act === 'changed' && GUIDE_KEYS.some((key) => key === fix.position) ? fix.position : null
