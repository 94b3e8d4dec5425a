import { AtCell } from '@web/kit/atcell.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { isFoundGood } from '@core/walk/entry.ts'
import { LOOKS, lookMethod, type LookKey } from '@core/walk/looks.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { READING } from '@core/reading/specs.ts'
import { type WalkStop } from '@contract/walk.ts'
import { capital } from '@web/format/words.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { note } from '@web/offline/device.ts'
import { QueueLine } from '@web/offline/QueueLine.tsx'
import { useShortcuts } from '@web/kit/useShortcuts.ts'
import { hasFound, isOver, nextLook, walkStep, type WalkAct, type WalkEvent, type WalkState } from './walkstate.ts'
import { actWords, entrySays, mendOf, overSentence } from './walkwords.ts'

interface ModeProps {
  state: WalkState
  onState: (state: WalkState) => void
  onLeave: () => void
  onEnd: () => void
}

/** The walk itself: one gun a screen, found before done, a skip as big as an answer, number keys. */
export function WalkMode({ state, onState, onLeave, onEnd }: ModeProps) {
  // What was just found bad, where a tap puts it right.
  const [mending, setMending] = useState<{ what: LookKey; grade: string } | null>(null)
  // The device has no room left to keep what waits.
  const [isFull, setFull] = useState(false)
  const stop = state.stops[state.at]
  if (!stop || isOver(state)) return <Over state={state} onEnd={onEnd} />
  const leave = (from: WalkState, isNoted: boolean) => {
    const key = from.keys[from.at]
    if (isNoted && hasFound(from) && key)
      void note({
        kind: 'walk',
        path: '/walk/found',
        key,
        atMs: Date.now(),
        says: entrySays(from),
        body: {
          stationId: stop.stationId,
          happenedMs: from.isTyped ? from.startedMs : Date.now(),
          precision: from.isTyped ? 'shift' : 'exact',
          looks: from.looks,
          acts: from.acts,
          settled: from.settled,
        },
      }).catch(() => setFull(true))
    setMending(null)
    onState(walkStep(from, { type: 'leave', isNoted: isNoted && hasFound(from) }))
  }
  // All is looked at and nothing is due: on to the next, without another tap.
  const goOn = (next: WalkState) => (nextLook(next) === null && !hasDue(stop) ? leave(next, true) : onState(next))
  const tell = (event: WalkEvent) => goOn(walkStep(state, event))
  const answer = (what: LookKey, grade: string) => {
    const next = walkStep(state, { type: 'found', what, grade })
    if (isFoundGood({ what, grade }) || !mendOf({ what, grade }, LOOKS[what].at)) return goOn(next)
    setMending({ what, grade })
    onState(next)
  }
  const mend = mending ? mendOf(mending, LOOKS[mending.what].at) : null
  const mended = (act: WalkAct | null) => {
    setMending(null)
    goOn(act ? walkStep(state, { type: 'did', act }) : state)
  }
  const what = nextLook(state)
  return (
    <main className="step-walk walk-mode">
      <header>
        <Key
          size="low"
          onClick={() => (state.passed.length === 0 ? onLeave() : (setMending(null), tell({ type: 'back' })))}
        >
          {state.passed.length === 0 ? 'leave' : 'back'}
        </Key>
        <h1>{stop.name}</h1>
        <p className="dim">
          {state.at + 1} of {state.stops.length}
          <br />
          {stop.areaName}
        </p>
      </header>
      {mend ? (
        <Mend act={mend} onMend={mended} />
      ) : what ? (
        <AtCell value={stop.isCell}>
          <Ask what={what} onAnswer={(grade) => answer(what, grade)} onNot={() => tell({ type: 'notLooked', what })} />
        </AtCell>
      ) : (
        <Due stop={stop} state={state} tell={(e) => onState(walkStep(state, e))} onDone={() => leave(state, true)} />
      )}
      <Key className="walk-skip" onClick={() => leave(state, false)}>
        Skip this gun
      </Key>
      {isFull ? (
        <p className="trouble" role="alert">
          This device has no room left: what is noted now stays only while this page is open. Make room, or write it
          down.
        </p>
      ) : null}
      <QueueLine />
    </main>
  )
}
const hasDue = (stop: WalkStop) => stop.wants.length > 0 || stop.followUps.length > 0

