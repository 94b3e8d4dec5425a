import { describe, expect, it } from 'vitest'
import { KeptFor } from './keptfor.ts'

describe('what is kept for a while', () => {
  const counted = () => {
    let n = 0
    return { make: () => Promise.resolve(++n), times: () => n }
  }
  it('is worked out once, also for two who ask at once, and anew when its time is over or it is forgotten', async () => {
    const kept = new KeptFor<number>(1000)
    const { make, times } = counted()
    expect(await Promise.all([kept.read(0, make), kept.read(999, make)])).toEqual([1, 1])
    expect(await kept.read(1000, make)).toBe(2)
    kept.forget()
    expect([await kept.read(1001, make), times()]).toEqual([3, 3])
  })
  it('what failed is not kept, and takes nothing newer away with it', async () => {
    const kept = new KeptFor<number>(1000)
    let fail = (_: Error) => {}
    const failing = kept.read(0, () => new Promise((_, reject) => (fail = reject)))
    kept.forget()
    const newer = kept.read(1, () => Promise.resolve(7))
    fail(new Error('gone'))
    await expect(failing).rejects.toThrow('gone')
    expect(await newer).toBe(7)
    expect(await kept.read(2, () => Promise.resolve(8))).toBe(7)
    kept.forget()
    await expect(kept.read(3, () => Promise.reject(new Error('gone')))).rejects.toThrow('gone')
    expect(await kept.read(4, () => Promise.resolve(9))).toBe(9)
  })
})
