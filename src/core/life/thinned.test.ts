import { describe, expect, it } from 'vitest'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { fitLives, goneBy, weighedShare, type SharedGap } from './fitted.ts'
import { tradePrior, toldPrior } from './guesses.ts'
import { seenGaps, sumOfLives, survivalOf, wornDensity } from './renewalgrid.ts'
import { firstYear } from './shoprace.ts'
import { fitGaps, type Gap, type GapFit } from './thinned.ts'
import { fitWeibull } from './weibull.ts'

const LIFE = { shape: 2.5, scale: 6, rate: 0.03 }
const shop = { life: LIFE, guns: 60, perDay: 2, lateShare: 0, notSaidShare: 0.1 }
const year = (seed: number, logShare: number, over = {}) => firstYear({ ...shop, logShare, ...over }, makeRandom(seed))
/** With the share as it truly is. */
const known = (gaps: readonly SharedGap[], share: number) =>
  gaps.map((g) => ({ ...g, share, shareLow: share, shareHigh: share }))
const must = (fit: ReturnType<typeof fitGaps>): GapFit => {
  if (!fit.ok) throw new Error(fit.reason)
  return fit
}
const whole = (low: number, end: Gap['end'] = 'worn'): Gap => ({
  low,
  high: low,
  end,
  isAgeUnknown: false,
  parts: 1,
  share: 1,
})

describe('a log that misses changes', () => {
  it.each([0.4, 0.6, 0.8, 1])('at a share of %f gives back shape and half-life within 5 %%', (share) => {
    const fits = [1, 2, 3, 4].map((seed) => must(fitGaps(known(year(seed, share).gaps, share))))
    const mean = (of: (f: GapFit) => number) => fits.reduce((sum, f) => sum + of(f), 0) / fits.length
    expect(Math.abs(mean((f) => f.life.shape) / LIFE.shape - 1)).toBeLessThan(0.05)
    expect(Math.abs(mean((f) => goneBy(f.life, 0.5)) / goneBy(LIFE, 0.5) - 1)).toBeLessThan(0.05)
    expect(Math.abs(mean((f) => f.life.rate) / LIFE.rate - 1)).toBeLessThan(0.15)
  })
  it('taken at its word would say half are gone far too late', () => {
    const fit = must(fitGaps(known(year(1, 0.5).gaps, 1)))
    expect(goneBy(fit.life, 0.5)).toBeGreaterThan(1.4 * goneBy(LIFE, 0.5))
    expect(fit.life.shape).toBeLessThan(1.8)
  })
  it('written at the end of the shift is read as some time in it', () => {
    const { gaps } = year(5, 0.9, { lateShare: 1 })
    const aware = must(fitGaps(known(gaps, 0.9)))
    expect(Math.abs(goneBy(aware.life, 0.5) / goneBy(LIFE, 0.5) - 1)).toBeLessThan(0.06)
  })
  it('without misses is the plain fit', () => {
    const random = makeRandom(3)
    const time = Array.from({ length: 80 }, () => drawWeibull(random, 2, 5))
    const event = time.map((t) => (t < 7 ? 1 : 0))
    const cut = time.map((t) => Math.min(t, 7))
    const plain = fitWeibull({ time: cut, event })
    const fit = must(fitGaps(cut.map((t, i) => whole(t, event[i] ? 'worn' : 'cut'))))
    if (!plain.ok) throw new Error(plain.reason)
    expect(fit.life.shape / plain.shape).toBeCloseTo(1, 4)
    expect(fit.life.scale / plain.scale).toBeCloseTo(1, 4)
    expect(Math.sqrt(fit.covariance[0]?.[0] ?? 0)).toBeCloseTo(plain.seLogShape, 3)
  })
  it('does not depend on the unit', () => {
    const gaps = known(year(2, 0.6, { guns: 8 }).gaps, 0.6)
    const other = gaps.map((g) => ({ ...g, low: g.low * 60, high: g.high * 60 }))
    const [a, b] = [must(fitGaps(gaps)), must(fitGaps(other))]
    expect(b.life.shape / a.life.shape).toBeCloseTo(1, 3)
    expect(b.life.scale / a.life.scale / 60).toBeCloseTo(1, 3)
  })
  it('counts several in one line as so many lives', () => {
    const random = makeRandom(8)
    const gaps = Array.from({ length: 300 }, () => ({ ...whole(0), parts: 3 })).map((g) => {
      const sum = [1, 2, 3].reduce((s) => s + drawWeibull(random, 2.5, 6), 0)
      return { ...g, low: sum, high: sum }
    })
    const { life } = must(fitGaps(gaps))
    expect(Math.abs(life.scale / 6 - 1)).toBeLessThan(0.05)
    expect(Math.abs(life.shape / 2.5 - 1)).toBeLessThan(0.1)
  })
})

