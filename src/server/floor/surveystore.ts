import { type MinutesOf } from '@server/minutes/minutes.ts'
import { type FloorDeps } from '@server/gunnow/positions.ts'
import { type KeptFits } from '@server/lifekept/kept.ts'
import { type FloorSaid } from './said.ts'
import { type Surveyed } from './survey.ts'

/** What a place was judged by: nothing of it is another as long as this is the same. */
export interface JudgedBy {
  /** The shop's revision, the place's carriers with theirs, what hangs there, when it stands still next. */
  under: string
  fits: KeptFits
  learnt: MinutesOf
}

/** Clocks run on: what is older is judged anew, though nothing was said. */
const KEPT_MS = 10_000

/**
 * Places as they were judged, kept: a floor of 500 has some eight thousand positions, and between two looks at it, of five leads and after every act
 * somewhere, a handful are another.
 * 1. Kept under all that is read for it (`JudgedBy`) and for ten seconds; the rest of a Floor answer is made anew each time.
 * 2. Nothing depends on one process: an empty store judges everything.
 */
export class SurveyStore {
  private readonly kept = new Map<string, JudgedBy & { atMs: number; surveyed: Surveyed }>()

  /** As it was judged, or judged now. */
  judged(stationId: string, at: { by: JudgedBy; nowMs: number }, judge: () => Surveyed): Surveyed {
    const { by, nowMs } = at
    // Floor goes by how long parts last, a walk by what is due: each has its own.
    const key = `${stationId} ${by.fits.size > 0}`
    const known = this.kept.get(key)
    const isSame = known?.under === by.under && known.fits === by.fits && known.learnt === by.learnt
    if (known && isSame && nowMs >= known.atMs && nowMs - known.atMs < KEPT_MS) return known.surveyed
    const surveyed = judge()
    this.kept.set(key, { ...by, atMs: nowMs, surveyed })
    return surveyed
  }
  /** Nothing is kept: the next look judges every place. */
  forget(): void {
    this.kept.clear()
  }
}

/** What it takes to look over a floor again and again. */
export type SurveyDeps = FloorDeps & { surveys: SurveyStore; said: FloorSaid }
