/** Ids are branded strings with a prefix per record, made and checked here and nowhere else. */
declare const brand: unique symbol
export type Id<Name extends string> = string & { readonly [brand]: Name }

export const ID_PREFIX = {
  site: 'site',
  area: 'area',
  station: 'stn',
  carrier: 'car',
  kind: 'kind',
  family: 'fam',
  part: 'part',
  wire: 'wire',
  person: 'per',
  device: 'dev',
  event: 'ev',
  usage: 'use',
  life: 'life',
  rule: 'rule',
  pattern: 'shift',
  session: 'ses',
  stoppage: 'stop',
  mount: 'mnt',
  run: 'run',
  purchase: 'buy',
  tin: 'tin',
  tryout: 'try',
  spool: 'spool',
  photo: 'pic',
  feederType: 'feed',
  procedure: 'proc',
  kept: 'kept',
  guideNote: 'word',
  knowledge: 'know',
  supplier: 'supp',
  offer: 'offer',
  order: 'order',
  job: 'job',
  kit: 'kit',
  store: 'store',
  entry: 'cal',
  group: 'grp',
  lesson: 'less',
  quiz: 'quiz',
  told: 'told',
  attempt: 'prac',
  drillSet: 'dset',
} as const
export type IdName = keyof typeof ID_PREFIX

export type StationId = Id<'station'>
export type CarrierId = Id<'carrier'>
export type EventId = Id<'event'>
export type PartId = Id<'part'>
export type WireId = Id<'wire'>
export type PersonId = Id<'person'>
export type DeviceId = Id<'device'>
export type SpoolId = Id<'spool'>
export type AreaId = Id<'area'>
export type FamilyId = Id<'family'>
export type SupplierId = Id<'supplier'>
export type OrderId = Id<'order'>
export type StoreId = Id<'store'>
export type EntryId = Id<'entry'>
export type GroupId = Id<'group'>

const ALPHABET = '0123456789abcdefghjkmnpqrstvwxyz'

/**
 * A new id: prefix, nine base-32 digits of time, eleven random ones, so that ids sort roughly by the time they were made.
 * Nothing may rely on that order being exact: several servers make ids at once.
 * @param random uniform on [0, 1)
 * @example makeId('part', 1_700_000_000_000, Math.random) // 'part_…'
 */
export function makeId<N extends IdName>(name: N, atMs: number, random: () => number): Id<N> {
  let tail = ''
  for (let i = 0; i < 11; i++) tail += ALPHABET[Math.floor(random() * 32)]
  return `${idsFrom(name, atMs)}${tail}` as Id<N>
}

/** No id made from then on comes before this in order; it is none itself. */
export function idsFrom(name: IdName, atMs: number): string {
  let time = ''
  let rest = Math.max(0, Math.floor(atMs))
  for (let i = 0; i < 9; i++) {
    time = ALPHABET[rest % 32] + time
    rest = Math.floor(rest / 32)
  }
  return `${ID_PREFIX[name]}_${time}`
}

/** Reads an id that came from outside; throws RangeError when the prefix is another record's. */
export function asId<N extends IdName>(name: N, text: string): Id<N> {
  if (!text.startsWith(`${ID_PREFIX[name]}_`)) throw new RangeError(`asId: expected ${ID_PREFIX[name]}_…, got ${text}`)
  return text as Id<N>
}

/** An id that nothing bears: what is asked by it is not there. */
export const NO_ID = '' as never
