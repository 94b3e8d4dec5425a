import { memo } from 'react'
import { COLUMNS } from '@core/path/columns.ts'
import { STATES } from '@core/floor/state.ts'
import { type FloorCell } from '@contract/floor.ts'
import { describePath, shownCells } from './describe.ts'
import { cellShape } from './stroke.ts'

export interface WireSize {
  columnWidth: number
  thickness: number
  tall: number
  height: number
}
/** Odd heights for odd strokes: the line then lies on whole pixels, and no joint shows. */
export const ROW_SIZE: WireSize = { columnWidth: 61, thickness: 5, tall: 9, height: 45 }
export const PHONE_SIZE: WireSize = { columnWidth: 32, thickness: 5, tall: 8, height: 37 }

export const Cell = memo(function Cell(props: { cell: FloorCell; size: WireSize; x: number }) {
  const { cell, size, x } = props
  const shape = cellShape({
    state: STATES[cell[0]] ?? 'notSeen',
    used: cell[1],
    shiftsOver: cell[3],
    width: size.columnWidth,
    thickness: size.thickness,
    tall: size.tall,
  })
  const isHollow = cell[2] === 1
  return (
    <g transform={`translate(${x} ${size.height / 2})`}>
      {(isHollow ? shape.edges : shape.areas).map((d) => (
        <path key={d} d={d} className={isHollow ? 'wire-hollow' : 'wire-solid'} />
      ))}
      {shape.strokes.map((s) => (
        <path
          key={s.d}
          d={s.d}
          className={s.isSignal ? 'wire-cap' : 'wire-stroke'}
          strokeWidth={s.width}
          strokeDasharray={s.dash}
          strokeLinecap={s.dash ? 'round' : 'butt'}
        />
      ))}
    </g>
  )
})

/** A gun as one line of wire, spool to gas. */
export function WirePath(props: {
  cells: readonly FloorCell[]
  size?: WireSize
  label: string
  isFluid?: boolean
  isUnplaced?: boolean
}) {
  const size = props.size ?? ROW_SIZE
  const width = size.columnWidth * COLUMNS.length
  return (
    <svg
      className="wire"
      viewBox={`0 0 ${width} ${size.height}`}
      width={props.isFluid ? '100%' : width}
      height={props.isFluid ? undefined : size.height}
      role="img"
      aria-label={`${props.label}: ${describePath(props.cells, props.isUnplaced)}`}
    >
      {shownCells(props.cells).map((cell, i) => (
        <Cell key={COLUMNS[i]} cell={cell} size={size} x={i * size.columnWidth} />
      ))}
    </svg>
  )
}
