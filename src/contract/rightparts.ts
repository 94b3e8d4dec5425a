import { z } from 'zod'
import { TAGS } from '@core/changeover/tags.ts'
import { CHAIN } from '@core/rightparts/check.ts'
import { JOINTS, SETTINGS } from '@core/rightparts/facts.ts'
import { RULES, SEVERITIES, type Datum, type Remedy, type RuleKey } from '@core/rightparts/finding.ts'
import { ASKEW, JOINT_FAULTS } from '@core/rightparts/joints.ts'
import { idempotencyKey, idOf, instantMs, position, stationId, kindKey, idText } from './common.ts'

const ruleKey = z.enum(Object.keys(RULES) as [RuleKey, ...RuleKey[]])
const datum: z.ZodType<Datum, Datum> = z.discriminatedUnion('is', [
  z.object({ is: z.literal('size'), mm: z.number() }),
  z.object({ is: z.literal('sizes'), fromMm: z.number(), toMm: z.number() }),
  z.object({ is: z.literal('length'), m: z.number() }),
  z.object({ is: z.literal('depth'), mm: z.number() }),
  z.object({ is: z.literal('depths'), fromMm: z.number(), toMm: z.number() }),
  z.object({ is: z.literal('text'), text: z.string() }),
  z.object({ is: z.literal('groove'), shape: z.string(), sizeMm: z.number() }),
  z.object({ is: z.literal('amps'), amps: z.number() }),
  z.object({ is: z.literal('share'), fraction: z.number() }),
  z.object({ is: z.literal('speed'), mPerMin: z.number() }),
])
const settingName = z.enum(SETTINGS)
const remedy: z.ZodType<Remedy, Remedy> = z.discriminatedUnion('do', [
  z.object({ do: z.literal('change'), kindKey }),
  z.object({ do: z.literal('turn'), rolls: z.array(z.number().int()) }),
  z.object({ do: z.literal('set'), name: settingName, value: z.string() }),
  z.object({ do: z.literal('takeOut'), kindKey }),
  z.object({ do: z.literal('ask') }),
])

export const partBrief = z.object({
  partId: idOf('part'),
  code: z.string(),
  name: z.string(),
  onHand: z.number().int().nullable(),
})
export type PartBrief = z.infer<typeof partBrief>

/** One thing that does not fit: how bad, where, what, why (by its rule), and what to put on instead. */
export const findingLine = z.object({
  rule: ruleKey,
  severity: z.enum(SEVERITIES),
  at: kindKey.or(z.literal('off')),
  found: datum,
  wanted: datum,
  remedy,
  /** The part to put on; null: nothing to change, or the shop has none. */
  put: partBrief.nullable(),
  /** Sizes of wire, mm, that would suit the metal, where the one that is on does not; those the shop has first. */
  suits: z.array(z.number()),
  /** Settings that make it right, as the act would log them. */
  set: z.array(z.object({ name: settingName, value: z.string() })),
  kept: z.object({ note: z.string().nullable(), by: z.string().nullable(), chosenMs: instantMs }).nullable(),
})
export type FindingLine = z.infer<typeof findingLine>
export const chainLine = z.object({ link: z.enum(CHAIN), is: z.enum(['agrees', 'wrong', 'not told']) })
export const tagLine = z.object({
  tag: z.enum(TAGS),
  sinceMs: instantMs,
  /** When it has to be back; null where nobody said. */
  untilMs: instantMs.nullable(),
  /** Parts put by, where it keeps some. */
  parts: z.array(partBrief),
})
export type TagLine = z.infer<typeof tagLine>

