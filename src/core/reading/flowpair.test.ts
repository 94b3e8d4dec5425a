import { describe, expect, it } from 'vitest'
import { type KeptReading } from './alarms.ts'
import { flowPair } from './flowpair.ts'

const HOUR = 3_600_000
const flow = (hours: number, value: number, over: Partial<KeptReading> = {}): KeptReading => ({
  atMs: hours * HOUR,
  what: 'gasFlow',
  method: 'meter',
  how: 'measured',
  value,
  left: null,
  grade: null,
  is: 'good',
  headId: null,
  wireId: null,
  limit: null,
  kg: null,
  ...over,
})

describe('gas at the start and the end of work', () => {
  it('is the first and the last of one stretch, whatever was read between', () =>
    expect(flowPair([flow(6, 14), flow(9, 13), flow(14, 10.5)])).toMatchObject({
      startLPerMin: 14,
      endLPerMin: 10.5,
      is: 'fell',
    }))
  it('yesterday is another stretch', () => {
    expect(flowPair([flow(6, 14), flow(30, 10)])).toBeNull()
    expect(flowPair([flow(6, 14), flow(30, 12), flow(38, 12.4)])).toMatchObject({ startMs: 30 * HOUR, is: 'held' })
  })
  it('what was set at the start counts as it was left, and the end as it was found', () =>
    expect(flowPair([flow(6, 9, { left: 14 }), flow(13, 18, { left: 14 })])).toMatchObject({
      startLPerMin: 14,
      endLPerMin: 18,
      is: 'rose',
    }))
  it('a meter and a regulator are not compared, nor two within the hour', () => {
    expect(flowPair([flow(6, 14, { method: 'regulator' }), flow(13, 10)])).toBeNull()
    expect(flowPair([flow(6, 14), flow(6.5, 10)])).toBeNull()
    expect(flowPair([])).toBeNull()
  })
})
