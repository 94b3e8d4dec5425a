import { type ReliedCause, type ReliedSymptom } from '@core/diagnose/relied.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { and, desc, eq, gte, inArray, isNull, or } from 'drizzle-orm'
import { type z } from 'zod'
import { swapWorth } from '@core/diagnose/swap.ts'
import { rulingFor, type QuestionCode } from '@core/houserule/schools.ts'
import { type EventId, type StationId, type WireId } from '@core/ids/id.ts'
import { type downAnswer, type explainRequest } from '@contract/down.ts'
import { headNow, stationNow, stoppage } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { guideFor, guideMinutes } from '@server/guide/read.ts'
import { readSpares } from '@server/gunnow/spares.ts'
import { linerHere } from '@server/gunnow/rulehere.ts'
import { logFacts } from '@server/write/facts.ts'
import { prices, ratesAt } from '@server/shopmodel/prices.ts'
import { builtHere, ruledBy, type Hung } from '@server/gunnow/setup.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { loadShop, type ShopModel, type ShopFit, type ShopRules } from '@server/shopmodel/model.ts'
import { countTurned, explainedSince, explanationOf, type Explained } from './explained.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'

/** A shop's own stops count for two years. */
export const LEARNT_MS = 2 * 365 * 24 * HOUR_MS
/** Stops elsewhere that may have one reason with this one: supply now, a lot within the day. */
const LATELY_MS = 4 * HOUR_MS
const SAME_LOT_MS = 24 * HOUR_MS
const LAST_STOPS = 3

/** What a search at one place needs beside the gun's own page. */
export async function readDown(deps: Deps, who: Who, stationId: StationId): Promise<z.input<typeof downAnswer>> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const hung = await hungOne(deps.db, shop, stationId)
  const [known, explained, stops] = await Promise.all([
    knowledgeNow(deps.db),
    explainedSince(deps.db, nowMs - LEARNT_MS),
    lastStops(deps.db, stationId),
  ])
  const { classKey } = hung.station
  const ofClass = explained.filter((e) => shop.stationById.get(e.stationId)?.classKey === classKey)
  return {
    nowMs,
    zone: shop.site.zone,
    stationId,
    isCell: classKey === 'cell',
    isTraining: classKey === 'training',
    isCored: coredOf(hung, shop),
    version: known.version,
    isShipped: known.isShipped,
    knowledge: known.knowledge as unknown as z.input<typeof downAnswer>['knowledge'],
    turned: countTurned(ofClass),
    others: await othersNow(deps.db, { shop, stationId, nowMs, explained, wireId: hung.spoolWireId }),
    spare: await readySpare(deps, who, { shop, hung }),
    priceMin: pricesInMinutes(shop, stationId),
    ...rulesAt(hung, shop),
    lastStops: stops.map((s) => {
      const said = explanationOf(s, explained)?.fact
      const { fromMs, minutes, position } = s
      return {
        ...{ fromMs, minutes, position },
        symptom: said?.symptom ?? null,
        cause: said?.cause ?? null,
        isCertain: said?.isCertain ?? false,
      }
    }),
  }
}

const lastStops = (db: Reader, stationId: StationId) =>
  db.select().from(stoppage).where(eq(stoppage.stationId, stationId)).orderBy(desc(stoppage.fromMs)).limit(LAST_STOPS)

/** Symptoms that several places have at once when their supply fails. */
const GAS_SIGNS: ReadonlySet<string> = new Set<ReliedSymptom>(['porosity', 'soot'])
const NOTHING_TURNS: ReliedSymptom = 'nothing'
const POOR_WIRE: ReliedCause = 'wirePoor'
interface OthersAt {
  shop: ShopModel
  stationId: StationId
  nowMs: number
  explained: readonly Explained[]
  wireId: WireId | null
}
/** Other places that stopped lately: of the gas in the same area, on the same wire, or with nothing turning. */
async function othersNow(db: Reader, { shop, stationId, nowMs, explained, wireId }: OthersAt) {
  const areaId = shop.stationById.get(stationId)?.areaId
  const stops = await db
    .select()
    .from(stoppage)
    .where(or(gte(stoppage.fromMs, nowMs - SAME_LOT_MS), isNull(stoppage.toMs)))
  const elsewhere = stops.filter((s) => s.stationId !== stationId)
  const wires = wireId
    ? await wiresAt(db, [...new Set(elsewhere.map((s) => s.stationId))])
    : new Map<string, string | null>()
  const places = (list: typeof stops) => new Set(list.map((s) => s.stationId)).size
  const lately = elsewhere.filter(
    (s) => s.fromMs >= nowMs - LATELY_MS && shop.stationById.get(s.stationId)?.areaId === areaId,
  )
  const symptomOf = (s: (typeof stops)[number]) => explanationOf(s, explained)?.fact.symptom ?? null
  /** It was surely something else there. */
  const isOther = (s: (typeof stops)[number]) => {
    const fact = explanationOf(s, explained)?.fact
    return fact?.isCertain === true && fact.cause !== null && fact.cause !== POOR_WIRE
  }
  return {
    gas: places(lately.filter((s) => s.position === 'gas' || GAS_SIGNS.has(symptomOf(s) ?? ''))),
    sameWire: places(
      elsewhere.filter(
        (s) => wireId !== null && wires.get(s.stationId) === wireId && s.fromMs >= nowMs - LATELY_MS && !isOther(s),
      ),
    ),
    power: places(lately.filter((s) => symptomOf(s) === NOTHING_TURNS)),
  }
}
async function wiresAt(db: Reader, stationIds: readonly StationId[]): Promise<Map<string, string | null>> {
  if (stationIds.length === 0) return new Map()
  const rows = await db
    .select({ stationId: stationNow.stationId, wireId: headNow.spoolWireId })
    .from(stationNow)
    .leftJoin(headNow, eq(headNow.headId, stationNow.headId))
    .where(inArray(stationNow.stationId, [...stationIds]))
  return new Map(rows.map((r) => [r.stationId, r.wireId]))
}

