import {
  type FamilyId,
  type CarrierId,
  type DeviceId,
  type EntryId,
  type EventId,
  type GroupId,
  type OrderId,
  type PartId,
  type PersonId,
  type SpoolId,
  type StationId,
  type StoreId,
  type WireId,
} from '@core/ids/id.ts'
import { type FoundAtBooth, type HandItemKey } from '@core/classes/items.ts'
import { type Said } from '@core/diagnose/session.ts'
import { type Touched } from '@core/diagnose/touched.ts'
import { type Saw, type Tuned, type TunedValues, type TuneGuard } from '@core/diagnose/tune.ts'
import { type Tag } from '@core/changeover/tags.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { type Hazard } from '@core/guide/cautions.ts'
import { type TaskKey } from '@core/guide/keys.ts'
import { type How, type ReadingKey, type ReadingVerdict } from '@core/reading/keys.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'
import { type Joint, type SettingName } from '@core/rightparts/facts.ts'
import { type JointFault } from '@core/rightparts/joints.ts'
import { type ShopChange } from './shopchange.ts'

/**
 * What can be true on the floor. A fact names the carrier it happened to; the ledger never forgets one.
 * `count` > 1 on `fitted` means: so many went on since the last log, the last of them now.
 */
export type Fact =
  | {
      kind: 'fitted'
      carrierId: CarrierId
      position: Position
      partId: PartId | null
      outReason: OutReason
      count: number
      entryAge: 'new' | 'unknown'
      /** The one that was taken out before goes back on. */
      again?: true
    }
  | { kind: 'removed'; carrierId: CarrierId; position: Position; outReason: OutReason }
  | { kind: 'cleaned'; carrierId: CarrierId; position: Position }
  | { kind: 'confirmed'; carrierId: CarrierId; position: Position | null }
  /** `as`: a neck put on a gun, and whether its seat keeps the tool centre by design. */
  | { kind: 'mounted'; carrierId: CarrierId; onId: CarrierId | null; as?: 'neck' | 'keyedNeck' }
  /** `leftKg`: what was left on the spool before it. `spoolId`: which spool, where the shop tells them apart. */
  | {
      kind: 'wireLoaded'
      carrierId: CarrierId
      wireId: WireId | null
      labelKg: number | null
      leftKg: number | null
      spoolId?: SpoolId
    }
  | {
      kind: 'spoolIn'
      spoolId: SpoolId
      wireId: WireId | null
      labelKg: number | null
      lot: string | null
      tareKg: number | null
    }
  | { kind: 'wireOff'; carrierId: CarrierId; spoolId: SpoolId | null; leftKg: number | null; sdKg: number | null }
  | {
      kind: 'spoolRead'
      /** The feeder it hung on when it was read. */
      carrierId: CarrierId | null
      spoolId: SpoolId | null
      how: 'weighed' | 'measured' | 'said'
      leftKg: number
      sdKg: number
    }
  | { kind: 'wireLost'; carrierId: CarrierId | null; spoolId: SpoolId | null; kg: number; why: WireLostWhy }
  | { kind: 'spoolGone'; spoolId: SpoolId; leftKg: number | null }
  | { kind: 'stopped'; carrierId: CarrierId; position: Position | null }
  /** A robot's torch hit something. */
  | { kind: 'crashed'; carrierId: CarrierId }
  | { kind: 'restarted'; carrierId: CarrierId }
  | { kind: 'parked'; carrierId: CarrierId }
  | { kind: 'unparked'; carrierId: CarrierId }
  /** `storeId`: which of the places where parts lie; absent: the main one. */
  | { kind: 'counted'; partId: PartId; quantity: number; storeId?: StoreId }
  /** `orderId`: what it was ordered with. */
  | { kind: 'received'; partId: PartId; quantity: number; orderId?: OrderId; storeId?: StoreId }
  /** From one place where parts lie to another; null: the main one. */
  | { kind: 'carried'; partId: PartId; quantity: number; fromStoreId: StoreId | null; toStoreId: StoreId | null }
  /** Looked at and named: which part is on. It ends no life of the same part. */
  | { kind: 'found'; carrierId: CarrierId; position: Position; partId: PartId | null }
  /** Looked at on the hub: which wire it is. How much is on it was not looked at, and no spool was changed. */
  | { kind: 'wireFound'; carrierId: CarrierId; wireId: WireId }
  /** An adjustable thing as read, or as set just now. */
  | { kind: 'setting'; carrierId: CarrierId; name: SettingName; value: string; how: 'read' | 'set' }
  /** `untilMs`: when it has to be back, where somebody said. */
  | { kind: 'tied'; carrierId: CarrierId; tag: Tag; partIds?: PartId[]; untilMs?: number }
  | { kind: 'untied'; carrierId: CarrierId; tag: Tag }
  | {
      kind: 'changedOver'
      carrierId: CarrierId
      wireId: WireId
      fromWireId: WireId | null
      minutes: number | null
      usualMin?: number | null
    }
  | { kind: 'issued'; partId: PartId; quantity: number }
  | { kind: 'jointFault'; carrierId: CarrierId; joint: Joint; fault: JointFault; thread: 'ran' | 'scrapped' | null }
  | { kind: 'gunStatus'; carrierId: CarrierId; status: GunStatus }
  /** A piece of work done by the list: minutes worked, and why it took long where somebody said. */
  | {
      kind: 'taskDone'
      carrierId: CarrierId
      task: TaskKey
      familyId: FamilyId | null
      /** Null where it was only read through: it was done, and teaches nothing. */
      minutes: number | null
      reason: Overrun | null
    }
  /** A liner cut to length: measured, cut, measured, cut; what stands out at the end, and its whole length where somebody measured it. */
  | {
      kind: 'linerCut'
      carrierId: CarrierId
      by: 'A' | 'B' | 'C' | 'feeder'
      neededMm: number
      standsOutMm: number
      firstCutMm: number
      nowMm: number | null
      secondCutMm: number
      leftMm: number
      lengthMm: number | null
    }
  /** What an old part showed when it came out, and how sure that is: pulling it may have made the kink. */
  | {
      kind: 'autopsy'
      carrierId: CarrierId
      position: Position
      found: AutopsyFind[]
      isCertain: boolean
      atMm: number | null
      lengthMm: number | null
    }
  | { kind: 'stuck'; carrierId: CarrierId; position: Position; atMm: number | null; isKinked: boolean }
  /** A new part that never served: spoiled while it was put in. */
  | { kind: 'spoiled'; carrierId: CarrierId; position: Position; partId: PartId | null; why: SpoiledWhy }
  /** The empty cable blown out, from the feeder forward, with dry air. */
  | { kind: 'blown'; carrierId: CarrierId }
  | ReadingFact
  /** Slip pulls at two marks of a feeder's knob, and the line through them: N, N a mark. */
  | {
      kind: 'calibrated'
      carrierId: CarrierId
      wireId: WireId | null
      pulls: { mark: number; forcesN: number[] }[]
      atZeroN: number
      perMarkN: number
    }
  | { kind: 'followedUp'; carrierId: CarrierId; task: FollowUp }
  | { kind: 'nearMiss'; carrierId: CarrierId; hazard: Hazard | 'other' }
  /** What a stop turned out to be, and how that was come by; without a cause nobody knows. */
  | {
      kind: 'explained'
      carrierId: CarrierId
      stopFromMs: number | null
      symptom: string
      touched: Touched | null
      said: Said[]
      cause: string | null
      isCertain: boolean
      /** `seen`: what is seen, said while it is looked into. */
      by: 'search' | 'known' | 'later' | 'seen'
      closing: Closing
      /** Pieces of work scrapped with it; absent: nobody said. */
      scrapped?: number | null
    }
  /** One value of the machine changed by itself, and what a row of beads showed. */
  | {
      kind: 'tuned'
      carrierId: CarrierId
      name: Tuned
      /** Null: nobody knows what it stood at. */
      from: number | null
      to: number
      saw: Saw
      symptom: string | null
      guard: TuneGuard
    }
  /** Settings that worked, with the wire and mode they are for. */
  | {
      kind: 'tuneKept'
      carrierId: CarrierId
      wireId: WireId | null
      mode: string | null
      symptom: string | null
      values: TunedValues
    }
  | { kind: 'usageEntered'; carrierId: CarrierId | null; rows: number }
  /** A booth as the next class found it: of which class, left by which; nobody is named. */
  | {
      kind: 'handedOver'
      carrierId: CarrierId
      classId: EntryId | null
      day: string
      groupId: GroupId | null
      leftBy: GroupId | null
      found: FoundAtBooth
      /** What was found wrong and is still so. */
      still: HandItemKey[]
    }
  | { kind: 'shopChanged'; change: ShopChange }

