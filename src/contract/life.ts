import { READINGS } from '@core/reading/keys.ts'
import { z } from 'zod'
import { lineNames, shopChange } from './fact.ts'
import { WEAR_PLACES } from '@core/liner/wherewear.ts'
import { OUT_REASONS } from '@core/path/columns.ts'
import { UNSURES } from '@core/life/facts.ts'
import { LINER_CLAUSES } from '@core/liner/clauses.ts'
import { idempotencyKey, instantMs, stationId, kindKey, lifeUnit, idOf } from './common.ts'
import { linerTerms } from './houserule.ts'

/** What lives can be told apart by. */
export const LIFE_BYS = [
  'class',
  'area',
  'part',
  'metal',
  'wire',
  'mode',
  'gas',
  'antiSpatter',
  'family',
  'cable',
  'layout',
  'coat',
  'lot',
  'wiper',
] as const
export type LifeBy = (typeof LIFE_BYS)[number]
export const SCHOOLS = ['runToFailure', 'fixed', 'onCondition', 'signs', 'leastCost'] as const

export const lifeQuery = z.object({
  kind: kindKey.optional(),
  /** `class:booth`, `area:ar_…`, or all. */
  where: z.string().max(60).optional(),
  by: z.enum(LIFE_BYS).optional(),
  /** Count what nobody said as worn, or leave it out as cut off; else in the share of those who said. */
  notSaid: z.enum(['share', 'worn', 'cut']).optional(),
  /** What is taken of a bench that was not sure: the reason said, what it showed all the same, or nothing. */
  unsure: z.enum(UNSURES).optional(),
})
const spread = z.object({ value: z.number(), low: z.number(), high: z.number() })
export const lifeTold = z.object({
  n: z.number().int(),
  worn: z.number().int(),
  chance: z.number().int(),
  notSaid: z.number().int(),
  median: spread,
  b10: spread,
  shape: spread,
  wornMedian: spread,
  /** Ends by chance in 100 of the unit. */
  chancePer100: z.number(),
  priorShare: z.number(),
  source: z.enum(['yours', 'told', 'trade']),
  share: z.number(),
  /** Hardly ever wanted: what did not go well in the fit. */
  warnings: z.array(z.string()),
})
export const lifeRefused = z.enum(['noLives', 'nothingEnded', 'noMaximum', 'shareTooLow'])
const costRate = z.object({
  total: z.number(),
  partMinor: z.number(),
  handsMinor: z.number(),
  standMinor: z.number(),
  collateralMinor: z.number(),
  lookMinor: z.number(),
  handsMin: z.number(),
  standMin: z.number(),
  changes: z.number(),
  worn: z.number(),
})
const schoolLine = z.object({
  school: z.enum(SCHOOLS),
  at: z.number().nullable(),
  cost: costRate,
  saving: spread,
  chanceBetter: z.number(),
})
/** All for 100 arc hours (or 100 of the unit where it cannot be turned into arc hours). */
const moneyAnswer = z.object({
  per: z.enum(['arcHours', 'unit']),
  lines: z.array(schoolLine),
  advised: z.enum(SCHOOLS),
  flat: z.tuple([z.number(), z.number().nullable()]).nullable(),
  /** The blade: what each age costs. */
  blade: z.array(
    z.object({
      at: z.number(),
      total: z.number(),
      handsMin: z.number(),
      standMin: z.number(),
      parts: z.number(),
      worn: z.number(),
    }),
  ),
  /** What the numbers rest on. */
  planned: z.object({ minor: z.number(), min: z.number() }),
  late: z.object({ minor: z.number(), standMin: z.number(), collateralMinor: z.number() }),
  byChance: z.object({ minor: z.number(), standMin: z.number() }),
  stops: z.object({ n: z.number().int(), of: z.number().int(), isGuess: z.boolean() }),
  unpriced: z.array(z.enum(['part', 'labour', 'standing'])),
})
export const lifeStroke = z.object({
  used: z.number(),
  end: z.enum(['worn', 'chance', 'notSaid', 'cut', 'in']),
  reason: z.enum(OUT_REASONS).nullable(),
  name: z.string(),
  stationId: idOf('station').nullable(),
  fromMs: instantMs,
  toMs: instantMs.nullable(),
  parts: z.number().int(),
  group: z.string().nullable(),
})
export type LifeStroke = z.infer<typeof lifeStroke>
const comparison = z.object({
  first: z.string(),
  second: z.string(),
  ratio: z.number().nullable(),
  low: z.number().nullable(),
  high: z.number().nullable(),
  ends: z.number().int(),
  more: z.number().int(),
  verdict: z.enum(['longer', 'shorter', 'cantTell']),
  /** They also differ in these, so that any of them may be why. */
  movedWith: z.array(z.enum(LIFE_BYS)),
})
export const tryoutLine = z.object({
  id: idOf('tryout'),
  question: z.string(),
  nameA: z.string(),
  nameB: z.string(),
  placesA: z.array(z.string()),
  placesB: z.array(z.string()),
  ratio: z.number(),
  needed: z.number().int(),
  /** Codes of its parts of which it is not confirmed yet that they fit. */
  unproven: z.array(z.string()),
  fromMs: instantMs,
  toMs: instantMs.nullable(),
  now: z.object({
    answer: z.enum(['early', 'yes', 'noDifference', 'notYet']),
    ratio: z.number().nullable(),
    low: z.number().nullable(),
    high: z.number().nullable(),
    ends: z.number().int(),
  }),
  /** Days until the rest is in, at the rate since it began; null: cannot be told. */
  daysLeft: z.number().nullable(),
})
const clauseRecord = z.object({ of: z.number().int(), ahead: z.number().int(), fine: z.number().int() })
/** The rule by signs, and what it would have seen of the liners that ended here. */
export const linerSigns = z.object({
  school: z.string(),
  terms: linerTerms,
  record: z
    .object({
      worn: z.number().int(),
      ahead: z.number().int(),
      unlooked: z.number().int(),
      leftShare: z.number().nullable(),
      fine: z.number().int(),
      byClause: z.record(z.enum(LINER_CLAUSES), clauseRecord),
    })
    .nullable(),
  isGuess: z.boolean(),
})
export type LinerSignsAnswer = z.infer<typeof linerSigns>
export const lifeAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  currency: z.string(),
  isMoney: z.boolean(),
  madeMs: instantMs,
  /** "12 of 40" while the fits for Floor and guns are made anew; empty when they are not. */
  progress: z.string(),
  kinds: z.array(z.object({ key: z.string(), name: z.string(), n: z.number().int() })),
  wheres: z.array(z.object({ key: z.string(), name: z.string() })),
  kind: kindKey,
  kindName: z.string(),
  where: z.string(),
  whereName: z.string(),
  classKey: z.string().nullable(),
  unit: lifeUnit,
  by: z.enum(LIFE_BYS).nullable(),
  seen: z.object({
    ended: z.number().int(),
    in: z.number().int(),
    due: z.number().int(),
    ageUnknown: z.number().int(),
    coarse: z.number().int(),
    several: z.number().int(),
    /** Ends the bench was asked about, and those it was not sure of. */
    benched: z.number().int(),
    unsure: z.number().int(),
    noUse: z.number().int(),
    noClock: z.number().int(),
    otherUnit: z.number().int(),
    sinceMs: instantMs,
    share: z.object({ value: z.number(), low: z.number(), high: z.number(), isGuess: z.boolean() }),
  }),
  told: lifeTold.nullable(),
  refused: lifeRefused.nullable(),
  /** Use for one part from counts alone, where the log says too little. */
  counted: z.object({ mean: z.number(), taken: z.number() }).nullable(),
  /** Half gone by, if all that nobody said were worn, and if none were. */
  asWorn: z.number().nullable(),
  asCut: z.number().nullable(),
  reasons: z.array(z.object({ reason: z.enum(OUT_REASONS), n: z.number().int(), per100kg: z.number().nullable() })),
  strokes: z.array(lifeStroke),
  strokesOf: z.number().int(),
  curve: z.array(z.object({ at: z.number(), left: z.number(), low: z.number(), high: z.number() })),
  steps: z.array(z.object({ at: z.number(), left: z.number() })),
  money: moneyAnswer.nullable(),
  rule: z.object({
    changeLimit: z.number().nullable(),
    school: z.enum(SCHOOLS).nullable(),
    isForAll: z.boolean(),
    chosenMs: instantMs.nullable(),
    chosenBy: z.string().nullable(),
    n: z.number().int().nullable(),
    median: z.number().nullable(),
    isNewer: z.boolean(),
  }),
  /** Of liners. */
  liner: linerSigns.nullable().default(null),
  history: z.array(z.object({ eventId: idOf('event'), change: shopChange, names: lineNames, atMs: instantMs })),
  word: z.object({ usual: z.number(), early: z.number(), isForAll: z.boolean() }).nullable(),
  groups: z.array(
    z.object({
      key: z.string(),
      name: z.string(),
      told: lifeTold.nullable(),
      refused: lifeRefused.nullable(),
      n: z.number().int(),
      /** What one costs, and 100 arc hours of it (or 100 of its own unit): part, hands, standing and what goes with it. Null: not priced, or too few lives. */
      cost: z
        .object({
          eachMinor: z.number(),
          total: z.number(),
          low: z.number(),
          high: z.number(),
          per: z.enum(['arcHours', 'unit']),
        })
        .nullable(),
    }),
  ),
  compared: z.array(comparison),
  /** Places that take more than their share, left out of the groups. */
  leftOut: z.array(z.string()),
  hungry: z.array(
    z.object({
      stationId: idOf('station'),
      name: z.string(),
      ends: z.number().int(),
      expected: z.number(),
      z: z.number(),
      low: z.number(),
      high: z.number(),
      verdict: z.enum(['hungry', 'mayLogMore']),
      /** What its readings already ask for, upstream. */
      readings: z.array(z.enum(READINGS)),
    }),
  ),
  placesSeen: z.number().int(),
  /** Of what a tip screws into: how many go for 100 tips, and where more than chance allows. */
  perTips: z
    .object({
      per100: z.number(),
      n: z.number().int(),
      tips: z.number().int(),
      over: z.array(
        z.object({
          stationId: idOf('station'),
          name: z.string(),
          n: z.number().int(),
          tips: z.number().int(),
          per100: z.number(),
        }),
      ),
    })
    .nullable(),
  /** Of a part counted in kg: its median as a length of the wire most of these places run. */
  asWire: z.object({ km: z.number(), name: z.string() }).nullable(),
  /** Of liners: where along them those looked at on the bench were worn; null: none was. */
  wornWhere: z
    .object({
      n: z.number().int(),
      counts: z.record(z.enum(WEAR_PLACES), z.number().int()),
      most: z.enum(WEAR_PLACES).nullable(),
    })
    .nullable(),
  /** It is cleaned as well as changed: how often is no cause that a log could show. */
  isCleaned: z.boolean(),
  longer: z.array(
    z.object({
      by: z.enum(LIFE_BYS),
      level: z.string(),
      against: z.string(),
      ratio: z.number(),
      low: z.number(),
      high: z.number(),
    }),
  ),
  /** Things that always came together here, so that they cannot be told apart. */
  together: z.array(z.array(z.enum(LIFE_BYS))),
  alongside: z.array(z.object({ kind: kindKey, name: z.string(), shareOfUsual: z.number(), isWorth: z.boolean() })),
  tryouts: z.array(tryoutLine),
})
export type LifeAnswer = z.infer<typeof lifeAnswer>
export type LifeTold = z.infer<typeof lifeTold>

