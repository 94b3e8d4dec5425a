import { type AreaId, type WireId } from '@core/ids/id.ts'
import { SHORT_SHARE } from '@core/spools/left.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, gte, inArray } from 'drizzle-orm'
import { type WasteAnswer, type WasteWhy } from '@contract/waste.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { headNow, ledgerEvent, spoolNow, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { standingWhere } from '@server/ledger/standings.ts'
import { usageIn } from '@server/payback/usagein.ts'
import { monthBefore } from '@server/parts/purchases.ts'
import { groupBy, loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf, wallToMsOrNext } from '@server/time/wall.ts'

const MONTHS = 6
/** A spool change, where no job by the list told better. A guess. */
const CHANGE_MIN = 8

interface Loss {
  why: WasteWhy
  kg: number
  minor: number | null
  areaId: AreaId | null
  month: string
}

/** Wire that never became weld, of six months: what is measured of it, by why, month and area. */
export async function readWaste(deps: Deps, who: Who): Promise<WasteAnswer> {
  mustLead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { zone, currency } = shop.site
  const month = dayOf(zone, nowMs).slice(0, 7)
  const fromMs = wallToMsOrNext(zone, `${monthBefore(month, MONTHS - 1)}-01`, '00:00')
  const [losses, usage] = await Promise.all([
    lossesOf(deps.db, shop, fromMs),
    usageIn(deps.db, shop, [{ fromMs, toMs: nowMs }]),
  ])
  const kgAt = new Map(shop.stations.map((s) => [s.id, usage(s.id, 0).kg]))
  const usedIn = (areaId: AreaId) =>
    shop.stations.reduce((sum, s) => sum + (s.areaId === areaId ? (kgAt.get(s.id) ?? 0) : 0), 0)
  const months = Array.from({ length: MONTHS }, (_, i) => monthBefore(month, MONTHS - 1 - i))
  return {
    ...{ nowMs, currency, months: MONTHS, usedKg: [...kgAt.values()].reduce((a, b) => a + b, 0) },
    whys: [...groupBy(losses, (l) => l.why)]
      .map(([why, list]) => ({ why: why as WasteWhy, ...summed(list) }))
      .sort((a, b) => (b.minor ?? 0) - (a.minor ?? 0) || b.kg - a.kg),
    byMonth: months.map((m) => ({ month: m, ...summed(losses.filter((l) => l.month === m)) })),
    areas: shop.areas.flatMap((area) => {
      const here = losses.filter((l) => l.areaId === area.id)
      const most = [...groupBy(here, (l) => l.why)].sort((a, b) => summed(b[1]).kg - summed(a[1]).kg)[0]
      if (!most) return []
      const kg = usedIn(area.id)
      const sum = summed(here)
      return [
        {
          ...{ areaId: area.id, name: area.name, most: most[0] as WasteWhy, ...sum },
          perTonne: kg > 0 ? (1000 * sum.kg) / kg : null,
        },
      ]
    }),
    groups: await groupsOf(deps.db, shop, { kgAt, days: (nowMs - fromMs) / DAY_MS, losses }),
  }
}

const summed = (list: readonly Loss[]) => ({
  kg: list.reduce((sum, l) => sum + l.kg, 0),
  minor: list.some((l) => l.minor !== null) ? list.reduce((sum, l) => sum + (l.minor ?? 0), 0) : null,
  times: list.length,
})

async function lossesOf(db: Reader, shop: ShopModel, sinceMs: number): Promise<Loss[]> {
  const [facts, spools] = await Promise.all([
    standingWhere(db, and(gte(ledgerEvent.happenedMs, sinceMs), inArray(ledgerEvent.kind, ['wireLost', 'spoolGone']))),
    db.select({ spoolId: spoolNow.spoolId, wireId: spoolNow.wireId }).from(spoolNow),
  ])
  const wireOf = new Map(spools.map((s) => [s.spoolId, s.wireId]))
  return facts.flatMap(({ fact, happenedMs, stationId }) => {
    if (happenedMs < sinceMs || (fact.kind !== 'wireLost' && fact.kind !== 'spoolGone')) return []
    const kg = fact.kind === 'wireLost' ? fact.kg : (fact.leftKg ?? 0)
    if (kg <= 0) return []
    const station = stationId ? shop.stationById.get(stationId) : undefined
    const wireId = (fact.spoolId ? wireOf.get(fact.spoolId) : null) ?? (station ? shop.built(station.id).wireId : null)
    const price = priceOf(shop, wireId)
    return [
      {
        why: fact.kind === 'wireLost' ? fact.why : ('short end' as const),
        ...{ kg, minor: price === null ? null : kg * price, areaId: station?.areaId ?? null },
        month: dayOf(shop.site.zone, happenedMs).slice(0, 7),
      },
    ]
  })
}
const priceOf = (shop: ShopModel, wireId: WireId | null): number | null =>
  (wireId ? shop.wires.get(wireId)?.fit?.pricePerKgMinor : null) ?? null

/** What each wire takes a year at each class of place: for spools, bigger ones or a drum. */
async function groupsOf(
  db: Reader,
  shop: ShopModel,
  of: { kgAt: ReadonlyMap<string, number>; days: number; losses: readonly Loss[] },
): Promise<WasteAnswer['groups']> {
  const [nows, heads] = await Promise.all([db.select().from(stationNow), db.select().from(headNow)])
  const wireOn = new Map(heads.map((h) => [h.headId, h.spoolWireId]))
  const headOf = new Map(nows.map((n) => [n.stationId, n.headId]))
  const thrown = of.losses.filter((l) => l.why === 'short end')
  const here = shop.stations.flatMap((s) => {
    const headId = headOf.get(s.id)
    const wireId = (headId ? wireOn.get(headId) : null) ?? shop.built(s.id).wireId
    return wireId ? [{ station: s, wireId, kg: of.kgAt.get(s.id) ?? 0 }] : []
  })
  return [...groupBy(here, (h) => `${h.wireId} ${h.station.classKey}`).values()].flatMap((list) => {
    const [first] = list
    const wire = first && shop.wires.get(first.wireId)
    const kgPerYear = (list.reduce((sum, h) => sum + h.kg, 0) * 365) / Math.max(1, of.days)
    if (!wire || !first || kgPerYear <= 0) return []
    const place = shop.classes.get(first.station.classKey)
    const mean = (rate: (s: (typeof list)[number]) => number) => list.reduce((sum, h) => sum + rate(h), 0) / list.length
    const learnt = shop.learnt('wire', shop.built(first.station.id).familyId, CHANGE_MIN)
    const isLearnt = learnt.n + learnt.others > 0
    const seen = thrown.length >= LEAST_THROWN
    return [
      {
        ...{ wireName: wire.name, className: place?.name ?? first.station.classKey, guns: list.length, kgPerYear },
        ...{ spoolKg: wire.spoolKg, pricePerKgMinor: wire.fit?.pricePerKgMinor ?? null },
        ...{ changeMin: isLearnt ? learnt.median : CHANGE_MIN, isMinLearnt: isLearnt },
        standMinorPerHour: mean((h) => shop.stopRateOf(h.station.id)),
        labourMinorPerHour: place?.labourMinorPerHour ?? 0,
        shortKg: seen
          ? thrown.reduce((sum, l) => sum + l.kg, 0) / thrown.length
          : SHORT_GUESS * SHORT_SHARE * wire.spoolKg,
        isShortSeen: seen,
      },
    ]
  })
}
const LEAST_THROWN = 5
/** One spool in three comes off with a short end on. A guess. */
const SHORT_GUESS = 1 / 3
