/**
 * Necks that go round: R robots weld, S spare necks are ready, at the mender's, or waiting for one of c places. A swap takes no time beside a life.
 *
 *   on a robot ──worn or hit──> to mend ──a place is free──> being mended ──> ready ──another one fails──> on a robot
 */
export interface NeckRound {
  robots: number
  spares: number
  /** Necks that can be mended at a time. */
  places: number
  /** Hours a neck runs, and hours its mending takes once it is begun. */
  meanLifeH: number
  meanMendH: number
}
export interface NeckChain {
  /** In time: no neck is ready, and a robot stands. */
  pNoneReady: number
  pAnyRobotStands: number
  /** As a neck that fails meets it: how often none is ready just then. */
  pNoneReadyAtSwap: number
  /** Robots that stand, on average; necks with the mender; necks that fail an hour. */
  expectedStanding: number
  expectedInMending: number
  swapsPerHour: number
}

/**
 * Machine-repair chain with spares, lives and mending exponential: n necks away, up at min(R, R+S−n)/life, down at min(n, c)/mending; its
 * steady state by detailed balance, in logs so that long chains neither over- nor underflow. Chances without unit, hours as given.
 * Source: Feller I (1968) XVII.7; Taylor & Jackson (1954). Misuse throws.
 * @example neckChain({ robots: 1, spares: 1, places: 1, meanLifeH: 40, meanMendH: 1 }).pNoneReadyAtSwap // 0.0244
 */
export function neckChain(of: NeckRound): NeckChain {
  mustBeRound(of)
  const { robots, spares, places, meanLifeH, meanMendH } = of
  const runningAt = (n: number) => Math.min(robots, robots + spares - n)
  const logs = [0]
  for (let n = 0; n < robots + spares; n++) {
    const up = runningAt(n) / meanLifeH
    const down = Math.min(n + 1, places) / meanMendH
    logs.push((logs[n] ?? 0) + Math.log(up) - Math.log(down))
  }
  const top = Math.max(...logs)
  const weights = logs.map((l) => Math.exp(l - top))
  const total = weights.reduce((s, w) => s + w, 0)
  const sum = (value: (n: number) => number) => weights.reduce((s, w, n) => s + w * value(n), 0) / total
  const running = sum(runningAt)
  return {
    pNoneReady: sum((n) => Number(n >= spares)),
    pAnyRobotStands: sum((n) => Number(n > spares)),
    pNoneReadyAtSwap: sum((n) => (n >= spares ? runningAt(n) : 0)) / running,
    expectedStanding: sum((n) => Math.max(0, n - spares)),
    expectedInMending: sum((n) => n),
    swapsPerHour: running / meanLifeH,
  }
}

function mustBeRound({ robots, spares, places, meanLifeH, meanMendH }: NeckRound): void {
  const isCount = (n: number, least: number) => Number.isInteger(n) && n >= least
  if (!isCount(robots, 1) || !isCount(spares, 0) || !isCount(places, 1) || !(meanLifeH > 0) || !(meanMendH > 0))
    throw new RangeError(
      `necks: expected robots, places >= 1, spares >= 0 and times > 0, got ${robots}, ${places}, ${spares}, ${meanLifeH}, ${meanMendH}`,
    )
}

/** More than so many spares nobody keeps. */
const MOST_SPARES = 200

/**
 * The fewest spares with which a failing neck finds none ready at most so often; null where no number is enough because the places cannot
 * keep up. Misuse throws.
 * @example enoughNecks({ robots: 3, places: 1, meanLifeH: 30, meanMendH: 2 }, 0.05)?.spares // 2
 */
export function enoughNecks(
  of: Omit<NeckRound, 'spares'>,
  risk: number,
): { spares: number; pNoneReadyAtSwap: number } | null {
  if (!(risk > 0 && risk < 1)) throw new RangeError(`necks: expected a risk between 0 and 1, got ${risk}`)
  for (let spares = 0; spares <= MOST_SPARES; spares++) {
    const { pNoneReadyAtSwap } = neckChain({ ...of, spares })
    if (pNoneReadyAtSwap <= risk) return { spares, pNoneReadyAtSwap }
  }
  return null
}
