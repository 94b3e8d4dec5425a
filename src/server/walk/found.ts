import { NO_ID, type StationId } from '@core/ids/id.ts'
import { isPosition } from '@core/path/columns.ts'
import { eq } from 'drizzle-orm'
import { type ActKind } from '@core/ledger/acts.ts'
import { worstGradeFirst } from '@core/walk/entry.ts'
import { lookMethod } from '@core/walk/looks.ts'
import { type WalkEntryRead, type WalkFoundAnswer } from '@contract/walk.ts'
import { act } from '@contract/logbook.ts'
import { readingRequest } from '@contract/reading.ts'
import { headNow } from '@server/db/schema.ts'
import { isDuplicate, type Reader, type Tx } from '@server/db/db.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { noteRefusals } from '@server/call/refusals.ts'
import { DomainError } from '@server/problem/problem.ts'
import { settledFacts } from '@server/followup/act.ts'
import { type HeadRow } from '@server/projection/rows.ts'
import { actsByKeys } from '@server/ledger/lines.ts'
import { SAID_KINDS } from '@server/logbook/log.ts'
import { readingFacts } from '@server/reading/act.ts'
import { arcSinceCleaned } from '@server/reading/read.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { frontOf, likelyPart, type Hung } from '@server/gunnow/setup.ts'
import { type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'
import { keyOf, writeAct, type SaidAct, type Writing } from '@server/write/act.ts'
import { checkTime, placeOf, type Place } from '@server/write/place.ts'
import { actOf } from '@server/write/said.ts'
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
  const answer = await sayOnce(() => writeAct(deps, who, (w) => sayAll(w, entries)))
  const refused = answer.entries.flatMap(({ key, message }) => (message === null ? [] : { key, why: message }))
  await noteRefusals(deps, who, refused)
  return answer
}

async function sayOnce(send: () => Promise<WalkFoundAnswer>): Promise<WalkFoundAnswer> {
  try {
    return await send()
  } catch (problem) {
    // A twin of the request was quicker: what it kept is "before" now.
    if (!isDuplicate(problem)) throw problem
    return send()
  }
}

async function sayAll(w: Writing, entries: readonly WalkEntryRead[]): Promise<WalkFoundAnswer> {
  const { tx, deps, who } = w
  const shop = await w.shop()
  const before = await keptBefore(tx, entries)
  const at: EntryAt = {
    deps,
    who,
    shop,
    placeAt: askedOnce((stationId) => placeAndWire(tx, stationId, shop)),
    hungAt: askedOnce((stationId) => hungOne(tx, shop, stationId)),
    weightOf: await weightsOf(tx, who, entries),
  }
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
      const drafts = (await actsOfEntry(entry, at)).flatMap(w.say)
      lines.push({ key: entry.key, is: 'kept', eventId: drafts[0]?.id ?? null, message: null })
    } catch (problem) {
      if (!(problem instanceof DomainError)) throw problem
      const message = [problem.message, ...problem.details].join(' ')
      lines.push({ key: entry.key, is: 'refused', eventId: null, message })
    }
  }
  return { entries: lines }
}

/** Of one entry: its looks, what was done about them, what that settled. */
const actKey = (key: string, i: number) => keyOf(`${key}.act`, i)
const settledKey = (key: string) => keyOf(`${key}.done`)

/** Entries whose first line is in the ledger already, by looks, acts or what was settled. */
async function keptBefore(db: Reader, entries: readonly WalkEntryRead[]): Promise<Map<string, Line['eventId']>> {
  const kept = new Map<string, Line['eventId']>()
  const ask = async (kinds: readonly ActKind[], keyFor: (key: string) => string) => {
    const known = await actsByKeys(
      db,
      kinds,
      entries.map((e) => keyFor(e.key)),
    )
    for (const { key } of entries) {
      const row = known.get(keyFor(key))
      if (row && !kept.has(key)) kept.set(key, row.id)
    }
  }
  await ask(['walked'], (key) => keyOf(key))
  await ask(SAID_KINDS, (key) => actKey(key, 0))
  await ask(['followed'], settledKey)
  return kept
}

interface EntryAt {
  deps: Deps
  who: Who
  shop: ShopModel
  placeAt: (stationId: StationId) => Promise<{ place: Place; head: HeadRow | null }>
  /** The gun with all that is projected of it: for acts, and for a nozzle looked at just now. */
  hungAt: (stationId: StationId) => Promise<Hung>
  weightOf: WeightOf
}