export const lifeRuleRequest = z.object({
  key: idempotencyKey,
  kindKey,
  classKey: z.string().max(20),
  school: z.enum(SCHOOLS),
  at: z.number().positive().max(1e6).nullable(),
  /** Of the liner's rule by signs. */
  terms: linerTerms.optional(),
})
const asTerms = {
  on: z
    .string()
    .max(80)
    .transform((s) => s.split(',').filter((c) => c !== ''))
    .pipe(z.array(z.enum(LINER_CLAUSES)))
    .optional(),
  pullRatio: z.coerce.number().min(1.1).max(5).optional(),
  tips: z.coerce.number().int().min(1).max(9).optional(),
}
/** The liner's rule by signs under other terms: what they would have seen, what they cost. */
export const signsQuery = z.object({ where: z.string().max(60).optional(), ...asTerms })
export const signsAnswer = z.object({
  signs: linerSigns,
  /** Its line among the schools. */
  line: schoolLine.nullable(),
})
/** What a limit would move on Floor: guns that would open, and those that would not any more. */
export const previewQuery = z.object({
  kind: kindKey,
  classKey: z.string().max(20),
  at: z.coerce.number().positive().max(1e6).optional(),
  school: z.enum(SCHOOLS).optional(),
  ...asTerms,
})
export const previewAnswer = z.object({
  opens: z.array(z.string()),
  closes: z.array(z.string()),
  due: z.number().int(),
  places: z.number().int(),
})
export const lifeWordRequest = z.object({
  key: idempotencyKey,
  kindKey,
  classKey: z.string().max(20),
  /** Null: takes the word back. */
  usual: z.number().positive().max(1e6).nullable(),
  early: z.number().positive().max(1e6).nullable(),
})
export const tryoutRequest = z.object({
  key: idempotencyKey,
  kindKey,
  question: z.string().trim().min(3).max(120),
  nameA: z.string().trim().min(1).max(60),
  nameB: z.string().trim().min(1).max(60),
  partAId: idOf('part').nullable().default(null),
  partBId: idOf('part').nullable().default(null),
  stationIds: z.array(stationId).min(2).max(500),
  ratio: z.number().min(1.05).max(20),
})
export const tryoutEndRequest = z.object({
  key: idempotencyKey,
  id: idOf('tryout'),
  /** They went on and served: that its parts fit is confirmed here. */
  fits: z.boolean().default(false),
})
