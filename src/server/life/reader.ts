import { NO_ID } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { sql } from 'drizzle-orm'
import { type z } from 'zod'
import { type RuleBasis } from '@core/life/kept.ts'
import { goneBy, type LifeFit } from '@core/life/fitted.ts'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { type LifeAnswer, type LifeTold, type LinerSignsAnswer, type signsAnswer } from '@contract/life.ts'
import { type Reader } from '@server/db/db.ts'
import { readSupplyOf } from '@server/parts/sharestore.ts'
import { loadShop, type ShopKinds } from '@server/shopmodel/model.ts'
import { alongsideOf } from './alongside.ts'
import { comparedOf, groupsOf, longerOf, type Group, type Told } from './compared.ts'
import { Fitter, keyOf } from './fitter.ts'
import { asked, FIRST_KIND, gather, mustHaveKind, wheresOf, type Gathered, type LifeQuery } from './gather.ts'
import { levelsOf, type LevelOf } from './groups.ts'
import { hungryOf, readingsUpstream } from './hungry.ts'
import { readKept } from '@server/lifekept/kept.ts'
import { type KeepDeps } from './keep.ts'
import { gapsOf, MOSTLY, type Believed } from './known.ts'
import { livesOf } from './lives.ts'
import { groupCost, moneyOf } from './money.ts'
import { ruleNow } from './rulenow.ts'
import { asWireOf, wornWhereOf, countedOf, curvesOf, reasonsOf, seenOf, strokesOf } from './seen.ts'
import { perTipsOf } from './pertips.ts'
import { tryoutsOf } from './tryouts.ts'

const KEPT_MS = 60_000
const STALE_MS = 20 * 60_000
const ALWAYS_TOLD = ['tip', 'nozzle', 'liner']

/**
 * How long parts last, worked out whole in one place that a thread of its own can hold: lives, fits, money, comparisons. Answers are kept for a minute, fits
 * by what they were made of.
 */
export class LifeReader {
  readonly fits = new Fitter()
  private readonly kept = new Map<string, { untilMs: number; answer: Promise<LifeAnswer> }>()
  private readonly shown = new Map<string, { untilMs: number; basis: Basis | null }>()
  constructor(private readonly deps: KeepDeps) {}

  /** Somebody wrote something these rest on. */
  forget(): void {
    this.kept.clear()
    this.shown.clear()
  }
  /** As it was a minute ago at most for whoever comes first after that; made anew meanwhile, so that nobody waits. */
  read(q: LifeQuery): Promise<LifeAnswer> {
    const key = JSON.stringify([
      q.kind ?? FIRST_KIND,
      q.where ?? 'all',
      q.by ?? null,
      q.notSaid ?? null,
      q.unsure ?? null,
    ])
    const nowMs = this.deps.now()
    const known = this.kept.get(key)
    if (known && nowMs < known.untilMs) return known.answer
    if (known && nowMs < known.untilMs + STALE_MS) {
      known.untilMs = nowMs + KEPT_MS
      void this.again(key, q).catch(() => this.kept.delete(key))
      return known.answer
    }
    return this.again(key, q)
  }
  private again(key: string, q: LifeQuery): Promise<LifeAnswer> {
    const answer = this.make(q)
    const kept = { untilMs: this.deps.now() + KEPT_MS, answer }
    if (!this.kept.has(key)) {
      this.kept.set(key, kept)
      answer.catch(() => this.kept.delete(key))
    } else void answer.then(() => this.kept.set(key, kept)).catch(() => undefined)
    return answer
  }
  /** The lives of a kind, told with their gaps, for a try-out that ends. */
  async told(kindKey: KindKey): Promise<Told[]> {
    const { db, shops } = this.deps
    const shop = await loadShop(db, shops, this.deps.now())
    const kind = mustHaveKind(shop, kindKey)
    const { shares } = await readSupplyOf(db, shop, this.deps.now())
    const { lives } = await livesOf(db, shop, { kind, nowMs: this.deps.now() })
    return toldOf({ lives, gaps: gapsOf(lives, shop, { shares, kindKey }) })
  }
  /** What a rule for a kind at a class rests on: told with it when it is chosen. As it was shown, where it was shown lately. */
  async basisOf(kindKey: KindKey, classKey: string): Promise<Basis | null> {
    const where = classKey === '*' ? 'all' : `class:${classKey}`
    const shown = this.shown.get(`${kindKey} ${where}`)
    if (shown && this.deps.now() < shown.untilMs) return shown.basis
    return basisFrom(await gather(this.deps, this.fits, { kind: kindKey, where }))
  }

