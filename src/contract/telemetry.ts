import { z } from 'zod'
import { idempotencyKey, stationId } from './common.ts'

/** One message of a feeder: counters as they stand, oldest first. The same message again changes nothing. */
export const feederRow = z.object({
  equipmentId: z.string().min(1).max(40),
  /** Changes whenever the equipment starts again. */
  bootId: z.string().min(1).max(40),
  /** Counts up by one with every row of a boot. */
  seq: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
  /** The device's own clock; only how long before `sentMs` matters. */
  deviceMs: z.number().int(),
  wireFedM: z.number().min(0).max(1e9),
  arcOnS: z.number().min(0).max(1e9),
  arcStarts: z.number().int().min(0).max(1e9),
  /** Travel of the rolls’ rim, where it is measured beside the wire. */
  rollFedM: z.number().min(0).max(1e9).optional(),
  /** Starts that came to nothing. */
  startsFailed: z.number().int().min(0).max(1e9).optional(),
  isArcOn: z.boolean().optional(),
  amps: z.number().min(0).max(2000).optional(),
  volts: z.number().min(0).max(200).optional(),
  motorAmps: z.number().min(0).max(100).optional(),
  gasFlowLpm: z.number().min(0).max(200).optional(),
})
export type FeederRowSent = z.infer<typeof feederRow>
/** Rows are looked at one by one, so that one bad row does not cost the others. */
export const telemetryRequest = z.object({
  /** The device's clock when it sends this. */
  sentMs: z.number().int(),
  rows: z.array(z.unknown()).min(1).max(5000),
})
/** The same as equipment should send it: what the description of the API shows. */
export const telemetryMessage = telemetryRequest.extend({ rows: z.array(feederRow).min(1).max(5000) })
export const telemetryAnswer = z.object({
  accepted: z.number().int(),
  duplicates: z.number().int(),
  refused: z.array(z.object({ index: z.number().int(), why: z.string() })),
  /** How far the device's clock is off, in ms; told so that somebody can put it right. */
  clockOffMs: z.number().int(),
})
export type TelemetryAnswer = z.infer<typeof telemetryAnswer>

export const feederRequest = z.object({
  key: idempotencyKey,
  stationId,
  equipmentId: z
    .string()
    .trim()
    .min(1)
    .max(40)
    .regex(/^[\w .:-]+$/, 'letters, figures, space, dot, colon and dash'),
})
export const feederAnswer = z.object({ equipmentId: z.string(), token: z.string() })
