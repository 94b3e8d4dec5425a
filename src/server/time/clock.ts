/** The instant now in UTC milliseconds. Handed to whoever needs it, so that a test can hold it. */
export type Clock = () => number

/**
 * The machine's clock, moved by so much. 0 in use; journeys begin at an instant of their own that way, and every thread and process of one
 * shop is handed the same shift, so that they agree.
 */
export const clockMovedBy = (shiftMs: number): Clock => (shiftMs === 0 ? Date.now : () => Date.now() + shiftMs)

const SLOWED = 0.9
/** A step back smaller than this is the clock being put right by the network, and not worth a word. */
const STEP_MS = 2000

/**
 * A clock that never goes back: what is written down later is later. Where the machine's own clock is set back, this one goes on at nine tenths of its pace
 * until the other has caught up: an hour too far is made good in ten. `notBefore`: nothing here is earlier than that (what another run wrote down).
 * @example const clock = steadyClock(Date.now, () => performance.now()); clock.now()
 */
export function steadyClock(wall: Clock, sinceStartMs: () => number) {
  let at = { ms: wall(), mark: sinceStartMs() }
  let aheadMs = 0
  const move = (nowMs: number, mark: number) => {
    aheadMs = Math.max(0, nowMs - wall())
    at = { ms: nowMs, mark }
    return Math.floor(nowMs)
  }
  return {
    now: (): number => {
      const mark = sinceStartMs()
      const passed = Math.max(0, mark - at.mark)
      const real = wall()
      return move(real >= at.ms + passed * SLOWED ? real : at.ms + passed * SLOWED, mark)
    },
    notBefore: (ms: number): void => void (ms > at.ms && (at = { ms, mark: sinceStartMs() })),
    /** How far it is before the machine's clock; 0: they agree. */
    aheadMs: (): number => (aheadMs < STEP_MS ? 0 : aheadMs),
  }
}
