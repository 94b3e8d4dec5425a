import { Bare } from '@web/kit/Keys.tsx'
import { Link } from 'react-router'
import { type Column } from '@core/path/columns.ts'
import { LogKeys } from '@web/log/LogKeys.tsx'
import { type Choice } from '@web/log/logkeys.ts'
import { useLogKeys } from '@web/log/useLogKeys.ts'
import { guns, placeName } from '@web/format/words.ts'
import { SHORT_REASONS } from './OpenedRow.tsx'

/** Acts that make sense for a column, by the parts that sit there. */
export const COLUMN_CHOICES: Record<Column, readonly Choice[]> = {
  spool: [
    { act: 'newSpool', position: null },
    { act: 'seen', position: 'hub' },
  ],
  inlet: [
    { act: 'changed', position: 'inlet' },
    { act: 'cleaned', position: 'inlet' },
    { act: 'seen', position: 'inlet' },
  ],
  rolls: [
    { act: 'changed', position: 'rolls' },
    { act: 'cleaned', position: 'rolls' },
    { act: 'seen', position: 'rolls' },
  ],
  outlet: [
    { act: 'changed', position: 'outlet' },
    { act: 'cleaned', position: 'outlet' },
    { act: 'seen', position: 'outlet' },
  ],
  pin: [
    { act: 'changed', position: 'orings' },
    { act: 'seen', position: 'orings' },
  ],
  liner: [
    { act: 'changed', position: 'liner' },
    { act: 'seen', position: 'liner' },
  ],
  neck: [
    { act: 'changed', position: 'neck' },
    { act: 'seen', position: 'neck' },
  ],
  diffuser: [
    { act: 'changed', position: 'diffuser' },
    { act: 'cleaned', position: 'diffuser' },
    { act: 'seen', position: 'diffuser' },
  ],
  tip: [
    { act: 'changed', position: 'tip' },
    { act: 'cleaned', position: 'tip' },
    { act: 'seen', position: 'tip' },
  ],
  nozzle: [
    { act: 'cleaned', position: 'nozzle' },
    { act: 'changed', position: 'nozzle' },
    { act: 'changed', position: 'insulator' },
    { act: 'seen', position: 'nozzle' },
  ],
  gas: [
    { act: 'seen', position: 'gas' },
    { act: 'changed', position: 'gas' },
  ],
}

/** One act on many guns: what was drawn down a column. */
export function ManyBar(props: {
  column: Column
  stationIds: readonly string[]
  names: readonly string[]
  onDone: () => void
}) {
  const driver = useLogKeys(props.stationIds, props.onDone)
  const choices = COLUMN_CHOICES[props.column]
  const many = `${props.stationIds.length} ${guns(props.stationIds.length)}`
  return (
    <section className="many-bar" aria-label={`One act on ${many}`}>
      <div className="many-head">
        <h2>
          {many}, {placeName(props.column)}
        </h2>
        <span className="dim">{props.names.join(', ')}</span>
        <Bare onClick={props.onDone}>leave it</Bare>
      </div>
      {props.column === 'spool' ? (
        <Link className="key key-low" to={`/change?guns=${props.stationIds.join(',')}`}>
          Change wire on {props.stationIds.length}
        </Link>
      ) : null}
      <LogKeys driver={driver} choices={choices} reasonsOf={() => SHORT_REASONS} />
    </section>
  )
}
