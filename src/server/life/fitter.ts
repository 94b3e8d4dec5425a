import { createHash } from 'node:crypto'
import { fitLives, type SharedGap } from '@core/life/fitted.ts'
import { type WearAndChance } from '@core/life/renewalgrid.ts'
import { fitGaps, type Prior } from '@core/life/thinned.ts'

export type FitAnswer = ReturnType<typeof fitLives>
/** The same gaps give the same fit: kept by what they are, so that only what changed is worked out again. */
export class Fitter {
  private readonly whole = new Kept<FitAnswer>()
  private readonly middles = new Kept<WearAndChance | null>()

  /** With its spread. */
  fit(gaps: readonly SharedGap[], prior: Prior | null): FitAnswer {
    return this.whole.get(keyOf(gaps, prior), () => fitLives(gaps, prior))
  }
  /** The middle of it only, begun near another: a fraction of the time. */
  quick(gaps: readonly SharedGap[], prior: Prior | null, near: WearAndChance): WearAndChance | null {
    return this.middles.get(keyOf(gaps, prior), () => {
      const fit = fitGaps(gaps, prior ?? undefined, near)
      return fit.ok ? fit.life : null
    })
  }
}

const MOST_KEPT = 300
/** The last so many, by when they were asked for. */
class Kept<T> {
  private readonly kept = new Map<string, T>()
  get(key: string, make: () => T): T {
    const value = this.kept.has(key) ? (this.kept.get(key) as T) : make()
    this.kept.delete(key)
    this.kept.set(key, value)
    const [oldest] = this.kept.keys()
    if (this.kept.size > MOST_KEPT && oldest !== undefined) this.kept.delete(oldest)
    return value
  }
}

/** A fit is asked for again within the day: what still hangs on guns moves by the hour, so use is told to two figures there. */
export function keyOf(gaps: readonly SharedGap[], prior: Prior | null): string {
  const hash = createHash('sha1')
  for (const g of gaps) {
    const used = g.end === 'cut' ? g.high.toPrecision(2) : g.high
    const share = `${g.share.toFixed(3)} ${g.shareLow.toFixed(3)}`
    hash.update(`${used} ${g.low.toPrecision(4)} ${g.end} ${g.isAgeUnknown} ${g.parts} ${share};`)
  }
  return `${gaps.length} ${hash.update(JSON.stringify(prior)).digest('base64')}`
}
