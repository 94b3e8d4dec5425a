import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { chooseWalk, splitWalk, type Stop } from './choose.ts'

const stop = (name: string, over: Partial<Stop> = {}): Stop => ({
  stationId: anId('station', name),
  atMin: 0,
  minutes: 1,
  worth: 1,
  stopsIfLeft: 0.01,
  ...over,
})
function drawnStops(seed: number, n: number): Stop[] {
  const random = makeRandom(seed)
  return Array.from({ length: n }, (_, i) =>
    stop(`s${String(i).padStart(3, '0')}`, {
      atMin: i * 0.3 + (i > n / 2 ? 2 : 0),
      minutes: 0.3 + random() * 2,
      worth: random() ** 3 * 10,
      stopsIfLeft: random() * 0.05,
    }),
  )
}
/** Every set of stops, tried. */
function bruteForce(stops: readonly Stop[], minutes: number, fromMin: number | null): number {
  let best = 0
  for (let mask = 0; mask < 1 << stops.length; mask++) {
    const set = stops.filter((_, i) => mask & (1 << i))
    const at = set.map((s) => s.atMin)
    const [a, b] = [Math.min(...at), Math.max(...at)]
    const walk =
      set.length === 0 ? 0 : b - a + (fromMin === null ? 0 : Math.min(Math.abs(fromMin - a), Math.abs(fromMin - b)))
    if (walk + set.reduce((s, x) => s + x.minutes, 0) <= minutes + 1e-9)
      best = Math.max(
        best,
        set.reduce((s, x) => s + x.worth, 0),
      )
  }
  return best
}

describe('a walk that fits the minutes', () => {
  it('is within 2 % of the best there is, on small shops', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const stops = drawnStops(seed, 11)
      for (const [minutes, fromMin] of [
        [4, null],
        [7, 1],
        [9, 3],
      ] as const) {
        const made = chooseWalk({ stops, minutes, fromMin })
        expect(made.worth, `seed ${seed}, ${minutes} min`).toBeGreaterThanOrEqual(
          0.98 * bruteForce(stops, minutes, fromMin),
        )
      }
    }
  })
  it('never takes longer than its minutes, says what is tasks and what is walking, and leaves nothing out of its account', () => {
    const stops = drawnStops(3, 200)
    const made = chooseWalk({ stops, minutes: 25, fromMin: 0 })
    expect(made.taskMin + made.walkMin).toBeLessThanOrEqual(25 + 1e-6)
    expect(made.chosen.length + made.left.length).toBe(200)
    const none = made.left.reduce((p, s) => p * (1 - s.stopsIfLeft), 1)
    expect(made.leftStops).toBeCloseTo(1 - none, 12)
  })
  it('more minutes are never worth less', () => {
    const stops = drawnStops(8, 40)
    const worth = [5, 10, 15, 25, 40].map((minutes) => chooseWalk({ stops, minutes, fromMin: null }).worth)
    worth.slice(1).forEach((w, i) => expect(w).toBeGreaterThanOrEqual((worth[i] ?? 0) - 1e-9))
  })
  it('goes in walking order, from the nearer end', () => {
    const stops = ['a', 'b', 'c'].map((n, i) => stop(n, { atMin: i * 2 }))
    const names = (fromMin: number | null) =>
      chooseWalk({ stops, minutes: 30, fromMin })
        .chosen.map((s) => s.stationId)
        .join('')
    expect([names(null), names(0), names(4)]).toEqual(['abc', 'abc', 'cba'])
  })
  it('is the same however the guns are handed in', () => {
    const stops = drawnStops(5, 60)
    const ids = (list: readonly Stop[]) =>
      chooseWalk({ stops: list, minutes: 12, fromMin: 2 }).chosen.map((s) => s.stationId)
    expect(ids([...stops].reverse())).toEqual(ids(stops))
  })
  it('of nothing worth looking at is empty, and no minutes are misuse', () => {
    expect(chooseWalk({ stops: [stop('a', { worth: 0 })], minutes: 5, fromMin: null }).chosen).toEqual([])
    expect(() => chooseWalk({ stops: [], minutes: 0, fromMin: null })).toThrow(RangeError)
  })
})

describe('one walk over several people', () => {
  it('every gun once, in order, each about as long', () => {
    const chosen = drawnStops(2, 20)
    const parts = splitWalk(chosen, 4)
    expect(parts.flat()).toEqual(chosen)
    const minutes = parts.map((p) => p.reduce((s, x) => s + x.minutes, 0))
    expect(Math.max(...minutes) - Math.min(...minutes)).toBeLessThan(4)
  })
  it('twenty people and twelve guns: one each', () =>
    expect(
      splitWalk(
        drawnStops(2, 12).map((s) => ({ ...s, minutes: 1 })),
        20,
      ),
    ).toHaveLength(12))
})
