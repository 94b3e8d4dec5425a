import { COLUMNS, type Column } from '@core/path/columns.ts'
import { isWorse, STATES } from '@core/floor/state.ts'
import { type FloorGun } from '@contract/floor.ts'

/** Guns by the life left in one column: worst state first, then most used. */
export function byLifeLeft(guns: readonly FloorGun[], column: Column): FloorGun[] {
  const index = COLUMNS.indexOf(column)
  const cell = (g: FloorGun) => g.cells[index] ?? [STATES.length - 1, 0, 0, 0]
  const state = (g: FloorGun) => STATES[cell(g)[0]] ?? 'absent'
  return [...guns]
    .filter((g) => !g.isParked)
    .sort((a, b) => (isWorse(state(a), state(b)) ? -1 : isWorse(state(b), state(a)) ? 1 : cell(b)[1] - cell(a)[1] || 0))
}
