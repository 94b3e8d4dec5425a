import { type Fact } from '@core/ledger/event.ts'
import { transact, type Reader, type Tx } from '@server/db/db.ts'
import { once } from '@server/http/once.ts'
import { happenedAt, mustLogAt, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { append, eventByKey, factDraft } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { type Place } from './draft.ts'
import { placeOf } from './log.ts'

interface OneAct {
  key: string
  stationId: string
  /** Kept without who said it. */
  isNameless?: boolean
  /** When it was done; now, where nobody says. */
  happenedMs?: number
  /** Stands on the first line. */
  note?: string | null
  /** Throws what speaks against it, before anything is written. */
  check?: (tx: Reader, shop: ShopModel) => Promise<void>
  /** Reads by the transaction it is written in: a second connection would wait for one that waits for it. */
  factsOf: (place: Place, shop: ShopModel, tx: Reader) => Fact[] | Promise<Fact[]>
}

const NOBODY: Who = { person: null, device: null }

/** Several facts of one act at one place: all of them or none, and never twice. Answers the id of its first line. */
export async function logFacts(deps: Deps, who: Who, act: OneAct): Promise<string> {
  mustRead(who)
  return once(
    async () => (await eventByKey(deps.db, `${act.key}#0`))?.id ?? null,
    () =>
      transact(deps.db, async (tx) => {
        const shop = await loadShop(tx, deps.calendar, deps.now())
        return logFactsIn(tx, { deps, who, shop, act })
      }),
  )
}

/** The same inside a transaction that writes more. */
export async function logFactsIn(
  tx: Tx,
  { deps, who, shop, act }: { deps: Deps; who: Who; shop: ShopModel; act: OneAct },
): Promise<string> {
  const place = await placeOf(tx, act.stationId, shop)
  const station = shop.stationById.get(act.stationId)
  if (station) mustLogAt(who, station)
  await act.check?.(tx, shop)
  const facts = await act.factsOf(place, shop, tx)
  const drafts = facts.map((fact, i) =>
    factDraft(deps, act.isNameless ? NOBODY : who, {
      fact,
      happenedMs: Math.min(act.happenedMs ?? happenedAt(deps), deps.now()),
      precision: 'exact',
      stationId: act.stationId,
      note: i === 0 ? (act.note ?? null) : null,
      idempotencyKey: `${act.key}#${i}`,
    }),
  )
  const touched = await append(tx, drafts)
  await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
  return drafts[0]?.id ?? ''
}
