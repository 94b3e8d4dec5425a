import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Bare } from '@web/kit/Keys.tsx'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { STATES } from '@core/floor/state.ts'
import { type FloorGun } from '@contract/floor.ts'
import { describePath, shownCells } from '@web/path/describe.ts'
import { Cell, type WireSize } from '@web/path/WirePath.tsx'

/** Pitch of the bare lines: roomy while the shop is small, never so tight that teeth touch; beside them names, where there is a desk's room for them. */
export const pitchFor = (guns: number, isNamed: boolean) =>
  isNamed ? (guns <= 16 ? 20 : guns <= MOST_NAMED ? 12 : 6) : guns <= 40 ? 10 : guns <= MOST_NAMED ? 8 : 6
const MOST_NAMED = 64
/** Under this a name can't be read beside its line. */
const NAMED_PITCH = 12
const strandSize = (pitch: number, columnWidth: number): WireSize => ({
  columnWidth,
  thickness: pitch > 7 ? 3 : 2,
  tall: Math.min(4.6, pitch / 2 - 0.4),
  height: pitch,
})

export interface Draw {
  column: Column
  stationIds: string[]
}

/**
 * Quiet guns as bare lines in walking order, never re-sorted; a gun that opened leaves a notch. Drawing down a column ticks
 * guns for one act on many; a tap opens the gun.
 */
export function Strands(props: {
  guns: readonly FloorGun[]
  pitch: number
  columnWidth: number
  /** Each line with its name beside it. */
  isNamed?: boolean
  onDraw?: (draw: Draw) => void
}) {
  const { guns, pitch, columnWidth } = props
  const size = strandSize(pitch, columnWidth)
  const width = columnWidth * COLUMNS.length
  const go = useNavigate()
  const open = (gun: FloorGun) => void go(`/gun/${gun.stationId}`)
  const { box, drawn, over, pointer } = useDraw(guns, { onDraw: props.onDraw, onTap: open })
  return (
    <div className="strands" style={{ width, height: guns.length * pitch }}>
      <svg
        ref={box}
        className="wire"
        viewBox={`0 0 ${width} ${guns.length * pitch}`}
        width={width}
        height={guns.length * pitch}
        aria-hidden="true"
        {...pointer}
      >
        {drawn && drawn.from !== drawn.to ? (
          <rect
            className="drawn"
            x={drawn.column * columnWidth}
            y={Math.min(drawn.from, drawn.to) * pitch}
            width={columnWidth}
            height={(Math.abs(drawn.to - drawn.from) + 1) * pitch}
          />
        ) : null}
        {guns.map((gun, i) => (
          <Strand key={gun.stationId} gun={gun} size={size} y={i * pitch} isOver={over === i} width={width} />
        ))}
      </svg>
      {over !== null && guns[over] ? (
        <span className="strand-name" style={{ top: over * pitch - 9 }}>
          {guns[over].name}
          {guns[over].isParked ? ' parked' : ''}
        </span>
      ) : null}
      {pitch >= NAMED_PITCH && props.isNamed ? (
        <div className="strand-labels" aria-hidden="true">
          {guns.map((gun, i) => (
            <Bare
              key={gun.stationId}
              tabIndex={-1}
              style={{ top: i * pitch, height: pitch, fontSize: Math.min(15, pitch - 0.5) }}
              onClick={() => open(gun)}
            >
              {gun.name}
            </Bare>
          ))}
        </div>
      ) : null}
      <ul className="strand-links">
        {guns.map((gun, i) => (
          <li key={gun.stationId} style={{ top: i * pitch, height: pitch }}>
            <Link to={`/gun/${gun.stationId}`} draggable={false}>
              {gun.name}: {gun.isParked ? 'parked' : describePath(gun.cells, gun.downPosition === null)}
              {gun.isArcOn ? ', arc on' : ''}
            </Link>
          </li>
        ))}
      </ul>
    </div>
  )
}

function Strand({
  gun,
  size,
  y,
  isOver,
  width,
}: {
  gun: FloorGun
  size: WireSize
  y: number
  isOver: boolean
  width: number
}) {
  return (
    <g transform={`translate(0 ${y + (size.thickness % 2) / 2})`}>
      {isOver ? <rect className="strand-over" width={width} height={size.height} /> : null}
      {gun.isParked ? null : gun.rank !== null ? (
        <path className="notch" d={`M0 ${size.height / 2}h9m${width - 18} 0h9`} />
      ) : (
        shownCells(gun.cells).map((cell, i) => (
          <Cell key={COLUMNS[i]} cell={thin(cell)} size={size} x={i * size.columnWidth} />
        ))
      )}
      {gun.isArcOn ? (
        <circle className="arc" cx={width - 3} cy={size.height / 2} r={Math.min(2.4, size.height / 3)} />
      ) : null}
    </g>
  )
}

/** Below five pixels a waist can't be seen: a part-worn cell is then simply good, or hollow; the eye reads bands of colour. */
const thin = (cell: FloorGun['cells'][number]): FloorGun['cells'][number] =>
  STATES[cell[0]] === 'partWorn' ? [cell[0], Math.min(cell[1], 0.75), 0, cell[3]] : [cell[0], cell[1], 0, cell[3]]

/** The pointer over the strands: which gun it is on, and which stretch of a column it draws. */
function useDraw(
  guns: readonly FloorGun[],
  { onDraw, onTap }: { onDraw: ((draw: Draw) => void) | undefined; onTap: (gun: FloorGun) => void },
) {
  const [drawn, setDrawn] = useState<{ column: number; from: number; to: number } | null>(null)
  const [over, setOver] = useState<number | null>(null)
  const box = useRef<SVGSVGElement>(null)
  const at = (event: React.PointerEvent) => {
    const rect = box.current?.getBoundingClientRect()
    if (!rect) return { row: 0, column: 0 }
    const within = (share: number, count: number) => Math.max(0, Math.min(count - 1, Math.floor(share * count)))
    return {
      row: within((event.clientY - rect.top) / rect.height, guns.length),
      column: within((event.clientX - rect.left) / rect.width, COLUMNS.length),
    }
  }
  const finish = () => {
    if (drawn && drawn.from !== drawn.to) {
      const between = guns.slice(Math.min(drawn.from, drawn.to), Math.max(drawn.from, drawn.to) + 1)
      const stationIds = between.filter((g) => !g.isParked).map((g) => g.stationId)
      onDraw?.({ column: COLUMNS[drawn.column] ?? 'tip', stationIds })
    }
    setDrawn(null)
  }
  const tapped = () => {
    const gun = drawn && drawn.from === drawn.to ? guns[drawn.from] : undefined
    finish()
    if (gun) onTap(gun)
  }
  const pointer = {
    onPointerDown: (e: React.PointerEvent) => {
      const { row, column } = at(e)
      setDrawn({ column, from: row, to: row })
    },
    onPointerMove: (e: React.PointerEvent) => {
      const { row } = at(e)
      setOver(row)
      if (drawn && e.buttons > 0) setDrawn({ ...drawn, to: row })
    },
    onPointerUp: tapped,
    onPointerLeave: () => {
      setOver(null)
      finish()
    },
  }
  return { box, drawn, over, pointer }
}
