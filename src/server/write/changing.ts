import { type ShopChange } from '@core/ledger/shopchange.ts'
import { isDuplicate, type Tx } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey, type Touched } from '@server/ledger/lines.ts'
import { keyOf, writeAct, type SaidLine, type Writing } from './act.ts'

export const OK = { ok: true as const }

interface Changing {
  key: string
  /** What was changed, as fields; asked for after the work, where only that knows. */
  change: ShopChange | (() => ShopChange)
  work: (tx: Tx, w: Writing) => Promise<Partial<Touched> | void>
  /** What follows once it stands, outside its transaction; asked for again where the same is sent again. */
  then?: (deps: Deps) => Promise<unknown>
}

/** A change of the set-up is a line of the ledger too, and is refolded where clocks depend on it. Same key: done before. */
export async function changing(deps: Deps, who: Who, at: Changing): Promise<typeof OK> {
  mustLead(who)
  const key = keyOf(at.key)
  try {
    await writeAct(deps, who, async (w) => {
      if (await actByKey(w.tx, 'shop', key)) return
      // Before the work too: what it reads in the middle of its change must not be kept for others.
      w.reshaped()
      w.touch((await at.work(w.tx, w)) ?? {})
      w.reshaped()
      const change = typeof at.change === 'function' ? at.change() : at.change
      w.say({ kind: 'shop', key, lines: [shopLine(deps, change)] })
    })
  } catch (problem) {
    if (isDuplicate(problem) && !(await actByKey(deps.db, 'shop', key)))
      throw new DomainError('name-taken', 'There is one with that name already.', ['Choose another name.'])
    if (!isDuplicate(problem)) throw problem
  }
  await at.then?.(deps)
  return OK
}

/** Set up now, whenever the device thinks it was asked for. */
export const shopLine = (deps: Pick<Deps, 'now'>, change: ShopChange): SaidLine => ({
  fact: { kind: 'shopChanged', change },
  stationId: null,
  happenedMs: deps.now(),
})
