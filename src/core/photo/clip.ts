import { fitInside, MOST_PX } from './photo.ts'

/**
 * A clip as it is kept: its pictures in rows on one photo, played one after the other. So it is made small and clean like every photo, and goes by
 * the same way; it has no sound.
 */
export interface Clip {
  frames: number
  perRow: number
  stepMs: number
}
/** So many pictures, so far apart: four and a half seconds show a wire that comes in jerks. */
export const MOST_FRAMES = 30
export const PER_ROW = 6
export const STEP_MS = 150

export interface ClipPlan {
  clip: Clip
  /** One picture, in pixels. */
  frame: { width: number; height: number }
  /** Seconds into the film at which each is taken. */
  atS: number[]
}
/**
 * How a film becomes a clip: from its beginning, a picture each 150 ms, 30 at most, the whole sheet no longer than a photo. Length in s > 0, sides in
 * pixels > 0.
 * @example clipPlan({ seconds: 2, width: 640, height: 480 }).clip // { frames: 14, perRow: 6, stepMs: 150 }
 */
export function clipPlan(film: { seconds: number; width: number; height: number }): ClipPlan {
  const { seconds, width, height } = film
  if (!(seconds > 0 && Number.isFinite(seconds)))
    throw new RangeError(`clipPlan: expected a length in s > 0, got ${seconds}`)
  const frames = Math.min(MOST_FRAMES, Math.floor((seconds * 1000) / STEP_MS) + 1)
  const perRow = Math.min(PER_ROW, frames)
  const sheet = fitInside({ width: width * perRow, height: height * rowsOf({ frames, perRow }) }, MOST_PX)
  return {
    clip: { frames, perRow, stepMs: STEP_MS },
    frame: {
      width: Math.max(1, Math.floor(sheet.width / perRow)),
      height: Math.max(1, Math.floor(sheet.height / rowsOf({ frames, perRow }))),
    },
    atS: Array.from({ length: frames }, (_, i) => (i * STEP_MS) / 1000),
  }
}
export const rowsOf = ({ frames, perRow }: Pick<Clip, 'frames' | 'perRow'>) => Math.ceil(frames / perRow)
/** Column and row of a picture on the sheet. */
export const cellOf = ({ perRow }: Pick<Clip, 'perRow'>, i: number) => ({
  column: i % perRow,
  row: Math.floor(i / perRow),
})
