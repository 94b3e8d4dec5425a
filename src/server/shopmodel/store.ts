import { type StationId } from '@core/ids/id.ts'
import { type Booked } from '@core/clock/window.ts'
import { asc, eq, isNull, sql } from 'drizzle-orm'
import {
  area,
  carrier,
  feederType,
  fitFamily,
  houseChoice,
  houseRule,
  keptFinding,
  meta,
  part,
  partKind,
  procedure,
  shiftPattern,
  site,
  station,
  stationClass,
  store,
  tryout,
  wire,
} from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { readTaskTotals, type TaskTotals } from '@server/minutes/minutes.ts'
import { Calendar } from '@server/time/calendar.ts'
import { schoolTables } from './school.ts'
import { KeptFor } from '@server/time/keptfor.ts'

/** Every table that says how the shop is set up, as it stands. */
function readTables(db: Reader) {
  return Promise.all([
    db.select().from(site),
    db.select().from(area).orderBy(asc(area.walkOrder)),
    db.select().from(station).orderBy(asc(station.walkOrder), asc(station.name)),
    db.select().from(stationClass),
    db.select().from(partKind).orderBy(asc(partKind.walkOrder)),
    db.select().from(wire),
    db.select().from(fitFamily),
    db.select().from(shiftPattern),
    schoolTables(db),
    db.select().from(houseRule),
    db.select().from(part),
    db.select().from(feederType),
    db.select().from(procedure),
    db.select().from(houseChoice),
    db.select().from(keptFinding),
    db.select({ id: carrier.id, stationId: carrier.stationId }).from(carrier).where(eq(carrier.type, 'station')),
    db.select().from(tryout).where(isNull(tryout.toMs)),
    db.select().from(store).orderBy(asc(store.name)),
  ])
}
export type ShopTables = Awaited<ReturnType<typeof readTables>>

const REVISION = 'shopRevision'
/** What was changed in the tables by hand, beside the program, is seen after so long. */
const LONGEST_MS = 60_000
const TOTALS_MS = 30_000

/**
 * How the shop is set up, kept by its revision: some twenty tables that change a few times a week and are asked for by every request.
 * 1. The revision is read before the tables, so what is kept under it is at least as new as it says.
 * 2. Whoever changes the set-up counts the revision in the same transaction: newer tables, newer revision.
 * 3. Inside a transaction that has changed the set-up, the tables are read anew and not kept: it may yet be rolled back.
 * 4. Minutes that were worked are no set-up: their sums are kept for half a minute.
 * 5. Nothing depends on one process: an empty or old store reads what it lacks. A shop without a revision is read anew each time.
 */
export class ShopStore {
  readonly calendar = new Calendar()
  /** What the calendar holds for each place, by the hour it was gone through: rules of days are slow to follow. */
  readonly booked = new WeakMap<ShopTables, { hour: number; booked: Map<StationId, Booked[]> }>()
  private kept: { revision: number; readMs: number; tables: ShopTables } | null = null
  private readonly worked = new KeptFor<TaskTotals[]>(TOTALS_MS)

  async tables(db: Reader, isReshaped = false): Promise<{ revision: number | null; tables: ShopTables }> {
    const [row] = await db.select({ value: meta.value }).from(meta).where(eq(meta.key, REVISION))
    const revision = row && !isReshaped ? Number(row.value) : null
    const { kept } = this
    const nowMs = performance.now()
    if (revision !== null && kept?.revision === revision && nowMs - kept.readMs < LONGEST_MS)
      return { revision, tables: kept.tables }
    const tables = await readTables(db)
    if (revision !== null) this.kept = { revision, readMs: nowMs, tables }
    return { revision, tables }
  }

  /** What was worked by the list, over all years: a sum over every job there ever was, so it is not made for each request. */
  taskTotals = (db: Reader): Promise<TaskTotals[]> => this.worked.read(performance.now(), () => readTaskTotals(db))
  /** A job was worked through this process: the next who asks sees it. Another server's is seen half a minute later. */
  countWork(): void {
    this.worked.forget()
  }
}

/** The set-up is another from now on. */
export async function countShopRevision(tx: Tx): Promise<void> {
  await tx
    .insert(meta)
    .values({ key: REVISION, value: '1' })
    .onDuplicateKeyUpdate({ set: { value: sql`${meta.value} + 1` } })
}
