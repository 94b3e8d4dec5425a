import { pathOf } from '@core/drag/path.ts'
import { type DragSetup } from '@core/drag/setup.ts'
import { tensionWindow } from '@core/drag/window.ts'
import { meltOf, voltsFor } from './melt.ts'

/** How the drop goes over: by touching, or flying. */
export const TRANSFERS = ['short circuit', 'spray'] as const
export type Transfer = (typeof TRANSFERS)[number]

/** A gun of this shop as the booth is set up with it: all that a drill needs to be drawn again anywhere. */
export interface BoothSetup {
  name: string
  drag: DragSetup
  wireSpeedMPerMin: number
  transfer: Transfer
  /** Gas of the procedure, L/min; null: a wire that needs none. */
  gasLpm: number | null
}

/** Something that holds the wire back over a stretch, once in so much wire; what holds it too long gives way. */
export interface Catch {
  everyMm: number
  overMm: number
  /** As the rolls feel it. */
  forceN: number
  /** Behind the rolls, or ahead of them. */
  at: 'spool' | 'front'
  /** So long it holds a wire that stands, s; left out: a fifth of a second. */
  holdsS?: number
}
/** The booth as it stands, in what the wire, the current and the gas feel. Every fault is a change of these numbers. */
export interface Rig {
  drag: DragSetup
  transfer: Transfer
  /** Of the knob. */
  mark: number
  isArmClosed: boolean
  /** Share of their traction that the rolls still have. */
  grip: number
  /** Rolls turn when the trigger is pulled. */
  turns: boolean
  /** Force to set the wire going over what keeps it going, less 1. */
  stick: number
  /** How much the drag comes and goes as the hand moves, share. */
  sway: number
  catches: readonly Catch[]
  /** The wire cannot pass the tip. */
  isPlugged: boolean
  wireSpeedMmS: number
  volts: number
  /** Tip to work. */
  distanceMm: number
  /** Beside source and stick-out. */
  contactOhm: number
  /** How much the contact wanders, ohm. */
  jitterOhm: number
  isOpen: boolean
  /** Roughness of the arc: 0 as it should be, 1 polarity or gas wrong. */
  rough: number
  /** A ball on the wire's end. */
  isBalled: boolean
  /** How far the wire wanders from the middle, mm. */
  wanderMm: number
  gas: Gas
  /** Something other than missing gas makes holes: dirt, oil. */
  dirt: number
  /** The spool runs on when the trigger is let go. */
  coasts: boolean
  /** Nozzle and tip are one piece of metal to the current. */
  nozzleLive: boolean
}
export interface Gas {
  /** Set at the meter; null: the wire needs none. */
  lpm: number | null
  /** Share of it that the feeder’s own meter sees: what leaks or kinks behind it is not in it. */
  reaches: number
  /** Share of it that gets to the gun. */
  arrives: number
  /** Share of the weld it covers when it gets there. */
  covers: number
}

/** Arc the procedure wants, mm: where the drop goes over by touching, not quite a wire long. */
export const arcWanted = (transfer: Transfer, diameterMm: number) => (transfer === 'spray' ? 5 : 0.85 * diameterMm)
/** Tip to work, mm. */
export const DISTANCE_MM: Readonly<Record<Transfer, number>> = { 'short circuit': 12, spray: 18 }
const HEALTHY_STICK = 0.05
const HEALTHY_SWAY = 0.08
/** Of the window: nearer its low edge, as it is set by the block. */
const IN_WINDOW = 0.4

export const mmPerS = (mPerMin: number) => (mPerMin * 1000) / 60

/** The knob as somebody sets it who knows how: within the window, nearer the low edge; where none is open, at its low edge or the last mark. */
export function goodMark(drag: DragSetup): number {
  const { lowMark, highMark, isOpen } = tensionWindow(pathOf(drag))
  const [, last] = drag.shape.feeder.scale
  const mark = lowMark === null ? last : isOpen ? lowMark + IN_WINDOW * (highMark - lowMark) : Math.min(lowMark, last)
  return Math.round(mark * 10) / 10
}

/** The booth with nothing wrong. */
export function soundRig(setup: BoothSetup): Rig {
  const { drag, transfer, gasLpm } = setup
  const wireSpeedMmS = mmPerS(setup.wireSpeedMPerMin)
  const melt = meltOf(drag.shape.material, drag.shape.diameterMm)
  const distanceMm = DISTANCE_MM[transfer]
  const volts = voltsFor(melt, { mmPerS: wireSpeedMmS, distanceMm, arcMm: arcWanted(transfer, drag.shape.diameterMm) })
  return {
    ...{ drag, transfer, mark: goodMark(drag), isArmClosed: true, grip: 1, turns: true },
    ...{ stick: HEALTHY_STICK, sway: HEALTHY_SWAY, catches: [], isPlugged: false, wireSpeedMmS, volts, distanceMm },
    ...{ contactOhm: 0, jitterOhm: 0, isOpen: false, rough: 0, isBalled: false, wanderMm: 0 },
    gas: { lpm: gasLpm, reaches: 1, arrives: 1, covers: 1 },
    ...{ dirt: 0, coasts: false, nozzleLive: false },
  }
}
