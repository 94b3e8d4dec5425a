import { type CarrierId, type StationId } from '@core/ids/id.ts'
import { inArray, sql } from 'drizzle-orm'
import {
  carrier,
  carrierNow,
  headMonth,
  headNow,
  life,
  mount,
  positionNow,
  reading,
  stationNow,
  stoppage,
  taskDone,
} from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Touched } from '@server/ledger/lines.ts'
import { type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'
import { foldCarrier } from '@core/ledger/fold.ts'
import { standingOfCarriers } from '@server/ledger/standings.ts'
import { gather, kinOf, type Gathered } from './gather.ts'
import { Recall, StoryStore } from './recall.ts'
import {
  carrierNowRows,
  headRow,
  lifeRows,
  monthRows,
  mountRows,
  positionRows,
  readingRows,
  taskRows,
  type ReadingRow,
} from './rows.ts'
import { stationRows, type StationNeeds } from './stationrows.ts'
import { projectSpools } from './spools.ts'
import { projectStock } from './stock.ts'
import { lock } from './lock.ts'
import { sync } from './sync.ts'

/** Rows written per projected table: all nought when what is stored agrees with the ledger. */
export type Written = Record<
  | 'mount'
  | 'life'
  | 'positionNow'
  | 'carrierNow'
  | 'taskDone'
  | 'reading'
  | 'headNow'
  | 'headMonth'
  | 'stationNow'
  | 'stoppage'
  | 'stockNow'
  | 'spoolNow',
  number
>

/** What is projected by: the shop as it is set up, and what this server remembers; without that all is read, and nothing is said of anybody. */
export interface ProjectBy {
  shop: ShopModel
  recall?: Recall
  /** Nobody said anything: what equipment counted is counted with. */
  isOnlyCounted?: boolean
}

/**
 * Present state from the ledger, in the transaction that wrote the ledger.
 *
 * 1. Carriers are locked in id order before the ledger is read, so two writers of one gun wait for each other; reads are
 *    "read committed", so the second sees what the first wrote.
 * 2. A touched carrier is folded whole: late, corrected and moved lines need no case of their own.
 * 3. What hangs on a touched carrier is counted again, because its use goes by the clock above it.
 * 4. Projecting twice changes nothing.
 */
export async function project(tx: Tx, touched: Touched, by: ProjectBy): Promise<Written> {
  const { shop, recall = new Recall(new StoryStore(), []) } = by
  const said = by.recall && !by.isOnlyCounted ? spokenOf(touched, shop) : NOBODY
  const before = await kinOf(tx, touched.carrierIds)
  await takeAndCount(tx, before.ids, said)
  recall.count(said)
  if (by.isOnlyCounted) recall.forgetClocks(touched.carrierIds)
  recall.project(before.ids)
  const gathered = await gather(tx, before, { shop, recall })
  const mounts = await writeMounts(tx, before.ids, { ...gathered, recall: by.recall })
  // What hangs on what is as it was: so is what belongs together.
  const after = mounts === 0 ? before : await kinOf(tx, before.ids)
  const all = after.ids
  const isMore = all.size !== before.ids.size
  const more = new Set([...all].filter((id) => !before.ids.has(id)))
  if (isMore) await takeAndCount(tx, more, NOBODY)
  recall.project(more)
  const complete = isMore ? await gather(tx, after, { shop, recall }) : gathered
  const carriers = await writeCarriers(tx, all, { gathered: complete, shop, recall: by.recall })
  const stationIds = new Set([...touched.stationIds, ...stationsOf(all, complete, shop)])
  const stations = await writeStations(tx, stationIds, { shop, recall, carriers: complete.carriers })
  const spools = await projectSpools(tx, touched.spoolIds)
  return {
    mount: mounts,
    ...carriers,
    ...stations,
    stockNow: await projectStock(tx, touched.partIds, shop),
    spoolNow: spools,
  }
}

const NOBODY: ReadonlySet<CarrierId> = new Set()
/** Whom an act spoke of, or at whose place it was said. */
const spokenOf = (touched: Touched, shop: ShopPlaces): ReadonlySet<CarrierId> =>
  new Set([...touched.carrierIds, ...[...touched.stationIds].flatMap((id) => shop.carrierOfStation.get(id) ?? [])])

/** Only what hangs on what: the first pass of a rebuild, so that the second can take what belongs together at once. */
export async function projectMounts(tx: Tx, ids: ReadonlySet<CarrierId>): Promise<number> {
  const rows = await lock(tx, ids)
  const list = [...ids]
  const standings = await standingOfCarriers(tx, list)
  const stories = new Map(list.map((id) => [id, foldCarrier(standings.get(id) ?? [])]))
  return writeMounts(tx, ids, { carriers: new Map(rows.map((r) => [r.id, r])), stories, recall: undefined })
}

/**
 * Takes their rows in id order, so that two writers of one gun wait for each other, and counts that they are written anew;
 * of those that an act spoke of, that it did.
 */
async function takeAndCount(tx: Tx, ids: ReadonlySet<CarrierId>, said: ReadonlySet<CarrierId>): Promise<void> {
  const all = new Set([...ids, ...said])
  if (all.size === 0) return
  const isOf = (some: ReadonlySet<CarrierId>) => (some.size === 0 ? sql`0` : inArray(carrier.id, [...some]))
  await tx
    .update(carrier)
    .set({ revision: sql`${carrier.revision} + (${isOf(ids)})`, said: sql`${carrier.said} + (${isOf(said)})` })
    .where(inArray(carrier.id, [...all]))
    .orderBy(carrier.id)
}

/** What this server remembers; without it stored rows are read. */
interface Remembering {
  recall: Recall | undefined
}

async function writeMounts(
  tx: Tx,
  ids: ReadonlySet<CarrierId>,
  gathered: Pick<Gathered, 'carriers' | 'stories'> & Remembering,
): Promise<number> {
  const movable = [...ids].filter((id) => gathered.carriers.get(id)?.type !== 'station')
  return sync(tx, mount, {
    rows: movable.flatMap((id) => mountRows(id, gathered.stories.get(id))),
    owner: { column: mount.childId, ids: movable },
    key: (r) => `${r.childId} ${r.fromEventId}`,
    keyColumn: mount.fromEventId,
    keyOf: (r) => r.fromEventId,
    recall: gathered.recall,
  })
}

async function writeCarriers(
  tx: Tx,
  ids: ReadonlySet<CarrierId>,
  at: { gathered: Gathered; shop: ShopPlaces } & Remembering,
): Promise<Pick<Written, 'life' | 'positionNow' | 'carrierNow' | 'taskDone' | 'reading' | 'headNow' | 'headMonth'>> {
  const { gathered, shop } = at
  const list = [...ids].filter((id) => gathered.carriers.has(id))
  const classOf = (id: CarrierId) => classKeyOf(id, gathered, shop)
  const lives = await sync(tx, life, {
    rows: list.flatMap((id) => lifeRows(id, gathered, classOf(id))),
    owner: { column: life.carrierId, ids: list },
    key: (r) => r.fromEventId,
    keyColumn: life.fromEventId,
    keyOf: (r) => r.fromEventId,
    recall: at.recall,
  })
  const positions = await sync(tx, positionNow, {
    rows: list.flatMap((id) => positionRows(id, gathered)),
    owner: { column: positionNow.carrierId, ids: list },
    key: (r) => `${r.carrierId} ${r.position}`,
    keyColumn: positionNow.position,
    keyOf: (r) => r.position,
    recall: at.recall,
  })
  return { life: lives, positionNow: positions, ...(await writeNow(tx, list, at)) }
}

/** What is said of a carrier besides its parts. */
async function writeNow(
  tx: Tx,
  list: readonly CarrierId[],
  at: { gathered: Gathered } & Remembering,
): Promise<Pick<Written, 'carrierNow' | 'taskDone' | 'reading' | 'headNow' | 'headMonth'>> {
  const { gathered } = at
  const read = new Map(list.map((id) => [id, readingRows(id, gathered)]))
  const settings = await sync(tx, carrierNow, {
    rows: list.flatMap((id) => carrierNowRows(id, gathered, read.get(id) ?? [])),
    owner: { column: carrierNow.carrierId, ids: list },
    key: (r) => r.carrierId,
    keyColumn: carrierNow.carrierId,
    keyOf: (r) => r.carrierId,
    recall: at.recall,
  })
  const tasks = await writeTasks(tx, list, at)
  const readings = await writeReadings(tx, list, { rows: [...read.values()].flat(), recall: at.recall })
  const heads = list.filter((id) => gathered.carriers.get(id)?.type === 'head')
  const headRows = await sync(tx, headNow, {
    rows: heads.map((id) => headRow(id, gathered)),
    owner: { column: headNow.headId, ids: heads },
    key: (r) => r.headId,
    keyColumn: headNow.headId,
    keyOf: (r) => r.headId,
    recall: at.recall,
  })
  return {
    carrierNow: settings,
    taskDone: tasks,
    reading: readings,
    headNow: headRows,
    headMonth: await writeMonths(tx, heads, at),
  }
}

const writeMonths = (tx: Tx, heads: readonly CarrierId[], at: { gathered: Gathered } & Remembering) =>
  sync(tx, headMonth, {
    rows: heads.flatMap((id) => monthRows(id, at.gathered)),
    owner: { column: headMonth.headId, ids: heads },
    key: (r) => `${r.headId} ${r.monthMs}`,
    keyColumn: headMonth.monthMs,
    keyOf: (r) => String(r.monthMs),
    recall: at.recall,
  })

const writeTasks = (tx: Tx, list: readonly CarrierId[], at: { gathered: Gathered } & Remembering) =>
  sync(tx, taskDone, {
    rows: list.flatMap((id) => taskRows(id, at.gathered)),
    owner: { column: taskDone.carrierId, ids: list },
    key: (r) => r.eventId,
    keyColumn: taskDone.eventId,
    keyOf: (r) => r.eventId,
    recall: at.recall,
  })

const writeReadings = (tx: Tx, list: readonly CarrierId[], at: { rows: ReadingRow[] } & Remembering) =>
  sync(tx, reading, {
    rows: at.rows,
    owner: { column: reading.carrierId, ids: list },
    key: (r) => r.eventId,
    keyColumn: reading.eventId,
    keyOf: (r) => r.eventId,
    recall: at.recall,
  })

/** The class of the place a carrier hangs at now, or hung at last. */
function classKeyOf(id: CarrierId, gathered: Gathered, shop: ShopPlaces): string | null {
  const stationId = lastStation(id, gathered, shop)
  return stationId ? (shop.stationById.get(stationId)?.classKey ?? null) : null
}

function lastStation(id: CarrierId, gathered: Gathered, shop: ShopPlaces): StationId | null {
  for (let at: CarrierId | undefined = id, depth = 0; at && depth < 5; depth++) {
    const stationId = shop.stationOfCarrier.get(at)
    if (stationId) return stationId
    at = gathered.stories.get(at)?.mounts.at(-1)?.onId
  }
  return null
}

function stationsOf(ids: ReadonlySet<CarrierId>, gathered: Gathered, shop: ShopPlaces): StationId[] {
  return [...ids].flatMap((id) => {
    const own = shop.stationOfCarrier.get(id)
    const last = lastStation(id, gathered, shop)
    return [own, last].filter((s): s is StationId => Boolean(s))
  })
}

async function writeStations(
  tx: Tx,
  ids: ReadonlySet<StationId>,
  at: StationNeeds,
): Promise<Pick<Written, 'stationNow' | 'stoppage'>> {
  const list = [...ids].filter((id) => at.shop.stationById.has(id))
  const { now, stoppages } = await stationRows(tx, list, at)
  const nows = await sync(tx, stationNow, {
    rows: now,
    owner: { column: stationNow.stationId, ids: list },
    key: (r) => r.stationId,
    keyColumn: stationNow.stationId,
    keyOf: (r) => r.stationId,
  })
  const stops = await sync(tx, stoppage, {
    rows: stoppages,
    owner: { column: stoppage.stationId, ids: list },
    key: (r) => r.fromEventId,
    keyColumn: stoppage.fromEventId,
    keyOf: (r) => r.fromEventId,
  })
  return { stationNow: nows, stoppage: stops }
}
