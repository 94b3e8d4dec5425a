import { type StationId } from '@core/ids/id.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { gramPerMetre } from '@core/spools/wire.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { costOfStop, type StopCost, type UsedPart } from '@core/payback/stopcost.ts'
import { type Reader } from '@server/db/db.ts'
import { type Stop } from '@server/down/stops.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { groupBy, type ShopModel, type ShopFit } from '@server/shopmodel/model.ts'
import { prices, ratesAt } from '@server/shopmodel/prices.ts'
import { type PutOn } from './puton.ts'

/** A stop with all that went into it. */
export interface CostedStop extends Stop {
  cost: StopCost
  parts: UsedPart[]
  wireKg: number
  /** Nobody said how much wire was lost: as long as the gun. */
  isWireGuessed: boolean
}
/** Wire is often said lost when the gun is running again. */
const LATER_MS = HOUR_MS
/** Through the feeder and the neck, and what is snipped, beside the cable. A guess. */
const BESIDE_CABLE_M = 1

interface StopsToCost {
  stops: readonly Stop[]
  sinceMs: number
  /** Parts put on since then. */
  fitted: readonly PutOn[]
}
/** What each stop took: parts put on while it stood, wire lost, work scrapped, and the money of it. */
export async function costedStops(
  db: Reader,
  shop: ShopModel,
  { stops, sinceMs, fitted }: StopsToCost,
): Promise<CostedStop[]> {
  const lost = await standingOfKind(db, 'wireLost', sinceMs)
  const fittedAt = groupBy(fitted, (s) => s.stationId ?? '')
  const lostAt = groupBy(lost, (s) => s.stationId ?? '')
  const priceOf = prices(shop)
  return stops.map((stop): CostedStop => {
    const parts = within(fittedAt.get(stop.stationId), stop, 0).map(({ position, partId, n }): UsedPart => {
      const kindKey = kindOfPosition(position)
      return { kindKey, n, priceMinor: priceOf(partId, kindKey) }
    })
    const saidKg = within(lostAt.get(stop.stationId), stop, LATER_MS).reduce(
      (sum, { fact }) => sum + (fact.kind === 'wireLost' ? fact.kg : 0),
      0,
    )
    const isWireGuessed = saidKg === 0 && stop.isNest
    const wire = wireAt(shop, stop.stationId)
    const wireKg = isWireGuessed ? wire.gunKg : saidKg
    const used = { minutes: stop.minutes, parts, wireKg, wireMinorPerKg: wire.minorPerKg }
    const cost = costOfStop({ ...used, scrapped: stop.said?.scrapped ?? null }, ratesAt(shop, stop.stationId))
    return { ...stop, parts, wireKg, isWireGuessed, cost }
  })
}

const within = <T extends { happenedMs: number }>(list: readonly T[] = [], stop: Stop, laterMs: number): T[] =>
  list.filter((s) => s.happenedMs >= stop.fromMs && s.happenedMs <= (stop.toMs ?? Infinity) + laterMs)

/** The wire a place is built for: its price, and what of it lies in the gun. */
function wireAt(shop: ShopFit, stationId: StationId): { minorPerKg: number | null; gunKg: number } {
  const { wireId, cableM } = shop.built(stationId)
  const wire = wireId ? shop.wires.get(wireId) : undefined
  if (!wire) return { minorPerKg: null, gunKg: 0 }
  const metres = (cableM ?? 0) + BESIDE_CABLE_M
  return {
    minorPerKg: wire.fit?.pricePerKgMinor ?? null,
    gunKg: (gramPerMetre(wire.diameterMm, wire.densityGPerCm3) * metres) / 1000,
  }
}
