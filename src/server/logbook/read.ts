import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { and, asc, desc, eq, gte, inArray, lt, type SQL } from 'drizzle-orm'
import { type ReadingFact, spoolOf, type Fact } from '@core/ledger/event.ts'
import { standingFacts } from '@core/ledger/resolve.ts'
import { type LogbookAnswer, type LogLine } from '@contract/logbook.ts'
import { device, ledgerEvent, part, person, spool, wire } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { fromRow, occurrenceOf, type EventRow } from '@server/ledger/append.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { addDays, dayOf, wallToMsOrNext } from '@server/time/wall.ts'
import { isOwn } from './correct.ts'
import { isLookLine, isReadLine, isToRead } from './manylines.ts'

/** One day of the log, newest first, each line as it stands now. */
export async function readLogbook(
  deps: Deps,
  who: Who,
  query: { day?: string | undefined; stationId?: string | undefined; position?: string | undefined },
): Promise<LogbookAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.calendar, deps.now())
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
  at: { who: Who; shop: ShopModel; stationId: string; count: number },
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
  const hits = db.select({ rootId: ledgerEvent.rootId }).from(ledgerEvent).where(at.where)
  const rows = await db.select().from(ledgerEvent).where(inArray(ledgerEvent.rootId, hits))
  const names = await namesOf(db, rows)
  const chains = new Map<string, EventRow[]>()
  for (const row of rows) {
    const chain = chains.get(row.rootId)
    if (chain) chain.push(row)
    else chains.set(row.rootId, [row])
  }
  // "All looked at" keeps a line per carrier; people did it once, and read it once.
  const isFirst = (chain: readonly EventRow[]) =>
    !chain.some((row) => row.kind === 'confirmed' && /\/[12]$/.test(row.idempotencyKey))
  const isShown = (chain: readonly EventRow[]) => isFirst(chain) && chain.every(isReadLine)
  const lines = [...chains.values()].filter(isShown).flatMap((chain) => lineOf(chain, at, names) ?? [])
  return lines.sort(
    (a, b) => b.happenedMs - a.happenedMs || b.loggedMs - a.loggedMs || (a.eventId < b.eventId ? 1 : -1),
  )
}

interface Names {
  parts: Map<string, string>
  wires: Map<string, string>
  people: Map<string, string>
  devices: Map<string, string>
  spools: Map<string, number>
}

async function namesOf(db: Reader, rows: readonly EventRow[]): Promise<Names> {
  const partIds = [...new Set(rows.flatMap((r) => r.partId ?? []))]
  const spoolIds = [...new Set(rows.flatMap((r) => r.spoolId ?? []))]
  const [parts, wires, people, devices, spools] = await Promise.all([
    partIds.length === 0 ? [] : db.select({ id: part.id, name: part.code }).from(part).where(inArray(part.id, partIds)),
    db.select({ id: wire.id, name: wire.name }).from(wire),
    db.select({ id: person.id, name: person.name }).from(person),
    db.select({ id: device.id, name: device.name }).from(device),
    spoolIds.length === 0 ? [] : db.select().from(spool).where(inArray(spool.id, spoolIds)),
  ])
  const asMap = (list: { id: string; name: string }[]) => new Map(list.map((x) => [x.id, x.name]))
  return {
    parts: asMap(parts),
    wires: asMap(wires),
    people: asMap(people),
    devices: asMap(devices),
    spools: new Map(spools.map((s) => [s.id, s.number])),
  }
}

