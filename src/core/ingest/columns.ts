import { CELL_COLUMNS } from './cellsheet.ts'

/** A column a sheet may have, with the words people head it by. */
export interface Wanted {
  key: string
  words: readonly string[]
  isNeeded: boolean
}

const norm = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()

/**
 * Guesses which heading is which wanted column: same words first, then a heading that contains the word; each heading is
 * used once. A wanted column without a heading stays out of the answer; nothing is guessed from values.
 * @example guessColumns(['Booth', 'Bay'], PLACE_COLUMNS) // { place: 0, area: 1 }
 */
export function guessColumns(headings: readonly string[], wanted: readonly Wanted[]): Record<string, number> {
  const found: Record<string, number> = {}
  const taken = new Set<number>()
  const take = (fits: (heading: string, word: string) => boolean) => {
    for (const { key, words } of wanted) {
      if (key in found) continue
      // The first of the words that any heading has: a list with "booth" and "name" is of booths.
      for (const word of words) {
        const index = headings.findIndex((heading, i) => !taken.has(i) && fits(norm(heading), norm(word)))
        if (index < 0) continue
        found[key] = index
        taken.add(index)
        break
      }
    }
  }
  take((heading, word) => heading === word)
  take((heading, word) => ` ${heading} `.includes(` ${word} `))
  return found
}

export const PLACE_COLUMNS: readonly Wanted[] = [
  { key: 'place', words: ['place', 'booth', 'station', 'gun', 'cell', 'bench', 'name', 'no'], isNeeded: true },
  { key: 'area', words: ['area', 'bay', 'hall', 'shop', 'line', 'room', 'tab'], isNeeded: true },
  { key: 'position', words: ['position', 'which part', 'kind', 'part kind', 'what', 'part type'], isNeeded: false },
  { key: 'part', words: ['part', 'part code', 'part no', 'code', 'item', 'part number'], isNeeded: false },
  { key: 'fitted', words: ['fitted', 'put on date', 'put on', 'date', 'changed', 'since'], isNeeded: false },
  { key: 'wire', words: ['wire', 'wire size', 'wire name'], isNeeded: false },
  { key: 'cable', words: ['cable', 'cable m', 'cable length', 'length'], isNeeded: false },
  { key: 'placeClass', words: ['class', 'place class', 'kind of place'], isNeeded: false },
  ...CELL_COLUMNS.map(({ key, words }) => ({ key, words, isNeeded: false })),
]

export const USAGE_COLUMNS: readonly Wanted[] = [
  {
    key: 'place',
    words: ['place', 'booth', 'station', 'gun', 'cell', 'bench', 'machine', 'feeder', 'equipment', 'name'],
    isNeeded: true,
  },
  { key: 'date', words: ['date', 'day', 'timestamp', 'time stamp', 'date time', 'start time', 'time'], isNeeded: true },
  { key: 'shift', words: ['shift', 'turn'], isNeeded: false },
  { key: 'arcHours', words: ['arc hours', 'arc h', 'arc time', 'arc on', 'hours', 'arc', 'duration'], isNeeded: false },
  {
    key: 'kg',
    words: ['kg', 'wire kg', 'wire', 'kg wire', 'weight', 'lb', 'lbs', 'pounds', 'wire lb', 'lb wire'],
    isNeeded: false,
  },
  { key: 'starts', words: ['starts', 'arc starts', 'ignitions'], isNeeded: false },
]

/** Past work as shops write it down: which gun, when, and a note in anybody's words. */
export const HISTORY_COLUMNS: readonly Wanted[] = [
  {
    key: 'place',
    words: ['place', 'booth', 'station', 'gun', 'cell', 'bench', 'machine', 'name', 'no', 'nr'],
    isNeeded: true,
  },
  { key: 'date', words: ['date', 'day', 'when'], isNeeded: true },
  {
    key: 'note',
    words: [
      'what',
      'what was done',
      'note',
      'notes',
      'work',
      'work done',
      'done',
      'part',
      'parts',
      'remarks',
      'comment',
      'job',
    ],
    isNeeded: true,
  },
  { key: 'count', words: ['count', 'how many', 'qty', 'quantity', 'number', 'pcs'], isNeeded: false },
  { key: 'who', words: ['who', 'by', 'person', 'done by', 'welder', 'operator', 'initials'], isNeeded: false },
]

