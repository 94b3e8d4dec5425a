import { type SchoolOf } from '@core/houserule/schools.ts'
import { isAluminium, isCored, type Mode, type WireFacts } from '@core/rightparts/facts.ts'

/**
 * Technique as numbers (P187, D27): how the gun is held and moved, by process, joint and position. Asked for after a minute on the equipment, never before;
 * what the procedure says stands before what the trade says.
 */
export const JOINTS_WELDED = ['groove', 'fillet'] as const
export type JointWelded = (typeof JOINTS_WELDED)[number]
export const POSITIONS_WELDED = ['flat', 'horizontal', 'vertical', 'overhead'] as const
export type PositionWelded = (typeof POSITIONS_WELDED)[number]
/** Push: the gun points the way it goes; pull: it points back over the bead. */
export type Way = 'push' | 'pull' | 'either'
export interface TechniqueAsked {
  mode: Mode | null
  wire: WireFacts | null
  joint: JointWelded
  position: PositionWelded
  /** The procedure's, mm; null: it says none. */
  stickOutMm: readonly [from: number, to: number] | null
  pushPull: SchoolOf<'D27'>
}
export interface Technique {
  stickOutMm: readonly [from: number, to: number]
  stickOutBy: 'procedure' | 'trade'
  /** Between gun and plate, across the weld. */
  workDeg: number
  /** Off upright, along the weld. */
  travelDeg: readonly [from: number, to: number]
  way: Way
  /** Along the weld, mm/s. A guess. */
  speedMmS: readonly [from: number, to: number]
  /** Where the wire meets the puddle. */
  wireAt: 'leading edge'
}

/** Wire out of the tip, mm, by process: the trade's usual, guesses. */
const STICK_OUT: Record<Mode | 'cored' | 'untold', readonly [number, number]> = {
  'short circuit': [8, 13],
  globular: [13, 19],
  spray: [15, 22],
  pulse: [15, 22],
  cored: [15, 25],
  untold: [10, 19],
}
const SPEED: Record<Mode | 'untold', readonly [number, number]> = {
  'short circuit': [4, 8],
  globular: [4, 9],
  spray: [6, 12],
  pulse: [5, 11],
  untold: [4, 10],
}
/** Uphill the puddle has to freeze: so much slower. */
const VERTICAL_SLOWER = 0.5

/** @example technique({ mode: 'spray', wire: aluminium, joint: 'fillet', … }).way // 'push' */
export function technique(of: TechniqueAsked): Technique {
  const [slow, fast] = SPEED[of.mode ?? 'untold']
  const slower = of.position === 'vertical' ? VERTICAL_SLOWER : 1
  const cored = of.wire !== null && isCored(of.wire)
  return {
    stickOutMm: of.stickOutMm ?? STICK_OUT[cored ? 'cored' : (of.mode ?? 'untold')],
    stickOutBy: of.stickOutMm ? 'procedure' : 'trade',
    workDeg: of.joint === 'groove' ? 90 : 45,
    travelDeg: of.position === 'overhead' || of.position === 'vertical' ? [5, 10] : [10, 15],
    way: wayOf(of),
    speedMmS: [slow * slower, fast * slower],
    wireAt: 'leading edge',
  }
}
/** Slag is pulled; aluminium and spray are pushed; the rest as the house has it. */
function wayOf({ wire, mode, pushPull }: TechniqueAsked): Way {
  if (wire && isAluminium(wire)) return 'push'
  if (pushPull === 'same') return 'either'
  if (wire?.construction === 'flux-cored') return 'pull'
  return mode === 'spray' || mode === 'pulse' ? 'push' : 'either'
}

/** What it turned out to be once the equipment was looked at: counted, of nobody. */
export const TURNED_OUT = {
  equipment: 'the machine or the gun',
  distance: 'the distance',
  angle: 'an angle',
  way: 'push or pull',
  speed: 'the speed',
  wireAt: 'where the wire met the puddle',
  fitUp: 'the fit-up',
  metal: 'dirty metal',
  draught: 'a draught',
  settings: 'the settings',
} as const
export type TurnedOut = keyof typeof TURNED_OUT
export const TURNED_OUT_KEYS = Object.keys(TURNED_OUT) as [TurnedOut, ...TurnedOut[]]

/** What takes seconds and is the machine's: looked at before a word on the hand (P131). */
export const MINUTE_LOOKS = [
  {
    do: 'Watch one live arc',
    look: 'hood down, from the side: an even crackle, or does it stumble and wander?',
    isLive: true,
  },
  { do: 'Gun in its socket', look: 'collar flush, lock turned', isLive: false },
  { do: 'Tip', look: 'snug, its hole round, no ball of wire on it', isLive: false },
  { do: 'Nozzle', look: 'open all round, insulator in place', isLive: false },
  { do: 'Gas', look: 'read while it runs: the card’s figure', isLive: true },
  { do: 'Work clamp', look: 'hard on bright metal', isLive: false },
] as const
