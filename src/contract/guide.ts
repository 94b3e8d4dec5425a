import { QUESTION_CODES } from '@core/houserule/schools.ts'
import { z } from 'zod'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { HAZARDS } from '@core/guide/cautions.ts'
import { DRAWING_KEYS } from '@core/drawings/drawing.ts'
import { GUIDE_KEYS } from '@core/guide/keys.ts'
import { OVERRUNS } from '@core/ledger/event.ts'
import { idempotencyKey, outReason, stationId, kindKey, idOf } from './common.ts'
import { partBrief } from './rightparts.ts'

export const guideKey = z.enum(GUIDE_KEYS)
export const hazard = z.enum(HAZARDS)

export const cautionLine = z.object({
  hazard,
  words: z.string(),
  how: z.enum(['ask', 'tell']),
  answer: z.string().nullable(),
})
export type CautionLine = z.infer<typeof cautionLine>

/** The shop's own words at a step, and whose they are. */
export const ownWords = z.object({
  words: z.string(),
  isInstead: z.boolean(),
  by: z.string().nullable(),
  atMs: z.number(),
})
export const guideStep = z.object({
  key: z.string(),
  phase: z.enum(['off', 'work', 'on', 'close']),
  power: z.enum(['off', 'on', 'either']),
  do: z.string(),
  look: z.string().nullable(),
  cautions: z.array(cautionLine),
  minutes: z.number(),
  ties: z.string().nullable(),
  unties: z.string().nullable(),
  swap: kindKey.nullable(),
  /** How tight the joint of this step is made. */
  tight: z.string().nullable(),
  drawing: z.enum(DRAWING_KEYS).nullable(),
  /** What followed from other acts and is done by this step. */
  settles: z.enum(FOLLOW_UPS).nullable(),
  gate: z.enum(['oldLiner', 'air', 'push', 'trim', 'trimFeeder']).nullable(),
  /** Nothing later rests on it. */
  canSkip: z.boolean(),
  /** The house rule that shaped this step, and the school that holds. */
  byRule: z.enum(QUESTION_CODES).nullable(),
  school: z.string().nullable(),
  own: ownWords.nullable(),
})
export type GuideStep = z.infer<typeof guideStep>

export const minutesLine = z.object({
  median: z.number(),
  p80: z.number(),
  /** Jobs on this family, and on others that stand in. */
  n: z.number().int(),
  others: z.number().int(),
  /** What held jobs up, most often first. */
  held: z.array(z.object({ reason: z.enum(OVERRUNS), n: z.number().int() })),
})
export type MinutesLine = z.infer<typeof minutesLine>

/** A guide for one gun, or for a family where no gun is named. */
export const guideQuery = z.object({
  stationId: stationId.optional(),
  familyId: idOf('family').optional(),
  guide: guideKey.optional(),
})
export const guideAnswer = z.object({
  stationId: stationId.nullable(),
  /** The place, or the family. */
  name: z.string(),
  familyId: idOf('family').nullable(),
  familyName: z.string().nullable(),
  /** The feeder's type, where one is told. */
  feederType: z.object({ id: idOf('feederType'), name: z.string() }).nullable(),
  wireName: z.string().nullable(),
  zone: z.string(),
  guide: guideKey.nullable(),
  title: z.string(),
  kindKey: kindKey.nullable(),
  canClean: z.boolean(),
  reasons: z.array(outReason),
  tools: z.array(z.string()),
  /** The part that goes on, where one is right. */
  put: partBrief.nullable(),
  minutes: minutesLine.nullable(),
  steps: z.array(guideStep),
  /** What it makes necessary afterwards. */
  follows: z.array(z.string()),
  /** The guide as a whole, in the shop's words. */
  own: ownWords.nullable(),
  /** Every guide there is for it. */
  guides: z.array(z.object({ key: guideKey, name: z.string(), minutes: z.number() })),
})
export type GuideAnswer = z.infer<typeof guideAnswer>

export const overrun = z.enum(OVERRUNS)
/** Work done by the list: what became of the part, and how long it took. */
export const guideDoneRequest = z.object({
  key: idempotencyKey,
  stationId,
  guide: guideKey,
  did: z.enum(['changed', 'cleaned', 'looked', 'done']),
  outReason: outReason.default('notSaid'),
  /** Worked; null where it was only read through. */
  minutes: z.number().positive().max(600).nullable(),
  overrun: overrun.nullable(),
  /** Follow-ups that were done on the way. */
  settled: z.array(z.enum(FOLLOW_UPS)).max(10).default([]),
  /** Reminders still tied. */
  stillTied: z.array(z.string()).max(10).default([]),
  note: z.string().trim().max(200).nullish(),
})
export const loggedAnswer = z.object({ eventId: idOf('event') })

export const guideNoteRequest = z.object({
  key: idempotencyKey,
  guide: guideKey,
  step: z.string().min(1).max(24),
  /** A family's, a feeder type's, or every one's. */
  familyId: z.union([z.literal('*'), idOf('family'), idOf('feederType')]),
  /** Empty: taken back. */
  words: z.string().trim().max(400),
  isInstead: z.boolean(),
})
export const cautionRequest = z.object({
  key: idempotencyKey,
  hazard,
  /** Empty: the shipped words hold again. */
  words: z.string().trim().max(240),
})
export const cautionsAnswer = z.object({
  zone: z.string(),
  cautions: z.array(
    z.object({
      hazard,
      shipped: z.string(),
      own: z.string().nullable(),
      how: z.enum(['ask', 'tell']),
      /** Near misses said of it in the last year. */
      nearMisses: z.number().int(),
      lastMs: z.number().nullable(),
      places: z.array(z.string()),
    }),
  ),
  other: z.number().int(),
})
export type CautionsAnswer = z.infer<typeof cautionsAnswer>

export const nearMissRequest = z.object({
  key: idempotencyKey,
  stationId,
  hazard: z.enum([...HAZARDS, 'other']),
})
