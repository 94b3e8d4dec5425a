import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { STATES } from '@core/floor/state.ts'
import { type FloorGun } from '@contract/floor.ts'
import { describePath, shownCells } from '@web/path/describe.ts'
import { Cell, type WireSize } from '@web/path/WirePath.tsx'

/** Pitch of the bare lines: roomy while the shop is small, never so tight that teeth touch. */
export const pitchFor = (guns: number) => (guns <= 40 ? 10 : guns <= 64 ? 8 : 6)
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
  onDraw?: (draw: Draw) => void
}) {
  const { guns, pitch, columnWidth } = props
  const size = strandSize(pitch, columnWidth)
  const width = columnWidth * COLUMNS.length
  const { box, drawn, over, pointer } = useDraw(guns, props.onDraw)
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
function useDraw(guns: readonly FloorGun[], onDraw?: (draw: Draw) => void) {
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
    onPointerUp: finish,
    onPointerLeave: () => {
      setOver(null)
      finish()
    },
  }
  return { box, drawn, over, pointer }
}
