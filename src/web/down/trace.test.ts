import { describe, expect, it } from 'vitest'
import { type TraceAnswer } from '@contract/cell.ts'
import { traceSays } from './Trace.tsx'

type Point = TraceAnswer['points'][number]
/** A minute at 9 m/min, a point a second; the last `snags` of them without wire. */
const minute = (snags: number, own: Partial<Point> = {}): Point[] =>
  Array.from({ length: 60 }, (_, i) => {
    const isSnagged = i >= 60 - snags
    const volts = isSnagged ? 26 + 2 * (i - 59 + snags) : 26
    return {
      ...{ s: i - 59, wireMPerMin: isSnagged ? 0.912 : 9, rollMPerMin: 9.18, motorAmps: 2, volts, gasLpm: 15 },
      ...(isSnagged ? own : {}),
    }
  })

describe('what the minute before a stop shows', () => {
  it('is rolls against wire, then the arc, rounded and in the shop’s units', () => {
    expect(traceSays(minute(4), 'metric')).toBe(
      'In the end the rolls turned at 9.2 m/min and only 0.91 m/min of wire came. The arc climbed from 26 to 34 V, as it does where wire stops coming.',
    )
    expect(traceSays(minute(4, { volts: null }), 'us')).toBe(
      'In the end the rolls turned at 360 in/min and only 36 in/min of wire came.',
    )
  })
  it('is told of the moment the rolls last turned, not of the seconds after', () => {
    const over = minute(4).concat([{ ...minute(0)[0]!, s: 1, wireMPerMin: 0, rollMPerMin: 0, volts: null }])
    expect(traceSays(over, 'metric')).toContain('only 0.91 m/min of wire came')
  })
  it('names gas that fell, and says that wire came where it did', () => {
    expect(traceSays(minute(0), 'metric')).toBe('Wire came at 9 m/min to the end.')
    expect(traceSays(minute(3, { wireMPerMin: 9, volts: 26, gasLpm: 5 }), 'metric')).toBe(
      'Wire came at 9 m/min to the end. Gas fell from 15 L/min to 5 L/min.',
    )
    expect(traceSays([], 'metric')).toBe('')
  })
})
