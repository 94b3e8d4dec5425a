import { HELPS, type HelpKey } from '@core/firsthour/helps.ts'

interface HelpWords {
  /** What is asked for, as the line begins. */
  ask: string
  /** What comes of it. */
  then: string
  to: (areaId: string | null) => string
}
const bay = (step: string | null) => (areaId: string | null) =>
  `/bay?${new URLSearchParams({ ...(areaId ? { area: areaId } : {}), ...(step ? { step } : {}) })}`

export const HELP_WORDS: Record<HelpKey, HelpWords> = {
  bay: {
    ask: 'seven questions about the bay: wire, gun, gas',
    then: 'A wrong tip or roll is found, and Down knows what it looks at.',
    to: bay(null),
  },
  limits: { ask: 'how long parts last in the trade, to take or to change', then: 'Parts come due.', to: bay('limits') },
  hours: {
    ask: 'how many hours do they weld in a shift?',
    then: 'Wear is counted from today, as an estimate.',
    to: bay('hours'),
  },
  look: {
    ask: 'what is on each gun: one tap where it is as the bay',
    then: 'What is built wrong is found.',
    to: () => '/look',
  },
  shifts: {
    ask: 'when your shifts are',
    then: '“Before the next break” is your break, and standing at night costs nothing.',
    to: () => '/shop?part=shifts',
  },
  costs: {
    ask: 'what an hour and a stopped booth cost',
    then: 'Payback tells money, and when changing is cheapest.',
    to: () => '/shop?part=rules',
  },
  sheet: {
    ask: 'the sheet or diary you have',
    then: 'Lives of your own, from the first day.',
    to: () => '/shop?part=bring',
  },
  cards: {
    ask: 'cards for the booths',
    then: 'Whoever stands there scans, and logs in two taps.',
    to: () => '/shop?part=prints',
  },
  people: { ask: 'who else works here', then: 'They sign in, and lines bear a name.', to: () => '/shop?part=people' },
}

/** "20 s", "2 min". */
export const helpTime = (key: HelpKey): string => {
  const { seconds } = HELPS[key]
  return seconds < 60 ? `${seconds} s` : `${Math.round(seconds / 60)} min`
}
