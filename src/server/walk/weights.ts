import { and, asc, eq, gte, isNull, lt } from 'drizzle-orm'
import { isFoundGood } from '@core/walk/entry.ts'
import { type FoundCount, type LookKey } from '@core/walk/looks.ts'
import { paceWeight, roundWeight } from '@core/walk/pace.ts'
import { type WalkEntryRead } from '@contract/walk.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type Who } from '@server/call/context.ts'
import { foundCounts, LEARNT_FROM_MS, type Found } from './foundcounts.ts'

const NEXT_GUN_MS = 15 * 60_000
const ONE_WALK_MS = 60 * 60_000
/** Fewer of one kind than this tell nothing. */
const FEW = 12

/** How much one look of an entry counts: less where it was noted too quickly, and where the walk finds too little. Never a name. */
export type WeightOf = (key: string, look: WalkEntryRead['looks'][number]) => number

export async function weightsOf(db: Reader, who: Who, entries: readonly WalkEntryRead[]): Promise<WeightOf> {
  const exact = entries.filter((e) => e.precision === 'exact').sort((a, b) => a.happenedMs - b.happenedMs)
  const [first] = exact
  if (!first) return () => 1
  const before = await walkedBefore(db, who, first.happenedMs)
  const pace = paces(exact, before.at(-1)?.happenedMs ?? null)
  const round = await rounds(db, exact, before)
  return (key, look) => (isFoundGood(look) ? Math.min(pace.get(key) ?? 1, round(key, look.what)) : 1)
}

interface Walked {
  happenedMs: number
  what: string
  isGood: boolean
}
/** Looks of the same device and person on what may be the same walk, in their order. */
async function walkedBefore(db: Reader, who: Who, firstMs: number): Promise<Walked[]> {
  const { deviceId, personId } = ledgerEvent
  const rows = await db
    .select({ happenedMs: ledgerEvent.happenedMs, body: ledgerEvent.body })
    .from(ledgerEvent)
    .where(
      and(
        eq(ledgerEvent.actKind, 'walked'),
        gte(ledgerEvent.happenedMs, firstMs - ONE_WALK_MS),
        lt(ledgerEvent.happenedMs, firstMs),
        who.device ? eq(deviceId, who.device.id) : isNull(deviceId),
        who.person ? eq(personId, who.person.id) : isNull(personId),
      ),
    )
    .orderBy(asc(ledgerEvent.happenedMs))
  return rows.flatMap(({ happenedMs, body }) =>
    body.type === 'fact' && body.fact.kind === 'reading'
      ? [{ happenedMs, what: body.fact.what, isGood: body.fact.is === 'good' }]
      : [],
  )
}

/** Each entry against the one before it. */
function paces(exact: readonly WalkEntryRead[], lastMs: number | null): Map<string, number> {
  let beforeMs = lastMs
  return new Map(
    exact.map((entry) => {
      const gap = beforeMs === null ? null : entry.happenedMs - beforeMs
      beforeMs = entry.happenedMs
      const sinceMs = gap === null || gap > NEXT_GUN_MS ? null : gap
      const looks = entry.looks.map((l) => l.what)
      return [entry.key, paceWeight({ sinceMs, looks, isAllGood: entry.looks.every(isFoundGood) })] as const
    }),
  )
}

/** Each entry against all of its walk so far, by kind of look. */
async function rounds(
  db: Reader,
  exact: readonly WalkEntryRead[],
  before: readonly Walked[],
): Promise<(key: string, what: LookKey) => number> {
  const soFar = new Map<string, FoundCount>()
  const count = (what: string, isGood: boolean): FoundCount => {
    const { bad, of } = soFar.get(what) ?? { bad: 0, of: 0 }
    const next = { bad: bad + (isGood ? 0 : 1), of: of + 1 }
    soFar.set(what, next)
    return next
  }
  for (const { what, isGood } of before) count(what, isGood)
  const at = new Map<string, FoundCount>()
  for (const entry of exact)
    for (const look of entry.looks) at.set(`${entry.key} ${look.what}`, count(look.what, isFoundGood(look)))
  const isTelling = [...at.values()].some((c) => c.bad === 0 && c.of >= FEW)
  const startMs = (exact[0]?.happenedMs ?? 0) - ONE_WALK_MS
  const known: Found = isTelling
    ? await foundCounts(db, { fromMs: startMs - LEARNT_FROM_MS, toMs: startMs })
    : new Map()
  return (key, what) => {
    const walk = at.get(`${key} ${what}`)
    if (!walk || walk.of < FEW) return 1
    return roundWeight(what, { before: known.get(what) ?? { bad: 0, of: 0 }, walk })
  }
}
