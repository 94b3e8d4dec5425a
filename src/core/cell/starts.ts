import { DAY_MS } from '@core/units/time.ts'

/**
 * Starts that come to nothing, counted from what a feeder sends: now and then one is nothing, ever more of them are a wire's end that is bent or balled,
 * a tip that is worn, a ground that got worse.
 *
 *   counters ──between two rows──> tries and failures ──a hundred tries──> a lot
 *   lots that were well ──> the share that fails here
 *   each later lot ──> CUSUM of how much likelier it is at thrice that share; over the threshold it is said, once, until something is changed
 */
export interface StartRow {
  atMs: number
  /** Counters as the equipment sent them since it was switched on: arcs that burned, and starts that came to nothing; null: it does not count those. */
  arcStarts: number
  startsFailed: number | null
}
export interface StartsWatch {
  last: StartRow | null
  open: { tries: number; failed: number }
  /** Lots that taught what is usual here, added up. */
  well: { tries: number; failed: number }
  up: number
  /** Since it rises: tries, failures, and when; null: it does not. */
  rise: { tries: number; failed: number; sinceMs: number } | null
  /** Said, and nothing was changed nor came back since. */
  isSaid: boolean
  /** Said, and not yet that it is well again. */
  isOpen: boolean
}
export const NO_STARTS: StartsWatch = {
  ...{ last: null, open: { tries: 0, failed: 0 }, well: { tries: 0, failed: 0 } },
  ...{ up: 0, rise: null, isSaid: false, isOpen: false },
}
export interface StartsTold {
  /** Ever more fail; or it was said, and they are back to what is usual. */
  is: 'more' | 'back'
  /** Share of the starts that came to nothing, since it rises and when it was well. */
  share: number
  wellShare: number
  tries: number
  failed: number
  sinceMs: number
  atMs: number
}

const LOT = 100
/** A well gun fails so often, and that counts as so many tries: guesses. */
const PRIOR = { share: 0.01, tries: 200 } as const
/** What is well is learnt from so many tries, and no more. */
const MOST_WELL = 5000
/** The first lots only teach. */
const FIRST = 1500
/** Below so much of a rise a lot still teaches: those of bad luck as well as those of good. */
const TEACHES = 2
/** Watched for: thrice as often, and at least so much more. */
const RISE = { times: 3, add: 0.02 } as const
const THRESHOLD = 6.5
/** However long it goes on: what is put right is seen within a day or two. */
const MOST_UP = 8
/** A bad day is no rise: it has to last. */
const LASTS_MS = 1.5 * DAY_MS
/** Back within this of what is well, it is done with. */
const BACK_TIMES = 1.5

/** Share of starts that fail while all is well: Beta posterior mean, with the prior's tries. */
const wellShare = ({ well }: StartsWatch) => (PRIOR.share * PRIOR.tries + well.failed) / (PRIOR.tries + well.tries)

/**
 * Takes rows in order on from what is kept; answers what is kept now, and what has to be said. CUSUM of the log-likelihood ratio of a binomial share p₁
 * against p₀, p₁ = max(3p₀, p₀ + 0.02), threshold 6.5. A counter that fell begins anew. Source: Page 1954; Montgomery 2013 ch. 9.
 */
export function startsOn(
  kept: StartsWatch,
  rows: readonly StartRow[],
  changedMs: readonly number[] = [],
): { watch: StartsWatch; said: StartsTold[] } {
  const watch: StartsWatch = { ...kept, open: { ...kept.open }, well: { ...kept.well } }
  const said: StartsTold[] = []
  const due = [...changedMs].sort((a, b) => a - b)
  const changeUpTo = (ms: number) => {
    while (due[0] !== undefined && due[0] <= ms) {
      due.shift()
      Object.assign(watch, { up: 0, rise: null, isSaid: false, open: { tries: 0, failed: 0 } })
    }
  }
  for (const row of rows) {
    changeUpTo(row.atMs)
    const step = watch.last && stepOf(watch.last, row)
    watch.last = row
    if (!step) continue
    watch.open.tries += step.tries
    watch.open.failed += step.failed
    if (watch.open.tries < LOT) continue
    const lot = watch.open
    watch.open = { tries: 0, failed: 0 }
    const fails = judge(watch, lot, row.atMs)
    if (fails) said.push(fails)
  }
  changeUpTo(Infinity)
  return { watch, said }
}

function stepOf(a: StartRow, b: StartRow): { tries: number; failed: number } | null {
  if (a.startsFailed === null || b.startsFailed === null) return null
  const [burned, failed] = [b.arcStarts - a.arcStarts, b.startsFailed - a.startsFailed]
  return burned >= 0 && failed >= 0 && burned + failed > 0 ? { tries: burned + failed, failed } : null
}

function judge(watch: StartsWatch, lot: StartsWatch['open'], atMs: number): StartsTold | null {
  const p0 = wellShare(watch)
  const p1 = Math.min(0.9, Math.max(RISE.times * p0, p0 + RISE.add))
  const isLearning = watch.well.tries < FIRST
  const step = lot.failed * Math.log(p1 / p0) + (lot.tries - lot.failed) * Math.log((1 - p1) / (1 - p0))
  if (watch.well.tries < MOST_WELL && (isLearning || watch.up < TEACHES))
    watch.well = { tries: watch.well.tries + lot.tries, failed: watch.well.failed + lot.failed }
  watch.up = isLearning ? 0 : Math.min(MOST_UP, Math.max(0, watch.up + step))
  if (watch.up === 0) {
    watch.rise = null
    if (lot.failed > BACK_TIMES * p0 * lot.tries) return null
    watch.isSaid = false
    if (!watch.isOpen) return null
    watch.isOpen = false
    return { is: 'back', share: lot.failed / lot.tries, wellShare: p0, ...lot, sinceMs: atMs, atMs }
  }
  const { rise } = watch
  watch.rise = {
    tries: (rise?.tries ?? 0) + lot.tries,
    failed: (rise?.failed ?? 0) + lot.failed,
    sinceMs: rise?.sinceMs ?? atMs,
  }
  if (watch.up <= THRESHOLD || watch.isSaid || atMs - watch.rise.sinceMs < LASTS_MS) return null
  Object.assign(watch, { isSaid: true, isOpen: true })
  const { tries, failed, sinceMs } = watch.rise
  return { is: 'more', share: failed / tries, wellShare: p0, tries, failed, sinceMs, atMs }
}
