import { Bare, Plain } from '@web/kit/Keys.tsx'
import { Link } from 'react-router'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { type FloorAnswer, type FloorGun } from '@contract/floor.ts'
import { type Units } from '@web/format/numbers.ts'
import { PHONE_SIZE, ROW_SIZE } from '@web/path/WirePath.tsx'
import { boughtSentence } from '@web/parts/supplywords.ts'
import { Helps } from '@web/firsthour/Helps.tsx'
import { FirstPlaces } from '@web/shop/FirstPlaces.tsx'
import { ColumnView } from './ColumnView.tsx'
import { ManyBar } from './ManyBar.tsx'
import { OpenedRow } from './OpenedRow.tsx'
import { floorSentence, honesty, nextOf } from './sentence.ts'
import { pitchFor, Strands, type Draw } from './Strands.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { useIsPhone } from '@web/kit/useIsPhone.ts'

export interface FloorViewProps {
  floor: FloorAnswer
  units: Units
  areaId: string | null
  column: Column | null
  draw: Draw | null
  isLead: boolean
  onArea: (areaId: string | null) => void
  onColumn: (column: Column | null) => void
  onDraw: (draw: Draw | null) => void
}
const MOST_ROWS = 8

export function FloorView(props: FloorViewProps) {
  const { floor, draw } = props
  const isPhone = useIsPhone()
  if (floor.guns.length === 0 && !props.areaId) return <EmptyFloor isLead={props.isLead} />
  const names = draw ? draw.stationIds.map((id) => floor.guns.find((g) => g.stationId === id)?.name ?? '') : []
  return (
    <main className="floor">
      <h1 className="sentence">{floorSentence(floor)}</h1>
      <p className="honesty dim">
        {honesty(floor)} <LookLink floor={floor} areaId={props.areaId} />
      </p>
      {props.column || props.areaId || draw ? null : <Helps isLead={props.isLead} />}
      {floor.bought.map((line) => (
        <p className="bought" key={line.kindKey}>
          {boughtSentence(line, props.units)}
        </p>
      ))}
      {props.areaId ? <Bare onClick={() => props.onArea(null)}>the whole floor</Bare> : null}
      {props.column ? (
        <ByColumn {...props} column={props.column} />
      ) : (
        <>
          {isPhone ? null : <Heads onColumn={props.onColumn} />}
          <Rows {...props} isPhone={isPhone} />
          <Areas {...props} isPhone={isPhone} />
        </>
      )}
      {draw && draw.stationIds.length > 0 ? (
        <ManyBar column={draw.column} stationIds={draw.stationIds} names={names} onDone={() => props.onDraw(null)} />
      ) : null}
      {isPhone ? <PhoneMore /> : null}
      {isPhone || props.column ? null : (
        <p className="hint small-print">
          A line or its name opens the gun · a break logs · a column’s name shows that part over the floor · draw down a
          column to log one act on many
        </p>
      )}
    </main>
  )
}

/** To the walk that asks what is on each gun, or to its list. */
function LookLink({ floor, areaId }: { floor: FloorAnswer; areaId: string | null }) {
  const isUnseen = floor.checkedGuns < floor.guns.length
  if (!isUnseen && floor.wrongGuns === 0) return null
  return (
    <Link to={areaId ? `/look?area=${areaId}` : '/look'}>
      {isUnseen ? 'look at how they are built' : 'which are built wrong'}
    </Link>
  )
}

function Heads({ onColumn }: { onColumn: (column: Column) => void }) {
  return (
    <div className="heads" role="group" aria-label="Columns">
      {COLUMNS.map((c) => (
        <Plain key={c} onClick={() => onColumn(c)}>
          {c}
        </Plain>
      ))}
    </div>
  )
}

