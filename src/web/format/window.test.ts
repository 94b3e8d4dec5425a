import { describe, expect, it } from 'vitest'
import { windowWords } from './window.ts'

const NOW = Date.UTC(2026, 10, 2, 8)
const at = (hours: number, of: Parameters<typeof windowWords>[0]['of']) =>
  windowWords({ atMs: NOW + 9e7, byMs: NOW + hours * 3_600_000, isKnown: true, of }, NOW, 'UTC')

describe('before when hands are wanted', () => {
  it.each([
    [1.25, null, '09:15'],
    [1, { is: 'classBegins' as const, name: 'Reed' }, 'Reed’s class begins at 09:00'],
    [2.5, { is: 'classEnds' as const, name: 'Reed' }, 'Reed’s class ends at 10:30'],
    [6, { is: 'stopBegins' as const, name: 'Cells stand' }, 'the planned stop at 14:00'],
    [25, { is: 'classBegins' as const, name: 'Reed' }, 'Reed’s class begins, tomorrow 09:00'],
  ])('in %d h, %o: %s', (hours, of, words) => expect(at(hours, of)).toBe(words))
})
