/** A minute, an hour, a day of 24 hours, in milliseconds. A day of the calendar may be longer or shorter: that is the server's `wall.ts`. */
export const MIN_MS = 60_000
export const HOUR_MS = 3_600_000
export const HOUR_S = 3600
export const DAY_MS = 86_400_000
