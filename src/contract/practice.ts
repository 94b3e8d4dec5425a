import { z } from 'zod'
import { FAULT_KEYS } from '@core/practice/faults.ts'
import { TRANSFERS } from '@core/practice/rig.ts'
import { PARAMS } from '@core/drag/setup.ts'
import { idempotencyKey, idOf, instantMs, stationId } from './common.ts'
import { knowledge } from './down.ts'
import { dragShape } from './drag.ts'

/** Drills as they go from one device to another, and from one shop to another as a file: everything to draw the booth again is in them. */
export const DRILL_FORMAT = 'idle-spool-drills'
const name = z.string().trim().min(1).max(60)
const key = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[A-Za-z][A-Za-z ]*$/, 'letters')
const fault = z.enum(FAULT_KEYS)
const finite = z.number().min(-1e6).max(1e6)
const boothSetup = z.object({
  name,
  drag: z.object({ shape: dragShape, values: z.record(z.enum(PARAMS), finite.min(0)) }),
  wireSpeedMPerMin: z.number().positive().max(40),
  transfer: z.enum(TRANSFERS),
  gasLpm: z.number().positive().max(60).nullable(),
})
export const scenario = z.object({
  version: z.literal(1),
  name: name.nullable(),
  setup: boothSetup,
  faults: z
    .array(z.object({ key: fault, bad: z.number().min(0).max(1) }))
    .min(1)
    .max(2)
    .readonly(),
  complaint: key,
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
})
const MOST_DRILLS = 20
export const drillFile = z.object({
  format: z.literal(DRILL_FORMAT),
  scenarios: z.array(scenario).min(1).max(MOST_DRILLS),
})
export type DrillFile = z.infer<typeof drillFile>

export const practiceQuery = z.object({ stationId: stationId.optional() })
export const practiceAnswer = z.object({
  /** The day here: the drill that is the same for all goes by it. */
  day: z.string(),
  place: z.object({ stationId, name: z.string() }).nullable(),
  /** The group that has the place now. */
  groupName: z.string().nullable(),
  /** Guns of this shop, each kind once. */
  setups: z.array(boothSetup),
  knowledge,
  /** What really stopped lately and is a fault that can be met here: for leads and instructors. */
  stops: z.array(z.object({ name: z.string(), atMs: instantMs, fault, setup: boothSetup.nullable() })),
  zone: z.string(),
  /** Drills somebody set: for the group that is here, or for all. */
  sets: z.array(
    z.object({
      id: idOf('drillSet'),
      name: z.string(),
      groupName: z.string().nullable(),
      scenarios: z.array(scenario),
      /** How often drills of it were played to their end. */
      played: z.number().int(),
      /** And found well. */
      well: z.number().int(),
    }),
  ),
})
export type PracticeAnswer = z.infer<typeof practiceAnswer>

const act = z.discriminatedUnion('do', [
  z.object({ do: z.literal('look'), key, way: key.optional() }),
  z.object({ do: z.literal('fix'), key, way: key.optional() }),
  z.object({ do: z.literal('bead') }),
  z.object({ do: z.literal('hint') }),
  z.object({ do: z.literal('help') }),
])
/** A drill played to its end. Of nobody by name: of the group that has the place. */
export const attemptRequest = z.object({
  key: idempotencyKey,
  stationId: stationId.nullable(),
  setId: idOf('drillSet').nullable(),
  faults: z.array(fault).min(1).max(6),
  complaint: key,
  acts: z.array(act).min(1).max(200),
  minutes: z.number().positive().max(2000),
  bestMin: z.number().positive().max(2000),
})
export const skillAnswer = z.object({
  groups: z.array(z.object({ id: idOf('group'), name: z.string() })),
  skills: z.array(
    z.object({
      groupName: z.string().nullable(),
      fault: z.string(),
      says: z.string(),
      well: z.number().int(),
      tried: z.number().int(),
      low: z.number(),
      high: z.number(),
    }),
  ),
})
export type SkillAnswer = z.infer<typeof skillAnswer>
export const drillSetRequest = z.object({
  key: idempotencyKey,
  name,
  /** Null: for all. */
  groupId: idOf('group').nullable(),
  scenarios: z.array(scenario).min(1).max(MOST_DRILLS),
})
export const drillSetEnd = z.object({ key: idempotencyKey, id: idOf('drillSet') })
