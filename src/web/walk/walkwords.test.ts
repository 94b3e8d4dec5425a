import { describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { type WalkAnswer } from '@contract/walk.ts'
import { walkHonesty, walkSentence } from './walkwords.ts'

const walk = (over: Partial<WalkAnswer> = {}): WalkAnswer => ({
  ...{ nowMs: 0, zone: 'UTC', walk: 'due', minutes: 25, stops: [], parts: [], taskMin: 0, walkMin: 0, left: [] },
  areas: [{ id: anId('area', 'area_1'), name: 'Bay A' }],
  ...{ leftStops: 0, foundOpen: { good: 0, of: 0 }, again: null },
  ...over,
})

describe('the sentence of a walk', () => {
  it('where there are no guns says so, and not that all was looked at', () => {
    const none = walk({ areas: [] })
    expect(walkSentence(none)).toBe('No guns yet, so nothing to look at.')
    expect(walkHonesty(none)).toBe('Say on Floor how many there are.')
  })
  it('with nothing due, all of it was looked at', () => {
    expect(walkSentence(walk())).toBe('Nothing to look at: what is due.')
    expect(walkHonesty(walk({ foundOpen: { good: 7, of: 9 } }))).toBe(
      'All of it was looked at lately. Nozzles found open this week: 7 of 9.',
    )
  })
  it('what is left is said with what it may cost', () => {
    const left = [{ stationId: anId('station', 'stn_1'), name: 'A1' }]
    const stop = { stationId: anId('station', 'stn_2'), name: 'A2', looks: [], wants: [], followUps: [] }
    const one = walk({ stops: [stop as never], taskMin: 6, walkMin: 4, left, leftStops: 0.2 })
    expect(walkSentence(one)).toMatch(/^One gun in 10/)
    expect(walkHonesty(one)).toMatch(
      /^6 min at the guns, 4 min of walking\. One gun left; 1 in 5 that one of those stops/,
    )
    expect(walkHonesty({ ...one, left: [] })).toMatch(/Nothing is left\.$/)
  })
})
