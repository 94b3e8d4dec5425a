import { usedBetween, type Amount } from '@core/clock/clock.ts'
import { type CarrierId } from '@core/ids/id.ts'
import { type LifeUnit } from '@core/path/columns.ts'
import { type HeadClocks } from '@core/clock/headclock.ts'
import { CLOCKED, type Clocked } from '@core/clock/source.ts'

/** A stretch in which a carrier hung, through its chain, on one head. */
export interface ChainStretch {
  headId: CarrierId
  fromMs: number
  toMs: number | null
}
interface Link {
  onId: CarrierId
  fromMs: number
  toMs: number | null
}

/**
 * Stretches in which the whole chain existed: each link of the child cut by the stretches of what it hung on.
 * Off the chain a part does not age.
 */
export function chainStretches(
  links: readonly Link[],
  stretchesOf: (parent: CarrierId) => readonly ChainStretch[],
): ChainStretch[] {
  return links.flatMap((link) =>
    stretchesOf(link.onId).flatMap((stretch) => {
      const fromMs = Math.max(link.fromMs, stretch.fromMs)
      const toMs = earlier(link.toMs, stretch.toMs)
      return toMs === null || toMs > fromMs ? [{ headId: stretch.headId, fromMs, toMs }] : []
    }),
  )
}

/** Stretches without some times off: what was out of its chain then did not age. */
export function withoutOffs(
  stretches: readonly ChainStretch[],
  offs: readonly { fromMs: number; toMs: number }[],
): ChainStretch[] {
  return offs.reduce<ChainStretch[]>(
    (left, off) =>
      left.flatMap((s) => {
        if ((s.toMs !== null && s.toMs <= off.fromMs) || s.fromMs >= off.toMs) return [s]
        const before = off.fromMs > s.fromMs ? [{ ...s, toMs: off.fromMs }] : []
        const after = s.toMs === null || s.toMs > off.toMs ? [{ ...s, fromMs: off.toMs }] : []
        return [...before, ...after]
      }),
    [...stretches],
  )
}

function earlier(a: number | null, b: number | null): number | null {
  if (a === null) return b
  return b === null ? a : Math.min(a, b)
}

const NOTHING: Amount = { amount: 0, estimated: 0, sd: 0 }
export interface Exposure {
  kg: Amount | null
  arcHours: Amount | null
  starts: Amount | null
  /** Left out where no kind of part of the shop goes by length. */
  km?: Amount | null
}
export type ClocksOf = (headId: CarrierId) => HeadClocks

type Between = { fromMs: number; toMs: number }
const insideOf = (stretches: readonly ChainStretch[], span: Between) =>
  stretches.flatMap((s) => {
    const fromMs = Math.max(s.fromMs, span.fromMs)
    const toMs = Math.min(s.toMs ?? span.toMs, span.toMs)
    return toMs > fromMs ? [{ headId: s.headId, fromMs, toMs }] : []
  })

/**
 * Exposure between two instants: Σ of the head's clock differences over the chain's stretches, per counter.
 * null for a counter that some head in the stretch has no clock for: not zero, not known.
 */
export function exposureOver(stretches: readonly ChainStretch[], clocksOf: ClocksOf, span: Between): Exposure {
  const inside = insideOf(stretches, span)
  const total = totalOn(inside, clocksOf)
  const exposure = { kg: total('kg'), arcHours: total('arcHours'), starts: total('starts') }
  return inside.some((s) => clocksOf(s.headId).km !== undefined) ? { ...exposure, km: total('km') } : exposure
}

/** The same of one counter. */
export const exposureOf = (
  counter: Clocked,
  stretches: readonly ChainStretch[],
  { clocksOf, ...span }: Between & { clocksOf: ClocksOf },
): Amount | null => totalOn(insideOf(stretches, span), clocksOf)(counter)

const totalOn =
  (inside: readonly (Between & { headId: CarrierId })[], clocksOf: ClocksOf) =>
  (counter: Clocked): Amount | null => {
    let sum: Amount = NOTHING
    for (const part of inside) {
      const clock = clocksOf(part.headId)[counter]
      if (!clock) return null
      const used = usedBetween(clock, part.fromMs, part.toMs)
      sum = { amount: sum.amount + used.amount, estimated: sum.estimated + used.estimated, sd: sum.sd + used.sd }
    }
    return sum
  }

export const isMeasured = (unit: LifeUnit): unit is Clocked => (CLOCKED as readonly string[]).includes(unit)
