import { DAY_MS } from '@core/units/time.ts'
import { type AutopsyFind } from '@core/ledger/event.ts'
import { NOT_BEGUN, type Trimming } from '@core/liner/trimjob.ts'
import { type GuideStep } from '@contract/guide.ts'
import { BEGIN, type WalkState } from '@web/guide/walk.ts'

/**
 * A liner job under way, as it is kept on the device: a reload, a call or an empty battery costs nothing.
 *
 *   begun ──steps──> ended ──logged──> forgotten
 *     └─ liner spoiled ──> back to unpacking another; what was measured on the spoiled one is forgotten
 *
 * 1. Everything here can be written down as JSON and read back.
 * 2. A spoiled liner takes its measurements with it; the old liner's stay.
 */
export interface LinerJob {
  key: string
  beginMs: number
  walk: WalkState
  old: OldLiner
  isBlown: boolean
  trim: Trimming
  lengthMm: number | null
}
export interface OldLiner {
  found: AutopsyFind[]
  isCertain: boolean
  atMm: number | null
  lengthMm: number | null
}
export const NOTHING_SEEN: OldLiner = { found: [], isCertain: true, atMm: null, lengthMm: null }

export const newJob = (key: string, nowMs: number): LinerJob => ({
  key,
  beginMs: nowMs,
  walk: BEGIN,
  old: NOTHING_SEEN,
  isBlown: false,
  trim: NOT_BEGUN,
  lengthMm: null,
})

/** Another liner: the job goes on where one is unpacked. */
export function anotherLiner(job: LinerJob, steps: readonly GuideStep[]): LinerJob {
  const at = steps.findIndex((s) => s.key === 'unpack')
  return { ...job, walk: { done: job.walk.done.slice(0, Math.max(0, at)) }, trim: NOT_BEGUN, lengthMm: null }
}

const keyOf = (stationId: string) => `idle-spool liner ${stationId}`
/** After so long it is another job. */
const OLD_MS = 3 * DAY_MS

export function keptJob(stationId: string, nowMs: number): LinerJob | null {
  try {
    const text = localStorage.getItem(keyOf(stationId))
    const job = text ? (JSON.parse(text) as LinerJob) : null
    return job && nowMs - job.beginMs < OLD_MS && Array.isArray(job.walk?.done) ? job : null
  } catch {
    // Storage that is shut or holds something else: the job begins anew, nothing logged is lost.
    return null
  }
}
export function keepJob(stationId: string, job: LinerJob | null): void {
  try {
    if (job) localStorage.setItem(keyOf(stationId), JSON.stringify(job))
    else localStorage.removeItem(keyOf(stationId))
  } catch {
    // Without storage the job lives as long as the page.
  }
}

/** Where along the cable, for gloves: at the feeder, in the middle, at the neck. */
export const PLACES = [
  { word: 'near the feeder', part: 0.08 },
  { word: 'in the middle', part: 0.5 },
  { word: 'near the neck', part: 0.97 },
] as const
