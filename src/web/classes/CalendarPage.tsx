import { Link } from 'react-router'
import { type CalendarAnswer } from '@contract/classes.ts'
import { type Units } from '@web/format/numbers.ts'
import { clockTime, longDay } from '@web/format/times.ts'
import { Bare, Key, Plain } from '@web/kit/Keys.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useMe } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { entryWords, lanesOf, weekSentence } from './calendarwords.ts'
import { EntryForm } from './EntryForm.tsx'
import { MoveForm } from './MoveForm.tsx'
import { TakeIcs } from './TakeIcs.tsx'
import { useCalendar } from './queries.ts'

type Occurrence = CalendarAnswer['occurrences'][number]
const WEEK_DAYS = 7
const shifted = (day: string, days: number) =>
  new Date(Date.parse(`${day}T12:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)

/** The one calendar: what is worked is the ground, classes and planned stops stand in it, what falls on what is said first. */
export function CalendarPage() {
  const { get, put } = useAddress()
  const calendar = useCalendar(get('from'))
  const me = useMe().data
  const isLead = me?.person?.role === 'lead' || me?.person?.role === 'instructor'
  const units = me?.units ?? 'metric'
  const isPhone = useIsPhone()
  const at = calendar.data
  if (!at)
    return (
      <main className="calendar">
        <Waiting says="Reading the calendar" problem={calendar.error} />
      </main>
    )
  const open = at.occurrences.find((o) => o.entryId === get('entry') && o.day === get('day'))
  const entry = at.entries.find((e) => e.id === get('entry'))
  const close = () => put({ entry: null, day: null, new: null, file: null })
  return (
    <main className="calendar">
      <h1 className="sentence">{weekSentence(at, units)}</h1>
      <p className="calendar-weeks">
        <Bare onClick={() => put({ from: shifted(at.from, -WEEK_DAYS) })}>the week before</Bare>
        <Bare onClick={() => put({ from: null })}>this week</Bare>
        <Bare onClick={() => put({ from: shifted(at.from, WEEK_DAYS) })}>the week after</Bare>
      </p>
      <Week
        at={at}
        openKey={open ? keyOf(open) : ''}
        onOpen={(o) => put({ entry: o.entryId, day: o.day, new: null, file: null })}
      />
      {open ? <MoveForm key={keyOf(open)} at={at} of={open} units={units} isLead={isLead} onDone={close} /> : null}
      {isLead && entry ? <EntryForm key={entry.id} at={at} units={units} entry={entry} onDone={close} /> : null}
      {isLead && get('new') ? <EntryForm at={at} units={units} entry={null} onDone={close} /> : null}
      {isLead && get('file') ? <TakeIcs at={at} units={units} onDone={close} /> : null}
      {isLead && !entry && !get('new') && !get('file') ? (
        <p className="calendar-keys">
          <Key
            size="low"
            {...(at.entries.length === 0 ? { tone: 'chalk' as const } : {})}
            onClick={() => put({ new: '1' })}
          >
            A class, or a planned stop
          </Key>
          <Key size="low" onClick={() => put({ file: '1' })}>
            From a calendar file
          </Key>
        </p>
      ) : null}
      <Entries
        at={at}
        units={units}
        onOpen={(id) => put({ entry: id, day: null, new: null, file: null })}
        isLead={isLead}
      />
      <p className="class-ways">
        <a href="/api/calendar.ics">All of it as a calendar file</a>
        <Link to="/shop?part=shifts">Shifts and holidays: Our shop</Link>
        <Link to="/classes">Classes</Link>
      </p>
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}
const keyOf = (o: Occurrence) => `${o.entryId} ${o.day}`

/** A day a row: hours across, what is worked as a faint ground, each class or stop a bar. */
function Week({ at, openKey, onOpen }: { at: CalendarAnswer; openKey: string; onOpen: (o: Occurrence) => void }) {
  const hours = hoursOf(at)
  const across = (ms: number, day: CalendarAnswer['days'][number]) =>
    100 * Math.min(1, Math.max(0, (ms - day.fromMs) / 3_600_000 - hours.from) / (hours.to - hours.from))
  return (
    <div className="week">
      <div className="week-hours" aria-hidden="true">
        {Array.from({ length: hours.to - hours.from + 1 }, (_, i) => hours.from + i)
          .filter((h) => h % 2 === 0)
          .map((h) => (
            <span key={h} style={{ left: `${(100 * (h - hours.from)) / (hours.to - hours.from)}%` }}>
              {h}
            </span>
          ))}
      </div>
      {at.days.map((day) => {
        const own = at.occurrences.filter((o) => o.fromMs >= day.fromMs && o.fromMs < day.toMs)
        const bars = lanesOf(own)
        const lanes = Math.max(1, ...bars.map((b) => b.lane + 1))
        return (
          <div key={day.day} className={day.holiday ? 'week-day is-off' : 'week-day'}>
            <h2>
              {longDay(day.day).split(' ').slice(0, 3).join(' ').replace(',', '')}
              {day.holiday ? <small> {day.holiday}</small> : null}
            </h2>
            <div className="week-strip" style={{ height: `${lanes * 48}px` }}>
              {at.shifts
                .filter((s) => s.toMs > day.fromMs && s.fromMs < day.toMs)
                .map((s) => (
                  <span
                    key={`${s.areaId} ${s.fromMs}`}
                    className="week-worked"
                    style={{ left: `${across(s.fromMs, day)}%`, right: `${100 - across(s.toMs, day)}%` }}
                  />
                ))}
              {bars.map(({ o, lane }) => (
                <Plain
                  key={keyOf(o)}
                  className={`week-bar is-${o.kind}`}
                  aria-expanded={keyOf(o) === openKey}
                  style={{
                    left: `${across(o.fromMs, day)}%`,
                    right: `${100 - across(o.toMs, day)}%`,
                    top: `${lane * 48}px`,
                  }}
                  onClick={() => onOpen(o)}
                >
                  {o.name}{' '}
                  <small>
                    {clockTime(o.fromMs, at.zone)}
                    {o.movedTo ? ' moved' : ''}
                  </small>
                </Plain>
              ))}
            </div>
          </div>
        )
      })}
    </div>
  )
}
/** From two hours before the first of them to an hour after the last, whole hours. */
function hoursOf(at: CalendarAnswer): { from: number; to: number } {
  const ends = at.days.flatMap((d) =>
    at.occurrences
      .filter((o) => o.fromMs >= d.fromMs && o.fromMs < d.toMs)
      .flatMap((o) => [(o.fromMs - d.fromMs) / 3_600_000, (o.toMs - d.fromMs) / 3_600_000]),
  )
  const [from, to] = [Math.min(7, ...ends), Math.max(17, ...ends)]
  return { from: Math.max(0, Math.floor(from)), to: Math.min(24, Math.ceil(to)) }
}

function Entries(props: { at: CalendarAnswer; units: Units; onOpen: (id: string) => void; isLead: boolean }) {
  const { at, units, onOpen, isLead } = props
  if (at.entries.length === 0) return null
  return (
    <section aria-label="What comes again">
      <h2>What comes again, and when</h2>
      <ul className="calendar-entries">
        {at.entries.map((e) => (
          <li key={e.id}>
            {isLead ? <Bare onClick={() => onOpen(e.id)}>{e.name}</Bare> : <strong>{e.name}</strong>}{' '}
            <span className="dim">{entryWords(e, units)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}
