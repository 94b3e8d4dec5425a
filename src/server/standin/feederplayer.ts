import { arcStartsIn, isArcAt, usedByArcs, type ArcPlan, type Counters } from '@core/simulator/arcs.ts'
import { fedBetween, loadAt, nextRowMs, snagNear, voltsAt, type FeedPlan } from '@core/simulator/feeding.ts'
import { failedBefore, type StartsPlan } from '@core/simulator/starts.ts'
import { motorAmpsAt, type MotorPlan } from '@core/simulator/motor.ts'
import { workedMs, type Schedule } from '@core/clock/schedule.ts'
import { type FeederRowSent } from '@contract/telemetry.ts'

/**
 * One made-up feeder: it counts by itself, keeps what it could not send, and sends it when it can.
 *
 *   counting ──tick──> a row in the buffer ──sent──> answered: dropped from the buffer
 *                                            └─ no answer: kept, sent again with the next
 *
 * 1. Counters begin at nought with each boot; rows of a boot are numbered without gaps.
 * 2. A row leaves the buffer only when the server has answered for it.
 */
export interface FeederState {
  bootId: string
  nextSeq: number
  countedMs: number
  counters: Counters & { startsFailed: number; rollFedM?: number }
  buffer: FeederRowSent[]
}
export interface FeederSetUp {
  equipmentId: string
  plan: ArcPlan
  /** What its motor draws while it feeds. */
  motor: MotorPlan
  /** How often a start comes to nothing. */
  starts: StartsPlan
  /** What its controller tells of rolls, volts and gas; null: it measures none of them. */
  feeding: FeedPlan | null
  schedule: Schedule | null
}
const NOT_FED = { wireFedM: 0, arcOnS: 0, arcStarts: 0, rollFedM: 0 }

export const bootUp = (bootId: string, atMs: number): FeederState => ({
  bootId,
  nextSeq: 0,
  countedMs: atMs,
  counters: { wireFedM: 0, arcOnS: 0, arcStarts: 0, startsFailed: 0 },
  buffer: [],
})

const isOpen = (schedule: Schedule | null, fromMs: number, toMs: number) =>
  schedule === null || workedMs(schedule, fromMs, toMs) > (toMs - fromMs) / 2

const failedIn = ({ plan, starts }: FeederSetUp, fromMs: number, toMs: number): number =>
  arcStartsIn(plan, fromMs, toMs).reduce((n, ms) => n + failedBefore(starts, ms), 0)

const usedIn = ({ feeding, plan }: FeederSetUp, fromMs: number, toMs: number): typeof NOT_FED =>
  feeding ? fedBetween(feeding, fromMs, toMs) : { ...usedByArcs(plan, fromMs, toMs), rollFedM: 0 }

/** Wire snagged, and nobody has freed it yet. */
function doesStand({ feeding }: FeederSetUp, atMs: number): boolean {
  const snag = feeding ? snagNear(feeding, atMs) : null
  return snag !== null && atMs >= snag.outMs && atMs < snag.freeMs
}

/** Counts on to a moment and puts a row about it into the buffer. */
export function tick(state: FeederState, setUp: FeederSetUp, atMs: number): FeederState {
  const { counters } = state
  const isWorking = isOpen(setUp.schedule, state.countedMs, atMs)
  const used = isWorking ? usedIn(setUp, state.countedMs, atMs) : NOT_FED
  const mayStart = isWorking && !doesStand(setUp, atMs)
  const now = {
    wireFedM: counters.wireFedM + used.wireFedM,
    arcOnS: counters.arcOnS + used.arcOnS,
    arcStarts: counters.arcStarts + used.arcStarts,
    startsFailed: (counters.startsFailed || 0) + (mayStart ? failedIn(setUp, state.countedMs, atMs) : 0),
    ...(setUp.feeding ? { rollFedM: (counters.rollFedM ?? counters.wireFedM) + used.rollFedM } : {}),
  }
  const load = setUp.feeding ? loadAt(setUp.feeding, atMs) : 1
  const row: FeederRowSent = {
    equipmentId: setUp.equipmentId,
    bootId: state.bootId,
    seq: state.nextSeq,
    deviceMs: atMs,
    ...now,
    isArcOn: mayStart && isArcAt(setUp.plan, atMs),
    ...(used.wireFedM > 0 || used.rollFedM > 0 ? { motorAmps: motorAmpsAt(setUp.motor, atMs) * load } : {}),
    ...(isWorking ? feltAt(setUp, atMs) : {}),
  }
  return { ...state, nextSeq: state.nextSeq + 1, countedMs: atMs, counters: now, buffer: [...state.buffer, row] }
}
/** Volts and gas flow, while there is an arc. */
function feltAt({ feeding }: FeederSetUp, atMs: number): { volts?: number; gasFlowLpm?: number } {
  const volts = feeding ? voltsAt(feeding, atMs) : null
  return feeding && volts !== null ? { volts, gasFlowLpm: feeding.gasLpm } : {}
}

/** Ticks as often as the feeder would have while nobody listened; at most what it can keep. */
export function catchUp(state: FeederState, setUp: FeederSetUp, at: { nowMs: number; everyMs: number }): FeederState {
  let next = state
  const after = (fromMs: number) => nextRowMs(setUp.feeding, { fromMs, everyMs: at.everyMs })
  for (let ms = after(state.countedMs); ms <= at.nowMs; ms = after(ms)) next = tick(next, setUp, ms)
  return next
}

/** The server answered for the rows up to a number. */
export const answered = (state: FeederState, upToSeq: number): FeederState => ({
  ...state,
  buffer: state.buffer.filter((row) => row.bootId === state.bootId && row.seq > upToSeq),
})
