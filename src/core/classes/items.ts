import { type DrawingKey } from '@core/drawings/drawing.ts'
import { type Column } from '@core/path/columns.ts'

/**
 * What the next one at a booth looks at before the first bead, in half a minute (P184): each has one answer that is right and one or two that are not.
 * None is a person's: it is how the booth was found.
 */
export interface LeftWrong {
  key: string
  says: string
}
export interface HandItem {
  /** What is looked at. */
  name: string
  /** Where on the path it stands; `off`: beside it. */
  at: Column | 'off'
  right: string
  wrong: readonly [LeftWrong, ...LeftWrong[]]
  /** What puts it right, for a hand that just found it. */
  putRight: string
  /** Hands go where current may be: off first. */
  wantsOff: boolean
  /** Which pair of the library shows it. */
  pair: PairKey
  /** Minutes it costs whoever does not see it: a guess. */
  costMin: number
}

export const PAIR_KEYS = [
  'spoolEnd',
  'spoolWay',
  'rollFace',
  'pressure',
  'gunHome',
  'cable',
  'linerEnd',
  'tipTight',
  'tipBore',
  'nozzle',
  'insulator',
  'flow',
  'clamp',
  'menu',
  'hanger',
  'beadGas',
  'beadDistance',
  'brush',
] as const
export type PairKey = (typeof PAIR_KEYS)[number]

export const HAND_ITEMS = {
  flow: {
    name: 'Gas flow',
    at: 'gas',
    right: 'as on the card',
    wrong: [
      { key: 'changed', says: 'another figure' },
      { key: 'leftOpen', says: 'left open' },
    ],
    putRight: 'Set it with the trigger pulled, arc off.',
    wantsOff: false,
    pair: 'flow',
    costMin: 3,
  },
  gunHome: {
    name: 'Gun in its socket',
    at: 'pin',
    right: 'home, locked',
    wrong: [{ key: 'halfOut', says: 'half out' }],
    putRight: 'Power off. Push it home, lock it, tug once.',
    wantsOff: true,
    pair: 'gunHome',
    costMin: 5,
  },
  tip: {
    name: 'Contact tip',
    at: 'tip',
    right: 'snug',
    wrong: [
      { key: 'loose', says: 'loose' },
      { key: 'overTight', says: 'too tight' },
    ],
    putRight: 'Power off, cold gun: snug, then a nudge.',
    wantsOff: true,
    pair: 'tipTight',
    costMin: 4,
  },
  cable: {
    name: 'Cable',
    at: 'liner',
    right: 'laid out',
    wrong: [
      { key: 'coiled', says: 'coiled or bent' },
      { key: 'towed', says: 'pulled tight' },
    ],
    putRight: 'Lay it in one wide bow, machine near.',
    wantsOff: false,
    pair: 'cable',
    costMin: 3,
  },
  menu: {
    name: 'Machine’s menu',
    at: 'off',
    right: 'as on the card',
    wrong: [{ key: 'changed', says: 'something else' }],
    putRight: 'Back to the booth card, one by one.',
    wantsOff: false,
    pair: 'menu',
    costMin: 4,
  },
  hanger: {
    name: 'Gun on its hanger',
    at: 'off',
    right: 'hung up',
    wrong: [
      { key: 'lying', says: 'lying about' },
      { key: 'onTrigger', says: 'on its trigger' },
    ],
    putRight: 'Hang it, mouth down, off the trigger.',
    wantsOff: false,
    pair: 'hanger',
    costMin: 1,
  },
  clamp: {
    name: 'Work clamp',
    at: 'off',
    right: 'tight, bright',
    wrong: [
      { key: 'loose', says: 'loose or on rust' },
      { key: 'off', says: 'not on' },
    ],
    putRight: 'Power off. Bright spot, clamp it on hard.',
    wantsOff: true,
    pair: 'clamp',
    costMin: 3,
  },
} as const satisfies Record<string, HandItem>
export type HandItemKey = keyof typeof HAND_ITEMS
export const HAND_ITEM_KEYS = Object.keys(HAND_ITEMS) as [HandItemKey, ...HandItemKey[]]
export const handItem = (key: HandItemKey): HandItem => HAND_ITEMS[key]

/** How one was found: right, or one of its own ways of being wrong. Not in it: nobody looked. */
export const RIGHT = 'right'
export type FoundAtBooth = Partial<Record<HandItemKey, string>>
export const isAnswer = (item: HandItemKey, answer: string): boolean =>
  answer === RIGHT || handItem(item).wrong.some((w) => w.key === answer)
export const wrongOf = (found: FoundAtBooth): HandItemKey[] =>
  HAND_ITEM_KEYS.filter((k) => found[k] !== undefined && found[k] !== RIGHT)

/** A pair of the library: how it looks when it is right, how when it is not, and why it matters; the shop's own words stand in place of these. */
export interface Pair {
  at: Column | 'off'
  name: string
  right: string
  wrong: string
  why: string
  /** Two minutes with a real one. */
  exercise: string
  drawing: DrawingKey
}
