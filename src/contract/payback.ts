import { CAUSE_PLACES } from '@core/path/columns.ts'
import { z } from 'zod'
import { lineNames, shopChange } from './fact.ts'
import { instantMs, position, kindKey, idOf } from './common.ts'

export const PAYBACK_DAYS = [30, 90, 365] as const
export const paybackQuery = z.object({
  areaId: idOf('area').optional(),
  days: z.coerce
    .number()
    .refine((d) => (PAYBACK_DAYS as readonly number[]).includes(d), `one of ${PAYBACK_DAYS.join(', ')} days`)
    .default(90),
})
const interval = z.object({ rate: z.number(), low: z.number(), high: z.number() })
/** Minor units; null for who may not see money. */
const cost = z
  .object({
    standMinor: z.number(),
    handsMinor: z.number(),
    partsMinor: z.number(),
    wireMinor: z.number(),
    scrapMinor: z.number(),
  })
  .nullable()
const heap = z.object({ stops: z.number().int(), minutes: z.number(), cost })
const rates = z.object({
  areaId: idOf('area').nullable(),
  name: z.string(),
  stops: z.number().int(),
  kg: z.number(),
  arcHours: z.number(),
  /** Share of the arc hours that nobody counted. */
  estimatedShare: z.number(),
  per100kg: interval.nullable(),
  per100h: interval.nullable(),
  betweenArcH: z.number().nullable(),
  meanMin: z.number().nullable(),
  upShare: z.number().nullable(),
  tips: z.number().int(),
  diffusers: z.number().int(),
  diffusersFor100Tips: interval.nullable(),
})
/** What the stops of these days cost, where on the path, beside as many days before. */
/** What may have helped: another gun, another wire, a knob calibrated, a cable blown out, a lasting part, a house rule. */
export const CHANGED = ['gun', 'wire', 'knob', 'blown', 'part', 'rule'] as const

/** Each stop of these days, newest first. */
export const stopsAnswer = z.object({
  zone: z.string(),
  currency: z.string(),
  isMoney: z.boolean(),
  stops: z.array(
    z.object({
      eventId: idOf('event'),
      stationId: idOf('station'),
      name: z.string(),
      fromMs: instantMs,
      toMs: instantMs.nullable(),
      minutes: z.number(),
      column: z.enum(CAUSE_PLACES).nullable(),
      /** What it was; null: nobody said. */
      cause: z.string().nullable(),
      parts: z.number().int(),
      minor: z.number().nullable(),
    }),
  ),
  /** So many there were; the newest of them are told. */
  of: z.number().int(),
})
export type StopsAnswer = z.infer<typeof stopsAnswer>

export const paybackAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  currency: z.string(),
  days: z.number().int(),
  isMoney: z.boolean(),
  areas: z.array(z.object({ id: idOf('area'), name: z.string() })),
  total: z.object({ now: heap, before: heap }),
  /** In path order; off the wire and "nobody said where" last. */
  heaps: z.array(
    z.object({
      column: z.enum(CAUSE_PLACES).nullable(),
      now: heap,
      before: heap,
      /** Parts put on in these stops, and what one of the commonest costs. */
      parts: z.number().int(),
      partKind: kindKey.nullable(),
      partMinor: z.number().nullable(),
    }),
  ),
  /** Of the stops that somebody explained those that were not the feed, by why, commonest first; null: none were explained. */
  notFeed: z
    .object({
      explained: z.number().int(),
      n: z.number().int(),
      minutes: z.number(),
      whys: z.array(z.object({ says: z.string(), n: z.number().int() })),
    })
    .nullable(),
  /** What clearing a nest comes to; null: none in these days. */
  nests: z
    .object({
      n: z.number().int(),
      meanMin: z.number(),
      /** Mean, and the middle half of the single ones. */
      meanMinor: z.number().nullable(),
      lowMinor: z.number().nullable(),
      highMinor: z.number().nullable(),
      cost,
      wireKg: z.number(),
      /** Of so many nobody said how much wire was lost: as long as the gun. */
      guessedWire: z.number().int(),
    })
    .nullable(),
  /** What nobody priced, so that it counts nothing. */
  unpriced: z.object({
    parts: z.array(z.string()),
    wire: z.boolean(),
    standing: z.boolean(),
    scrap: z.number().int(),
  }),
  rates: z.array(rates),
  /** What was changed lately, the newest first: to ask whether it helped. */
  changes: z.array(
    z.object({
      eventId: idOf('event'),
      happenedMs: instantMs,
      stationId: idOf('station').nullable(),
      name: z.string().nullable(),
      what: z.enum(CHANGED),
      /** Of a rule: what was chosen. */
      rule: z.object({ change: shopChange, names: lineNames }).nullable(),
      position: position.nullable(),
      /** Places it holds for, where it is a rule of a class. */
      classKey: z.string().nullable(),
    }),
  ),
})
export type PaybackAnswer = z.infer<typeof paybackAnswer>

export const helpQuery = z.object({
  atMs: z.coerce.number().int(),
  areaId: idOf('area').optional(),
  stationId: idOf('station').optional(),
  classKey: z.string().max(20).optional(),
  /** Only stops that began at this column. */
  column: z.enum(CAUSE_PLACES).optional(),
})
const counted = z.object({ stops: z.number().int(), over: z.number() })
export const helpAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  atMs: instantMs,
  /** What it is counted over: arc hours where the clock knows them. */
  unit: z.enum(['arcHours', 'kg', 'scheduledHours']),
  days: z.object({ before: z.number(), after: z.number() }),
  before: counted,
  after: counted,
  is: z.enum(['fewer', 'more', 'cantTell']),
  ratio: z.number().nullable(),
  low: z.number(),
  high: z.number().nullable(),
  p: z.number(),
  /** 0: it can tell; null: not in any time worth waiting. */
  untilDays: z.number().nullable(),
  elsewhere: z.enum(['same', 'not']).nullable(),
  elsewhereRatio: z.number().nullable(),
  isAfterBad: z.boolean(),
})
export type HelpAnswer = z.infer<typeof helpAnswer>
