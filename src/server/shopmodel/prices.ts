import { type PartId, type StationId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type StopRates } from '@core/payback/stopcost.ts'
import { groupBy, type ShopModel } from './model.ts'

/** Price of a part; where nobody said which it was, the middle one of its kind. */
export function prices(shop: ShopModel): (partId: PartId | null, kindKey: KindKey) => number | null {
  const priced = [...shop.partById.values()].flatMap((p) =>
    p.priceMinor === null ? [] : [{ ...p, minor: p.priceMinor }],
  )
  const middle = new Map(
    [...groupBy(priced, (p) => p.kindKey)].map(([kind, list]) => {
      const sorted = list.map((p) => p.minor).sort((a, b) => a - b)
      return [kind, sorted[Math.floor(sorted.length / 2)] ?? null] as const
    }),
  )
  return (partId, kindKey) => (partId ? shop.partById.get(partId)?.priceMinor : null) ?? middle.get(kindKey) ?? null
}

/** What a stop at a place costs by the hour, standing for all that halt together with it, and a scrapped piece. */
export function ratesAt(shop: ShopModel, stationId: StationId): StopRates {
  const place = shop.classes.get(shop.stationById.get(stationId)?.classKey ?? '')
  return {
    stopMinorPerHour: shop.stopRateOf(stationId),
    labourMinorPerHour: place?.labourMinorPerHour ?? 0,
    scrapMinorPerPiece: place?.scrapMinorPerPiece ?? 0,
  }
}
