/** The wire path: always these columns, in this order, under these names. `off` stands apart: off the wire. */
export const COLUMNS = [
  'spool',
  'inlet',
  'rolls',
  'outlet',
  'pin',
  'liner',
  'neck',
  'diffuser',
  'tip',
  'nozzle',
  'gas',
] as const
export type Column = (typeof COLUMNS)[number]

/** What carries a part: the chain is part → (neck) → gun → head → station. */
export const CARRIER_TYPES = ['station', 'head', 'gun', 'neck'] as const
export type CarrierType = (typeof CARRIER_TYPES)[number]

export const LIFE_UNITS = ['arcHours', 'kg', 'km', 'starts', 'matings', 'spools', 'cleanings'] as const
export type LifeUnit = (typeof LIFE_UNITS)[number]

/** Process consumables are used up by welding, wear parts wear, durable parts are mended. */
export const PART_CLASSES = ['process consumable', 'wear part', 'durable part'] as const
export type PartClass = (typeof PART_CLASSES)[number]

export const OUT_REASONS = [
  'worn',
  'burnedBack',
  'due',
  'knocked',
  'toTry',
  'stripped',
  'blocked',
  'kinked',
  'loose',
  'broken',
  'burnt',
  'poorContact',
  'holdsNot',
  'wireCatches',
  'linerSlips',
  'notSaid',
] as const
export type OutReason = (typeof OUT_REASONS)[number]

/** The kinds of parts of a wire path, in path order, with what is beside it on a gun; a shop starts with all of them and adds none. */
export const KIND_KEYS = [
  ...(['hub', 'conduit', 'booster', 'inlet', 'rolls', 'outlet', 'orings', 'plug', 'liner', 'cable'] as const),
  ...(['handle', 'trigger', 'neck', 'jump', 'diffuser', 'clampring'] as const),
  ...(['tip', 'cutter', 'nozzle', 'insulator', 'reamer', 'gas', 'lead'] as const),
] as const
export type KindKey = (typeof KIND_KEYS)[number]
const KINDS: ReadonlySet<string> = new Set(KIND_KEYS)
export const isKindKey = (text: string): text is KindKey => KINDS.has(text)

/** Where a cause lies: a column of the path or a kind in it, or off the wire. */
export const CAUSE_PLACES = [...new Set([...COLUMNS, ...KIND_KEYS, 'off' as const])] as const
/** Where a stop began, as a hand names it: a column of the path, or off the wire. */
export const PATH_PLACES = [...COLUMNS, 'off'] as const
export type PathPlace = (typeof PATH_PLACES)[number]
export type CausePlace = Column | KindKey | 'off'

/** Wires that share a nozzle are told apart by a lane; the first has none in its name. */
export const LANES = ['#2', '#3', '#4', '#5', '#6', '#7', '#8', '#9'] as const
export type Lane = (typeof LANES)[number]
/** A position is a kind, or a kind and a lane where two wires share a nozzle: `tip`, `tip#2`. */
export type Position = KindKey | `${KindKey}${Lane}`

/** The kind that sits at a position, and which lane of it: `tip#2` is the tip of lane 2. */
export function laneOfPosition(position: Position): { kind: KindKey; lane: number } {
  const [kind, lane] = position.split('#') as [KindKey, string | undefined]
  return { kind, lane: lane === undefined ? 1 : Number(lane) }
}
export const kindOfPosition = (position: Position): KindKey => laneOfPosition(position).kind

const POSITIONS: ReadonlySet<string> = new Set(KIND_KEYS.flatMap((k) => [k, ...LANES.map((lane) => k + lane)]))
export const isPosition = (text: string): text is Position => POSITIONS.has(text)

/** What comes off with a neck where necks go round; on other guns it rides on the gun itself. */
export const NECK_KINDS: readonly KindKey[] = ['neck', 'jump', 'diffuser', 'clampring', 'tip', 'nozzle', 'insulator']
const ON_NECK: ReadonlySet<KindKey> = new Set(NECK_KINDS)
export const ridesOnNeck = (position: Position): boolean => ON_NECK.has(kindOfPosition(position))

/** Parts told apart one by one: taken out good and put back it is the same life, over several stretches. The others are not. */
const WITH_IDENTITY: ReadonlySet<KindKey> = new Set(['liner', 'jump', 'neck', 'rolls', 'outlet', 'inlet'])
export const hasIdentity = (position: Position): boolean => WITH_IDENTITY.has(kindOfPosition(position))
/** Taken out for these it can go back on. */
export const isOutGood = (reason: OutReason): boolean => reason === 'toTry' || reason === 'due' || reason === 'notSaid'

/** Worn, and the four ways a diffuser shows that it is: current, nozzle, wire and liner no longer held. */
const WORN_OUT: ReadonlySet<OutReason> = new Set(['worn', 'poorContact', 'holdsNot', 'wireCatches', 'linerSlips'])
/** Wear life counts only what is worn out as its end; every other reason leaves the life censored for wear. */
export const isWornOut = (reason: OutReason) => WORN_OUT.has(reason)
