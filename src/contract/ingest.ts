import { z } from 'zod'

export const IMPORT_KINDS = ['places', 'usage'] as const
/** A sheet as text. `columns` maps a wanted column to a heading's index; left out, the headings are guessed. */
export const importRequest = z.object({
  kind: z.enum(IMPORT_KINDS),
  text: z.string().min(1).max(5_000_000),
  columns: z.record(z.string(), z.number().int().min(0)).optional(),
})
export type ImportRequest = z.infer<typeof importRequest>
export const badRow = z.object({ row: z.number().int(), column: z.string(), value: z.string(), why: z.string() })
export type BadRow = z.infer<typeof badRow>
export const importPreview = z.object({
  headings: z.array(z.string()),
  columns: z.record(z.string(), z.number()),
  wanted: z.array(z.object({ key: z.string(), label: z.string(), isNeeded: z.boolean() })),
  rows: z.number().int(),
  sample: z.array(z.array(z.string())),
  bad: z.array(badRow),
  /** What taking it in would do, in words with counts. */
  would: z.record(z.string(), z.number()),
  canTake: z.boolean(),
})
export type ImportPreview = z.infer<typeof importPreview>
export const importAnswer = z.object({ did: z.record(z.string(), z.number()), isRepeat: z.boolean() })
