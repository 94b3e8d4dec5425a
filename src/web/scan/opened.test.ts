import { describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { openedBy } from './opened.ts'

describe('a code that opens', () => {
  it.each([
    [null, '/gun/stn_a'],
    ['beforeClass' as const, '/before-class?gun=stn_a&name=Cell+2'],
    ['pairs' as const, '/pairs'],
  ])('of %s leads to %s', (page, path) =>
    expect(openedBy({ page, stationId: anId('station', 'stn_a'), stationName: 'Cell 2' })).toBe(path),
  )
})
