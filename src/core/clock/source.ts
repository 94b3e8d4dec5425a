/** What a clock counts, and where the counts come from, best first. */
export const COUNTERS = ['kg', 'arcHours', 'starts'] as const
export type Counter = (typeof COUNTERS)[number]
/** What is measured of a gun's use: what is counted, and the length of the wire that made the kilograms. */
export const CLOCKED = [...COUNTERS, 'km'] as const
export type Clocked = (typeof CLOCKED)[number]

export const USAGE_SOURCES = ['telemetry', 'weighed', 'label', 'shiftLog', 'rate', 'converted'] as const
export type UsageSource = (typeof USAGE_SOURCES)[number]

/** Best source first per counter; a source that is not listed says nothing about that counter. */
const RANK: Record<Counter, readonly UsageSource[]> = {
  kg: ['telemetry', 'weighed', 'label', 'shiftLog', 'converted', 'rate'],
  arcHours: ['telemetry', 'shiftLog', 'converted', 'rate'],
  starts: ['telemetry', 'shiftLog'],
}

/**
 * Standard error of one entry as a share of it. Judgements, shipped as guesses: a scale reads well, a label is the
 * maker's fill, a shift total is somebody's estimate, a conversion rests on a guessed wire speed.
 */
export const SOURCE_SPREAD: Record<UsageSource, number> = {
  telemetry: 0.01,
  weighed: 0.02,
  label: 0.05,
  shiftLog: 0.1,
  converted: 0.25,
  rate: 0.5,
}

/** Sources that are not a count of anything: drawn hollow. */
export const isEstimate = (source: UsageSource) => source === 'converted' || source === 'rate'

export function rankOf(counter: Counter, source: UsageSource): number {
  const rank = RANK[counter].indexOf(source)
  return rank < 0 ? Infinity : rank
}
