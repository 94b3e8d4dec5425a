import { type CarrierId, type WireId } from '@core/ids/id.ts'
import { eq, inArray } from 'drizzle-orm'
import { type GunBuilt } from '@core/shop/built.ts'
import { carrier, carrierNow, headNow, positionNow } from '@server/db/schema.ts'
import { CheckStore } from './checkstore.ts'
import { type Deps } from '@server/call/context.ts'
import { readMany, type Reader } from '@server/db/db.ts'

export type PositionRow = typeof positionNow.$inferSelect
export type CarrierNowRow = typeof carrierNow.$inferSelect
/** All that is projected of one carrier. */
export interface CarrierState {
  /** Counted up whenever anything below is written. */
  revision: number
  rows: PositionRow[]
  now: CarrierNowRow | null
  built: GunBuilt | null
  /** The wire on it, of a feeder where a spool was ever logged. */
  spoolWireId: WireId | null
  /** What the rules of fit read of it, as one text: use that is counted on changes nothing here. */
  fitKey: string
}

/**
 * What is on every position of the shop, kept by carrier and its revision: a whole floor is thousands of rows of which an act
 * changes a few.
 * 1. The revision is read before the rows, so kept rows are at least as new as the revision they are kept under.
 * 2. A projection counts the revision in the transaction that writes the rows: newer rows, newer revision.
 * 3. Nothing depends on one process: any server with an empty or old store reads what it lacks.
 */
export class PositionStore {
  readonly checks = new CheckStore()
  private readonly kept = new Map<string, Fresh & { revision: number; fitKey: string }>()

  async readAll(db: Reader): Promise<Map<string, CarrierState>> {
    const carriers = await readCarriers(db, null)
    const stale = carriers.filter((c) => this.kept.get(c.id)?.revision !== c.revision)
    const fresh = await readFresh(
      db,
      stale.map((c) => c.id),
      carriers.length,
    )
    for (const c of stale) {
      const state = fresh.get(c.id) ?? { rows: [], now: null }
      this.kept.set(c.id, { revision: c.revision, ...state, fitKey: fitKeyOf(state) })
    }
    return new Map(
      carriers.map(({ id, revision, built, spoolWireId }) => {
        const kept = this.kept.get(id)
        const { rows, now, fitKey } = kept ?? { rows: [], now: null, fitKey: '' }
        return [id, { revision, rows, now, built, spoolWireId, fitKey }]
      }),
    )
  }
}

const readCarriers = (db: Reader, ids: readonly CarrierId[] | null) =>
  db
    .select({ id: carrier.id, revision: carrier.revision, built: carrier.built, spoolWireId: headNow.spoolWireId })
    .from(carrier)
    .leftJoin(headNow, eq(headNow.headId, carrier.id))
    .where(ids ? inArray(carrier.id, [...ids]) : undefined)

/** Beyond this share of the shop one read of everything is quicker than a long list of ids. */
const MOST = 0.5
type Fresh = Omit<CarrierState, 'revision' | 'built' | 'spoolWireId' | 'fitKey'>

const fitKeyOf = ({ rows, now }: Fresh): string =>
  `${rows.map((r) => `${r.position}:${r.partId ?? ''}`).join(' ')} ${now ? JSON.stringify(now.settings) : ''}`

function readFresh(db: Reader, ids: readonly CarrierId[], of: number): Promise<Map<string, Fresh>> {
  if (ids.length === 0) return Promise.resolve(new Map())
  return ids.length > of * MOST ? readRows(db, null) : readRows(db, ids)
}

/** The states of some carriers, or all, without a store. */
export async function readPositions(db: Reader, ids: readonly CarrierId[] | null): Promise<Map<string, CarrierState>> {
  const [rows, carriers] = await Promise.all([readRows(db, ids), readCarriers(db, ids)])
  return new Map(
    carriers.map(({ id, revision, built, spoolWireId }) => {
      const state = rows.get(id) ?? { rows: [], now: null }
      return [id, { ...state, revision, built, spoolWireId, fitKey: fitKeyOf(state) }]
    }),
  )
}

async function readRows(db: Reader, ids: readonly CarrierId[] | null): Promise<Map<string, Fresh>> {
  const [rows, nows] = await Promise.all([
    readMany(db, positionNow, ids ? inArray(positionNow.carrierId, [...ids]) : undefined),
    readMany(db, carrierNow, ids ? inArray(carrierNow.carrierId, [...ids]) : undefined),
  ])
  const states = new Map<string, Fresh>()
  const stateOf = (id: string) => {
    const state = states.get(id) ?? { rows: [], now: null }
    states.set(id, state)
    return state
  }
  for (const row of rows) stateOf(row.carrierId).rows.push(row)
  for (const now of nows) stateOf(now.carrierId).now = now
  return states
}

/** What it takes to look at a whole floor: what is on every position, kept. */
export type FloorDeps = Deps & { positions: PositionStore }
