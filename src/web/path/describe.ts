import { COLUMNS } from '@core/path/columns.ts'
import { STATES, type PositionState } from '@core/floor/state.ts'
import { type FloorCell } from '@contract/floor.ts'
import { STATE_WORD } from '@web/format/words.ts'

/** Cells up to and with the one the gun is down at; nothing is drawn after a knot. */
export function shownCells(cells: readonly FloorCell[]): readonly FloorCell[] {
  const down = cells.findIndex((c) => STATES[c[0]] === 'down')
  return down < 0 ? cells : cells.slice(0, down + 1)
}

/** What the line says, for those who hear the page. Of a stop nobody has placed (`isUnplaced`) the knot claims no place. */
export function describePath(cells: readonly FloorCell[], isUnplaced = false): string {
  const said = cells.flatMap((cell, i) => {
    const state: PositionState = STATES[cell[0]] ?? 'notSeen'
    if (isUnplaced && state === 'down') return ['down, nobody has said where']
    const word = STATE_WORD[state]
    return word && state !== 'absent' ? [`${COLUMNS[i]} ${word}`] : []
  })
  return said.length > 0 ? said.join(', ') : 'all good'
}
