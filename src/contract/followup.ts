import { z } from 'zod'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { idempotencyKey, instantMs, stationId } from './common.ts'

export const followUpLine = z.object({
  task: z.enum(FOLLOW_UPS),
  sinceMs: instantMs,
  /** What was done. */
  why: z.string(),
  /** False: it waits until the gun has run a little. */
  isAsked: z.boolean(),
})
export type FollowUpLine = z.infer<typeof followUpLine>
export const followUpRequest = z.object({ key: idempotencyKey, stationId, task: z.enum(FOLLOW_UPS) })
