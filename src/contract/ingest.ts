import { z } from 'zod'
import { SHEET_KINDS, type SheetKind } from '@core/ingest/guess.ts'
import { LIES } from '@core/ingest/shape.ts'
import { NOTE_VERBS } from '@core/ingest/notes.ts'
import { KIND_KEYS } from '@core/path/columns.ts'
import { idempotencyKey } from './common.ts'

export const IMPORT_KINDS = SHEET_KINDS
export type ImportKind = SheetKind
/** What a group of notes is counted as: "tip" as tips changed, cleaned, looked at, or left out. */
export const NOTE_DECISIONS = ['changed', 'cleaned', 'seen', 'out'] as const
export type NoteDecision = (typeof NOTE_DECISIONS)[number]

/**
 * A sheet as text. `columns` maps a wanted column to a heading's index; left out, the headings are guessed. `fill` says what
 * holds for every row of a sheet that has no such column; `names` which place a name means that is painted on none, or `out`.
 * `decisions` says what each group of notes is counted as; `leaveOutBad` takes the other rows when some can't be read.
 */
export const importRequest = z.object({
  kind: z.enum(IMPORT_KINDS),
  text: z.string().min(1).max(12_000_000),
  columns: z.record(z.string(), z.number().int().min(0)).optional(),
  fill: z.record(z.string().max(20), z.string().max(80)).optional(),
  names: z.record(z.string().max(80), z.string().max(40)).optional(),
  decisions: z.record(z.string().max(60), z.enum(NOTE_DECISIONS)).optional(),
  leaveOutBad: z.boolean().optional(),
  /** Names this run, so that its progress can be asked for and it can be stopped. */
  runKey: idempotencyKey.optional(),
})
export type ImportRequest = z.infer<typeof importRequest>
/** To look at a sheet nobody has to know what it holds. */
export const previewRequest = importRequest.extend({ kind: z.enum([...IMPORT_KINDS, 'guess']) })
export type PreviewRequest = z.infer<typeof previewRequest>
/** A word of this shop: which part it means, or null: none on a gun. */
export const wordRequest = z.object({
  key: idempotencyKey,
  word: z.string().trim().toLowerCase().min(1).max(40),
  kindKey: z.enum(KIND_KEYS).nullable(),
})
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
  kind: z.enum(IMPORT_KINDS),
  /** How it lay, where it was no table of one thing a row. */
  lies: z.enum(LIES).nullable(),
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
  /** Words for parts that nobody has explained yet. */
  words: z.array(z.object({ word: z.string(), notes: z.number().int(), examples: z.array(z.string()) })),
  /** Names that are painted on no place here, and in how many rows. */
  names: z.array(z.object({ name: z.string(), rows: z.number().int() })),
  /** Headings whose columns are not read. */
  notTaken: z.array(z.string()),
  /** Where a row stands in a workbook whose tabs were read one under the other. */
  rowNames: z.record(z.string(), z.string()),
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
