import { type CarrierId, type StationId, type StoreId } from '@core/ids/id.ts'
import { type KindKey, type LifeUnit, type Position } from '@core/path/columns.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { and, asc, desc, eq, gte, inArray, lt, type SQL } from 'drizzle-orm'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { carrierOf, partOf, spoolOf, type Fact } from '@core/ledger/event.ts'
import { FACTS } from '@core/ledger/facts.ts'
import { standingFacts } from '@core/ledger/resolve.ts'
import { type ShopChange } from '@core/ledger/shopchange.ts'
import { type LineNames } from '@contract/fact.ts'
import { type LogbookAnswer, type LogLine } from '@contract/logbook.ts'
import { carrier, device, ledgerEvent, person, spool } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { chainsWhere } from '@server/ledger/chains.ts'
import { fromRow, occurrenceOf, type EventRow } from '@server/ledger/lines.ts'
import {
  loadShop,
  storeName,
  type ShopKinds,
  type ShopModel,
  type ShopPlaces,
  type ShopFit,
} from '@server/shopmodel/model.ts'
import { addDays, dayOf, wallToMsOrNext } from '@server/time/wall.ts'
import { isOwn } from './correct.ts'
import { isReadLine, isToRead } from './toread.ts'

/** One day of the log, newest first, each line as it stands now. */
export async function readLogbook(
  deps: Deps,
  who: Who,
  query: { day?: string | undefined; stationId?: StationId | undefined; position?: Position | undefined },
): Promise<LogbookAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const zone = shop.site.zone
  const today = dayOf(zone, deps.now())
  const day = query.day ?? today
  const fromMs = wallToMsOrNext(zone, day, '00:00')
  const toMs = wallToMsOrNext(zone, addDays(day, 1), '00:00')
  const here = and(isToRead, query.stationId ? eq(ledgerEvent.stationId, query.stationId) : undefined)
  const lines = await linesWhere(deps.db, {
    who,
    shop,
    where: and(gte(ledgerEvent.happenedMs, fromMs), lt(ledgerEvent.happenedMs, toMs), here),
  })
  const [before, after] = await Promise.all([
    neighbour(deps.db, here, { beforeMs: fromMs }),
    neighbour(deps.db, here, { fromMs: toMs }),
  ])
  return {
    day,
    zone,
    lines: query.position ? lines.filter((l) => l.position === query.position) : lines,
    previousDay: before === null ? null : dayOf(zone, before),
    nextDay: after !== null ? dayOf(zone, after) : day < today ? today : null,
  }
}

/** When the last line before an instant, or the first from one on, happened. */
async function neighbour(
  db: Reader,
  here: SQL | undefined,
  at: { beforeMs: number } | { fromMs: number },
): Promise<number | null> {
  const [where, order] =
    'beforeMs' in at
      ? [lt(ledgerEvent.happenedMs, at.beforeMs), desc(ledgerEvent.happenedMs)]
      : [gte(ledgerEvent.happenedMs, at.fromMs), asc(ledgerEvent.happenedMs)]
  const [line] = await db
    .select({ at: ledgerEvent.happenedMs })
    .from(ledgerEvent)
    .where(and(where, here))
    .orderBy(order)
    .limit(1)
  return line?.at ?? null
}

/** The last acts at one place, for the tape under a gun. */
export async function lastLines(
  db: Reader,
  at: { who: Who; shop: ShopModel; stationId: StationId; count: number },
): Promise<LogLine[]> {
  const recent = await db
    .select({ rootId: ledgerEvent.rootId })
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.stationId, at.stationId), isToRead))
    .orderBy(desc(ledgerEvent.happenedMs), desc(ledgerEvent.loggedMs))
    .limit(at.count * 3)
  if (recent.length === 0) return []
  const lines = await linesWhere(db, {
    ...at,
    where: inArray(ledgerEvent.id, [...new Set(recent.map((r) => r.rootId))]),
  })
  return lines.filter((l) => l.standing !== 'withdrawn' && l.stationId === at.stationId).slice(0, at.count)
}

interface LinesAt {
  who: Who
  shop: ShopModel
  where: SQL | undefined
}

