import { useRef, useState } from 'react'
import {
  cutBy,
  drawKnob,
  drawLays,
  drawTrim,
  feelAt,
  MARK_STEP,
  trimVerdict,
  windowOf,
  type Feel,
  type Lay,
} from '@core/practice/hands.ts'
import { MM_PER_INCH } from '@core/units/convert.ts'
import { drawNormal, makeRandom } from '@core/random/random.ts'
import { fineLength, ruleLength } from '@web/format/lengths.ts'
import { force } from '@web/format/numbers.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { Again, type HandsProps } from './HandsBuild.tsx'

const FEEL_WORDS: Readonly<Record<Feel, string>> = {
  stalls: 'The rolls slip and it stalls before it curls.',
  slips: 'It curls, and slips as soon as you bend the cable a little.',
  right: 'A clean pigtail; held fast at the tip, the rolls slip.',
  flat: 'It curls hard; the wire comes out flattened.',
  nests: 'It curls hard; held fast at the tip, it folds behind the rolls.',
}
const TURNS = [-1, -MARK_STEP, MARK_STEP, 1] as const

/** The knob into its window, by feeding against a block: the fewer tries the better. */
export function KnobDrill({ seed, onAgain }: HandsProps) {
  const [task] = useState(() => drawKnob(makeRandom(seed)))
  const [mark, setMark] = useState(task.mark)
  const [felt, setFelt] = useState<{ feel: Feel; mark: number }[]>([])
  const [isOver, setOver] = useState(false)
  const [first, last] = task.setup.shape.feeder.scale
  const now = feelAt(task.setup, mark)
  const { lowMark, highMark } = windowOf(task.setup)
  const latest = felt.at(-1)
  return (
    <>
      <h1 className="sentence">
        {isOver
          ? now === 'right'
            ? `Right, after ${felt.length} feeds.`
            : 'Not in its window.'
          : 'Somebody left the knob so. Set it.'}
      </h1>
      {isOver ? null : <CautionLines className="step-hazard" hazards={['live', 'stab']} />}
      <p className="hands-mark">
        {mark.toFixed(2)} <small>of {last}</small>
      </p>
      <p role="status">
        {latest ? `At ${latest.mark.toFixed(2)}: ${FEEL_WORDS[latest.feel]}` : 'Nobody has fed against the block yet.'}
      </p>
      {isOver ? (
        <>
          <p className="quiz-why">
            Its window runs from {(lowMark ?? first).toFixed(1)} to {highMark.toFixed(1)}. {FEEL_WORDS[now]}
          </p>
          <Again onAgain={onAgain} />
        </>
      ) : (
        <div className="practice-keys is-two">
          {TURNS.map((turn) => (
            <Key key={turn} onClick={() => setMark(Math.min(last, Math.max(first, mark + turn)))}>
              {turn > 0 ? '+' : '−'} {Math.abs(turn)}
            </Key>
          ))}
          <Key onClick={() => setFelt([...felt, { feel: now, mark }])}>Feed against the block</Key>
          <Key tone="chalk" onClick={() => setOver(true)}>
            That is it
          </Key>
        </div>
      )}
    </>
  )
}

