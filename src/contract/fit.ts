import { z } from 'zod'
import { idOf } from './common.ts'
import {
  ALLOYS,
  BOOSTERS,
  CONDUIT_LININGS,
  CUTTERS,
  GASES,
  GRADES,
  GROOVE_SHAPES,
  GUIDE_MATERIALS,
  JOINTS,
  LINER_HOLDS,
  LINER_KINDS,
  MODES,
  METALS,
  NOZZLE_STYLES,
  PROOFS,
  PAYOFFS,
  PLAN_STEPS,
  PLUG_STYLES,
  POLARITIES,
  REACHES,
  UNWINDS,
  WELD_POSITIONS,
} from '@core/rightparts/facts.ts'

/** What families, feeders, parts, wires and procedures are, as far as fit goes by it. Null: not told. */
const told = z.string().trim().min(1).max(60).nullable()
const mm = (most: number) => z.number().positive().max(most).nullable()
const span = (least: number, most: number) =>
  z
    .tuple([z.number().min(least).max(most), z.number().min(least).max(most)])
    .refine(([from, to]) => from <= to, { message: 'the first of the two is the smaller one' })
    .nullable()
const WIRE_MOST_MM = 4

export const wireFit = z.object({
  alloy: z.enum(ALLOYS).nullable(),
  isSelfShielded: z.boolean().nullable(),
  polarity: z.enum(POLARITIES).nullable(),
  gases: z.array(z.enum(GASES)).min(1).nullable(),
  tipOutMm: span(-40, 40),
  grade: z.enum(GRADES).nullable(),
  isCopperCoated: z.boolean().nullable(),
  classification: told,
  pricePerKgMinor: z.number().int().min(0).nullable(),
})

export const conduitPiece = z.object({
  name: z.string().trim().min(1).max(40),
  lengthM: z.number().positive().max(60),
  bends: z.number().int().min(0).max(20),
  lining: z.enum(CONDUIT_LININGS),
})
export const cellFit = z.object({
  plan: z
    .object({
      booster: z.enum(BOOSTERS).nullable(),
      conduit: z.array(conduitPiece).max(20),
      sinceMs: z.number().int().min(0),
      done: z.array(z.enum(PLAN_STEPS)).max(3),
    })
    .nullable()
    .default(null),
  drumSinceMs: z.number().int().min(0).nullable().default(null),
  payoff: z.enum(PAYOFFS).nullable(),
  booster: z.enum(BOOSTERS).nullable(),
  conduit: z.array(conduitPiece).max(20).nullable(),
  cutter: z.enum(CUTTERS).nullable(),
  reach: z.enum(REACHES).nullable(),
  centreMm: z.number().min(0.05).max(10).nullable(),
  cycleArcS: z.number().positive().max(7200).nullable().default(null),
  reamEvery: z.number().int().min(1).max(1000).nullable(),
  sprayMl: z.number().positive().max(50).nullable(),
  tankL: z.number().positive().max(100).nullable(),
  shotsPerReam: z.number().int().min(0).max(10).nullable(),
  lockOut: z.string().trim().min(1).max(400).nullable(),
})

const step = z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5)])
export const familyFit = z.object({
  thread: told,
  pin: told,
  plug: z.enum(PLUG_STYLES).nullish(),
  linerHeldBy: z.enum(LINER_HOLDS).nullable(),
  linerRule: z.enum(['A', 'B', 'C']).nullable(),
  seatDepthMm: mm(100),
  pushBackMm: mm(100),
  doesTipSeatLiner: z.boolean(),
  hasClampRing: z.boolean(),
  nozzleStyle: z.enum(NOZZLE_STYLES).nullable(),
  isNeckQuick: z.boolean(),
  neckMm: mm(2000),
  co2Amps: mm(2000),
  mixedAmps: mm(2000),
  dutyFraction: z.number().positive().max(1).nullable(),
  aluBoreOverMm: mm(2),
  tightness: z.partialRecord(z.enum(JOINTS), z.object({ step, sinceMs: z.number().int().min(0) })),
})

export const feederFit = z.object({
  rollCount: z.union([z.literal(2), z.literal(4)]),
  runsFace: z.enum(['read', 'behind']),
  unwind: z.enum(UNWINDS).nullable(),
  pin: told,
  hasJog: z.boolean(),
  hasPurge: z.boolean(),
  cutsGas: z.boolean(),
  scaleFrom: z.number().min(0).max(100).nullable(),
  scaleTo: z.number().positive().max(100).nullable(),
  topMPerMin: mm(60),
  runsLinerToRolls: z.boolean(),
})

export const procedureFit = z.object({
  wireId: idOf('wire').nullable(),
  gas: z.enum(GASES).nullable(),
  mode: z.enum(MODES).nullable(),
  polarity: z.enum(POLARITIES).nullable(),
  amps: span(1, 2000),
  dutyFraction: z.number().positive().max(1).nullable(),
  wireMPerMin: span(0.1, 60),
  stickOutMm: span(1, 100),
  volts: span(8, 60).optional(),
  flowLPerMin: span(1, 60).optional(),
  material: z.enum(ALLOYS).nullable(),
  thicknessMm: span(0.1, 500),
  position: z.enum(WELD_POSITIONS).nullable(),
})

const groove = z.object({ shape: z.enum(GROOVE_SHAPES), sizeMm: z.number().min(0.5).max(WIRE_MOST_MM) })
export const partFit = z.object({
  alsoFamilyIds: z.array(idOf('family')).max(20),
  proof: z.enum(PROOFS).nullish(),
  isForAluminium: z.boolean().nullable(),
  wireMm: span(0.4, WIRE_MOST_MM),
  linerKind: z.enum(LINER_KINDS).nullable(),
  lengthM: mm(60),
  isJacketed: z.boolean().nullable(),
  bareFrontMm: mm(5000),
  grooves: z.tuple([groove, groove]).nullable(),
  material: z.enum(GUIDE_MATERIALS).nullable(),
  metal: z.enum(METALS).nullish(),
  ratedAmps: mm(2000).nullish(),
  nozzleStyle: z.enum(NOZZLE_STYLES).nullable(),
  boreMm: mm(60),
  tipOutMm: z.number().min(-40).max(40).nullable(),
})
