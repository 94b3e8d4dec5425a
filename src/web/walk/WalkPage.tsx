import { Button } from 'react-bootstrap'
import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { WALK_KEYS, WALKS, type WalkKey } from '@core/walk/looks.ts'
import { READING } from '@core/reading/specs.ts'
import { type WalkAnswer, type WalkStop } from '@contract/walk.ts'
import { newKey } from '@web/api/client.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { minutes } from '@web/format/numbers.ts'
import { ago, clockTime } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { useMe } from '@web/people/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { dropWalk, keepPrinted, keepWalk, keptWalk, printedWalk } from './kept.ts'
import { DEFAULT_WALK, useWalk, walkAddress, type WalkAsk } from './queries.ts'
import { WalkMode } from './WalkMode.tsx'
import { beginWalk, isOver, type WalkState } from './walkstate.ts'
import { stopWords, walkHonesty, walkSentence } from './walkwords.ts'

const MINUTES = [10, 15, 25, 40, 60]
const isWalk = (text: string | null): text is WalkKey => WALK_KEYS.some((k) => k === text)

/** Walk: what to look at at which gun in the minutes there are; then the walk itself, one gun a screen. */
export function WalkPage() {
  const [params, setParams] = useSearchParams()
  const [under, setUnder] = useState<WalkState | null>(keptWalk)
  const isWalking = params.has('at')
  const walked = (state: WalkState) => {
    keepWalk(state)
    setUnder(state)
  }
  const leave = () => {
    const { at: _, ...rest } = Object.fromEntries(params)
    setParams(rest)
  }
  if (isWalking && under)
    return (
      <WalkMode
        state={under}
        onState={walked}
        onLeave={leave}
        onEnd={() => {
          dropWalk()
          setUnder(null)
          leave()
        }}
      />
    )
  const walkOn = () => setParams({ ...Object.fromEntries(params), at: '1' })
  const begin = (stops: readonly WalkStop[], typedOf?: number) => {
    const startedMs = typedOf ?? Date.now()
    walked(beginWalk({ stops, keys: stops.map(() => newKey()), startedMs, isTyped: typedOf !== undefined }))
    walkOn()
  }
  return <Choose under={under && !isOver(under) ? under : null} onWalkOn={walkOn} onBegin={begin} />
}

/** As the address says; a tablet of a hall walks that hall unless told otherwise. */
function askOf(params: URLSearchParams, ownArea: string): WalkAsk {
  const walk = params.get('walk')
  return {
    minutes: Number(params.get('minutes')) || DEFAULT_WALK.minutes,
    walk: isWalk(walk) ? walk : DEFAULT_WALK.walk,
    areaId: params.get('area') ?? ownArea,
    from: params.get('from') ?? '',
    people: Number(params.get('people')) || 1,
  }
}

