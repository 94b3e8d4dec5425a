import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { HAND_ITEM_KEYS, handItem, RIGHT, wrongOf, type HandItemKey } from '@core/classes/items.ts'
import { type ClassesAnswer } from '@contract/classes.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { capital } from '@web/format/words.ts'
import { Key } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { handedOverLine } from '@web/logbook/handedover.ts'
import { QueueLine } from '@web/offline/QueueLine.tsx'
import { kept, nextBooth, NOTHING_LOOKED, restRight, tapped, type BeforeState } from './beforestate.ts'
import { useClasses, useFound } from './queries.ts'

/** Looked at on this device for a class: without a link the server has not heard of it, and nobody is sent there twice. */
const lookedHere = new Set<string>()
const forClass = (at: ClassesAnswer, stationId: string) => `${at.period?.entryId} ${at.period?.day} ${stationId}`

/** A booth before class, in half a minute: what is wrong is tapped, the rest is right with one key, and on to the next. */
export function BeforeClass() {
  const { get } = useAddress()
  const classes = useClasses()
  const stationId = get('gun')
  if (!classes.data)
    return (
      <main className="step-walk before-class">
        <Waiting says="Looking which class comes" problem={classes.error} />
      </main>
    )
  const booth = classes.data.booths.find((b) => b.stationId === stationId)
  return <Look key={stationId} at={classes.data} stationId={stationId} name={booth?.name ?? get('name')} />
}

function Look({ at, stationId, name }: { at: ClassesAnswer; stationId: string; name: string }) {
  const [state, setState] = useState<BeforeState>(NOTHING_LOOKED)
  // Looked at just now: stands before the server has it.
  const { get } = useAddress()
  const go = useNavigate()
  const found = useFound()
  const next = nextBooth(
    at.booths.filter((b) => b.stationId === stationId || !lookedHere.has(forClass(at, b.stationId))),
    stationId,
  )
  const wrong = wrongOf(state.found)
  const keep = (as: BeforeState) =>
    found.mutate(
      { stationId, found: as.found, still: as.still },
      {
        onSuccess: () => {
          lookedHere.add(forClass(at, stationId))
          const said = `${name}: ${handedOverLine(as.found, as.still)}`
          void go(next ? `/before-class?gun=${next.stationId}&said=${encodeURIComponent(said)}` : '/classes', {
            replace: true,
          })
        },
      },
    )
  const keepAll = () => keep(restRight(state))
  return (
    <main className="step-walk before-class">
      <header>
        <Link className="key key-low" to="/classes">
          leave
        </Link>
        <h1>{name || 'Before class'}</h1>
        <p className="dim">{at.group ? `for ${at.group.name}` : 'before class'}</p>
      </header>
      {get('said') ? (
        <p className="before-said" role="status">
          {get('said')}
        </p>
      ) : null}
      <CautionLines className="step-hazard" hazards={['hot']} />
      <ul className="before-items">
        {HAND_ITEM_KEYS.map((item) => (
          <Item key={item} item={item} state={state} onState={setState} />
        ))}
      </ul>
      <Trouble problem={found.error} />
      <div className="before-keep">
        <Key tone="chalk" disabled={found.isPending} onClick={keepAll}>
          {wrong.length === 0 ? 'All as it should be' : 'The rest is right'}
        </Key>
      </div>
      <p className="before-skip">
        <Key onClick={() => void go(next ? `/before-class?gun=${next.stationId}` : '/classes', { replace: true })}>
          {next ? `Didn’t look: on to ${next.name}` : 'Didn’t look'}
        </Key>
      </p>
      <QueueLine />
    </main>
  )
}

function Item(props: { item: HandItemKey; state: BeforeState; onState: (state: BeforeState) => void }) {
  const { item, state, onState } = props
  const { name, right, wrong, putRight, wantsOff } = handItem(item)
  const answer = state.found[item]
  const isWrong = answer !== undefined && answer !== RIGHT
  const isStill = state.still.includes(item)
  const key = (as: string, says: string) => (
    <Key size="low" key={as} aria-pressed={answer === as} onClick={() => onState(tapped(state, item, as))}>
      {capital(says)}
    </Key>
  )
  return (
    <li className={isWrong ? 'is-wrong' : undefined}>
      <p>{name}</p>
      <div className="before-answers" role="group" aria-label={name}>
        {key(RIGHT, right)}
        {wrong.map((w) => key(w.key, w.says))}
      </div>
      {isWrong ? (
        <div className="before-right">
          <p>{putRight}</p>
          {wantsOff ? <CautionLines className="before-off" hazards={['isolate']} /> : null}
          <Key size="low" aria-pressed={!isStill} onClick={() => onState(kept(state, item, false))}>
            Put right
          </Key>
          <Key size="low" aria-pressed={isStill} onClick={() => onState(kept(state, item, true))}>
            Still so
          </Key>
        </div>
      ) : null}
    </li>
  )
}
