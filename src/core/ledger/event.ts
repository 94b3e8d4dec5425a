import {
  type CarrierId,
  type DeviceId,
  type EventId,
  type PartId,
  type PersonId,
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
  | { kind: 'wireLoaded'; carrierId: CarrierId; wireId: WireId | null; labelKg: number | null; leftKg: number | null }
  | { kind: 'stopped'; carrierId: CarrierId; position: Position | null }
  | { kind: 'restarted'; carrierId: CarrierId }
  | { kind: 'parked'; carrierId: CarrierId }
  | { kind: 'unparked'; carrierId: CarrierId }
  | { kind: 'counted'; partId: PartId; quantity: number }
  | { kind: 'received'; partId: PartId; quantity: number }
  | { kind: 'usageEntered'; carrierId: CarrierId | null; rows: number }
  | { kind: 'shopChanged'; what: string }

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
export const partOf = (fact: Fact): PartId | null => ('partId' in fact ? fact.partId : null)
