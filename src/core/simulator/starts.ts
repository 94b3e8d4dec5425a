import { makeRandom } from '@core/random/random.ts'

/** How often a start comes to nothing before the arc burns, as a function of time: the same robot and moment always give the same. */
export interface StartsPlan {
  /** Tells robots apart. */
  seed: number
  share: number
  /** From when on more of them do; null: never. */
  worse: { fromMs: number; share: number } | null
}
/** More in a row no robot tries. */
const MOST = 2

/** Starts that came to nothing before one at `atMs` burned. */
export function failedBefore({ seed, share, worse }: StartsPlan, atMs: number): number {
  const random = makeRandom((seed * 15_485_863 + Math.floor(atMs / 100)) >>> 0)
  const fails = worse && atMs >= worse.fromMs ? worse.share : share
  let failed = 0
  while (failed < MOST && random() < fails) failed++
  return failed
}
