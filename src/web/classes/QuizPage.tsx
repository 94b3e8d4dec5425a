import { useState } from 'react'
import { Link } from 'react-router'
import { DRAWINGS } from '@core/drawings/all.ts'
import { PAIRS } from '@core/classes/pairs.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { type QuizAnswer } from '@contract/classes.ts'
import { DrawnAnswer } from '@web/guide/Drawing.tsx'
import { capital } from '@web/format/words.ts'
import { Key } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { useShortcuts } from '@web/kit/useShortcuts.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useIsLead } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Known } from './Known.tsx'
import { useKeepQuiz, useQuiz } from './quizqueries.ts'

type Asked = QuizAnswer['questions'][number]

/** Ten questions about one of the shop’s own guns. Nobody’s name, no score on a wall: what a group does not know yet is what to teach. */
export function QuizPage() {
  const { get, put } = useAddress()
  const quiz = useQuiz(get('gun'), get('seed'))
  const isLead = useIsLead()
  const isPhone = useIsPhone()
  if (!quiz.data)
    return (
      <main className="quiz">
        <Waiting says="Thinking of questions" problem={quiz.error} />
      </main>
    )
  const again = () => put({ seed: String(Math.floor(Math.random() * 1e6)) })
  return (
    <main className="quiz">
      <Run key={`${quiz.data.stationId} ${quiz.data.seed}`} quiz={quiz.data} onAgain={again} />
      {isLead ? <Known /> : null}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

function Run({ quiz, onAgain }: { quiz: QuizAnswer; onAgain: () => void }) {
  const [picked, setPicked] = useState<number[]>([])
  const [isShown, setShown] = useState(false)
  const keep = useKeepQuiz()
  const n = isShown ? picked.length - 1 : picked.length
  const question = quiz.questions[n]
  if (quiz.questions.length === 0)
    return (
      <>
        <h1>No question can be made of {quiz.name} yet.</h1>
        <p>
          Say what is on it first: <Link to={`/look?guns=${quiz.stationId}`}>what is on the guns</Link>.
        </p>
      </>
    )
  if (!question) return <Over quiz={quiz} picked={picked} onAgain={onAgain} />
  const pick = (i: number) => {
    setPicked([...picked, i])
    setShown(true)
  }
  const goOn = () => {
    setShown(false)
    if (picked.length === quiz.questions.length)
      keep.mutate({
        stationId: quiz.stationId,
        answers: quiz.questions.map((q, i) => ({ kind: q.kind, about: q.about, isRight: picked[i] === q.answer })),
      })
  }
  return (
    <>
      <p className="dim">
        {n + 1} of {quiz.questions.length}
      </p>
      <h1 className="quiz-says">{question.says}</h1>
      <Shown question={question} />
      <Options question={question} picked={isShown ? (picked[n] ?? null) : null} onPick={pick} onGoOn={goOn} />
      <Trouble problem={keep.error} />
    </>
  )
}

/** Where on the path it points, or the panel it asks about. */
function Shown({ question }: { question: Asked }) {
  if (question.shown) {
    const { pair, panel } = question.shown
    return DRAWINGS[PAIRS[pair].drawing].panels[panel] ? (
      <div className="quiz-panel">
        <DrawnAnswer of={PAIRS[pair].drawing} panel={panel} />
      </div>
    ) : null
  }
  if (question.at === null) return null
  const x = (COLUMNS as readonly string[]).indexOf(question.at) * STEP + STEP / 2
  const isOff = question.at === 'off'
  return (
    <svg
      className="quiz-path"
      viewBox={`0 0 ${COLUMNS.length * STEP} 70`}
      role="img"
      aria-label={isOff ? 'beside the wire' : `at ${question.at}`}
    >
      <path className="wire-stroke" strokeWidth="6" d={`M4 44H${COLUMNS.length * STEP - 4}`} />
      {isOff ? null : <path className="quiz-here" d={`M${x} 36l-9 -16h18Z`} />}
      {COLUMNS.map((column, i) => (
        <g key={column}>
          <path className="quiz-tick" d={`M${i * STEP + STEP / 2} 40v9`} />
          {LANDMARKS.has(column) || column === question.at ? (
            <text x={i * STEP + STEP / 2} y="66" textAnchor="middle">
              {column === question.at ? '?' : column}
            </text>
          ) : null}
        </g>
      ))}
    </svg>
  )
}
const STEP = 58
/** What is named along the way, so that the place that is asked about can be found. */
const LANDMARKS: ReadonlySet<string> = new Set(['spool', 'rolls', 'pin', 'neck', 'tip', 'gas'])

function Options(props: { question: Asked; picked: number | null; onPick: (i: number) => void; onGoOn: () => void }) {
  const { question, picked, onPick, onGoOn } = props
  const isAnswered = picked !== null
  useShortcuts(
    isAnswered
      ? { Enter: onGoOn }
      : Object.fromEntries(question.options.map((_, i) => [String(i + 1), () => onPick(i)])),
    true,
  )
  return (
    <>
      <div className="quiz-options" role="group" aria-label="Answers">
        {question.options.map((says, i) => (
          <Key
            key={says}
            disabled={isAnswered}
            className={
              isAnswered && i === question.answer ? 'is-right' : isAnswered && i === picked ? 'is-picked' : undefined
            }
            onClick={() => onPick(i)}
          >
            {isAnswered && i === question.answer ? '✓ ' : isAnswered && i === picked ? '✕ ' : ''}
            {capital(says)}
          </Key>
        ))}
      </div>
      {isAnswered ? (
        <div role="status">
          <p className="quiz-why">{question.why}</p>
          <Key tone="chalk" autoFocus onClick={onGoOn}>
            Go on
          </Key>
        </div>
      ) : null}
    </>
  )
}

function Over({ quiz, picked, onAgain }: { quiz: QuizAnswer; picked: readonly number[]; onAgain: () => void }) {
  const right = quiz.questions.filter((q, i) => picked[i] === q.answer).length
  const pairs = [
    ...new Set(quiz.questions.flatMap((q, i) => (q.shown && picked[i] !== q.answer ? [q.shown.pair] : []))),
  ]
  return (
    <>
      <h1 className="sentence">
        {right} of {quiz.questions.length}. Kept for the group; nobody is named.
      </h1>
      {pairs.length > 0 ? (
        <p>
          To look at again:{' '}
          {pairs.map((p, i) => (
            <span key={p}>
              {i > 0 ? ', ' : ''}
              <Link to={`/pairs?pair=${p}`}>{PAIRS[p].name.toLowerCase()}</Link>
            </span>
          ))}
        </p>
      ) : null}
      <Key tone="chalk" onClick={onAgain}>
        Ten others
      </Key>
    </>
  )
}
