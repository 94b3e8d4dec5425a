import { describe, expect, it } from 'vitest'
import { steadyClock } from './clock.ts'

const HOUR = 3_600_000
/** A machine's clock that can be set, and the time that passes whatever it says. */
function machine() {
  const at = { wall: 1_000_000_000, passed: 0 }
  return {
    at,
    clock: steadyClock(
      () => at.wall,
      () => at.passed,
    ),
    pass: (ms: number) => {
      at.wall += ms
      at.passed += ms
    },
  }
}

describe('a steady clock', () => {
  it('is the machine’s own while that goes on, forward jumps and all', () => {
    const { at, clock, pass } = machine()
    pass(5000)
    expect(clock.now()).toBe(at.wall)
    at.wall += HOUR
    expect(clock.now()).toBe(at.wall)
    expect(clock.aheadMs()).toBe(0)
  })
  it('set back an hour goes on, never back, and meets it again in ten', () => {
    const { at, clock, pass } = machine()
    const before = clock.now()
    at.wall -= HOUR
    let last = clock.now()
    expect(last).toBe(before)
    expect(clock.aheadMs()).toBe(HOUR)
    for (let minutes = 0; minutes < 600; minutes++) {
      pass(60_000)
      const now = clock.now()
      expect(now).toBeGreaterThan(last)
      last = now
    }
    expect(last).toBe(at.wall)
    pass(60_000)
    expect(clock.now()).toBe(at.wall)
    expect(clock.aheadMs()).toBe(0)
  })
  it('begins after what another run wrote down', () => {
    const { at, clock, pass } = machine()
    clock.notBefore(at.wall + 1000)
    pass(10)
    expect(clock.now()).toBe(at.wall - 10 + 1000 + 9)
    clock.notBefore(0)
    expect(clock.now()).toBeGreaterThan(at.wall)
  })
})
