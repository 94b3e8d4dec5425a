import { type ChangeStep, type GunChange } from '@contract/changeover.ts'

/**
 * Walking through a change: each step is done or skipped, and can be taken back.
 *
 *   begin ──done | skipped──> next step ── … ──> ended
 *         <────── back ───────
 *
 * 1. A reminder tied by a step that was done stays tied until the step that unties it is done.
 * 2. A swap that was skipped is not logged.
 * 3. Taking back is exact: the state is what it was before.
 */
export interface WalkState {
  done: { key: string; said: 'done' | 'skipped' }[]
}
export const BEGIN: WalkState = { done: [] }
export interface WalkEnd {
  stillTied: string[]
  skipped: string[]
  /** Closing questions that were not answered with yes. */
  asked: string[]
}

export const atStep = (steps: readonly ChangeStep[], state: WalkState): ChangeStep | null =>
  steps[state.done.length] ?? null

export function afterStep(
  steps: readonly ChangeStep[],
  state: WalkState,
  said: 'done' | 'skipped' | 'back',
): WalkState {
  if (said === 'back') return { done: state.done.slice(0, -1) }
  const step = atStep(steps, state)
  return step ? { done: [...state.done, { key: step.key, said }] } : state
}

export function endOf(steps: readonly ChangeStep[], state: WalkState): WalkEnd {
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
  }
}

/** A part the shop has none of: the change would end with a wrong one. */
export const isStuck = (gun: Pick<GunChange, 'swaps'>) => gun.swaps.some((s) => s.to === null)
