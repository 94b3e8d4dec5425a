import { describe, expect, it } from 'vitest'
import { beginDown, downStep, type DownEvent } from './downstate.ts'

const begun = beginDown({ stationId: 'stn_1', key: 'down-key-1', startedMs: 0 })
const after = (...events: DownEvent[]) => events.reduce(downStep, begun)
const check = (key: string, outcome = 'well'): DownEvent => ({ type: 'said', said: { type: 'check', key, outcome } })

describe('a search under way', () => {
  it('goes back one thing at a time, to the first question', () => {
    let state = after(
      { type: 'symptom', symptom: 'jerk' },
      { type: 'touched', touched: 'tip' },
      check('one'),
      check('two'),
    )
    const seen: unknown[] = []
    for (let i = 0; i < 5; i++) {
      seen.push([state.symptom, state.touched, state.said.length])
      state = downStep(state, { type: 'back' })
    }
    expect(seen).toEqual([
      ['jerk', 'tip', 2],
      ['jerk', 'tip', 1],
      ['jerk', 'tip', 0],
      ['jerk', null, 0],
      [null, null, 0],
    ])
  })
  it('somebody knows: its fix at once; back asks on, still there says so and the search goes on', () => {
    const known = after({ type: 'symptom', symptom: 'nest' }, { type: 'known', cause: 'gunOut' })
    expect(known.known).toBe('gunOut')
    expect(downStep(known, { type: 'back' }).known).toBeNull()
    const still = downStep(downStep(known, { type: 'runs', fixing: 'gunOut' }), { type: 'stillThere', fix: 'gunOut' })
    expect(still).toMatchObject({ isClosing: false, known: null, said: [{ type: 'fix', key: 'gunOut' }] })
  })
  it('"none of these" was one tap and is taken back with one', () => {
    const not = (key: string) => ({ type: 'symptom', key, isThere: false }) as const
    const none = after({ type: 'symptom', symptom: 'nest' }, check('one'), {
      type: 'said',
      said: [not('jerk'), not('slips'), not('coasts')],
    })
    expect(none.said).toHaveLength(4)
    expect(downStep(none, { type: 'back' }).said).toEqual([{ type: 'check', key: 'one', outcome: 'well' }])
  })
  it('another sign begins anew; what was expected at first stands', () => {
    const state = after({ type: 'symptom', symptom: 'jerk' }, check('one'), { type: 'expected', minutes: 9 })
    expect(downStep(state, { type: 'expected', minutes: 20 }).firstMin).toBe(9)
    expect(downStep(state, { type: 'symptom', symptom: 'nest' })).toMatchObject({ said: [], firstMin: null })
  })
})