describe('what is said where data cannot answer', () => {
  it('no life, nothing ended', () => {
    expect(fitGaps([])).toEqual({ ok: false, reason: 'noLives' })
    expect(fitGaps([whole(3, 'cut'), whole(5, 'cut')])).toEqual({ ok: false, reason: 'nothingEnded' })
  })
  it('with a word told it answers from that, and says how much of it is', () => {
    const fit = fitLives([], toldPrior(6, 3))
    expect(fit).toMatchObject({ ok: true, n: 0 })
    if (!fit.ok) return
    expect(fit.median.value).toBeCloseTo(6, 1)
    expect(goneBy(fit.life, 0.1)).toBeCloseTo(3, 1)
    expect(fit.priorShare).toBeCloseTo(1, 2)
    expect(fit.median.high / fit.median.low).toBeGreaterThan(2)
  })
  it('a few lives draw a guess over, many leave nothing of it', () => {
    const prior = tradePrior('tip', 'arcHours')
    if (!prior) throw new Error('no guess for tips')
    const share = (n: number) =>
      must(
        fitGaps(
          year(1, 1)
            .gaps.slice(0, n)
            .map((g) => ({ ...g, share: 1 })),
          prior,
        ),
      ).priorShare
    expect(share(3)).toBeGreaterThan(share(30))
    expect(share(300)).toBeLessThan(0.01)
  })
  it('one line in five is too little', () => {
    const gaps = known(year(1, 0.2).gaps, 0.2)
    expect(weighedShare(gaps)).toBeCloseTo(0.2)
    expect(fitLives(gaps)).toEqual({ ok: false, reason: 'shareTooLow' })
  })
  it('misuse throws', () => {
    expect(() => fitGaps([{ ...whole(3), high: 2 }])).toThrow('low <= high')
    expect(() => fitGaps([{ ...whole(3), share: 0 }])).toThrow('logging share')
    expect(() => toldPrior(3, 6)).toThrow('usual > early')
  })
})

describe('the spread', () => {
  /** Printed for few, held to for fifty and more. */
  const coverage = (guns: number, days: number) => {
    let [inside, n] = [0, 0]
    for (let seed = 0; seed < 120; seed++) {
      const made = firstYear({ ...shop, guns, logShare: 1, notSaidShare: 0, perDay: days }, makeRandom(900 + seed))
      const gaps = known(made.gaps, 1)
        .filter((g) => !g.isAgeUnknown)
        .slice(0, guns * 10)
      const fit = fitLives(gaps)
      if (!fit.ok) continue
      n++
      if (fit.median.low <= goneBy(LIFE, 0.5) && goneBy(LIFE, 0.5) <= fit.median.high) inside++
    }
    return inside / n
  }
  it('holds the truth as often as it says, from some fifty lives on', () => {
    const share = coverage(6, 1)
    expect(share).toBeGreaterThan(0.9)
    expect(share).toBeLessThan(0.99)
    console.info(
      `half gone by: 95 % interval held in ${(100 * share).toFixed(0)} of 100 at 60 lives, ${(100 * coverage(1, 1)).toFixed(0)} at 10`,
    )
  })
  it('is wider where the logging share is hardly known', () => {
    const { gaps } = year(4, 0.6, { guns: 20 })
    const sure = fitLives(known(gaps, 0.6))
    const vague = fitLives(gaps.map((g) => ({ ...g, share: 0.6, shareLow: 0.45, shareHigh: 0.8 })))
    if (!sure.ok || !vague.ok) throw new Error('no fit')
    expect(vague.median.high / vague.median.low).toBeGreaterThan(1.15 * (sure.median.high / sure.median.low))
  })
})

describe('gaps of a thinned renewal process', () => {
  it('are those of a long run of lives', () => {
    const random = makeRandom(12)
    const share = 0.5
    const gaps: number[] = []
    let gap = 0
    for (let n = 0; n < 60_000; n++) {
      gap += Math.min(drawWeibull(random, LIFE.shape, LIFE.scale), -Math.log(1 - random()) / LIFE.rate)
      if (random() >= share) continue
      gaps.push(gap)
      gap = 0
    }
    const seen = seenGaps(LIFE, share, 60)
    for (const x of [2, 5, 9, 15, 25, 40]) {
      const open = gaps.filter((g) => g > x).length / gaps.length
      expect(Math.abs(seen.survival(x) - open)).toBeLessThan(0.006)
    }
    expect(seen.openArea(59)).toBeCloseTo(seen.mean / share, 0)
  })
  it('wear and chance together use up the whole', () => {
    const seen = seenGaps(LIFE, 0.4, 80)
    const byChance = LIFE.rate * 0.4 * seen.openArea(80)
    expect(seen.wornBy(80) + byChance + seen.survival(80)).toBeCloseTo(1, 2)
  })
  it('are plain lives where all is written down, and run on beyond the grid', () => {
    const seen = seenGaps(LIFE, 1, 20)
    expect(seen.survival(4)).toBe(survivalOf(LIFE, 4))
    expect(seen.wornAt(4)).toBe(wornDensity(LIFE, 4))
    const thin = seenGaps(LIFE, 0.5, 20)
    expect(thin.survival(30)).toBeLessThan(thin.survival(20))
    expect(thin.survival(30)).toBeGreaterThan(0)
  })
  it('of a known number are their sum', () => {
    const two = sumOfLives({ shape: 1, scale: 2, rate: 0 }, 2, 40)
    // Sum of two exponentials: Gamma(2).
    for (const x of [1, 3, 6]) {
      expect(two.survival(x)).toBeCloseTo(Math.exp(-x / 2) * (1 + x / 2), 2)
      expect(two.wornAt(x)).toBeCloseTo((x / 4) * Math.exp(-x / 2), 2)
    }
  })
})
