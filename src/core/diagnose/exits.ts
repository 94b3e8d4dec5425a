/** Causes by which a search is left because nothing of the feed is wrong: joint, place, program, hand. */
export const EXITS = [
  ...(['draught', 'dirtyMetal', 'fitUp', 'wireThick', 'ampsHigh', 'coldWork', 'seamTracking', 'menu', 'hand'] as const),
] as const
const EXIT_KEYS: ReadonlySet<string> = new Set(EXITS)
export const isExit = (causeKey: string | null | undefined): boolean => EXIT_KEYS.has(causeKey ?? '')
