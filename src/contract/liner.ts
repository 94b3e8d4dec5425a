import { z } from 'zod'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { AUTOPSY_FINDS } from '@core/ledger/event.ts'
import { LINER_CLAUSES, WEAK_SIGNS } from '@core/liner/clauses.ts'
import { idempotencyKey, instantMs, outReason, stationId } from './common.ts'
import { guideStep, minutesLine, overrun } from './guide.ts'
import { partBrief } from './rightparts.ts'

/** Longer than any gun: a slip of the unit is asked about long before. */
const lengthMm = z.number().min(0).max(60_000)
export const trimBy = z.enum(['A', 'B', 'C', 'feeder', 'notTold'])

const atMs = instantMs
/** What speaks of a liner since it went on. */
export const linerEvidence = z.object({
  kinkMs: instantMs.nullable(),
  pull: z.object({ baseline: z.number(), value: z.number(), atMs }).nullable(),
  tips: z.object({ n: z.number().int(), atMs }).nullable(),
  straightMs: instantMs.nullable(),
  weak: z.array(z.object({ sign: z.enum(WEAK_SIGNS), atMs })),
})
/** What the shop's rule makes of it. */
export const linerVerdict = z.object({
  say: z.enum(['change', 'look', 'nothing']),
  signs: z.array(z.object({ clause: z.enum(LINER_CLAUSES), atMs, n: z.number().nullable() })),
  weak: z.array(z.enum(WEAK_SIGNS)),
  isLengthUsed: z.boolean(),
})

export const linerQuery = z.object({ stationId })
export const linerAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  stationId,
  name: z.string(),
  gunName: z.string().nullable(),
  familyName: z.string().nullable(),
  wireName: z.string().nullable(),
  put: partBrief.nullable(),
  putLengthMm: z.number().nullable(),
  isTube: z.boolean(),
  cutter: z.string(),
  cableMm: z.number().nullable(),
  neckMm: z.number().nullable(),
  /** Shortest liner to order; null where nobody told the cable. */
  orderMm: z.number().nullable(),
  clearFloorMm: z.number(),
  /** Why a second pair of hands is wanted; none where one does. */
  secondPerson: z.array(z.enum(['longCable', 'coated', 'stuckBefore'])),
  /** Which end is cut and how; what must stand out, where it is told. */
  by: trimBy,
  neededMm: z.number().nullable(),
  shouldBe: z.enum(['A', 'B']).nullable(),
  bareFrontMm: z.number().nullable(),
  quarterBend: z.object({ mm: z.number(), fromMm: z.number(), toMm: z.number() }),
  seatToNipMm: z.number().nullable(),
  minutes: minutesLine,
  /** The last one cut for this gun. */
  last: z.object({ atMs: instantMs, by: trimBy, leftMm: z.number(), lengthMm: z.number().nullable() }).nullable(),
  stuckBefore: z.array(z.object({ atMm: z.number(), atMs: instantMs })),
  /** New liners spoiled before they served, of those used, in a year, in this shop. */
  spoiled: z.object({ n: z.number().int(), of: z.number().int() }),
  /** Where old liners of this gun were bad, newest first. */
  autopsies: z.array(
    z.object({
      atMs: instantMs,
      found: z.array(z.enum(AUTOPSY_FINDS)),
      isCertain: z.boolean(),
      atMm: z.number().nullable(),
    }),
  ),
  reasons: z.array(outReason),
  steps: z.array(guideStep),
})
export type LinerAnswer = z.infer<typeof linerAnswer>

export const stuckRequest = z.object({
  key: idempotencyKey,
  stationId,
  /** From the feeder end of the cable; null where nobody could tell. */
  atMm: lengthMm.nullable(),
  isKinked: z.boolean(),
})
export const stuckAnswer = z.object({
  is: z.enum(['scrap', 'cable', 'neck', 'straighten', 'glides']),
  beforeMs: instantMs.nullable(),
})
export type StuckAnswer = z.infer<typeof stuckAnswer>

export const spoiledRequest = z.object({ key: idempotencyKey, stationId, why: z.enum(['kinked', 'cutShort', 'other']) })

export const linerDoneRequest = z.object({
  key: idempotencyKey,
  stationId,
  outReason: outReason.default('notSaid'),
  old: z
    .object({
      found: z.array(z.enum(AUTOPSY_FINDS)).max(8),
      isCertain: z.boolean(),
      atMm: lengthMm.nullable(),
      lengthMm: lengthMm.nullable(),
    })
    .nullable(),
  isBlown: z.boolean(),
  cut: z
    .object({
      by: z.enum(['A', 'B', 'C', 'feeder']),
      neededMm: lengthMm,
      standsOutMm: lengthMm,
      firstCutMm: lengthMm,
      nowMm: lengthMm.nullable(),
      secondCutMm: lengthMm,
      leftMm: lengthMm,
      lengthMm: lengthMm.nullable(),
    })
    .refine((c) => c.firstCutMm + c.secondCutMm <= c.standsOutMm, {
      message: 'more was cut than stood out: measure again',
      path: ['firstCutMm'],
    })
    .nullable(),
  minutes: z.number().positive().max(600).nullable(),
  overrun: overrun.nullable(),
  settled: z.array(z.enum(FOLLOW_UPS)).max(10).default([]),
  stillTied: z.array(z.string()).max(10).default([]),
  note: z.string().trim().max(200).nullish(),
})
