import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { betaCdf } from '@core/stats/beta.ts'
import { loggingShare } from './loggingshare.ts'

const share = (seen: Parameters<typeof loggingShare>[0]) => {
  const answer = loggingShare(seen)
  if (!answer.ok) throw new Error(answer.reason)
  return answer
}

describe('the share of changes that were logged', () => {
  it('six in ten, when 57 of 105 are and a twentieth goes astray', () => {
    const { share: middle, low, high } = share({ logged: 57, taken: 105, sdTaken: 0 })
    expect(middle).toBeCloseTo(0.575, 2)
    expect(low).toBeGreaterThan(0.46)
    expect(high).toBeLessThan(0.68)
  })
  it('without loss and spread it is the plain Jeffreys band', () => {
    const { low, high } = share({ logged: 7, taken: 10, sdTaken: 0, lossShare: 0 })
    expect(betaCdf(low, 7.5, 3.5)).toBeCloseTo(0.05, 10)
    expect(betaCdf(high, 7.5, 3.5)).toBeCloseTo(0.95, 10)
  })
  it('a wider spread of what was taken widens the band', () => {
    const sharp = share({ logged: 60, taken: 100, sdTaken: 0 })
    const blunt = share({ logged: 60, taken: 100, sdTaken: 20 })
    expect(blunt.high - blunt.low).toBeGreaterThan(1.3 * (sharp.high - sharp.low))
  })
  it('none logged is near nought, more logged than taken near one and said', () => {
    expect(share({ logged: 0, taken: 50, sdTaken: 1 }).high).toBeLessThan(0.06)
    expect(share({ logged: 80, taken: 50, sdTaken: 1 })).toMatchObject({ isOver: true })
    expect(share({ logged: 80, taken: 50, sdTaken: 1 }).low).toBeGreaterThan(0.9)
  })
  it('old parts in a tin were put on, and some never reached it', () => {
    const tin = share({ logged: 57, taken: 100, sdTaken: 0, isOld: true })
    expect(tin.share).toBeCloseTo(57 / (100 / 0.95), 1)
    expect(tin.share).toBeLessThan(share({ logged: 57, taken: 100, sdTaken: 0 }).share)
  })
  it('says nothing on a handful', () =>
    expect(loggingShare({ logged: 2, taken: 4, sdTaken: 0 })).toEqual({ ok: false, reason: 'only 4 taken' }))
  it('its band holds the truth about nine times in ten', () => {
    const random = makeRandom(77)
    let held = 0
    const RUNS = 600
    for (let run = 0; run < RUNS; run++) {
      const truth = 0.3 + 0.65 * random()
      const taken = 40 + Math.floor(160 * random())
      let logged = 0
      for (let i = 0; i < taken; i++) if (random() > 0.05 && random() < truth) logged++
      const { low, high } = share({ logged, taken, sdTaken: 0 })
      if (truth >= low && truth <= high) held++
    }
    expect(held / RUNS).toBeGreaterThan(0.87)
    expect(held / RUNS).toBeLessThan(0.97)
  })
  it('refuses what can’t be', () => {
    expect(() => loggingShare({ logged: -1, taken: 5, sdTaken: 0 })).toThrow(RangeError)
    expect(() => loggingShare({ logged: 1, taken: 5, sdTaken: 0, lossShare: 0.5 })).toThrow(RangeError)
  })
})
