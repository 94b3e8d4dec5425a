import { z } from 'zod'
import { TAKEN_SOURCES } from '@core/parts/taken.ts'
import { idempotencyKey, idText, instantMs, kindKey, idOf } from './common.ts'

/** Which share of the changes made was logged: the middle and the band that holds 9 in 10. */
export const loggingShareLine = z.object({
  /** Null: the whole shop. */
  areaId: idOf('area').nullable(),
  kindKey,
  kindName: z.string(),
  source: z.enum(TAKEN_SOURCES),
  fromMs: instantMs,
  toMs: instantMs,
  taken: z.number(),
  sdTaken: z.number(),
  logged: z.number(),
  share: z.number().nullable(),
  low: z.number().nullable(),
  high: z.number().nullable(),
  /** More were logged than left the crib. */
  isOver: z.boolean(),
  /** Why there is no share. */
  reason: z.string().nullable(),
})
export type LoggingShareLine = z.infer<typeof loggingShareLine>

/** What the purchase list tells before anything was logged. */
export const boughtLine = z.object({
  kindKey,
  kindName: z.string(),
  pieces: z.number(),
  kg: z.number(),
  months: z.number().int(),
  kgEach: z.number(),
  lowKg: z.number(),
  highKg: z.number(),
})
export type BoughtLine = z.infer<typeof boughtLine>

export const tinLine = z.object({
  areaId: idOf('area'),
  kindKey,
  day: z.string(),
  grams: z.number(),
  gramsEach: z.number(),
  pieces: z.number().int(),
  isEmptied: z.boolean(),
})
export const supplyAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  lossShare: z.number(),
  shares: z.array(loggingShareLine),
  bought: z.array(boughtLine),
  /** The newest weighing of each tin. */
  tins: z.array(tinLine),
})
export type SupplyAnswer = z.infer<typeof supplyAnswer>

const quantity = z.number().int().min(1).max(1_000_000)
export const countRequest = z.object({
  key: idempotencyKey,
  /** Where they were counted; left out: the main place. */
  storeId: idText('store').nullish(),
  counts: z
    .array(z.object({ partId: idOf('part'), quantity: z.number().int().min(0).max(1_000_000) }))
    .min(1)
    .max(500),
})
export const receivedRequest = z.object({
  key: idempotencyKey,
  partId: idOf('part'),
  quantity,
  storeId: idText('store').nullish(),
})
/** From one place where parts lie to another; null: the main one. */
export const carryRequest = z
  .object({
    key: idempotencyKey,
    fromStoreId: idText('store').nullable(),
    toStoreId: idText('store').nullable(),
    lines: z
      .array(z.object({ partId: idText('part'), quantity }))
      .min(1)
      .max(500),
  })
  .refine((r) => r.fromStoreId !== r.toStoreId, 'they lie there already: choose two places')
  .refine((r) => new Set(r.lines.map((l) => l.partId)).size === r.lines.length, 'a part stands there twice')
/** A place where parts lie, which areas get theirs from it, and for how many days it is filled up. */
export const storeRequest = z.object({
  key: idempotencyKey,
  id: idText('store').nullish(),
  name: z.string().trim().min(1).max(40),
  fillDays: z.number().int().min(1).max(90),
  areaIds: z.array(idText('area')).max(200),
})
export const storeClosedRequest = z.object({ key: idempotencyKey, storeId: idText('store') })
export const tinRequest = z.object({
  key: idempotencyKey,
  areaId: idOf('area'),
  kindKey,
  grams: z.number().min(0).max(200_000),
  /** So many old ones, counted, weighed so much: asked once per kind and area. */
  pieces: z.number().int().min(5).max(10_000),
  gramsOfPieces: z.number().positive().max(200_000),
  isEmptied: z.boolean(),
  day: z.iso.date().optional(),
})
