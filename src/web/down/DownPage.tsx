import { Link, useSearchParams } from 'react-router'
import { COLUMNS } from '@core/path/columns.ts'
import { type DownNowAnswer } from '@contract/down.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { ago } from '@web/format/times.ts'
import { aboutMoney, minutes } from '@web/format/numbers.ts'
import { capital, countWord, guns, inN, partName, placeName } from '@web/format/words.ts'
import { useGun } from '@web/gunnow/queries.ts'
import { useMe } from '@web/people/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { DownSearch } from './DownSearch.tsx'
import { inVainWords } from './downwords.ts'
import { Unexplained } from './Later.tsx'
import { useDown, useDownNow } from './queries.ts'

/** It's down: what first? With a gun, its search; without one, what stands now and where the minutes went. */
export function DownPage() {
  const [params] = useSearchParams()
  const stationId = params.get('gun')
  return stationId ? <AtGun stationId={stationId} /> : <DownNow />
}

function AtGun({ stationId }: { stationId: string }) {
  const gun = useGun(stationId)
  const down = useDown(stationId)
  if (!gun.data || !down.data)
    return (
      <main className="walk" aria-busy={gun.isPending || down.isPending}>
        <Waiting says="Reading the gun and its stops" problem={gun.error ?? down.error} />
      </main>
    )
  return <DownSearch key={stationId} gun={gun.data} down={down.data} />
}