/** What is on each gun of an area, for the first look: the bay's description beside what is known. */
export const lookQuery = z.object({ areaId: idOf('area').optional() })
export const lookGun = z.object({
  stationId,
  name: z.string(),
  areaId: idOf('area'),
  wireId: idOf('wire').nullable(),
  /** Positions whose part can be named, with what is known to be on. */
  positions: z.array(
    z.object({
      position,
      kindKey,
      partId: idOf('part').nullable(),
      bayPartId: idOf('part').nullable(),
    }),
  ),
  rollCount: z.number().int(),
  /** The number that should be read on the rolls if they are as the bay. */
  bayReadMm: z.number().nullable(),
  reads: z.array(z.number().nullable()),
  /** What was last read or set, by name. */
  settings: z.partialRecord(settingName, z.string()),
  lookedMs: instantMs.nullable(),
  findings: z.array(findingLine),
})
export type LookGun = z.infer<typeof lookGun>
export const lookAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  guns: z.array(lookGun),
})
export type LookAnswer = z.infer<typeof lookAnswer>

const settingValue = z.string().trim().min(1).max(24)
export const lookRequest = z.object({
  key: idempotencyKey,
  stationId,
  parts: z.array(z.object({ position, partId: idText('part').nullable() })).max(40),
  settings: z.array(z.object({ name: settingName, value: settingValue })).max(20),
  wireId: idOf('wire').nullish(),
})
export const lookedAnswer = z.object({ findings: z.array(findingLine) })
export const setRequest = z.object({
  key: idempotencyKey,
  stationId,
  how: z.enum(['read', 'set']),
  settings: z
    .array(z.object({ name: settingName, value: settingValue }))
    .min(1)
    .max(20),
})
export const keepRequest = z.object({
  key: idempotencyKey,
  stationId,
  rule: ruleKey,
  at: kindKey.or(z.literal('off')),
  /** False: it counts again. */
  isKept: z.boolean(),
  note: z.string().trim().max(200).optional(),
})
export const tagRequest = z.object({
  key: idempotencyKey,
  stationId,
  tag: z.enum(TAGS),
  isBack: z.boolean(),
})

export const jointRequest = z.object({
  key: idempotencyKey,
  stationId,
  joint: z.enum(JOINTS),
  fault: z.enum(JOINT_FAULTS),
  /** A damaged thread: cleaned and ran freely, or both scrapped. */
  thread: z.enum(['ran', 'scrapped']).nullable(),
})
export const jointsQuery = z.object({ familyId: idOf('family').optional() })
const rate = z.object({ rate: z.number(), low: z.number(), high: z.number() })
export const jointLine = z.object({
  familyId: idOf('family'),
  familyName: z.string(),
  joint: z.enum(JOINTS),
  step: z.number().int(),
  sinceMs: instantMs.nullable(),
  slack: z.number().int(),
  tight: z.number().int(),
  crossed: z.number().int(),
  made: z.number().int(),
  slackRate: rate.nullable(),
  tightRate: rate.nullable(),
  slackMin: z.number(),
  tightMin: z.number(),
  /** Crooked ones, by why. */
  askew: z.partialRecord(z.enum(ASKEW), z.number().int()),
  /** The nozzle is pushed on in this family: twisted the other way it unscrews its insulator. */
  isPushOn: z.boolean(),
  advise: z.enum(['one tighter', 'one slacker', 'stay', 'too few to tell']),
  why: z.enum(['least', 'most', 'rare']).nullable(),
  to: z.number().int().nullable(),
  /** Where it happened, most often first; places, never people. */
  places: z.array(z.object({ name: z.string(), faults: z.number().int() })),
  /** Diffusers put on per 100 tips: forced tips take diffusers along. */
  diffusersPer100Tips: z.number().nullable(),
})
export type JointLine = z.infer<typeof jointLine>
export const jointsAnswer = z.object({ zone: z.string(), joints: z.array(jointLine) })
export type JointsAnswer = z.infer<typeof jointsAnswer>

export const issueRequest = z.object({
  key: idempotencyKey,
  stationId,
  partId: idText('part'),
  quantity: z.number().int().min(1).max(50).default(1),
})
export const issueAnswer = z.object({ partId: idOf('part'), onHand: z.number().int().nullable() })
