import { z } from 'zod'
import { idempotencyKey, idOf, stationId, idText } from './common.ts'

/** Guns that hang nowhere, and the act of hanging another. */
export const spareGun = z.object({
  gunId: idOf('carrier'),
  name: z.string(),
  status: z.enum(['ready', 'toRefurbish', 'not said']),
  familyName: z.string().nullable(),
  cableM: z.number().nullable(),
  sinceMs: z.number().nullable(),
  /** A gun of another family does not seat: said before it is hung. */
  fits: z.boolean(),
})
export type SpareGun = z.infer<typeof spareGun>
export const sparesQuery = z.object({ stationId: stationId.optional() })
export const sparesAnswer = z.object({
  guns: z.array(spareGun),
  /** Guns that hang at another place: one of them may be here now, and nobody said so. */
  elsewhere: z.array(z.object({ name: z.string(), stationId, stationName: z.string() })),
})
export const swapRequest = z.object({
  key: idempotencyKey,
  stationId,
  gunId: idText('carrier'),
  /** What becomes of the gun that comes off. */
  oldGun: z.enum(['ready', 'toRefurbish']),
})
export const gunRequest = z.object({
  key: idempotencyKey,
  name: z.string().trim().min(1).max(40),
  familyId: idOf('family').nullable(),
  cableM: z.number().positive().max(60).nullable(),
})
export const statusRequest = z.object({
  key: idempotencyKey,
  gunId: idText('carrier'),
  status: z.enum(['ready', 'toRefurbish']),
})
