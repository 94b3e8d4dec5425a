import { z } from 'zod'
import { SHEET_FIELDS } from '@core/stock/ordersheet.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { idempotencyKey, idOf, idText, instantMs, kindKey } from './common.ts'

const minor = z.number().int().min(0).max(100_000_000)

/** What will be wanted within some days: middle, and what 9 in 10 lie between. */
export const needLine = z.object({ days: z.number(), mean: z.number(), low: z.number(), high: z.number() })
export type NeedLine = z.infer<typeof needLine>

export const offerLine = z.object({
  id: idOf('offer').nullable(),
  supplierId: idOf('supplier').nullable(),
  /** Null: nobody said who sells it; lead time and price are guesses then. */
  supplierName: z.string().nullable(),
  theirCode: z.string().nullable(),
  packOf: z.number().int(),
  bands: z.array(z.object({ from: z.number(), each: z.number() })),
  leadDays: z.number(),
  sdLeadDays: z.number(),
  /** Whose lead time it is: learnt from so many orders, said, or a guess. */
  leadBy: z.enum(['orders', 'told', 'guess']),
  isSure: z.boolean(),
  /** An order of today by this offer. */
  quantity: z.number(),
  minor: z.number(),
  standMinor: z.number(),
  chanceShort: z.number(),
})
export type OfferLine = z.infer<typeof offerLine>

export const adviceLine = z.object({
  supplierName: z.string().nullable(),
  offerId: idOf('offer').nullable(),
  leadDays: z.number(),
  point: z.number(),
  service: z.number(),
  meanwhile: z.number(),
  quantity: z.number(),
  eachMinor: z.number().nullable(),
  orderInDays: z.number().nullable(),
  runsOut: z.object({ low: z.number().nullable(), middle: z.number().nullable(), high: z.number().nullable() }),
  chanceShort: z.number(),
  tiedUpMinor: z.number(),
  yearMinor: z.number(),
  weekWithoutMinor: z.number(),
  shortMinor: z.number(),
  bridge: z
    .object({
      supplierName: z.string().nullable(),
      quantity: z.number(),
      minor: z.number(),
      standWithMinor: z.number(),
      standWithoutMinor: z.number(),
      chanceShort: z.number(),
    })
    .nullable(),
})
export type AdviceLine = z.infer<typeof adviceLine>

export const stockPart = z.object({
  partId: idOf('part'),
  code: z.string(),
  name: z.string(),
  kindKey,
  kindName: z.string(),
  column: z.enum(COLUMNS),
  familyName: z.string().nullable(),
  wireSizeMm: z.number().nullable(),
  shelf: z.string().nullable(),
  shelfMost: z.number().nullable(),
  /** By count and log; null: never counted. */
  onHand: z.number().nullable(),
  countedMs: instantMs.nullable(),
  /** Place by place, where there are several; null: the main one. */
  lies: z.array(z.object({ storeId: idOf('store').nullable(), onHand: z.number(), countedMs: instantMs })).default([]),
  /** Of these, so many lie packed in kits. */
  packed: z.number().int().default(0),
  /** What is likely there, by how much gets logged. */
  likely: z.object({ mean: z.number(), low: z.number(), high: z.number(), share: z.number() }).nullable(),
  coming: z.array(z.object({ quantity: z.number(), dueMs: instantMs, isLate: z.boolean() })),
  /** Guns it is on, and of these those whose life or use nobody knows. */
  inUse: z.number().int(),
  untold: z.number().int(),
  /** Of these, booths whose use goes by the classes that come: against their pace so far, over four weeks. */
  byClasses: z.object({ booths: z.number().int(), pace: z.number() }).nullable(),
  by: z.enum(['lives', 'counts', 'both', 'nothing']),
  source: z.enum(['yours', 'told', 'trade']).nullable(),
  /** What left the shelf: so many in so many days. */
  seen: z.object({ taken: z.number(), days: z.number(), by: z.enum(['counted', 'bought']) }).nullable(),
  need: z.array(needLine),
  advice: adviceLine.nullable(),
  offers: z.array(offerLine),
  /** Places that stand first without it. */
  stands: z.array(z.string()),
  ready: z.number().int(),
})
export type StockPart = z.infer<typeof stockPart>

