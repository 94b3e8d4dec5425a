import { z } from 'zod'
import { idempotencyKey, idOf, kindKey, lifeUnit, stationId, idText } from './common.ts'

/** What is wrong with a spare at a place: it will never hang there, or what has to be put right on the bench first. */
export const amiss = z.discriminatedUnion('is', [
  z.object({ is: z.literal('seat'), wants: z.string().nullable(), has: z.string().nullable() }),
  z.object({ is: z.literal('length'), wantsM: z.number(), hasM: z.number() }),
  z.object({ is: z.literal('rating'), amps: z.number(), ratedAmps: z.number() }),
  z.object({ is: z.literal('part'), kindKey, rule: z.string() }),
  z.object({ is: z.literal('untold'), kindKey }),
  z.object({ is: z.literal('spent'), kindKey, used: z.number(), limit: z.number(), unit: lifeUnit }),
  z.object({ is: z.literal('toMend') }),
])
export const spareVerdict = z.object({
  is: z.enum(['right', 'toMakeRight', 'never']),
  amiss: z.array(amiss),
  /** Of the parts to be changed and looked at; null: it never will be right. */
  minutes: z.number().nullable(),
})
export type SpareVerdictLine = z.infer<typeof spareVerdict>

/** Guns that hang nowhere, and the act of hanging another. */
export const spareGun = z.object({
  gunId: idOf('carrier'),
  name: z.string(),
  status: z.enum(['ready', 'toRefurbish', 'not said']),
  familyName: z.string().nullable(),
  cableM: z.number().nullable(),
  sinceMs: z.number().nullable(),
  /** Judged for the place that was asked about; null: none was. */
  here: spareVerdict.nullable(),
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
