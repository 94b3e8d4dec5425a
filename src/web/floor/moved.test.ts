import { describe, expect, it } from 'vitest'
import { floorGun, floorOf } from '@web/testing/samples.ts'
import { afterMove } from './moved.ts'

const [a1, a2] = [floorGun('A1'), floorGun('A2')]
const before = floorOf([a1, a2], { stamp: 'x-1', tags: 0 })

describe('a floor of which some was told again', () => {
  it('has the told gun in its place and leaves the others as they were', () => {
    const parked = { ...a1, isParked: true }
    const after = afterMove(before, { ...floorOf([parked], { stamp: 'x-2', tags: 3 }), isWhole: false })
    expect(after.guns).toEqual([parked, a2])
    expect(after.guns[1]).toBe(a2)
    expect([after.stamp, after.tags]).toEqual(['x-2', 3])
    expect('isWhole' in after).toBe(false)
  })
  it('told whole is what was told', () => {
    const whole = floorOf([a2], { stamp: 'y-1' })
    expect(afterMove(before, { ...whole, isWhole: true })).toEqual(whole)
  })
})
