import { type AreaId, NO_ID } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { gapOf, type ShareBand } from '@core/life/facts.ts'
import { type SharedGap } from '@core/life/fitted.ts'
import { toldPrior, tradePrior } from '@core/life/guesses.ts'
import { type LifeSource } from '@core/life/kept.ts'
import { type Prior } from '@core/life/thinned.ts'
import { type LoggingShareLine } from '@contract/parts.ts'
import { toldLife } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { shareOf } from '@server/parts/sharestore.ts'
import { type KindRow, type ShopPlaces } from '@server/shopmodel/model.ts'
import { type Life } from './lives.ts'

/** Each life with the logging share of its area. */
export function gapsOf(
  lives: readonly Life[],
  shop: ShopPlaces,
  at: { shares: readonly LoggingShareLine[]; kindKey: KindKey },
): SharedGap[] {
  const known = new Map<string | null, ShareBand>()
  const bandOf = (areaId: AreaId | null) => {
    const band = known.get(areaId) ?? shareOf(at.shares, { areaId, kindKey: at.kindKey })
    known.set(areaId, band)
    return band
  }
  return lives.map((l) => gapOf(l, bandOf(shop.stationById.get(l.stationId ?? NO_ID)?.areaId ?? null)))
}

export interface Believed {
  prior: Prior | null
  source: Exclude<LifeSource, 'yours'>
  word: { usual: number; early: number; isForAll: boolean } | null
}
/** What is believed of a kind before its own lives speak: the lead's word, for the class or for all, else the trade's guess. */
export async function wordsOf(db: Reader): Promise<(kind: KindRow, classKey: string | null) => Believed> {
  const told = new Map((await db.select().from(toldLife)).map((t) => [`${t.kindKey} ${t.classKey}`, t]))
  return (kind, classKey) => {
    const own = classKey ? told.get(`${kind.key} ${classKey}`) : undefined
    const word = own ?? told.get(`${kind.key} *`)
    if (!word) return { prior: tradePrior(kind.key, kind.lifeUnit), source: 'trade', word: null }
    const { usual, early } = word
    return { prior: toldPrior(usual, early), source: 'told', word: { usual, early, isForAll: !own } }
  }
}
/** Below this share of what is known the shop's own lives are said to speak. */
export const MOSTLY = 0.5
