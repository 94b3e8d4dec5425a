import { Button } from 'react-bootstrap'
import { type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { TAG_TEXT } from '@core/changeover/tags.ts'
import { handoverAnswer, type HandoverAnswer } from '@contract/handover.ts'
import { getJson, newKey } from '@web/api/client.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { minutes, type Units } from '@web/format/numbers.ts'
import { clockTime, shortDate, when } from '@web/format/times.ts'
import { capital, countWord, donePhrase, guns, partName } from '@web/format/words.ts'
import { lineSentence } from '@web/logbook/lines.ts'
import { useCorrect, useUndo } from '@web/log/queries.ts'
import { useMe } from '@web/people/queries.ts'
import { alarmSentence } from '@web/reading/readingwords.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'

const useHandover = (areaId: string) =>
  useQuery({
    queryKey: ['handover', areaId],
    queryFn: () => getJson(`/handover${areaId ? `?areaId=${areaId}` : ''}`, handoverAnswer),
  })

/** What one shift or class leaves to the next, in twenty seconds: nobody writes it. */
export function HandoverPage() {
  const [params, setParams] = useSearchParams()
  const areaId = params.get('area') ?? ''
  const handover = useHandover(areaId)
  const units = useMe().data?.units ?? 'metric'
  const isPhone = useIsPhone()
  if (!handover.data)
    return (
      <main className="walk" aria-busy={handover.isPending}>
        <Waiting says="Reading what the shift left" problem={handover.error} />
      </main>
    )
  return (
    <main className="walk handover">
      <h1 className="sentence">{handoverSentence(handover.data)}</h1>
      <p className="honesty dim">{spanWords(handover.data)}</p>
      <div className="walk-which">
        <PickOne
          id="handover-area"
          label="Where"
          value={areaId}
          none="everywhere"
          options={handover.data.areas.map((a) => [a.id, a.name] as const)}
          onPick={(area) => setParams(area ? { area } : {})}
        />
      </div>
      <Left left={handover.data} units={units} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

/** "One gun down, two settings stand." Where nothing does, that is said. */
export function handoverSentence({ down, standing, parked }: HandoverAnswer): string {
  const said = [
    down.length > 0 ? `${countWord(down.length)} ${guns(down.length)} down` : '',
    standing.length > 0
      ? `${countWord(standing.length)} ${standing.length === 1 ? 'setting stands' : 'settings stand'}`
      : '',
    parked.length > 0 ? `${countWord(parked.length)} parked` : '',
  ].filter(Boolean)
  if (said.length === 0) return 'Nothing is down and nothing is left standing.'
  return `${capital(said.join(', ').toLowerCase())}.`
}

/** What was worked, and what was done in it. */
export function spanWords({ fromMs, toMs, nowMs, zone, done, guns: n }: HandoverAnswer): string {
  const span = `${n} guns, ${when(fromMs, nowMs, zone)} to ${clockTime(toMs, zone)}.`
  if (done.length === 0) return `${span} Nothing was logged as changed or cleaned.`
  const acts = done
    .slice(0, 5)
    .map((d) => `${donePhrase(d.act, d.position).toLowerCase()} ${d.times === 1 ? 'once' : `${d.times} times`}`)
  return `${span} ${capital(acts.join(', '))}${done.length > 5 ? ' and more' : ''}.`
}

function Left({ left, units }: { left: HandoverAnswer; units: Units }) {
  const { nowMs, zone } = left
  return (
    <div className="handover-left">
      <Doubles of={left} />
      <Part name="Down" list={left.down} row={(d) => <Down of={d} at={{ nowMs, zone, units }} />} />
      <Part
        name="Left standing"
        list={left.standing}
        row={(t) => (
          <>
            {capital(TAG_TEXT[t.tag].says)} <span className="dim">since {when(t.sinceMs, nowMs, zone)}</span>
            {t.untilMs === null ? null : (
              <span className="dim">
                , {t.untilMs < nowMs ? 'should have been back by' : 'till'} {shortDate(t.untilMs, zone)}
              </span>
            )}
          </>
        )}
      />
      <Part name="Asks for a look" list={left.asks} row={(a) => alarmSentence(a.alarm)} />
      <Guns name="Still to follow" groups={byTask(left.followUps)} />
      <Guns
        name="Built wrong"
        groups={left.builtWrong.length > 0 ? [['A part or setting does not fit.', left.builtWrong]] : []}
      />
      <Guns name="Parked" groups={left.parked.length > 0 ? [['', left.parked]] : []} />
    </div>
  )
}

/** Said by two devices within minutes: one act or two? Nothing is dropped before somebody says. */
function Doubles({ of: { doubles, nowMs, zone } }: { of: HandoverAnswer }) {
  const undo = useUndo()
  const correct = useCorrect()
  if (doubles.length === 0) return null
  const isPending = undo.isPending || correct.isPending
  return (
    <section aria-label="One or two?">
      <h2>One or two?</h2>
      {doubles.map((d) => (
        <p key={d.secondId}>
          <strong>{d.name}</strong>: {donePhrase(d.act, d.position).toLowerCase()} {when(d.firstMs, nowMs, zone)} and{' '}
          {when(d.secondMs, nowMs, zone)}, from two devices.{' '}
          <Button
            variant=""
            disabled={isPending}
            onClick={() => undo.mutate({ key: newKey(), eventIds: [d.secondId] })}
          >
            one
          </Button>{' '}
          <Button
            variant=""
            disabled={isPending}
            onClick={() => correct.mutate({ key: newKey(), eventId: d.secondId, note: 'two, not one' })}
          >
            two
          </Button>
        </p>
      ))}
      <Trouble problem={undo.error ?? correct.error} />
    </section>
  )
}

type Group = readonly [says: string, guns: readonly Named[]]
/** One line a task, with its guns behind it. */
function byTask(followUps: HandoverAnswer['followUps']): Group[] {
  const tasks = [...new Set(followUps.map((f) => f.task))]
  return tasks.map((task) => [`${FOLLOW_UP_TEXT[task].do}:`, followUps.filter((f) => f.task === task)])
}
function Guns({ name, groups }: { name: string; groups: readonly Group[] }) {
  if (groups.length === 0) return null
  return (
    <section aria-label={name}>
      <h2>{name}</h2>
      <ul className="walk-list is-plain">
        {groups.map(([says, of]) => (
          <li key={says}>
            <span>
              {says}{' '}
              {of.map((g, i) => (
                <span key={g.stationId}>
                  {i > 0 ? ', ' : ''}
                  <Link to={`/gun/${g.stationId}`}>
                    <strong>{g.name}</strong>
                  </Link>
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

interface Named {
  stationId: string
  name: string
}
/** One heap of it, by gun in the order of the walk; nothing where there is nothing. */
function Part<T extends Named>({ name, list, row }: { name: string; list: readonly T[]; row: (one: T) => ReactNode }) {
  if (list.length === 0) return null
  return (
    <section aria-label={name}>
      <h2>{name}</h2>
      <ul className="walk-list">
        {list.map((one, i) => (
          <li key={`${one.stationId} ${i}`}>
            <Link to={`/gun/${one.stationId}`}>
              <strong>{one.name}</strong>
            </Link>
            <span>{row(one)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

function Down({ of, at }: { of: HandoverAnswer['down'][number]; at: { nowMs: number; zone: string; units: Units } }) {
  return (
    <>
      Since {when(of.sinceMs, at.nowMs, at.zone)}
      {of.position ? `, at the ${partName(of.position)}` : ''}
      {of.minutes === null ? '' : ` (${minutes(of.minutes)} of work)`}.
      {of.tried.length > 0 ? (
        <span className="dim"> Tried, and still down: {of.tried.map((l) => lineSentence(l, at.units)).join(' ')}</span>
      ) : null}
    </>
  )
}
