import { useSearchParams } from 'react-router'
import { COLUMNS } from '@core/path/columns.ts'
import { type PaybackAnswer } from '@contract/payback.ts'
import { shortDate } from '@web/format/times.ts'
import { PickOne } from '@web/shell/Field.tsx'
import { Trouble } from '@web/shell/Trouble.tsx'
import { changeWords, helpDetail, helpSentence, placeOf } from './paybackwords.ts'
import { useHelped } from './queries.ts'

/** Did it help? One change, where it was made, and which stops it was to spare. */
export function Helped({ at, areaId }: { at: PaybackAnswer; areaId: string }) {
  const [params, setParams] = useSearchParams()
  const put = (name: string, value: string) => {
    const next = new URLSearchParams(params)
    if (value) next.set(name, value)
    else next.delete(name)
    setParams(next, { replace: true })
  }
  const change = at.changes.find((c) => c.eventId === params.get('change'))
  const column = params.get('began') ?? ''
  const asked = change
    ? { atMs: change.happenedMs, areaId: change.stationId ? '' : areaId, stationId: change.stationId ?? '', column }
    : null
  const helped = useHelped(asked)
  return (
    <section aria-label="Did it help?" className="payback-help">
      <h2>Did it help?</h2>
      <div className="walk-which">
        <PickOne
          id="help-change"
          label="What was changed"
          value={change?.eventId ?? ''}
          none={at.changes.length === 0 ? 'nothing lately' : 'pick one'}
          options={at.changes.map((c) => [c.eventId, `${shortDate(c.happenedMs, at.zone)} ${changeWords(c)}`] as const)}
          onPick={(c) => put('change', c)}
        />
        <PickOne
          id="help-began"
          label="Stops that began"
          value={column}
          none="anywhere"
          options={[...COLUMNS, 'off'].map((c) => [c, placeOf(c)] as const)}
          onPick={(c) => put('began', c)}
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
