import { CAUSE_PLACES, OUT_REASONS } from '@core/path/columns.ts'
import { z } from 'zod'
import { CAUSE_KINDS, EFFORTS, ODDS, PICTURES, SIGNS, SOURCES } from '@core/diagnose/knowledge.ts'
import { schoolKeys } from '@core/houserule/schools.ts'
import { TOUCHED } from '@core/diagnose/touched.ts'
import { GUIDE_KEYS } from '@core/guide/keys.ts'
import { HAZARDS } from '@core/guide/cautions.ts'
import { DRAWING_KEYS } from '@core/drawings/drawing.ts'
import { CLOSINGS } from '@core/ledger/event.ts'
import { idempotencyKey, instantMs, stationId, position, idOf } from './common.ts'
import { linerTerms } from './houserule.ts'
import { linerEvidence } from './liner.ts'

const key = z
  .string()
  .min(1)
  .max(24)
  .regex(/^[A-Za-z][A-Za-z0-9]*$/, 'letters and digits, a letter first')
const words = z.string().trim().min(1).max(160)
const hazards = z.array(z.enum(HAZARDS)).max(8)
/** Why a gun stops, as the shop has it: the same going in and coming out. */
export const knowledge = z.object({
  symptoms: z
    .array(
      z.object({
        key,
        says: words,
        picture: z.enum(PICTURES),
        causes: z.array(key).max(40),
        odds: z.record(key, z.enum(ODDS)).optional(),
        source: z.record(key, z.enum(SOURCES)).optional(),
        touched: z.enum(TOUCHED).optional(),
        told: z.array(key).max(12).optional(),
        first: key.optional(),
        only: z.enum(['cell']).optional(),
        drawn: z.tuple([z.enum(DRAWING_KEYS), z.number().int().min(0).max(7)]).optional(),
      }),
    )
    .min(1)
    .max(200),
  causes: z
    .array(
      z.object({
        key,
        says: words,
        at: z.enum(CAUSE_PLACES),
        kind: z.enum(CAUSE_KINDS),
        fix: z.object({
          do: words,
          effort: z.enum(EFFORTS),
          act: z.enum(['changed', 'cleaned']).nullable(),
          position: position.nullable(),
          hazards,
          isLicensed: z.boolean().optional(),
          isTuned: z.boolean().optional(),
          one: key.optional(),
          wants: key.optional(),
          proof: key.optional(),
        }),
      }),
    )
    .min(1)
    .max(400),
  checks: z
    .array(
      z.object({
        key,
        do: words,
        how: z.string().max(300),
        effort: z.enum(EFFORTS),
        minutes: z.number().positive().max(240).optional(),
        sign: z.enum(SIGNS),
        hazards,
        drawing: z.enum(DRAWING_KEYS).nullable(),
        outcomes: z
          .array(
            z.object({
              key,
              says: words,
              points: z.array(key).max(40),
              panel: z.number().int().min(0).max(5).optional(),
              isSure: z.boolean().optional(),
            }),
          )
          .max(12),
        shows: z.number(),
        mends: position.optional(),
        notFor: z.array(key).max(200).optional(),
        onlyFor: z.array(key).max(200).optional(),
        after: key.optional(),
        guide: z.enum(GUIDE_KEYS).optional(),
        outReason: z.enum(OUT_REASONS).optional(),
      }),
    )
    .min(1)
    .max(400),
})

const turned = z.object({ symptom: key, cause: key, n: z.number() })
const lastStop = z.object({
  fromMs: instantMs,
  minutes: z.number().nullable(),
  position: position.nullable(),
  symptom: z.string().nullable(),
  cause: z.string().nullable(),
  isCertain: z.boolean(),
})
export const downQuery = z.object({ stationId })
/** All a search needs beside the gun's own page: it runs on the device. */
export const downAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  stationId,
  isCell: z.boolean(),
  /** Learners weld here: each look says why, and may be guessed first. */
  isTraining: z.boolean(),
  /** Cored wire is crushed, solid wire is not; null: nobody said what is on. */
  isCored: z.boolean().nullable(),
  version: z.number().int(),
  isShipped: z.boolean(),
  knowledge,
  /** What stops of this class of places turned out to be. */
  turned: z.array(turned),
  /** Other places that stopped lately. */
  others: z.object({ gas: z.number().int(), sameWire: z.number().int(), power: z.number().int() }),
  /** A ready gun that is right for the wire that is on, and the minutes of putting it on. */
  spare: z
    .object({
      gunId: idOf('carrier'),
      name: z.string(),
      /** Where it is of another family than the gun that hangs. */
      otherFamily: z.string().nullable(),
      minutes: z.number(),
      /** It is cheaper than going on where what is left takes longer than this. */
      worthOverMin: z.number(),
    })
    .nullable(),
  /** What a new one of a kind costs, as minutes of standing here; money itself is for leads. */
  priceMin: z.record(z.string(), z.number()),
  /** The shop's schools that the search goes by. */
  schools: z.object({
    first: z.string(),
    clean: z.string(),
    swap: z.enum(schoolKeys('D20')),
    liner: z.string(),
    blame: z.enum(schoolKeys('D26')),
  }),
  /** The terms of the liner's rule, and what speaks of the one that is in. */
  liner: z.object({ terms: linerTerms, evidence: linerEvidence }),
  lastStops: z.array(lastStop),
})
export type DownAnswer = z.infer<typeof downAnswer>

