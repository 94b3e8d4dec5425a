import { step, type Step } from './step.ts'

/** Something looked at or done with power off while it is open. */
export const look = (key: string, words: { do: string; look: string }, more: Partial<Step> = {}) =>
  step('work', 'off', { key, ...words, minutes: 0.5, ...more })
