import { inArray } from 'drizzle-orm'
import { worstGradeFirst } from '@core/walk/entry.ts'
import { lookMethod } from '@core/walk/looks.ts'
import { type WalkEntryRead, type WalkFoundAnswer } from '@contract/walk.ts'
import { act } from '@contract/logbook.ts'
import { readingRequest } from '@contract/reading.ts'
import { headNow, ledgerEvent } from '@server/db/schema.ts'
import { isDuplicate, transact, type Reader, type Tx } from '@server/db/db.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { settledFacts } from '@server/followup/act.ts'
import { type HeadRow } from '@server/floor/judge.ts'
import { append, factDraft, type Draft } from '@server/ledger/append.ts'
import { checkTime, draftsOf, type Place } from '@server/logbook/draft.ts'
import { placeOf } from '@server/logbook/log.ts'
import { WALKED } from '@server/logbook/manylines.ts'
import { project } from '@server/projection/project.ts'
import { readingFacts } from '@server/reading/act.ts'
import { arcSinceCleaned } from '@server/reading/read.ts'
import { hungOne } from '@server/rightparts/hung.ts'
import { likelyPart, type Hung } from '@server/rightparts/setup.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { weightsOf, type WeightOf } from './weights.ts'

type Line = WalkFoundAnswer['entries'][number]

/**
 * What was found on a walk, many guns at once, as a tablet brings it when the network is back.
 * 1. Each entry is kept at its own time, once, under its own key; sent again it answers "before".
 * 2. One that cannot be kept is refused by itself with the reason; the others are kept.
 * 3. All of a request is one transaction: a power cut in between leaves none, and the tablet sends it again.
 */
export async function logWalk(deps: Deps, who: Who, entries: readonly WalkEntryRead[]): Promise<WalkFoundAnswer> {
  mustRead(who)
  const send = () => transact(deps.db, (tx) => write(tx, { deps, who, entries }))
  try {
    return await send()
  } catch (problem) {
    // A twin of the request was quicker: what it kept is "before" now.
    if (!isDuplicate(problem)) throw problem
    return send()
  }
}

interface WriteAt {
  deps: Deps
  who: Who
  entries: readonly WalkEntryRead[]
}
async function write(tx: Tx, { deps, who, entries }: WriteAt): Promise<WalkFoundAnswer> {
  const shop = await loadShop(tx, deps.calendar, deps.now())
  const before = await keptBefore(tx, entries)
  const at: EntryAt = {
    deps,
    who,
    shop,
    placeAt: askedOnce((stationId) => placeAndWire(tx, stationId, shop)),
    hungAt: askedOnce((stationId) => hungOne(tx, shop, stationId)),
    weightOf: await weightsOf(tx, who, entries),
  }
  const drafts: Draft[] = []
  const lines: Line[] = []
  const seen = new Set<string>()
  for (const entry of entries) {
    const known = before.get(entry.key)
    if (known !== undefined || seen.has(entry.key)) {
      lines.push({ key: entry.key, is: 'before', eventId: known ?? null, message: null })
      continue
    }
    seen.add(entry.key)
    try {
      const made = await draftsOfEntry(entry, at)
      drafts.push(...made)
      lines.push({ key: entry.key, is: 'kept', eventId: made[0]?.id ?? null, message: null })
    } catch (problem) {
      if (!(problem instanceof DomainError)) throw problem
      const message = [problem.message, ...problem.details].join(' ')
      lines.push({ key: entry.key, is: 'refused', eventId: null, message })
    }
  }
  if (drafts.length > 0) {
    const touched = await append(tx, drafts)
    await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
  }
  return { entries: lines }
}

const firstKey = (key: string) => `${WALKED}${key}#0`
const actKey = (key: string, i: number) => `${key}.act#${i}`
const settledKey = (key: string, i: number) => `${key}.done#${i}`

/** Entries whose first line is in the ledger already, by looks, acts or what was settled. */
async function keptBefore(db: Reader, entries: readonly WalkEntryRead[]): Promise<Map<string, Line['eventId']>> {
  const keyOf = new Map(
    entries.flatMap((e) => [firstKey(e.key), actKey(e.key, 0), settledKey(e.key, 0)].map((k) => [k, e.key] as const)),
  )
  const rows = await db
    .select({ id: ledgerEvent.id, key: ledgerEvent.idempotencyKey })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.idempotencyKey, [...keyOf.keys()]))
  return new Map(rows.map((r) => [keyOf.get(r.key) ?? '', r.id]))
}

interface EntryAt {
  deps: Deps
  who: Who
  shop: ShopModel
  placeAt: (stationId: string) => Promise<{ place: Place; head: HeadRow | null }>
  /** The gun with all that is projected of it: for acts, and for a nozzle looked at just now. */
  hungAt: (stationId: string) => Promise<Hung>
  weightOf: WeightOf
}

