import { type PersonId, type StationId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type KeptDeps } from '@server/lifekept/kept.ts'
import { type ShareDeps } from '@server/parts/sharestore.ts'
import { and, desc, eq, gte, inArray } from 'drizzle-orm'
import { recentFrom } from '@core/diagnose/touched.ts'
import { ranOn } from '@core/clock/clock.ts'
import { disagreementsOf } from '@core/clock/headclock.ts'
import { TRIGGERS } from '@core/followup/followup.ts'
import { withGun } from '@core/shop/built.ts'
import { chainOf, normalOn, type Stocked } from '@core/rightparts/check.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { type FactKind } from '@core/ledger/event.ts'
import { type FindAnswer, type GunAnswer, type GunPosition } from '@contract/gun.ts'
import { type LoggingShareLine } from '@contract/parts.ts'
import { ledgerEvent, person, stationNow, usageSpan } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { lengthTimes } from '@core/spools/bylength.ts'
import { cellsOf, nextWant, openWants } from '@server/floor/cells.ts'
import { downMinutes } from '@server/floor/floor.ts'
import { type SurveyedPosition } from '@server/floor/judge.ts'
import { carrierNames, survey, type Surveyed } from '@server/floor/survey.ts'
import { standing } from '@server/gunnow/findings.ts'
import { brief, findingLines, stockedParts } from '@server/gunnow/line.ts'
import { keptKey, type KeptFits } from '@server/lifekept/kept.ts'
import { alongsideOf } from '@server/life/alongside.ts'
import { tryoutsAt } from '@server/life/tryouts.ts'
import { usualHere } from '@server/logbook/payback.ts'
import { lastLines } from '@server/logbook/read.ts'
import { shareFor } from '@server/parts/sharestore.ts'
import { loadShop, storeName, type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'

/** Everything about one place: what is on its gun, how long it lasts, what to do, what was done. */
export async function readGun(deps: KeptDeps & ShareDeps, who: Who, stationId: StationId): Promise<GunAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const [shop, fits] = await Promise.all([loadShop(deps.db, deps.shops, nowMs), deps.lives.read(deps.db, nowMs)])
  const [s] = await survey(deps.db, shop, { nowMs, stationIds: [stationId], fits })
  if (!s) throw new DomainError('not-found', 'There is no such place.', ['Find it by its number.'])
  const [names, stocked, tape, usualActs, notes, nameOf, tryouts] = await Promise.all([
    carrierNames(deps.db, [s.now.gunId, s.now.headId]),
    stockedParts(deps.db),
    lastLines(deps.db, { who, shop, stationId, count: 8 }),
    frequentActs(deps.db, stationId, nowMs),
    clockNotes(deps.db, s),
    namesFor(deps.db, who),
    tryoutsAt(deps.db, stationId),
  ])
  const parts = new Map(stocked.map((p) => [p.id, p]))
  const { shares } = await deps.shares.read(deps.db, shop, nowMs)
  const at = { parts, nowMs, shares, fits, shop }
  const lines = await Promise.all(s.positions.map((p) => positionLine(deps.db, s, { ...at, p })))
  const positions = lines.map((line) => ({ ...line, withIt: withItHere(line, lines, { s, shop, fits }) }))
  return {
    nowMs,
    zone: shop.site.zone,
    ...placeWords(s, shop, names),
    ...standsOf(s, nowMs),
    stopMinorPerHour: isLead(who) ? shop.stopRateOf(s.station.id) : null,
    cutoff: s.window,
    cells: cellsOf(s),
    wants: openWants(s),
    next: nextWant(s, nowMs),
    positions,
    spool: spoolLine(s, nowMs),
    lastEntryMs: s.head?.lastEntryMs ?? null,
    notes,
    ...askedOf(s),
    ...fitOf(s, { shop, parts: stocked, nameOf }),
    ...{ usualActs, tape, tryouts },
  }
}

