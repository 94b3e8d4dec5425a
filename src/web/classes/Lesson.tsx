import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { HAND_ITEM_KEYS, handItem, type HandItemKey } from '@core/classes/items.ts'
import { type ClassesAnswer } from '@contract/classes.ts'
import { capital } from '@web/format/words.ts'
import { Key } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useIsLead } from '@web/people/queries.ts'
import { FoundPath } from './FoundPath.tsx'
import { PairShown } from './PairShown.tsx'
import { usePairs } from './pairqueries.ts'
import { useGroups, useTaught, useTeach } from './queries.ts'

const isItem = (key: string): key is HandItemKey => HAND_ITEM_KEYS.some((k) => k === key)

/** A lesson of two minutes on one screen, to be read from the back of the room: what was found, right and wrong, an exercise. No booth and nobody is named. */
export function Lesson() {
  const { get, put } = useAddress()
  const isInRoom = get('room') === '1'
  useRoom(isInRoom)
  const isLead = useIsLead()
  const item = get('item')
  const pairs = usePairs()
  if (!isItem(item) || !pairs.data)
    return (
      <main className="lesson">
        {isItem(item) ? (
          <Waiting says="Getting the lesson" problem={pairs.error} />
        ) : (
          <>
            <h1>Which lesson?</h1>
            <ul className="lesson-which">
              {HAND_ITEM_KEYS.map((k) => (
                <li key={k}>
                  <Link className="key" to={`/lesson?item=${k}`}>
                    {handItem(k).name}
                  </Link>
                </li>
              ))}
            </ul>
          </>
        )}
      </main>
    )
  const { pair: pairKey, name } = handItem(item)
  const pair = pairs.data.pairs.find((p) => p.key === pairKey)
  return (
    <main className="lesson">
      <header className="lesson-head">
        <h1>{capital(name)}</h1>
        {isLead ? <FoundLately item={item} /> : null}
      </header>
      {pair ? <PairShown pair={pair} /> : null}
      {pair ? (
        <section className="lesson-exercise" aria-label="Two minutes">
          <h2>Two minutes</h2>
          <p>{pair.exercise}</p>
          <Clock />
        </section>
      ) : null}
      {isLead ? <Taught item={item} groupId={get('group')} /> : null}
      <Key size="low" onClick={() => put({ room: isInRoom ? null : '1' })}>
        {isInRoom ? 'Back from the room' : 'For the room'}
      </Key>
    </main>
  )
}

/** On a wall before a room nothing stands but the lesson. */
function useRoom(isOn: boolean): void {
  useEffect(() => {
    document.documentElement.classList.toggle('in-room', isOn)
    return () => document.documentElement.classList.remove('in-room')
  }, [isOn])
}

const EXERCISE_S = 120
/** Two minutes, once they are begun. */
function Clock() {
  const [left, setLeft] = useState<number | null>(null)
  const isRunning = left !== null && left > 0
  useEffect(() => {
    if (!isRunning) return
    const timer = setInterval(() => setLeft((s) => Math.max(0, (s ?? 0) - 1)), 1000)
    return () => clearInterval(timer)
  }, [isRunning])
  if (left === null)
    return (
      <Key size="low" onClick={() => setLeft(EXERCISE_S)}>
        Begin
      </Key>
    )
  return (
    <p className="minute-left" role="timer" aria-live="off">
      {left > 0 ? `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}` : 'Time'}
    </p>
  )
}

/** How often, in the room, over all groups: the path, and one figure. */
function FoundLately({ item }: { item: HandItemKey }) {
  const teach = useTeach()
  const of = teach.data?.ofGroups.filter((g) => g.item === item) ?? []
  const [wrong, looked] = [of.reduce((n, g) => n + g.wrong, 0), of.reduce((n, g) => n + g.looked, 0)]
  if (looked === 0) return null
  return (
    <div className="lesson-found">
      <p>
        Before class, in all groups:{' '}
        {handItem(item)
          .wrong.map((w) => w.says)
          .join(' or ')}{' '}
        {wrong} of {looked} times.
      </p>
      <FoundPath found={[{ item, wrong, looked }]} only={item} />
    </div>
  )
}

/** One tap says it was given: from there on it is held against what is found. */
function Taught({ item, groupId }: { item: HandItemKey; groupId: string }) {
  const { put, get } = useAddress()
  const taught = useTaught()
  const groups = useGroups()
  const active = groups.data?.groups.filter((g) => g.isActive) ?? []
  if (get('done'))
    return (
      <p className="lesson-done" role="status">
        Noted. What is found before class from here on tells whether it helped.{' '}
        <Link to="/classes">Back to the class</Link>
      </p>
    )
  return (
    <section className="lesson-taught" aria-label="Given to">
      {active.map((g: Pick<NonNullable<ClassesAnswer['group']>, 'id' | 'name'>) => (
        <Key
          key={g.id}
          {...(g.id === groupId ? { tone: 'chalk' as const } : {})}
          disabled={taught.isPending}
          onClick={() => taught.mutate({ groupId: g.id, item }, { onSuccess: () => put({ done: g.id }) })}
        >
          Taught to {g.name}
        </Key>
      ))}
      <Trouble problem={taught.error} />
    </section>
  )
}
