import { describe, expect, it } from 'vitest'
import { type CellLine } from '@contract/cell.ts'
import { heatSentence, isHot } from './heatwords.ts'

type Heat = NonNullable<CellLine['heat']>
const heat = (over: Partial<Heat> = {}): { heat: Heat } => ({
  heat: {
    ...{ at: 'tip', by: 'part', amps: 300, heatAmps: 345, may: 0.6, wants: 0.8, chance: 0.7, untold: [] },
    ...over,
  },
})

describe('how the front carries the program', () => {
  it('is told in words by its chance, with pulse and what is untold', () => {
    expect(heatSentence(heat())).toBe(
      'At 300 A, which in pulse heats like 345, it may weld 6 in 10 of the time; the program welds 8 in 10. The tip carries more than it may: sooner or later heat takes it, a tip burns back or a thread seizes.',
    )
    expect(heatSentence(heat({ chance: 0.01, heatAmps: 300 }))).toContain('The tip has room')
    expect(heatSentence(heat({ chance: 0.1 }))).toContain('little room')
    expect(heatSentence(heat({ chance: 0.3, at: 'neck' }))).toContain('The neck is at its edge')
    expect(heatSentence(heat({ chance: 0.95 }))).toContain('count on a failure')
    expect(heatSentence(heat({ untold: ['nozzle'] }))).toContain('The nozzle tells no rating.')
    expect(heatSentence({ heat: null })).toBe('')
  })
  it('comes first from one in five on', () =>
    expect([0.1, 0.2, 0.9].map((chance) => isHot(heat({ chance })))).toEqual([false, true, true]))
})
