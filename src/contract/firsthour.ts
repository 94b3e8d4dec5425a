import { z } from 'zod'
import { HELP_KEYS } from '@core/firsthour/helps.ts'
import { idempotencyKey, idOf } from './common.ts'

/** What else would help this shop: at most three lines, the most worth for its time first; the area it is about, where it is about one. */
export const helpsAnswer = z.object({
  helps: z.array(z.object({ key: z.enum(HELP_KEYS), areaId: idOf('area').nullable() })),
})
export type HelpsAnswer = z.infer<typeof helpsAnswer>
/** The list closed for good, or one line of it that nothing else can tell is done. */
export const helpsClosedRequest = z.object({ key: idempotencyKey, what: z.enum(['all', 'cards']) })

/** About how much a gun of an area welds in one shift: a standing estimate, until something counts. */
export const standingRequest = z
  .object({
    key: idempotencyKey,
    areaId: idOf('area'),
    arcHours: z.number().positive().max(24).nullish(),
    kg: z.number().positive().max(500).nullish(),
  })
  .refine((u) => u.arcHours != null || u.kg != null, { message: 'give arc hours or kilograms' })