function Rows({ floor, units, isPhone }: FloorViewProps & { isPhone: boolean }) {
  const opened = floor.guns
    .filter((g): g is FloorGun & { rank: number } => g.rank !== null)
    .sort((a, b) => a.rank - b.rank)
  const shown = opened.slice(0, isPhone ? 3 : MOST_ROWS)
  const left = opened.slice(shown.length)
  return (
    <section className="rows" aria-label="Guns that want hands">
      {shown.map((gun) => (
        <OpenedRow
          key={gun.stationId}
          gun={gun}
          floor={floor}
          units={units}
          size={isPhone ? PHONE_SIZE : ROW_SIZE}
          isPhone={isPhone}
        />
      ))}
      {left.length > 0 ? (
        <p className="rows-rest dim">
          then{' '}
          {left.map((g, i) => (
            <span key={g.stationId}>
              {i > 0 ? ', ' : ''}
              <Link to={`/gun/${g.stationId}`}>{g.name}</Link>
            </span>
          ))}
        </p>
      ) : null}
    </section>
  )
}

function Areas({ floor, areaId, onArea, onDraw, isPhone }: FloorViewProps & { isPhone: boolean }) {
  const pitch = pitchFor(floor.guns.length, !isPhone)
  const columnWidth = isPhone ? PHONE_SIZE.columnWidth : ROW_SIZE.columnWidth
  return (
    <section className="areas" aria-label="Quiet guns">
      {floor.areas
        .filter((a) => !areaId || a.id === areaId)
        .map((area) => {
          const guns = floor.guns.filter((g) => g.areaId === area.id)
          if (guns.length === 0) return null
          const quiet = guns.filter((g) => g.rank === null && !g.isParked).length
          return (
            <div className="area" key={area.id}>
              <Plain className="area-name" onClick={() => onArea(areaId ? null : area.id)}>
                <strong>{area.name}</strong>
                <span className="dim">
                  {quiet} quiet
                  {guns.some((g) => g.isArcOn !== null) ? `, ${guns.filter((g) => g.isArcOn).length} welding` : ''}
                </span>
              </Plain>
              <Strands guns={guns} pitch={pitch} columnWidth={columnWidth} isNamed={!isPhone} onDraw={onDraw} />
              <p className="area-next dim">{nextOf(guns, floor.nowMs, floor.zone)}</p>
            </div>
          )
        })}
    </section>
  )
}

function ByColumn(props: FloorViewProps & { column: Column }) {
  const { column, draw, floor } = props
  return (
    <>
      <div className="column-head">
        <h2>{column}, by life left</h2>
        <Bare onClick={() => props.onColumn(null)}>all columns</Bare>
        {column === 'spool' ? (
          <Link className="bare" to="/day">
            group a day’s wires
          </Link>
        ) : null}
      </div>
      <ColumnView
        floor={floor}
        units={props.units}
        column={column}
        ticked={draw?.stationIds ?? []}
        onTick={(ids) => props.onDraw({ column, stationIds: ids })}
      />
    </>
  )
}

function EmptyFloor({ isLead }: { isLead: boolean }) {
  return (
    <main className="floor">
      <div className="heads" aria-hidden="true">
        {COLUMNS.map((c) => (
          <span key={c}>{c}</span>
        ))}
      </div>
      <svg className="wire empty-wire" height="10" width={ROW_SIZE.columnWidth * COLUMNS.length} aria-hidden="true">
        <path
          d={`M4 5H${ROW_SIZE.columnWidth * COLUMNS.length}`}
          className="wire-stroke"
          strokeWidth="2.6"
          strokeDasharray="0 7.2"
          strokeLinecap="round"
        />
      </svg>
      <h1 className="sentence">No guns yet. Say how many there are.</h1>
      {isLead ? (
        <>
          <FirstPlaces />
          <p className="said">
            Or bring the sheet you have, however it lies: <Link to="/shop?part=bring">bring in a sheet</Link>.
          </p>
        </>
      ) : (
        <p className="said dim">The lead sets them up in Our shop.</p>
      )}
    </main>
  )
}
