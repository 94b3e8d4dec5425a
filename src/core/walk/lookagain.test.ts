import { type EventId, NO_ID } from '@core/ids/id.ts'
import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { isChosen, lookAgain, ONE_IN, type KeptLook } from './lookagain.ts'

const HOUR = 3_600_000
const ids = Array.from({ length: 4000 }, (_, i) => anId('event', `ev_${i.toString(36)}x`))
const chosen = ids.filter(isChosen)
const look = (eventId: EventId, over: Partial<KeptLook> = {}): KeptLook => ({
  eventId,
  carrierId: anId('carrier', 'gun_1'),
  what: 'bore',
  atMs: 0,
  is: 'good',
  ...over,
})
const [one = NO_ID, two = NO_ID] = chosen
const other = ids.find((id) => !isChosen(id)) ?? NO_ID

describe('a look that is looked at again', () => {
  it('is one in twenty, and the same one for everybody', () => {
    expect(chosen.length / ids.length).toBeGreaterThan(0.7 / ONE_IN)
    expect(chosen.length / ids.length).toBeLessThan(1.3 / ONE_IN)
    expect(ids.filter(isChosen)).toEqual(chosen)
  })
  it('is asked for while it is fresh and nobody looked since', () => {
    const again = (nowMs: number, ...more: KeptLook[]) =>
      lookAgain([look(one), ...more], nowMs).again.map((l) => l.eventId)
    expect(again(HOUR)).toEqual([one])
    expect(again(25 * HOUR)).toEqual([])
    expect(again(2 * HOUR, look(other, { atMs: HOUR }))).toEqual([])
    expect(again(2 * HOUR, look(other, { atMs: HOUR, carrierId: anId('carrier', 'gun_2') }))).toEqual([one])
  })
  it('found bad is not: nobody says that to be quick', () =>
    expect(lookAgain([look(one, { is: 'act' })], HOUR).again).toEqual([]))
  it('tells how many agreed', () => {
    const looks = [
      look(one),
      look(other, { atMs: HOUR }),
      look(two, { carrierId: anId('carrier', 'gun_2') }),
      look(anId('event', `${other}2`), { carrierId: anId('carrier', 'gun_2'), atMs: HOUR, is: 'look' }),
    ]
    expect(lookAgain(looks, 3 * HOUR).agreed).toEqual({ same: 1, of: 2 })
  })
})
