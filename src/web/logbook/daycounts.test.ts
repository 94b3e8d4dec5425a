import { describe, expect, it } from 'vitest'
import { type CarrierId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { line } from '@web/testing/samples.ts'
import { dayCounts } from './daycounts.ts'

const carrierId = 'car_1' as CarrierId
const tip = (count: number): Fact => ({
  ...({ kind: 'fitted', carrierId, position: 'tip', partId: null } as const),
  ...({ count, entryAge: 'new', outReason: 'worn' } as const),
})
const told = (fact: Fact, stationName: string | null = 'A1', over: object = {}) => line({ fact, stationName, ...over })

describe('what a day came to', () => {
  it('counts parts by how many were put on, and what else was done by how often, most first', () => {
    const { did } = dayCounts([
      told(tip(2)),
      told(tip(1), 'A2'),
      told({ kind: 'cleaned', carrierId, position: 'nozzle' }),
      told({ kind: 'stopped', carrierId, position: null }),
      told({ kind: 'restarted', carrierId }),
    ])
    expect(did).toEqual([
      { says: 'tip put on', n: 3 },
      { says: 'nozzle cleaned', n: 1 },
      { says: 'went down', n: 1 },
    ])
  })
  it('leaves out what was taken back', () =>
    expect(dayCounts([told(tip(1), 'A1', { standing: 'withdrawn' })])).toEqual({ did: [], guns: [] }))
  it('names guns that had hands on them more than once, and no more than six', () => {
    const lines = Array.from({ length: 9 }, (_, i) => [told(tip(1), `A${i}`), told(tip(1), `A${i}`)]).flat()
    const { guns } = dayCounts([...lines, told(tip(1), 'A3'), told(tip(1), 'B1'), told(tip(1), null)])
    expect(guns).toHaveLength(6)
    expect(guns[0]).toEqual({ says: 'A3', n: 3 })
    expect(guns.map((g) => g.says)).not.toContain('B1')
  })
})
