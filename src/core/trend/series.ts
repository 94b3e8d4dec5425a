import { cusum } from './cusum.ts'
import { pOfRise } from './mannkendall.ts'
import { median, theilSen, type RobustLine } from './theilsen.ts'

export interface SeriesPoint {
  /** Usage since the series began, in its own unit. */
  usage: number
  value: number
}
export interface SeriesAsked {
  /** It gets worse that way. */
  worse: 'up' | 'down'
  /** Beyond this it is no longer right; null: not known. */
  limit: number | null
  /** One reading against the next, a standard deviation. */
  sd: number
}
export interface Crossing {
  /** Usage at which the line reaches the limit; early and late by the interval of its slope. Null: never, at that slope. */
  usage: number
  early: number
  late: number | null
}
export type Creep =
  | { is: 'few'; n: number }
  | {
      is: 'steady' | 'creeps' | 'over'
      n: number
      line: RobustLine
      p: number
      /** How far it has come since the series began, along the line; positive: worse. */
      risen: number
      crossing: Crossing | null
      /** It jumped, rather than crept: index of the first reading after. */
      stepAt: number | null
    }

/** Fewer readings than this tell no trend. */
export const LEAST_READINGS = 4
const SURE = 0.05
/** Slack and threshold of the step watch, in standard deviations: finds a jump of one and a half in three or four readings. */
const STEP = { k: 0.75, h: 4, baseline: 3 }

/**
 * Is a reading getting worse: Theil–Sen line against usage, one-sided Mann–Kendall below 0.05 and a rise beyond twice the reading error;
 * the usage at which the line meets the limit, early and late by the 95 % interval of the slope through the middle of the readings; and a
 * one-sided CUSUM against the first readings for a jump. Sen 1968; Mann 1945; Page 1954.
 */
export function watchSeries(points: readonly SeriesPoint[], of: SeriesAsked): Creep {
  const n = points.length
  const sign = of.worse === 'up' ? 1 : -1
  const x = points.map((p) => p.usage)
  const y = points.map((p) => sign * p.value)
  const line = n < LEAST_READINGS ? null : theilSen(x, y)
  if (!line) return { is: 'few', n }
  const limit = of.limit === null ? null : sign * of.limit
  const span = Math.max(...x) - Math.min(...x)
  const risen = line.slope * span
  const p = pOfRise(y)
  const isCreeping = p < SURE && risen > 2 * of.sd
  const isOver = limit !== null && median(y.slice(-2)) > limit
  return {
    is: isOver ? 'over' : isCreeping ? 'creeps' : 'steady',
    n,
    line: sign === 1 ? line : turned(line),
    p,
    risen,
    crossing: limit === null || !isCreeping ? null : crossingOf(line, { x, y, limit }),
    stepAt: stepOf(y, of.sd),
  }
}

const turned = (line: RobustLine): RobustLine => ({
  ...line,
  slope: -line.slope,
  intercept: -line.intercept,
  interceptJoint: -line.interceptJoint,
  slopeLow: -line.slopeHigh,
  slopeHigh: -line.slopeLow,
})

function crossingOf(line: RobustLine, at: { x: number[]; y: number[]; limit: number }): Crossing | null {
  if (!(line.slope > 0)) return null
  const [mx, my] = [median(at.x), median(at.y)]
  const reach = (slope: number) => mx + (at.limit - my) / slope
  const ends = [reach(line.slopeHigh), reach(line.slope)]
  return {
    usage: reach(line.slope),
    early: Math.min(...ends),
    late: line.slopeLow > 0 ? Math.max(reach(line.slopeLow), reach(line.slope)) : null,
  }
}

function stepOf(y: readonly number[], sd: number): number | null {
  if (y.length <= STEP.baseline) return null
  const first = y.slice(0, STEP.baseline)
  const mean = first.reduce((s, v) => s + v, 0) / first.length
  const made = cusum(y, { mean, sigma: Math.max(sd, 1e-9), k: STEP.k, h: STEP.h })
  const alarm = made.alarms.find((a) => a.direction === 'up')
  if (!alarm) return null
  const from = alarm.changeEstimate - 1
  return isJump(y, { from, sd }) ? from : null
}

/** A step and a slope both set the watch off; it was a jump where the step from before to after is most of the way there is. */
function isJump(y: readonly number[], at: { from: number; sd: number }): boolean {
  const before = y.slice(0, at.from)
  const after = y.slice(at.from)
  if (before.length < 2 || after.length < 2) return false
  const jump = (after[0] ?? 0) - (before.at(-1) ?? 0)
  const whole = median(after) - median(before)
  return jump > 2 * at.sd && jump > whole * 0.6
}
