import { Plain } from '@web/kit/Keys.tsx'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { STATES } from '@core/floor/state.ts'
import { type GunAnswer, type GunPosition } from '@contract/gun.ts'
import { describePath, shownCells } from '@web/path/describe.ts'
import { Cell } from '@web/path/WirePath.tsx'
import { partName } from '@web/format/words.ts'
import { type Units } from '@web/format/numbers.ts'
import { drawPart, PART_WIDTH } from './parts.tsx'
import { isDownSomewhere, partNumber, stateWord } from './verdict.ts'

export const COLUMN_X = COLUMNS.map((_, i) => COLUMNS.slice(0, i).reduce((sum, c) => sum + PART_WIDTH[c], 0))
const WIDTH = COLUMNS.reduce((sum, c) => sum + PART_WIDTH[c], 0)
const HEIGHT = 150

/** The positions of a column, the one that speaks for it first. */
export const inColumn = (gun: GunAnswer, column: string): GunPosition[] =>
  gun.positions.filter((p) => p.column === column).sort((a, b) => STATES.indexOf(a.state) - STATES.indexOf(b.state))

/** The gun drawn as long as the screen, each part in its place on one wire. */
export function GunDrawing(props: {
  gun: GunAnswer
  units: Units
  chosen: Column | null
  onChoose: (column: Column) => void
}) {
  const { gun, units, chosen } = props
  const cells = shownCells(gun.cells)
  return (
    <section className={gun.downSinceMs !== null ? 'drawing is-standing' : 'drawing'} aria-label="The wire path">
      <svg
        className="wire"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={describePath(gun.cells, gun.downPosition === null)}
      >
        {COLUMNS.map((column, i) => (
          <g key={column} className="part-outline" transform={`translate(${COLUMN_X[i]} ${HEIGHT / 2})`}>
            {drawPart(column)}
          </g>
        ))}
        {cells.map((cell, i) => {
          const column = COLUMNS[i] ?? 'tip'
          return (
            <Cell
              key={column}
              cell={cell}
              x={COLUMN_X[i] ?? 0}
              size={{ columnWidth: PART_WIDTH[column], thickness: 8, tall: 15, height: HEIGHT }}
            />
          )
        })}
      </svg>
      <div className="drawing-keys" style={{ gridTemplateColumns: COLUMNS.map((c) => `${PART_WIDTH[c]}fr`).join(' ') }}>
        {COLUMNS.map((column) => {
          const [first] = inColumn(gun, column)
          return (
            <Plain
              key={column}
              aria-pressed={chosen === column}
              disabled={!first}
              onClick={() => props.onChoose(column)}
            >
              <strong>{column}</strong>
              <span>{first ? partNumber(first, units) : 'not on it'}</span>
              <em>
                {first && first.position !== column && first.state !== 'good' && !isDownSomewhere(gun, first)
                  ? `${partName(first.position)} `
                  : ''}
                {first ? stateWord(gun, first) : ''}
              </em>
            </Plain>
          )
        })}
      </div>
    </section>
  )
}
