import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { fixedMinimum, raceShelf, whenEmpty, YEAR, type ShelfWorld } from '@core/stock/stockrace.ts'
import { drawShelf, playShelf, sumUp } from './stock.ts'

const WORLD: ShelfWorld = {
  life: { shape: 2.5, scale: 8, rate: 0.01 },
  ...{ guns: 10, perDay: 3, logShare: 0.7, lossShare: 0.05, leadDays: 10, sdLeadDays: 2, orderOf: 200, begins: 200 },
}
/** The short form of `npm run bench:stock`. */
describe('a year of shelves', () => {
  it('ordered when empty guns stand; with so many that none ever runs out they do not', () => {
    const empty = raceShelf(WORLD, whenEmpty(200), makeRandom(3))
    const plenty = raceShelf(WORLD, fixedMinimum(5000, 200), makeRandom(3))
    expect(empty.standMin).toBeGreaterThan(10_000)
    expect(plenty.standMin).toBe(0)
    expect(plenty.meanStock).toBeGreaterThan(empty.meanStock)
    // As many go on as are worn out: 10 guns × 3 h × 260 days over a mean life of about 6.6 h.
    expect(plenty.used).toBeGreaterThan(1000)
    expect(plenty.used).toBeLessThan(1350)
    expect(empty.orders).toBeLessThanOrEqual(YEAR / 10)
  })
  it('the same seed, the same year', () => {
    const [a, b] = [1, 2].map(() => raceShelf(WORLD, whenEmpty(200), makeRandom(7)))
    expect(a).toEqual(b)
  })
  it('by this program hardly a gun stands, for no more stock than a month’s minimum', () => {
    const races = [1000, 1017, 1034, 1051, 1068, 1085].map(playShelf).flatMap((r) => r ?? [])
    const { empty, fixed, ours } = sumUp(races)
    expect(ours.standMin).toBeLessThan(0.2 * empty.standMin)
    expect(ours.stockDays).toBeLessThan(1.15 * fixed.stockDays)
  })
  it('worlds differ: quick and slow parts, near and far suppliers', () => {
    const drawn = Array.from({ length: 30 }, (_, i) => drawShelf(i * 31))
    const leads = drawn.map((d) => d.world.leadDays)
    expect(Math.max(...leads) - Math.min(...leads)).toBeGreaterThan(15)
    const months = drawn.map((d) => d.monthly)
    expect(Math.max(...months) / Math.min(...months)).toBeGreaterThan(20)
  })
})