/** Three lays of one cable: which asks most of the rolls. */
export function LayDrill({ seed, units, onAgain }: HandsProps) {
  const [{ lays, pushN, hardest }] = useState(() => drawLays(makeRandom(seed)))
  const [picked, setPicked] = useState<number | null>(null)
  return (
    <>
      <h1 className="sentence">
        {picked === null ? 'Which lay asks most of the rolls?' : picked === hardest ? 'That one.' : 'Another one does.'}
      </h1>
      <div className="hands-lays" role="group" aria-label="Lays">
        {lays.map((lay, i) => (
          <Key
            key={i}
            disabled={picked !== null}
            className={picked !== null && i === hardest ? 'is-right' : undefined}
            onClick={() => setPicked(i)}
          >
            <LayShown lay={lay} />
            <span>
              {lay.coils === 0 ? 'no coil' : lay.coils === 1 ? 'one coil' : `${lay.coils} coils`}, bends {lay.bendDeg}°
              in all
              {picked !== null ? `: ${force(pushN[i] ?? 0, units)} push` : ''}
            </span>
          </Key>
        ))}
      </div>
      {picked === null ? null : (
        <>
          <p role="status" className="quiz-why">
            Drag grows with every degree the cable turns, whichever way: a full coil is 360 of them, four corners as
            much.
          </p>
          <Again onAgain={onAgain} />
        </>
      )}
    </>
  )
}
/** A cable from the feeder to the gun: a swing for every quarter turn, a loop for every coil. */
function LayShown({ lay }: { lay: Lay }) {
  const swings = Math.max(1, Math.round(lay.bendDeg / 90))
  const step = 150 / (swings + lay.coils)
  let [x, d] = [10, 'M10 45']
  for (let i = 0; i < swings; i++) {
    d += `q${step / 2} ${i % 2 ? 34 : -34} ${step} 0`
    x += step
  }
  for (let i = 0; i < lay.coils; i++) {
    d += `c${step} 0 ${step} -40 ${step / 2} -40s${-step / 2} 40 ${step / 2} 40`
    x += step
  }
  return (
    <svg viewBox="0 0 190 80" aria-hidden="true">
      <path className="scene-hose" d={`${d}H${Math.max(x, 165)}`} />
      <path className="ink-cut" d="M0 36h10v18h-10ZM166 36h22v18h-22Z" />
    </svg>
  )
}

/** As a rule of the shop has them: an inch rule has no millimetres, and no two keys read alike. */
const CUTS = {
  metric: [30, 10, 5, 2, 1, 0.5],
  us: [1, 3 / 8, 3 / 16, 1 / 8, 1 / 16, 0.02].map((inch) => inch * MM_PER_INCH),
} as const
/** A liner cut to what its rule wants, measured as often as one likes: what is off stays off. */
export function TrimDrill({ seed, units, onAgain }: HandsProps) {
  const [task] = useState(() => drawTrim(makeRandom(seed)))
  const random = useRef(makeRandom(seed + 1))
  const [standsMm, setStands] = useState(task.standsMm)
  const [measured, setMeasured] = useState<number | null>(task.standsMm)
  const [counts, setCounts] = useState({ cuts: 0, measures: 0 })
  const [isOver, setOver] = useState(false)
  const verdict = trimVerdict({ ...task, standsMm })
  const isDone = isOver || verdict === 'scrap'
  const cut = (mm: number) => {
    setStands(cutBy(standsMm, mm, drawNormal(random.current)))
    setMeasured(null)
    setCounts({ ...counts, cuts: counts.cuts + 1 })
  }
  const SAID = {
    fits: `It fits, in ${counts.cuts} cuts.`,
    long: 'Still too long: it will bind at the tip.',
    scrap: 'Too short: this liner is scrap.',
  }
  return (
    <>
      <h1 className="sentence">
        {isDone ? SAID[verdict] : `To stand out by its rule: ${ruleLength(task.wantedMm, units)}.`}
      </h1>
      {isDone ? null : <CautionLines className="step-hazard" hazards={['coil', 'stab']} />}
      <p className="hands-mark" role="status">
        {isDone || measured !== null ? fineLength(isDone ? standsMm : (measured ?? 0), units) : 'cut, not measured'}
      </p>
      {isDone ? (
        <>
          <p className="quiz-why">A long cut strays by millimetres: leave three, measure, then take a thin slice.</p>
          <Again onAgain={onAgain} />
        </>
      ) : (
        <div className="practice-keys is-two">
          {CUTS[units].map((mm) => (
            <Key key={mm} onClick={() => cut(mm)}>
              Cut {ruleLength(mm, units)}
            </Key>
          ))}
          <Key
            disabled={measured !== null}
            onClick={() => {
              setMeasured(standsMm)
              setCounts({ ...counts, measures: counts.measures + 1 })
            }}
          >
            Measure
          </Key>
          <Key tone="chalk" onClick={() => setOver(true)}>
            Leave it so
          </Key>
        </div>
      )}
    </>
  )
}
