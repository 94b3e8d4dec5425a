/** Answers a booth can do with as it last saw them, when the server does not answer within a few seconds. First words of their paths. */
export const AT_THE_BOOTH = [
  ...([
    'floor',
    'gun',
    'down',
    'walk',
    'handover',
    'audit',
    'reading',
    'drag',
    'find',
    'shop',
    'guide',
    'liner',
  ] as const),
  ...(['cells', 'classes', 'practice', 'rightparts', 'changeover', 'houserule', 'followup', 'people/me'] as const),
] as const
/** Answers for a desk, or that are worth nothing when they are old. */
export const AT_THE_DESK = [
  'calendar',
  'ingest',
  'life',
  'logbook',
  'moved',
  'parts',
  'payback',
  'photo',
  'spools',
] as const

/** As the service worker matches it: only what begins with one of them. */
export const boothPattern = `\\/api\\/(${AT_THE_BOOTH.join('|').replaceAll('/', '\\/')})([/?]|$)`
const BOOTH = new RegExp(`^${boothPattern}`)
export const isAtTheBooth = (path: string): boolean => BOOTH.test(path)
