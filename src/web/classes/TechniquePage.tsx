import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { MM_PER_INCH } from '@core/units/convert.ts'
import {
  JOINTS_WELDED,
  MINUTE_LOOKS,
  POSITIONS_WELDED,
  TURNED_OUT,
  TURNED_OUT_KEYS,
  type JointWelded,
  type PositionWelded,
} from '@core/classes/technique.ts'
import { type TechniqueAnswer } from '@contract/classes.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { ruleLength } from '@web/format/lengths.ts'
import { twoFigures, type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { WhichGun } from '@web/places/WhichGun.tsx'
import { useMe } from '@web/people/queries.ts'
import { useTechnique, useTold } from './quizqueries.ts'

/** A bad bead at a booth: a minute on the equipment, then the hand in numbers, then what it was; counted, of nobody. */
export function TechniquePage() {
  const { get, put } = useAddress()
  const stationId = get('gun')
  const joint = (JOINTS_WELDED.find((j) => j === get('joint')) ?? 'fillet') satisfies JointWelded
  const position = (POSITIONS_WELDED.find((p) => p === get('position')) ?? 'flat') satisfies PositionWelded
  const asked = useTechnique({ stationId, joint, position })
  const units = useMe().data?.units ?? 'metric'
  const [isWell, setWell] = useState(false)
  const at = asked.data
  if (stationId === '') return <WhichGun />
  if (!at)
    return (
      <main className="quiz">
        <Waiting says="Reading how it is welded here" problem={asked.error} />
      </main>
    )
  if (at.minuteFirst && !isWell)
    return (
      <main className="quiz">
        <Minute at={at} stationId={stationId} onWell={() => setWell(true)} />
      </main>
    )
  return (
    <main className="quiz">
      <h1 className="sentence">{at.name}: now the hand, in numbers.</h1>
      <div className="group-fields">
        <PickOne
          id="joint"
          label="Joint"
          value={joint}
          options={JOINTS_WELDED.map((j) => [j, j] as const)}
          onPick={(j) => put({ joint: j })}
        />
        <PickOne
          id="position"
          label="Position"
          value={position}
          options={POSITIONS_WELDED.map((p) => [p, p] as const)}
          onPick={(p) => put({ position: p })}
        />
      </div>
      <ul className="technique">
        {techniqueLines(at, units).map(([what, how, whose]) => (
          <li key={what}>
            <span>{what}</span> <strong>{how}</strong> {whose ? <small className="dim">{whose}</small> : null}
          </li>
        ))}
      </ul>
      <p className="dim">
        The procedure comes first; where it says nothing these are the trade’s usual numbers, guesses until somebody
        here knows better.
      </p>
      <TurnedOutKeys stationId={stationId} at={at} />
    </main>
  )
}

const SECONDS = 60
/** The minute, counted down; what is seen at the machine goes to Down, and nobody is blamed. */
function Minute(props: { at: TechniqueAnswer; stationId: string; onWell: () => void }) {
  const { at, stationId, onWell } = props
  const [left, setLeft] = useState(SECONDS)
  useEffect(() => {
    const timer = setInterval(() => setLeft((s) => Math.max(0, s - 1)), 1000)
    return () => clearInterval(timer)
  }, [])
  return (
    <>
      <h1 className="sentence">{at.name}: one minute on the equipment first.</h1>
      <p className="minute-left" role="timer" aria-live="off">
        {left}
      </p>
      <CautionLines className="step-hazard" hazards={['hot', 'trigger']} />
      <ol className="minute-looks">
        {MINUTE_LOOKS.map((l) => (
          <li key={l.do}>
            <strong>{l.do}</strong>: {l.look}
            {l.isLive ? '' : ' (power off before a hand goes in)'}
          </li>
        ))}
      </ol>
      <div className="quiz-options">
        <Key tone="chalk" onClick={onWell}>
          All of it is well
        </Key>
        <Link className="key" to={`/down?gun=${stationId}`}>
          Something is not: look there
        </Link>
      </div>
    </>
  )
}

/** What, how, and whose number it is. */
export function techniqueLines(t: TechniqueAnswer, units: Units): [what: string, how: string, whose: string | null][] {
  const length = (mm: number) => ruleLength(mm, units)
  const speed = (mmS: number) =>
    units === 'us' ? `${twoFigures((mmS * 60) / MM_PER_INCH)} in/min` : `${twoFigures((mmS * 60) / 10)} cm/min`
  const way = {
    push: 'push: the gun points the way it goes',
    pull: 'pull: it points back over the bead',
    either: 'push or pull, the same all along',
  }
  return [
    [
      'wire out of the tip',
      `${length(t.stickOutMm[0])} to ${length(t.stickOutMm[1])}`,
      t.stickOutBy === 'procedure' ? 'by the procedure' : 'the trade’s',
    ],
    ['gun to plate, across', `${t.workDeg}°`, null],
    ['off upright, along', `${t.travelDeg[0]} to ${t.travelDeg[1]}°`, null],
    ['which way', way[t.way], null],
    ['how fast', `${speed(t.speedMmS[0])} to ${speed(t.speedMmS[1])}`, 'a guess'],
    ['wire meets the puddle', `at its ${t.wireAt}`, null],
  ]
}

function TurnedOutKeys({ stationId, at }: { stationId: string; at: TechniqueAnswer }) {
  const { get, put } = useAddress()
  const told = useTold()
  const all = at.was.reduce((n, w) => n + w.n, 0)
  return (
    <section aria-label="What it was">
      <h2>What was it?</h2>
      {get('was') ? <p role="status">Counted{at.of ? ` for ${at.of}` : ''}: nobody is named.</p> : null}
      <div className="quiz-options">
        {TURNED_OUT_KEYS.map((key) => (
          <Key
            size="low"
            key={key}
            disabled={told.isPending}
            onClick={() => told.mutate({ stationId, was: key }, { onSuccess: () => put({ was: key }) })}
          >
            {capital(TURNED_OUT[key])}
          </Key>
        ))}
      </div>
      <Trouble problem={told.error} />
      {all > 0 ? (
        <p>
          {all} in {at.days} days{at.of ? `, ${at.of}` : ''}:{' '}
          {at.was.map((w) => `${TURNED_OUT[w.key]} ${w.n}`).join(', ')}.
        </p>
      ) : null}
    </section>
  )
}
