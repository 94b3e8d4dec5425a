import { z } from 'zod'
import { MODES } from '@core/rightparts/facts.ts'
import { idempotencyKey, idOf, idText, instantMs } from './common.ts'

const mm = z.number().positive().max(500)
export const jobJoint = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('fillet'), legMm: mm }),
  z.object({
    kind: z.literal('vee'),
    thicknessMm: mm,
    angleDeg: z.number().min(0).max(150),
    gapMm: z.number().min(0).max(50),
  }),
  z.object({ kind: z.literal('section'), mm2: z.number().positive().max(100_000) }),
])
const jobGiven = z.object({
  name: z.string().trim().min(1).max(80),
  wireId: idText('wire'),
  joint: jobJoint,
  lengthM: z.number().positive().max(100_000),
  pieces: z.number().int().min(1).max(100_000),
  starts: z.number().int().min(0).max(10_000),
  mode: z.enum(MODES).nullable(),
})
export type JobGiven = z.input<typeof jobGiven>

export const jobLine = z.object({
  jobId: idOf('job'),
  name: z.string(),
  wireId: idOf('wire'),
  wireName: z.string(),
  joint: jobJoint,
  lengthM: z.number(),
  pieces: z.number().int(),
  kg: z.number(),
  sdKg: z.number(),
  onId: z.string().nullable(),
})
export type JobLine = z.infer<typeof jobLine>
/** A spool with a number, or the one on a gun that has none. */
export const jobSpool = z.object({
  id: z.string(),
  /** "spool 7", "A3". */
  name: z.string(),
  wireId: idOf('wire'),
  kg: z.number(),
  sdKg: z.number(),
  fullKg: z.number(),
  leastUsableKg: z.number(),
  isFull: z.boolean(),
  /** The gun it hangs on. */
  at: z.string().nullable(),
})
export type JobSpool = z.infer<typeof jobSpool>
export const jobsAnswer = z.object({
  nowMs: instantMs,
  jobs: z.array(jobLine),
  spools: z.array(jobSpool),
  wires: z.array(
    z.object({
      id: idOf('wire'),
      name: z.string(),
      diameterMm: z.number(),
      spoolKg: z.number(),
      metresPerKg: z.number(),
      pricePerKgMinor: z.number().nullable(),
      /** Metal it suits, mm: a guess of the trade. */
      suitsMm: z.tuple([z.number(), z.number()]).nullable(),
    }),
  ),
  /** What own jobs took of what was computed; null under three. */
  learnt: z.object({ n: z.number().int(), ratio: z.number() }).nullable(),
})
export type JobsAnswer = z.infer<typeof jobsAnswer>

export const jobsRequest = z.object({ key: idempotencyKey, jobs: z.array(jobGiven).min(1).max(200) })
export const layRequest = z.object({
  key: idempotencyKey,
  laid: z
    .array(z.object({ jobId: idText('job'), onId: z.string().min(3).max(40).nullable() }))
    .min(1)
    .max(400),
})
export const jobDoneRequest = z.object({
  key: idempotencyKey,
  jobId: idText('job'),
  /** Weighed before and after; null: nobody did. */
  usedKg: z.number().positive().max(100_000).nullable(),
})
