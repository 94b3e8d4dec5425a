import { type KindKey } from '@core/path/columns.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { namesOfChange, NO_NAMES } from '@server/logbook/read.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

const MOST = 8
/** What was chosen for a kind before, from the ledger, newest first: the class's own lines and those for all. */
export async function ruleHistory(
  db: Reader,
  shop: ShopModel,
  at: { kindKey: KindKey; classKey: string | null },
): Promise<LifeAnswer['history']> {
  const told = await standingOfKind(db, 'shopChanged', 0)
  return told
    .flatMap(({ fact, eventId, happenedMs }) => {
      const change = fact.kind === 'shopChanged' ? fact.change : null
      if (change?.of !== 'houseRule' || change.kindKey !== at.kindKey) return []
      if (at.classKey !== null && change.classKey !== at.classKey && change.classKey !== '*') return []
      return [{ eventId, change, names: { ...NO_NAMES, ...namesOfChange(change, shop) }, atMs: happenedMs }]
    })
    .sort((a, b) => b.atMs - a.atMs)
    .slice(0, MOST)
}
