import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { type Index } from '@core/diagnose/belief.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { columnOf } from '@core/path/kinds.ts'
import { type Debrief, type Worth } from '@core/practice/debrief.ts'
import { type DrillState } from '@core/practice/drill.ts'
import { spanWords } from '@web/down/downwords.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital, listed } from '@web/format/words.ts'
import { Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { newKey } from '@web/api/client.ts'
import { BeadDesk } from './BeadDesk.tsx'
import { type Bead } from './boothasked.ts'
import { dropDrill, keepDrill, keepPlayed, type KeptDrill } from './kept.ts'
import { actWords, cameWords, faultWords, scoreWords, worthWords } from './practicewords.ts'
import { useKeepAttempt } from './queries.ts'
import { type AskBooth } from './useBoothWorker.ts'

interface DebriefProps {
  drill: KeptDrill
  knowledge: Index
  state: DrillState
  bead: Bead | null
  units: Units
  stationId: string | null
  ask: AskBooth
}

/** Gone over again: what each look told, where the minutes went, and which look would have split it. */
export function DebriefView({ drill, knowledge, state, bead, units, stationId, ask }: DebriefProps) {
  const [debrief, setDebrief] = useState<Debrief | null>(null)
  const keep = useKeepAttempt()
  const navigate = useNavigate()
  const acts = state.steps.map((s) => s.act)
  useEffect(() => {
    let isOpen = true
    void ask('debrief', { scenario: drill.scenario, acts }).then((told) => {
      if (!isOpen) return
      setDebrief(told)
      const faults = drill.scenario.faults.map((f) => f.key)
      keepPlayed({ faults, minutes: told.minutes, bestMin: told.bestMin, key: drill.key })
      keep.mutate({
        ...{ key: drill.key, stationId, setId: drill.setId, faults, complaint: drill.scenario.complaint, acts },
        ...{ minutes: Math.max(0.1, told.minutes), bestMin: Math.max(0.1, told.bestMin) },
      })
    })
    return () => {
      isOpen = false
    }
  }, [])
  const again = () => {
    keepDrill({ ...drill, acts: [], key: newKey() })
    void navigate(0)
  }
  const was = drill.scenario.faults.map((f) => faultWords(knowledge, f.key))
  return (
    <>
      <h1 className="sentence">
        {debrief
          ? scoreWords({ ...debrief, parts: state.parts.length, isHelped: acts.some((a) => a.do === 'help') })
          : 'It runs.'}
      </h1>
      <p className="practice-was">
        It was: <strong>{listed(was)}</strong>.
      </p>
      {debrief ? <Split debrief={debrief} knowledge={knowledge} /> : null}
      {debrief ? <OnPath worth={debrief.worth} /> : null}
      {debrief ? <Steps debrief={debrief} knowledge={knowledge} /> : null}
      <Trouble problem={keep.error} />
      <BeadDesk {...{ bead, units }} atS={null} isOver onPull={() => undefined} />
      <div className="practice-keys">
        <Link className="key key-chalk" to="/practice" onClick={dropDrill}>
          Another
        </Link>
        <Key onClick={again}>The same once more</Key>
      </div>
    </>
  )
}

function Split({ debrief, knowledge }: { debrief: Debrief; knowledge: Index }) {
  const { split } = debrief
  if (!split?.better) return <p>Every look was worth its minutes.</p>
  return (
    <p className="practice-split">
      Most was lost at “{actWords(knowledge, split.step.act)}”. There it was better to:{' '}
      <strong>{actWords(knowledge, split.better)}</strong>, which saves about {Math.round(split.lostMin)} min.
    </p>
  )
}

const STEP = 58
/** Looks along the wire, in the order they were taken; what was dear stands higher. */
function OnPath({ worth }: { worth: readonly Worth[] }) {
  const width = (COLUMNS.length + 1) * STEP
  const xOf = (w: Worth) => {
    const i = (COLUMNS as readonly string[]).indexOf(columnOf(w.at))
    return (i < 0 ? COLUMNS.length : i) * STEP + STEP / 2
  }
  const counts = new Map<number, number>()
  const dots = worth.flatMap((w, n) => {
    if (w.step.act.do === 'hint' || w.step.act.do === 'bead') return []
    const x = xOf(w)
    const nth = counts.get(x) ?? 0
    counts.set(x, nth + 1)
    return [{ n: n + 1, x, y: 92 - nth * 26, isDear: w.better !== null, runs: w.step.runs }]
  })
  const height = 132
  const top = Math.min(...dots.map((d) => d.y - 16), 72)
  return (
    <svg
      className="practice-path"
      viewBox={`0 ${top} ${width} ${height - top}`}
      role="img"
      aria-label="Your looks along the wire, in their order"
    >
      <path className="wire-stroke" strokeWidth="6" d={`M4 106H${COLUMNS.length * STEP - 4}`} />
      {[...COLUMNS, 'beside'].map((c, i) => (
        <text key={c} className="practice-place" x={i * STEP + STEP / 2} y="123" textAnchor="middle">
          {c}
        </text>
      ))}
      {dots.map((d) => (
        <g key={d.n} className={d.runs ? 'is-done' : d.isDear ? 'is-dear' : ''}>
          <circle cx={d.x} cy={d.y} r="12" />
          <text x={d.x} y={d.y + 5} textAnchor="middle">
            {d.n}
          </text>
        </g>
      ))}
    </svg>
  )
}

function Steps({ debrief, knowledge }: { debrief: Debrief; knowledge: Index }) {
  return (
    <div className="practice-two">
      <section aria-label="What you did">
        <h2>What you did</h2>
        <ol className="practice-steps">
          {debrief.worth.map((w, i) => (
            <li key={i} className={w.better ? 'is-dear' : undefined}>
              <span>
                {actWords(knowledge, w.step.act)}: <strong>{cameWords(w.step)}</strong>
              </span>{' '}
              <small className="dim">
                {spanWords(w.step.minutes)}, {worthWords(w)}
              </small>
            </li>
          ))}
        </ol>
      </section>
      <section aria-label="The best order">
        <h2>The best order, with the same luck</h2>
        <ol className="practice-steps">
          {debrief.best.map((s, i) => (
            <li key={i}>
              {actWords(knowledge, s.act)}: <strong>{cameWords(s)}</strong>{' '}
              <small className="dim">{spanWords(s.minutes)}</small>
            </li>
          ))}
        </ol>
        <p className="dim">
          {capital('best by what could be known at each step, not by what it turned out to be')}: a look can miss.
        </p>
      </section>
    </div>
  )
}
