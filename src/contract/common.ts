import { z } from 'zod'
import { KIND_KEYS, LANES, LIFE_UNITS, OUT_REASONS } from '@core/path/columns.ts'
import { PRECISIONS } from '@core/ledger/event.ts'

/** Shapes that several requests share. Instants are UTC milliseconds; quantities SI with the unit in the name. */
export const idText = (prefix: string) =>
  z.string().regex(new RegExp(`^${prefix}_[0-9a-z-]{3,34}$`), `expected an id that starts with ${prefix}_`)
export const stationId = idText('stn')
export const eventId = idText('ev')
export const instantMs = z.number().int().min(0)
/** Sent by the caller with every write; the same key again answers the same and does nothing. */
export const idempotencyKey = z
  .string()
  .min(8)
  .max(80)
  .regex(/^[\w.:-]+$/)
export const kindKey = z.enum(KIND_KEYS)
/** `tip`, or `tip#2` for the tip of the second wire of a nozzle. */
export const position = z.templateLiteral([kindKey, z.enum(['', ...LANES])])
export const lifeUnit = z.enum(LIFE_UNITS)
export const outReason = z.enum(OUT_REASONS)
export const precision = z.enum(PRECISIONS)
export const placeName = z.string().trim().min(1).max(24)

export const problem = z.object({
  code: z.string(),
  message: z.string(),
  /** What to do about it, and which entries are meant. */
  details: z.array(z.string()),
})
export type Problem = z.infer<typeof problem>

export const done = z.object({ ok: z.literal(true) })
