import { z } from 'zod'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { SETTINGS } from '@core/rightparts/facts.ts'
import { idempotencyKey, idOf, stationId, position, kindKey, idText } from './common.ts'
import { guideStep } from './guide.ts'
import { findingLine, partBrief } from './rightparts.ts'

export const changeQuery = z.object({
  stationIds: z.string().min(1).max(8000),
  wireId: idText('wire'),
  procedureId: idOf('procedure').optional(),
  isScrapped: z.enum(['yes', 'no']).optional(),
})
export const gunChange = z.object({
  stationId,
  name: z.string(),
  fromWire: z.string().nullable(),
  swaps: z.array(
    z.object({
      kindKey,
      from: partBrief.nullable(),
      to: partBrief.nullable(),
      because: findingLine,
      isKept: z.boolean(),
    }),
  ),
  turns: z.object({ rolls: z.array(z.number().int()), readMm: z.number() }).nullable(),
  /** Rolls that stay and whose face nobody has read. */
  unread: z.object({ rolls: z.array(z.number().int()), readMm: z.number() }).nullable(),
  outletGuide: z.enum(['stays', 'out', 'back']),
  stays: z.array(partBrief),
  unknown: z.array(kindKey),
  /** Due or asking to be looked at, and not part of the change: the gun is open anyway. */
  alsoDue: z.array(z.object({ position, state: z.enum(['due', 'look']) })),
  settings: z.partialRecord(z.enum(SETTINGS), z.string()),
  left: z.array(findingLine),
  steps: z.array(guideStep),
  cost: z.object({
    minutes: z.number(),
    minutesLow: z.number(),
    minutesHigh: z.number(),
    /** Changes logged here that the minutes were learnt from. */
    learntFrom: z.number().int(),
    wireM: z.number(),
    wireKg: z.number(),
    wireMinor: z.number().nullable(),
    gasL: z.number(),
    gasMinor: z.number().nullable(),
    standMinor: z.number().nullable(),
  }),
})
export type GunChange = z.infer<typeof gunChange>
export const changeAnswer = z.object({
  toWire: z.string(),
  toWireId: idOf('wire'),
  currency: z.string(),
  guns: z.array(gunChange),
  /** All guns' parts together, against the shelf. */
  parts: z.array(partBrief.extend({ wanted: z.number().int() })),
  minutes: z.number(),
})
export type ChangeAnswer = z.infer<typeof changeAnswer>

export const changeRequest = z.object({
  key: idempotencyKey,
  stationIds: z.array(stationId).min(1).max(60),
  wireId: idText('wire'),
  procedureId: idOf('procedure').nullish(),
  isScrapped: z.boolean(),
  /** How long it took, where somebody measured it. */
  minutes: z.number().positive().max(600).nullish(),
  /** What followed from other acts and was done on the way. */
  settled: z.array(z.enum(FOLLOW_UPS)).max(10).default([]),
  /** Reminders that are still tied when it ends: their undoing was not ticked. */
  stillTied: z.array(z.string()).max(10),
  /** What did not go on after all. */
  skipped: z.array(z.string()).max(20),
  /** Rolls that stayed and nobody had read were not read now either. */
  isUnread: z.boolean().default(false),
  /** What was not yet so when it was left. */
  note: z.string().trim().max(200).nullish(),
})
export const changedAnswer = z.object({ eventIds: z.array(idOf('event')) })

/** A day of work: so many booths on a wire in a period, typed or from a sheet. */
export const dayRequest = z.object({
  lines: z
    .array(z.object({ booth: z.string().max(24), period: z.string().max(40), wireId: idText('wire') }))
    .min(1)
    .max(600),
})
export const dayAnswer = z.object({
  currency: z.string(),
  isExact: z.boolean(),
  periods: z.array(z.string()),
  booths: z.array(
    z.object({
      name: z.string(),
      startsWith: z.string().nullable(),
      entered: z.array(z.string().nullable()),
      plan: z.array(z.string()),
    }),
  ),
  entered: z.object({ changes: z.number().int(), minutes: z.number(), minor: z.number().nullable() }),
  grouped: z.object({ changes: z.number().int(), minutes: z.number(), minor: z.number().nullable() }),
})
export type DayAnswer = z.infer<typeof dayAnswer>

export const dedicateQuery = z.object({
  stationId,
  gunMinor: z.coerce.number().int().min(0).max(100_000_000),
  gunYears: z.coerce.number().positive().max(40),
})
export const dedicateAnswer = z.object({
  currency: z.string(),
  changes: z.number().int(),
  days: z.number(),
  minutesPerChange: z.number(),
  costPerChangeMinor: z.number(),
  perYearMinor: z.number(),
  lowMinor: z.number(),
  highMinor: z.number(),
  breakEvenPerYear: z.number().nullable(),
  changesPerYear: z.number(),
  says: z.enum(['pays', 'does not pay', 'too few to tell']),
})
export type DedicateAnswer = z.infer<typeof dedicateAnswer>