/** Lines whose fact, or a correction of it, falls under the condition. */
export async function linesWhere(db: Reader, at: LinesAt): Promise<LogLine[]> {
  const rows = await chainsWhere(db, at.where)
  const names = await namesOf(db, rows, at.shop)
  const chains = new Map<string, EventRow[]>()
  for (const row of rows) {
    const chain = chains.get(row.rootId)
    if (chain) chain.push(row)
    else chains.set(row.rootId, [row])
  }
  const lines = [...chains.values()]
    .filter((chain) => chain.every(isReadLine))
    .flatMap((chain) => lineOf(chain, at, names) ?? [])
  return lines.sort(
    (a, b) => b.happenedMs - a.happenedMs || b.loggedMs - a.loggedMs || (a.eventId < b.eventId ? 1 : -1),
  )
}

interface Names {
  shop: ShopModel
  parts: Map<string, string>
  people: Map<string, string>
  devices: Map<string, string>
  spools: Map<string, number>
  carriers: Map<string, string>
  causes: Map<string, string>
  symptoms: Map<string, string>
}

const saysBy = (list: readonly { key: string; says: string }[]) => new Map(list.map((x) => [x.key, x.says]))

async function namesOf(db: Reader, rows: readonly EventRow[], shop: ShopModel): Promise<Names> {
  const spoolIds = [...new Set(rows.flatMap((r) => r.spoolId ?? []))]
  const isExplained = rows.some((r) => r.kind === 'explained')
  const loose = [...new Set(rows.flatMap(looseOf))]
  const [people, devices, spools, carriers, why] = await Promise.all([
    db.select({ id: person.id, name: person.name }).from(person),
    db.select({ id: device.id, name: device.name }).from(device),
    spoolIds.length === 0 ? [] : db.select().from(spool).where(inArray(spool.id, spoolIds)),
    loose.length === 0
      ? []
      : db.select({ id: carrier.id, name: carrier.name }).from(carrier).where(inArray(carrier.id, loose)),
    isExplained ? knowledgeNow(db) : null,
  ])
  const asMap = (list: { id: string; name: string }[]) => new Map(list.map((x) => [x.id, x.name]))
  return {
    shop,
    parts: new Map([...shop.partById].map(([id, p]) => [id, p.code])),
    people: asMap(people),
    devices: asMap(devices),
    spools: new Map(spools.map((s) => [s.id, s.number])),
    carriers: asMap(carriers),
    causes: saysBy([...SHIPPED.causes, ...(why?.knowledge.causes ?? [])]),
    symptoms: saysBy([...SHIPPED.symptoms, ...(why?.knowledge.symptoms ?? [])]),
  }
}

/** What is told by its own name: it hung nowhere, or is what was hung. */
function looseOf({ body, stationId }: EventRow): CarrierId[] {
  const fact = body.type === 'fact' ? body.fact : body.replacement?.fact
  const id = fact && carrierOf(fact)
  const isNamed = fact?.kind === 'gunStatus' || (fact?.kind === 'mounted' && Boolean(fact.as))
  return id && (isNamed || stationId === null) ? [id] : []
}

/** Names for the ids and keys that a change of set-up speaks of. */
export function namesOfChange(change: ShopChange, shop: ShopModel): Pick<LineNames, 'scope' | 'unit'> {
  const kindKey = 'kindKey' in change ? change.kindKey : null
  return {
    scope: scopeOf(change, shop),
    unit: kindKey === null ? null : unitSaid(change, kindKey, shop),
  }
}
/** A limit stands in the unit it was said in, whatever the kind is counted in today. */
function unitSaid(change: ShopChange, kindKey: KindKey, shop: ShopKinds): LifeUnit | null {
  if ('unit' in change && change.unit) return change.unit
  const shipped = KIND_DEFAULTS.find((k) => k.key === kindKey)?.lifeUnit
  return shipped ?? shop.kindByKey.get(kindKey)?.lifeUnit ?? null
}
function scopeOf(change: ShopChange, shop: ShopPlaces & ShopFit): string | null {
  const className = (key: string) => (key === '*' ? null : (shop.classes.get(key)?.name ?? key))
  if ('classKey' in change) return className(change.classKey)
  if (change.of !== 'school') return null
  const { scopeType, scopeKey } = change
  switch (scopeType) {
    case 'class':
      return className(scopeKey)
    case 'family':
      return shop.families.get(scopeKey) ?? 'a family that is gone'
    case 'feederType':
      return shop.feederTypes.get(scopeKey)?.name ?? 'a feeder that is gone'
    case 'feeder':
      return `feeders with ${scopeKey} rolls`
    default:
      return scopeType === 'site' ? null : scopeKey
  }
}
export const NO_NAMES: LineNames = {
  part: null,
  wire: null,
  spool: null,
  carrier: null,
  cause: null,
  scope: null,
  place: null,
  from: null,
  unit: null,
}

