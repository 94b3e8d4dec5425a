import { isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { wireWillTake } from '@core/classes/wireuse.ts'
import { type WireId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type classesAnswer } from '@contract/classes.ts'
import { type Reader } from '@server/db/db.ts'
import { spoolNow } from '@server/db/schema.ts'
import { boothClasses, hoursByLevel, ratesByWire } from '@server/classuse/classuse.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

type Wires = z.input<typeof classesAnswer>['wires']
const WEEK = 7
const MONTH = 28

/** Wire the classes of the coming week and month will weld, by what classes of their level welded, and what lies on the shelf. */
export async function wiresOfClasses(db: Reader, shop: ShopModel, nowMs: number): Promise<Wires> {
  const byWire = await ratesByWire(db, shop, nowMs)
  if (byWire.size === 0) return []
  const shelf = await onShelf(db)
  const coming = boothClasses(shop, { fromMs: nowMs, toMs: nowMs + MONTH * DAY_MS }).filter((c) => c.fromMs >= nowMs)
  return [...byWire].flatMap(([wireId, { rates, stations }]) => {
    const row = shop.wires.get(wireId)
    if (!row) return []
    const within = (days: number) => {
      const own = coming.filter((c) => stations.has(c.stationId) && c.fromMs < nowMs + days * DAY_MS)
      return { hours: own.reduce((s, c) => s + c.hours, 0), ...wireWillTake(rates, hoursByLevel(own)) }
    }
    const perHour = rates.areApart
      ? rates.levels.map((level, i) => ({ level, kg: rates.kgPerHour[i] ?? 0 }))
      : [{ level: null, kg: rates.all }]
    const { kg, unknown } = shelf.get(wireId) ?? { kg: 0, unknown: 0 }
    return [
      {
        ...{ wireId, name: row.name, week: within(WEEK), month: within(MONTH), perHour },
        ...{ onHandKg: kg, unknown, spoolKg: row.spoolKg },
      },
    ]
  })
}

/** Spools that hang on no gun, by wire. */
async function onShelf(db: Reader): Promise<Map<WireId, { kg: number; unknown: number }>> {
  const rows = await db.select().from(spoolNow).where(isNull(spoolNow.goneMs))
  const by = new Map<WireId, { kg: number; unknown: number }>()
  for (const { headId, wireId, baseKg } of rows) {
    if (headId !== null || !wireId) continue
    const of = by.get(wireId) ?? { kg: 0, unknown: 0 }
    by.set(wireId, baseKg === null ? { ...of, unknown: of.unknown + 1 } : { ...of, kg: of.kg + baseKg })
  }
  return by
}
