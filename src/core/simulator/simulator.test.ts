import { describe, expect, it } from 'vitest'
import { usualLife } from '@core/life/kaplanmeier.ts'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { simulate, type SimGun } from './simulator.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const gun = (over: Partial<SimGun> = {}): SimGun => ({
  key: 'g',
  shifts: Array.from({ length: 400 }, (_, d) => ({ fromMs: d * DAY, toMs: d * DAY + 8 * HOUR })),
  busy: 1,
  arcHoursPerShift: 2.5,
  kgPerArcHour: 3,
  spoolKg: 15,
  parts: [
    {
      position: 'tip',
      unit: 'arcHours',
      shape: 2.5,
      scale: 6,
      knockedPerUnit: 0,
      reasons: [{ reason: 'worn', weight: 1 }],
    },
  ],
  cleans: [{ position: 'nozzle', everyArcHours: 4, logShare: 1 }],
  logShare: 1,
  spoolLogShare: 1,
  lateShare: 0,
  wear: 1,
  ...over,
})
const lives = (g: SimGun, onlyLogged = false) =>
  simulate([g], 5)
    .events.filter((e) => e.act.kind === 'fitted' && (!onlyLogged || e.isLogged))
    .map((e) => e.lifeUsed ?? 0)
const median = (list: number[]) => {
  const life = usualLife({ time: list, event: list.map(() => 1) })
  return life.ok ? life.median : NaN
}

describe('the simulated shop', () => {
  it('tells the same story for the same seed and another for another', () => {
    expect(simulate([gun()], 1)).toEqual(simulate([gun()], 1))
    expect(simulate([gun()], 1)).not.toEqual(simulate([gun()], 2))
  })
  it('wears parts by the life it was given', () =>
    expect(median(lives(gun()))).toBeCloseTo(6 * Math.log(2) ** (1 / 2.5), 0))
  it('a gun that wears twice as fast has half the life', () =>
    expect(median(lives(gun({ wear: 2 }))) / median(lives(gun()))).toBeCloseTo(0.5, 1))
  it('people forget the share they forget', () =>
    expect(lives(gun({ logShare: 0.6 }), true).length / lives(gun({ logShare: 0.6 })).length).toBeCloseTo(0.6, 1))
  it('spends a spool for every spool of wire it feeds', () => {
    const { events, usage } = simulate([gun()], 3)
    const kg = usage.reduce((sum, u) => sum + u.kg, 0)
    expect(Math.abs(events.filter((e) => e.act.kind === 'wireLoaded').length - kg / 15)).toBeLessThan(1.5)
  })
  it('happens inside shifts only', () =>
    expect(simulate([gun({ lateShare: 0.5 })], 4).events.every((e) => e.atMs % DAY <= 8 * HOUR)).toBe(true))
  it('a stoppage that is logged is logged whole and in its order, however late people book other things', () => {
    const part = { ...gun().parts[0], stops: { chance: 1, medianMin: 120 } } as SimGun['parts'][number]
    const told = simulate([gun({ parts: [part], lateShare: 0.7, logShare: 0.7 })], 8)
      .events.filter((e) => e.isLogged && ['stopped', 'fitted', 'restarted'].includes(e.act.kind))
      .map((e) => e.act.kind)
    expect(told.length).toBeGreaterThan(100)
    for (let i = 0; i < told.length; i += 3) expect(told.slice(i, i + 3)).toEqual(['stopped', 'fitted', 'restarted'])
  })
  it('a rule that is kept ends lives as due', () => {
    const part = { ...gun().parts[0], rule: { limit: 3, fromMs: 0, kept: 1 } } as SimGun['parts'][number]
    const reasons = simulate([gun({ parts: [part] })], 6).events.flatMap((e) =>
      e.act.kind === 'fitted' ? [e.act.reason] : [],
    )
    expect(reasons.filter((r) => r === 'due').length / reasons.length).toBeGreaterThan(0.5)
  })
  it('draws Weibull lives with the right mean', () => {
    const random = makeRandom(9)
    const mean = Array.from({ length: 20_000 }, () => drawWeibull(random, 2, 10)).reduce((a, b) => a + b) / 20_000
    expect(mean).toBeCloseTo(8.862, 0)
  })
})
