/** Queries that a log or a change elsewhere may have made stale. */
export const LIVE_KEYS = [
  'floor',
  'gun',
  'logbook',
  'shop',
  'find',
  'spools',
  'supply',
  'houserule',
  'photo',
  'look',
  'joints',
  'spares',
] as const