function DownNow() {
  const [params, setParams] = useSearchParams()
  const own = useMe().data?.device?.areaId ?? ''
  const areaId = params.get('area') ?? own
  const now = useDownNow(areaId)
  const isPhone = useIsPhone()
  if (!now.data)
    return (
      <main className="walk" aria-busy={now.isPending}>
        <Waiting says="Looking who is down" problem={now.error} />
      </main>
    )
  return (
    <main className="walk down-page">
      <h1 className="sentence">{downSentence(now.data)}</h1>
      <p className="honesty dim">
        {honestySentence(now.data)} {beforeSentence(now.data)}
      </p>
      <div className="walk-which">
        <PickOne
          id="down-area"
          label="Where"
          value={areaId}
          none="everywhere"
          options={now.data.areas.map((a) => [a.id, a.name] as const)}
          onPick={(area) => setParams(area ? { area } : {})}
        />
      </div>
      <ul className="plain down-now-list">
        {now.data.down.map((d) => (
          <li key={d.stationId}>
            <Link className="key" to={`/down?gun=${d.stationId}`}>
              <span>
                <strong>{d.name}</strong> down for{' '}
                {d.minutes === null ? ago(d.fromMs, now.data.nowMs) : minutes(d.minutes)}
                {d.position ? `, ${partName(d.position)}` : ''}: what first?
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <Strokes now={now.data} />
      <Causes now={now.data} />
      <Searches now={now.data} />
      <Unexplained now={now.data} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

export function downSentence({ down, stops, days, currency }: DownNowAnswer): string {
  const standing =
    down.length === 0 ? 'Nothing is down.' : `${capital(countWord(down.length))} ${guns(down.length)} down.`
  const total = stops.reduce((sum, s) => sum + s.minutes, 0)
  return stops.length === 0
    ? `${standing} No stop in ${days} days.`
    : `${standing} ${stops.length} stops in ${days} days, ${minutes(total)}${costWords(stops, currency)}.`
}
/** What it cost to stand, where somebody said what an hour costs. */
function costWords(stops: DownNowAnswer['stops'], currency: string): string {
  const known = stops.flatMap((s) => (s.costMinor === null ? [] : [s.costMinor]))
  return known.length === 0
    ? ''
    : `, ${aboutMoney(
        known.reduce((a, b) => a + b, 0),
        currency,
      )}`
}

/** "Fewer than the 30 days before (90 stops): 1 in 200 by chance." */
export function beforeSentence({ before, stops, days }: DownNowAnswer): string {
  const { p, untilDays, ratio } = before
  const then = `${before.stops} in the ${days} days before`
  if (p < 0.05) return `${(ratio ?? 2) < 1 ? 'Fewer' : 'More'} than that: ${then}; ${inN(p)} by chance alone.`
  if (before.stops + stops.length === 0) return ''
  const wait = untilDays === null ? '' : `, about ${Math.ceil(untilDays)} more days at this rate`
  return `${capital(then)}: no more of a difference than chance makes. Can’t tell yet${wait}.`
}

export function honestySentence({ stops, firstFix }: DownNowAnswer): string {
  if (stops.length === 0) return ''
  const unsaid = stops.filter((s) => !s.isExplained).length
  const first = firstFix.of > 0 ? ` The first fix was it ${firstFix.right} of ${firstFix.of} times.` : ''
  return unsaid === 0 ? `Every one is explained.${first}` : `${unsaid} of them nobody explained.${first}`
}

const PLACES = [...COLUMNS, 'off'] as const
type StopPlace = (typeof PLACES)[number]
const DESK = { width: 1200, tall: 150, empty: null }
/** On a phone a column without stops is a gap, so that the names of the others can be read. */
const PHONE = { width: 360, tall: 110, empty: 9 }

/** Where each column begins and how wide it is, in the drawing's own units. */
function laidAlong(full: ReadonlySet<StopPlace>, { width, empty }: typeof DESK | typeof PHONE) {
  const isGap = (place: StopPlace) => empty !== null && full.size > 0 && !full.has(place)
  const gaps = PLACES.filter(isGap).length
  const step = (width - gaps * (empty ?? 0)) / (PLACES.length - gaps)
  let x = 0
  return PLACES.map((place) => {
    const at = { place, x, step: isGap(place) ? (empty ?? 0) : step, isNamed: !isGap(place) }
    x += at.step
    return at
  })
}

/** A stroke a stop, standing on its column: its height is its minutes, hollow where nobody is sure. */
function Strokes({ now }: { now: DownNowAnswer }) {
  const size = useIsPhone() ? PHONE : DESK
  const { width, tall } = size
  if (now.stops.length === 0) return null
  const most = Math.max(10, ...now.stops.map((s) => s.minutes))
  const at = (column: string) => now.stops.filter((s) => s.column === column)
  const unplaced = now.stops.filter((s) => s.column === null).length
  const laid = laidAlong(new Set(PLACES.filter((p) => at(p).length > 0)), size)
  const named = laid.filter((l) => l.isNamed).map((l) => l.place)
  return (
    <figure className="down-strokes">
      <svg viewBox={`0 0 ${width} ${tall + 36}`} width="100%" role="img" aria-label="Stops along the path">
        <path d={`M0 ${tall}H${width}`} className="bead-wire" />
        {laid.map(({ place, x, step, isNamed }) => {
          const here = at(place)
          const gap = Math.min(9, (step - 8) / Math.max(1, here.length))
          const isLast = place === named.at(-1)
          // On a phone names stand in two rows, so that long ones do not run into each other.
          const row = size === PHONE ? named.indexOf(place) % 2 : 0
          return (
            <g key={place}>
              {here.map((s, n) => (
                <path
                  key={`${s.stationId} ${s.fromMs}`}
                  d={`M${x + 4 + n * gap} ${tall}v${-Math.max(3, (s.minutes / most) * (tall - 10))}`}
                  className={s.isSure ? 'stop-stroke' : 'stop-stroke is-unsure'}
                >
                  <title>{`${s.name}: ${minutes(s.minutes)}${s.cause ? `, ${s.cause}` : ''}`}</title>
                </path>
              ))}
              {isNamed ? (
                <text x={isLast ? width : x + 3} y={tall + 17 + row * 16} textAnchor={isLast ? 'end' : 'start'}>
                  {placeName(place)}
                </text>
              ) : null}
            </g>
          )
        })}
      </svg>
      <figcaption className="dim">
        A stroke is a stop, its height the minutes; thin where nobody is sure of the cause.
        {unplaced > 0 ? ` ${capital(countWord(unplaced))} stand nowhere: nobody said where.` : ''}
      </figcaption>
    </figure>
  )
}

/** Where the knowledge is poor: what was seen, how often the first fix was it, what was looked at for nothing. */
function Searches({ now }: { now: DownNowAnswer }) {
  if (now.searches.length === 0) return null
  return (
    <section aria-label="How searches went" className="down-searches">
      <h2>Was the first fix it?</h2>
      <ul className="walk-list plain">
        {now.searches.map((s) => (
          <li key={s.key}>
            <strong>
              {s.firstRight} of {s.n}
            </strong>{' '}
            <span>
              {capital(s.says)}. <span className="dim">{inVainWords(s.inVain)}</span>
            </span>
          </li>
        ))}
      </ul>
      <p className="dim">
        What finds nothing again and again may stand too high for this shop:{' '}
        <Link to="/shop?part=why">why a gun stops</Link> is yours to change.
      </p>
    </section>
  )
}
function Causes({ now }: { now: DownNowAnswer }) {
  if (now.causes.length === 0) return null
  return (
    <section aria-label="What it was">
      <ol className="walk-list">
        {now.causes.slice(0, 6).map((c) => (
          <li key={c.key}>
            <strong>{c.n} ×</strong> <span>{capital(c.says)}</span> <span className="dim">{minutes(c.minutes)}</span>
          </li>
        ))}
      </ol>
    </section>
  )
}
