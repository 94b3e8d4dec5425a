import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { type Index } from '@core/diagnose/belief.ts'
import { groupNamed } from '@core/diagnose/moves.ts'
import { LOST_MIN } from '@core/diagnose/ratio.ts'
import { HINT_MIN, isRunning, type DrillAct, type DrillState } from '@core/practice/drill.ts'
import { BOOTH_PLACES, PLACE_WORDS, placeOfCheck, placeOfFix, type BoothPlace } from '@core/practice/places.ts'
import { spanWords } from '@web/down/downwords.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { useMe } from '@web/people/queries.ts'
import { BeadDesk } from './BeadDesk.tsx'
import { DebriefView } from './Debrief.tsx'
import { type KeptDrill, readDrill } from './kept.ts'
import { PlacePanel } from './PlacePanel.tsx'
import { actWords, cameWords, partsWords } from './practicewords.ts'
import { indexed, isWaiting, usePractice } from './queries.ts'
import { Scene } from './Scene.tsx'
import { useBoothWorker, type AskBooth } from './useBoothWorker.ts'
import { useDrill } from './useDrill.ts'
import { usePlay } from './usePlay.ts'

/** The booth with something wrong in it: look, put right, hear it; then what each look was worth. */
export function DrillPage() {
  const [drill] = useState(readDrill)
  const practice = usePractice()
  const knowledge = practice.data?.knowledge as Knowledge | undefined
  if (!drill)
    return (
      <main className="practice">
        <h1>No drill stands in the booth.</h1>
        <p>
          <Link to="/practice">Take one</Link>
        </p>
      </main>
    )
  // With a link it is played by the shop's own list; without one by what the device has, or by what ships.
  if (isWaiting(practice)) return <main className="practice" aria-busy="true" />
  return <Playing key={drill.key} drill={drill} knowledge={knowledge} place={practice.data?.place?.stationId ?? null} />
}

function Playing(props: { drill: KeptDrill; knowledge: Knowledge | undefined; place: string | null }) {
  const { drill } = props
  const knowledge = useMemo(() => indexed(props.knowledge), [props.knowledge])
  const ask = useBoothWorker(props.knowledge)
  const { state, bead, pulls, isPulling, act } = useDrill(knowledge, drill, ask)
  const atS = usePlay(pulls)
  const [place, setPlace] = useState<BoothPlace | null>(null)
  const units = useMe().data?.units ?? 'metric'
  const isOver = isRunning(state)
  const complaint = knowledge.symptoms.find((s) => s.key === drill.scenario.complaint)?.says ?? ''
  if (isOver && !isPulling && atS === null)
    return (
      <main className="practice">
        <DebriefView {...{ drill, knowledge, ask, state, bead, units }} stationId={props.place} />
      </main>
    )
  return (
    <main className="practice">
      <h1 className="sentence">{capital(complaint)}.</h1>
      <p className="practice-clock" role="status">
        <strong>{spanWords(state.minutes)}</strong> · {partsWords(state.parts)} ·{' '}
        <span className="dim">{drill.scenario.setup.name}</span>
      </p>
      <Scene
        place={place}
        signs={bead?.signs ?? []}
        mark={bead?.mark ?? null}
        {...marksOf(knowledge, state)}
        now={bead && atS !== null ? { bead, atS } : null}
        onPlace={setPlace}
      />
      <PlaceKeys place={place} onPlace={setPlace} />
      <div className="practice-two">
        <div>
          <BeadDesk {...{ bead, atS, units, isOver }} onPull={() => act({ do: 'bead' })} />
          <Last knowledge={knowledge} state={state} />
        </div>
        <div className="practice-side">
          {isOver ? (
            <p className="practice-empty">It is tried once more.</p>
          ) : (
            <Side {...{ drill, knowledge, state, place, units, ask, act }} />
          )}
        </div>
      </div>
    </main>
  )
}

/** What is done at the place one stands at, and who can be asked. */
function Side(props: {
  drill: KeptDrill
  knowledge: Index
  state: DrillState
  place: BoothPlace | null
  units: Units
  ask: AskBooth
  act: (act: DrillAct) => void
}) {
  const { drill, knowledge, state, place, units, ask, act } = props
  return (
    <>
      {place ? (
        <PlacePanel key={place} {...{ knowledge, state, place, units, ask }} scenario={drill.scenario} onAct={act} />
      ) : (
        <p className="practice-empty">Tap where you would look first.</p>
      )}
      <Hint {...{ drill, knowledge, state, ask }} onAsked={() => act({ do: 'hint' })} />
      {state.steps.length > 0 ? (
        <Bare onClick={() => act({ do: 'help' })}>Call for help, and be shown ({spanWords(LOST_MIN)})</Bare>
      ) : null}
    </>
  )
}

/** Places by name, where the picture is small. */
const PlaceKeys = ({ place, onPlace }: { place: BoothPlace | null; onPlace: (p: BoothPlace) => void }) => (
  <div className="place-keys d-md-none" role="group" aria-label="Where will you look?">
    {BOOTH_PLACES.map((p) => (
      <Key key={p} size="low" aria-pressed={p === place} onClick={() => onPlace(p)}>
        {capital(PLACE_WORDS[p])}
      </Key>
    ))}
  </div>
)

/** What came of the last act, so that it is not missed while one looks elsewhere. */
function Last({ knowledge, state }: { knowledge: Index; state: DrillState }) {
  const last = state.steps.at(-1)
  if (!last || last.act.do === 'hint') return null
  return (
    <p className="practice-last" role="status">
      <span className="dim">{actWords(knowledge, last.act)}:</span> <strong>{cameWords(last)}</strong>
    </p>
  )
}

/** Somebody who knows: says what they would do next, and it costs. */
function Hint(props: { drill: KeptDrill; knowledge: Index; state: DrillState; ask: AskBooth; onAsked: () => void }) {
  const { drill, knowledge, state, ask, onAsked } = props
  const [said, setSaid] = useState<{ at: number; words: string } | null>(null)
  const asked = async () => {
    const acts = state.steps.map((s) => s.act)
    const act = await ask('hint', { scenario: drill.scenario, acts })
    onAsked()
    const words = act ? `${actWords(knowledge, act)}.` : 'Nothing is left to look at: put right what you doubt most.'
    setSaid({ at: acts.length + 1, words })
  }
  const isFresh = said !== null && said.at === state.steps.length
  return (
    <div className="practice-hint">
      {isFresh ? (
        <p role="status">
          <span className="dim">“I would now:</span> <strong>{said.words}</strong>
          <span className="dim">”</span>
        </p>
      ) : (
        <Bare onClick={() => void asked()}>Ask somebody ({spanWords(HINT_MIN)})</Bare>
      )}
    </div>
  )
}

/** Where something was looked at or done, and where a look found something. */
function marksOf(knowledge: Index, state: DrillState): { looked: Set<BoothPlace>; found: Set<BoothPlace> } {
  const [looked, found] = [new Set<BoothPlace>(), new Set<BoothPlace>()]
  for (const { act, outcome } of state.steps) {
    if (act.do === 'look') {
      const check = knowledge.checkOf.get(act.key)
      if (!check) continue
      const at = placeOfCheck(knowledge, check)
      looked.add(at)
      if (outcome && outcome.points.length > 0) found.add(at)
    }
    if (act.do === 'fix') {
      const group = groupNamed(knowledge, act.key)
      if (group) found.delete(placeOfFix(knowledge, group))
    }
  }
  return { looked, found }
}
