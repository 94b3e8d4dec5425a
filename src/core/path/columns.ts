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

export const LIFE_UNITS = ['arcHours', 'kg', 'starts', 'matings', 'spools', 'cleanings'] as const
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
  'notSaid',
] as const
export type OutReason = (typeof OUT_REASONS)[number]

/** A position is a kind, or a kind and a lane where two wires share a nozzle: `tip`, `tip#2`. */
export type Position = string
export function kindOfPosition(position: Position): string {
  const lane = position.indexOf('#')
  return lane < 0 ? position : position.slice(0, lane)
}

/** Parts told apart one by one: taken out good and put back it is the same life, over several stretches. The others are not. */
const WITH_IDENTITY: ReadonlySet<string> = new Set(['liner', 'jump', 'neck', 'rolls', 'reamer', 'outlet', 'inlet'])
export const hasIdentity = (position: Position): boolean => WITH_IDENTITY.has(kindOfPosition(position))
/** Taken out for these it can go back on. */
export const isOutGood = (reason: OutReason): boolean => reason === 'toTry' || reason === 'due' || reason === 'notSaid'

/** Wear life counts only "worn" as the end; every other reason leaves the life censored for wear. */
export const isWornOut = (reason: OutReason) => reason === 'worn'
