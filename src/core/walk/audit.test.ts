import { describe, expect, it } from 'vitest'
import { SETTINGS } from '@core/rightparts/facts.ts'
import { AUDIT_KEYS, auditCounts } from './audit.ts'

describe('what booths lack', () => {
  it('is counted by thing, the most first; places nobody looked at are told apart', () => {
    const made = auditCounts([
      { gripTip: 'missing', hangGun: 'missing' },
      { gripTip: 'there', hangGun: 'missing' },
      { gripTip: 'there' },
      {},
    ])
    expect(made).toEqual({
      lacking: [
        { key: 'hangGun', places: 2 },
        { key: 'gripTip', places: 1 },
      ],
      lackingPlaces: 2,
      unseenPlaces: 1,
    })
  })
  it('each is something that can be said of a place', () => {
    for (const key of AUDIT_KEYS) expect(SETTINGS).toContain(key)
  })
})