/** Lines that only stand or fall: what they say is not changed field by field. */
const NOT_CORRECTED = new Set<Fact['kind']>([
  'shopChanged',
  'usageEntered',
  'mounted',
  'found',
  'wireFound',
  'setting',
  'tied',
  'untied',
  'changedOver',
  'issued',
  'jointFault',
  'gunStatus',
  'taskDone',
  'linerCut',
  'autopsy',
  'stuck',
  'spoiled',
  'blown',
  'followedUp',
  'nearMiss',
  'reading',
  'calibrated',
  'explained',
  'tuned',
  'tuneKept',
])

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
    kind: fact.kind,
    position: 'position' in fact ? fact.position : null,
    partCode: 'partId' in fact && fact.partId ? (names.parts.get(fact.partId) ?? null) : null,
    outReason: 'outReason' in fact ? fact.outReason : null,
    count: fact.kind === 'fitted' ? fact.count : 'quantity' in fact ? fact.quantity : 1,
    wireName: 'wireId' in fact && fact.wireId ? (names.wires.get(fact.wireId) ?? null) : null,
    labelKg: kgOf(fact),
    lengthMm: lengthOf(fact),
    spoolNumber: names.spools.get(spoolOf(fact) ?? '') ?? null,
    rows: fact.kind === 'usageEntered' ? fact.rows : null,
    what: isLookLine(said.idempotencyKey) ? 'look' : whatOf(fact),
    reading: fact.kind === 'reading' ? readOf(fact) : null,
    who: whoDid(said, at, names),
    note: last?.note ?? said.note,
    standing: !last ? 'as said' : standing ? (isSame(said, standing) ? 'as said' : 'changed') : 'withdrawn',
    correctedMs: last?.loggedMs ?? null,
    canUndo: isOwn(said, at.who) && Boolean(standing),
    canCorrect: isOwn(said, at.who) && !NOT_CORRECTED.has(fact.kind),
  }
}

/** Who did it is shown to leads only; everybody else sees the device or nothing. */
function whoDid(said: EventRow, at: LinesAt, names: Names): string | null {
  if (isLead(at.who) && said.personId) return names.people.get(said.personId) ?? null
  return said.deviceId ? (names.devices.get(said.deviceId) ?? null) : null
}

const readOf = ({ what, method, grade, value, left }: ReadingFact): LogLine['reading'] => ({
  what,
  method,
  grade,
  value,
  left,
})

/** By what ships; of a cause of the shop's own, its key. */
const causeSays = (key: string | null) => SHIPPED.causes.find((c) => c.key === key)?.says ?? key ?? ''

/** The word a line of its own kind turns on. */
function whatOf(fact: Fact): string | null {
  if (fact.kind === 'fitted') return fact.again ? 'again' : null
  switch (fact.kind) {
    case 'shopChanged':
      return fact.what
    case 'wireLost':
    case 'spoiled':
      return fact.why
    case 'setting':
      return `${fact.name}=${fact.value}`
    case 'tied':
    case 'untied':
      return fact.tag
    case 'jointFault':
      return `${fact.joint}=${fact.fault}`
    case 'gunStatus':
      return fact.status
    case 'taskDone':
    case 'followedUp':
      return fact.task
    case 'nearMiss':
      return fact.hazard
    case 'stuck':
      return fact.isKinked ? 'kinked' : 'stuck'
    case 'autopsy':
      return `${fact.found.join(',')}=${fact.isCertain ? 'certain' : 'uncertain'}`
    case 'explained':
      return `${causeSays(fact.cause)}=${fact.isCertain ? 'sure' : 'unsure'}`
    case 'tuned':
      return `${fact.name}=${fact.from ?? ''}=${fact.to}=${fact.saw}`
    case 'tuneKept':
      return Object.entries(fact.values)
        .map(([name, value]) => `${name}=${value}`)
        .join(',')
    case 'linerCut':
      return fact.by
    default:
      return null
  }
}

/** The length a line speaks of: where along the cable, or what was left standing out. */
function lengthOf(fact: Fact): number | null {
  if (fact.kind === 'stuck' || fact.kind === 'autopsy') return fact.atMm
  return fact.kind === 'linerCut' ? fact.leftMm : null
}

function kgOf(fact: Fact): number | null {
  switch (fact.kind) {
    case 'wireLoaded':
    case 'spoolIn':
      return fact.labelKg
    case 'wireOff':
    case 'spoolRead':
    case 'spoolGone':
      return fact.leftKg
    case 'wireLost':
      return fact.kg
    default:
      return null
  }
}

function isSame(said: EventRow, standing: { fact: unknown; happenedMs: number }): boolean {
  const first = occurrenceOf(fromRow(said))
  return (
    first !== null &&
    first.happenedMs === standing.happenedMs &&
    JSON.stringify(first.fact) === JSON.stringify(standing.fact)
  )
}
