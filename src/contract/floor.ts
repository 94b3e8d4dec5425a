import { z } from 'zod'
import { STATES } from '@core/floor/state.ts'
import { LINER_CLAUSES } from '@core/liner/clauses.ts'
import { READINGS } from '@core/reading/keys.ts'
import { findingLine } from './rightparts.ts'
import { alarmLine } from './reading.ts'
import { boughtLine, loggingShareLine } from './parts.ts'
import { instantMs, position, stationId, lifeUnit, idOf } from './common.ts'

/** One column of one gun: state, share of life used, drawn hollow (estimated), shifts past. */
export const floorCell = z.tuple([
  z
    .number()
    .int()
    .min(0)
    .max(STATES.length - 1),
  z.number(),
  z.union([z.literal(0), z.literal(1)]),
  z.number(),
])
export type FloorCell = z.infer<typeof floorCell>

/** When guns stand still next, before when hands are wanted, and what makes them stand; `of` null: a break or the end of a shift. */
export const windowShape = z.object({
  atMs: instantMs,
  byMs: instantMs,
  isKnown: z.boolean(),
  of: z.object({ is: z.enum(['classEnds', 'classBegins', 'stopBegins']), name: z.string() }).nullable(),
})

export const floorWant = z.object({
  position,
  act: z.enum(['change', 'clean', 'look']),
  minutes: z.number(),
  used: z.number(),
  limit: z.number(),
  unit: lifeUnit,
  reachedMs: instantMs.nullable(),
  earlyMs: instantMs.nullable(),
  lateMs: instantMs.nullable(),
  shiftsOver: z.number(),
  isEstimated: z.boolean(),
  /** Findings of this gun's own that the limit goes by; null: the house rule alone. */
  foundN: z.number().int().nullable().default(null),
  /** What the limit is in km of the wire that is on, where length is what wears. */
  limitKm: z.number().nullable().default(null),
  /** Leaving it till this time tomorrow: the chance that it wears out until then, and the standing to be expected of that. */
  leave: z.object({ chance: z.number(), minutes: z.number() }).nullable().default(null),
  /** Of a liner ruled by signs: those that hold, with how many times its beginning, how many tips. */
  signs: z.array(z.object({ clause: z.enum(LINER_CLAUSES), n: z.number().nullable() })).default([]),
})
export type FloorWant = z.infer<typeof floorWant>

export const floorGun = z.object({
  stationId,
  name: z.string(),
  areaId: idOf('area'),
  cells: z.array(floorCell),
  isParked: z.boolean(),
  /** What its feeder said a moment ago; null where none sends. */
  isArcOn: z.boolean().nullable(),
  downSinceMs: instantMs.nullable(),
  downPosition: position.nullable(),
  downMinutes: z.number().nullable(),
  /** Set on guns that open into a row; the row's place among them. */
  rank: z.number().int().nullable(),
  minutes: z.number(),
  wants: z.array(floorWant),
  /** Wrong parts and settings of an opened row. */
  wrong: z.array(findingLine),
  /** What was read and is to be put right, of an opened row. */
  found: z.array(alarmLine).default([]),
  /** What was said of its stop, where nobody said which part it is. */
  downSays: z.string().nullable().default(null),
  /** Before when hands are wanted at this one, where that is sooner than the floor’s own window. */
  by: windowShape.nullable().default(null),
  next: floorWant.nullable(),
  /** The limit nearest to its end in the column that was asked for. */
  columnWant: floorWant.nullable(),
})
export type FloorGun = z.infer<typeof floorGun>

export const floorAnswer = z.object({
  nowMs: instantMs,
  /** By this the same server knows what it said, and says only what is another since. */
  stamp: z.string().default(''),
  shopName: z.string(),
  zone: z.string(),
  cutoff: windowShape,
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  guns: z.array(floorGun),
  /** Guns that become due after the cut-off and before the same time tomorrow. */
  laterGuns: z.number().int(),
  notSeenGuns: z.number().int(),
  /** Guns built wrong, and guns of which enough is known to say so. */
  wrongGuns: z.number().int(),
  checkedGuns: z.number().int(),
  /** Guns without a row on which something stands that harms: built or set so, and not decided to be kept. */
  harming: z.array(z.string()).default([]),
  /** Reminders still tied, over the whole floor. */
  tags: z.number().int(),
  /** Tasks that follow from what was done, asked for now. */
  followUps: z.number().int().default(0),
  /** Guns of which a reading creeps, jumped or lies beyond its limit. */
  creeping: z.array(z.object({ name: z.string(), what: z.enum(READINGS) })).default([]),
  estimatedGuns: z.number().int(),
  /** The share of changes that gets logged, for the kind most is known of; null where nothing tells. */
  logging: loggingShareLine.nullable(),
  /** What purchases alone tell, while nothing is known of lives yet. */
  bought: z.array(boughtLine),
  /** Chance that one of the guns without a row reaches a limit before the cut-off all the same. */
  quietChance: z.number().min(0).max(1),
})
export type FloorAnswer = z.infer<typeof floorAnswer>
/** The same, of its guns only those that are another since the answer of a stamp; all of them where that is not known any more. */
export const floorMoved = floorAnswer.extend({ isWhole: z.boolean() })
export type FloorMoved = z.infer<typeof floorMoved>
