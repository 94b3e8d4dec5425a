import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { addJobs, JOB_SHAPE, learnForFamily, learnMinutes, NO_JOBS, workedMinutes } from './learn.ts'

const jobs = (...minutes: number[]) => ({ n: minutes.length, sumMin: minutes.reduce((s, m) => s + m, 0) })
/** Gamma of whole shape: a sum of exponentials. */
const drawJob = (random: () => number, mean: number) => {
  let sum = 0
  for (let i = 0; i < JOB_SHAPE; i++) sum -= Math.log(1 - random())
  return (sum * mean) / JOB_SHAPE
}

describe('minutes learnt', () => {
  it('are the default where nothing was logged, with its spread', () => {
    const { mean, median, p80, n } = learnMinutes(20, NO_JOBS)
    expect(mean).toBe(20)
    expect(n).toBe(0)
    expect(median).toBeLessThan(20)
    expect(p80).toBeGreaterThan(24)
  })
  it('weigh the default as four jobs', () => expect(learnMinutes(20, jobs(30, 28)).mean).toBeCloseTo(23, 12))
  it('end at what the shop takes', () => {
    const random = makeRandom(3)
    const learnt = learnMinutes(20, jobs(...Array.from({ length: 400 }, () => drawJob(random, 35))))
    expect(learnt.mean).toBeGreaterThan(33)
    expect(learnt.mean).toBeLessThan(37)
  })
  it('are kept in four of five jobs, drawn from the world the model assumes', () => {
    const random = makeRandom(11)
    let within = 0
    for (let shop = 0; shop < 3000; shop++) {
      // A shop's own mean is 20·4k / Gamma(4k + 1): the prior of the model, from the sum of exponentials.
      let rate = 0
      for (let i = 0; i < 4 * JOB_SHAPE + 1; i++) rate -= Math.log(1 - random())
      const mean = (JOB_SHAPE * 4 * 20) / rate
      const three = jobs(...Array.from({ length: 3 }, () => drawJob(random, mean)))
      if (drawJob(random, mean) <= learnMinutes(20, three).p80) within++
    }
    expect(within / 3000).toBeGreaterThan(0.78)
    expect(within / 3000).toBeLessThan(0.82)
  })
  it('refuse what is no time', () => {
    expect(() => learnMinutes(0, NO_JOBS)).toThrow('learnMinutes')
    expect(() => learnMinutes(20, jobs(5, NaN))).toThrow('learnMinutes')
  })
})

describe('for a family', () => {
  it('other families stand in until it has its own', () => {
    const [a, b] = [jobs(40, 40, 40, 40), jobs(10)]
    expect(learnForFamily(20, NO_JOBS, addJobs(a, b)).mean).toBeCloseTo((4 * 20 + 160 + 10) / 9, 12)
    expect(learnForFamily(20, a, b).mean).toBeCloseTo((4 * 18 + 160) / 8, 12)
    expect(learnForFamily(20, a, b).n).toBe(4)
  })
})

describe('a pause', () => {
  it('counts what the step usually takes, unless somebody said why', () => {
    const step = { minutes: 45, usualMin: 3, reason: null }
    expect(workedMinutes([{ minutes: 2, usualMin: 3, reason: null }, step])).toBe(5)
    expect(workedMinutes([{ ...step, reason: 'stuck in the O-rings' }])).toBe(45)
    expect(workedMinutes([{ ...step, usualMin: 50 }])).toBe(45)
    expect(() => workedMinutes([{ ...step, minutes: -1 }])).toThrow('workedMinutes')
  })
})
