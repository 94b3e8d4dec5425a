import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { perTips } from './pertips.ts'

/** A Poisson count by counting events. */
function count(random: () => number, mean: number): number {
  let [n, at] = [0, -Math.log(1 - random())]
  while (at < mean) {
    n++
    at += -Math.log(1 - random())
  }
  return n
}
const place = (key: string, n: number, tips: number) => ({ key, n, tips })

describe('parts for 100 tips', () => {
  it('over the shop, and the place that uses more than chance allows', () => {
    const told = perTips([place('A', 3, 100), place('B', 4, 120), place('C', 2, 90), place('D', 19, 100)])
    expect(told?.per100).toBeCloseTo((100 * 28) / 410, 9)
    expect(told?.over.map((p) => p.key)).toEqual(['D'])
    expect(told?.over[0]?.per100).toBe(19)
  })
  it('who simply logs more of both is not named', () =>
    expect(perTips([place('A', 4, 100), place('B', 4, 100), place('honest', 40, 1000)])?.over).toEqual([]))
  it('twenty shops of twenty equal places name hardly anybody; a place that breaks three times as many is found', () => {
    const random = makeRandom(51)
    let [named, found] = [0, 0]
    for (let shop = 0; shop < 20; shop++) {
      const equal = Array.from({ length: 20 }, (_, i) => place(`p${i}`, count(random, 6), 150))
      named += perTips(equal)?.over.length ?? 0
      if (perTips([...equal, place('rough', count(random, 24), 150)])?.over.some((p) => p.key === 'rough')) found++
    }
    expect(named).toBeLessThanOrEqual(1)
    expect(found).toBeGreaterThanOrEqual(17)
  })
  it('without tips there is nothing to say, and one part is no sign', () => {
    expect(perTips([place('A', 3, 0)])).toBeNull()
    expect(perTips([place('A', 1, 2), place('B', 0, 500)])?.over).toEqual([])
  })
})
