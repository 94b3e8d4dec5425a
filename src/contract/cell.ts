import { z } from 'zod'
import { FOLLOW_UPS } from '@core/followup/keys.ts'
import { STATES } from '@core/floor/state.ts'
import { RATED_KINDS } from '@core/rightparts/rating.ts'
import { idempotencyKey, idOf, idText, instantMs, kindKey, lifeUnit, outReason, position, stationId } from './common.ts'
import { cellFit } from './fit.ts'
import { findingLine } from './rightparts.ts'
import { spareVerdict } from './spareguns.ts'

/** What is on a neck or a gun that hangs nowhere, and what wants doing to it on the bench. */
export const benchPart = z.object({
  position,
  kindKey,
  name: z.string(),
  partId: idOf('part').nullable(),
  partCode: z.string().nullable(),
  /** Arc hours, kilograms or whatever its kind counts in, done wherever it hung. */
  unit: lifeUnit,
  used: z.number().nullable(),
  limit: z.number().nullable(),
  state: z.enum(STATES),
  canClean: z.boolean(),
  reasons: z.array(outReason),
  fittedMs: instantMs.nullable(),
})
const loose = z.object({
  carrierId: idOf('carrier'),
  type: z.enum(['gun', 'neck']),
  name: z.string(),
  familyId: idOf('family').nullable(),
  familyName: z.string().nullable(),
  status: z.enum(['ready', 'toRefurbish', 'not said']),
  sinceMs: instantMs.nullable(),
  parts: z.array(benchPart),
})
export const benchThing = loose.extend({
  /** Minutes of what wants doing, as they are here. */
  minutes: z.number(),
  /** Places where it would be right, and where only after work on it. */
  rightFor: z.array(z.string()),
})
export type BenchThing = z.infer<typeof benchThing>

/** A number with how well it is known, and whose it is. */
const reckoned = z.object({ mean: z.number(), sdLog: z.number(), n: z.number().int(), by: z.enum(['yours', 'trade']) })
/** What a round of necks is reckoned from; money for leads. */
export const neckRound = z.object({
  familyId: idOf('family').nullable(),
  familyName: z.string().nullable(),
  robots: z.number().int(),
  spares: z.number().int(),
  ready: z.number().int(),
  /** Hours by the wall. */
  lifeH: reckoned,
  mendH: reckoned,
  lifeShape: z.number(),
  mendSigma: z.number(),
  stopMinorPerHour: z.number().nullable(),
  priceMinor: z.number().nullable(),
})
export type NeckRoundLine = z.infer<typeof neckRound>

/** What a blade has done since it went on; cycles where somebody said how much arc one has. */
const blade = z.object({ arcHours: z.number(), cycles: z.number().nullable(), sinceMs: instantMs }).nullable()

