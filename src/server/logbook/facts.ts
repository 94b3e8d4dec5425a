import { type Fact } from '@core/ledger/event.ts'
import { isDuplicate, transact, type Reader } from '@server/db/db.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { append, eventByKey, factDraft } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { type Place } from './draft.ts'
import { placeOf } from './log.ts'

interface OneAct {
  key: string
  stationId: string
  /** Stands on the first line. */
  note?: string | null
  /** Throws what speaks against it, before anything is written. */
  check?: (tx: Reader, shop: ShopModel) => Promise<void>
  factsOf: (place: Place, shop: ShopModel) => Fact[] | Promise<Fact[]>
}

/**
 * Several facts of one act at one place: all of them or none, and never twice. Answers the ids of its lines, also when it was
 * done before.
 */
export async function logFacts(deps: Deps, who: Who, act: OneAct): Promise<string[]> {
  mustRead(who)
  const known = await eventByKey(deps.db, `${act.key}#0`)
  if (known) return [known.id]
  try {
    return await transact(deps.db, (tx) => logFactsIn(tx, { deps, who, act }))
  } catch (problem) {
    if (!isDuplicate(problem)) throw problem
    const winner = await eventByKey(deps.db, `${act.key}#0`)
    if (!winner) throw problem
    return [winner.id]
  }
}

export async function logFactsIn(
  tx: Parameters<Parameters<typeof transact>[1]>[0],
  { deps, who, act }: { deps: Deps; who: Who; act: OneAct },
): Promise<string[]> {
  const shop = await loadShop(tx, deps.calendar, deps.now())
  const place = await placeOf(tx, act.stationId, shop)
  const station = shop.stationById.get(act.stationId)
  if (station) mustLogAt(who, station)
  await act.check?.(tx, shop)
  const facts = await act.factsOf(place, shop)
  const drafts = facts.map((fact, i) =>
    factDraft(deps, who, {
      fact,
      happenedMs: deps.now(),
      precision: 'exact',
      stationId: act.stationId,
      note: i === 0 ? (act.note ?? null) : null,
      idempotencyKey: `${act.key}#${i}`,
    }),
  )
  const touched = await append(tx, drafts)
  await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
  return drafts.map((d) => d.id)
}
