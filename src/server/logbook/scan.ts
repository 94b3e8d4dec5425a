import { NO_ID, type StationId } from '@core/ids/id.ts'
import { and, desc, eq, gte } from 'drizzle-orm'
import { type z } from 'zod'
import { readCode, type CodedAct } from '@core/logbook/actcode.ts'
import { act as actShape, type LogAnswer, type scanAnswer, type scanRequest } from '@contract/logbook.ts'
import { carrier, ledgerEvent, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey, fromRow } from '@server/ledger/lines.ts'
import { standingFacts } from '@core/ledger/resolve.ts'
import { loadShop, type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'
import { correct } from './correct.ts'
import { logActs, SAID_KINDS } from './log.ts'
import { keyOf } from '@server/write/act.ts'

type Answer = z.input<typeof scanAnswer> & { stationId: StationId }
/** A scanner that is held a moment too long reads twice; nobody changes the same part twice in two minutes. */
const SAME_MS = 120_000

/** What a scanned code means here: a gun to open, an act to log, or "the last one was two". */
export async function scan(deps: Deps, who: Who, r: z.output<typeof scanRequest>): Promise<Answer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const read = readCode(r.code, shop.kinds)
  if (!read)
    throw new DomainError('bad-request', 'That code is none of this shop’s.', [
      'Scan the card at the booth, or find the gun by its number.',
    ])
  const station = shop.stations.find((s) => s.name.toLowerCase() === read.place.toLowerCase())
  if (!station)
    throw new DomainError('not-found', `No gun has "${read.place}" painted on it.`, [
      'If it was renamed, print its card again.',
    ])
  const at = { stationId: station.id, stationName: station.name }
  if (read.kind === 'gun') return seenHere(deps, who, { shop, station })
  if (read.kind === 'page') return { ...at, said: 'open', page: read.page, acts: [], logged: [] }
  mustLogAt(who, station)
  if (read.kind === 'again') return again(deps, who, { at, count: read.count, key: r.key, shop })
  const acts = [actShape.parse({ stationId: station.id, ...entryOf(read.act) })]
  // The same request again is answered as the first time; another scan of the same code a moment later is not.
  const isRetry = Boolean(await actByKey(deps.db, SAID_KINDS, keyOf(r.key)))
  if (
    !isRetry &&
    (await isJustLogged(deps.db, { stationId: station.id, act: read.act, sinceMs: deps.now() - SAME_MS }))
  )
    return { ...at, said: 'twice', acts: [], logged: [] }
  const answer: LogAnswer = await logActs(deps, who, { key: r.key, acts })
  return { ...at, said: 'logged', acts, logged: answer.logged }
}

/** A gun's label opens it; at a place's own tablet another place's gun is asked about: it may have come here. */
async function seenHere(
  deps: Deps,
  who: Who,
  at: { shop: ShopPlaces; station: ShopModel['stations'][number] },
): Promise<Answer> {
  const { shop, station } = at
  const here = who.person ? undefined : shop.stationById.get(who.device?.stationId ?? NO_ID)
  const gunName = here && here.id !== station.id ? await gunAt(deps.db, station.id) : null
  if (!here || !gunName) return { stationId: station.id, stationName: station.name, said: 'open', acts: [], logged: [] }
  const hungAt = { stationId: station.id, gunName }
  return { stationId: here.id, stationName: here.name, said: 'gunHere', hungAt, acts: [], logged: [] }
}

async function gunAt(db: Reader, stationId: StationId): Promise<string | null> {
  const [row] = await db
    .select({ name: carrier.name })
    .from(stationNow)
    .innerJoin(carrier, eq(carrier.id, stationNow.gunId))
    .where(eq(stationNow.stationId, stationId))
  return row?.name ?? null
}

const entryOf = ({ act, position }: CodedAct) => ({ act, ...(position ? { position } : {}) })

const FACT_OF: Record<CodedAct['act'], string> = {
  changed: 'fitted',
  cleaned: 'cleaned',
  newSpool: 'wireLoaded',
  down: 'stopped',
  running: 'restarted',
  seen: 'confirmed',
}

async function lastLines(db: Reader, at: { stationId: StationId; sinceMs: number }) {
  const rows = await db
    .select()
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.stationId, at.stationId), gte(ledgerEvent.loggedMs, at.sinceMs)))
    .orderBy(desc(ledgerEvent.loggedMs), desc(ledgerEvent.id))
  return standingFacts(rows.map(fromRow)).sort((a, b) => b.loggedMs - a.loggedMs)
}

async function isJustLogged(
  db: Reader,
  at: { stationId: StationId; act: CodedAct; sinceMs: number },
): Promise<boolean> {
  const lines = await lastLines(db, at)
  return lines.some(
    ({ fact }) =>
      fact.kind === FACT_OF[at.act.act] &&
      (at.act.position === null || ('position' in fact && fact.position === at.act.position)),
  )
}

const AGAIN_MS = 10 * 60_000

/** "Two tips": the change logged here last, a moment ago, stood for so many. */
async function again(
  deps: Deps,
  who: Who,
  what: { at: Pick<Answer, 'stationId' | 'stationName'>; count: number; key: string; shop: ShopModel },
): Promise<Answer> {
  const { at, count } = what
  const lines = await lastLines(deps.db, { stationId: at.stationId, sinceMs: deps.now() - AGAIN_MS })
  const last = lines.find((l) => l.fact.kind === 'fitted')
  if (last?.fact.kind !== 'fitted')
    throw new DomainError('bad-request', `Nothing was changed on ${at.stationName} in the last ten minutes.`, [
      'Scan what was changed first, then how many.',
    ])
  await correct(deps, who, { key: what.key, eventId: last.eventId, count })
  const acts = [actShape.parse({ stationId: at.stationId, act: 'changed', position: last.fact.position, count })]
  return { ...at, said: 'again', acts, logged: [] }
}