export const cellLine = z.object({
  stationId,
  name: z.string(),
  areaName: z.string(),
  wireName: z.string().nullable(),
  familyName: z.string().nullable(),
  gunName: z.string().nullable(),
  cableM: z.number().nullable(),
  /** Necks go round here; which hangs now, and since when. */
  goesRound: z.boolean(),
  neckId: idOf('carrier').nullable(),
  neckName: z.string().nullable(),
  neckSinceMs: instantMs.nullable(),
  /** The neck's seat keeps the tool centre by design. */
  keepsCentre: z.boolean(),
  isDown: z.boolean(),
  /** The reamer’s blade and clamp as last read, mm; what does not fit there. */
  bladeMm: z.number().nullable(),
  clampMm: z.number().nullable(),
  misfits: z.array(findingLine),
  cell: cellFit,
  own: cellFit.partial(),
  todo: z.array(z.object({ task: z.enum(FOLLOW_UPS), why: z.string(), sinceMs: instantMs })),
  centre: z.object({ offMm: z.number(), atMs: instantMs }).nullable(),
  limitMm: z.number(),
  isLimitGuess: z.boolean(),
  /** Pull through one length of the way, as last read, and as it was with the first reading; N. */
  pulls: z.array(z.object({ piece: z.number().int(), atMs: instantMs, forceN: z.number(), firstN: z.number() })),
  /** What of its front carries the program’s heat worst; null: current, duty or every rating is untold. */
  heat: z
    .object({
      at: z.enum(RATED_KINDS),
      by: z.enum(['family', 'part']),
      ...{ amps: z.number(), heatAmps: z.number(), may: z.number(), wants: z.number(), chance: z.number() },
      /** What is on there and tells no rating. */
      untold: z.array(z.enum(RATED_KINDS)),
    })
    .nullable(),
  /** Reamer, cutter and sprayer beside the torch. */
  reamer: z.object({
    blade,
    cutter: blade,
    /** Cycles from ream to ream. */
    every: z.number().nullable(),
    reams: z
      .object({
        n: z.number().int(),
        leftShare: z.number().nullable(),
        doesLeaveIt: z.boolean(),
        shutWhenDue: z.number(),
        every: z.number().int().nullable(),
        isHeld: z.enum(['up', 'down']).nullable(),
      })
      .nullable(),
    tank: z
      .object({
        readL: z.number(),
        atMs: instantMs,
        /** Null: nobody said what a shot takes, how often it comes or how much arc a cycle has. */
        now: z
          .object({
            ...{ litres: z.number(), low: z.number(), high: z.number(), n: z.number().int(), times: z.number() },
            ...{ emptyMs: instantMs.nullable(), earlyMs: instantMs.nullable() },
          })
          .nullable(),
      })
      .nullable(),
    /** More starts come to nothing than did; null: they do not. */
    fails: z.object({ share: z.number(), wellShare: z.number().nullable(), sinceMs: instantMs }).nullable(),
  }),
  /** Turned from spool to drum: what its feed motor drew before and draws since, and what all lengths of its way pulled; null: it was not. */
  turned: z
    .object({
      sinceMs: instantMs,
      ...{ ampsBefore: z.number().nullable(), ampsAfter: z.number().nullable() },
      ...{ pullBeforeN: z.number().nullable(), pullAfterN: z.number().nullable() },
    })
    .nullable(),
  /** Its feed motor’s current creeps at one wire speed, as the feeder itself sends it; null: it does not, or none is sent. */
  creeping: z.object({ amps: z.number(), baseA: z.number(), sinceMs: instantMs, atMs: instantMs }).nullable(),
  /** Ready necks, judged for this cell: right ones first. */
  ready: z.array(z.object({ neckId: idOf('carrier'), name: z.string(), verdict: spareVerdict })),
})
export type CellLine = z.infer<typeof cellLine>

export const cellsAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  currency: z.string(),
  cells: z.array(cellLine),
  bench: z.array(benchThing),
  rounds: z.array(neckRound),
  families: z.array(z.object({ id: idOf('family'), name: z.string(), isNeckQuick: z.boolean() })),
})
export type CellsAnswer = z.infer<typeof cellsAnswer>

export const traceQuery = z.object({ stationId })
/** What the feeder sent of the minute before it stopped; no points: nothing was sent, or it does not stand. */
export const traceAnswer = z.object({
  atMs: instantMs.nullable(),
  zone: z.string(),
  points: z.array(
    z.object({
      s: z.number(),
      wireMPerMin: z.number(),
      rollMPerMin: z.number().nullable(),
      motorAmps: z.number().nullable(),
      volts: z.number().nullable(),
      gasLpm: z.number().nullable(),
    }),
  ),
})
export type TraceAnswer = z.infer<typeof traceAnswer>

export const roundRequest = z.object({ key: idempotencyKey, stationIds: z.array(stationId).min(1).max(200) })
export const neckRequest = z.object({
  key: idempotencyKey,
  name: z.string().trim().min(1).max(40),
  familyId: idOf('family'),
})
export const neckSwapRequest = z.object({
  key: idempotencyKey,
  stationId,
  neckId: idText('carrier'),
  /** What becomes of the neck that comes off. */
  oldNeck: z.enum(['ready', 'toRefurbish']),
  /** It hung at another cell as far as anybody said, and was taken from there. */
  isFromElsewhere: z.boolean().default(false),
})
export const crashRequest = z.object({ key: idempotencyKey, stationId })
/** Work on a thing that hangs nowhere: written down on the thing itself, whoever it hangs on later. */
export const benchRequest = z.object({
  key: idempotencyKey,
  carrierId: idText('carrier'),
  acts: z
    .array(
      z.object({
        act: z.enum(['changed', 'cleaned', 'removed', 'found']),
        position,
        partId: idOf('part').nullish(),
        outReason: outReason.default('notSaid'),
      }),
    )
    .max(20),
  /** Left open where nobody says. */
  status: z.enum(['ready', 'toRefurbish']).nullish(),
})
