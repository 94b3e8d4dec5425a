import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { type StopsAnswer } from '@contract/payback.ts'
import { LongTable, type Column } from '@web/kit/LongTable.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { aboutMoney, minutes } from '@web/format/numbers.ts'
import { dayKey, shortDate } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { placeOf } from './paybackwords.ts'
import { useStops } from './queries.ts'

type Stop = StopsAnswer['stops'][number]

/** Each stop behind the heaps, sorted and searched; asked for when it is opened. */
export function EachStop({ days, areaId, n }: { days: number; areaId: string; n: number }) {
  const [isOpen, setOpen] = useState(false)
  const stops = useStops({ days, areaId }, isOpen)
  if (n === 0) return null
  return (
    <details className="life-each" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>Each stop ({n})</summary>
      {stops.data ? (
        <Stops at={stops.data} />
      ) : isOpen ? (
        <Waiting says="Fetching the stops" problem={stops.error} />
      ) : null}
    </details>
  )
}

export function Stops({ at }: { at: StopsAnswer }) {
  const columns = useMemo(() => columnsOf(at), [at])
  return (
    <>
      <LongTable
        id="stops"
        rows={at.stops}
        columns={columns}
        keyOf={(s) => s.eventId}
        wordsOf={(s) => `${s.name} ${placeOf(s.column)} ${s.cause ?? ''} ${shortDate(s.fromMs, at.zone)}`}
        findLabel="find a gun, a place on the path, a cause"
        none="None in these days."
      />
      {at.of > at.stops.length ? (
        <p className="dim">
          The newest {at.stops.length} of {at.of}. The others stand in the Logbook.
        </p>
      ) : null}
    </>
  )
}

const columnsOf = (at: StopsAnswer): Column<Stop>[] => [
  {
    key: 'when',
    head: 'when',
    by: (s) => s.fromMs,
    cell: (s) => (
      <Link to={`/logbook?day=${dayKey(s.fromMs, at.zone)}&stationId=${s.stationId}`}>
        {shortDate(s.fromMs, at.zone)}
      </Link>
    ),
  },
  { key: 'gun', head: 'gun', by: (s) => s.name, cell: (s) => <Link to={`/gun/${s.stationId}`}>{s.name}</Link> },
  {
    key: 'time',
    head: 'time',
    isNumber: true,
    by: (s) => s.minutes,
    cell: (s) => `${minutes(s.minutes)}${s.toMs === null ? ', still' : ''}`,
  },
  { key: 'at', head: 'where it began', by: (s) => placeOf(s.column), cell: (s) => capital(placeOf(s.column)) },
  {
    key: 'was',
    head: 'what it was',
    by: (s) => s.cause,
    cell: (s) => s.cause ?? <span className="dim">nobody said</span>,
  },
  { key: 'parts', head: 'parts', isNumber: true, by: (s) => s.parts, cell: (s) => (s.parts > 0 ? s.parts : '') },
  ...(at.isMoney
    ? [
        {
          key: 'money',
          head: 'money',
          isNumber: true,
          by: (s: Stop) => s.minor,
          cell: (s: Stop) => (s.minor ? aboutMoney(s.minor, at.currency) : ''),
        },
      ]
    : []),
]
