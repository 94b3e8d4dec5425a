import { describe, expect, it } from 'vitest'
import { stopSeen } from '@core/cell/stopseen.ts'
import { fedBetween, loadAt, nextRowMs, snagNear, voltsAt, type FeedPlan } from './feeding.ts'

const HOUR = 3_600_000
const arcs = { seed: 4, duty: 0.6, wireMPerMin: 9 }
const plan: FeedPlan = { seed: 7, arcs, volts: 26, gasLpm: 15, slip: 0.02, snagEveryH: 3 }
const never: FeedPlan = { ...plan, snagEveryH: null }
/** The first snag there is from some day on. */
const first = () => {
  for (let block = 1000; block < 1040; block++) {
    const snag = snagNear(plan, block * 3 * HOUR)
    if (snag) return snag
  }
  throw new Error('no snag in five days')
}

describe('what a made-up controller tells of its wire', () => {
  it('is the same however the time is cut, and less than the rolls turned by the slip', () => {
    const whole = fedBetween(plan, 3000 * HOUR, 3003 * HOUR)
    let cut = 0
    for (let m = 0; m < 180; m++)
      cut += fedBetween(plan, 3000 * HOUR + m * 60_000, 3000 * HOUR + (m + 1) * 60_000).rollFedM
    expect(cut).toBeCloseTo(whole.rollFedM, 6)
    const well = fedBetween(never, 3000 * HOUR, 3003 * HOUR)
    expect(well.wireFedM / well.rollFedM).toBeCloseTo(0.98, 9)
    expect(well.arcOnS).toBeGreaterThan(whole.arcOnS - 1)
  })
  it('snags now and then: rolls go on, the arc climbs and is out, nothing until it is freed', () => {
    const { fromMs, outMs, freeMs } = first()
    const snagged = fedBetween(plan, fromMs, outMs)
    expect(snagged.wireFedM).toBeLessThan(0.15 * snagged.rollFedM)
    expect(voltsAt(plan, outMs - 100)).toBeGreaterThan(1.25 * (voltsAt(plan, fromMs - 1000) ?? 0))
    expect(voltsAt(plan, outMs + 1)).toBeNull()
    expect(loadAt(plan, outMs)).toBeGreaterThan(1)
    expect(loadAt(plan, fromMs - 1)).toBe(1)
    expect(fedBetween(plan, outMs + 2000, freeMs)).toMatchObject({ arcOnS: 0, arcStarts: 0, rollFedM: 0 })
    expect(freeMs - outMs).toBeGreaterThan(7 * 60_000)
  })
  it('is kept second by second around a snag, and shows as a stop to who reads it', () => {
    const { fromMs, outMs } = first()
    const rows = []
    let [wireFedM, rollFedM, arcOnS] = [0, 0, 0]
    for (let ms = fromMs - 120_000; ms < outMs + 20_000;) {
      const next = nextRowMs(plan, { fromMs: ms, everyMs: 10_000 })
      const used = fedBetween(plan, ms, next)
      ms = next
      ;[wireFedM, rollFedM, arcOnS] = [wireFedM + used.wireFedM, rollFedM + used.rollFedM, arcOnS + used.arcOnS]
      rows.push({ atMs: ms, wireFedM, rollFedM, arcOnS, volts: voltsAt(plan, ms), startsFailed: 0 })
    }
    expect(rows.length).toBeGreaterThan(60)
    const seen = stopSeen(rows)
    expect(seen).toMatchObject({ is: 'notArriving' })
    expect(Math.abs((seen?.atMs ?? 0) - outMs)).toBeLessThan(4000)
  })
  it('has a row each so often where it never snags', () =>
    expect(nextRowMs(never, { fromMs: 5000, everyMs: 10_000 })).toBe(15_000))
})
