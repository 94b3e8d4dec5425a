import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { buildClock, clockAt, usedBetween, type Clock } from './clock.ts'
import { lengthClock } from './lengthclock.ts'
import { makeSchedule } from './schedule.ts'
import { type UsageSpan } from './sweep.ts'

/** Steel 1.0: 0.162 km in a kilogram; aluminium 1.2: 0.332. */
const [STEEL, ALU] = [0.162, 0.332]
const H = HOUR_MS
const span = (fromH: number, toH: number, amount: number): UsageSpan => ({
  ...{ fromMs: fromH * H, toMs: toH * H, amount },
  ...{ source: 'weighed', loggedMs: 0 },
})
const clock = (...spans: UsageSpan[]) => buildClock('kg', spans, null) as Clock
const ever = (kmPerKg: number | null) => ({ fromMs: -Infinity, kmPerKg })

describe('length of wire from its weight', () => {
  it('each stretch by the wire that was on then', () => {
    const km = lengthClock(clock(span(0, 10, 100), span(10, 20, 50)), [ever(STEEL), { fromMs: 10 * H, kmPerKg: ALU }])
    expect(km?.counter).toBe('km')
    expect(clockAt(km as Clock, 10 * H).amount).toBeCloseTo(16.2, 12)
    expect(clockAt(km as Clock, 20 * H).amount).toBeCloseTo(16.2 + 16.6, 12)
    expect(usedBetween(km as Clock, 5 * H, 15 * H).amount).toBeCloseTo(8.1 + 8.3, 12)
  })
  it('an entry that spans a change of wire is shared by working time', () => {
    // Worked from hour 0 to 8 and from 16 to 24: of the eight hours before the change at 8, all are worked.
    const schedule = makeSchedule([
      { fromMs: 0, toMs: 8 * H },
      { fromMs: 16 * H, toMs: 24 * H },
    ])
    const kg = buildClock('kg', [span(0, 24, 40)], schedule)
    const km = lengthClock(kg, [ever(STEEL), { fromMs: 12 * H, kmPerKg: ALU }]) as Clock
    expect(clockAt(km, 12 * H).amount).toBeCloseTo(20 * STEEL, 12)
    expect(clockAt(km, 24 * H).amount).toBeCloseTo(20 * STEEL + 20 * ALU, 12)
  })
  it('runs on at the rate of the kilograms, by the wire that is on now', () => {
    const kg = clock(span(0, 240, 240))
    const km = lengthClock(kg, [ever(STEEL), { fromMs: 239 * H, kmPerKg: ALU }]) as Clock
    expect(km.runOn.perWorkedHour).toBeCloseTo(kg.runOn.perWorkedHour * ALU, 12)
    expect(km.runOn.dayCv).toBe(kg.runOn.dayCv)
  })
  it('a wire nobody knows is taken for its neighbour, and marked as estimated; none known tells nothing', () => {
    const kg = clock(span(0, 10, 100), span(10, 20, 100))
    const before = lengthClock(kg, [ever(null), { fromMs: 10 * H, kmPerKg: STEEL }]) as Clock
    expect(clockAt(before, 20 * H)).toMatchObject({ amount: 200 * STEEL, estimated: 100 * STEEL })
    const after = lengthClock(kg, [ever(STEEL), { fromMs: 10 * H, kmPerKg: null }]) as Clock
    expect(clockAt(after, 20 * H).estimated).toBeCloseTo(100 * STEEL, 12)
    expect(lengthClock(kg, [ever(null)])).toBeNull()
    expect(lengthClock(null, [ever(STEEL)])).toBeNull()
  })
  it('however wires and entries lie, it never runs back, and one wire throughout is the kilograms times it', () => {
    const random = makeRandom(31)
    for (let round = 0; round < 40; round++) {
      let atH = 0
      const spans = Array.from({ length: 12 }, () => {
        const [from, to] = [atH, atH + 1 + Math.floor(random() * 20)]
        atH = to + (random() < 0.3 ? Math.floor(random() * 60) : 0)
        return span(from, to, random() * 30)
      })
      const kg = clock(...spans)
      const wires = [ever(STEEL)]
      for (let i = 0; i < 5; i++) wires.push({ fromMs: random() * atH * H, kmPerKg: random() < 0.5 ? STEEL : ALU })
      const km = lengthClock(kg, wires) as Clock
      const same = lengthClock(
        kg,
        wires.map((w) => ({ ...w, kmPerKg: STEEL })),
      ) as Clock
      let last = 0
      for (let h = 0; h <= atH; h += atH / 50) {
        const [now, kgNow] = [clockAt(km, h * H).amount, clockAt(kg, h * H).amount]
        expect(now).toBeGreaterThanOrEqual(last - 1e-9)
        expect(now).toBeGreaterThanOrEqual(kgNow * STEEL - 1e-9)
        expect(now).toBeLessThanOrEqual(kgNow * ALU + 1e-9)
        expect(clockAt(same, h * H).amount).toBeCloseTo(kgNow * STEEL, 9)
        last = now
      }
    }
  })
})
