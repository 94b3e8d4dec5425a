/** Queries that a log or a change elsewhere may have made stale: they are asked again. */
export const LIVE_KEYS = [
  'floor',
  'gun',
  'logbook',
  'shop',
  'find',
  'spools',
  'supply',
  'stock',
  'jobs',
  'waste',
  'kits',
  'cells',
  'classes',
  'groups',
  'calendar',
  'pairs',
  'houserule',
  'photo',
  'look',
  'joints',
  'spares',
  'helps',
] as const

/**
 * Queries that are left as they are: a page in the middle of which nothing may move under a gloved hand (a step, a search, a walk), what
 * somebody asked for by its own words, and what changes by this person alone. A key stands in one of the two lists; a test says so.
 */
export const STILL_KEYS = [
  ...(['audit', 'cautions', 'change', 'dedicate', 'down', 'downNow', 'drag', 'guide', 'handover'] as const),
  ...(['helped', 'knowledge', 'late', 'life', 'lifePreview', 'lifeSigns', 'liner', 'me', 'payback'] as const),
  ...([
    'holding',
    'known',
    'practice',
    'skill',
    'progress',
    'quiz',
    'reading',
    'stops',
    'teach',
    'technique',
    'trace',
    'tune',
    'walk',
  ] as const),
] as const