/** One thing to look at: what, how, the drawing, what it can be. Number keys answer; 0 is "didn't look". */
function Ask({ what, onAnswer, onNot }: { what: LookKey; onAnswer: (grade: string) => void; onNot: () => void }) {
  const method = lookMethod(what)
  const { grades } = method
  const drawing = READING[what].drawing
  const keys = Object.fromEntries(grades.map((g, i) => [String(i + 1), () => onAnswer(g.key)]))
  useShortcuts({ ...keys, '0': onNot }, true)
  return (
    <>
      <p className="step-do">{capital(READING[what].name)}</p>
      <p className="step-look">{method.do}</p>
      <CautionLines className="step-hazard" hazards={method.hazards} />
      <div className="walk-keys" role="group" aria-label="What is found">
        {grades.map((g, i) => (
          <Key key={g.key} onClick={() => onAnswer(g.key)}>
            <span>
              <kbd>{i + 1}</kbd> {capital(g.says)}
            </span>
          </Key>
        ))}
        <Key onClick={onNot}>
          <span>
            <kbd>0</kbd> Didn’t look
          </span>
        </Key>
      </div>
      {drawing ? <Drawing of={drawing} /> : null}
    </>
  )
}

/** Found bad: put right at once, or left as it is; it was found so either way. */
function Mend({ act, onMend }: { act: WalkAct; onMend: (act: WalkAct | null) => void }) {
  useShortcuts({ '1': () => onMend(act), '2': () => onMend(null) }, true)
  return (
    <>
      <p className="step-do">Put right?</p>
      <div className="walk-keys">
        <Key tone="chalk" onClick={() => onMend(act)}>
          <span>
            <kbd>1</kbd> {actWords(act)}
          </span>
        </Key>
        <Key onClick={() => onMend(null)}>
          <span>
            <kbd>2</kbd> Left as it is
          </span>
        </Key>
      </div>
    </>
  )
}

/** What is due here by its house rule, and what still follows from other acts: a tap, or its number, says it is done. */
function Due(props: { stop: WalkStop; state: WalkState; tell: (event: WalkEvent) => void; onDone: () => void }) {
  const { stop, state, tell, onDone } = props
  const acts = stop.wants.flatMap((w): DueKey[] => {
    if (w.act === 'look') return []
    const act: WalkAct = { act: w.act === 'clean' ? 'cleaned' : 'changed', position: w.position }
    const isDone = state.acts.some((a) => a.act === act.act && a.position === act.position)
    return [
      { id: `${act.act} ${act.position}`, words: actWords(act), isDone, flip: { type: isDone ? 'undid' : 'did', act } },
    ]
  })
  const follows = stop.followUps.map((task): DueKey => {
    const isDone = state.settled.includes(task)
    const words = capital(FOLLOW_UP_TEXT[task].done)
    return { id: task, words, isDone, flip: { type: 'settled', task, isDone: !isDone } }
  })
  const all = [...acts, ...follows]
  const keys = Object.fromEntries(all.map((k, i) => [String(i + 1), () => tell(k.flip)]))
  useShortcuts({ ...keys, Enter: onDone, '0': onDone }, true)
  return (
    <>
      <p className="step-do">{acts.length > 0 ? 'Due here' : 'Still to be done here'}</p>
      {stop.followUps.length > 0 ? (
        <p className="step-look">{stop.followUps.map((f) => `${FOLLOW_UP_TEXT[f].do}.`).join(' ')}</p>
      ) : null}
      <div className="walk-keys" role="group" aria-label="What was done">
        {all.map((k, i) => (
          <Key key={k.id} aria-pressed={k.isDone} onClick={() => tell(k.flip)}>
            <span>
              <kbd>{i + 1}</kbd> {k.words}
            </span>
          </Key>
        ))}
        <Key tone="chalk" onClick={onDone}>
          <span>
            <kbd>0</kbd> Next gun
          </span>
        </Key>
      </div>
    </>
  )
}
interface DueKey {
  id: string
  words: string
  isDone: boolean
  flip: WalkEvent
}

function Over({ state, onEnd }: { state: WalkState; onEnd: () => void }) {
  return (
    <main className="step-walk walk-mode">
      <h1 className="sentence">{overSentence(state, Date.now())}</h1>
      <QueueLine />
      <Key tone="chalk" onClick={onEnd}>
        Done
      </Key>
    </main>
  )
}
