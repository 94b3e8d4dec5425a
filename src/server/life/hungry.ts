import { type StationId } from '@core/ids/id.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { placeEffects, verdictOn, type PlaceEnds } from '@core/life/frailty.ts'
import { type LifeFit } from '@core/life/fitted.ts'
import { seenGaps, type SeenGaps } from '@core/life/renewalgrid.ts'
import { WHOLE_SHARE, type Prior } from '@core/life/thinned.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { carrierNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { groupBy, type ShopModel } from '@server/shopmodel/model.ts'
import { type Told } from './compared.ts'
import { type Fitter } from './fitter.ts'

const ASKS = ['creeps', 'over', 'jumped', 'act']

/** What readings of the guns that hang at each place ask for, upstream. */
export async function readingsUpstream(
  db: Reader,
  stationOf: ReadonlyMap<string, string>,
): Promise<Map<string, ReadingKey[]>> {
  const rows = await db.select({ carrierId: carrierNow.carrierId, alarms: carrierNow.alarms }).from(carrierNow)
  const found = new Map<string, ReadingKey[]>()
  for (const { carrierId, alarms } of rows) {
    const stationId = stationOf.get(carrierId)
    const some = alarms.filter((a) => READING[a.what].isUpstream && ASKS.includes(a.is)).map((a) => a.what)
    if (stationId && some.length > 0) found.set(stationId, [...new Set([...(found.get(stationId) ?? []), ...some])])
  }
  return found
}

interface HungryAt {
  fit: LifeFit
  fitter: Fitter
  prior: Prior | null
  shop: ShopModel
  readings: ReadonlyMap<string, ReadingKey[]>
}
/** A part with so many worn ones is held against its own kind; others against all. */
const OWN_ENDS = 20
const LEAST_PLACES = 3

/**
 * Places that take more than their share: ends that were logged beside what fits expect of their use, each gap counted as −ln of the chance that it is
 * still open under its own logging share. Each is held against those with the same part on, and against the fit made without those that stand out; it is
 * said only through the gate.
 */
export function hungryOf(all: readonly Told[], at: HungryAt): Pick<LifeAnswer, 'hungry' | 'placesSeen'> {
  const seen = expectedAt(all, at, new Set())
  if (seen.length < LEAST_PLACES) return { hungry: [], placesSeen: seen.length }
  const standOut = new Set(placeEffects(seen).places.flatMap((p) => (verdictOn(p, true) === 'usual' ? [] : [p.key])))
  // Most of them cannot stand out from most of them.
  const isFew = standOut.size > 0 && standOut.size <= seen.length / 3
  const { places } = placeEffects(isFew ? expectedAt(all, at, standOut) : seen)
  const hungry = places.flatMap((p) => {
    const readings = at.readings.get(p.key) ?? []
    const verdict = verdictOn(p, readings.length > 0)
    const name = at.shop.stationById.get(p.key as StationId)?.name
    if (verdict === 'usual' || name === undefined) return []
    const { ends, expected, z, low, high } = p
    return [{ stationId: p.key as StationId, name, ends, expected, z, low, high, verdict, readings }]
  })
  return { hungry: hungry.sort((a, b) => b.z - a.z), placesSeen: seen.length }
}

/** Ends and expected ends of each place, by fits that leave some places out. */
function expectedAt(all: readonly Told[], at: HungryAt, without: ReadonlySet<string>): PlaceEnds[] {
  const usable = all.filter(({ life, gap }) => life.stationId !== null && !gap.isAgeUnknown && gap.parts === 1)
  const seen = new Map<string, PlaceEnds>()
  for (const group of groupBy(usable, ({ life }) => life.partId ?? '').values()) {
    const baseline = group.filter(({ life }) => !without.has(life.stationId ?? ''))
    const life = fitFor(baseline, at)
    const curveOf = curves(life, Math.max(...group.map(({ gap }) => gap.high)))
    for (const {
      life: { stationId },
      gap,
    } of group) {
      const key = stationId ?? ''
      const place = seen.get(key) ?? { key, ends: 0, expected: 0, share: 1 }
      place.expected += -Math.log(Math.max(1e-12, curveOf(gap.share).survival((gap.low + gap.high) / 2)))
      place.ends += gap.end === 'cut' ? 0 : 1
      place.share = Math.min(place.share, Math.max(0.05, gap.shareLow))
      seen.set(key, place)
    }
  }
  return [...seen.values()]
}
function fitFor(told: readonly Told[], { fit, fitter, prior }: HungryAt): LifeFit['life'] {
  const worn = told.filter(({ gap }) => gap.end === 'worn').length
  if (worn < OWN_ENDS) return fit.life
  const own = fitter.quick(
    told.map((t) => t.gap),
    prior,
    fit.life,
  )
  return own ?? fit.life
}
function curves(life: LifeFit['life'], longest: number): (share: number) => SeenGaps {
  const until = Math.min(12 * life.scale, longest * 1.02)
  const made = new Map<number, SeenGaps>()
  return (share) => {
    const q = share > WHOLE_SHARE ? 1 : share
    const curve = made.get(q) ?? seenGaps(life, q, until)
    made.set(q, curve)
    return curve
  }
}
