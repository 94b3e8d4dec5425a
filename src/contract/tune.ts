import { z } from 'zod'
import { SAWS, TUNE_GUARDS, TUNED } from '@core/diagnose/tune.ts'
import { idempotencyKey, instantMs, stationId, idOf } from './common.ts'

const symptom = z.string().max(24).nullable()
/** m/min, V, trim marks, L/min, mm: no machine has a setting beyond a thousand of any of them, and only a trim goes below nought. */
const setting = z.number().min(-20).max(1000)
const values = z.partialRecord(z.enum(TUNED), setting)
export const tunedRequest = z
  .object({
    key: idempotencyKey,
    stationId,
    name: z.enum(TUNED),
    from: setting.nullable(),
    to: setting,
    saw: z.enum(SAWS),
    symptom,
    guard: z.enum(TUNE_GUARDS),
  })
  .refine((t) => t.name === 'trim' || Math.min(t.to, t.from ?? 0) >= 0, {
    message: 'below nought there is only a trim',
    path: ['to'],
  })
export const tuneKeptRequest = z.object({ key: idempotencyKey, stationId, symptom, values })

export const tuneQuery = z.object({ stationId })
const span = z.tuple([z.number(), z.number()]).nullable()
/** What setting a machine by beads needs beside the gun's own page. */
export const tuneAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  stationId,
  procedure: z.object({ name: z.string(), wireSpeed: span, stickOut: span, volts: span, flow: span }).nullable(),
  /** Settings that worked here, those with the wire and mode that are on first. */
  kept: z.array(
    z.object({
      eventId: idOf('event'),
      atMs: instantMs,
      wireName: z.string().nullable(),
      mode: z.string().nullable(),
      isSame: z.boolean(),
      values,
    }),
  ),
  /** Trials since the last were kept, oldest first. */
  trials: z.array(
    z.object({
      eventId: idOf('event'),
      atMs: instantMs,
      name: z.enum(TUNED),
      from: z.number().nullable(),
      to: z.number(),
      saw: z.enum(SAWS),
    }),
  ),
})
export type TuneAnswer = z.infer<typeof tuneAnswer>
