import { describe, expect, it } from 'vitest'
import { actOf, logStep, UNTOUCHED_MS, type LogState } from './logkeys.ts'

const tip = { act: 'changed' as const, position: 'tip' as const }
const asking = logStep({ step: 'choosing' }, { type: 'chose', choice: tip }, 1000).state

describe('the two-tap log', () => {
  it('asks why after a change, and sends after the second tap', () => {
    expect(asking.step).toBe('asking')
    expect(logStep(asking, { type: 'reason', reason: 'worn' }, 1500)).toMatchObject({
      state: { step: 'choosing' },
      send: { choice: tip, reason: 'worn', count: 1 },
    })
  })
  it('sends a cleaning, a spool, a stoppage at once', () => {
    for (const act of ['cleaned', 'newSpool', 'down'] as const)
      expect(logStep({ step: 'choosing' }, { type: 'chose', choice: { act, position: null } }, 0).send).not.toBeNull()
  })
  it('untouched for eight seconds is "not said", not a moment sooner', () => {
    expect(logStep(asking, { type: 'tick' }, 1000 + UNTOUCHED_MS - 1).send).toBeNull()
    expect(logStep(asking, { type: 'tick' }, 1000 + UNTOUCHED_MS).send).toMatchObject({ reason: 'notSaid' })
  })
  it('×2 and earlier start the eight seconds again, and a second tap on ×2 takes it back', () => {
    const twice = logStep(asking, { type: 'times', count: 2 }, 5000).state
    expect(twice).toMatchObject({ count: 2, sinceMs: 5000 })
    expect(logStep(twice, { type: 'times', count: 2 }, 6000).state).toMatchObject({ count: 1 })
    expect(logStep(twice, { type: 'earlier' }, 6000).state).toMatchObject({ isEarlier: true, sinceMs: 6000 })
  })
  it('going back logs nothing, and nothing is sent twice', () => {
    expect(logStep(asking, { type: 'back' }, 2000)).toEqual({ state: { step: 'choosing' }, send: null })
    const done: LogState = logStep(asking, { type: 'reason', reason: 'worn' }, 2000).state
    expect(logStep(done, { type: 'reason', reason: 'worn' }, 2001).send).toBeNull()
    expect(logStep(done, { type: 'tick' }, 99_999).send).toBeNull()
  })
  it('"earlier today" carries the width of a shift', () => {
    expect(actOf('stn_1', { choice: tip, reason: 'worn', count: 2, isEarlier: true }, 10_000_000)).toMatchObject({
      happenedMs: 2_800_000,
      precision: 'shift',
      count: 2,
    })
    expect(actOf('stn_1', { choice: tip, reason: 'worn', count: 1, isEarlier: false }, 1)).not.toHaveProperty(
      'happenedMs',
    )
  })
})
