import { type SchoolOf } from '@core/houserule/schools.ts'

/** What a shop lets be done with a knob that was left higher than it was found (D25). */
export interface RaisedWays {
  /** It may be kept up to keep a gun going; else putting it back is what is asked for. */
  canKeep: boolean
  /** Days after which it is put back; null: till somebody puts it back. */
  days: number | null
}
const KEEP_DAYS = 7
export const RAISED_WAYS: Record<SchoolOf<'D25'>, RaisedWays> = {
  forATime: { canKeep: true, days: KEEP_DAYS },
  raise: { canKeep: true, days: null },
  never: { canKeep: false, days: null },
}
