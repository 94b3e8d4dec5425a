import { describe, expect, it } from 'vitest'
import { adviseJoint, type JointFault } from './joints.ts'

const times = (n: number, fault: JointFault) => Array<JointFault>(n).fill(fault)

describe('how tight a joint is made', () => {
  it('goes one slacker when seizing outweighs coming loose by more than chance', () => {
    const advice = adviseJoint([...times(12, 'seized'), ...times(1, 'cameLoose')], 400, 3)
    expect(advice).toMatchObject({ advise: 'one slacker', to: 2, slack: 1, tight: 12 })
    expect(advice.tightRate?.rate).toBeCloseTo(3, 9)
  })
  it('goes one tighter the other way round, and never past firm', () => {
    expect(adviseJoint(times(9, 'turnedAlong'), 300, 3)).toMatchObject({ advise: 'one tighter', to: 4 })
    expect(adviseJoint(times(9, 'turnedAlong'), 300, 4)).toMatchObject({ advise: 'stay', to: null })
  })
  it('stays while the intervals touch, and says when they are too few', () => {
    expect(adviseJoint([...times(5, 'seized'), ...times(4, 'cameLoose')], 300, 3).advise).toBe('stay')
    expect(adviseJoint(times(2, 'stripped'), 300, 3).advise).toBe('too few to tell')
  })
  it('counts crossed threads for neither side', () =>
    expect(adviseJoint(times(30, 'crossThreaded'), 300, 2)).toMatchObject({ advise: 'too few to tell', crossed: 30 }))
})