function namesIn(fact: Fact, names: Names): LineNames {
  const { shop } = names
  const partId = partOf(fact)
  const wireId = 'wireId' in fact ? fact.wireId : null
  return {
    ...NO_NAMES,
    ...(fact.kind === 'shopChanged' ? namesOfChange(fact.change, shop) : {}),
    part: partId ? (names.parts.get(partId) ?? null) : null,
    wire: wireId ? (shop.wires.get(wireId)?.name ?? null) : null,
    spool: names.spools.get(spoolOf(fact) ?? '') ?? null,
    carrier: names.carriers.get(carrierOf(fact) ?? '') ?? null,
    cause: fact.kind === 'explained' ? whatItWas(fact, names) : null,
    ...placesIn(fact, shop),
  }
}

function placesIn(fact: Fact, shop: ShopPlaces): Partial<LineNames> {
  const nameOf = (id: StoreId | null | undefined) => storeName(id ?? null, shop)
  if (fact.kind === 'counted' || fact.kind === 'received') return { place: nameOf(fact.storeId) }
  return fact.kind === 'carried' ? { place: nameOf(fact.toStoreId), from: nameOf(fact.fromStoreId) } : {}
}

/** What it was; of what is only seen, that. */
function whatItWas({ by, cause, symptom }: Extract<Fact, { kind: 'explained' }>, names: Names): string | null {
  if (by === 'seen') return names.symptoms.get(symptom) ?? symptom
  return cause === null ? null : (names.causes.get(cause) ?? cause)
}

function lineOf(chain: readonly EventRow[], at: LinesAt, names: Names): LogLine | null {
  const said = chain.find((r) => r.body.type === 'fact')
  if (!said) return null
  const last = chain.filter((r) => r.body.type === 'correction').sort((a, b) => b.loggedMs - a.loggedMs)[0]
  const [standing] = standingFacts(chain.map(fromRow))
  const shown = standing ?? occurrenceOf(fromRow(said))
  if (!shown) return null
  const { fact } = shown
  return {
    eventId: said.id,
    happenedMs: shown.happenedMs,
    loggedMs: said.loggedMs,
    precision: shown.precision,
    stationId: shown.stationId,
    stationName: shown.stationId ? (at.shop.stationById.get(shown.stationId)?.name ?? null) : null,
    actKind: said.actKind,
    fact,
    position: 'position' in fact ? fact.position : null,
    names: namesIn(fact, names),
    who: whoDid(said, at, names),
    note: last?.note ?? said.note,
    standing: !last ? 'as said' : standing ? (isSame(said, standing) ? 'as said' : 'changed') : 'withdrawn',
    correctedMs: last?.loggedMs ?? null,
    canUndo: isOwn(said, at.who) && Boolean(standing),
    canCorrect: isOwn(said, at.who) && FACTS[fact.kind].isCorrectable,
  }
}

/** Who did it is shown to leads only; everybody else sees the device or nothing. */
function whoDid(said: EventRow, at: LinesAt, names: Names): string | null {
  if (isLead(at.who) && said.personId) return names.people.get(said.personId) ?? null
  return said.deviceId ? (names.devices.get(said.deviceId) ?? null) : null
}

function isSame(said: EventRow, standing: { fact: unknown; happenedMs: number }): boolean {
  const first = occurrenceOf(fromRow(said))
  return (
    first !== null &&
    first.happenedMs === standing.happenedMs &&
    JSON.stringify(first.fact) === JSON.stringify(standing.fact)
  )
}
