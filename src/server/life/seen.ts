import { limitKm } from '@core/spools/bylength.ts'
import { REFERENCE_WIRE } from '@core/spools/wire.ts'
import { wearPattern } from '@core/liner/wherewear.ts'
import { type AreaId, NO_ID } from '@core/ids/id.ts'
import { endIn } from '@core/life/facts.ts'
import { ninety, weighedShare, type LifeFit, type SharedGap } from '@core/life/fitted.ts'
import { kaplanMeier } from '@core/life/kaplanmeier.ts'
import { survivalOf } from '@core/life/renewalgrid.ts'
import { LEAST_SHARE } from '@core/life/thinned.ts'
import { type OutReason } from '@core/path/columns.ts'
import { massFromLengthKg } from '@core/spools/wire.ts'
import { type LifeAnswer, type LifeBy } from '@contract/life.ts'
import { groupBy, type ShopPlaces } from '@server/shopmodel/model.ts'
import { type Gathered } from './gather.ts'
import { type LevelOf } from './groups.ts'
import { shareOf } from '@server/parts/sharestore.ts'
import { LOOK_BACK_MS, type Life } from './lives.ts'

const MOST_STROKES = 400
const CURVE_POINTS = 60
const MOST_STEPS = 120

/** What stood in the log, and what had to be left out. */
export function seenOf({ found, lives, gaps, shares, kind, where, nowMs }: Gathered): LifeAnswer['seen'] {
  const areaId = where.key.startsWith('area:') ? (where.key.slice(5) as AreaId) : null
  const share = shareOf(shares, { areaId, kindKey: kind.key })
  const count = (is: (l: Life) => boolean) => lives.filter(is).length
  const oldest = lives.reduce((least, l) => Math.min(least, l.fromMs), nowMs)
  const mean = (of: (g: SharedGap) => number) =>
    gaps.length > 0 ? weighedShare(gaps.map((g) => ({ ...g, share: of(g) }))) : null
  return {
    ended: count((l) => l.toMs !== null),
    in: count((l) => l.toMs === null),
    due: count((l) => l.reason === 'due' || l.reason === 'toTry'),
    ageUnknown: count((l) => l.isAgeUnknown),
    coarse: gaps.filter((g) => g.high - g.low > 1e-9).length,
    several: count((l) => l.parts > 1),
    ...{
      benched: found.benched,
      unsure: found.unsure,
      noUse: found.noUse,
      noClock: found.noClock,
      otherUnit: found.otherUnit,
    },
    sinceMs: Math.max(0, oldest, nowMs - LOOK_BACK_MS),
    share: {
      value: mean((g) => g.share) ?? share.value,
      low: mean((g) => g.shareLow) ?? share.low,
      high: mean((g) => g.shareHigh) ?? share.high,
      isGuess: share.isGuess,
    },
  }
}

/** Use for one part by what was taken, where the log says too little for more. */
export function countedOf({ gaps }: Gathered): LifeAnswer['counted'] {
  const share = weighedShare(gaps)
  if (gaps.length === 0 || share >= LEAST_SHARE) return null
  const used = gaps.reduce((sum, g) => sum + (g.low + g.high) / 2, 0)
  const taken = gaps.filter((g) => g.end !== 'cut').length / share
  return taken > 0 ? { mean: used / taken, taken } : null
}

const METRES = 1000
/** A median in kg as kilometres of the wire that most of these places run; of what wears by length, of the one wire it is counted in. */
export function asWireOf({ fit, kind, where, shop }: Gathered): LifeAnswer['asWire'] {
  if (!fit || kind.lifeUnit !== 'kg') return null
  const km = limitKm(fit.median.value, kind, REFERENCE_WIRE)
  if (km !== null) return { km, name: REFERENCE_WIRE.name }
  const by = groupBy(
    where.places.flatMap((p) => shop.wires.get(shop.built(p.id).wireId ?? '') ?? []),
    (w) => w.id,
  )
  const [most] = [...by.values()].sort((a, b) => b.length - a.length)
  const wire = most?.[0]
  if (!wire) return null
  return { km: fit.median.value / massFromLengthKg(wire, METRES), name: wire.name }
}

