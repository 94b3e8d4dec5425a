import { z } from 'zod'
import { CODE_PAGES } from '@core/logbook/actcode.ts'
import { ACT_KINDS } from '@core/ledger/acts.ts'
import {
  eventId,
  idempotencyKey,
  instantMs,
  outReason,
  position,
  precision,
  stationId,
  lifeUnit,
  idOf,
} from './common.ts'
import { fact, lineNames } from './fact.ts'

export const ACTS = [
  'changed',
  'cleaned',
  'removed',
  'putBack',
  'seen',
  'newSpool',
  'down',
  'running',
  'parked',
  'unparked',
] as const
/** One thing done at one place, as a hand says it. `position` is needed for changed, cleaned, removed and put back. */
export const act = z
  .object({
    stationId,
    act: z.enum(ACTS),
    position: position.optional(),
    outReason: outReason.default('notSaid'),
    count: z.number().int().min(1).max(20).default(1),
    partId: idOf('part').nullish(),
    wireId: idOf('wire').nullish(),
    labelKg: z.number().positive().max(1000).nullish(),
    leftKg: z.number().min(0).max(1000).nullish(),
    happenedMs: instantMs.optional(),
    precision: precision.default('exact'),
    note: z.string().trim().max(200).optional(),
  })
  .refine((a) => !['changed', 'cleaned', 'removed', 'putBack'].includes(a.act) || a.position, {
    message: 'say which part',
    path: ['position'],
  })
export type Act = z.input<typeof act>
export type ActRead = z.output<typeof act>

export const logRequest = z.object({ key: idempotencyKey, acts: z.array(act).min(1).max(200) })
export type LogRequest = z.input<typeof logRequest>

/** What the logger gets back at once: what that part did, and what is usual here. */
export const loggedAct = z.object({
  eventId,
  stationId,
  stationName: z.string(),
  position: position.nullable(),
  didAmount: z.number().nullable(),
  unit: lifeUnit.nullable(),
  isEstimated: z.boolean(),
  usualAmount: z.number().nullable(),
  usualN: z.number().int().nullable(),
})
export type LoggedAct = z.infer<typeof loggedAct>
export const logAnswer = z.object({ logged: z.array(loggedAct), isRepeat: z.boolean() })
export type LogAnswer = z.infer<typeof logAnswer>

/** A printed code, as a scanner types it or a phone opens it. */
export const scanRequest = z.object({ key: idempotencyKey, code: z.string().min(4).max(300) })
export const scanAnswer = z.object({
  stationId,
  stationName: z.string(),
  /** Logged; the same code again within two minutes; the last act was so many; a gun to open; a gun of elsewhere seen here. */
  said: z.enum(['logged', 'twice', 'again', 'open', 'gunHere']),
  /** Which page is to be opened, where it is another than the gun’s own. */
  page: z.enum(CODE_PAGES).nullable().default(null),
  /** Of a gun seen here: where it hung as far as anybody said. */
  hungAt: z.object({ stationId, gunName: z.string() }).nullable().default(null),
  acts: z.array(act),
  logged: z.array(loggedAct),
})
export type ScanAnswer = z.infer<typeof scanAnswer>

export const undoRequest = z.object({ key: idempotencyKey, eventIds: z.array(eventId).min(1).max(200) })
/** A correction: what the line should have said. Only what is given changes; `withdraw` says it did not happen. */
export const correctRequest = z.object({
  key: idempotencyKey,
  eventId,
  withdraw: z.boolean().optional(),
  stationId: stationId.optional(),
  outReason: outReason.optional(),
  count: z.number().int().min(1).max(20).optional(),
  happenedMs: instantMs.optional(),
  precision: precision.optional(),
  note: z.string().trim().max(200).optional(),
})
export type CorrectRequest = z.infer<typeof correctRequest>
export const correctAnswer = z.object({ eventIds: z.array(eventId) })

export const logLine = z.object({
  eventId,
  happenedMs: instantMs,
  loggedMs: instantMs,
  precision,
  stationId: idOf('station').nullable(),
  stationName: z.string().nullable(),
  actKind: z.enum(ACT_KINDS),
  fact,
  /** Where on the path, where the line is about one place of it. */
  position: position.nullable(),
  names: lineNames,
  who: z.string().nullable(),
  note: z.string().nullable(),
  /** How the line stands after corrections. */
  standing: z.enum(['as said', 'changed', 'withdrawn']),
  correctedMs: instantMs.nullable(),
  canUndo: z.boolean(),
  canCorrect: z.boolean(),
})
export type LogLine = z.infer<typeof logLine>

export const logbookQuery = z.object({
  day: z.iso.date().optional(),
  stationId: stationId.optional(),
  position: position.optional(),
})
export const logbookAnswer = z.object({
  day: z.string(),
  zone: z.string(),
  lines: z.array(logLine),
  previousDay: z.string().nullable(),
  nextDay: z.string().nullable(),
})
export type LogbookAnswer = z.infer<typeof logbookAnswer>