  /** The liner's rule under other terms. */
  async signs(q: { where?: string | undefined; terms: LinerTerms }): Promise<z.infer<typeof signsAnswer>> {
    const at = await gather(this.deps, this.fits, { ...q, kind: 'liner' })
    if (!at.liner) throw new RangeError('signs: expected the kind liner')
    const money = at.fit && at.schools ? moneyOf(at.fit, at.schools, { here: at.here, at: at.moneyAt }) : null
    return { signs: signsTold(at.liner), line: money?.lines.find((l) => l.school === 'signs') ?? null }
  }

  private async make(q: LifeQuery): Promise<LifeAnswer> {
    const at = await gather(this.deps, this.fits, q)
    const { shop, kind, where, lives, gaps, fit, nowMs, believed } = at
    const { db } = this.deps
    this.shown.set(`${kind.key} ${where.key}`, { untilMs: nowMs + STALE_MS, basis: basisFrom(at) })
    const told = toldOf(at)
    const [levelOf, kinds, rule, tryouts, fits, hungry, perTips] = await Promise.all([
      levelsOf(db, shop, { stationOf: at.stationOf, nowMs }),
      kindCounts(db, shop),
      ruleNow(db, shop, { kind, classKey: where.classKey, basis: basisOf(at) }),
      tryoutsOf(db, shop, { kindKey: kind.key, all: told, nowMs }),
      readKept(db),
      this.hungry(at, told),
      perTipsOf(db, shop, { kindKey: kind.key, places: where.places, nowMs }),
    ])
    const by = q.by ?? null
    return {
      ...whatOf(at),
      ...{ by, kinds, seen: seenOf(at), tryouts },
      alongside: alongsideOf(fits, shop, { kindKey: kind.key, classKey: where.classKey }),
      told: fit ? toldAnswer(fit, believed) : null,
      refused: at.answer.ok ? null : at.answer.reason,
      counted: countedOf(at),
      ...this.bothWays(at),
      reasons: reasonsOf(lives),
      ...strokesOf(lives, { shop, levelOf, by }),
      ...curvesOf(fit, gaps),
      money: fit && at.schools ? moneyOf(fit, at.schools, { here: at.here, at: at.moneyAt }) : null,
      ...rule,
      liner: at.liner && signsTold(at.liner),
      word: believed.word,
      ...{ ...hungry, perTips, asWire: asWireOf(at), wornWhere: wornWhereOf(at) },
      ...this.sideBySide(told, { by, levelOf, believed, hungry: hungry.hungry, gathered: at }),
      ...longerOf(told, levelOf),
      isCleaned: kind.canClean,
    }
  }
  /** Groups and how they compare, without the places that would stand in for a part's own life. */
  private sideBySide(
    told: readonly Told[],
    at: {
      by: LifeAnswer['by']
      levelOf: LevelOf
      believed: Believed
      hungry: LifeAnswer['hungry']
      gathered: Gathered
    },
  ): Pick<LifeAnswer, 'groups' | 'compared' | 'leftOut'> {
    const { by, levelOf } = at
    if (!by) return { groups: [], compared: [], leftOut: [] }
    const out = at.hungry.filter((h) => h.verdict === 'hungry')
    const ids = new Set(out.map((h) => h.stationId))
    const usual = told.filter((t) => !ids.has(t.life.stationId ?? NO_ID))
    const groups = groupsOf(usual, by, levelOf)
    return {
      groups: groups.map((g) => this.groupLine(g, at.believed, at.gathered)),
      compared: comparedOf(groups, { by, levelOf }),
      leftOut: out.map((h) => h.name),
    }
  }
  private async hungry(at: Gathered, told: readonly Told[]) {
    const { fit, shop, believed } = at
    if (!fit) return { hungry: [], placesSeen: 0 }
    const readings = await readingsUpstream(this.deps.db, at.stationOf)
    return hungryOf(told, { fit, fitter: this.fits, prior: believed.prior, shop, readings })
  }
  private groupLine(g: Group, believed: Believed, at: Gathered): LifeAnswer['groups'][number] {
    const gaps = g.told.map((t) => t.gap)
    const answer = this.fits.fit(gaps, believed.prior)
    return {
      ...{ key: g.key, name: g.name, n: g.told.length },
      told: answer.ok ? toldAnswer(answer, believed) : null,
      refused: answer.ok ? null : answer.reason,
      cost: answer.ok ? groupCost(answer, g.told, { here: at.here, at: at.moneyAt }) : null,
    }
  }
  /** Half gone by, if all that nobody said were worn, and if none were. */
  private bothWays({ gaps, fit, believed }: Gathered): Pick<LifeAnswer, 'asWorn' | 'asCut'> {
    if (!fit || !gaps.some((g) => g.end === 'either')) return { asWorn: null, asCut: null }
    const half = (how: 'worn' | 'cut') => {
      const life = this.fits.quick(asked(gaps, how), believed.prior, fit.life)
      return life ? goneBy(life, 0.5) : null
    }
    return { asWorn: half('worn'), asCut: half('cut') }
  }
}

