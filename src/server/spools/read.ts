import { NO_ID } from '@core/ids/id.ts'
import { type WireLostWhy } from '@core/ledger/event.ts'
import { DAY_MS } from '@core/units/time.ts'
import { standingWhere } from '@server/ledger/standings.ts'
import { and, gte, inArray, isNull } from 'drizzle-orm'
import { dueOf } from '@core/houserule/due.ts'
import { rulingFor } from '@core/houserule/schools.ts'
import { feedSeconds, pathM } from '@core/guide/feed.ts'
import { cableWireKg, shortEnd } from '@core/spools/left.ts'
import { lengthFromMassM, outerDiameterMm, packingFromFullSpool } from '@core/spools/wire.ts'
import { type SpoolOnGun, type SpoolOnShelf, type SpoolsAnswer } from '@contract/spools.ts'
import { headNow, ledgerEvent, spool, spoolNow, stationNow, type wire } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { procedureFacts, ruledBy } from '@server/gunnow/setup.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { type SpoolNowRow } from '@server/projection/spools.ts'

type WireRow = typeof wire.$inferSelect
type HeadRow = typeof headNow.$inferSelect
const MONTH_MS = 30 * DAY_MS

/** What is left on every spool: on the guns with when it runs empty, on the shelf with what it is still good for. */
export async function readSpools(deps: Deps, who: Who): Promise<SpoolsAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const [nows, heads, spools, numbers, waste] = await Promise.all([
    deps.db.select().from(stationNow),
    deps.db.select().from(headNow),
    deps.db.select().from(spoolNow).where(isNull(spoolNow.goneMs)),
    deps.db.select().from(spool),
    wasteOf(deps.db, nowMs - MONTH_MS),
  ])
  const at = { shop, nowMs, numberOf: new Map(numbers.map((s) => [s.id, s.number])) }
  const headOf = new Map(heads.map((h) => [h.headId, h]))
  const nowOf = new Map(nows.map((n) => [n.stationId, n]))
  return {
    nowMs,
    zone: shop.site.zone,
    guns: shop.stations.flatMap((s) => {
      const now = nowOf.get(s.id)
      const head = headOf.get(now?.headId ?? NO_ID)
      return now && head ? [gunLine({ station: s, isParked: now.isParked, head }, at)] : []
    }),
    shelf: spools.filter((s) => s.headId === null).map((s) => shelfLine(s, at)),
    ...waste,
    wires: [...shop.wires.values()].map((w) => ({
      id: w.id,
      name: w.name,
      spoolKg: w.spoolKg,
      tareKg: w.tareKg,
      canMeasure: w.coreMm !== null && w.widthMm !== null,
    })),
  }
}

interface At {
  shop: ShopModel
  nowMs: number
  numberOf: ReadonlyMap<string, number>
}

function gunLine(on: { station: ShopModel['stations'][number]; isParked: boolean; head: HeadRow }, at: At): SpoolOnGun {
  const { station, head } = on
  const built = at.shop.built(station.id)
  const wireRow = at.shop.wires.get(head.spoolWireId ?? built.wireId ?? '') ?? null
  const { cableM } = built
  const run = runsEmpty(on, at)
  return {
    stationId: station.id,
    name: station.name,
    areaId: station.areaId,
    isParked: on.isParked,
    spoolId: head.spoolId,
    number: head.spoolId ? (at.numberOf.get(head.spoolId) ?? null) : null,
    wireId: wireRow?.id ?? null,
    wireName: wireRow?.name ?? null,
    ...leftOn(wireRow, run),
    how: head.spoolKg === null ? null : head.spoolMs === (head.loadedMs ?? head.spoolMs) ? 'label' : 'weighed',
    knownMs: head.spoolMs,
    emptyMs: run?.emptyMs ?? null,
    emptyEarlyMs: run?.earlyMs ?? null,
    emptyLateMs: run?.lateMs ?? null,
    isOverrun: run?.isOverrun ?? false,
    threadUpS: cableM ? threadUpSeconds(station, at.shop) : null,
    cableKg: cableM && wireRow ? cableWireKg(wireRow, cableM) : null,
  }
}

/** As its guide has it: the same gun, the same way of feeding, one number. */
function threadUpSeconds(station: ShopModel['stations'][number], shop: ShopModel): number {
  const built = shop.built(station.id)
  return feedSeconds({
    lengthM: pathM({ cableM: built.cableM, neckMm: shop.familyById.get(built.familyId ?? '')?.fit?.neckMm ?? null }),
    topMPerMin: shop.feederTypes.get(built.feederTypeId ?? '')?.fit.topMPerMin ?? null,
    weldMPerMin: procedureFacts(built.procedureId, shop)?.wireMPerMin ?? null,
    speed: rulingFor('D13', ruledBy(station, built), shop.choices).school.key,
  })
}

const whole = (ms: number | null) => (ms === null ? null : Math.max(0, Math.round(ms)))

