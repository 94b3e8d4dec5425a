import { describe, expect, it } from 'vitest'
import { MIN_MS } from '@core/units/time.ts'
import { callsOf } from './calls.ts'

const stop = (boothId: string, min: number, place: 'tip' | 'nozzle' | null, lasts: number | null = 10) => ({
  ...{ boothId, fromMs: min * MIN_MS, place },
  toMs: lasts === null ? null : (min + lasts) * MIN_MS,
})
const bead = (boothId: string, min: number, was: 'equipment' | 'distance') => ({ boothId, atMs: min * MIN_MS, was })

describe('calls of a class', () => {
  it('are its stops and the beads that were looked at, by where it began', () => {
    const calls = callsOf({
      stops: [stop('a', 0, 'tip'), stop('b', 5, 'tip'), stop('c', 9, 'nozzle'), stop('d', 20, null)],
      told: [bead('e', 3, 'distance'), bead('f', 4, 'equipment')],
    })
    expect(calls).toEqual({
      ...{ n: 6, machine: 1, notMachine: 1, untold: 1 },
      places: [
        { place: 'tip', n: 2 },
        { place: 'nozzle', n: 1 },
      ],
    })
  })
  it('a bead that led to a stop there is that stop; one at another booth, or long after, is its own', () => {
    const stops = [stop('a', 60, 'tip')]
    expect(callsOf({ stops, told: [bead('a', 55, 'equipment')] }).n).toBe(1)
    expect(callsOf({ stops, told: [bead('b', 55, 'equipment')] }).n).toBe(2)
    expect(callsOf({ stops, told: [bead('a', 140, 'equipment')] }).n).toBe(2)
    expect(callsOf({ stops: [stop('a', 60, 'tip', null)], told: [bead('a', 140, 'equipment')] }).n).toBe(1)
    expect(callsOf({ stops, told: [bead('a', 62, 'distance')] }).n).toBe(2)
  })
})