/** A ready gun that is right here (pin, cable, rating, liner and tip for the wire that is on), and the minutes of putting it on, as they are here. */
async function readySpare(deps: Deps, who: Who, { shop, hung }: { shop: ShopModel; hung: Hung }) {
  const stationId = hung.station.id
  const { guns } = await readSpares(deps, who, stationId)
  const gun = guns.find((g) => g.here?.is === 'right')
  if (!gun) return null
  const own = builtHere(hung, shop).familyId
  const otherFamily = own && gun.familyName !== (shop.families.get(own) ?? null) ? gun.familyName : null
  const of = await guideFor(deps, shop, { stationId })
  const minutes = guideMinutes(shop, of, 'gun').median
  const worthOverMin = swapWorth(minutes, ratesAt(shop, stationId))
  return { gunId: gun.gunId, name: gun.name, otherFamily, minutes, worthOverMin }
}

/** Whether the wire that is on can be crushed; null: nobody said what is on. */
function coredOf(hung: Hung, shop: ShopModel): boolean | null {
  const wireId = hung.spoolWireId ?? builtHere(hung, shop).wireId
  const wire = wireId ? shop.wires.get(wireId) : undefined
  return wire ? wire.construction.endsWith('-cored') : null
}

/** What a new part of each kind costs, as minutes of standing there; kinds without a price, and places without one, are left out. */
function pricesInMinutes(shop: ShopModel, stationId: StationId): Record<string, number> {
  const { stopMinorPerHour, labourMinorPerHour } = ratesAt(shop, stationId)
  const minute = (stopMinorPerHour + labourMinorPerHour) / 60
  if (minute <= 0) return {}
  const priceOf = prices(shop)
  return Object.fromEntries(
    shop.kinds.flatMap(({ key }) => {
      const minor = priceOf(null, key)
      return minor === null ? [] : [[key, minor / minute]]
    }),
  )
}
function rulesAt(hung: Hung, shop: ShopFit & ShopRules): Pick<z.input<typeof downAnswer>, 'schools' | 'liner'> {
  const built = builtHere(hung, shop)
  const by = ruledBy(hung.station, built)
  const school = <C extends QuestionCode>(code: C) => rulingFor(code, by, shop.choices).school.key
  const { school: liner, terms, evidence } = linerHere(hung, shop, built)
  return {
    schools: { first: school('D05'), clean: school('D18'), swap: school('D20'), liner, blame: school('D26') },
    liner: { terms, evidence },
  }
}

/** What a stop turned out to be, as one line of the log; it corrects an earlier word on the same stop. */
export async function explain(deps: Deps, who: Who, r: z.output<typeof explainRequest>): Promise<{ eventId: EventId }> {
  const { knowledge } = await knowledgeNow(deps.db)
  const has = (list: readonly { key: string }[], key: string) => list.some((x) => x.key === key)
  if (!has(knowledge.symptoms, r.symptom))
    throw new DomainError('bad-request', `There is no symptom "${r.symptom}" any more.`, ['Load the page again.'])
  if (r.by === 'seen' && (r.cause !== null || r.stopFromMs === null))
    throw new DomainError('bad-request', 'What is only seen has no cause yet, and is said of a stop that stands.')
  if (r.cause !== null && !has(knowledge.causes, r.cause))
    throw new DomainError('bad-request', `There is no cause "${r.cause}" any more.`, ['Load the page again.'])
  const stop = r.stopFromMs ?? (await openOrLast(deps.db, r.stationId))
  const { key, stationId, ...said } = r
  const eventId = await logFacts(deps, who, {
    kind: 'explained',
    key,
    stationId,
    factsOf: (place) => [{ kind: 'explained', carrierId: place.stationCarrierId, ...said, stopFromMs: stop }],
  })
  return { eventId }
}
async function openOrLast(db: Reader, stationId: StationId): Promise<number | null> {
  const [last] = await db
    .select({ fromMs: stoppage.fromMs })
    .from(stoppage)
    .where(and(eq(stoppage.stationId, stationId)))
    .orderBy(desc(stoppage.fromMs))
    .limit(1)
  return last?.fromMs ?? null
}