/** What was on it when last known less what the clock says ran off since, and when the rest is gone at the present rate. */
function runsEmpty(on: { station: ShopModel['stations'][number]; isParked: boolean; head: HeadRow }, at: At) {
  const { head } = on
  if (head.spoolKg === null || head.spoolMs === null || head.spoolKg <= 0) return null
  const runOn = head.runOn.kg
  const schedule = at.shop.scheduleOfArea(on.station.areaId)
  const used = head.spoolUsedKg ?? 0
  const due = dueOf({
    limit: head.spoolKg,
    base: { amount: used, estimated: 0, sd: Math.hypot(head.spoolSdKg ?? 0, USED_SPREAD * used) },
    runOn: runOn && !on.isParked ? { ...runOn, fromMs: Math.max(runOn.fromMs, head.spoolMs) } : null,
    schedule,
    nowMs: at.nowMs,
  })
  if (due.used > OVERRUN * head.spoolKg + 2 * due.usedSd)
    return { kg: null, sdKg: null, emptyMs: null, earlyMs: null, lateMs: null, isOverrun: true }
  const isClocked = head.spoolUsedKg !== null
  return {
    kg: isClocked ? Math.max(0, head.spoolKg - due.used) : null,
    sdKg: isClocked ? due.usedSd : null,
    emptyMs: whole(due.reachedMs),
    earlyMs: whole(due.earlyMs),
    lateMs: whole(due.lateMs),
    isOverrun: false,
  }
}
/** So much more than it held cannot have run off it: another one went on and nobody said so. */
const OVERRUN = 1.15
/** A clock between two weighings is right to about one part in twenty. */
const USED_SPREAD = 0.05

function leftOn(wireRow: WireRow | null, left: { kg: number | null; sdKg: number | null } | null) {
  const kg = left?.kg ?? null
  return {
    leftKg: kg,
    sdKg: left?.sdKg ?? null,
    fullKg: wireRow?.spoolKg ?? 15,
    metres: kg !== null && wireRow ? lengthFromMassM(wireRow, kg) : null,
    build: kg === null ? null : buildOf(kg, wireRow),
  }
}

/** How high the wire still stands on the core, as a share of a full winding; by mass where no sizes are known. */
function buildOf(kg: number, wireRow: WireRow | null): number {
  const full = wireRow?.spoolKg ?? 15
  const share = Math.min(1, kg / full)
  if (!wireRow?.coreMm || !wireRow.fullMm || !wireRow.widthMm) return Math.sqrt(share)
  const { coreMm, fullMm, widthMm, densityGPerCm3 } = wireRow
  const winding = { outerDiameterMm: fullMm, hubDiameterMm: coreMm, widthMm }
  const packingFactor = packingFromFullSpool(winding, densityGPerCm3, full)
  const outer = outerDiameterMm({ hubDiameterMm: coreMm, widthMm, packingFactor, densityGPerCm3 }, Math.min(kg, full))
  return (outer - coreMm) / (fullMm - coreMm)
}

function shelfLine(row: SpoolNowRow, at: At): SpoolOnShelf {
  const wireRow = at.shop.wires.get(row.wireId ?? '') ?? null
  const left = row.baseKg === null ? null : { kg: row.baseKg, sdKg: row.baseSdKg ?? 0 }
  const fullKg = row.labelKg ?? wireRow?.spoolKg ?? 15
  return {
    spoolId: row.spoolId,
    number: at.numberOf.get(row.spoolId) ?? 0,
    wireId: row.wireId,
    wireName: wireRow?.name ?? null,
    lot: row.lot,
    ...leftOn(wireRow, left),
    how: (row.baseHow as SpoolOnShelf['how']) ?? null,
    knownMs: row.baseMs,
    isShort: left && wireRow ? shortEnd(left, { fullKg: wireRow.spoolKg, wire: wireRow }).isShort : false,
    isNew: left !== null && left.kg >= fullKg,
  }
}

/** Wire that never became weld: lost at the feeder, and left on spools that were thrown away. */
async function wasteOf(db: Reader, sinceMs: number): Promise<Pick<SpoolsAnswer, 'lost' | 'thrown'>> {
  const said = await standingWhere(
    db,
    and(gte(ledgerEvent.happenedMs, sinceMs), inArray(ledgerEvent.kind, ['wireLost', 'spoolGone'])),
  )
  const facts = said.filter((s) => s.happenedMs >= sinceMs)
  const lost = new Map<WireLostWhy, { kg: number; times: number }>()
  const thrown = { kg: 0, spools: 0 }
  for (const { fact } of facts) {
    if (fact.kind === 'wireLost') {
      const before = lost.get(fact.why) ?? { kg: 0, times: 0 }
      lost.set(fact.why, { kg: before.kg + fact.kg, times: before.times + 1 })
    }
    if (fact.kind === 'spoolGone' && (fact.leftKg ?? 0) > 0) {
      thrown.kg += fact.leftKg ?? 0
      thrown.spools++
    }
  }
  return { lost: [...lost].map(([why, l]) => ({ why, ...l })).sort((a, b) => b.kg - a.kg), thrown }
}
