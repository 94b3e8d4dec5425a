import {
  type CarrierId,
  type DeviceId,
  type EventId,
  type PartId,
  type PersonId,
  type SpoolId,
  type StationId,
  type WireId,
} from '@core/ids/id.ts'
import { type OutReason, type Position } from '@core/path/columns.ts'

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
    }
  | { kind: 'removed'; carrierId: CarrierId; position: Position; outReason: OutReason }
  | { kind: 'cleaned'; carrierId: CarrierId; position: Position }
  | { kind: 'confirmed'; carrierId: CarrierId; position: Position | null }
  | { kind: 'mounted'; carrierId: CarrierId; onId: CarrierId | null }
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
  | { kind: 'restarted'; carrierId: CarrierId }
  | { kind: 'parked'; carrierId: CarrierId }
  | { kind: 'unparked'; carrierId: CarrierId }
  | { kind: 'counted'; partId: PartId; quantity: number }
  | { kind: 'received'; partId: PartId; quantity: number }
  | { kind: 'usageEntered'; carrierId: CarrierId | null; rows: number }
  | { kind: 'shopChanged'; what: string }

export const WIRE_LOST_WHYS = ['nest', 'cable emptied', 'cut back', 'let go', 'other'] as const
export type WireLostWhy = (typeof WIRE_LOST_WHYS)[number]

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