function Choose(props: {
  under: WalkState | null
  onWalkOn: () => void
  onBegin: (stops: readonly WalkStop[], typedOf?: number) => void
}) {
  const [params, setParams] = useSearchParams()
  const isPhone = useIsPhone()
  const ask = askOf(params, useMe().data?.device?.areaId ?? '')
  const walk = useWalk(ask)
  const set = (over: Record<string, string>) => setParams({ ...Object.fromEntries(params), ...over }, { replace: true })
  return (
    <main className="walk walk-choose">
      {props.under ? (
        <Key tone="chalk" className="walk-on" onClick={props.onWalkOn}>
          Walk on at {props.under.stops[props.under.at]?.name}: {props.under.at} of {props.under.stops.length} done
        </Key>
      ) : null}
      {walk.data ? (
        <>
          <h1 className="sentence">{walkSentence(walk.data)}</h1>
          <p className="honesty dim">{walkHonesty(walk.data)}</p>
        </>
      ) : (
        <Trouble problem={walk.error} />
      )}
      <div className="walk-ask">
        <div className="walk-minutes" role="group" aria-label="Minutes there are">
          {MINUTES.map((m) => (
            <Key key={m} aria-pressed={m === ask.minutes} onClick={() => set({ minutes: String(m) })}>
              {m} min
            </Key>
          ))}
        </div>
        <Which ask={ask} areas={walk.data?.areas ?? []} onSet={set} />
      </div>
      {walk.data ? (
        <div className="walk-stops">
          <Chosen walk={walk.data} ask={ask} onBegin={props.onBegin} />
          <Again walk={walk.data} />
        </div>
      ) : null}
      <p className="walk-more">
        <Link className="btn" to="/handover">
          hand-over page
        </Link>
        <Link className="btn" to="/audit">
          what is at hand
        </Link>
        {walk.data ? <Paper walk={walk.data} ask={ask} onType={props.onBegin} /> : null}
      </p>
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

const PEOPLE = ['1', '2', '3', '5', '10', '20']
function Which(props: { ask: WalkAsk; areas: WalkAnswer['areas']; onSet: (over: Record<string, string>) => void }) {
  const { ask, onSet } = props
  return (
    <div className="walk-which">
      <PickOne
        id="walk-walk"
        label="Walk"
        value={ask.walk}
        options={WALK_KEYS.map((k) => [k, WALKS[k].name] as const)}
        onPick={(walk) => onSet({ walk })}
      />
      <PickOne
        id="walk-area"
        label="Where"
        value={ask.areaId}
        none="everywhere"
        options={props.areas.map((a) => [a.id, a.name] as const)}
        onPick={(area) => onSet({ area })}
      />
      <PickOne
        id="walk-people"
        label="People"
        value={String(ask.people)}
        options={PEOPLE.map((n) => [n, n === '1' ? 'one' : n] as const)}
        onPick={(people) => onSet({ people })}
      />
    </div>
  )
}

/** The guns in walking order; by person where several go at once, each with a beginning of its own. */
function Chosen(props: { walk: WalkAnswer; ask: WalkAsk; onBegin: (stops: readonly WalkStop[]) => void }) {
  const { walk, onBegin } = props
  if (walk.stops.length === 0) return null
  return walk.parts.map((part, i) => {
    const stops = walk.stops.filter((s) => part.includes(s.stationId))
    const [first] = stops
    return (
      <section key={part[0]} aria-label={walk.parts.length > 1 ? `Person ${i + 1}` : 'The walk'}>
        <Key tone="chalk" className="walk-begin" onClick={() => onBegin(stops)}>
          {walk.parts.length > 1 ? `${i + 1}: begin at ${first?.name ?? ''}` : `Begin at ${first?.name ?? ''}`}
        </Key>
        <ol className="walk-list">
          {stops.map((s) => (
            <li key={s.stationId}>
              <strong>{s.name}</strong> <span>{capital(stopWords(s))}</span>{' '}
              <span className="dim">{minutes(s.minutes)}</span>
            </li>
          ))}
        </ol>
      </section>
    )
  })
}

/** What was found good and is looked at again by the lead, and how often that agreed: of looks, never of people. */
function Again({ walk: { again, nowMs } }: { walk: WalkAnswer }) {
  if (!again || (again.looks.length === 0 && again.agreed.of === 0)) return null
  return (
    <section aria-label="Looked at again">
      {again.agreed.of > 0 ? (
        <p className="dim">
          Looks that were looked at again agreed {again.agreed.same} of {again.agreed.of} times.
        </p>
      ) : null}
      {again.looks.slice(0, 5).map((l) => (
        <p key={`${l.stationId} ${l.what}`}>
          <Link className="btn" to={`/read?gun=${l.stationId}&what=${l.what}`}>
            Look again: {l.name}, {READING[l.what].name}
          </Link>{' '}
          <span className="dim">found good {ago(l.atMs, nowMs)} ago</span>
        </p>
      ))}
    </section>
  )
}

/** The walk on paper; kept on this device as it was printed, so that the sheet is typed back in its own order. */
function Paper(props: {
  walk: WalkAnswer
  ask: WalkAsk
  onType: (stops: readonly WalkStop[], typedOf: number) => void
}) {
  const { walk, ask, onType } = props
  const [sheet, setSheet] = useState(printedWalk)
  const print = () => {
    const printed = { stops: walk.stops, printedMs: Date.now() }
    keepPrinted(printed)
    setSheet(printed)
  }
  return (
    <>
      {walk.stops.length > 0 ? (
        <a
          className="btn"
          href={`/api/print${walkAddress(ask).replace('/walk', '/walk.pdf')}`}
          target="_blank"
          rel="noreferrer"
          onClick={print}
        >
          on paper
        </a>
      ) : null}
      {sheet ? (
        <Button variant="" onClick={() => onType(sheet.stops, sheet.printedMs)}>
          type in the sheet of {clockTime(sheet.printedMs, walk.zone)}
        </Button>
      ) : null}
    </>
  )
}
