import { DAY_MS } from '@core/units/time.ts'
import { PATH_PLACES } from '@core/path/columns.ts'
import { type PaybackAnswer } from '@contract/payback.ts'
import { type Units } from '@web/format/numbers.ts'
import { dayKey, shortDate } from '@web/format/times.ts'
import { DayField } from '@web/kit/DayField.tsx'
import { PickOne } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { changeWords, helpDetail, helpSentence, placeOf } from './paybackwords.ts'
import { useHelped, type HelpAsked } from './queries.ts'

const OTHER = 'day'
/** Did it help? One change, where it was made, and which stops it was to spare. */
export function Helped({ at, areaId, units }: { at: PaybackAnswer; areaId: string; units: Units }) {
  const { get, put } = useAddress()
  const picked = get('change')
  const [column, day] = [get('began'), get('day')]
  const asked = askedOf({ at, picked, day, areaId, column })
  const helped = useHelped(asked)
  return (
    <section aria-label="Did it help?" className="payback-help">
      <h2>Did it help?</h2>
      <div className="walk-which">
        <PickOne
          id="help-change"
          label="What was changed"
          value={picked}
          none="pick one"
          options={[
            [OTHER, 'something else, on a day'],
            ...at.changes.map(
              (c) => [c.eventId, `${shortDate(c.happenedMs, at.zone)} ${changeWords(c, units)}`] as const,
            ),
          ]}
          onPick={(c) => put({ change: c })}
        />
        {picked === OTHER ? (
          <DayField
            id="help-day"
            label="The day"
            isShown
            day={day}
            units={units}
            today={dayKey(at.nowMs - DAY_MS, at.zone)}
            onPick={(d) => put({ day: d })}
          />
        ) : null}
        <PickOne
          id="help-began"
          label="Stops that began"
          value={column}
          none="anywhere"
          options={PATH_PLACES.map((c) => [c, placeOf(c)] as const)}
          onPick={(c) => put({ began: c })}
        />
      </div>
      <Trouble problem={helped.error} />
      {asked && helped.data ? (
        <div aria-live="polite">
          <p className="step-do">{helpSentence(helped.data)}</p>
          {helpDetail(helped.data).map((line) => (
            <p key={line} className="dim">
              {line}
            </p>
          ))}
        </div>
      ) : null}
    </section>
  )
}

/** A change of the log, with the places it holds for; or a day, in the area that is shown. */
function askedOf(of: {
  at: PaybackAnswer
  picked: string
  day: string
  areaId: string
  column: string
}): HelpAsked | null {
  const { column, areaId } = of
  if (of.picked === OTHER) {
    const atMs = Date.parse(`${of.day}T00:00`)
    return Number.isNaN(atMs) ? null : { atMs, areaId, stationId: '', classKey: '', column }
  }
  const change = of.at.changes.find((c) => c.eventId === of.picked)
  if (!change) return null
  const { happenedMs, stationId, classKey } = change
  return {
    ...{ atMs: happenedMs, column, stationId: stationId ?? '', classKey: classKey ?? '' },
    areaId: stationId || classKey ? '' : areaId,
  }
}
