import { z } from 'zod'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { CLEANING_WAYS } from '@core/cleaning/interval.ts'
import { schoolKeys } from '@core/houserule/schools.ts'
import { HOWS, READINGS, VERDICTS } from '@core/reading/keys.ts'
import { idempotencyKey, instantMs, stationId, kindKey, idOf } from './common.ts'

const number = z.number().finite()
export const target = z.object({
  from: z.number().nullable(),
  to: z.number().nullable(),
  actBelow: z.number().nullable(),
  actAbove: z.number().nullable(),
  by: z.enum(['window', 'baseline', 'procedure', 'wire', 'rule', 'shop', 'scale', 'guess']),
  n: z.number().int().optional(),
  bore: z.object({ leastMm: z.number(), lookMm: z.number(), actMm: z.number() }).optional(),
})

export const keptLine = z.object({
  eventId: idOf('event'),
  atMs: instantMs,
  method: z.string(),
  how: z.enum(HOWS),
  value: z.number().nullable(),
  left: z.number().nullable(),
  grade: z.string().nullable(),
  is: z.enum(VERDICTS),
  /** Who read it; told to leads only. */
  who: z.string().nullable(),
})
export type KeptLine = z.infer<typeof keptLine>

export const trendLine = z.object({
  is: z.enum(['few', 'steady', 'creeps', 'over']),
  n: z.number().int(),
  method: z.string(),
  unit: z.enum(['kg', 'days']),
  points: z.array(z.object({ usage: z.number(), value: z.number(), atMs: instantMs })),
  baseline: z.number().nullable(),
  limit: z.number().nullable(),
  risen: z.number().nullable(),
  slope: z.number().nullable(),
  intercept: z.number().nullable(),
  /** First reading after a jump. */
  jumpedMs: instantMs.nullable(),
  /** Usage still to go to the limit, and the dates; null: no crossing in sight. */
  crossing: z
    .object({
      usage: z.number(),
      early: z.number(),
      late: z.number().nullable(),
      atMs: instantMs.nullable(),
      earlyMs: instantMs.nullable(),
      lateMs: instantMs.nullable(),
    })
    .nullable(),
})
export type TrendLine = z.infer<typeof trendLine>

export const readingLine = z.object({
  what: z.enum(READINGS),
  target: target.nullable(),
  last: keptLine.nullable(),
  history: z.array(keptLine),
  trend: trendLine.nullable(),
  /** Found otherwise than it was left: since when, by how much, who left it (leads only). */
  changed: z.object({ sinceMs: instantMs, by: z.number(), leftBy: z.string().nullable() }).nullable(),
  /** Another reading that cannot be right together with the last. */
  against: keptLine.nullable(),
})
export type ReadingLine = z.infer<typeof readingLine>

export const alarmLine = z.object({
  what: z.enum(READINGS),
  at: kindKey,
  is: z.enum(['act', 'look', 'creeps', 'over', 'jumped']),
  sinceMs: instantMs,
  seen: z.object({ method: z.string(), grade: z.string() }).optional(),
  isWatched: z.literal(true).optional(),
})
export type AlarmLine = z.infer<typeof alarmLine>

export const readingQuery = z.object({ stationId })
export const readingAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  stationId,
  name: z.string(),
  wireName: z.string().nullable(),
  /** A robot's: other things can hurt, and its tool centre is read. */
  isCell: z.boolean().default(false),
  readings: z.array(readingLine),
  alarms: z.array(alarmLine),
  /** The knob raised to keep going, till when. */
  raised: z.object({ sinceMs: instantMs, untilMs: instantMs.nullable() }).nullable(),
  /** How the shop tests tension, and whether it is raised to keep going. */
  schools: z.object({ tension: z.enum(schoolKeys('D02')), raise: z.enum(schoolKeys('D25')) }),
  /** Gas flow at the beginning and the end of the last stretch of work. */
  flow: z
    .object({
      startMs: instantMs,
      endMs: instantMs,
      startLPerMin: z.number(),
      endLPerMin: z.number(),
      is: z.enum(['held', 'fell', 'rose']),
    })
    .nullable(),
  /** Hours of welding the cylinder still lasts by its last gauge, and the flow that goes by; null: nobody read it, or said what it holds. */
  gasLeft: z
    .object({
      hours: z.number(),
      lowH: z.number(),
      highH: z.number(),
      flowLPerMin: z.number(),
      isFlowRead: z.boolean(),
      atMs: instantMs,
    })
    .nullable(),
  /** Anti-spatter in use at the place, and since when. */
  antiSpatter: z.object({ agent: z.string(), sinceMs: instantMs }).nullable(),
  /** How often the nozzle is cleaned here: arc hours, and whose number that is. */
  cleaning: z
    .object({
      limitH: z.number().nullable(),
      by: z.enum(['rule', 'found', 'school']).nullable(),
      way: z.enum(CLEANING_WAYS),
      /** What its own findings would have it be. */
      learntH: z.number(),
      n: z.number().int(),
      isHeld: z.enum(['up', 'down']).nullable(),
      sinceH: z.number().nullable(),
    })
    .nullable(),
})
export type ReadingAnswer = z.infer<typeof readingAnswer>

export const readingRequest = z
  .object({
    key: idempotencyKey,
    stationId,
    what: z.enum(READINGS),
    method: z.string().max(16),
    how: z.enum(HOWS),
    value: number.nullable().default(null),
    left: number.nullable().default(null),
    grade: z.string().max(16).nullable().default(null),
    from: z.record(z.string().max(16), z.union([number, z.array(number).max(12)])).default({}),
    happenedMs: instantMs.optional(),
    /** Left higher than found: to keep a gun going, till when; null days: till it is put back, where the shop sets no day. */
    keepGoing: z
      .object({ days: z.number().int().min(1).max(30).nullable() })
      .nullable()
      .default(null),
    /** Follow-ups that this settles. */
    settled: z.array(z.enum(FOLLOW_UPS)).max(4).default([]),
    /** Yes, that number: asked back once, and meant. */
    isMeant: z.boolean().default(false),
    /** Outside what is written down and meant to be: the note says why. */
    isOnPurpose: z.boolean().default(false),
    note: z.string().trim().max(200).nullish(),
  })
  .refine((r) => r.value !== null || r.grade !== null || r.left !== null || Object.keys(r.from).length > 0, {
    message: 'nothing was read: give a number or what was seen',
    path: ['value'],
  })
  .refine((r) => !r.isOnPurpose || r.note, { message: 'on purpose: say why', path: ['note'] })
export const readingDone = z.object({
  eventId: idOf('event'),
  is: z.enum(VERDICTS),
  because: z.enum(['grade', 'below', 'above', 'inside', 'no window', 'wide']),
  target: target.nullable(),
})
export type ReadingDone = z.infer<typeof readingDone>
