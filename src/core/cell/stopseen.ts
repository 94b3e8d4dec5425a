import { median } from '@core/trend/theilsen.ts'

/** What a feeder sent of the last minute. Counters as they stood; null: it does not send that. */
export interface SeenRow {
  atMs: number
  wireFedM: number
  /** Travel of the rolls' rim. */
  rollFedM: number | null
  arcOnS: number
  volts: number | null
  startsFailed: number | null
}
/** A stop that the numbers themselves show. */
export type StopSeen =
  | {
      is: 'notArriving'
      atMs: number
      /** Share of what the rolls turned that did not come as wire. */
      slip: number
      /** Volts rise: the arc climbs towards the tip, because the wire does not come. */
      doesArcClimb: boolean
    }
  | { is: 'noStart'; atMs: number; failed: number }

/** Rolls have to turn so far before it is told whether wire comes. */
const LEAST_ROLL_M = 0.4
/** From so much of it that does not come, it does not feed. */
const LEAST_SLIP = 0.5
const CLIMBS = 1.1
/** So many starts in a row that came to nothing, with no arc between. */
const FAILED = 3

/**
 * The first moment at which rolls turn and wire does not come, or starts fail one after the other; null: neither. Rolls against wire over the rows of
 * some seconds, volts against their own middle before (P111). Rows in order; a counter that fell begins anew.
 */
export function stopSeen(rows: readonly SeenRow[]): StopSeen | null {
  for (let to = 1; to < rows.length; to++) {
    const seen = slipAt(rows, to) ?? failedAt(rows, to)
    if (seen) return seen
  }
  return null
}

function slipAt(rows: readonly SeenRow[], to: number): StopSeen | null {
  const b = rows[to]
  if (!b || b.rollFedM === null) return null
  for (let from = to - 1; from >= 0; from--) {
    const a = rows[from]
    if (!a || a.rollFedM === null) return null
    const [roll, wire] = [b.rollFedM - a.rollFedM, b.wireFedM - a.wireFedM]
    if (roll < 0 || wire < 0) return null
    if (roll < LEAST_ROLL_M) continue
    const slip = 1 - wire / roll
    if (slip < LEAST_SLIP) return null
    const before = rows.slice(0, from + 1).flatMap((r) => r.volts ?? [])
    const doesArcClimb = b.volts !== null && before.length > 2 && b.volts > CLIMBS * median(before)
    return { is: 'notArriving', atMs: b.atMs, slip, doesArcClimb }
  }
  return null
}

function failedAt(rows: readonly SeenRow[], to: number): StopSeen | null {
  const b = rows[to]
  if (!b || b.startsFailed === null) return null
  for (let from = to - 1; from >= 0; from--) {
    const a = rows[from]
    if (!a || a.startsFailed === null || b.arcOnS > a.arcOnS || b.startsFailed < a.startsFailed) return null
    const failed = b.startsFailed - a.startsFailed
    if (failed >= FAILED) return { is: 'noStart', atMs: b.atMs, failed }
  }
  return null
}

/** What a picture of the last minute is drawn from: speeds between rows, and what was sent with them. */
export interface TracePoint {
  /** Before the end of it, s; negative. */
  s: number
  wireMPerMin: number
  rollMPerMin: number | null
  motorAmps: number | null
  volts: number | null
  gasLpm: number | null
}
type TraceRow = SeenRow & { motorAmps: number | null; gasFlowLpm: number | null }
export function traceOf(rows: readonly TraceRow[], untilMs: number): TracePoint[] {
  return rows.flatMap((b, i) => {
    const a = rows[i - 1]
    const minutes = a ? (b.atMs - a.atMs) / 60_000 : 0
    if (!a || !(minutes > 0) || b.wireFedM < a.wireFedM) return []
    const roll = a.rollFedM === null || b.rollFedM === null ? null : (b.rollFedM - a.rollFedM) / minutes
    return [
      {
        s: (b.atMs - untilMs) / 1000,
        wireMPerMin: (b.wireFedM - a.wireFedM) / minutes,
        rollMPerMin: roll !== null && roll < 0 ? null : roll,
        ...{ motorAmps: b.motorAmps, volts: b.volts, gasLpm: b.gasFlowLpm },
      },
    ]
  })
}