/** Which part and places it speaks of, and in what. */
const whatOf = ({ shop, kind, where, nowMs }: Gathered) => ({
  ...{ nowMs, zone: shop.site.zone, currency: shop.site.currency, isMoney: true, madeMs: nowMs, progress: '' },
  ...{ wheres: wheresOf(shop), kind: kind.key, kindName: kind.name, unit: kind.lifeUnit },
  ...{ where: where.key, whereName: where.name, classKey: where.classKey },
})
type Basis = Omit<RuleBasis, 'school'>
function basisFrom(at: Gathered): Basis | null {
  if (!at.fit || !at.schools) return null
  const { lines } = at.schools
  const best = lines.find((l) => l.school === 'leastCost') ?? lines[0]
  return {
    n: at.fit.n,
    median: at.fit.median.value,
    savingLow: best?.saving.low ?? 0,
    savingHigh: best?.saving.high ?? 0,
    basis: basisOf(at),
  }
}
const basisOf = (at: Pick<Gathered, 'gaps' | 'believed'>) => keyOf(at.gaps, at.believed.prior).slice(0, 60)
const toldOf = ({ lives, gaps }: Pick<Gathered, 'lives' | 'gaps'>): Told[] =>
  lives.flatMap((life, i) => {
    const gap = gaps[i]
    return gap ? [{ life, gap }] : []
  })

function toldAnswer(fit: LifeFit, { source }: Believed): LifeTold {
  const { n, worn, chance, either, median, b10, shape, wornMedian, priorShare, share, warnings } = fit
  return {
    ...{ n, worn, chance, notSaid: either, median, b10, shape, wornMedian, priorShare, share, warnings },
    chancePer100: 100 * fit.life.rate,
    source: priorShare > MOSTLY ? source : 'yours',
  }
}

async function kindCounts(db: Reader, shop: ShopKinds): Promise<LifeAnswer['kinds']> {
  const [rows] = (await db.execute(sql`select kind_key k, count(*) n from life group by kind_key`)) as unknown as [
    { k: string; n: number }[],
  ]
  const counts = new Map(rows.map((r) => [r.k, r.n]))
  return shop.kinds
    .map((k) => ({ key: k.key, name: k.name, n: counts.get(k.key) ?? 0 }))
    .filter((k) => k.n > 0 || ALWAYS_TOLD.includes(k.key))
}
function signsTold({ school, terms, here }: NonNullable<Gathered['liner']>): LinerSignsAnswer {
  return { school, terms, record: here?.record ?? null, isGuess: here?.isGuess ?? true }
}
