import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { type WalkStop } from '@contract/walk.ts'
import { beginWalk, hasFound, isOver, nextLook, walkStep, type WalkEvent } from './walkstate.ts'

const stop = (name: string): WalkStop => ({
  stationId: anId('station', `stn_${name}`),
  name,
  areaName: 'Hall',
  minutes: 1,
  looks: (['bore', 'nozzleOpen'] as const).map((what) => ({ what, lastMs: null, chance: 0.1 })),
  wants: [],
  followUps: [],
  isCell: false,
})
const begun = beginWalk({ stops: [stop('a1'), stop('a2')], keys: ['key-1', 'key-2'], startedMs: 0 })
const after = (...events: WalkEvent[]) => events.reduce(walkStep, begun)

describe('a walk under way', () => {
  it('asks one thing after the other, and none twice', () => {
    expect(nextLook(begun)).toBe('bore')
    expect(nextLook(after({ type: 'found', what: 'bore', grade: 'round' }))).toBe('nozzleOpen')
    expect(
      nextLook(after({ type: 'notLooked', what: 'bore' }, { type: 'found', what: 'nozzleOpen', grade: 'ring' })),
    ).toBeNull()
  })
  it('found stays found, however it is mended', () => {
    const act = { act: 'changed', position: 'tip' } as const
    const made = after({ type: 'found', what: 'bore', grade: 'keyhole' }, { type: 'did', act })
    expect(made).toMatchObject({ looks: [{ what: 'bore', grade: 'keyhole' }], acts: [act] })
    expect(walkStep(made, { type: 'undid', act }).acts).toEqual([])
    expect(walkStep(made, { type: 'did', act }).acts).toHaveLength(1)
  })
  it('not looked at notes nothing; back asks again', () => {
    const made = after({ type: 'notLooked', what: 'bore' })
    expect(hasFound(made)).toBe(false)
    expect(nextLook(walkStep(made, { type: 'back' }))).toBe('bore')
  })
  it('what followed from other acts is said with the gun, and taken back', () => {
    const made = after({ type: 'settled', task: 'deepClean', isDone: true })
    expect([made.settled, hasFound(made)]).toEqual([['deepClean'], true])
    expect(walkStep(made, { type: 'settled', task: 'deepClean', isDone: false }).settled).toEqual([])
    expect(walkStep(made, { type: 'leave', isNoted: true }).settled).toEqual([])
  })
  it('leaving a gun begins the next with nothing said; after the last it is over', () => {
    const made = after({ type: 'found', what: 'bore', grade: 'round' }, { type: 'leave', isNoted: true })
    expect(made).toMatchObject({ at: 1, looks: [], acts: [], noted: [true] })
    expect(isOver(made)).toBe(false)
    expect(isOver(walkStep(made, { type: 'leave', isNoted: false }))).toBe(true)
  })
})
