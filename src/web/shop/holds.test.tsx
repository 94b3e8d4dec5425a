import { describe, expect, it } from 'vitest'
import { render, screen } from '@testing-library/react'
import { judgeHolding, type Holding } from '@core/holding/holding.ts'
import { type HoldingAnswer } from '@contract/holding.ts'
import { HoldsView } from './Holds.tsx'
import { bytesWords, HELD_WORDS, holdingSentence } from './holdwords.ts'

const NOW = Date.UTC(2026, 10, 23, 12)
const HOUR = 3_600_000
function answer(over: Partial<HoldingAnswer> = {}): HoldingAnswer {
  const at: Omit<HoldingAnswer, 'lines'> = {
    ...{ nowMs: NOW, zone: 'UTC', isDemo: false, upSinceMs: NOW - 5 * HOUR },
    ...{ answeredMs: 3, databaseBytes: 85e6, clockAheadMs: 0, countingSinceMs: null },
    backups: { isKept: true, newestMs: NOW - 9 * HOUR, count: 3, bytes: 60e6 },
    disk: { freeBytes: 81e9, totalBytes: 271e9 },
    feeders: [],
    ...{ refusals: [], refused: 0 },
    ...over,
  }
  return { ...at, lines: judgeHolding({ ...at, sinceMs: NOW - 900 * HOUR } satisfies Holding) }
}
const said = (over: Partial<HoldingAnswer>) => {
  const { container } = render(<HoldsView at={answer(over)} />)
  return container.textContent ?? ''
}

describe('how it holds up, in words', () => {
  it('says that all is well, and that a copy belongs elsewhere', () => {
    const text = said({})
    expect(text).toContain('All is well.')
    expect(text).toContain('The newest is 9 h old (03:00), checked by putting it back beside; 3 kept, 60 MB.')
    expect(text).toContain('off this machine')
    expect(text).not.toContain('npm run backup')
  })
  it('says first what has to be done today, and how', () => {
    const old = { isKept: true, newestMs: NOW - 220 * HOUR, count: 1, bytes: 1e6 }
    expect(holdingSentence(answer({ backups: old, refused: 2 }))).toBe('Needs somebody today: back-ups.')
    expect(said({ backups: old })).toContain('npm run backup')
  })
  it('names feeders that are silent, never came or have a clock of their own, and what that may mean', () => {
    const feeder = (name: string, heardMs: number | null, clockOffMs = 0) => ({ name, heardMs, clockOffMs })
    const feeders = [
      feeder('F-1', NOW),
      feeder('F-2', NOW - 9 * HOUR),
      feeder('F-3', null),
      feeder('F-4', NOW, 400_000),
    ]
    const text = said({ feeders })
    expect(text).toContain('1 of 4 have sent nothing for three hours: F-2. Never heard: F-3.')
    expect(text).toContain('off by over two minutes: F-4')
    expect(text).toContain('switched off is silent too')
  })
  it('tells what devices brought that was refused: by whom, when and why', () => {
    const why = 'That time is still to come. Set the device’s clock.'
    said({ refused: 1, refusals: [{ atMs: NOW - HOUR, from: 'bay tablet', why }] })
    expect(screen.getAllByText(/bay tablet/)[0]?.textContent).toContain(why)
    expect(screen.getByText(/1 entry noted without a link/)).toBeTruthy()
  })
  it('says of a clock that was set back by how much and what follows', () =>
    expect(HELD_WORDS.clock(answer({ clockAheadMs: 2 * HOUR })).is).toMatch(/set back by 2 h/))
  it('says what it is not told, and what a demo does not keep', () => {
    expect(said({ disk: null, backups: null })).toMatch(/not told where back-ups lie.*not told which disk/)
    expect(said({ isDemo: true })).toContain('a demo is built anew')
  })
  it.each([
    [1, '1 MB'],
    [85e6, '85 MB'],
    [2.34e9, '2.3 GB'],
    [81.2e9, '81 GB'],
  ])('%d bytes are %s', (bytes, words) => expect(bytesWords(bytes)).toBe(words))
})
