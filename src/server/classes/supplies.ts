import { and, eq, gte, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { type Level } from '@core/classes/groups.ts'
import { willTake, type UsedByLevel } from '@core/classes/tips.ts'
import { type Occurrence } from '@core/classes/calendar.ts'
import { type GroupId, type PartId, type StationId } from '@core/ids/id.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { type classesAnswer } from '@contract/classes.ts'
import { type Reader } from '@server/db/db.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { activeBooths, timesOf, type School } from '@server/shopmodel/school.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { standingWhere } from '@server/ledger/standings.ts'

type Tips = z.input<typeof classesAnswer>['tips']
const WEEKS = 10
/** Put on in the break after it, a tip is that class’s. */
const AFTER_MS = 15 * MIN_MS
const AHEAD_DAYS = [7, 28] as const

/** Tips of the coming week and month by calendar and level: what classes took, times the classes that come; and what lies on the shelf. */
export async function tipsOfClasses(db: Reader, at: { school: School; zone: string; nowMs: number }): Promise<Tips> {
  const { school, zone, nowMs } = at
  const booths = [...new Set(school.groups.flatMap((g) => activeBooths(school, g.id)))]
  if (booths.length === 0) return null
  const sinceMs = nowMs - WEEKS * 7 * DAY_MS
  const times = timesOf(school, zone, { fromMs: sinceMs, toMs: nowMs + 28 * DAY_MS }).filter((o) => o.kind === 'class')
  const put = await tipsPutOn(db, booths, sinceMs)
  const levelOf = (id: GroupId | null) => school.groups.find((g) => g.id === id)?.level
  const past = usedByLevel(
    times.filter((o) => o.toMs < nowMs),
    { put, levelOf, boothsOf: (id) => activeBooths(school, id) },
  )
  const coming = AHEAD_DAYS.map((days) => {
    const n = new Map<Level, number>()
    for (const o of times.filter((t) => t.fromMs >= nowMs && t.fromMs < nowMs + days * DAY_MS)) {
      const level = levelOf(o.groupId)
      if (level) n.set(level, (n.get(level) ?? 0) + 1)
    }
    const will = willTake(past, n)
    return will && { days, classes: [...n.values()].reduce((s, x) => s + x, 0), ...will }
  })
  const [week, month] = coming
  if (!week || !month) return null
  return { week, month, past: past.map((p) => ({ ...p })), part: await tipMostUsed(db, put) }
}

interface PutOn {
  stationId: StationId
  atMs: number
  count: number
  partId: PartId | null
}
async function tipsPutOn(db: Reader, stationIds: readonly StationId[], sinceMs: number): Promise<PutOn[]> {
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
  of: {
    put: readonly PutOn[]
    levelOf: (id: GroupId | null) => Level | undefined
    boothsOf: (id: GroupId) => StationId[]
  },
): UsedByLevel[] {
  const counts = new Map<Level, UsedByLevel>()
  for (const o of times) {
    const level = of.levelOf(o.groupId)
    if (!level || !o.groupId) continue
    const own = new Set(of.boothsOf(o.groupId))
    const used = of.put
      .filter((p) => own.has(p.stationId) && p.atMs >= o.fromMs && p.atMs < o.toMs + AFTER_MS)
      .reduce((s, p) => s + p.count, 0)
    const c = counts.get(level) ?? { level, used: 0, classes: 0 }
    counts.set(level, { level, used: c.used + used, classes: c.classes + 1 })
  }
  return [...counts.values()]
}

/** The tip that is put on most there, with what lies on the shelf. */
async function tipMostUsed(db: Reader, put: readonly PutOn[]): Promise<NonNullable<Tips>['part']> {
  const counts = new Map<PartId, number>()
  for (const p of put) if (p.partId) counts.set(p.partId, (counts.get(p.partId) ?? 0) + p.count)
  const [most] = [...counts].sort((a, b) => b[1] - a[1])
  if (!most) return null
  const part = (await stockedParts(db)).find((p) => p.id === most[0])
  return part ? { partId: part.id, code: part.code, name: part.name, onHand: part.onHand } : null
}
