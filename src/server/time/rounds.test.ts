import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Rounds } from './rounds.ts'

describe('work that comes round', () => {
  beforeEach(() => void vi.useFakeTimers())
  afterEach(() => void vi.useRealTimers())
  const open = () => {
    let done: () => void = () => undefined
    const promise = new Promise<void>((resolve) => (done = resolve))
    return { promise, done }
  }
  it('is done one round at a time, however late it is', async () => {
    const gates = [open(), open()]
    let begun = 0
    const rounds = new Rounds({
      everyMs: 1000,
      round: () => gates[begun++]?.promise ?? Promise.resolve(),
      onProblem: vi.fn(),
    })
    rounds.start()
    rounds.start()
    await vi.advanceTimersByTimeAsync(5000)
    expect(begun).toBe(1)
    gates[0]?.done()
    await vi.advanceTimersByTimeAsync(1000)
    expect(begun).toBe(2)
    gates[1]?.done()
    await rounds.stop()
  })
  it('stopped, it lets the round that runs see it and end; none is begun after', async () => {
    const gate = open()
    const wasOn: boolean[] = []
    const rounds = new Rounds({
      everyMs: 1000,
      onProblem: vi.fn(),
      round: async (isOn) => {
        wasOn.push(isOn())
        await gate.promise
        wasOn.push(isOn())
      },
    })
    rounds.start()
    await vi.advanceTimersByTimeAsync(1000)
    const stopped = rounds.stop()
    gate.done()
    await stopped
    await vi.advanceTimersByTimeAsync(5000)
    expect(wasOn).toEqual([true, false])
  })
  it('tells a round that failed, and goes on', async () => {
    const onProblem = vi.fn()
    let begun = 0
    const rounds = new Rounds({
      everyMs: 1000,
      onProblem,
      round: () => (begun++ === 0 ? Promise.reject(new Error('away')) : Promise.resolve()),
    })
    rounds.start()
    await vi.advanceTimersByTimeAsync(2000)
    expect(onProblem).toHaveBeenCalledWith(new Error('away'))
    expect(begun).toBe(2)
    await rounds.stop()
  })
})
