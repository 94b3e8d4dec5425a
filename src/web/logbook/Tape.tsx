import { Bare } from '@web/kit/Keys.tsx'
import { Link } from 'react-router'
import { type LogLine } from '@contract/logbook.ts'
import { type Units } from '@web/format/numbers.ts'
import { clockTime, when } from '@web/format/times.ts'
import { lineSentence } from './lines.ts'

const ABOUT: Record<LogLine['precision'], string> = {
  exact: '',
  shift: 'that shift',
  day: 'that day',
  week: 'that week',
}

/** Acts as spoken sentences, newest first. */
export function Tape(props: {
  lines: readonly LogLine[]
  nowMs: number
  zone: string
  units: Units
  isOneGun?: boolean
  onOpen?: (line: LogLine) => void
}) {
  if (props.lines.length === 0) return props.isOneGun ? <p className="small-print">Nothing logged here yet.</p> : null
  return (
    <ol className="tape" aria-label="What was done">
      {props.lines.map((line) => (
        <li key={line.eventId} className={line.standing === 'withdrawn' ? 'is-withdrawn' : ''}>
          <time dateTime={new Date(line.happenedMs).toISOString()}>
            {props.isOneGun ? when(line.happenedMs, props.nowMs, props.zone) : clockTime(line.happenedMs, props.zone)}
          </time>
          {props.isOneGun ? null : line.stationId ? (
            <Link to={`/gun/${line.stationId}`}>{line.stationName}</Link>
          ) : (
            <span className="tape-shop dim">shop</span>
          )}
          <span className="tape-said">
            {lineSentence(line, props.units)}{' '}
            <span className="dim">
              {[
                ABOUT[line.precision],
                line.standing === 'changed' ? 'corrected' : line.standing === 'withdrawn' ? 'taken back' : '',
                line.note ?? '',
                line.who ?? '',
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
          </span>
          {props.onOpen && line.canCorrect ? <Bare onClick={() => props.onOpen?.(line)}>correct</Bare> : null}
        </li>
      ))}
    </ol>
  )
}
