import { type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type Fact } from '@core/ledger/event.ts'
import { UNSURE } from '@core/diagnose/learn.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'

export interface Explained {
  stationId: StationId
  happenedMs: number
  fact: Extract<Fact, { kind: 'explained' }>
}
/** What is seen, said while it was looked into: no word yet on what it was. */
export const isOnlySeen = ({ by }: Pick<Explained['fact'], 'by'>): boolean => by === 'seen'

/** What stops turned out to be since then, as it stands now: the last word on each stop. */
export async function explainedSince(db: Reader, sinceMs: number): Promise<Explained[]> {
  const all = (await standingOfKind(db, 'explained', sinceMs))
    .flatMap(({ fact, happenedMs, stationId, loggedMs }) =>
      fact.kind === 'explained' && stationId ? [{ fact, happenedMs, stationId, loggedMs }] : [],
    )
    .sort((a, b) => a.loggedMs - b.loggedMs)
  // Said again of the same stop, the last counts; what was only seen never takes the place of what it was.
  const last = new Map<string, (typeof all)[number]>()
  for (const e of all) {
    const of = `${e.stationId} ${e.fact.stopFromMs ?? e.happenedMs}`
    if (!isOnlySeen(e.fact) || isOnlySeen(last.get(of)?.fact ?? e.fact)) last.set(of, e)
  }
  return [...last.values()]
}

/** Counted by symptom and cause: sure ones one, unsure ones half. */
export function countTurned(explained: readonly Explained[]): { symptom: string; cause: string; n: number }[] {
  const counts = new Map<string, { symptom: string; cause: string; n: number }>()
  for (const { fact } of explained) {
    if (fact.cause === null) continue
    const key = `${fact.symptom} ${fact.cause}`
    const kept = counts.get(key) ?? { symptom: fact.symptom, cause: fact.cause, n: 0 }
    counts.set(key, { ...kept, n: kept.n + (fact.isCertain ? 1 : UNSURE) })
  }
  return [...counts.values()]
}

/** The explanation of a stop, and of none other: said of its beginning, or within it and a day after. */
export function explanationOf(
  stop: { stationId: StationId; fromMs: number; toMs: number | null },
  explained: readonly Explained[],
): Explained | null {
  const here = explained.filter((e) => e.stationId === stop.stationId)
  const named = here.find((e) => e.fact.stopFromMs === stop.fromMs)
  if (named) return named
  const until = (stop.toMs ?? Infinity) + DAY_MS
  return here.find((e) => e.fact.stopFromMs === null && e.happenedMs >= stop.fromMs && e.happenedMs <= until) ?? null
}
