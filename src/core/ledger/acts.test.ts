import { describe, expect, it } from 'vitest'
import { ACT_KINDS, ACTS, actsThatRead, bringsWholeAct } from './acts.ts'
import { FACT_KINDS, FACTS, SILENT_FACTS } from './facts.ts'
import { byTime, type Standing } from './resolve.ts'

describe('acts', () => {
  it('each kind is read in one of four ways', () => {
    const sorted = (['all', 'first', 'telling', 'none'] as const).flatMap(actsThatRead)
    expect([...sorted].sort()).toEqual([...ACT_KINDS].sort())
  })
  it('only the first line of an act that is one thing brings the others along', () => {
    const whole = ACT_KINDS.filter((actKind) => bringsWholeAct({ actKind, lineNo: 0 }))
    expect(whole).toEqual(ACT_KINDS.filter((kind) => ACTS[kind].isWhole))
    expect(ACT_KINDS.some((actKind) => bringsWholeAct({ actKind, lineNo: 1 }))).toBe(false)
  })
  it('of which people read only the first line stand and fall as one', () =>
    expect(actsThatRead('first').every((kind) => ACTS[kind].isWhole)).toBe(true))
})

describe('facts', () => {
  it('that say nothing by themselves are settings, reminders, and what only went along', () =>
    expect([...SILENT_FACTS].sort()).toEqual(
      ['followedUp', 'removed', 'setting', 'taskDone', 'tied', 'untied', 'wireLoaded'].sort(),
    ))
  it('at one instant: what hangs first, then what came off, then what went on, a stop, what was said of it', () => {
    const at = (kind: (typeof FACT_KINDS)[number]) =>
      ({ fact: { kind }, happenedMs: 0, loggedMs: 0, eventId: kind }) as unknown as Standing
    const kinds = ['explained', 'stopped', 'cleaned', 'fitted', 'restarted', 'removed', 'mounted'] as const
    expect(
      kinds
        .map(at)
        .sort(byTime)
        .map((s) => s.fact.kind),
    ).toEqual([...kinds].reverse())
  })
  it('whose fields may be put right belong to a place, a feeder, a position, or are not moved', () => {
    const movable = FACT_KINDS.filter((kind) => FACTS[kind].isCorrectable && FACTS[kind].of !== 'fixed')
    expect(movable).toEqual(expect.arrayContaining(['fitted', 'cleaned', 'stopped', 'wireLoaded', 'spoolRead']))
    expect(movable).not.toContain('reading')
  })
})
