import { z } from 'zod'
import { WIRE_LOST_WHYS } from '@core/ledger/event.ts'
import { idempotencyKey, instantMs, stationId, idOf } from './common.ts'

/** What is left, how it is known, and its spread (one standard deviation). */
const left = {
  leftKg: z.number().nullable(),
  sdKg: z.number().nullable(),
  fullKg: z.number(),
  metres: z.number().nullable(),
  how: z.enum(['label', 'weighed', 'measured', 'said']).nullable(),
  knownMs: instantMs.nullable(),
}
/** A spool on a gun. */
export const spoolOnGun = z.object({
  stationId,
  name: z.string(),
  areaId: idOf('area'),
  isParked: z.boolean(),
  spoolId: idOf('spool').nullable(),
  number: z.number().int().nullable(),
  wireId: idOf('wire').nullable(),
  wireName: z.string().nullable(),
  ...left,
  /** Outside diameter over core, for the drawing: share of a full winding's build. */
  build: z.number().nullable(),
  emptyMs: instantMs.nullable(),
  emptyEarlyMs: instantMs.nullable(),
  emptyLateMs: instantMs.nullable(),
  /** More has run than was ever on it: a change went unlogged. */
  isOverrun: z.boolean(),
  /** Seconds for new wire to come through the cable. */
  threadUpS: z.number().nullable(),
  /** What lies in the cable, and is binned when the gun is emptied. */
  cableKg: z.number().nullable(),
})
export type SpoolOnGun = z.infer<typeof spoolOnGun>
export const spoolOnShelf = z.object({
  spoolId: idOf('spool'),
  number: z.number().int(),
  wireId: idOf('wire').nullable(),
  wireName: z.string().nullable(),
  lot: z.string().nullable(),
  ...left,
  build: z.number().nullable(),
  isShort: z.boolean(),
  isNew: z.boolean(),
})
export type SpoolOnShelf = z.infer<typeof spoolOnShelf>
export const spoolsAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  guns: z.array(spoolOnGun),
  shelf: z.array(spoolOnShelf),
  /** Wire lost in the last thirty days, by why. */
  lost: z.array(z.object({ why: z.enum(WIRE_LOST_WHYS), kg: z.number(), times: z.number().int() })),
  /** Wire thrown away on spools in that time. */
  thrown: z.object({ kg: z.number(), spools: z.number().int() }),
  wires: z.array(
    z.object({
      id: idOf('wire'),
      name: z.string(),
      spoolKg: z.number(),
      tareKg: z.number().nullable(),
      canMeasure: z.boolean(),
    }),
  ),
})
export type SpoolsAnswer = z.infer<typeof spoolsAnswer>

const kg = z.number().min(0).max(1000)
/** What was done with a spool: came in, put on, read, taken off, wire lost, thrown away. */
export const spoolAct = z.discriminatedUnion('act', [
  z.object({
    act: z.literal('in'),
    wireId: idOf('wire'),
    count: z.number().int().min(1).max(50).default(1),
    labelKg: kg.optional(),
    lot: z.string().trim().max(60).optional(),
    tareKg: kg.optional(),
  }),
  z.object({
    act: z.literal('load'),
    stationId,
    spoolId: idOf('spool'),
    /** What was left on the one before; none said means it was empty. */
    oldLeftKg: kg.default(0),
  }),
  z
    .object({
      act: z.literal('read'),
      stationId: stationId.optional(),
      spoolId: idOf('spool').optional(),
      grossKg: kg.optional(),
      diameterMm: z.number().positive().max(2000).optional(),
      leftKg: kg.optional(),
    })
    .refine((r) => [r.grossKg, r.diameterMm, r.leftKg].filter((v) => v !== undefined).length === 1, {
      message: 'say one of: weight on the scale, diameter, what is left',
    })
    .refine((r) => (r.stationId === undefined) !== (r.spoolId === undefined), {
      message: 'say which spool, or which gun',
    }),
  z.object({ act: z.literal('off'), stationId, leftKg: kg }),
  z.object({
    act: z.literal('lost'),
    stationId,
    why: z.enum(WIRE_LOST_WHYS),
    metres: z.number().positive().max(5000).optional(),
  }),
  z.object({ act: z.literal('gone'), spoolId: idOf('spool') }),
])
export type SpoolAct = z.input<typeof spoolAct>
export const spoolRequest = z.object({ key: idempotencyKey, what: spoolAct })
export const spoolDone = z.object({
  /** Numbers given to spools by this act, to be written on their flanges. */
  numbers: z.array(z.number().int()),
  leftKg: z.number().nullable(),
  sdKg: z.number().nullable(),
})