/** What acts and readings ask for. */
/** Whether it stands, since when, and what counts as changed before that. */
const standsOf = (s: Surveyed, nowMs: number) => ({
  ...{ isParked: s.now.isParked, downSinceMs: s.now.downSinceMs, downPosition: s.now.downPosition },
  downMinutes: downMinutes(s, nowMs),
  changedFromMs: recentFrom(s.schedule, s.now.downSinceMs ?? nowMs),
})
const askedOf = (s: Surveyed): Pick<GunAnswer, 'followUps' | 'alarms' | 'cleaningRises'> => ({
  cleaningRises: s.cleaning.rises,
  followUps: s.followUps.map(({ follow: task, sinceMs, by, isAsked }) => ({
    task,
    sinceMs,
    why: TRIGGERS[by].why,
    isAsked,
  })),
  alarms: s.alarms,
})

/** Who people are, told to leads only. */
async function namesFor(db: Reader, who: Who): Promise<(id: PersonId) => string | null> {
  if (!isLead(who)) return () => null
  const people = new Map(
    (await db.select({ id: person.id, name: person.name }).from(person)).map((p) => [p.id, p.name]),
  )
  return (id) => people.get(id) ?? null
}

/** What does not fit, the chain as one verdict, and what is still tied. */
function fitOf(
  s: Surveyed,
  at: { shop: ShopModel; parts: readonly Stocked[]; nameOf: (id: PersonId) => string | null },
): Pick<GunAnswer, 'findings' | 'chain' | 'procedureName' | 'normal' | 'tags'> {
  const { setup, findings } = s.checked
  const known = new Map(at.parts.map((p) => [p.id, p]))
  return {
    findings: findingLines(s.checked, at),
    chain: chainOf(setup, standing(findings)),
    procedureName: setup.procedure?.name ?? null,
    normal: setup.wire ? normalOn(setup.wire) : null,
    tags: s.tags.map(({ tag, sinceMs, untilMs, partIds }) => ({
      tag,
      sinceMs,
      untilMs: untilMs ?? null,
      parts: partIds.flatMap((id) => {
        const found = known.get(id)
        return found ? [brief(found)] : []
      }),
    })),
  }
}

function placeWords(s: Surveyed, shop: ShopModel, names: Map<string, string>) {
  const built = withGun(shop.built(s.station.id), s.gunBuilt)
  const wire =
    (s.head?.spoolWireId && shop.wires.get(s.head.spoolWireId)) ||
    (built.wireId && shop.wires.get(built.wireId)) ||
    null
  return {
    stationId: s.station.id,
    name: s.station.name,
    placeWord: s.station.placeWord,
    areaId: s.station.areaId,
    areaName: shop.areas.find((a) => a.id === s.station.areaId)?.name ?? '',
    currency: shop.site.currency,
    gunName: s.now.gunId ? (names.get(s.now.gunId) ?? null) : null,
    gunId: s.now.gunId,
    headName: s.now.headId ? (names.get(s.now.headId) ?? null) : null,
    wireId: wire ? wire.id : null,
    wireName: wire ? wire.name : null,
    wireMm: wire ? wire.diameterMm : null,
    spoolKg: wire ? wire.spoolKg : null,
    familyName: built.familyId ? (shop.families.get(built.familyId) ?? null) : null,
    mode: built.mode,
    cableM: built.cableM,
    ruledBy: {
      family: built.familyId,
      feeder: built.rollCount === null ? null : String(built.rollCount),
      feederType: built.feederTypeId,
      mode: built.mode,
      class: s.station.classKey,
    },
  }
}

/** The spool that is on: what has run off it by the clock, past its last entry at the clock's own rate. */
function spoolLine(s: Surveyed, nowMs: number): GunAnswer['spool'] {
  if (!s.head?.spoolKg || s.head.spoolMs === null) return null
  const since = ranOn(s.head.runOn.kg, { schedule: s.schedule, sinceMs: [s.head.spoolMs], nowMs })
  return {
    kg: s.head.spoolKg,
    usedKg: s.head.spoolUsedKg === null ? null : s.head.spoolUsedKg + since,
    sinceMs: s.head.spoolMs,
  }
}

