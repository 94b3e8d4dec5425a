import { describe, expect, it } from 'vitest'
import { linesOf, nextTap, NO_LINES, sideStep, type SideEvent } from './sidelines.ts'

const at = (x: number, y = 0) => ({ x, y })
const after = (...events: SideEvent[]) => events.reduce(sideStep, NO_LINES)
const tap = (x: number): SideEvent => ({ type: 'tap', at: at(x) })

describe('two lines on a picture', () => {
  it('four taps make both, and each is asked for in words', () => {
    const asks = [0, 1, 2, 3, 4].map((n) => nextTap(after(...Array.from({ length: n }, (_, i) => tap(i))), 'the roll'))
    expect(asks[0]).toBe('Tap one edge of the roll.')
    expect(asks[4]).toBeNull()
    expect(linesOf(after(tap(1), tap(2), tap(3)))).toBeNull()
    expect(linesOf(after(tap(1), tap(2), tap(30), tap(40)))).toEqual({
      known: { from: at(1), to: at(2) },
      span: { from: at(30), to: at(40) },
    })
  })
  it('a fifth tap moves the nearest end, a pull the one that is held', () => {
    const four = [tap(0), tap(10), tap(30), tap(40)]
    expect(after(...four, tap(28)).points[2]).toEqual(at(28))
    expect(after(...four, { type: 'pull', end: 0, at: at(-5) }).points[0]).toEqual(at(-5))
  })
  it('anew forgets the lines and not how they are put', () => {
    const made = after({ type: 'byHand', is: true }, tap(1), { type: 'again' })
    expect(made).toEqual({ points: [], isByHand: true })
  })
})
