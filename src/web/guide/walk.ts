import { type KindKey } from '@core/path/columns.ts'
import { MIN_MS } from '@core/units/time.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { workedMinutes } from '@core/minutes/learn.ts'
import { type GuideStep } from '@contract/guide.ts'

/**
 * Walking through a list: each step is done or skipped, and can be taken back.
 *
 *   begin ──done | skipped──> next step ── … ──> ended
 *         <────── back ───────
 *
 * 1. A reminder tied by a step that was done stays tied until the step that unties it is done.
 * 2. A swap that was skipped is not logged.
 * 3. Taking back is exact: the state is what it was before.
 * 4. Minutes are worked minutes: a pause in one step is not work unless somebody says what held it up.
 */
export interface WalkState {
  done: { key: string; said: 'done' | 'skipped'; atMs: number }[]
}
export const BEGIN: WalkState = { done: [] }
export interface WalkEnd {
  stillTied: string[]
  skipped: KindKey[]
  /** Closing questions that were not answered with yes. */
  asked: string[]
  /** Follow-ups that were done on the way. */
  settled: FollowUp[]
}

export const atStep = (steps: readonly GuideStep[], state: WalkState): GuideStep | null =>
  steps[state.done.length] ?? null

export function afterStep(
  steps: readonly GuideStep[],
  state: WalkState,
  told: { said: 'done' | 'skipped' | 'back'; atMs: number },
): WalkState {
  const { said, atMs } = told
  if (said === 'back') return { done: state.done.slice(0, -1) }
  const step = atStep(steps, state)
  return step ? { done: [...state.done, { key: step.key, said, atMs }] } : state
}

export function endOf(steps: readonly GuideStep[], state: WalkState): WalkEnd {
  const saidOf = new Map(state.done.map((d) => [d.key, d.said]))
  const tied = new Set<string>()
  for (const step of steps) {
    if (saidOf.get(step.key) !== 'done') continue
    if (step.ties) tied.add(step.ties)
    if (step.unties) tied.delete(step.unties)
  }
  // The guide that came out stays out with this wire: the change itself ties that reminder.
  tied.delete('guideOut')
  const skipped = steps.filter((s) => saidOf.get(s.key) === 'skipped')
  return {
    stillTied: [...tied],
    skipped: skipped.flatMap((s) => s.swap ?? []),
    asked: skipped.filter((s) => s.do.endsWith('?')).map((s) => s.do),
    settled: steps.flatMap((s) => (s.settles && saidOf.get(s.key) === 'done' ? [s.settles] : [])),
  }
}

/** Under this share of what it usually takes, a list was read and not worked through. */
const READ_THROUGH = 1 / 3

export interface Worked {
  /** Null where it was only read through. */
  minutes: number | null
  /** A step took so long that it was a pause, or something held it up: worth a word. */
  isLong: boolean
}

/** How long it took, from the times at which steps were said to be done; `held`: what made it long was work. */
export function workedIn(
  steps: readonly GuideStep[],
  state: WalkState,
  at: { beginMs: number; reason: string | null },
): Worked {
  const { beginMs, reason } = at
  let beforeMs = beginMs
  const timed = state.done.map(({ key, atMs }) => {
    const minutes = Math.max(0, atMs - beforeMs) / MIN_MS
    beforeMs = atMs
    return { minutes, usualMin: steps.find((s) => s.key === key)?.minutes ?? 1, reason }
  })
  const usual = timed.reduce((sum, t) => sum + t.usualMin, 0)
  const worked = workedMinutes(timed)
  const all = timed.reduce((sum, t) => sum + t.minutes, 0)
  const isReadOnly = worked < usual * READ_THROUGH || worked <= 0
  return {
    minutes: isReadOnly ? null : Math.min(600, Math.round(worked * 10) / 10),
    isLong: !isReadOnly && (all > worked + 1 || worked > usual * LONG),
  }
}
const LONG = 1.5

/** A part the shop has none of: the change would end with a wrong one. */
export const isStuck = (gun: { swaps: readonly { to: unknown }[] }) => gun.swaps.some((s) => s.to === null)
