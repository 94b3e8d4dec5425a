import {
  type CarrierType,
  type Column,
  type KindKey,
  type LifeUnit,
  type OutReason,
  type PartClass,
  isKindKey,
  type CausePlace,
  type PathPlace,
} from './columns.ts'

/** What a shop starts with for one kind of part; every number is a guess until the shop says otherwise. */
export interface KindDefault {
  key: KindKey
  name: string
  column: Column
  rides: CarrierType
  partClass: PartClass
  lifeUnit: LifeUnit
  canClean: boolean
  changeMin: number
  cleanMin: number
  /** Days after which nobody having seen it makes it "not seen"; null: it does not age. */
  confirmDays: number | null
  reasons: readonly OutReason[]
  /** Only some families have it: a gun gets it when somebody says so. */
  isOptional?: boolean
  synonyms: readonly string[]
}

const USUAL: readonly OutReason[] = ['worn', 'due', 'knocked', 'toTry']

/** Kinds on a plain path. Names are the trade's; synonyms make search, sheets and stock land on one kind. */
export const KIND_DEFAULTS: readonly KindDefault[] = [
  {
    key: 'hub',
    name: 'hub brake',
    column: 'spool',
    rides: 'head',
    partClass: 'durable part',
    lifeUnit: 'kg',
    canClean: false,
    changeMin: 10,
    cleanMin: 0,
    confirmDays: 30,
    reasons: USUAL,
    synonyms: ['spindle', 'spool hub', 'spool holder', 'brake'],
  },
  // Between a drum and the feeder, and beside a robot's gun: there once somebody says so.
  {
    key: 'conduit',
    name: 'wire conduit',
    column: 'spool',
    rides: 'station',
    partClass: 'wear part',
    lifeUnit: 'kg',
    canClean: false,
    changeMin: 30,
    cleanMin: 0,
    confirmDays: 180,
    reasons: ['worn', 'blocked', 'kinked', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['conduit', 'wire conduit', 'drum conduit', 'wire hose', 'feed hose'],
  },
  {
    key: 'booster',
    name: 'booster',
    column: 'spool',
    rides: 'station',
    partClass: 'durable part',
    lifeUnit: 'kg',
    canClean: false,
    changeMin: 20,
    cleanMin: 0,
    confirmDays: null,
    reasons: ['worn', 'broken', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['booster', 'assist motor', 'assist feeder', 'drum motor', 'wire booster'],
  },
  {
    key: 'inlet',
    name: 'inlet guide',
    column: 'inlet',
    rides: 'head',
    partClass: 'wear part',
    lifeUnit: 'kg',
    canClean: true,
    changeMin: 4,
    cleanMin: 2,
    confirmDays: 90,
    reasons: USUAL,
    synonyms: ['inlet', 'entry guide', 'inlet tube'],
  },
  {
    key: 'rolls',
    name: 'drive rolls',
    column: 'rolls',
    rides: 'head',
    partClass: 'wear part',
    lifeUnit: 'kg',
    canClean: true,
    changeMin: 6,
    cleanMin: 3,
    confirmDays: 90,
    reasons: USUAL,
    synonyms: [
      ...['roll', 'rolls', 'drive roll', 'roller', 'rollers', 'feed roll', 'feed rolls'],
      ...['drive wheel', 'feed wheel', 'feed roller', 'drive roller'],
    ],
  },
  {
    key: 'outlet',
    name: 'outlet guide',
    column: 'outlet',
    rides: 'head',
    partClass: 'wear part',
    lifeUnit: 'kg',
    canClean: true,
    changeMin: 4,
    cleanMin: 2,
    confirmDays: 90,
    reasons: USUAL,
    synonyms: ['outlet', 'exit guide', 'guide tube', 'guide'],
  },
  {
    key: 'orings',
    name: 'pin O-rings',
    column: 'pin',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'matings',
    canClean: false,
    changeMin: 4,
    cleanMin: 0,
    confirmDays: 90,
    reasons: USUAL,
    synonyms: ['o-ring', 'o-rings', 'oring', 'o ring', 'o rings'],
  },
  // Beside the wire, and a part of the gun all the same: control plug, cable, handle, trigger, work lead. On a gun once somebody says so.
  {
    key: 'plug',
    name: 'control plug',
    column: 'pin',
    rides: 'gun',
    partClass: 'durable part',
    lifeUnit: 'matings',
    canClean: false,
    changeMin: 10,
    cleanMin: 0,
    confirmDays: null,
    reasons: ['loose', 'broken', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['control plug', 'trigger plug', 'control lead'],
  },
  {
    key: 'liner',
    name: 'liner',
    column: 'liner',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'kg',
    canClean: false,
    changeMin: 20,
    cleanMin: 0,
    confirmDays: 90,
    reasons: ['worn', 'blocked', 'kinked', 'due', 'knocked', 'toTry'],
    synonyms: ['liner', 'conduit liner', 'spiral', 'wire liner', 'coil liner', 'gun liner'],
  },
  {
    key: 'cable',
    name: 'gun cable',
    column: 'liner',
    rides: 'gun',
    partClass: 'durable part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 30,
    cleanMin: 0,
    confirmDays: null,
    reasons: ['broken', 'burnt', 'kinked', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['cable', 'cable assembly', 'power cable', 'strain relief'],
  },
  {
    key: 'handle',
    name: 'handle',
    column: 'neck',
    rides: 'gun',
    partClass: 'durable part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 8,
    cleanMin: 0,
    confirmDays: null,
    reasons: ['broken', 'burnt', 'loose', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['handle', 'handle shell', 'grip'],
  },
  {
    key: 'trigger',
    name: 'trigger',
    column: 'neck',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'starts',
    canClean: false,
    changeMin: 6,
    cleanMin: 0,
    confirmDays: null,
    reasons: ['worn', 'broken', 'loose', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['trigger', 'gun switch', 'torch switch', 'switch'],
  },
  {
    key: 'neck',
    name: 'neck',
    column: 'neck',
    rides: 'gun',
    partClass: 'durable part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 8,
    cleanMin: 0,
    confirmDays: 90,
    reasons: USUAL,
    synonyms: ['neck', 'swan neck', 'gooseneck', 'goose neck', 'conductor tube', 'torch neck'],
  },
  {
    key: 'jump',
    name: 'jump liner',
    column: 'neck',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'kg',
    canClean: false,
    changeMin: 5,
    cleanMin: 0,
    confirmDays: 90,
    reasons: ['worn', 'blocked', 'kinked', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['jump liner', 'neck liner', 'front liner'],
  },
  {
    key: 'diffuser',
    name: 'diffuser',
    column: 'diffuser',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: true,
    changeMin: 4,
    cleanMin: 3,
    confirmDays: 30,
    // Its five duties and how each fails: current, nozzle, gas, wire, liner; and its thread.
    reasons: [
      ...(['worn', 'poorContact', 'holdsNot', 'blocked', 'wireCatches', 'linerSlips'] as const),
      ...(['stripped', 'due', 'knocked', 'toTry'] as const),
    ],
    synonyms: ['diffuser', 'gas diffuser', 'tip adapter', 'tip adaptor', 'tip holder', 'collet body', 'retaining head'],
  },
  {
    key: 'clampring',
    name: 'clamp ring',
    column: 'diffuser',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 2,
    cleanMin: 0,
    confirmDays: 30,
    reasons: ['worn', 'stripped', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['clamp ring', 'clamping ring', 'clamp nut'],
  },
  {
    key: 'tip',
    name: 'contact tip',
    column: 'tip',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: true,
    changeMin: 2,
    cleanMin: 1,
    confirmDays: 7,
    reasons: ['worn', 'burnedBack', 'due', 'knocked', 'toTry'],
    synonyms: ['tip', 'tips', 'contact tip', 'contact tube', 'current tip'],
  },
  {
    key: 'cutter',
    name: 'wire cutter blade',
    column: 'tip',
    rides: 'station',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 10,
    cleanMin: 0,
    confirmDays: 30,
    reasons: ['worn', 'broken', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['cutter', 'wire cutter', 'cutter blade', 'wire cutter blade', 'shear'],
  },
  {
    key: 'nozzle',
    name: 'nozzle',
    column: 'nozzle',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: true,
    changeMin: 1,
    cleanMin: 1,
    confirmDays: 7,
    reasons: ['worn', 'blocked', 'due', 'knocked', 'toTry'],
    synonyms: ['nozzle', 'cup', 'shroud', 'shield', 'head', 'gas nozzle', 'gas cup'],
  },
  {
    key: 'insulator',
    name: 'insulator',
    column: 'nozzle',
    rides: 'gun',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 3,
    cleanMin: 0,
    confirmDays: 30,
    reasons: USUAL,
    synonyms: ['insulator', 'nozzle insulator', 'insulating collar'],
  },
  {
    key: 'reamer',
    name: 'reamer blade',
    column: 'nozzle',
    rides: 'station',
    partClass: 'wear part',
    lifeUnit: 'arcHours',
    canClean: true,
    changeMin: 10,
    cleanMin: 3,
    confirmDays: 30,
    reasons: ['worn', 'broken', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['reamer', 'reamer blade', 'ream blade', 'cleaning station', 'nozzle cleaner'],
  },
  {
    key: 'gas',
    name: 'gas line',
    column: 'gas',
    rides: 'station',
    partClass: 'durable part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 15,
    cleanMin: 0,
    confirmDays: 30,
    reasons: USUAL,
    synonyms: ['gas hose', 'hose', 'flowmeter', 'gas line'],
  },
  {
    key: 'lead',
    name: 'work lead and clamp',
    column: 'gas',
    rides: 'station',
    partClass: 'durable part',
    lifeUnit: 'arcHours',
    canClean: false,
    changeMin: 10,
    cleanMin: 0,
    confirmDays: null,
    reasons: ['loose', 'burnt', 'broken', 'due', 'knocked', 'toTry'],
    isOptional: true,
    synonyms: ['work clamp', 'clamp', 'work lead', 'ground clamp', 'ground lead', 'earth clamp', 'earth lead'],
  },
]

const COLUMN_OF = new Map<CausePlace, PathPlace>(KIND_DEFAULTS.map((k) => [k.key, k.column]))
/** The column of the path where a cause lies; off the wire stands by itself. @example columnOf('orings') // 'pin' */
export const columnOf = (place: CausePlace): PathPlace => COLUMN_OF.get(place) ?? (isKindKey(place) ? 'off' : place)

const OPTIONAL = new Set(KIND_DEFAULTS.filter((k) => k.isOptional).map((k) => k.key))
/** Kinds that a new gun does not have until somebody says so. */
export const isOptionalKind = (key: KindKey) => OPTIONAL.has(key)
/** Whether a gun or neck comes with such a part: what not every one has, only where the fit of its family says so. */
export const comesWith = (
  key: KindKey,
  fit: { isNeckQuick: boolean; hasClampRing: boolean } | null | undefined,
): boolean =>
  !isOptionalKind(key) ||
  (key === 'jump' && fit?.isNeckQuick === true) ||
  (key === 'clampring' && fit?.hasClampRing === true)

const norm = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/^(the|a) /, '')

interface Named {
  key: string
  name: string
  synonyms: readonly string[]
}
/** Every name a list of kinds goes by, looked up once per list: sheets ask a hundred thousand times. */
const indexes = new WeakMap<readonly Named[], Map<string, Named>>()
function indexOf(kinds: readonly Named[]): Map<string, Named> {
  const kept = indexes.get(kinds)
  if (kept) return kept
  const made = new Map<string, Named>()
  for (const kind of kinds)
    for (const name of [kind.key, kind.name, ...kind.synonyms].map(norm)) if (!made.has(name)) made.set(name, kind)
  indexes.set(kinds, made)
  return made
}

/**
 * The kind a word means, by key, name or synonym; a plural "s" is forgiven.
 * @example kindFromWord('Shroud', KIND_DEFAULTS)?.key // 'nozzle'
 */
export function kindFromWord<K extends Named>(word: string, kinds: readonly K[]): K | null {
  const index = indexOf(kinds)
  const wanted = norm(word)
  return ((index.get(wanted) ?? index.get(wanted.replace(/s$/, ''))) as K | undefined) ?? null
}

/** Whether a kind goes by that word already. */
export const isWordOf = (word: string, kind: Named): boolean => kindFromWord(word, [kind]) !== null