export const said = z.discriminatedUnion('type', [
  z.object({ type: z.literal('check'), key, outcome: key }),
  z.object({ type: z.literal('cantTell'), key }),
  z.object({ type: z.literal('fix'), key: z.string().min(1).max(40) }),
  z.object({ type: z.literal('symptom'), key, isThere: z.boolean() }),
  z.object({ type: z.literal('notSo'), key }),
])
export const explainRequest = z.object({
  key: idempotencyKey,
  stationId,
  /** When the stop began that is explained; null: the one that is open, or the last. */
  stopFromMs: instantMs.nullable().default(null),
  symptom: key,
  touched: z.enum(TOUCHED).nullable().default(null),
  said: z.array(said).max(80).default([]),
  /** Null: nobody knows. */
  cause: key.nullable(),
  isCertain: z.boolean(),
  /** `seen`: what is seen, said while it is looked into; no explanation yet. */
  by: z.enum(['search', 'known', 'later', 'seen']),
  closing: z.enum(CLOSINGS),
  /** Pieces of work that were scrapped with it; null: nobody said. */
  scrapped: z.number().int().min(0).max(99).nullable().default(null),
})

export const downNowQuery = z.object({
  areaId: idOf('area').optional(),
  days: z.coerce.number().int().min(1).max(400).default(30),
})
/** What is down, and where the minutes went. */
export const downNowAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  days: z.number().int(),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  down: z.array(
    z.object({
      stationId,
      name: z.string(),
      fromMs: instantMs,
      minutes: z.number().nullable(),
      position: position.nullable(),
    }),
  ),
  /** A stroke each, at its column; null: nobody said where. */
  stops: z.array(
    z.object({
      stationId,
      name: z.string(),
      fromMs: instantMs,
      minutes: z.number(),
      column: z.string().nullable(),
      cause: z.string().nullable(),
      isSure: z.boolean(),
      isExplained: z.boolean(),
      /** What standing cost, for leads; null where nobody said what an hour costs. */
      costMinor: z.number().nullable(),
    }),
  ),
  currency: z.string(),
  /** As many days before these: stops then, and whether it changed. */
  before: z.object({
    stops: z.number().int(),
    ratio: z.number().nullable(),
    low: z.number(),
    high: z.number().nullable(),
    p: z.number(),
    /** Days more until it could be told at these rates; null: not in any time worth waiting. */
    untilDays: z.number().nullable(),
  }),
  /** Of stops with a closing test: how often the first fix was it. */
  firstFix: z.object({ right: z.number().int(), of: z.number().int() }),
  causes: z.array(z.object({ key: z.string(), says: z.string(), n: z.number(), minutes: z.number() })),
  /** By what was seen: how often the first fix was it, and what was asked in vain, for leads; where the knowledge is poor. */
  searches: z.array(
    z.object({
      key: z.string(),
      says: z.string(),
      n: z.number().int(),
      firstRight: z.number().int(),
      /** Looks that found all well though it was something of theirs, or of nothing of use, most often first. */
      inVain: z.array(z.object({ says: z.string(), n: z.number().int() })),
    }),
  ),
})
export type DownNowAnswer = z.infer<typeof downNowAnswer>

export const knowledgeAnswer = z.object({
  version: z.number().int(),
  isShipped: z.boolean(),
  atMs: instantMs.nullable(),
  knowledge,
  /** Rows that ship new since the shop changed it last; they are in. */
  came: z.object({ symptoms: z.number().int(), causes: z.number().int(), checks: z.number().int() }),
})
export type KnowledgeAnswer = z.infer<typeof knowledgeAnswer>
export const knowledgeRequest = z.object({
  key: idempotencyKey,
  /** Null: back to what ships. */
  knowledge: knowledge.nullable(),
})