/** One thing read on a gun: as found, and as left where it was set. Its method and wire stand beside, for only like is compared. */
export interface ReadingFact {
  kind: 'reading'
  carrierId: CarrierId
  what: ReadingKey
  method: string
  how: How
  /** In the reading's own SI unit. */
  value: number | null
  left: number | null
  grade: string | null
  /** Its verdict as it was typed, by the window that held then. */
  is: ReadingVerdict
  headId: CarrierId | null
  wireId: WireId | null
  /** Where it should have lain then; null: nothing told. */
  limit: number | null
  /** What the number was made of: diameters, pulls, loops, so many of so many. */
  from: Record<string, number | number[]>
}

/** After the fix it was fed free and welded a little: right, still the same, or nobody tried. */
export const CLOSINGS = ['good', 'still', 'notTested'] as const
export type Closing = (typeof CLOSINGS)[number]

/** Why a job took long, in a word. */
export const OVERRUNS = ['orings', 'nutWinds', 'baked', 'partMissing', 'other'] as const
export type Overrun = (typeof OVERRUNS)[number]
/** What the bench shows of an old liner. */
export const AUTOPSY_FINDS = [
  'nothing',
  'worn',
  'clogged',
  'bunched',
  'separated',
  'kinked',
  'shredded',
  'cutShort',
] as const
export type AutopsyFind = (typeof AUTOPSY_FINDS)[number]
export const SPOILED_WHYS = ['kinked', 'cutShort', 'other'] as const
export type SpoiledWhy = (typeof SPOILED_WHYS)[number]

