import { describe, expect, it } from 'vitest'
import { HOUR_MS, MIN_MS } from '@core/units/time.ts'
import { makeSchedule } from './schedule.ts'
import { windowAt, type Booked } from './window.ts'

/** Work from 7 to 9:15 and from 9:30 to 15. */
const day = makeSchedule([
  { fromMs: 7 * HOUR_MS, toMs: 9.25 * HOUR_MS },
  { fromMs: 9.5 * HOUR_MS, toMs: 15 * HOUR_MS },
  { fromMs: 31 * HOUR_MS, toMs: 39 * HOUR_MS },
])
const reed: Booked = { is: 'class', name: 'Reed', fromMs: 10 * HOUR_MS, toMs: 11.5 * HOUR_MS }
const ash: Booked = { is: 'class', name: 'Ash', fromMs: 12 * HOUR_MS, toMs: 13 * HOUR_MS }
const stop: Booked = { is: 'stop', name: 'Cells stand', fromMs: 13 * HOUR_MS, toMs: 14 * HOUR_MS }
const at = (hour: number, ...booked: Booked[]) => windowAt(day, booked, hour * HOUR_MS)

describe('when the guns of a place stand still next', () => {
  it('goes by the shifts where nothing is booked', () => {
    expect(at(8)).toEqual({ atMs: 9.25 * HOUR_MS, byMs: 9.25 * HOUR_MS, isKnown: true, of: null })
    expect(windowAt(null, [], 0)).toMatchObject({ isKnown: false, of: null })
  })
  it('in a class it is its end; in one’s last minutes what comes after', () => {
    expect(at(10.5, reed, ash)).toMatchObject({
      atMs: reed.toMs,
      byMs: reed.toMs,
      of: { is: 'classEnds', name: 'Reed' },
    })
    expect(at(11.4, reed, ash)).toMatchObject({
      atMs: ash.toMs,
      byMs: ash.fromMs,
      of: { is: 'classBegins', name: 'Ash' },
    })
  })
  it('before a class hands are wanted before it begins, for what comes due until it ends', () => {
    expect(at(9.6, ash, reed)).toMatchObject({
      atMs: reed.toMs,
      byMs: reed.fromMs,
      of: { is: 'classBegins', name: 'Reed' },
    })
  })
  it('a break that comes before a class stays the window', () => {
    expect(at(8, reed)).toMatchObject({ atMs: 9.25 * HOUR_MS, of: null })
    const early: Booked = { ...reed, fromMs: 8.5 * HOUR_MS, toMs: 10 * HOUR_MS }
    expect(at(8, early).of?.is).toBe('classBegins')
    expect(at(8.6, early)).toMatchObject({ atMs: 9.25 * HOUR_MS, of: null })
  })
  it('a planned stop is one when it begins; while it lasts the work after it counts', () => {
    expect(at(11.6, stop)).toMatchObject({ atMs: stop.fromMs, of: { is: 'stopBegins', name: 'Cells stand' } })
    expect(at(13.5, stop)).toMatchObject({ atMs: 15 * HOUR_MS, of: null })
  })
  it('goes by classes alone where nobody told the shifts', () => {
    expect(windowAt(null, [ash], 0)).toMatchObject({ byMs: ash.fromMs, atMs: ash.toMs, isKnown: true })
    expect(windowAt(null, [reed], 11.5 * HOUR_MS)).toMatchObject({ isKnown: false, of: null })
  })
  it('in the evening the next morning’s class comes before its break', () => {
    const morning: Booked = { ...reed, fromMs: 31.5 * HOUR_MS, toMs: 33 * HOUR_MS }
    expect(at(20, morning)).toMatchObject({ byMs: 31.5 * HOUR_MS, atMs: 33 * HOUR_MS })
  })
  it('is never in the past, and hands are never wanted later than it', () => {
    for (let m = 0; m < 40 * 60; m += 7) {
      const w = windowAt(day, [reed, ash, stop], m * MIN_MS)
      expect(w.byMs).toBeGreaterThan(m * MIN_MS)
      expect(w.byMs).toBeLessThanOrEqual(w.atMs)
    }
  })
})
