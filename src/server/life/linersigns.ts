import { type CarrierId, NO_ID } from '@core/ids/id.ts'
import { and, gte, inArray } from 'drizzle-orm'
import { endIn } from '@core/life/facts.ts'
import { signsSeen } from '@core/life/signsseen.ts'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { couldSpeak, signRecord, type LinerLife, type SignRecord } from '@core/liner/record.ts'
import { reading } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'
import { explainedSince, type Explained } from '@server/down/explained.ts'
import { stopTold } from '@core/ledger/fold.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { type KeptReading } from '@core/reading/alarms.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { keptReading } from '@server/projection/rows.ts'
import { groupBy } from '@server/shopmodel/model.ts'
import { LOOK_BACK_MS, type Life, type Places } from './lives.ts'

/** What a sign of a liner is read from. */
const READ = ['pull', 'layout', 'tension', 'slip', 'motorAmps'] as const

export type TakenLiner = LinerLife & { used: number }
interface Looked {
  readingsOf: ReadonlyMap<string, { reading: KeptReading }[]>
  stopsOf: ReadonlyMap<string, Explained[]>
  stuck: readonly Standing[]
}
async function lookedSince(db: Reader, sinceMs: number): Promise<Looked> {
  const [rows, explained, stuck] = await Promise.all([
    readMany(db, reading, and(inArray(reading.what, [...READ]), gte(reading.atMs, sinceMs))),
    explainedSince(db, sinceMs),
    standingOfKind(db, 'stuck', sinceMs),
  ])
  const read = rows.map((r) => ({ id: r.carrierId, reading: keptReading(r) }))
  return {
    readingsOf: groupBy(read, (r) => r.id),
    stopsOf: groupBy(explained, (e) => e.stationId),
    stuck,
  }
}

/** The liners that ended, each with what was read, found and asked while it was in: told of its gun, of the feeder and place it hung at. */
export async function linerLives(
  db: Reader,
  lives: readonly Life[],
  at: { places: Places; nowMs: number; limit: number | null },
): Promise<TakenLiner[]> {
  const looked = await lookedSince(db, at.nowMs - LOOK_BACK_MS)
  return lives.flatMap((l) => {
    if (l.toMs === null) return []
    const headId = at.places.headOf.get(l.stationId ?? NO_ID)?.headId ?? NO_ID
    return [
      {
        used: l.used,
        ...{ fromMs: l.fromMs, toMs: l.toMs, usedFraction: at.limit === null ? null : l.used / at.limit },
        isWorn: ['worn', 'either'].includes(endIn(l)),
        ...within(l, looked, headId),
      },
    ]
  })
}
function within(
  l: Life,
  looked: Looked,
  headId: CarrierId,
): Omit<LinerLife, 'fromMs' | 'toMs' | 'usedFraction' | 'isWorn'> {
  const isIn = (ms: number) => ms > l.fromMs && ms <= (l.toMs ?? Infinity)
  return {
    wasFine: l.bench !== undefined && l.bench.isCertain && l.bench.found.every((f) => f === 'nothing'),
    stops: (looked.stopsOf.get(l.stationId ?? '') ?? []).flatMap(({ fact, happenedMs }) => {
      const stop = stopTold(fact, happenedMs)
      return isIn(stop.atMs) ? [stop] : []
    }),
    kinksMs: looked.stuck.flatMap(({ fact, happenedMs: ms }) =>
      fact.kind === 'stuck' && fact.isKinked && fact.carrierId === l.carrierId && isIn(ms) ? [ms] : [],
    ),
    readings: [l.carrierId, headId]
      .flatMap((id) => looked.readingsOf.get(id) ?? [])
      .flatMap((r) => (isIn(r.reading.atMs) ? [r.reading] : [])),
  }
}

/** Tip and nozzle off, arm open, three pulls with a scale in two lays. A guess. */
const PULL_MIN = 3
/** Minutes of pulls for one unit of use, where liners were pulled. */
function readMin(told: readonly TakenLiner[], terms: LinerTerms): number {
  const pulled = told.filter((l) => terms.on.includes('pull') && couldSpeak(l, 'pull'))
  const used = pulled.reduce((sum, l) => sum + l.used, 0)
  const n = pulled.reduce((sum, l) => sum + l.readings.filter((r) => r.what === 'pull').length, 0)
  return used > 0 ? (n * PULL_MIN) / used : 0
}

/** What signs did here under some terms, as costs take it. */
export function signsHere(told: readonly TakenLiner[], terms: LinerTerms, at: { used: number; draws: number }) {
  const record: SignRecord = signRecord(told, terms)
  return { record, ...signsSeen(record, { ...at, readMin: readMin(told, terms) }) }
}