/** What is off anyway when this one is, and far enough on to be worth it. */
function withItHere(
  line: GunPosition,
  all: readonly GunPosition[],
  at: { s: Surveyed; shop: ShopModel; fits: KeptFits },
): KindKey[] {
  return alongsideOf(at.fits, at.shop, { kindKey: line.kindKey, classKey: at.s.station.classKey }).flatMap((a) => {
    const other = all.find((p) => p.kindKey === a.kind)
    const from = a.isWorth && other?.usual ? a.shareOfUsual * other.usual.amount : null
    return from !== null && other?.used !== null && (other?.used ?? 0) >= from ? [a.kind] : []
  })
}

interface PositionAt {
  p: SurveyedPosition
  parts: Map<string, Stocked>
  nowMs: number
  shares: readonly LoggingShareLine[]
  fits: KeptFits
  shop: ShopPlaces
}
/** Where more of it lie, the place that serves this gun first; nothing to say where there is one place only. */
function liesFor(part: Stocked, { stationId, shop }: { stationId: StationId; shop: ShopPlaces }): GunPosition['lies'] {
  const own = shop.storeOf(stationId)
  const lies = part.lies ?? []
  if (!lies.some((l) => l.storeId !== null)) return []
  const first = (l: (typeof lies)[number]) => (l.storeId === own ? 0 : 1)
  return [...lies]
    .filter((l) => l.onHand > 0)
    .sort((a, b) => first(a) - first(b))
    .map((l) => ({ place: storeName(l.storeId, shop), onHand: l.onHand }))
}
async function positionLine(db: Reader, s: Surveyed, at: PositionAt): Promise<GunPosition> {
  const { p, parts, nowMs, shares, fits } = at
  const fitted = p.row.partId ? parts.get(p.row.partId) : undefined
  const usual = p.kind.changeMin > 0 ? await usualOf(db, s, { kind: p.kind, shares, fits }) : null
  const since = usedNow(s, { p, nowMs, since: 'cleaned' })
  const used = p.change?.limit
    ? { amount: p.change.used, isEstimated: p.change.isEstimated }
    : usedNow(s, { p, nowMs, since: 'fitted' })
  return {
    ...{ position: p.row.position, kindKey: p.kind.key, name: p.kind.name, column: p.kind.column },
    ...{ state: p.verdict.state, why: p.verdict.why },
    partId: fitted?.id ?? null,
    partCode: fitted?.code ?? null,
    partName: fitted?.name ?? null,
    onHand: fitted?.onHand ?? null,
    lies: fitted ? liesFor(fitted, { stationId: s.station.id, shop: at.shop }) : [],
    unit: p.kind.lifeUnit,
    used: used?.amount ?? null,
    usedSd: p.verdict.due?.usedSd ?? null,
    isEstimated: used?.isEstimated ?? false,
    sinceCleaned: p.kind.canClean ? (p.clean?.used ?? since?.amount ?? null) : null,
    change: p.change,
    clean: p.clean,
    fittedMs: p.row.fittedMs,
    entryAge: p.row.entryAge,
    cleanedMs: p.row.cleanedMs,
    seenMs: p.row.seenMs,
    canClean: p.kind.canClean,
    reasons: p.kind.reasons,
    usual,
    leave: p.leave && { chance: p.leave.chance, minutes: p.leave.minutes },
    withIt: [],
    signs: p.signs,
  }
}

/** The usual life of places of this class; the whole shop's logging share stands beside it, as its lives are of the whole shop. */
async function usualOf(
  db: Reader,
  s: Surveyed,
  at: { kind: SurveyedPosition['kind']; shares: readonly LoggingShareLine[]; fits: KeptFits },
): Promise<GunPosition['usual']> {
  const { key: kindKey, lifeUnit: unit } = at.kind
  const fit = at.fits.get(keptKey(kindKey, s.station.classKey))
  if (fit) {
    const { median, worn: n, share, source, low, high, life } = fit
    const asLong = lengthTimes(at.kind, s.checked.setup.wire)
    const as = (kg: number | null) => (kg === null ? null : kg * asLong)
    return { amount: median * asLong, n, loggedShare: share, source, low: as(low), high: as(high), shape: life.shape }
  }
  const usual = await usualHere(db, { kindKey, classKey: s.station.classKey, unit })
  if (!usual?.ok) return null
  const loggedShare = shareFor(at.shares, { areaId: null, kindKey })?.share ?? null
  return { amount: usual.median, n: usual.n, loggedShare, source: 'yours', low: null, high: null, shape: null }
}

