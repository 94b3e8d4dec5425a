import { makeRandom } from '@core/random/random.ts'
import { ArcRun, type ArcCounts } from './arc.ts'
import { type Rig } from './rig.ts'
import { WireRun } from './wire.ts'

/** Steps a second: fine enough to be heard. */
export const STEPS_PER_S = 16_000
/** Rows a second of what is drawn. */
export const ROWS_PER_S = 200
const STEPS_PER_ROW = STEPS_PER_S / ROWS_PER_S
/** A trigger pulled for so long. */
export const BEAD_S = 4
/** Rolls come up to speed. */
const RUN_UP_S = 0.12
/** What the motor draws idle, and for each N it pushes and pulls. */
const MOTOR = { idleA: 0.8, perN: 0.02 }

/** One pull of the trigger, as meters would have it: 200 rows a second. */
export interface BeadTrace {
  rollsMmS: Float32Array
  tipMmS: Float32Array
  arcMm: Float32Array
  volts: Float32Array
  amps: Float32Array
  motorA: Float32Array
}
/** The same step by step, for the ear. */
export interface BeadSound {
  volts: Float32Array
  amps: Float32Array
  banged: Float32Array
}
export interface BeadRun {
  trace: BeadTrace
  sound: BeadSound
  /** From when on the arc burned; null: it never did. */
  firstArcS: number | null
  /** When the wire stopped for good; null: it did not. */
  endedS: number | null
  counts: ArcCounts
  hasNested: boolean
  hasBurnedBack: boolean
  /** Push of the rolls while it ran, N, the middle one. */
  pushN: number
  backN: number
}

/** A bead, or what comes of it: the trigger is pulled for `seconds`. The same rig and seed always give the same. */
export function runBead(rig: Rig, { seed, seconds = BEAD_S }: { seed: number; seconds?: number }): BeadRun {
  const random = makeRandom(seed)
  const [wire, arc] = [new WireRun(rig, random), new ArcRun(rig, random)]
  const steps = Math.round(seconds * STEPS_PER_S)
  const dtS = 1 / STEPS_PER_S
  const sound = { volts: new Float32Array(steps), amps: new Float32Array(steps), banged: new Float32Array(steps) }
  const trace = emptyTrace(Math.floor(steps / STEPS_PER_ROW))
  const sums = new Sums(trace)
  let firstArcS: number | null = null
  let endedS: number | null = null
  for (let i = 0; i < steps; i++) {
    const atS = i * dtS
    wire.step(dtS, rig.turns ? rig.wireSpeedMmS * Math.min(1, atS / RUN_UP_S) : 0)
    arc.step(dtS, arc.hasBurnedBack ? 0 : wire.tipMmS)
    if (firstArcS === null && arc.phase === 'arc') firstArcS = atS
    if (endedS === null && (wire.hasNested || arc.hasBurnedBack)) endedS = atS
    sound.volts[i] = arc.volts
    sound.amps[i] = arc.amps
    sound.banged[i] = arc.banged
    sums.add(i, wire, arc)
  }
  const pushes = [...sums.pushN].sort((a, b) => a - b)
  return {
    ...{ trace, sound, firstArcS, endedS, counts: arc.counts },
    ...{ hasNested: wire.hasNested, hasBurnedBack: arc.hasBurnedBack },
    pushN: pushes[Math.floor(pushes.length / 2)] ?? 0,
    backN: wire.backN,
  }
}

const emptyTrace = (rows: number): BeadTrace => ({
  rollsMmS: new Float32Array(rows),
  tipMmS: new Float32Array(rows),
  arcMm: new Float32Array(rows),
  volts: new Float32Array(rows),
  amps: new Float32Array(rows),
  motorA: new Float32Array(rows),
})
/** Means over the steps of a row. */
class Sums {
  readonly pushN: Float32Array
  constructor(private readonly trace: BeadTrace) {
    this.pushN = new Float32Array(trace.volts.length)
  }
  add(step: number, wire: WireRun, arc: ArcRun): void {
    const row = Math.floor(step / STEPS_PER_ROW)
    if (row >= this.pushN.length) return
    const { trace } = this
    const put = (column: Float32Array, value: number) => (column[row] = (column[row] ?? 0) + value / STEPS_PER_ROW)
    put(trace.rollsMmS, wire.rollsMmS)
    put(trace.tipMmS, wire.tipMmS)
    put(trace.arcMm, arc.phase === 'arc' ? arc.lengthMm : 0)
    put(trace.volts, arc.volts)
    put(trace.amps, arc.amps)
    put(trace.motorA, MOTOR.idleA + MOTOR.perN * (wire.forceN + wire.backN))
    put(this.pushN, wire.forceN)
  }
}
