import { describe, expect, it } from 'vitest'
import { JOINTS, type Joint, type TightnessStep } from './facts.ts'
import { adviseJoint, LEAST_STEP, USUAL_STEP, type JointFault } from './joints.ts'

const of = (faults: JointFault[], made: number, step: TightnessStep, joint: Joint = 'diffuser') =>
  adviseJoint(faults, { joint, made, step })
const times = (n: number, fault: JointFault) => Array<JointFault>(n).fill(fault)

describe('how tight a joint is made', () => {
  it('goes one slacker when seizing outweighs coming loose by more than chance', () => {
    const advice = of([...times(12, 'seized'), ...times(1, 'cameLoose')], 400, 3, 'clampring')
    expect(advice).toMatchObject({ advise: 'one slacker', to: 2, slack: 1, tight: 12 })
    expect(advice.tightRate?.rate).toBeCloseTo(3, 9)
  })
  it('goes one tighter the other way round, and never past firm', () => {
    expect(of(times(9, 'turnedAlong'), 300, 3)).toMatchObject({ advise: 'one tighter', to: 4 })
    expect(of(times(9, 'turnedAlong'), 300, 4)).toMatchObject({ advise: 'stay', to: null })
  })
  it('stays while the intervals touch, and says when they are too few', () => {
    expect(of([...times(5, 'seized'), ...times(4, 'cameLoose')], 300, 3).advise).toBe('stay')
    expect(of(times(2, 'stripped'), 300, 3).advise).toBe('too few to tell')
  })
  it('no joint goes slacker than it can bear: a tip gets a nip, whatever seized', () => {
    for (const joint of JOINTS) {
      const least = LEAST_STEP[joint]
      expect(of(times(40, 'stripped'), 400, least, joint), joint).toMatchObject({
        advise: 'stay',
        why: 'least',
        to: null,
      })
      expect(USUAL_STEP[joint], joint).toBeGreaterThanOrEqual(least)
    }
    expect(of(times(40, 'seized'), 400, 3, 'tip')).toMatchObject({ advise: 'one slacker', to: 2 })
  })
  it('what is rare is no reason for another habit', () =>
    expect(of(times(14, 'stripped'), 3961, 3, 'tip')).toMatchObject({ advise: 'stay', why: 'rare' }))
  it('weighs what one costs: as many stripped as came loose speak for one slacker', () => {
    const faults = [...times(16, 'cameLoose'), ...times(16, 'stripped')]
    const advice = of(faults, 400, 3)
    expect(advice).toMatchObject({ slack: 16, tight: 16, advise: 'one slacker', to: 2 })
    expect(advice.slackMin).toBeCloseTo(24, 9)
    expect(advice.tightMin).toBeCloseTo(80, 9)
  })
  it('a crooked nozzle says nothing of how tight it was made; why it stood so is counted', () =>
    expect(of([...times(3, 'askewInsulator'), 'askewThread'], 200, 1, 'nozzle')).toMatchObject({
      ...{ slack: 0, tight: 0, crossed: 0, advise: 'too few to tell' },
      askew: { askewInsulator: 3, askewThread: 1 },
    }))
  it('counts crossed threads for neither side', () =>
    expect(of(times(30, 'crossThreaded'), 300, 2)).toMatchObject({ advise: 'too few to tell', crossed: 30 }))
})