export const orderLineAnswer = z.object({
  partId: idOf('part'),
  code: z.string(),
  name: z.string(),
  quantity: z.number().int(),
  received: z.number().int(),
  eachMinor: z.number().nullable(),
})
export const orderAnswer = z.object({
  id: idOf('order'),
  supplierId: idOf('supplier'),
  supplierName: z.string(),
  orderedMs: instantMs,
  dueMs: instantMs,
  isLate: z.boolean(),
  lines: z.array(orderLineAnswer),
})
export type OrderAnswer = z.infer<typeof orderAnswer>
const sheetColumn = z.object({ head: z.string().trim().min(1).max(40), is: z.enum(SHEET_FIELDS) })
export const supplierAnswer = z.object({
  id: idOf('supplier'),
  name: z.string(),
  leadDays: z.number().nullable(),
  orderMinor: z.number().nullable(),
  columns: z.array(sheetColumn).nullable(),
  /** Days it took, of the orders that came. */
  learnt: z.object({ n: z.number().int(), days: z.number(), sd: z.number() }).nullable(),
})
export type SupplierAnswer = z.infer<typeof supplierAnswer>

/** A place where parts lie besides the main one, and what to carry there so that it lasts. */
export const storeAnswer = z.object({
  id: idOf('store'),
  name: z.string(),
  fillDays: z.number().int(),
  areaIds: z.array(idOf('area')),
  /** What is kept there: how many, how many should be, how many to carry, and how many lie in the main place for it. */
  fill: z.array(
    z.object({
      partId: idOf('part'),
      code: z.string(),
      name: z.string(),
      onHand: z.number(),
      /** Enough in 19 of 20 stretches of so many days; null: nobody knows what its guns take. */
      level: z.number().nullable(),
      mean: z.number().nullable(),
      carry: z.number(),
      main: z.number().nullable(),
    }),
  ),
})
export type StoreAnswer = z.infer<typeof storeAnswer>
export const stockQuery = z.object({ until: z.iso.date().optional() })
export const stockAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  currency: z.string(),
  /** To the day that was asked for; null: no day was. */
  untilDays: z.number().nullable(),
  parts: z.array(stockPart),
  orders: z.array(orderAnswer),
  suppliers: z.array(supplierAnswer),
  stores: z.array(storeAnswer).default([]),
  /** Kept on the shelf on average, all parts together. */
  tiedUpMinor: z.number(),
  /** Of the parts of one kind and size in several families: what one family would save. */
  fewer: z.array(
    z.object({
      kindName: z.string(),
      families: z.number().int(),
      codes: z.array(z.string()),
      safetyNow: z.number(),
      safetyThen: z.number(),
      savedMinor: z.number(),
      yearMinor: z.number(),
    }),
  ),
  /** Parts on the shelf that no gun takes any more. */
  orphans: z.array(
    z.object({ partId: idOf('part'), code: z.string(), onHand: z.number(), minor: z.number().nullable() }),
  ),
})
export type StockAnswer = z.infer<typeof stockAnswer>

/** Orders that are late, of parts some gun is to wait for. */
export const lateAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  late: z.array(
    z.object({
      code: z.string(),
      name: z.string(),
      supplierName: z.string(),
      dueMs: instantMs,
      onHand: z.number().nullable(),
      /** Days it lasts, at the middle. */
      outDays: z.number(),
      stands: z.array(z.string()),
    }),
  ),
})
export type LateAnswer = z.infer<typeof lateAnswer>