export const WIRE_LOST_WHYS = ['nest', 'cable emptied', 'cut back', 'let go', 'other'] as const
export type WireLostWhy = (typeof WIRE_LOST_WHYS)[number]

/** A gun that hangs nowhere: ready to go on, or waiting to be put right. */
export const GUN_STATUSES = ['ready', 'toRefurbish'] as const
export type GunStatus = (typeof GUN_STATUSES)[number]

export type FactKind = Fact['kind']
export const PRECISIONS = ['exact', 'shift', 'day', 'week'] as const
export type Precision = (typeof PRECISIONS)[number]

export interface Occurrence {
  fact: Fact
  happenedMs: number
  precision: Precision
  stationId: StationId | null
}

/** One line of the ledger: a fact, or a correction that names an older line. */
export interface LedgerEvent {
  id: EventId
  happenedMs: number
  loggedMs: number
  precision: Precision
  stationId: StationId | null
  personId: PersonId | null
  deviceId: DeviceId | null
  note: string | null
  body: { type: 'fact'; fact: Fact } | Correction
}

/** `replacement` null: it did not happen. */
export interface Correction {
  type: 'correction'
  correctsId: EventId
  replacement: Occurrence | null
}

export const carrierOf = (fact: Fact): CarrierId | null => ('carrierId' in fact ? fact.carrierId : null)
export const spoolOf = (fact: Fact): SpoolId | null => ('spoolId' in fact ? (fact.spoolId ?? null) : null)
export const partOf = (fact: Fact): PartId | null => ('partId' in fact ? fact.partId : null)
