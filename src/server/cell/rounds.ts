import { inArray } from 'drizzle-orm'
import { type CarrierId, type FamilyId } from '@core/ids/id.ts'
import { learnHours, neckHours, ON_ROBOT_H, ON_ROBOT_SHAPE, type NeckStory } from '@core/cell/turnaround.ts'
import { fitGaps, type Gap, type GapFit, type Prior } from '@core/life/thinned.ts'
import { TRADE_SPREAD } from '@core/life/guesses.ts'
import { meanLife } from '@core/life/residual.ts'
import { DAY_MS } from '@core/units/time.ts'
import { mean } from '@core/stats/mean.ts'
import { Z_80 } from '@core/stats/normal.ts'
import { type NeckRoundLine } from '@contract/cell.ts'
import { mount } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'
import { type Hung } from '@server/gunnow/setup.ts'
import { type Loose } from '@server/gunnow/spares.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { prices } from '@server/shopmodel/prices.ts'
import { groupBy, type ShopModel } from '@server/shopmodel/model.ts'

interface RoundAt {
  hung: readonly Hung[]
  necks: readonly Loose[]
  nowMs: number
  isLead: boolean
}

/** What each family's round of necks is reckoned from: how long they hang, how long they are away, how many there are, what standing costs. */
export async function roundsOf(db: Reader, shop: ShopModel, at: RoundAt): Promise<NeckRoundLine[]> {
  const going = at.hung.filter((h) => h.now.neckId)
  if (going.length === 0) return []
  const stories = await neckStories(db, at.nowMs, [
    ...going.flatMap((h) => h.now.neckId ?? []),
    ...at.necks.map((n) => n.id),
  ])
  const familyOf = (h: Hung): FamilyId | null =>
    h.stateOf(h.now.neckId)?.built?.familyId ?? shop.built(h.station.id).familyId
  return [...groupBy(going, (h) => familyOf(h) ?? '')].map(([key, robots]) => {
    const familyId = robots[0] ? familyOf(robots[0]) : null
    const spares = at.necks.filter((n) => (n.built?.familyId ?? '') === key)
    const ids = new Set<CarrierId>([...robots.flatMap((h) => h.now.neckId ?? []), ...spares.map((n) => n.id)])
    const own = [...stories].flatMap(([id, story]) => (ids.has(id) ? [story] : []))
    return {
      ...roundOf(own, at.nowMs),
      ...whatItCosts(shop, robots, at.isLead),
      ...countOf(shop, familyId, { robots, spares }),
    }
  })
}

const countOf = (
  shop: ShopModel,
  familyId: FamilyId | null,
  { robots, spares }: { robots: readonly Hung[]; spares: readonly Loose[] },
) => ({
  familyId,
  familyName: familyId ? (shop.families.get(familyId) ?? null) : null,
  robots: robots.length,
  spares: spares.length,
  ready: spares.filter((n) => n.now?.status === 'ready').length,
})

/** A robot that waits for a neck halts whatever halts with it; a neck costs what its part costs, and what goes on it. */
function whatItCosts(shop: ShopModel, robots: readonly Hung[], isLead: boolean) {
  if (!isLead) return { stopMinorPerHour: null, priceMinor: null }
  const rates = robots.map((h) => shop.stopRateOf(h.station.id))
  const rate = mean(rates)
  return { stopMinorPerHour: rate > 0 ? Math.round(rate) : null, priceMinor: prices(shop)(null, 'neck') }
}

const SHAPE_SPREAD = 1.5
const PRIOR: Prior = {
  shape: ON_ROBOT_SHAPE,
  scale: ON_ROBOT_H / Math.LN2 ** (1 / ON_ROBOT_SHAPE),
  sdLogShape: Math.log(SHAPE_SPREAD) / Z_80,
  sdLogScale: Math.log(TRADE_SPREAD) / Z_80,
}

/** Lives on a robot whatever ended them, and turnarounds, each with the guess it begins with. */
function roundOf(stories: readonly NeckStory[], nowMs: number) {
  const { on, away } = neckHours(stories, nowMs)
  const gaps = on.map(({ hours, isOver }): Gap => ({
    ...{ low: hours, high: hours, end: isOver ? 'either' : 'cut', isAgeUnknown: false, parts: 1, share: 1 },
  }))
  const fit = fitGaps(gaps, PRIOR)
  const over = on.filter((s) => s.isOver).length
  const life = fit.ok ? fit.life : { ...PRIOR, rate: 0 }
  const mend = learnHours(away)
  return {
    lifeH: {
      mean: meanLife(life),
      sdLog: sdOfScale(fit),
      n: over,
      by: over > 0 ? ('yours' as const) : ('trade' as const),
    },
    mendH: { mean: mend.mean, sdLog: mend.sdLog, n: mend.n, by: mend.n > 0 ? ('yours' as const) : ('trade' as const) },
    lifeShape: life.shape,
    mendSigma: mend.sigma,
  }
}
const sdOfScale = (fit: GapFit | { ok: false }): number =>
  fit.ok ? Math.sqrt(Math.max(0, fit.covariance[1]?.[1] ?? 0)) : PRIOR.sdLogScale

/** Since when their records count. */
const YEARS_MS = 3 * 365 * DAY_MS
async function neckStories(db: Reader, nowMs: number, ids: readonly CarrierId[]): Promise<Map<CarrierId, NeckStory>> {
  if (ids.length === 0) return new Map()
  const [mounts, said] = await Promise.all([
    readMany(db, mount, inArray(mount.childId, [...ids])),
    standingOfKind(db, 'gunStatus', nowMs - YEARS_MS),
  ])
  const ready = groupBy(
    said.filter((s) => s.fact.kind === 'gunStatus' && s.fact.status === 'ready'),
    (s) => (s.fact.kind === 'gunStatus' ? s.fact.carrierId : ''),
  )
  const on = groupBy(mounts, (m) => m.childId)
  return new Map(
    ids.map((id) => [
      id,
      {
        on: [...(on.get(id) ?? [])].sort((a, b) => a.fromMs - b.fromMs),
        readyMs: (ready.get(id) ?? []).map((s) => s.happenedMs).sort((a, b) => a - b),
      },
    ]),
  )
}