/** Use since fitted or cleaned where no limit asks for it. */
function usedNow(
  s: Surveyed,
  at: { p: SurveyedPosition; nowMs: number; since: 'fitted' | 'cleaned' },
): { amount: number; isEstimated: boolean } | null {
  const { p, nowMs } = at
  const sinceMs = at.since === 'fitted' ? p.row.fittedMs : p.row.cleanedMs
  const unit = p.kind.lifeUnit
  if (sinceMs === null) return null
  if (!isMeasured(unit)) return at.since === 'fitted' ? { amount: p.row[unit], isEstimated: false } : null
  const base = (at.since === 'fitted' ? p.row.sinceFitted : p.row.sinceCleaned)?.[unit]
  if (!base || p.row.chainFromMs === null) return null
  const extra = ranOn(s.head?.runOn[unit], { schedule: s.schedule, sinceMs: [sinceMs, p.row.chainFromMs], nowMs })
  const amount = base.amount + extra
  return { amount, isEstimated: amount > 0 && (base.estimated + extra) / amount > 0.5 }
}

type UsualAct = GunAnswer['usualActs'][number]
const ACT_OF: Partial<Record<FactKind, UsualAct['act']>> = {
  fitted: 'changed',
  cleaned: 'cleaned',
  wireLoaded: 'newSpool',
}

/** What is done here most, over the last 60 days. */
async function frequentActs(db: Reader, stationId: StationId, nowMs: number): Promise<GunAnswer['usualActs']> {
  const rows = await db
    .select({ kind: ledgerEvent.kind, body: ledgerEvent.body })
    .from(ledgerEvent)
    .where(
      and(
        eq(ledgerEvent.stationId, stationId),
        gte(ledgerEvent.happenedMs, nowMs - 60 * DAY_MS),
        inArray(ledgerEvent.kind, Object.keys(ACT_OF) as FactKind[]),
      ),
    )
    .orderBy(desc(ledgerEvent.happenedMs))
    .limit(300)
  const counts = new Map<string, UsualAct & { n: number }>()
  for (const { body } of rows) {
    const fact = body.type === 'fact' ? body.fact : null
    const act = fact && ACT_OF[fact.kind]
    if (!act) continue
    const position = 'position' in fact ? fact.position : null
    const key = `${act} ${position ?? ''}`
    counts.set(key, { act, position, n: (counts.get(key)?.n ?? 0) + 1 })
  }
  return [...counts]
    .sort(([keyA, a], [keyB, b]) => b.n - a.n || (keyA < keyB ? -1 : 1))
    .slice(0, 4)
    .map(([, { act, position }]) => ({ act, position }))
}

const COMPARED_MS = 60 * DAY_MS

/** Where two sources of use tell different stories, that is said. */
async function clockNotes(db: Reader, s: Surveyed): Promise<GunAnswer['notes']> {
  if (!s.now.headId || !s.head?.lastEntryMs) return []
  const rows = await db
    .select()
    .from(usageSpan)
    .where(and(eq(usageSpan.headId, s.now.headId), gte(usageSpan.fromMs, s.head.lastEntryMs - COMPARED_MS)))
  return disagreementsOf(rows, s.schedule)
}

export async function findPlaces(deps: Deps, who: Who): Promise<FindAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const nows = await deps.db.select({ stationId: stationNow.stationId, gunId: stationNow.gunId }).from(stationNow)
  const names = await carrierNames(
    deps.db,
    nows.map((n) => n.gunId),
  )
  const gunOf = new Map(nows.map((n) => [n.stationId, n.gunId ? (names.get(n.gunId) ?? null) : null]))
  const areaName = new Map(shop.areas.map((a) => [a.id, a.name]))
  return {
    places: shop.stations.map((s) => ({
      stationId: s.id,
      name: s.name,
      placeWord: s.placeWord,
      areaName: areaName.get(s.areaId) ?? '',
      gunName: gunOf.get(s.id) ?? null,
    })),
    kinds: shop.kinds.map(({ key, name, column, synonyms }) => ({ key, name, column, words: synonyms })),
  }
}