/** What is asked of a place, asked once. */
function askedOnce<T>(ask: (stationId: StationId) => Promise<T>): (stationId: StationId) => Promise<T> {
  const known = new Map<string, Promise<T>>()
  return (stationId) => {
    const asked = known.get(stationId) ?? ask(stationId)
    known.set(stationId, asked)
    return asked
  }
}
async function placeAndWire(tx: Tx, stationId: StationId, shop: ShopPlaces): ReturnType<EntryAt['placeAt']> {
  const place = await placeOf(tx, stationId, shop)
  const [head] = await tx
    .select()
    .from(headNow)
    .where(eq(headNow.headId, place.now.headId ?? NO_ID))
  return { place, head: head ?? null }
}

async function actsOfEntry(entry: WalkEntryRead, at: EntryAt): Promise<SaidAct[]> {
  const { deps, who, shop } = at
  const station = shop.stationById.get(entry.stationId)
  if (station) mustLogAt(who, station)
  checkTime(entry.happenedMs, deps.now())
  if (entry.looks.length + entry.acts.length + entry.settled.length === 0)
    throw new DomainError('bad-request', 'Nothing was looked at and nothing done there.', ['Skip that gun instead.'])
  const { place, head } = await at.placeAt(entry.stationId)
  const happenedMs = Math.min(entry.happenedMs, deps.now())
  return [
    ...(await looksOf(entry, { ...at, place, head, happenedMs })),
    ...(await doneAbout(entry, { ...at, place, happenedMs })),
    ...settledBy(entry, { place, happenedMs }),
  ]
}

function settledBy(entry: WalkEntryRead, at: { place: Place; happenedMs: number }): SaidAct[] {
  if (entry.settled.length === 0) return []
  const lines = settledFacts(at.place, entry.settled).map((fact) => ({
    fact,
    happenedMs: at.happenedMs + 1,
    precision: entry.precision,
    stationId: entry.stationId,
  }))
  return [{ kind: 'followed', key: settledKey(entry.key), lines }]
}

/** As they are found they come before what was done about it; the worst stands first, for that is the line people read. */
async function looksOf(
  entry: WalkEntryRead,
  at: EntryAt & { place: Place; head: HeadRow | null; happenedMs: number },
): Promise<SaidAct[]> {
  if (entry.looks.length === 0) return []
  const { deps, shop, place, head, happenedMs } = at
  const cleaned = await sinceCleaned(entry, at)
  const facts = worstGradeFirst(entry.looks).flatMap(({ what, grade }) => {
    const method = lookMethod(what)
    if (!method.grades.some((g) => g.key === grade))
      throw new DomainError('bad-request', `${what}: "${grade}" is no answer to that.`, ['Load the page again.'])
    const { key, stationId } = entry
    const r = readingRequest.parse({ key, stationId, what, method: method.key, how: method.how, grade })
    const from: Record<string, number> = {}
    const weight = at.weightOf(entry.key, { what, grade })
    if (weight < 1) from['weight'] = weight
    if (what === 'nozzleOpen' && cleaned !== null) from['sinceCleanedH'] = cleaned
    const made = { value: null, left: null, from }
    return readingFacts(r, made, { place, shop, target: null, wireId: head?.spoolWireId ?? null, nowMs: deps.now() })
  })
  const { precision, stationId } = entry
  return [
    {
      kind: 'walked',
      key: keyOf(entry.key),
      lines: facts.map((fact) => ({ fact, happenedMs, precision, stationId })),
    },
  ]
}

async function doneAbout(entry: WalkEntryRead, at: EntryAt & { place: Place; happenedMs: number }): Promise<SaidAct[]> {
  const { deps, shop, place, happenedMs } = at
  if (entry.acts.length === 0) return []
  const unknown = entry.acts.find((a) => !isPosition(a.position))
  if (unknown)
    throw new DomainError('not-found', `There is no "${unknown.position}" on a wire path.`, [
      'Reload the page on that device, then log it again.',
    ])
  const hung = await at.hungAt(entry.stationId)
  const withPart: Place = { ...place, partFor: (position) => likelyPart(hung, shop, position) }
  return entry.acts.map((a, i) =>
    actOf(act.parse({ ...a, stationId: entry.stationId, happenedMs: happenedMs + 1, precision: entry.precision }), {
      place: withPart,
      shop,
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
  const nozzle = frontOf(hung)?.rows.find((r) => r.position === 'nozzle')
  return nozzle ? arcSinceCleaned({ hung, shop, here: { rows: [], kept: [], head } }, nozzle, nowMs) : null
}
