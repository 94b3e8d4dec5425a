import { Link } from 'react-router'
import { handItem, wrongOf } from '@core/classes/items.ts'
import { type ClassesAnswer } from '@contract/classes.ts'
import { clockTime } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { Plain } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useFloor } from '@web/floor/queries.ts'
import { rowAct } from '@web/floor/sentence.ts'
import { Supplies } from './Supplies.tsx'
import { useIsLead, useMe } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import {
  classSentence,
  fitSentence,
  foundList,
  foundPlain,
  helpedSentence,
  teachSentence,
  wireChanges,
} from './classwords.ts'
import { FoundPath } from './FoundPath.tsx'
import { useClasses } from './queries.ts'

/** Classes: the period is the page. Its booths as they stand, what was found before it, what to teach in two minutes. */
export function ClassesPage() {
  const { get, put } = useAddress()
  const asked = get('class') && get('day') ? { entryId: get('class'), day: get('day') } : undefined
  const classes = useClasses(asked)
  const isLead = useIsLead()
  const isPhone = useIsPhone()
  const at = classes.data
  if (!at)
    return (
      <main className="classes">
        <Waiting says="Looking at the classes" problem={classes.error} />
      </main>
    )
  return (
    <main className="classes">
      <h1 className="sentence">{classSentence(at)}</h1>
      <Trouble problem={classes.error} />
      <Days
        at={at}
        onPick={(entryId, day) => put({ class: entryId, day })}
        onNow={() => put({ class: null, day: null })}
      />
      <div className={isLead ? 'classes-two' : 'classes-one'}>
        <Booths at={at} />
        {isLead ? <Teach at={at} /> : null}
      </div>
      <Ways isLead={isLead} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

/** Today's classes as a strip to choose from; the one that is shown is chalk. */
function Days(props: { at: ClassesAnswer; onPick: (entryId: string, day: string) => void; onNow: () => void }) {
  const { at } = props
  if (at.todays.length === 0) return null
  const isShown = (o: (typeof at.todays)[number]) => o.entryId === at.period?.entryId && o.day === at.period.day
  return (
    <div className="class-strip" role="group" aria-label="Classes today">
      {at.todays.map((o) => (
        <Plain
          key={`${o.entryId} ${o.day}`}
          className="class-time"
          aria-pressed={isShown(o)}
          onClick={() => (isShown(o) ? props.onNow() : props.onPick(o.entryId, o.day))}
        >
          <strong>{clockTime(o.fromMs, at.zone)}</strong> {o.groupName ?? o.name}
          {o.movedTo ? <small> moved</small> : null}
        </Plain>
      ))}
    </div>
  )
}

/** What Floor says of a gun that should not be given out as it is: built wrong, or found wrong. */
function useKnown(): ReadonlyMap<string, string> {
  const floor = useFloor(null, null).data
  const units = useMe().data?.units ?? 'metric'
  const harming = new Set(floor?.harming ?? [])
  return new Map(
    (floor?.guns ?? []).flatMap((g): [string, string][] => {
      if (g.wrong.length > 0 || g.found.length > 0)
        return [[g.stationId, rowAct(g, { nowMs: floor?.nowMs ?? 0, zone: floor?.zone ?? 'UTC', units })]]
      return harming.has(g.name) ? [[g.stationId, 'Built or set so that it harms']] : []
    }),
  )
}

function Booths({ at }: { at: ClassesAnswer }) {
  const known = useKnown()
  if (at.booths.length === 0) return null
  return (
    <section aria-label="Booths">
      <h2>{fitSentence(at.booths, known)}</h2>
      <Changes at={at} />
      {at.leftBy ? <p className="dim">{at.leftBy} had them before.</p> : null}
      <ul className="class-booths">
        {at.booths.map((b) => (
          <li key={b.stationId} className={b.isDown ? 'is-down' : undefined}>
            <Link className="class-booth" to={`/gun/${b.stationId}`}>
              {b.name}
            </Link>
            <span>
              {[b.learner, b.wireName].filter(Boolean).join(', ')}
              {b.wantsWireName ? <strong> wants {b.wantsWireName}</strong> : null}
            </span>
            <span className="class-found">{[known.get(b.stationId), boothWords(b)].filter(Boolean).join('; ')}</span>
            {b.isParked ? null : (
              <Link className="key key-low" to={`/before-class?gun=${b.stationId}`}>
                {b.look ? 'look again' : 'look'}
              </Link>
            )}
          </li>
        ))}
      </ul>
      {at.found.some((f) => f.wrong > 0) ? (
        <>
          <p>Found: {foundList(at.found)}.</p>
          <FoundPath found={at.found} />
        </>
      ) : null}
    </section>
  )
}

/** Another wire for the next class is one list of changes for all its booths, not each by itself. */
function Changes({ at }: { at: ClassesAnswer }) {
  return wireChanges(at.booths).map(({ wireId, wireName, booths }) => (
    <p key={wireId}>
      <Link className="key key-low" to={`/change?guns=${booths.map((b) => b.stationId).join(',')}&wire=${wireId}`}>
        {booths.length === 1 ? 'One booth wants' : `${booths.length} booths want`} {wireName}:{' '}
        {booths.map((b) => b.name).join(', ')}
      </Link>
    </p>
  ))
}

function boothWords(b: ClassesAnswer['booths'][number]): string {
  if (b.isParked) return 'parked'
  if (b.isDown) return 'down'
  if (!b.look) return 'not looked at'
  const { found, still } = b.look
  const wrong = wrongOf(found)
  if (wrong.length === 0) return 'as it should be'
  return wrong.map((k) => `${foundPlain(k, found[k] ?? '')}${still.includes(k) ? ', still so' : ''}`).join('; ')
}

function Teach({ at }: { at: ClassesAnswer }) {
  const { group } = at
  if (!group) return null
  const [first, ...more] = at.teach
  return (
    <section aria-label="What to teach">
      <h2>Two minutes for {group.name}</h2>
      {first ? (
        <>
          <p className="class-teach">{capital(handItem(first.item).name)}</p>
          <p>{teachSentence(first, group.name)}</p>
          <Link className="key key-chalk" to={`/lesson?item=${first.item}&group=${group.id}`}>
            Show the lesson
          </Link>
        </>
      ) : (
        <p>Nothing was found often enough to be worth a lesson. Look at the booths before class, and it tells.</p>
      )}
      {more.length > 0 ? (
        <p className="dim">
          Then:{' '}
          {more.slice(0, 3).map((t, i) => (
            <span key={t.item}>
              {i > 0 ? ', ' : ''}
              <Link to={`/lesson?item=${t.item}&group=${group.id}`}>{handItem(t.item).name.toLowerCase()}</Link>{' '}
              {t.wrong} of {t.looked}
            </span>
          ))}
        </p>
      ) : null}
      <Supplies at={at} />
      {at.lessons.length > 0 ? (
        <>
          <h3>Taught</h3>
          <ul className="class-lessons">
            {at.lessons.map((l) => (
              <li key={`${l.item} ${l.day}`}>
                <strong>{capital(handItem(l.item).name)}</strong> <span className="dim">{l.day}</span>
                <br />
                {helpedSentence(l)}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  )
}

const Ways = ({ isLead }: { isLead: boolean }) => (
  <nav className="class-ways" aria-label="Of classes">
    <Link to="/calendar">Calendar</Link>
    {isLead ? <Link to="/groups">Groups and booths</Link> : null}
    <Link to="/pairs">Right and wrong</Link>
    <Link to="/quiz">Quiz</Link>
  </nav>
)
