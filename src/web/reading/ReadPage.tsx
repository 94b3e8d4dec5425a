import { Key, Plain } from '@web/kit/Keys.tsx'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { READINGS, type ReadingKey } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { type ReadingAnswer, type ReadingLine } from '@contract/reading.ts'
import { ago } from '@web/format/times.ts'
import { capital, countWord } from '@web/format/words.ts'
import { useMe } from '@web/people/queries.ts'
import { AtCell } from '@web/kit/atcell.ts'
import { Waiting } from '@web/kit/Waiting.tsx'
import { WhichGun } from '@web/places/WhichGun.tsx'
import { useReadings } from './queries.ts'
import { ReadForm } from './ReadForm.tsx'
import { TrendChart } from './TrendChart.tsx'
import {
  againstSentence,
  antiSpatterSentence,
  alarmSentence,
  changedSentence,
  cleaningSentence,
  flowSentence,
  gasLeftSentence,
  HOW_WORD,
  keptWords,
  raisedSentence,
  targetWords,
  trendSentence,
  VERDICT_WORD,
  type Told,
} from './readingwords.ts'

const isReading = (text: string | null): text is ReadingKey => READINGS.some((r) => r === text)

/** What is read on one gun: the list in path order, or one reading being taken. */
export function ReadPage() {
  const [params, setParams] = useSearchParams()
  const go = useNavigate()
  const stationId = params.get('gun') ?? ''
  const what = params.get('what')
  const readings = useReadings(stationId)
  const me = useMe()
  const units = me.data?.units ?? 'metric'
  if (stationId === '') return <WhichGun />
  if (!readings.data)
    return (
      <main className="reading" aria-busy={readings.isPending}>
        <Waiting says="Reading what was read" problem={readings.error} />
      </main>
    )
  const at: Told = { nowMs: readings.data.nowMs, zone: readings.data.zone, units }
  const line = readings.data.readings.find((r) => r.what === what)
  if (isReading(what) && line)
    return (
      <AtCell value={readings.data.isCell}>
        <ReadForm
          key={what}
          line={line}
          stationId={stationId}
          name={readings.data.name}
          at={at}
          schools={readings.data.schools}
          onDone={() =>
            params.get('back') === 'cells' ? void go(`/cells?cell=${stationId}`) : setParams({ gun: stationId })
          }
        />
      </AtCell>
    )
  return <ReadingList readings={readings.data} at={at} onRead={(w) => setParams({ gun: stationId, what: w })} />
}

export function ReadingList(props: { readings: ReadingAnswer; at: Told; onRead: (what: ReadingKey) => void }) {
  const { readings, at, onRead } = props
  return (
    <main className="reading">
      <h1 className="sentence">{listSentence(readings)}</h1>
      <p className="honesty dim">
        {readings.wireName ? `${readings.wireName}. ` : ''}
        {readings.cleaning ? `${cleaningSentence(readings.cleaning)} ` : ''}
        {readings.flow ? `${flowSentence(readings.flow, at.units)} ` : ''}
        {readings.gasLeft ? `${gasLeftSentence(readings.gasLeft, at.units)} ` : ''}
        {readings.antiSpatter ? antiSpatterSentence(readings.antiSpatter, at.zone) : ''}
      </p>
      {readings.raised ? <p className="reading-raised">{raisedSentence(readings.raised, at)}</p> : null}
      {readings.alarms.map((a) => (
        <p key={`${a.what} ${a.is}`} className="reading-alarm">
          {alarmSentence(a)}
        </p>
      ))}
      <ul className="reading-list">
        {readings.readings
          .filter((line) => line.last !== null)
          .map((line) => (
            <Row key={line.what} line={line} at={at} onRead={() => onRead(line.what)} />
          ))}
      </ul>
      <h2>Not read yet</h2>
      <div className="reading-unread">
        {readings.readings
          .filter((line) => line.last === null)
          .map((line) => (
            <Key key={line.what} size="low" onClick={() => onRead(line.what)}>
              {READING[line.what].name}
            </Key>
          ))}
      </div>
      <p>
        <Link className="btn" to={`/gun/${readings.stationId}`}>
          {readings.name}
        </Link>{' '}
        <Link className="btn" to={`/drag?gun=${readings.stationId}`}>
          its drag
        </Link>
      </p>
    </main>
  )
}

function listSentence({ name, readings, alarms }: ReadingAnswer): string {
  const read = readings.filter((r) => r.last !== null)
  if (read.length === 0) return `Nothing is read on ${name} yet.`
  const asking = new Set(alarms.map((a) => a.what))
  const off = read.filter((r) => asking.has(r.what) || (r.last && r.last.is !== 'good')).length
  return off === 0
    ? `What is read on ${name} is as it should be.`
    : `${countWord(off)} ${off === 1 ? 'reading' : 'readings'} on ${name} ${off === 1 ? 'asks' : 'ask'} for something.`
}

function Row({ line, at, onRead }: { line: ReadingLine; at: Told; onRead: () => void }) {
  const { last, trend } = line
  const spec = READING[line.what]
  const said = [
    trend ? trendSentence(line.what, trend, at) : null,
    changedSentence(line, at),
    againstSentence(line, at),
  ].filter((s): s is string => s !== null)
  return (
    <li className={last && last.is !== 'good' ? 'is-off' : ''}>
      <Plain className="reading-row" onClick={onRead}>
        <strong>{capital(spec.name)}</strong>
        <span>
          {last ? keptWords(line.what, last, at.units) : null}
          {last ? (
            <span className="dim">
              {' '}
              {HOW_WORD[last.how]} {ago(last.atMs, at.nowMs)} ago{last.who ? `, ${last.who}` : ''}
            </span>
          ) : null}
        </span>
        <span className="reading-verdict">{last && last.is !== 'good' ? VERDICT_WORD[last.is] : ''}</span>
        <span className="dim reading-target">{targetWords(line, at.units)}</span>
      </Plain>
      {said.map((s) => (
        <p key={s} className="reading-said">
          {s}
        </p>
      ))}
      {trend && trend.points.length >= 3 ? <TrendChart what={line.what} trend={trend} at={at} /> : null}
    </li>
  )
}
