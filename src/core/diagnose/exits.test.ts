import { describe, expect, it } from 'vitest'
import { CAUSES } from './shipped/causes.ts'
import { EXITS, isExit } from './exits.ts'

describe('causes that are not the feed', () => {
  it('are known, lie off the wire, and are of no part of a gun', () => {
    for (const key of EXITS) {
      const cause = CAUSES.find((c) => c.key === key)
      expect(cause, key).toMatchObject({ at: 'off' })
      expect(['elsewhere', 'hand']).toContain(cause?.kind)
      expect(cause?.fix.act ?? null, key).toBeNull()
    }
  })
  it('what bends the wire, a gun too small and a crash are the gun’s', () =>
    expect(['bentEnd', 'torchSmall', 'crash', 'tipWorn', null].map(isExit)).toEqual([
      false,
      false,
      false,
      false,
      false,
    ]))
})
