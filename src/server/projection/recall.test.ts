import { describe, expect, it } from 'vitest'
import { type CarrierId, type EventId } from '@core/ids/id.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { Recall, StoryStore } from './recall.ts'

const gun = (name: string) => name as CarrierId
const row = (name: string, said = 1) => ({ id: gun(name), said })
const cleaned = (of: string, n: number): Standing => ({
  eventId: `${of}-${n}` as EventId,
  happenedMs: n,
  loggedMs: n,
  precision: 'exact',
  stationId: null,
  fact: { kind: 'cleaned', carrierId: gun(of), position: 'nozzle' },
})
const linesOf = (of: string, n: number) => Array.from({ length: n }, (_, i) => cleaned(of, i))
/** What an act without lines of its own reads and remembers. */
function read(store: StoryStore, ...rows: [string, number][]): void {
  const recall = new Recall(store, [])
  for (const [name, n] of rows) recall.tell(row(name), linesOf(name, n))
  recall.written()
}
const isKnown = (store: StoryStore, name: string, said = 1) => new Recall(store, []).storyOf(row(name, said)) !== null

describe('what a server remembers', () => {
  it('holds for the count it was read under and no other', () => {
    const store = new StoryStore()
    read(store, ['G1', 3])
    expect([1, 2, 0].map((said) => isKnown(store, 'G1', said))).toEqual([true, false, false])
  })
  it('is nothing until what it was read for is written for good', () => {
    const store = new StoryStore()
    const recall = new Recall(store, [])
    recall.tell(row('G1'), linesOf('G1', 2))
    expect(isKnown(store, 'G1')).toBe(false)
    recall.written()
    expect(isKnown(store, 'G1')).toBe(true)
  })
  it('is bounded: what was longest not asked for goes first', () => {
    const store = new StoryStore(100)
    read(store, ['G1', 40])
    read(store, ['G2', 40])
    expect(isKnown(store, 'G1')).toBe(true)
    read(store, ['G3', 40])
    expect(['G1', 'G2', 'G3'].map((name) => isKnown(store, name))).toEqual([true, false, true])
    read(store, ['G4', 500])
    expect(['G1', 'G3', 'G4'].map((name) => isKnown(store, name))).toEqual([false, false, false])
    read(store, ['G5', 40])
    expect(isKnown(store, 'G5')).toBe(true)
  })
  it('of rows it holds for the projection that follows, and for no later one', () => {
    const store = new StoryStore()
    const first = new Recall(store, [])
    first.project([gun('G1')])
    first.see([{ ...row('G1'), revision: 4 }])
    first.keepRows('life', 'G1', new Map([['e1', 11]]))
    first.written()
    const asked = (revision: number) => {
      const next = new Recall(store, [])
      next.project([gun('G1')])
      next.see([{ ...row('G1'), revision }])
      return next.rowsOf('life', ['G1'])
    }
    expect([...(asked(5)?.get('G1') ?? [])]).toEqual([['e1', 11]])
    expect(asked(6)).toBeNull()
    const unlocked = new Recall(store, [])
    unlocked.see([{ ...row('G1'), revision: 4 }])
    expect(unlocked.rowsOf('life', ['G1'])).toBeNull()
  })
  it('clocks made by something else are made anew', () => {
    const store = new StoryStore()
    const none = { kg: null, arcHours: null, starts: null }
    const first = new Recall(store, [])
    first.tell(row('F1'), [])
    first.keepClocks(row('F1'), { madeBy: 'two shifts', clocks: none })
    first.written()
    const next = new Recall(store, [])
    next.storyOf(row('F1'))
    expect(next.clocksOf(row('F1'), 'two shifts')).toBe(none)
    expect(next.clocksOf(row('F1'), 'one shift')).toBeNull()
  })
})
