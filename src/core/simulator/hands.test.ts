import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { arrive, HANDS, playHands, type HandsState, type SeenGun } from './hands.ts'

const gun = (over: Partial<SeenGun> = {}): SeenGun => ({
  stationId: 'A1',
  isAtWork: true,
  isDown: false,
  wants: [],
  positions: ['liner', 'tip', 'nozzle', 'rolls'],
  ...over,
})
const MINUTE_MS = 60_000
const HERE: HandsState = { playedMs: 0, forgotten: {} }
/** So many minutes, played minute by minute, with what they see staying as it is. */
function play(guns: readonly SeenGun[], minutes: number, seed = 1) {
  const random = makeRandom(seed)
  let state: HandsState = HERE
  const acts = []
  for (let m = 1; m <= minutes; m++) {
    const played = playHands(state, guns, { nowMs: m * MINUTE_MS, random })
    state = played.state
    acts.push(...played.acts)
  }
  return { acts, state }
}
const many = (over: Partial<SeenGun>) => Array.from({ length: 200 }, (_, i) => gun({ stationId: `G${i}`, ...over }))
const DUE = [{ position: 'tip', act: 'change' }] as const

describe('made-up people', () => {
  it('do what is due at about its rate, and write most of it down', () => {
    const { acts, state } = play(many({ wants: DUE }), 60)
    const done = acts.filter((a) => a.act === 'changed' && a.position === 'tip').length
    const unlogged = Object.keys(state.forgotten).length
    // What is still asked for is done again and again here: an hour at the rate, of two hundred guns.
    expect(done + unlogged).toBeGreaterThan(200 * HANDS.doDue * 0.7)
    expect(done + unlogged).toBeLessThan(200 * HANDS.doDue * 1.3)
    expect(unlogged / (done + unlogged)).toBeGreaterThan(0.1)
    expect(unlogged / (done + unlogged)).toBeLessThan(0.35)
  })
  it('leave alone for some hours what they did and did not write down', () => {
    const forgotten = { 'A1 tip': 7 * 60 * MINUTE_MS }
    const { acts } = playHands({ playedMs: 0, forgotten }, [gun({ wants: DUE })], {
      nowMs: MINUTE_MS,
      random: () => 0.9,
    })
    expect(acts).toEqual([])
    const later = playHands({ playedMs: 7 * 60 * MINUTE_MS, forgotten }, [gun()], {
      nowMs: 7 * 60 * MINUTE_MS + 1,
      random: () => 0.9,
    })
    expect(later.state.forgotten).toEqual({})
  })
  it('get a gun going again, and do nothing else to it meanwhile', () => {
    const { acts } = play(many({ isDown: true, wants: DUE }), 20)
    expect(acts.length).toBeGreaterThan(50)
    expect(new Set(acts.map((a) => a.act))).toEqual(new Set(['running']))
  })
  it('leave what they find on the first day to whoever looks at the demo, and see to what comes after it', () => {
    const found = [gun({ isDown: true }), gun({ stationId: 'A2', wants: DUE })]
    const came = arrive(found, 0)
    const next = (hour: number, guns: SeenGun[]) =>
      playHands({ ...came, playedMs: (hour * 60 - 9) * MINUTE_MS }, guns, {
        nowMs: hour * 60 * MINUTE_MS,
        random: () => 0,
      })
    expect(next(2, found).acts.filter((a) => a.act === 'running' || a.position === 'tip')).toEqual([])
    expect(next(2, [gun({ stationId: 'A3', isDown: true })]).acts).toEqual([{ stationId: 'A3', act: 'running' }])
    expect(next(25, found).acts.map((a) => a.act)).toContain('running')
  })
  it('are not there where nobody works', () =>
    expect(play(many({ isAtWork: false, wants: DUE }), 120).acts).toEqual([]))
  it('do not make up for a week that the shop was off', () => {
    const guns = many({ wants: DUE })
    const { acts } = playHands(HERE, guns, { nowMs: 7 * 24 * 60 * MINUTE_MS, random: makeRandom(3) })
    expect(acts.length).toBeLessThan(guns.length * 0.3)
  })
  it('stop guns, burn tips, hang spools and look guns over, each now and then', () => {
    const { acts } = play(many({}), 8 * 60)
    const count = (act: string) => acts.filter((a) => a.act === act).length
    for (const act of ['down', 'changed', 'newSpool', 'seen']) expect([act, count(act) > 0]).toEqual([act, true])
    expect(count('newSpool')).toBeGreaterThan(count('down'))
    expect(acts.every((a) => a.act !== 'changed' || a.outReason !== undefined)).toBe(true)
  })
})
