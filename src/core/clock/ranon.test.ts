import { describe, expect, it } from 'vitest'
import { HOUR_MS } from '@core/units/time.ts'
import { ranOn } from './clock.ts'
import { makeSchedule } from './schedule.ts'

const schedule = makeSchedule([
  { fromMs: 0, toMs: 8 * HOUR_MS },
  { fromMs: 24 * HOUR_MS, toMs: 32 * HOUR_MS },
])
const runOn = { fromMs: 2 * HOUR_MS, perWorkedHour: 0.5 }
const at = (nowH: number, sinceH: number[] = []) => ({
  schedule,
  sinceMs: sinceH.map((h) => h * HOUR_MS),
  nowMs: nowH * HOUR_MS,
})

describe('what ran on since the last entry', () => {
  it('counts time worked, not time passed', () => {
    expect(ranOn(runOn, at(6))).toBe(2)
    expect(ranOn(runOn, at(20))).toBe(3)
    expect(ranOn(runOn, at(26))).toBe(4)
  })
  it('from the latest of what it is counted for: the part went on later than the last entry', () => {
    expect(ranOn(runOn, at(8, [4]))).toBe(2)
    expect(ranOn(runOn, at(8, [1, 5]))).toBe(1.5)
    expect(ranOn(runOn, at(8, [1]))).toBe(3)
  })
  it('is nothing where no clock runs on', () => {
    expect(ranOn(null, at(8))).toBe(0)
    expect(ranOn(undefined, at(8))).toBe(0)
  })
})
