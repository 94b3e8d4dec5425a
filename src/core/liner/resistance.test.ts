import { describe, expect, it } from 'vitest'
import { judgePush, kinkedAt } from './resistance.ts'

const gun = { cableMm: 3000, neckMm: 180, isKinked: false, before: [] }

describe('a liner on its way in', () => {
  it('glides', () => expect(judgePush({ ...gun, metAtMm: null })).toEqual({ is: 'glides' }))
  it('kinked is scrap, whatever else is told', () => {
    expect(judgePush({ ...gun, metAtMm: null, isKinked: true })).toEqual({ is: 'scrap' })
    const before = [{ atMm: 1500, atMs: 1 }]
    expect(judgePush({ ...gun, metAtMm: 1500, isKinked: true, before })).toEqual({ is: 'scrap' })
  })
  it('stuck once asks for a straight cable, and for short pushes in the neck', () => {
    expect(judgePush({ ...gun, metAtMm: 1500 })).toEqual({ is: 'straighten' })
    expect(judgePush({ ...gun, metAtMm: 3100 })).toEqual({ is: 'neck' })
  })
  it('stuck where another stuck before is the cable; elsewhere it is not', () => {
    const before = [{ atMm: 1450, atMs: 7 }]
    expect(judgePush({ ...gun, metAtMm: 1500, before })).toEqual({ is: 'cable', before: before[0] })
    expect(judgePush({ ...gun, metAtMm: 1551, before })).toEqual({ is: 'straighten' })
  })
  it('every liner is stiff in the neck: twice there says nothing of the cable', () =>
    expect(judgePush({ ...gun, metAtMm: 3100, before: [{ atMm: 3090, atMs: 7 }] })).toEqual({ is: 'neck' }))
  it('refuses a place the gun does not have', () => {
    expect(() => judgePush({ ...gun, metAtMm: 3200 })).toThrow('judgePush')
    expect(() => judgePush({ ...gun, metAtMm: -5 })).toThrow('judgePush')
  })
})

describe('a cable that holds liners back', () => {
  const at = (...places: number[]) =>
    kinkedAt(
      places.map((atMm, i) => ({ atMm, atMs: i })),
      3000,
    )
  it('two at one place tell it, from the second on', () => {
    expect(at(1400)).toBeNull()
    expect(at(1400, 1600)).toBeNull()
    expect(at(1400, 1600, 1480)).toEqual({ atMm: 1480, atMs: 2 })
  })
  it('in the neck any liner sticks', () => expect(at(2950, 2960)).toBeNull())
})
