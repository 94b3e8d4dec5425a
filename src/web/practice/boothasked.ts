import { type BeadTrace } from '@core/practice/bead.ts'
import { type BeadPicture } from '@core/practice/picture.ts'
import { type Caption } from '@core/practice/sound.ts'
import { type Debrief } from '@core/practice/debrief.ts'
import { type Meter } from '@core/practice/meters.ts'
import { type Attempt } from '@core/practice/skill.ts'
import { type DrillAct, type Scenario, type ScenarioFault } from '@core/practice/drill.ts'
import { type FaultKey } from '@core/practice/faults.ts'
import { type BoothSetup } from '@core/practice/rig.ts'
import { type Knowledge } from '@core/diagnose/knowledge.ts'

/** What the page asks its worker for: all that computes, so that no finger waits. */
export interface BoothAsks {
  know: { knowledge: Knowledge }
  /** A drill for a booth: of one of these faults, or of what is known least. */
  draw: {
    setup: BoothSetup
    seed: number
    among: readonly FaultKey[] | null
    attempts: readonly Attempt[] | null
    /** Between which bounds it is bad; how often a second fault that shows alike stands beside. As it comes, where left out. */
    bad?: readonly [number, number]
    twoShare?: number
  }
  daily: { day: string }
  /** The trigger pulled with what is wrong now; `n` beads before it had other luck. */
  bead: { scenario: Scenario; left: readonly ScenarioFault[]; n: number }
  meters: { scenario: Scenario; left: readonly ScenarioFault[]; check: string }
  hint: { scenario: Scenario; acts: readonly DrillAct[] }
  debrief: { scenario: Scenario; acts: readonly DrillAct[] }
}
export interface BoothAnswers {
  know: true
  draw: Scenario | null
  daily: Scenario | null
  bead: Bead
  meters: Meter[]
  hint: DrillAct | null
  debrief: Debrief
}
export interface Bead {
  wave: Float32Array<ArrayBuffer>
  trace: BeadTrace
  /** As the feeder’s own meter has it; null: a wire without gas. */
  gas: Float32Array | null
  captions: Caption[]
  picture: BeadPicture
  signs: string[]
  /** Where the knob stands on its scale. */
  mark: number
}
export type BoothAsk = keyof BoothAsks
export type BoothAsked = { [K in BoothAsk]: { id: number; ask: K; of: BoothAsks[K] } }[BoothAsk]
export interface BoothAnswered {
  id: number
  answer: BoothAnswers[BoothAsk]
}
