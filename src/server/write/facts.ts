import { type EventId, NO_ID, type StationId } from '@core/ids/id.ts'
import { type ActKind } from '@core/ledger/acts.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type Reader } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { happenedAt, mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { keyOf, writeAct, type Writing } from './act.ts'
import { placeOf, type PlaceNow } from './place.ts'

export interface OneAct {
  /** Absent: one thing said at one place. */
  kind?: ActKind
  key: string
  stationId: StationId
  /** Kept without who said it. */
  isNameless?: boolean
  /** When it was done; now, where nobody says. */
  happenedMs?: number
  /** Stands on the first line. */
  note?: string | null
  /** Throws what speaks against it, before anything is written. */
  check?: (tx: Reader, shop: ShopModel) => Promise<void>
  /** Reads by the transaction it is written in: a second connection would wait for one that waits for it. */
  factsOf: (place: PlaceNow, shop: ShopModel, tx: Reader) => Fact[] | Promise<Fact[]>
}

/** Several facts of one act at one place: all of them or none, and never twice. Answers the id of its first line. */
export async function logFacts(deps: Deps, who: Who, act: OneAct): Promise<EventId> {
  mustRead(who)
  return once(
    async () => (await actByKey(deps.db, act.kind ?? 'log', keyOf(act.key)))?.id ?? null,
    () => writeAct(deps, who, (w) => sayFacts(w, act)),
  )
}

/** The same as part of a piece of work that says more; `nth` of the acts sent under its key. */
export async function sayFacts(w: Writing, act: OneAct, nth = 0): Promise<EventId> {
  const shop = await w.shop()
  const place = await placeOf(w.tx, act.stationId, shop)
  const station = shop.stationById.get(act.stationId)
  if (station) mustLogAt(w.who, station)
  await act.check?.(w.tx, shop)
  const facts = await act.factsOf(place, shop, w.tx)
  const happenedMs = Math.min(act.happenedMs ?? happenedAt(w.deps), w.deps.now())
  const [first] = w.say({
    kind: act.kind ?? 'log',
    key: keyOf(act.key, nth),
    isNameless: act.isNameless ?? false,
    lines: facts.map((fact, i) => ({
      fact,
      stationId: act.stationId,
      happenedMs,
      note: i === 0 ? (act.note ?? null) : null,
    })),
  })
  return first?.id ?? NO_ID
}