/** What is asked of a place, asked once. */
function askedOnce<T>(ask: (stationId: string) => Promise<T>): (stationId: string) => Promise<T> {
  const known = new Map<string, Promise<T>>()
  return (stationId) => {
    const asked = known.get(stationId) ?? ask(stationId)
    known.set(stationId, asked)
    return asked
  }
}
async function placeAndWire(tx: Tx, stationId: string, shop: ShopModel): ReturnType<EntryAt['placeAt']> {
  const place = await placeOf(tx, stationId, shop)
  const [head] = await tx
    .select()
    .from(headNow)
    .where(inArray(headNow.headId, [place.now.headId ?? '']))
  return { place, head: head ?? null }
}

async function draftsOfEntry(entry: WalkEntryRead, at: EntryAt): Promise<Draft[]> {
  const { deps, who, shop } = at
  const station = shop.stationById.get(entry.stationId)
  if (station) mustLogAt(who, station)
  checkTime(entry.happenedMs, deps.now())
  if (entry.looks.length + entry.acts.length + entry.settled.length === 0)
    throw new DomainError('bad-request', 'Nothing was looked at and nothing done there.', ['Skip that gun instead.'])
  const { place, head } = await at.placeAt(entry.stationId)
  const happenedMs = Math.min(entry.happenedMs, deps.now())
  const looks = await lookDrafts(entry, { ...at, place, head, happenedMs })
  return [
    ...looks,
    ...(await actDrafts(entry, { ...at, place, happenedMs })),
    ...settledDrafts(entry, { ...at, place, happenedMs }),
  ]
}

function settledDrafts(entry: WalkEntryRead, at: EntryAt & { place: Place; happenedMs: number }): Draft[] {
  const { deps, who, place, happenedMs } = at
  return settledFacts(place, entry.settled).map((fact, i) =>
    factDraft(deps, who, {
      fact,
      happenedMs: happenedMs + 1,
      precision: entry.precision,
      stationId: entry.stationId,
      idempotencyKey: settledKey(entry.key, i),
    }),
  )
}

/** As they are found they come before what was done about it; the worst stands first, for that is the line people read. */
async function lookDrafts(
  entry: WalkEntryRead,
  at: EntryAt & { place: Place; head: HeadRow | null; happenedMs: number },
): Promise<Draft[]> {
  const { deps, who, shop, place, head, happenedMs } = at
  const cleaned = await sinceCleaned(entry, at)
  const facts = worstGradeFirst(entry.looks).flatMap(({ what, grade }) => {
    const method = lookMethod(what)
    if (!method.grades.some((g) => g.key === grade))
      throw new DomainError('bad-request', `${what}: "${grade}" is no answer to that.`, ['Load the page again.'])
    const { key, stationId } = entry
    const r = readingRequest.parse({ key, stationId, what, method: method.key, how: 'looked', grade })
    const from: Record<string, number> = {}
    const weight = at.weightOf(entry.key, { what, grade })
    if (weight < 1) from['weight'] = weight
    if (what === 'nozzleOpen' && cleaned !== null) from['sinceCleanedH'] = cleaned
    const made = { value: null, left: null, from }
    return readingFacts(r, made, { place, shop, target: null, wireId: head?.spoolWireId ?? null, nowMs: deps.now() })
  })
  return facts.map((fact, i) =>
    factDraft(deps, who, {
      fact,
      happenedMs,
      precision: entry.precision,
      stationId: entry.stationId,
      note: null,
      idempotencyKey: `${WALKED}${entry.key}#${i}`,
    }),
  )
}

async function actDrafts(entry: WalkEntryRead, at: EntryAt & { place: Place; happenedMs: number }): Promise<Draft[]> {
  const { deps, who, shop, place, happenedMs } = at
  if (entry.acts.length === 0) return []
  const hung = await at.hungAt(entry.stationId)
  const withPart: Place = { ...place, partFor: (position) => likelyPart(hung, shop, position) }
  return entry.acts.flatMap((a, i) =>
    draftsOf(act.parse({ ...a, stationId: entry.stationId, happenedMs: happenedMs + 1, precision: entry.precision }), {
      place: withPart,
      shop,
      who,
      deps,
      key: actKey(entry.key, i),
    }),
  )
}

const LIVE_MS = 15 * 60_000
/** Hours of arc since the nozzle was clean, while that can be told: of an entry that comes hours later it cannot. */
async function sinceCleaned(
  entry: WalkEntryRead,
  { deps, shop, head, hungAt }: EntryAt & { head: HeadRow | null },
): Promise<number | null> {
  const nowMs = deps.now()
  if (!entry.looks.some((l) => l.what === 'nozzleOpen') || nowMs - entry.happenedMs > LIVE_MS) return null
  const hung = await hungAt(entry.stationId)
  const nozzle = hung.stateOf(hung.now.gunId)?.rows.find((r) => r.position === 'nozzle')
  return nozzle ? arcSinceCleaned({ hung, shop, here: { rows: [], kept: [], head } }, nozzle, nowMs) : null
}
