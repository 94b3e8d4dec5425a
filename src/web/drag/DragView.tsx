import { Button } from 'react-bootstrap'
import { useMemo, useReducer, type ReactNode } from 'react'
import { atKnob, coilsToShut, explain, type AtKnob, type Explained } from '@core/drag/explain.ts'
import { pushPullWindows, usualPullDrive } from '@core/drag/pushpull.ts'
import { type Source } from '@core/drag/ofgun.ts'
import { guessesFor, type DragSetup, type Guesses, type Param } from '@core/drag/setup.ts'
import { minutes, type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { Bench } from './Bench.tsx'
import { begin, dragStep, isMoved, type DragEvent } from './dragstate.ts'
import {
  becauseSentence,
  culpritWords,
  dragSentence,
  knobSentence,
  nestSentence,
  PARAM_WORD,
  READ_FOR,
  secondDriveSentence,
  spreadSentence,
  stepsWords,
} from './dragwords.ts'
import { GunPicture } from './GunPicture.tsx'
import { KnobScale } from './KnobScale.tsx'
import { useSweep } from './useSweep.ts'

export interface DragViewProps {
  name: string
  real: DragSetup
  mark: number
  sources: Partial<Record<Param, Source>>
  /** Of a gun of the shop; free values have the guesses' own. */
  spans: Guesses | null
  isCalibrated: boolean
  nowMs: number
  units: Units
  /** Which gun, and what can be read on it. */
  head: ReactNode
  foot: ReactNode
}

/** Why does it feed badly: the gun drawn, the force along it, the window on its knob, what shuts it and what opens it. */
export function DragView(props: DragViewProps) {
  const { name, units } = props
  const [state, tell] = useReducer(dragStep, begin(props.real, props.mark))
  const { drawn, mark } = state
  const said = useMemo(() => explain(drawn), [drawn])
  const at = useMemo(() => atKnob(drawn, mark), [drawn, mark])
  const isCalibrated = props.isCalibrated && drawn.shape.slip !== null
  const moved = isMoved(state)
  return (
    <main className="drag">
      <div className="drag-head">
        <div>
          <h1 className="sentence">{dragSentence(name, said)}</h1>
          <p className="honesty dim">
            {becauseSentence(said, name)}
            {said.isShaved ? ' Knurled rolls shave solid wire, whatever the knob.' : ''}
          </p>
        </div>
        {props.head}
      </div>
      <div className="drag-scroll" role="group" aria-label="The gun and its knob">
        <GunPicture
          setup={drawn}
          said={said}
          at={at}
          units={units}
          onValue={(param, value) => tell({ type: 'value', param, value })}
        />
        <KnobScale
          setup={drawn}
          said={said}
          at={at}
          units={units}
          isCalibrated={isCalibrated}
          onMark={(m) => tell({ type: 'knob', mark: m })}
        />
      </div>
      <p className="drag-knob-says">{knobSentence(at, said, units)}</p>
      <div className="drag-under">
        <Bench setup={drawn} sources={moved ? {} : props.sources} nowMs={props.nowMs} units={units} tell={tell} />
        <Aside {...props} said={said} at={at} drawn={drawn} moved={moved} tell={tell} />
      </div>
    </main>
  )
}

type AsideProps = Pick<DragViewProps, 'spans' | 'foot' | 'units'> & {
  at: AtKnob
  said: Explained
  drawn: DragSetup
  moved: boolean
  tell: (event: DragEvent) => void
}
/** What takes of the window, what opens it again to try on the picture, and how sure all that is. */
function Aside({ said, at, units, drawn, moved, tell, ...props }: AsideProps) {
  return (
    <div>
      <section aria-label="What takes of it">
        <h2>What takes of it</h2>
        {said.culprits.length === 0 ? <p className="dim">Nothing out of the ordinary.</p> : null}
        <ul className="plain">
          {said.culprits.slice(0, 4).map((c) => (
            <li key={c.remedy}>{culpritWords(c)}.</li>
          ))}
        </ul>
        <CoilsWords setup={drawn} />
      </section>
      <section aria-label="What opens it">
        <h2>Try on the picture</h2>
        <div className="drag-tries">
          {said.reopens.slice(0, 4).map((r) => (
            <Button key={r.steps.join()} variant="" onClick={() => tell({ type: 'try', steps: r.steps })}>
              {capital(stepsWords(r))}, {minutes(r.minutes)}: opens
            </Button>
          ))}
          {said.reopens.length === 0
            ? said.culprits.slice(0, 3).map((c) => (
                <Button key={c.remedy} variant="" onClick={() => tell({ type: 'try', steps: [c.remedy] })}>
                  {capital(stepsWords({ steps: [c.remedy] }))}
                </Button>
              ))
            : null}
          {moved ? (
            <Button variant="chalk" onClick={() => tell({ type: 'back' })}>
              {props.spans ? 'As it is on the floor' : 'As it began'}
            </Button>
          ) : null}
        </div>
      </section>
      {drawn.shape.secondDrive ? (
        <section aria-label="Two drives">
          <h2>Two drives</h2>
          <p>{secondDriveSentence(pushPullWindows(drawn, usualPullDrive(drawn)))}</p>
        </section>
      ) : null}
      <section aria-label="Why did it nest?">
        <h2>Why did it nest?</h2>
        <p>{nestSentence(at, said, units)}</p>
      </section>
      <HowSure setup={drawn} spans={props.spans} />
      {props.foot}
    </div>
  )
}

function CoilsWords({ setup }: { setup: DragSetup }) {
  const coils = coilsToShut(setup)
  if (coils === null) return <p className="small-print">Coils alone do not shut this one.</p>
  if (coils <= setup.values.coils) return null
  return (
    <p className="small-print">
      {coils === 1 ? 'One coil' : `${coils} coils`} on the floor, all else as drawn, and it shuts.
    </p>
  )
}

/** How far guesses may be off, worked out beside the page; and what to read first. */
function HowSure({ setup, spans }: { setup: DragSetup; spans: Guesses | null }) {
  const ranges = useMemo(() => spans ?? guessesFor(setup.shape, setup.values.cableMm), [spans, setup])
  const sweep = useSweep(setup, ranges)
  if (!sweep) return <p className="small-print">Trying what the guesses allow…</p>
  const first = sweep.order.filter((s) => READ_FOR[s.param]).slice(0, 3)
  return (
    <section aria-label="How sure">
      <h2>How sure</h2>
      <p>{spreadSentence(sweep.spread)}</p>
      {first.length > 0 ? (
        <p className="small-print">
          Most hangs on{' '}
          {first.map((s, i) => (
            <span key={s.param}>
              {i > 0 ? '; ' : ''}
              {PARAM_WORD[s.param]} (tell it by {READ_FOR[s.param]})
            </span>
          ))}
          .
        </p>
      ) : null}
    </section>
  )
}
