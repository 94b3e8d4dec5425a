import { lifeUnit } from './common.ts'
import { z } from 'zod'
import { type Fact } from '@core/ledger/event.ts'
import { FACT_KINDS } from '@core/ledger/facts.ts'
import { type ShopChange } from '@core/ledger/shopchange.ts'

/**
 * A fact of the ledger as it goes out, just as it was said: `kind`, and the fields of that kind. Facts come in by their own requests, never by this
 * shape, so its fields are not checked a second time.
 */
export const fact = z.looseObject({ kind: z.enum(FACT_KINDS) }) as unknown as z.ZodType<Fact>
/** What was changed about how the shop is set up: `of`, and its fields. */
export const shopChange = z.looseObject({ of: z.string() }) as unknown as z.ZodType<ShopChange>
/** Names that belong to the ids and keys of a line. */
export const lineNames = z.object({
  part: z.string().nullable(),
  wire: z.string().nullable(),
  spool: z.number().int().nullable(),
  /** The gun or neck that hung nowhere then, or was hung or taken off. */
  carrier: z.string().nullable(),
  /** What a stop was, as the shop says it. */
  cause: z.string().nullable(),
  /** Where a rule holds, where that is not everywhere: a class of places, a family, a feeder, a mode. */
  scope: z.string().nullable(),
  /** Where parts lie, lay or were carried to, and from where; null: the main place. */
  place: z.string().nullable().default(null),
  from: z.string().nullable().default(null),
  /** What the life of the kind in question is counted in. */
  unit: lifeUnit.nullable(),
})
export type LineNames = z.infer<typeof lineNames>
