import { z } from 'zod'
import { WIRE_LOST_WHYS } from '@core/ledger/event.ts'
import { idOf, instantMs } from './common.ts'

export const WASTE_WHYS = [...WIRE_LOST_WHYS, 'short end'] as const
export type WasteWhy = (typeof WASTE_WHYS)[number]
const lost = { kg: z.number(), minor: z.number().nullable(), times: z.number().int() }

/** Where wire goes that never becomes weld, and what spools of another size would cost. */
export const wasteAnswer = z.object({
  nowMs: instantMs,
  currency: z.string(),
  months: z.number().int(),
  usedKg: z.number(),
  /** By why, most money first. */
  whys: z.array(z.object({ why: z.enum(WASTE_WHYS), ...lost })),
  /** By month, oldest first: yyyy-mm. */
  byMonth: z.array(z.object({ month: z.string(), ...lost })),
  areas: z.array(
    z.object({
      areaId: idOf('area'),
      name: z.string(),
      most: z.enum(WASTE_WHYS),
      perTonne: z.number().nullable(),
      ...lost,
    }),
  ),
  /** By wire and class of place: what a year takes of it. */
  groups: z.array(
    z.object({
      wireName: z.string(),
      className: z.string(),
      guns: z.number().int(),
      kgPerYear: z.number(),
      spoolKg: z.number(),
      pricePerKgMinor: z.number().nullable(),
      changeMin: z.number(),
      isMinLearnt: z.boolean(),
      standMinorPerHour: z.number(),
      labourMinorPerHour: z.number(),
      shortKg: z.number(),
      isShortSeen: z.boolean(),
    }),
  ),
})
export type WasteAnswer = z.infer<typeof wasteAnswer>
