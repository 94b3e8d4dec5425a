import { DAY_MS } from '@core/units/time.ts'
import { type OneChange, type RuleCosts } from '@core/life/rulecost.ts'
import { endIn } from '@core/life/facts.ts'
import { totalMinor } from '@core/payback/stopcost.ts'
import { type Reader } from '@server/db/db.ts'
import { stopsSince } from '@server/down/stops.ts'
import { readPutOn } from '@server/payback/puton.ts'
import { costedStops, type CostedStop } from '@server/payback/stopuse.ts'
import { groupBy, type KindRow, type ShopModel, type StationRow } from '@server/shopmodel/model.ts'
import { prices } from '@server/shopmodel/prices.ts'
import { type Life } from './lives.ts'

/** Stops are costed so far back. */
const STOPS_MS = 200 * DAY_MS
/** The act that took the part out belongs to a stop that ended with it. */
const SAME_MS = 10 * 60_000
/** Until enough stops are on record: one worn part in eight stops the gun, for a quarter of an hour beyond the change. Guesses. */
const STOP_GUESS = { chance: 1 / 8, minutes: 15, weight: 4 }
/** A look at a part. A guess. */
const LOOK_MIN = 0.5

export interface CostsHere {
  costs: RuleCosts
  /** Worn parts on record in that time, and how many of them stopped the gun. */
  of: number
  stopped: number
  isGuess: boolean
  /** How far off the standing of a worn part may be, relative: few stops on record, each of its own length. */
  standCv: number
  unpriced: ('part' | 'labour' | 'standing')[]
}
/** Stops of the last months with what went into them, read once for all kinds. */
export async function stopsForCosts(db: Reader, shop: ShopModel, nowMs: number): Promise<CostedStop[]> {
  const sinceMs = nowMs - STOPS_MS
  const [stops, fitted] = await Promise.all([
    stopsSince(db, { shop, nowMs, sinceMs }),
    readPutOn(db, { sinceMs, nowMs }),
  ])
  return costedStops(db, shop, { stops, sinceMs, fitted })
}

/**
 * What a change costs here in time, worn out, and by chance: part and hands; worn out it interrupts as long as it takes, and some of them stop
 * the gun for longer, with what else was used up in the stop. Standing by stop group, means over the places.
 */
export function costsOf(
  lives: readonly Life[],
  shop: ShopModel,
  at: { kind: KindRow; places: readonly StationRow[]; stops: readonly CostedStop[] },
): CostsHere {
  const { kind, places, stops } = at
  const mean = (of: (s: StationRow) => number) => places.reduce((sum, s) => sum + of(s), 0) / Math.max(1, places.length)
  const labour = mean((s) => shop.classes.get(s.classKey)?.labourMinorPerHour ?? 0)
  const stop = mean((s) => shop.stopRateOf(s.id))
  const partMinor = partPrice(lives, shop, kind)
  const min = mean((s) => shop.changeMinOf(kind.key, shop.built(s.id).familyId))
  const hands = { handsMin: min, handsMinor: (min * labour) / 60 }
  const planned: OneChange = { partMinor: partMinor ?? 0, ...hands, standMin: 0, standMinor: 0, collateralMinor: 0 }
  const late = (is: 'worn' | 'chance') => {
    const seen = seenStops(lives, stops, is)
    const { chance, minutes } = stopsGuessed(seen, min)
    const standMin = min + chance * minutes
    const collateralMinor = seen.stopped.length > 0 ? (chance * seen.beside) / seen.stopped.length : 0
    return { seen, one: { ...planned, standMin, standMinor: (standMin * stop) / 60, collateralMinor } }
  }
  const [worn, chance] = [late('worn'), late('chance')]
  return {
    costs: { planned, worn: worn.one, chance: chance.one, lookMin: LOOK_MIN, lookMinor: (LOOK_MIN * labour) / 60 },
    of: worn.seen.of,
    stopped: worn.seen.stopped.length,
    isGuess: worn.seen.of < STOP_GUESS.weight * 5,
    standCv: standCvOf(worn.seen),
    unpriced: [
      ...(partMinor === null ? (['part'] as const) : []),
      ...(labour > 0 ? [] : (['labour'] as const)),
      ...(stop > 0 ? [] : (['standing'] as const)),
    ],
  }
}

function partPrice(lives: readonly Life[], shop: ShopModel, kind: KindRow): number | null {
  const priceOf = prices(shop)
  const priced = lives.slice(0, 400).flatMap((l) => priceOf(l.partId, kind.key) ?? [])
  return priced.length > 0 ? priced.reduce((a, b) => a + b, 0) / priced.length : priceOf(null, kind.key)
}

interface SeenStops {
  of: number
  stopped: CostedStop[]
  /** Money beside standing and the part itself. */
  beside: number
}
function seenStops(lives: readonly Life[], stops: readonly CostedStop[], is: 'worn' | 'chance'): SeenStops {
  const at = groupBy(stops, (s) => s.stationId)
  const oldest = stops.reduce((least, s) => Math.min(least, s.fromMs), Infinity)
  const ended = lives.filter((l) => l.toMs !== null && l.toMs >= oldest && endIn(l) === is)
  const stopped = ended.flatMap((l) => (at.get(l.stationId ?? '') ?? []).find((s) => isIts(s, l.toMs ?? 0)) ?? [])
  const beside = stopped.reduce((sum, s) => {
    const own = Math.max(0, ...s.parts.map((p) => p.priceMinor ?? 0))
    return sum + Math.max(0, totalMinor(s.cost) - s.cost.standMinor - s.cost.handsMinor - own)
  }, 0)
  return { of: ended.length, stopped, beside }
}
/** Of chance × minutes: binomial for the one, the spread of single stops for the other; with the guess as a few seen. */
function standCvOf({ of, stopped }: SeenStops): number {
  const n = of + STOP_GUESS.weight
  const chance = (stopped.length + STOP_GUESS.chance * STOP_GUESS.weight) / n
  return Math.sqrt((1 - chance) / (chance * n) + STOP_CV ** 2 / (stopped.length + 1))
}
/** Stops of one kind are of very different lengths. A guess. */
const STOP_CV = 0.8
const isIts = (s: CostedStop, ms: number) => s.fromMs <= ms && ms <= (s.toMs ?? Infinity) + SAME_MS
/** Own stops, with the guess as if it had been seen a few times. */
function stopsGuessed({ of, stopped }: SeenStops, changeMin: number): { chance: number; minutes: number } {
  const own = stopped.reduce((sum, s) => sum + Math.max(0, s.minutes - changeMin), 0)
  return {
    chance: (stopped.length + STOP_GUESS.chance * STOP_GUESS.weight) / (of + STOP_GUESS.weight),
    minutes: (own + STOP_GUESS.minutes) / (stopped.length + 1),
  }
}
