import { usualShares, type Symptom } from './knowledge.ts'

/** What stops turned out to be, by cause: sure ones count one, unsure ones half. */
export type Turned = ReadonlyMap<string, number>
/** The trade's guess counts as so many stops. */
export const TRADE_STOPS = 30
export const UNSURE = 0.5

export interface Shares {
  shares: Map<string, number>
  /** Stops of this shop behind it. */
  own: number
}
/**
 * Shares of a symptom's causes after this shop's own stops: Dirichlet, (30 · p + n) / (30 + Σn), p the trade's. A cause that the
 * list does not name joins it with what was counted. They sum to 1.
 * @example ownShares(symptom, new Map()).shares // as the trade has them
 */
export function ownShares(symptom: Pick<Symptom, 'causes' | 'odds'>, turned: Turned): Shares {
  const usual = usualShares(symptom)
  const keys = [...new Set([...symptom.causes, ...turned.keys()])]
  const own = [...turned.values()].reduce((a, b) => a + b, 0)
  if (!(own >= 0)) throw new RangeError(`ownShares: expected counts ≥ 0, got ${own}`)
  const shares = new Map(
    keys.map(
      (key, i) => [key, (TRADE_STOPS * (usual[i] ?? 0) + (turned.get(key) ?? 0)) / (TRADE_STOPS + own)] as const,
    ),
  )
  return { shares, own }
}

/** Of all that was counted, what is of one symptom and of causes that are still there. */
export const turnedOf = (
  counted: readonly { symptom: string; cause: string; n: number }[],
  symptom: string,
  causes: ReadonlyMap<string, unknown>,
): Turned => new Map(counted.filter((t) => t.symptom === symptom && causes.has(t.cause)).map((t) => [t.cause, t.n]))
