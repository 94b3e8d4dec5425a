import { z } from 'zod'
import { LINER_STATES, TIP_STATES, WIRE_MATERIALS } from '@core/drag/guess.ts'
import { COIL_PLACES, PARAMS, ROLL_GROOVES } from '@core/drag/setup.ts'
import { LINER_KINDS } from '@core/rightparts/facts.ts'
import { idempotencyKey, instantMs, stationId, idOf } from './common.ts'

const mark = z.number().min(0).max(20)
const forceN = z.number().min(0).max(1000)
const atMark = z.tuple([z.number(), z.number()]).readonly()
export const dragShape = z.object({
  material: z.enum(WIRE_MATERIALS),
  diameterMm: z.number().positive(),
  densityGPerCm3: z.number().positive(),
  linerKind: z.enum(LINER_KINDS),
  linerState: z.enum(LINER_STATES),
  runsToRolls: z.boolean(),
  tipState: z.enum(TIP_STATES),
  groove: z.enum(ROLL_GROOVES),
  feeder: z.object({
    pairs: z.union([z.literal(1), z.literal(2)]),
    drives: z.enum(['grooved only', 'both']),
    scale: z.tuple([z.number(), z.number()]).readonly(),
    pairForceN: z.tuple([atMark, atMark]).readonly(),
  }),
  payoff: z.enum(['spool', 'drum']),
  spoolKg: z.number(),
  hasBooster: z.boolean(),
  isReversed: z.boolean(),
  coilsAt: z.enum(COIL_PLACES),
  secondDrive: z.boolean(),
  slip: z.object({ atZeroN: z.number(), perMarkN: z.number() }).nullable(),
})
const param = z.enum(PARAMS)
const guess = z.object({ low: z.number(), typical: z.number(), high: z.number() })

export const dragQuery = z.object({ stationId })
export const dragAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  stationId,
  name: z.string(),
  wireName: z.string().nullable(),
  linerCode: z.string().nullable(),
  feederName: z.string().nullable(),
  isCell: z.boolean().default(false),
  /** Null where the wire is not known: nothing can be said. */
  drag: z
    .object({
      setup: z.object({ shape: dragShape, values: z.record(param, z.number()) }),
      sources: z.partialRecord(param, z.object({ by: z.enum(['read', 'told', 'guess']), atMs: instantMs.nullable() })),
      spans: z.record(param, guess),
    })
    .nullable(),
  calibratedMs: instantMs.nullable(),
  /** The knob as it was last left. */
  knob: z.object({ mark: z.number(), atMs: instantMs }).nullable(),
})
export type DragAnswer = z.infer<typeof dragAnswer>

/** Slip pulls at two marks, in N; back tension taken off where the wire was not slack. */
export const calibrateRequest = z.object({
  key: idempotencyKey,
  stationId,
  pulls: z
    .tuple([
      z.object({ mark, forcesN: z.array(forceN).min(1).max(10) }),
      z.object({ mark, forcesN: z.array(forceN).min(1).max(10) }),
    ])
    .refine(([a, b]) => a.mark !== b.mark, { message: 'both marks are the same: set the knob to another', path: [1] }),
  backTensionN: forceN.default(0),
})
export const calibrateAnswer = z.object({ eventId: idOf('event'), atZeroN: z.number(), perMarkN: z.number() })
