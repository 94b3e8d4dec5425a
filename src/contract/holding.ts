import { z } from 'zod'
import { HELD } from '@core/holding/holding.ts'

/** How the program holds up here, for whoever looks after it. */
export const holdingAnswer = z.object({
  nowMs: z.number(),
  zone: z.string(),
  isDemo: z.boolean(),
  upSinceMs: z.number(),
  answeredMs: z.number(),
  databaseBytes: z.number(),
  backups: z
    .object({ isKept: z.boolean(), newestMs: z.number().nullable(), count: z.number().int(), bytes: z.number() })
    .nullable(),
  disk: z.object({ freeBytes: z.number(), totalBytes: z.number() }).nullable(),
  clockAheadMs: z.number(),
  feeders: z.array(z.object({ name: z.string(), heardMs: z.number().nullable(), clockOffMs: z.number() })),
  countingSinceMs: z.number().nullable(),
  /** Entries of devices that could not be kept, the newest first. */
  refusals: z.array(z.object({ atMs: z.number(), from: z.string(), why: z.string() })),
  refused: z.number().int(),
  lines: z.array(z.object({ what: z.enum(HELD), level: z.enum(['well', 'look', 'act', 'unknown']) })),
})
export type HoldingAnswer = z.infer<typeof holdingAnswer>
