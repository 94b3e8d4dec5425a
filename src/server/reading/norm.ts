import { and, asc, eq, inArray } from 'drizzle-orm'
import { type CarrierId } from '@core/ids/id.ts'
import { standsAt } from '@core/reading/alarms.ts'
import { knobNorm, type KnobNorm } from '@core/reading/norm.ts'
import { reading, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { builtHere, type Hung } from '@server/gunnow/setup.ts'
import { keptReading } from '@server/projection/rows.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

export type NormBy = (method: string) => KnobNorm | null

/** The knob on the other feeders of this type with the same wire, by each way of reading it: as last left, none that was raised to keep going. */
export async function knobNormHere(db: Reader, hung: Hung, shop: ShopModel): Promise<NormBy> {
  const { feederTypeId } = builtHere(hung, shop)
  const wireId = hung.spoolWireId
  if (!feederTypeId || !wireId) return () => null
  const nows = await db.select({ stationId: stationNow.stationId, headId: stationNow.headId }).from(stationNow)
  const heads = nows.flatMap(({ stationId, headId }) =>
    headId && headId !== hung.now.headId && shop.built(stationId).feederTypeId === feederTypeId ? [headId] : [],
  )
  if (heads.length === 0) return () => null
  const found = await db
    .select()
    .from(reading)
    .where(and(eq(reading.what, 'tension'), eq(reading.wireId, wireId), inArray(reading.headId, heads)))
    .orderBy(asc(reading.atMs))
  const rows = found.map(keptReading)
  return (method) => {
    const last = new Map<CarrierId | null, number>()
    for (const r of rows) {
      const mark = standsAt(r)
      if (r.method === method && mark !== null && !r.isRaised) last.set(r.headId, mark)
    }
    return knobNorm([...last.values()])
  }
}
