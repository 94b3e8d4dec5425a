import { type LifeFit, type SharedGap } from '@core/life/fitted.ts'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type LifeAnswer, type lifeQuery } from '@contract/life.ts'
import { type Reader } from '@server/db/db.ts'
import { DomainError } from '@server/problem/problem.ts'
import { linerRule } from '@server/gunnow/rulehere.ts'
import { readSupplyOf } from '@server/parts/sharestore.ts'
import {
  loadShop,
  type KindRow,
  type StationRow,
  type ShopKinds,
  type ShopPlaces,
  type ShopRules,
} from '@server/shopmodel/model.ts'
import { type z } from 'zod'
import { costsOf, stopsForCosts } from './costs.ts'
import { type Fitter } from './fitter.ts'
import { type KeepDeps } from './keep.ts'
import { gapsOf, wordsOf } from './known.ts'
import { linerLives, signsHere } from './linersigns.ts'
import { livesOf, placesNow, type Life, type Places } from './lives.ts'
import { schoolsOf, type MoneyAt } from './money.ts'

/** `terms`: of the liner's rule, where others than those that hold are asked about. */
export type LifeQuery = z.output<typeof lifeQuery> & { terms?: LinerTerms | undefined }
export type Gathered = Awaited<ReturnType<typeof gather>>
/** Asked about where nobody says which. */
export const FIRST_KIND = 'tip'

/** All that an answer on one kind at some places is made of. */
export async function gather(deps: KeepDeps, fitter: Fitter, q: LifeQuery) {
  const { db } = deps
  const nowMs = deps.now()
  const shop = await loadShop(db, deps.shops, nowMs)
  const kind = mustHaveKind(shop, q.kind ?? FIRST_KIND)
  const where = whereOf(shop, q.where)
  const [found, { shares }, stops, believe, hung] = await Promise.all([
    livesOf(db, shop, { kind, nowMs, classKey: where.classKey, unsure: q.unsure }),
    readSupplyOf(db, shop, nowMs),
    stopsForCosts(db, shop, nowMs),
    wordsOf(db),
    placesNow(db, shop),
  ])
  const ids = new Set(where.places.map((p) => p.id))
  const lives = found.lives.filter((l) => (l.stationId ? ids.has(l.stationId) : where.key === 'all'))
  const gaps = gapsOf(lives, shop, { shares, kindKey: kind.key })
  const believed = believe(kind, where.classKey)
  const answer = fitter.fit(asked(gaps, q.notSaid), believed.prior)
  const fixed = shop.ruleFor(kind.key, where.classKey ?? '*')?.changeLimit ?? null
  const moneyAt: MoneyAt = { shop, kind, places: where.places, heads: hung.headOf, fixed }
  const here = costsOf(lives, shop, { kind, places: where.places, stops })
  const fit = answer.ok ? answer : null
  const liner =
    kind.key === LINER
      ? await linerOf(db, lives, { shop, where, places: hung, nowMs, fixed, fit, terms: q.terms })
      : null
  return {
    ...{ nowMs, shop, kind, where, found, lives, gaps, believed, answer, shares, moneyAt, fit, here },
    stationOf: hung.stationOf,
    liner,
    schools: fit ? schoolsOf(fit, here, { ...moneyAt, signs: liner?.here ?? null }) : null,
  }
}

const LINER = 'liner'
/** The shop's rule for liners at these places, or the terms that are asked about, and what its signs did of those that ended here. */
async function linerOf(
  db: Reader,
  lives: readonly Life[],
  at: {
    shop: ShopRules
    where: Where
    places: Places
    nowMs: number
    fixed: number | null
    fit: LifeFit | null
    terms: LinerTerms | undefined
  },
) {
  const rule = linerRule({ class: at.where.classKey }, at.shop.choices)
  const terms = at.terms ?? rule.terms
  const told = await linerLives(db, lives, { places: at.places, nowMs: at.nowMs, limit: at.fixed })
  const used = lives.reduce((sum, l) => sum + l.used, 0)
  const here = at.fit && used > 0 ? signsHere(told, terms, { used, draws: at.fit.beliefs.length }) : null
  return { school: rule.school, terms, here }
}

/** What nobody said: worn or chance in the share of those who said, or all worn, or all cut off. */
export const asked = (gaps: readonly SharedGap[], how: LifeQuery['notSaid']): SharedGap[] =>
  how === 'worn' || how === 'cut' ? gaps.map((g) => (g.end === 'either' ? { ...g, end: how } : g)) : [...gaps]

export function mustHaveKind(shop: ShopKinds, key: string): KindRow {
  const kind = shop.kindByKey.get(key)
  if (!kind) throw new DomainError('not-found', `There is no part called "${key}".`, ['Choose one of those shown.'])
  return kind
}

export interface Where {
  key: string
  name: string
  /** The class whose house rule holds there; null where several do. */
  classKey: string | null
  places: StationRow[]
}
export const wheresOf = (shop: ShopPlaces): LifeAnswer['wheres'] => [
  { key: 'all', name: 'the whole shop' },
  ...[...new Set(shop.stations.map((s) => s.classKey))].map((k) => ({
    key: `class:${k}`,
    name: shop.classes.get(k)?.name ?? k,
  })),
  ...shop.areas.map((a) => ({ key: `area:${a.id}`, name: a.name })),
]
function whereOf(shop: ShopPlaces, where: string | undefined): Where {
  const key = where ?? 'all'
  const name = wheresOf(shop).find((w) => w.key === key)?.name
  if (name === undefined) throw new DomainError('not-found', 'There is no such place.', ['Choose one of those shown.'])
  const [type, id = ''] = key.split(':')
  const isIn = (s: StationRow) => (type === 'class' ? s.classKey === id : type === 'area' ? s.areaId === id : true)
  const places = shop.stations.filter(isIn)
  const classes = [...new Set(places.map((s) => s.classKey))]
  return { key, name, places, classKey: type === 'class' ? id : classes.length === 1 ? (classes[0] ?? null) : null }
}