export const supplierRequest = z.object({
  key: idempotencyKey,
  id: idOf('supplier').nullish(),
  name: z.string().trim().min(1).max(60),
  leadDays: z.number().int().min(0).max(400).nullish(),
  orderMinor: minor.nullish(),
  columns: z.array(sheetColumn).min(1).max(12).nullish(),
})
export const offerRequest = z.object({
  key: idempotencyKey,
  partId: idText('part'),
  supplierId: idText('supplier'),
  theirCode: z.string().trim().max(60).nullish(),
  packOf: z.number().int().min(1).max(100_000),
  bands: z
    .array(z.object({ from: z.number().int().min(0).max(1_000_000), each: z.number().positive().max(100_000_000) }))
    .min(1)
    .max(8)
    .refine((bands) => bands[0]?.from === 0, 'the first price is from the first piece on')
    .refine(
      (bands) => bands.every((b, i) => i === 0 || b.from > (bands[i - 1]?.from ?? 0)),
      'each price begins after the one before',
    ),
  leadDays: z.number().int().min(0).max(400).nullish(),
  isSure: z.boolean(),
})
export const shelfRequest = z.object({
  key: idempotencyKey,
  partId: idText('part'),
  shelf: z.string().trim().max(40).nullish(),
  shelfMost: z.number().int().min(1).max(1_000_000).nullish(),
})
export const orderRequest = z.object({
  key: idempotencyKey,
  supplierId: idText('supplier'),
  lines: z
    .array(z.object({ partId: idText('part'), quantity: z.number().int().min(1).max(1_000_000) }))
    .min(1)
    .max(200)
    .refine((lines) => new Set(lines.map((l) => l.partId)).size === lines.length, 'a part stands there twice'),
  /** When it should be here; left out: by the usual lead time. */
  due: z.iso.date().optional(),
})
export const orderReceivedRequest = z.object({
  key: idempotencyKey,
  orderId: idText('order'),
  lines: z
    .array(z.object({ partId: idText('part'), quantity: z.number().int().min(1).max(1_000_000) }))
    .min(1)
    .max(200),
})
export const orderClosedRequest = z.object({ key: idempotencyKey, orderId: idText('order') })
export const orderSheetQuery = z.object({ id: idText('order') })

/** For the guns of an area, or for the next class of a group; neither: for all. */
export const kitQuery = z.object({ areaId: idText('area').optional(), groupId: idText('group').optional() })
const kitLine = z.object({
  partId: idOf('part'),
  code: z.string(),
  name: z.string(),
  shelf: z.string().nullable(),
  onHand: z.number().nullable(),
  quantity: z.number().int(),
  guns: z.array(z.string()),
  /** From which places, where there are several; null: the main one. */
  from: z.array(z.object({ store: z.string().nullable(), quantity: z.number().int() })).default([]),
  /** Of these, so many beyond what is due, as a class of that level may take. */
  forClass: z.number().int().optional(),
})
/** What is due and what is wrong, as parts to take along, in the order they lie in; and kits that are packed. */
export const kitAnswer = z.object({
  nowMs: instantMs,
  zone: z.string(),
  lines: z.array(kitLine),
  /** Due, and nobody knows which part goes on there. */
  unknown: z.array(z.object({ kindName: z.string(), guns: z.array(z.string()) })),
  packed: z.array(z.object({ id: idOf('kit'), name: z.string(), madeMs: instantMs, lines: z.array(kitLine) })),
})
export type KitAnswer = z.infer<typeof kitAnswer>
export type KitLineAnswer = z.infer<typeof kitLine>
export const kitRequest = z.object({
  key: idempotencyKey,
  name: z.string().trim().min(1).max(60),
  lines: z
    .array(
      z.object({
        partId: idText('part'),
        quantity: z.number().int().min(1).max(10_000),
        guns: z.array(z.string().max(24)).max(500),
        forClass: z.number().int().min(0).max(10_000).optional(),
      }),
    )
    .min(1)
    .max(200),
})
export const kitClosedRequest = z.object({ key: idempotencyKey, kitId: idText('kit') })
export const kitSheetQuery = z.object({ id: idText('kit') })
