import { z } from 'zod'
import { ID_PREFIX, type Id, type IdName } from '@core/ids/id.ts'
import { KIND_KEYS, LANES, LIFE_UNITS, OUT_REASONS } from '@core/path/columns.ts'
import { PRECISIONS } from '@core/ledger/event.ts'

/** Shapes that several requests share. Instants are UTC milliseconds; quantities SI with the unit in the name. */

/** An id as it is kept: what it is an id of is known, what it looks like is nobody's business but the server's. */
export const idOf = <N extends IdName>(_of: N): z.ZodType<Id<N>, string> =>
  z.string().min(1).max(60) as z.ZodString & z.ZodType<Id<N>, string>
/** An id that somebody sends, refused where it is another record's. */
export const idText = <N extends IdName>(of: N): z.ZodType<Id<N>, string> =>
  z
    .string()
    .regex(
      new RegExp(`^${ID_PREFIX[of]}_[0-9a-z-]{3,34}$`),
      `expected an id that starts with ${ID_PREFIX[of]}_`,
    ) as z.ZodString & z.ZodType<Id<N>, string>
export const stationId = idText('station')
export const eventId = idText('event')
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