const MM_PER_M = 1000
/** Where liners were worn, of those the bench was sure of: it may be from pulling one out. Shares of the way by cable and neck of their gun. */
export function wornWhereOf({ kind, lives, shop }: Gathered): LifeAnswer['wornWhere'] {
  if (kind.key !== 'liner') return null
  const shares = lives.flatMap(({ bench, stationId }) => {
    if (!bench?.isCertain || bench.atMm == null || !stationId) return []
    const { cableM, familyId } = shop.built(stationId)
    const neckMm = familyId ? (shop.familyById.get(familyId)?.fit?.neckMm ?? 0) : 0
    return cableM ? [Math.min(1, bench.atMm / (cableM * MM_PER_M + neckMm))] : []
  })
  return shares.length > 0 ? wearPattern(shares) : null
}

export function reasonsOf(lives: readonly Life[]): LifeAnswer['reasons'] {
  const kg = lives.reduce((sum, l) => sum + (l.kg ?? 0), 0)
  const counts = new Map<OutReason, number>()
  for (const { reason } of lives) if (reason) counts.set(reason, (counts.get(reason) ?? 0) + 1)
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([reason, n]) => ({ reason, n, per100kg: kg > 0 ? (100 * n) / kg : null }))
}

/** Each life a stroke, the longest first; of very many every so many. */
export function strokesOf(
  lives: readonly Life[],
  at: { shop: ShopPlaces; levelOf: LevelOf; by: LifeBy | null },
): Pick<LifeAnswer, 'strokes' | 'strokesOf'> {
  const sorted = [...lives].sort((a, b) => b.used / b.parts - a.used / a.parts)
  const every = Math.max(1, sorted.length / MOST_STROKES)
  const some = Array.from({ length: Math.min(sorted.length, MOST_STROKES) }, (_, i) => sorted[Math.floor(i * every)])
  return {
    strokesOf: sorted.length,
    strokes: some.flatMap((l) =>
      l
        ? [
            {
              used: l.used / l.parts,
              end: l.toMs === null ? 'in' : END_WORD[endIn(l)],
              reason: l.reason,
              name: at.shop.stationById.get(l.stationId ?? NO_ID)?.name ?? '',
              ...{ stationId: l.stationId, fromMs: l.fromMs, toMs: l.toMs, parts: l.parts },
              group: at.by ? (at.levelOf(l, at.by)?.name ?? null) : null,
            },
          ]
        : [],
    ),
  }
}
const END_WORD = { worn: 'worn', chance: 'chance', either: 'notSaid', cut: 'cut' } as const

/** The fitted survival with its band, and what is left by the log as it stands: Kaplan–Meier on stretches between two lines. */
export function curvesOf(fit: LifeFit | null, gaps: readonly SharedGap[]): Pick<LifeAnswer, 'curve' | 'steps'> {
  if (!fit) return { curve: [], steps: [] }
  const until = fit.median.value * 3
  const curve = Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
    const at = (until * i) / CURVE_POINTS
    return { at, left: survivalOf(fit.life, at), ...ninety(fit.beliefs.map((b) => survivalOf(b, at))) }
  })
  const known = gaps.filter((g) => !g.isAgeUnknown && g.parts === 1)
  const raw = kaplanMeier({
    time: known.map((g) => (g.low + g.high) / 2),
    event: known.map((g) => (g.end === 'cut' ? 0 : 1)),
  }).steps
  const every = Math.max(1, Math.ceil(raw.length / MOST_STEPS))
  const steps = raw.filter((s, i) => i % every === 0 && s.time <= until)
  return { curve, steps: steps.map((s) => ({ at: s.time, left: s.survival })) }
}
