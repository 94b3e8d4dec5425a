import { z } from 'zod'
import { USAGE_SOURCES } from '@core/clock/source.ts'
import { idempotencyKey, stationId } from './common.ts'

/** A typed shift total. `shift` is the name of one of the place's shifts; without one the whole day is meant. */
export const usageRequest = z
  .object({
    key: idempotencyKey,
    stationId,
    day: z.iso.date(),
    shift: z.string().max(40).nullish(),
    arcHours: z.number().min(0).max(24).nullish(),
    kg: z.number().min(0).max(2000).nullish(),
    starts: z.number().int().min(0).max(100_000).nullish(),
  })
  .refine((u) => u.arcHours != null || u.kg != null || u.starts != null, { message: 'give arc hours, kg or starts' })
export type UsageRequest = z.infer<typeof usageRequest>
/** Two sources of use that tell different stories of the same time: by how much the weaker is over the better one. */
export const usageDisagreement = z.object({
  better: z.enum(USAGE_SOURCES),
  weaker: z.enum(USAGE_SOURCES),
  overFraction: z.number(),
})
export const usageAnswer = z.object({
  fromMs: z.number(),
  toMs: z.number(),
  isRepeat: z.boolean(),
  disagreements: z.array(usageDisagreement),
})
