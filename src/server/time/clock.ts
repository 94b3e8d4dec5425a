/** The instant now in UTC milliseconds. Handed to whoever needs it, so that a test can hold it. */
export type Clock = () => number

/**
 * The machine's clock, moved by so much. 0 in use; journeys begin at an instant of their own that way, and every thread and process of one
 * shop is handed the same shift, so that they agree.
 */
export const clockMovedBy = (shiftMs: number): Clock => (shiftMs === 0 ? Date.now : () => Date.now() + shiftMs)
