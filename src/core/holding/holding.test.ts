import { describe, expect, it } from 'vitest'
import { HELD, judgeHolding, silentFeeders, worstOf, type Held, type Holding } from './holding.ts'

const DAY = 86_400_000
const NOW = Date.UTC(2026, 10, 23, 12)
const WELL: Holding = {
  nowMs: NOW,
  sinceMs: NOW - 90 * DAY,
  answeredMs: 2,
  backups: { isKept: true, newestMs: NOW - 3 * 3_600_000, count: 4, bytes: 80e6 },
  disk: { freeBytes: 90e9, totalBytes: 200e9 },
  clockAheadMs: 0,
  feeders: [{ name: 'F-1', heardMs: NOW - 4000, clockOffMs: 0 }],
  countingSinceMs: null,
  refused: 0,
}
const levelOf = (what: Held, over: Partial<Holding>) =>
  judgeHolding({ ...WELL, ...over }).find((line) => line.what === what)?.level
const backups = (newestMs: number | null, over = {}) => ({
  backups: { isKept: true, newestMs, count: newestMs === null ? 0 : 3, bytes: 90e6, ...over },
})

describe('how the program holds up', () => {
  it('says every line, and well of one that is', () =>
    expect(judgeHolding(WELL)).toEqual(HELD.map((what) => ({ what, level: 'well' }))))
  it.each<[Held, string, Partial<Holding>]>([
    ['database', 'look', { answeredMs: 400 }],
    ['database', 'act', { answeredMs: 2500 }],
    ['backups', 'well', backups(NOW - 1.9 * DAY)],
    ['backups', 'look', backups(NOW - 2.1 * DAY)],
    ['backups', 'act', backups(NOW - 8 * DAY)],
    ['backups', 'act', backups(null)],
    ['backups', 'well', { ...backups(null), sinceMs: NOW - 0.5 * DAY }],
    ['backups', 'well', { ...backups(null), sinceMs: null }],
    ['backups', 'look', { ...backups(null), sinceMs: NOW - 3 * DAY }],
    ['backups', 'well', backups(null, { isKept: false })],
    ['backups', 'unknown', { backups: null }],
    ['disk', 'look', { disk: { freeBytes: 3e9, totalBytes: 20e9 } }],
    ['disk', 'look', { disk: { freeBytes: 9e9, totalBytes: 500e9 } }],
    ['disk', 'act', { disk: { freeBytes: 0.9e9, totalBytes: 20e9 } }],
    // A big shop’s back-up needs room to be checked beside it.
    ['disk', 'act', { disk: { freeBytes: 9e9, totalBytes: 20e9 }, ...backups(NOW, { count: 2, bytes: 4e9 }) }],
    ['disk', 'unknown', { disk: null }],
    ['clock', 'look', { clockAheadMs: 3_600_000 }],
    ['feeders', 'look', { feeders: [{ name: 'F-2', heardMs: NOW - 4 * 3_600_000, clockOffMs: 0 }] }],
    ['feeders', 'look', { feeders: [{ name: 'F-2', heardMs: NOW, clockOffMs: -300_000 }] }],
    ['counting', 'look', { countingSinceMs: NOW - 20 * 60_000 }],
    ['counting', 'act', { countingSinceMs: NOW - 2 * 3_600_000 }],
    ['refused', 'look', { refused: 1 }],
  ])('%s: %s', (what, level, over) => expect(levelOf(what, over)).toBe(level))
  it('takes no feeder for silent that never sent anything', () =>
    expect(silentFeeders({ nowMs: NOW, feeders: [{ name: 'new', heardMs: null, clockOffMs: 0 }] })).toEqual([]))
  it('goes by the worst', () => {
    expect(worstOf(['well', 'look', 'act'])).toBe('act')
    expect(worstOf(['well', 'unknown', 'look'])).toBe('look')
    expect(worstOf([])).toBe('well')
  })
})