/** A purchase list: accounts know the item, when, and how many; the rest of the list is gloves and coffee. */
export const PURCHASE_COLUMNS: readonly Wanted[] = [
  { key: 'item', words: ['item', 'article', 'description', 'part', 'what', 'product', 'name', 'code'], isNeeded: true },
  // Left out, a bill's own date above its lines says when.
  { key: 'month', words: ['month', 'date', 'period', 'when', 'day', 'delivered'], isNeeded: false },
  {
    key: 'quantity',
    words: ['quantity', 'how many', 'qty', 'amount', 'number', 'pieces', 'pcs', 'bought', 'kg'],
    isNeeded: true,
  },
  { key: 'unit', words: ['unit', 'per', 'pack', 'package', 'uom'], isNeeded: false },
  { key: 'area', words: ['area', 'bay', 'hall', 'cost centre', 'for', 'department'], isNeeded: false },
]

/** A price list, a bill or a parts cabinet: what there is, which family it is of, and what it is for. */
export const PART_COLUMNS: readonly Wanted[] = [
  {
    key: 'part',
    words: [
      'part code',
      'code',
      'part no',
      'part number',
      'article no',
      'article number',
      'article',
      'item no',
      'item',
    ],
    isNeeded: true,
  },
  // Left out, the name of the part says what it is.
  { key: 'kind', words: ['kind of part', 'kind', 'part kind', 'type', 'what'], isNeeded: false },
  { key: 'partName', words: ['name', 'description', 'designation', 'text'], isNeeded: false },
  { key: 'family', words: ['fit family', 'family', 'gun', 'system'], isNeeded: false },
  { key: 'size', words: ['size', 'bore', 'wire size'], isNeeded: false },
  { key: 'wires', words: ['for wire', 'wire from to', 'range', 'wires'], isNeeded: false },
  { key: 'made', words: ['made of', 'material'], isNeeded: false },
  { key: 'partLength', words: ['length m', 'length'], isNeeded: false },
  { key: 'faces', words: ['faces', 'grooves', 'groove'], isNeeded: false },
  { key: 'rated', words: ['rated a', 'rated', 'rating', 'amps'], isNeeded: false },
  { key: 'proof', words: ['fit known by', 'fit proof', 'fit status'], isNeeded: false },
  { key: 'forAluminium', words: ['for aluminium', 'aluminium', 'aluminum'], isNeeded: false },
  { key: 'price', words: ['unit price', 'price each', 'price', 'cost', 'each'], isNeeded: false },
  { key: 'pricePer', words: ['per', 'price per', 'price unit'], isNeeded: false },
  { key: 'onHand', words: ['on hand', 'stock', 'count', 'in stock'], isNeeded: false },
]

/** What screws and seats together, a line a family. */
export const FAMILY_COLUMNS: readonly Wanted[] = [
  { key: 'family', words: ['fit family', 'family', 'name', 'gun', 'system'], isNeeded: true },
  { key: 'thread', words: ['tip thread', 'thread'], isNeeded: false },
  { key: 'pin', words: ['pin', 'connector'], isNeeded: false },
  { key: 'linerHeld', words: ['liner held by', 'liner held', 'held by', 'retention'], isNeeded: false },
  { key: 'nozzle', words: ['nozzle', 'nozzle style'], isNeeded: false },
  { key: 'neck', words: ['neck mm', 'neck'], isNeeded: false },
  { key: 'standsOut', words: ['liner stands out mm', 'stands out', 'seat depth', 'projection'], isNeeded: false },
]
