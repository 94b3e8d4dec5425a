/**
 * What else would help a young shop: the few things whose telling is worth most for the minutes it costs. A thing that is done goes; so does the list
 * once nothing is left, or when the lead closes it.
 */
export const HELPS = {
  bay: { seconds: 60, worth: 10 },
  limits: { seconds: 20, worth: 9 },
  hours: { seconds: 20, worth: 8 },
  look: { seconds: 120, worth: 6 },
  shifts: { seconds: 60, worth: 3 },
  costs: { seconds: 120, worth: 3 },
  sheet: { seconds: 300, worth: 5 },
  cards: { seconds: 60, worth: 1.5 },
  people: { seconds: 60, worth: 1 },
} as const satisfies Record<string, { seconds: number; worth: number }>
export type HelpKey = keyof typeof HELPS
export const HELP_KEYS = Object.keys(HELPS) as [HelpKey, ...HelpKey[]]

/** What a shop has told already, as far as the list goes by it. */
export interface Told {
  guns: number
  /** Areas with guns of which no wire is told. */
  baysUntold: number
  limits: number
  /** Guns whose clock tells anything. */
  gunsClocked: number
  gunsLooked: number
  shifts: number
  costsTold: boolean
  /** Lines of work that were brought in from a sheet. */
  linesBroughtIn: number
  cardsPrinted: boolean
  people: number
}

const OPEN: Record<HelpKey, (t: Told) => boolean> = {
  bay: (t) => t.baysUntold > 0,
  limits: (t) => t.limits === 0,
  hours: (t) => t.gunsClocked === 0,
  // What is on a gun can be told apart once the shop has parts.
  look: (t) => t.baysUntold === 0 && t.gunsLooked < t.guns,
  shifts: (t) => t.shifts === 0,
  costs: (t) => !t.costsTold,
  sheet: (t) => t.linesBroughtIn === 0,
  cards: (t) => !t.cardsPrinted,
  people: (t) => t.people < 2,
}
const MOST = 3

/** At most three, by worth for the time it costs; none without guns. @example helpsFor({ …nothing told }) // ['limits', 'hours', 'bay'] */
export function helpsFor(told: Told): HelpKey[] {
  if (told.guns === 0) return []
  const rate = (key: HelpKey) => HELPS[key].worth / HELPS[key].seconds
  const open = HELP_KEYS.filter((key) => OPEN[key](told))
  // A bay comes first: limits and hours mean little before anybody knows what is on it.
  const isFirst = (key: HelpKey) => Number(key === 'bay')
  return open.sort((a, b) => isFirst(b) - isFirst(a) || rate(b) - rate(a)).slice(0, MOST)
}
