import { describe, expect, it } from 'vitest'
import { stopSeen, traceOf, type SeenRow } from './stopseen.ts'

/** Rows two seconds apart at 9 m/min; from `slipsAt` on the rolls turn and a share of the wire does not come. */
function rows(of: { n?: number; slipsAt?: number; slip?: number; climbs?: boolean; roll?: boolean } = {}): SeenRow[] {
  const { n = 30, slipsAt = Infinity, slip = 0.9, climbs = false, roll = true } = of
  let wire = 0
  return Array.from({ length: n }, (_, i) => {
    const step = 0.3
    wire += i >= slipsAt ? step * (1 - slip) : step
    return {
      ...{ atMs: i * 2000, wireFedM: wire, rollFedM: roll ? (i + 1) * step : null, arcOnS: i * 2, startsFailed: null },
      volts: climbs && i >= slipsAt ? 32 : 26,
    }
  })
}

describe('a stop that the numbers show', () => {
  it('is seen within seconds where rolls turn and wire does not come', () => {
    const seen = stopSeen(rows({ slipsAt: 20 }))
    expect(seen).toMatchObject({ is: 'notArriving', doesArcClimb: false })
    expect((seen?.atMs ?? 0) / 2000).toBeLessThanOrEqual(22)
    expect(seen?.is === 'notArriving' && seen.slip).toBeGreaterThan(0.5)
    expect(stopSeen(rows({ slipsAt: 20, climbs: true }))).toMatchObject({ doesArcClimb: true })
  })
  it('is none while wire comes, slips a little, or nobody tells what the rolls do', () => {
    expect(stopSeen(rows())).toBeNull()
    expect(stopSeen(rows({ slipsAt: 10, slip: 0.2 }))).toBeNull()
    expect(stopSeen(rows({ slipsAt: 10, roll: false }))).toBeNull()
    expect(stopSeen([])).toBeNull()
  })
  it('is none where a counter began anew', () => {
    const [early, late] = [rows({ n: 10 }), rows({ n: 10 }).map((r) => ({ ...r, atMs: r.atMs + 20_000 }))]
    expect(stopSeen([...early, ...late])).toBeNull()
  })
  it('is three starts in a row that came to nothing; with an arc between they are none', () => {
    const start = (i: number, failed: number, arcOnS = 100): SeenRow => ({
      ...{ atMs: i * 5000, wireFedM: 10, rollFedM: null, arcOnS, volts: null, startsFailed: failed },
    })
    expect(stopSeen([start(0, 4), start(1, 5), start(2, 6), start(3, 7)])).toEqual({
      ...{ is: 'noStart', atMs: 15_000, failed: 3 },
    })
    expect(stopSeen([start(0, 4), start(1, 5, 101), start(2, 6, 102), start(3, 7, 103)])).toBeNull()
  })
  it('its picture has speeds between rows, in seconds before it', () => {
    const all = rows({ slipsAt: 20 }).map((r) => ({ ...r, motorAmps: 2, gasFlowLpm: 15 }))
    const trace = traceOf(all, all.at(-1)?.atMs ?? 0)
    expect(trace).toHaveLength(29)
    expect(trace[0]).toMatchObject({ s: -56, motorAmps: 2, volts: 26, gasLpm: 15 })
    expect(trace[0]?.wireMPerMin).toBeCloseTo(9, 6)
    expect(trace.at(-1)?.wireMPerMin).toBeCloseTo(0.9, 6)
    expect(trace.at(-1)?.rollMPerMin).toBeCloseTo(9, 6)
  })
})
