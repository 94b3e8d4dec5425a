import { z } from 'zod'
import { LOOK_KEYS, WALK_KEYS } from '@core/walk/looks.ts'
import { floorWant } from './floor.ts'
import { eventId, idempotencyKey, instantMs, outReason, precision, stationId, idOf } from './common.ts'
import { FOLLOW_UPS } from '@core/followup/keys.ts'

const count = z.coerce.number()
export const walkQuery = z.object({
  minutes: count.min(2).max(240).default(25),
  walk: z.enum(WALK_KEYS).default('due'),
  areaId: idOf('area').optional(),
  /** Where it starts; left out: at its first gun. */
  from: stationId.optional(),
  people: count.int().min(1).max(60).default(1),
})
export type WalkQuery = z.output<typeof walkQuery>

const look = z.enum(LOOK_KEYS)
export const walkLook = z.object({
  what: look,
  /** When it was last looked at; null: never. */
  lastMs: instantMs.nullable(),
  /** Chance that it is not as it should be. */
  chance: z.number(),
})
export const walkStop = z.object({
  stationId,
  name: z.string(),
  areaName: z.string(),
  minutes: z.number(),
  looks: z.array(walkLook),
  /** Due by its house rule. */
  wants: z.array(floorWant),
  /** Still to be done because of what was done. */
  followUps: z.array(z.enum(FOLLOW_UPS)),
  isCell: z.boolean().default(false),
})
export type WalkStop = z.infer<typeof walkStop>
export const walkAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  walk: z.enum(WALK_KEYS),
  minutes: z.number(),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  stops: z.array(walkStop),
  /** Stations by person, each a stretch of the walk. */
  parts: z.array(z.array(stationId)),
  taskMin: z.number(),
  walkMin: z.number(),
  /** Guns with something to look at that do not fit, the one most worth it first. */
  left: z.array(z.object({ stationId, name: z.string() })),
  /** Chance that one of those stops within a day's work. */
  leftStops: z.number(),
  /** Nozzles found open this week, by whoever looked next. */
  foundOpen: z.object({ good: z.number().int(), of: z.number().int() }),
  /** For leads: one look in twenty to be looked at again, and how many of those before agreed. */
  again: z
    .object({
      looks: z.array(z.object({ stationId, name: z.string(), what: look, atMs: instantMs })),
      agreed: z.object({ same: z.number().int(), of: z.number().int() }),
    })
    .nullable(),
})
export type WalkAnswer = z.infer<typeof walkAnswer>

/** What was found and done at one gun of a walk: one entry, kept at its own time. */
export const walkEntry = z.object({
  key: idempotencyKey,
  stationId,
  happenedMs: instantMs,
  /** Typed in from paper it was some time in the shift. */
  precision: precision.default('exact'),
  looks: z.array(z.object({ what: look, grade: z.string().max(16) })).max(20),
  acts: z
    .array(
      z.object({
        act: z.enum(['cleaned', 'changed']),
        // Looked through entry by entry: one that names no part of the path is refused by itself, the others are kept.
        position: z.string().max(24),
        outReason: outReason.default('notSaid'),
      }),
    )
    .max(20)
    .default([]),
  /** What followed from other acts and is done now. */
  settled: z.array(z.enum(FOLLOW_UPS)).max(20).default([]),
})
export type WalkEntry = z.input<typeof walkEntry>
export type WalkEntryRead = z.output<typeof walkEntry>
export const walkFoundRequest = z.object({ entries: z.array(walkEntry).min(1).max(2000) })
/** Each entry on its own: kept, kept before, or refused with the reason. */
export const walkFoundAnswer = z.object({
  entries: z.array(
    z.object({
      key: z.string(),
      is: z.enum(['kept', 'before', 'refused']),
      eventId: eventId.nullable(),
      message: z.string().nullable(),
    }),
  ),
})
export type WalkFoundAnswer = z.infer<typeof walkFoundAnswer>
