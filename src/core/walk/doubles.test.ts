import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { doublesOf, type DoneAct } from './doubles.ts'

const MIN = 60_000
const act = (minute: number, by: string, over: Partial<DoneAct> = {}): DoneAct => ({
  eventId: anId('event', `ev_${minute}${by}`),
  carrierId: anId('carrier', 'gun_1'),
  position: 'tip',
  kind: 'fitted',
  happenedMs: minute * MIN,
  by,
  ...over,
})
const pairs = (...acts: DoneAct[]) => doublesOf(acts).map(([a, b]) => `${a.eventId} ${b.eventId}`)

describe('one act or two', () => {
  it('the same part from two devices within ten minutes is asked about, in whatever order it came', () => {
    expect(pairs(act(7, 'b'), act(0, 'a'))).toEqual(['ev_0a ev_7b'])
    expect(pairs(act(0, 'a'), act(11, 'b'))).toEqual([])
  })
  it('one hand that says it twice means it, and other parts or acts are others', () => {
    expect(pairs(act(0, 'a'), act(3, 'a'))).toEqual([])
    expect(pairs(act(0, 'a'), act(3, 'b', { position: 'nozzle' }))).toEqual([])
    expect(pairs(act(0, 'a'), act(3, 'b', { kind: 'cleaned' }))).toEqual([])
    expect(pairs(act(0, 'a'), act(3, 'b', { carrierId: anId('carrier', 'gun_2') }))).toEqual([])
  })
  it('three in a row are one pair, not two', () =>
    expect(pairs(act(0, 'a'), act(2, 'b'), act(4, 'a'))).toEqual(['ev_0a ev_2b']))
})
