import { LOSS_GUESS } from '@core/life/loggingshare.ts'
import { fillOf } from '@core/stock/fill.ts'
import { meanOf, poissonCounts, type Counts } from '@core/stock/counts.ts'
import { forecastByLives, type Forecast, type RenewalsKept, type Seen } from '@core/stock/forecast.ts'
import { type StockAnswer, type StoreAnswer } from '@contract/stock.ts'
import { type ShopPlaces, type StoreRow } from '@server/shopmodel/model.ts'
import { type Used } from './gather.ts'
import { type Shelf } from './onshelf.ts'

interface Kept {
  used: Used
  shelf: Shelf | null
  forecast: Forecast | null
  seen: Seen | null
}
interface At {
  shop: ShopPlaces
  /** Renewals once made are kept for all parts of one life. */
  kept: RenewalsKept
}

/** Places where parts lie besides the main one: what is kept there, how much its guns will take until it is filled again, what to carry. */
export function storesTold(parts: readonly Kept[], at: At): StockAnswer['stores'] {
  const { shop } = at
  return shop.stores
    .filter((s) => s.isActive)
    .map((s) => ({
      ...{ id: s.id, name: s.name, fillDays: s.fillDays },
      areaIds: shop.areas.filter((a) => a.storeId === s.id).map((a) => a.id),
      fill: parts.flatMap((p) => lineOf(p, s, at)).sort((a, b) => b.carry - a.carry || (a.code < b.code ? -1 : 1)),
    }))
}

function lineOf({ used, shelf, forecast, seen }: Kept, store: StoreRow, at: At): StoreAnswer['fill'] {
  const here = shelf?.lies.find((l) => l.storeId === store.id)
  if (!here) return []
  const main = shelf?.lies.find((l) => l.storeId === null)?.onHand ?? null
  const counts = countsOf({ used, forecast, seen }, store, at)
  const all = forecast?.over(store.fillDays).mean ?? 0
  const elsewhere = counts ? Math.max(0, all - meanOf(counts)) : 0
  const { level, carry } = fillOf(counts, { onHand: here.onHand, main, elsewhere })
  const { id: partId, code, name } = used.part
  return [{ partId, code, name, onHand: here.onHand, level, mean: counts && meanOf(counts), carry, main }]
}

/** By the lives of what is on its guns and their share of what left the shelves; where no life is known, by their number alone. */
function countsOf(
  { used, forecast, seen }: Pick<Kept, 'used' | 'forecast' | 'seen'>,
  store: StoreRow,
  at: At,
): Counts | null {
  const inUse = used.inUseAt.get(store.id) ?? []
  const by = (list: typeof inUse, of: Seen | null) =>
    forecastByLives(list, { lossShare: LOSS_GUESS, kept: at.kept, seen: of }).over(store.fillDays)
  if (inUse.length > 0) {
    const share = seen ? by(inUse, null).mean / Math.max(1e-9, by(used.inUse, null).mean) : 1
    return by(inUse, seen && { days: seen.days, taken: seen.taken * share, sd: seen.sd * share }).counts
  }
  const served = used.stations.filter((id) => at.shop.storeOf(id) === store.id).length
  if (!forecast || served === 0) return null
  return poissonCounts((forecast.over(store.fillDays).mean * served) / used.stations.length)
}

/** Where a part lies, place by place; one that was given up shows while something is said to lie there. */
export const liesTold = (shelf: Shelf | null, { stores }: ShopPlaces): StockAnswer['parts'][number]['lies'] =>
  (shelf?.lies ?? [])
    .filter((l) => l.storeId === null || l.onHand !== 0 || stores.some((s) => s.id === l.storeId && s.isActive))
    .map((l) => ({ ...l }))
    .sort((a, b) => (a.storeId === null ? -1 : b.storeId === null ? 1 : b.onHand - a.onHand))
