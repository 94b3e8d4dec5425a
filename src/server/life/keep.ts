import { type KindKey } from '@core/path/columns.ts'
import { and, eq, inArray } from 'drizzle-orm'
import { extraOf, hazardSince, type KeptFit } from '@core/life/kept.ts'
import { LEAST_SHARE } from '@core/life/thinned.ts'
import { weighedShare, type LifeFit } from '@core/life/fitted.ts'
import { lifeFit } from '@server/db/schema.ts'
import { type Db } from '@server/db/db.ts'
import { type CostedStop } from '@server/payback/stopuse.ts'
import { readSupplyOf } from '@server/parts/sharestore.ts'
import { withLease } from '@server/db/lease.ts'
import { loadShop, type KindRow, type ShopModel } from '@server/shopmodel/model.ts'
import { type ShopStore } from '@server/shopmodel/store.ts'
import { costsOf, stopsForCosts } from './costs.ts'
import { type Fitter, keyOf } from './fitter.ts'
import { gapsOf, MOSTLY, wordsOf, type Believed } from './known.ts'
import { livesOf } from './lives.ts'

export interface KeepDeps {
  db: Db
  shops: ShopStore
  now: () => number
}
export interface KeptRow {
  kindKey: KindKey
  classKey: string
  basis: string
  fit: KeptFit
}
const FIRST = 'process consumable'
/** Told how far it is; awaited, so that whoever asks something meanwhile goes first. */
type Progress = (done: number, of: number) => void | Promise<void>

/**
 * Fits every kind at every class of places, for Floor, the guns and Down, and keeps those that changed. Groups whose lives are as they were are left
 * alone. One at a time in the whole shop: who comes second goes away.
 */
export async function keepFits(
  deps: KeepDeps,
  fitter: Fitter,
  onProgress: Progress = () => undefined,
): Promise<{ made: number; of: number } | null> {
  return withLease(deps.db, 'fits', () => keepAll(deps, fitter, onProgress))
}

async function keepAll(deps: KeepDeps, fitter: Fitter, onProgress: Progress): Promise<{ made: number; of: number }> {
  const { db } = deps
  const nowMs = deps.now()
  const shop = await loadShop(db, deps.shops, nowMs)
  const [{ shares }, stops, believe, kept] = await Promise.all([
    readSupplyOf(db, shop, nowMs),
    stopsForCosts(db, shop, nowMs),
    wordsOf(db),
    db.select({ kindKey: lifeFit.kindKey, classKey: lifeFit.classKey, basis: lifeFit.basis }).from(lifeFit),
  ])
  const before = new Map(kept.map((k) => [`${k.kindKey} ${k.classKey}`, k.basis]))
  const classes = [...new Set(shop.stations.map((s) => s.classKey))]
  let [made, done] = [0, 0]
  // What goes fastest is asked for most: its fits are there first.
  const kinds = [...shop.kinds].sort((a, b) => Number(b.partClass === FIRST) - Number(a.partClass === FIRST))
  for (const kind of kinds) {
    const all = await livesOf(db, shop, { kind, nowMs })
    for (const classKey of classes) {
      await onProgress(++done, shop.kinds.length * classes.length)
      const lives = all.lives.filter((l) => l.classKey === classKey)
      const gaps = gapsOf(lives, shop, { shares, kindKey: kind.key })
      const believed = believe(kind, classKey)
      const basis = keyOf(gaps, believed.prior)
      if (before.get(`${kind.key} ${classKey}`) === basis) continue
      const row = keptRow(fitter, { kind, classKey, shop, lives, gaps, stops, believed })
      const scope = and(eq(lifeFit.kindKey, kind.key), eq(lifeFit.classKey, classKey))
      if (!row) await db.delete(lifeFit).where(scope)
      else {
        const values = { basis, fit: row, madeMs: nowMs }
        await db
          .insert(lifeFit)
          .values({ kindKey: kind.key, classKey, ...values })
          .onDuplicateKeyUpdate({ set: values })
        made++
      }
    }
  }
  const gone = kept.filter((k) => !classes.includes(k.classKey)).map((k) => k.classKey)
  if (gone.length > 0) await db.delete(lifeFit).where(inArray(lifeFit.classKey, gone))
  return { made, of: done }
}

interface KeptAt {
  kind: KindRow
  classKey: string
  shop: ShopModel
  lives: Awaited<ReturnType<typeof livesOf>>['lives']
  gaps: ReturnType<typeof gapsOf>
  stops: readonly CostedStop[]
  believed: Believed
}
function keptRow(fitter: Fitter, at: KeptAt): KeptFit | null {
  const share = weighedShare(at.gaps)
  const answer = fitter.fit(share < LEAST_SHARE ? [] : at.gaps, at.believed.prior)
  if (!answer.ok) return null
  const places = at.shop.stations.filter((s) => s.classKey === at.classKey)
  const { costs } = costsOf(at.lives, at.shop, { kind: at.kind, places, stops: at.stops })
  return { ...keptFit(answer, at.believed), ...extraOf(costs) }
}
export function keptFit(fit: LifeFit, { source }: Pick<Believed, 'source'>): Omit<KeptFit, 'extraMin' | 'extraMinor'> {
  const share = Math.max(LEAST_SHARE, Math.min(1, fit.share))
  return {
    ...{ life: fit.life, median: fit.median.value, low: fit.median.low, high: fit.median.high },
    ...{ n: fit.n, worn: fit.worn, priorShare: fit.priorShare, share },
    source: fit.priorShare > MOSTLY ? source : 'yours',
    ...hazardSince(fit.life, share),
  }
}
