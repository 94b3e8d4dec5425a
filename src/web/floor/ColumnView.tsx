import { Tick } from '@web/kit/Tick.tsx'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { STATES } from '@core/floor/state.ts'
import { type FloorAnswer, type FloorGun } from '@contract/floor.ts'
import { amount, type Units } from '@web/format/numbers.ts'
import { partName, STATE_WORD } from '@web/format/words.ts'
import { byLifeLeft } from './lifeleft.ts'
import { wantWhy } from './sentence.ts'
import { Cell } from '@web/path/WirePath.tsx'

const SIZE = { columnWidth: 150, thickness: 5, tall: 9, height: 34 }

/** One part over the whole floor. Press and draw down to tick several; one act then goes to all of them. */
export function ColumnView(props: {
  floor: FloorAnswer
  units: Units
  column: Column
  ticked: readonly string[]
  onTick: (ids: string[]) => void
}) {
  const { floor, column, ticked } = props
  const list = byLifeLeft(floor.guns, column)
  const index = COLUMNS.indexOf(column)
  const drawing = useRef<Set<string> | null>(null)
  const [, setTouched] = useState(0)
  const toggle = (id: string) => props.onTick(ticked.includes(id) ? ticked.filter((t) => t !== id) : [...ticked, id])
  const draw = (id: string) => {
    if (!drawing.current || drawing.current.has(id)) return
    drawing.current.add(id)
    setTouched((n) => n + 1)
    props.onTick([...new Set([...ticked, ...drawing.current])])
  }
  return (
    <ol
      className="column-view"
      onPointerUp={() => {
        drawing.current = null
      }}
      onPointerLeave={() => {
        drawing.current = null
      }}
    >
      {list.map((gun) => {
        const cell = gun.cells[index]
        return (
          <li
            key={gun.stationId}
            className={ticked.includes(gun.stationId) ? 'is-ticked' : ''}
            onPointerDown={() => {
              drawing.current = new Set()
            }}
            onPointerMove={(e) => {
              if (e.buttons > 0) draw(gun.stationId)
            }}
          >
            <Tick isOn={ticked.includes(gun.stationId)} onTick={() => toggle(gun.stationId)}>
              <span className="visually-hidden">{gun.name}</span>
            </Tick>
            <Link to={`/gun/${gun.stationId}`} draggable={false}>
              {gun.name}
            </Link>
            {cell ? (
              <svg className="wire" width={SIZE.columnWidth} height={SIZE.height} aria-hidden="true">
                <Cell cell={cell} size={SIZE} x={0} />
              </svg>
            ) : null}
            <span className="dim">{columnWords(gun, column, props.units)}</span>
          </li>
        )
      })}
    </ol>
  )
}

/** "change 21 h on it, house rule 14 h": of a part not seen only the rule, for what was counted means nothing. */
export function columnWords(gun: FloorGun, column: Column, units: Units): string {
  const state = STATES[gun.cells[COLUMNS.indexOf(column)]?.[0] ?? 0] ?? 'absent'
  const want = gun.columnWant
  if (!want) return STATE_WORD[state]
  if (state === 'notSeen') return `${STATE_WORD[state]}, house rule ${amount(want.limit, want.unit, units)}`
  const why = wantWhy(want, units)
  const name = `${partName(want.position)} `
  return `${STATE_WORD[state]} ${column === want.position ? why.replace(name, '') : why}`.trim()
}
