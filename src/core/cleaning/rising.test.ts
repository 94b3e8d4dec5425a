import { describe, expect, it } from 'vitest'
import { cleaningRises } from './rising.ts'

const found = (rates: readonly number[]) => rates.map((r) => ({ closedShare: r * 2, arcHours: 2 }))

describe('a nozzle that closes ever faster', () => {
  it('is seen when it rises steadily', () => {
    expect(cleaningRises(found([0.1, 0.11, 0.13, 0.14, 0.16, 0.18, 0.2]))).toBe(true)
  })
  it('is not where it only scatters, falls, or hardly rises', () => {
    expect(cleaningRises(found([0.1, 0.14, 0.09, 0.13, 0.1, 0.12, 0.11]))).toBe(false)
    expect(cleaningRises(found([0.2, 0.18, 0.16, 0.14, 0.13, 0.11, 0.1]))).toBe(false)
    expect(cleaningRises(found([0.1, 0.101, 0.102, 0.103, 0.104, 0.105, 0.106]))).toBe(false)
  })
  it('needs six cleanings that tell a rate', () => {
    expect(cleaningRises(found([0.1, 0.2, 0.3, 0.4, 0.5]))).toBe(false)
    const short = [...found([0.1, 0.2, 0.3, 0.4, 0.5]), { closedShare: 0.9, arcHours: 0.01 }]
    expect(cleaningRises(short)).toBe(false)
  })
  it('goes by rate, not by how long it ran', () => {
    const even = [1, 2, 3, 4, 5, 6].map((h) => ({ closedShare: h * 0.1, arcHours: h }))
    expect(cleaningRises(even)).toBe(false)
  })
})
