import { describe, expect, it } from 'vitest'
import { deviceSentence, heldSentence, placeOfEntry, storageSentence } from './devicewords.ts'
import { EMPTY, type Entry } from '@web/offline/queue.ts'

const MIN = 60_000
const entry = (key: string, atMs: number): Entry => ({ key, kind: 'post', path: '/reading', body: {}, atMs, says: key })
const said = (waiting: Entry[], photos = 0) =>
  deviceSentence({ state: { ...EMPTY, waiting }, photos, nowMs: 60 * MIN, zone: 'UTC' })

describe('what a device says of itself', () => {
  it('what waits and since when', () => {
    expect(said([])).toBe('Nothing waits on this device.')
    expect(said([entry('a', 40 * MIN)])).toBe('One entry waits on this device since 00:40.')
    expect(said([entry('a', 30 * MIN), entry('b', 50 * MIN)], 1)).toBe(
      'Two entries and one photo wait on this device, the oldest since 00:30.',
    )
    expect(said([], 3)).toBe('Three photos wait on this device.')
  })
  it('which gun it is of, whatever it is', () => {
    expect(placeOfEntry({ stationId: 'stn_1' })).toBe('stn_1')
    expect(placeOfEntry({ acts: [{ stationId: 'stn_2' }] })).toBe('stn_2')
    expect(placeOfEntry({ stationIds: ['stn_3', 'stn_4'] })).toBeNull()
    expect(placeOfEntry({})).toBeNull()
  })
  it('something that was refused is not nothing', () => {
    const refused = [{ entry: entry('a', 0), message: 'No such place.' }]
    expect(deviceSentence({ state: { ...EMPTY, refused }, photos: 0, nowMs: 0, zone: 'UTC' })).toBe(
      'Not all of it was taken.',
    )
  })
  it('what it holds, and whether the browser keeps it', () => {
    const of = { name: 'Tablet 2', areaId: 'area_a', nowMs: 60 * MIN }
    expect(heldSentence({ ...of, heldMs: 50 * MIN })).toContain('held whole, as of 10 min ago')
    expect(heldSentence({ ...of, heldMs: null })).toContain('not held whole yet')
    expect(heldSentence({ ...of, areaId: null, heldMs: null })).toContain('what was opened on it')
    expect(storageSentence('notPromised')).toContain('home screen')
    expect(storageSentence('kept')).not.toContain('home screen')
  })
})
