import { MATERIALS, type WireMaterial } from '@core/drag/guess.ts'
import { REMEDY, type RemedyKey } from '@core/drag/remedy.ts'
import { guessedSetup, withShape, withValues, type DragSetup, type DragShape, type Param } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'

/**
 * The gun on the screen: bent, coiled, worn and put right without touching the gun on the floor.
 *
 *   as it is ──bend · coil · slide · choose · try──> as drawn ──put back──> as it is
 *
 * 1. Pure: the same events make the same gun.
 * 2. What was told or read of the gun stays until it is moved here; another wire brings its own guesses.
 */
export interface DragState {
  real: DragSetup
  drawn: DragSetup
  mark: number
  realMark: number
}
export type DragEvent =
  | { type: 'value'; param: Param; value: number }
  | { type: 'shape'; over: Partial<DragShape> }
  | { type: 'wire'; material: WireMaterial; diameterMm: number }
  | { type: 'knob'; mark: number }
  | { type: 'try'; steps: readonly RemedyKey[] }
  | { type: 'back' }

export const begin = (real: DragSetup, mark: number): DragState => ({ real, drawn: real, mark, realMark: mark })

export function dragStep(state: DragState, event: DragEvent): DragState {
  switch (event.type) {
    case 'value':
      return { ...state, drawn: withValues(state.drawn, { [event.param]: event.value }) }
    case 'shape':
      return { ...state, drawn: withShape(state.drawn, event.over) }
    case 'wire':
      return { ...state, drawn: withWire(state.drawn, event) }
    case 'knob':
      return { ...state, mark: event.mark }
    case 'try':
      return { ...state, drawn: event.steps.reduce((s, key) => REMEDY[key].apply(s) ?? s, state.drawn) }
    case 'back':
      return { ...state, drawn: state.real, mark: state.realMark }
  }
}

/** Another wire in the same gun: nothing else is changed with it, and that is the point. */
function withWire(setup: DragSetup, wire: { material: WireMaterial; diameterMm: number }): DragSetup {
  const grown = Math.max(0, setup.shape.diameterMm - wire.diameterMm)
  const other = withShape(setup, { ...wire, densityGPerCm3: MATERIALS[wire.material].densityGPerCm3, slip: null })
  // A guide bored for the thicker wire leaves the thinner one that much more play.
  return grown > 0 ? withValues(other, { clearanceMm: setup.values.clearanceMm + grown }) : other
}

export const isMoved = ({ real, drawn, mark, realMark }: DragState) =>
  mark !== realMark || JSON.stringify(real) !== JSON.stringify(drawn)

/** A gun of nobody's: steel 0.9 in a steel liner on four rolls. */
export const freeSetup = (material: WireMaterial = 'steel', diameterMm = 0.9): DragSetup =>
  guessedSetup(usualShape(material, diameterMm))
