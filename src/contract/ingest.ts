import { z } from 'zod'
import { NOTE_VERBS } from '@core/ingest/notes.ts'
import { idempotencyKey } from './common.ts'

export const IMPORT_KINDS = ['places', 'usage', 'history', 'purchases', 'parts', 'families'] as const
export type ImportKind = (typeof IMPORT_KINDS)[number]
/** What a group of notes is counted as: "tip" as tips changed, cleaned, looked at, or left out. */
export const NOTE_DECISIONS = ['changed', 'cleaned', 'seen', 'out'] as const
export type NoteDecision = (typeof NOTE_DECISIONS)[number]

/**
 * A sheet as text. `columns` maps a wanted column to a heading's index; left out, the headings are guessed. `decisions` says
 * what each group of notes is counted as; `leaveOutBad` takes the other rows of a history when some can't be read.
 */
export const importRequest = z.object({
  kind: z.enum(IMPORT_KINDS),
  text: z.string().min(1).max(12_000_000),
  columns: z.record(z.string(), z.number().int().min(0)).optional(),
  decisions: z.record(z.string().max(60), z.enum(NOTE_DECISIONS)).optional(),
  leaveOutBad: z.boolean().optional(),
  /** Names this run, so that its progress can be asked for and it can be stopped. */
  runKey: idempotencyKey.optional(),
})
export type ImportRequest = z.infer<typeof importRequest>
export const badRow = z.object({ row: z.number().int(), column: z.string(), value: z.string(), why: z.string() })
export type BadRow = z.infer<typeof badRow>
export const noteGroup = z.object({
  key: z.string(),
  kindName: z.string(),
  verb: z.enum(NOTE_VERBS),
  notes: z.number().int(),
  parts: z.number().int(),
  examples: z.array(z.string()),
  canClean: z.boolean(),
})
export type NoteGroupLine = z.infer<typeof noteGroup>
export const importPreview = z.object({
  headings: z.array(z.string()),
  columns: z.record(z.string(), z.number()),
  wanted: z.array(z.object({ key: z.string(), label: z.string(), isNeeded: z.boolean() })),
  rows: z.number().int(),
  sample: z.array(z.array(z.string())),
  bad: z.array(badRow),
  /** Rows that nobody has to mend, left out: what they say. */
  leftOut: z.array(z.object({ row: z.number().int(), text: z.string() })),
  /** How notes fall into groups, and what in them can't be read. */
  groups: z.array(noteGroup),
  unread: z.array(z.object({ row: z.number().int(), text: z.string() })),
  /** What taking it in would do, in words with counts. */
  would: z.record(z.string(), z.number()),
  canTake: z.boolean(),
})
export type ImportPreview = z.infer<typeof importPreview>
export const importAnswer = z.object({ did: z.record(z.string(), z.number()), isRepeat: z.boolean() })

export const progressQuery = z.object({ runKey: idempotencyKey })
export const progressAnswer = z.object({ stage: z.string(), done: z.number().int(), of: z.number().int() })
export type ImportProgress = z.infer<typeof progressAnswer>
export const cancelRequest = z.object({ runKey: idempotencyKey })

/** A file, read into rows of text whatever it was. */
export const readFileAnswer = z.object({
  text: z.string(),
  /** What was seen in it, in words: its encoding, which of its sheets was read. */
  notes: z.array(z.string()),
  /** A workbook's sheets by name, and which was read. */
  sheets: z.array(z.string()),
  sheet: z.string().nullable(),
})
export type ReadFileAnswer = z.infer<typeof readFileAnswer>
