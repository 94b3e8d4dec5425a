import { type PartId } from '@core/ids/id.ts'
import { type PriceBand } from '@core/stock/ordersize.ts'
import { type SheetColumn } from '@core/stock/ordersheet.ts'
import { bigint, boolean, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** Who sells parts. `leadDays`, `orderMinor` null: nobody said. */
export const supplier = mysqlTable(
  'supplier',
  {
    id: idColumn<'supplier'>('id').primaryKey(),
    name: varchar('name', { length: 60 }).notNull(),
    leadDays: int('lead_days'),
    /** One order beside the parts: writing it, the trip, taking it in. */
    orderMinor: int('order_minor'),
    /** In which columns they want an order; null: in ours. */
    columns: json('sheet_columns').$type<SheetColumn[]>(),
  },
  (t) => [uniqueIndex('supplier_name').on(t.name)],
)

/** What one of them sells a part for. */
export const offer = mysqlTable(
  'offer',
  {
    id: idColumn<'offer'>('id').primaryKey(),
    partId: idColumn<'part'>('part_id').notNull(),
    supplierId: idColumn<'supplier'>('supplier_id').notNull(),
    theirCode: varchar('their_code', { length: 60 }),
    packOf: int('pack_of').notNull(),
    /** A price each from so many pieces on, minor units of the shop's currency. */
    bands: json('bands').$type<PriceBand[]>().notNull(),
    /** Where it is another than the supplier's usual. */
    leadDays: int('lead_days'),
    /** Known to fit here; else somebody only says so. */
    isSure: boolean('is_sure').notNull(),
  },
  (t) => [uniqueIndex('offer_of').on(t.partId, t.supplierId), index('offer_supplier').on(t.supplierId)],
)

export interface OrderLine {
  partId: PartId
  quantity: number
  /** As it was when it was ordered; null: no price. */
  eachMinor: number | null
}
/** What was ordered. What has come of it is said in the ledger (`received` with its id); `closedMs`: the rest does not come. */
export const partOrder = mysqlTable(
  'part_order',
  {
    id: idColumn<'order'>('id').primaryKey(),
    supplierId: idColumn<'supplier'>('supplier_id').notNull(),
    orderedMs: instantMs('ordered_ms').notNull(),
    dueMs: bigint('due_ms', { mode: 'number' }).notNull(),
    lines: json('lines').$type<OrderLine[]>().notNull(),
    closedMs: instantMs('closed_ms'),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('part_order_key').on(t.idempotencyKey), index('part_order_open').on(t.closedMs, t.orderedMs)],
)

/** Parts laid together for a walk, a class, a day's work: theirs until it is closed. */
export const kit = mysqlTable(
  'kit',
  {
    id: idColumn<'kit'>('id').primaryKey(),
    name: varchar('name', { length: 60 }).notNull(),
    lines: json('lines').$type<KitLine[]>().notNull(),
    madeMs: instantMs('made_ms').notNull(),
    closedMs: instantMs('closed_ms'),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('kit_key').on(t.idempotencyKey), index('kit_open').on(t.closedMs)],
)
export interface KitLine {
  /** Beyond what is due, as a class may take. */
  forClass?: number | undefined
  partId: PartId
  quantity: number
  /** Guns it is for. */
  guns: string[]
}
