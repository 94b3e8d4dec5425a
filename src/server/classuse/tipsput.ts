import { and, eq, gte, inArray } from 'drizzle-orm'
import { type Level } from '@core/classes/groups.ts'
import { type UsedByLevel } from '@core/classes/tips.ts'
import { type Occurrence } from '@core/classes/calendar.ts'
import { type GroupId, type PartId, type StationId } from '@core/ids/id.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { type Reader } from '@server/db/db.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { standingWhere } from '@server/ledger/standings.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { activeBooths, timesOf, type School } from '@server/shopmodel/school.ts'
import { CLASS_WEEKS } from './classuse.ts'

/** Put on in the break after it, a tip is that class’s. */
const AFTER_MS = 15 * MIN_MS

export interface PutOn {
  stationId: StationId
  atMs: number
  count: number
  partId: PartId | null
}
export const levelIn = (school: School, id: GroupId | null): Level | undefined =>
  school.groups.find((g) => g.id === id)?.level

/** Tips that went on at booths of groups in ten weeks, and how many classes of each level used. Null: no group has a booth. */
export async function tipsPutOn(
  db: Reader,
  { school, site }: Pick<ShopModel, 'school' | 'site'>,
  nowMs: number,
): Promise<{ put: PutOn[]; past: UsedByLevel[] } | null> {
  const booths = [...new Set(school.groups.flatMap((g) => activeBooths(school, g.id)))]
  if (booths.length === 0) return null
  const sinceMs = nowMs - CLASS_WEEKS * 7 * DAY_MS
  const times = timesOf(school, site.zone, { fromMs: sinceMs, toMs: nowMs })
  const put = await putOnAt(db, booths, sinceMs)
  const past = usedByLevel(
    times.filter((o) => o.kind === 'class' && o.toMs < nowMs),
    { put, school },
  )
  return { put, past }
}

async function putOnAt(db: Reader, stationIds: readonly StationId[], sinceMs: number): Promise<PutOn[]> {
  const lines = await standingWhere(
    db,
    and(
      inArray(ledgerEvent.stationId, [...stationIds]),
      eq(ledgerEvent.kind, 'fitted'),
      gte(ledgerEvent.happenedMs, sinceMs),
    ),
  )
  return lines.flatMap(({ fact, happenedMs, stationId }) =>
    fact.kind === 'fitted' && kindOfPosition(fact.position) === 'tip' && stationId
      ? [{ stationId, atMs: happenedMs, count: fact.count, partId: fact.partId }]
      : [],
  )
}

function usedByLevel(
  times: readonly Occurrence[],
  { put, school }: { put: readonly PutOn[]; school: School },
): UsedByLevel[] {
  const counts = new Map<Level, UsedByLevel>()
  for (const o of times) {
    const level = levelIn(school, o.groupId)
    if (!level || !o.groupId) continue
    const own = new Set(activeBooths(school, o.groupId))
    const used = put
      .filter((p) => own.has(p.stationId) && p.atMs >= o.fromMs && p.atMs < o.toMs + AFTER_MS)
      .reduce((s, p) => s + p.count, 0)
    const c = counts.get(level) ?? { level, used: 0, classes: 0 }
    counts.set(level, { level, used: c.used + used, classes: c.classes + 1 })
  }
  return [...counts.values()]
}
