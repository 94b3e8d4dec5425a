import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { poissonCdf } from '@core/stats/poisson.ts'
import { fitAft } from './aft.ts'
import { placeEffects, verdictOn } from './frailty.ts'
import { endsNeeded, isAnswered } from './needed.ts'

/** A Poisson draw by inversion. */
const drawn = (random: () => number, mean: number) => {
  const u = random()
  let n = 0
  while (poissonCdf(n, mean) < u) n++
  return n
}

describe('places that take more than their share', () => {
  const shop = (seed: number, hungry: number[] = [], q = 1) => {
    const random = makeRandom(seed)
    return Array.from({ length: 24 }, (_, i) => {
      const wear = hungry.includes(i) ? 2.2 : 1
      return { key: `${i}`, ends: drawn(random, 100 * wear * q), expected: 100 * q, share: 0.95 }
    })
  }
  it('are found, and nobody else is accused', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { places } = placeEffects(shop(seed, [3, 11]))
      const hungry = places.filter((p) => verdictOn(p, false) === 'hungry').map((p) => p.key)
      expect(hungry).toEqual(['3', '11'])
    }
  })
  it('in a shop of equals there are none', () => {
    for (let seed = 1; seed <= 20; seed++)
      for (const p of placeEffects(shop(seed)).places) expect(verdictOn(p, false)).not.toBe('hungry')
  })
  it('an average booth that writes down 9 in 10 among 57 in 100 is not accused: it may log more', () => {
    const q = 0.57
    const places = shop(5, [], q).map((p, i) => (i === 7 ? { ...p, ends: 90 } : p))
    const more = places.map((p) => ({ ...p, ends: p.ends * 20, expected: p.expected * 20, share: 0.52 }))
    // So much is in that hardly anything is drawn towards the others.
    const honest = placeEffects(more).places[7]
    if (!honest) throw new Error('no booth')
    expect(honest.z).toBeGreaterThan(1.5)
    expect(honest.chanceOver).toBeGreaterThan(0.95)
    expect(verdictOn(honest, false)).toBe('mayLogMore')
    expect(verdictOn(honest, true)).toBe('hungry')
  })
  it('few ends say nothing yet', () => {
    const { places } = placeEffects([
      { key: 'a', ends: 3, expected: 0.5, share: 1 },
      { key: 'b', ends: 20, expected: 20, share: 1 },
    ])
    expect(places.map((p) => verdictOn(p, true))).toEqual(['usual', 'usual'])
  })
  it('misuse throws', () =>
    expect(() => placeEffects([{ key: 'a', ends: -1, expected: 1, share: 1 }])).toThrow('counts >= 0'))
})

describe('how many more lives an answer needs', () => {
  it('is Schoenfeld’s number', () => expect(endsNeeded(1.5, 2.5)).toBe(31))
  it('is the same whichever way round, and more for less', () => {
    expect(endsNeeded(2, 2)).toBe(endsNeeded(0.5, 2))
    expect(endsNeeded(1.2, 2)).toBeGreaterThan(endsNeeded(1.5, 2))
  })
  it('before they are in only what can hardly be luck stops it', () => {
    expect(isAnswered(20, 31, 0.01)).toBe('notYet')
    expect(isAnswered(20, 31, 0.0005)).toBe('early')
    expect(isAnswered(31, 31, 0.01)).toBe('yes')
    expect(isAnswered(31, 31, 0.3)).toBe('noDifference')
  })
})

describe('how much longer it lasts, all else equal', () => {
  it('a level without an end has no finite answer', () => {
    const time = [1, 2, 3, 4, 5, 6, 7, 8]
    const isNew = [0, 0, 0, 0, 1, 1, 1, 1]
    const columns = [time.map(() => 1), isNew]
    expect(fitAft({ time, event: [1, 1, 1, 1, 0, 0, 0, 0], columns })).toEqual({ ok: false, reason: 'diverges' })
    expect(fitAft({ time, event: time.map(() => 0), columns })).toEqual({ ok: false, reason: 'noFailure' })
  })
  it('two columns that tell the same are refused', () => {
    const time = [1, 2, 3, 4]
    const x = [0, 1, 0, 1]
    expect(fitAft({ time, event: [1, 1, 1, 1], columns: [[1, 1, 1, 1], x, x] })).toEqual({
      ok: false,
      reason: 'singular',
    })
  })
  it('misuse throws', () => {
    expect(() => fitAft({ time: [1, 0], event: [1, 1], columns: [[1, 1]] })).toThrow('times > 0')
    expect(() => fitAft({ time: [1], event: [1], columns: [] })).toThrow('one column')
  })
})
