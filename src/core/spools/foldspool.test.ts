import { describe, expect, it } from 'vitest'
import { type Fact } from '@core/ledger/event.ts'
import { type CarrierId, type EventId, type SpoolId, type WireId } from '@core/ids/id.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { makeRandom } from '@core/random/random.ts'
import { spoolUsage } from '@core/clock/headclock.ts'
import { foldSpool } from './foldspool.ts'

const spoolId = 'spool_1' as SpoolId
const [h1, h2] = ['car_1', 'car_2'] as [CarrierId, CarrierId]
const say = (happenedMs: number, fact: Fact): Standing => ({
  fact,
  happenedMs,
  loggedMs: happenedMs,
  precision: 'exact',
  stationId: null,
  eventId: `ev_${happenedMs}_${fact.kind}` as EventId,
})
const came = say(1, { kind: 'spoolIn', spoolId, wireId: 'wire_1' as WireId, labelKg: 15, lot: 'L7', tareKg: 0.8 })
const loaded = (at: number, carrierId: CarrierId, labelKg: number | null = 15) =>
  say(at, { kind: 'wireLoaded', carrierId, wireId: null, labelKg, leftKg: null, spoolId })

describe('a spool’s story', () => {
  it('comes in with its label', () =>
    expect(foldSpool([came])).toMatchObject({
      labelKg: 15,
      lot: 'L7',
      on: null,
      base: { kg: 15, how: 'label' },
      goneMs: null,
    }))
  it('goes on, is weighed, comes off with some left', () => {
    const read = say(5, { kind: 'spoolRead', carrierId: h1, spoolId, how: 'weighed', leftKg: 7.2, sdKg: 0.06 })
    const off = say(8, { kind: 'wireOff', carrierId: h1, spoolId, leftKg: 4, sdKg: 0.8 })
    expect(foldSpool([came, loaded(3, h1), read])).toMatchObject({ on: { headId: h1, sinceMs: 3 }, base: { kg: 7.2 } })
    expect(foldSpool([came, loaded(3, h1), read, off])).toMatchObject({
      on: null,
      base: { kg: 4, sdKg: 0.8, how: 'said' },
    })
  })
  it('put on elsewhere it is there', () =>
    expect(foldSpool([came, loaded(3, h1), loaded(6, h2)])).toMatchObject({ on: { headId: h2, sinceMs: 6 } }))
  it('thrown away it is gone, with what was on it; lost wire adds up', () => {
    const lost = (at: number) => say(at, { kind: 'wireLost', carrierId: h1, spoolId, kg: 0.2, why: 'nest' })
    const gone = say(9, { kind: 'spoolGone', spoolId, leftKg: 1.1 })
    expect(foldSpool([came, lost(4), lost(5), gone])).toMatchObject({ goneMs: 9, goneKg: 1.1, lostKg: 0.4 })
  })
  it('a spool nobody booked in has no story', () => expect(foldSpool([loaded(3, h1)])).toBeNull())
  it('the order of arrival changes nothing', () => {
    const random = makeRandom(9)
    const facts = [
      came,
      loaded(3, h1),
      say(5, { kind: 'spoolRead', carrierId: h1, spoolId, how: 'measured', leftKg: 9, sdKg: 0.4 }),
      say(7, { kind: 'wireOff', carrierId: h1, spoolId, leftKg: 6, sdKg: 1 }),
      loaded(9, h2, 6),
    ]
    const story = foldSpool(facts)
    for (let i = 0; i < 20; i++) expect(foldSpool([...facts].sort(() => random() - 0.5))).toEqual(story)
  })
})

describe('spools as a clock', () => {
  const H = 3_600_000
  const load = (atH: number, over = {}) => ({ atMs: atH * H, labelKg: 15, loggedMs: atH, ...over })
  it('a spool that is followed by another was used up but for what was left', () =>
    expect(spoolUsage([load(0), load(10, { leftKg: 2 })])).toMatchObject([
      { fromMs: 0, toMs: 10 * H, kg: 13, source: 'label' },
    ]))
  it('the one that is on tells as far as it was read', () => {
    const reads = [
      { atMs: 4 * H, kg: 9, loggedMs: 4, isWeighed: true },
      { atMs: 7 * H, kg: 6.5, loggedMs: 7, isWeighed: true },
    ]
    expect(spoolUsage([load(0, { reads })])).toMatchObject([
      { fromMs: 0, toMs: 4 * H, kg: 6, source: 'label' },
      { fromMs: 4 * H, toMs: 7 * H, kg: 2.5, source: 'weighed' },
    ])
  })
  it('taken off part-used it tells what ran off until then, and nothing of the time without a spool', () =>
    expect(spoolUsage([load(0, { offMs: 6 * H, offLeftKg: 11 }), load(20)])).toMatchObject([
      { fromMs: 0, toMs: 6 * H, kg: 4 },
    ]))
  it('taken off without a word on what was left, it tells nothing', () =>
    expect(spoolUsage([load(0, { offMs: 6 * H, offLeftKg: null }), load(20)])).toEqual([]))
  it('weighed just after it went on, the scale is believed over the label, and nothing ran off', () =>
    expect(spoolUsage([load(0, { reads: [{ atMs: 60_000, kg: 14.4, loggedMs: 1, isWeighed: true }] })])).toEqual([]))
  it('a reading above what was there is no negative use', () =>
    expect(spoolUsage([load(0, { reads: [{ atMs: 4 * H, kg: 15.3, loggedMs: 4, isWeighed: true }] })])[0]?.kg).toBe(0))
})
