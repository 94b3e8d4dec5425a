import { drawLogNormal, drawWeibull, makeRandom } from '@core/random/random.ts'
import { logGamma } from '@core/stats/beta.ts'
import { type NeckRound } from './necks.ts'

/** Lives and mending as they really spread: Weibull and log-normal, told by mean and spread. */
export interface NeckTimes {
  /** Of the lives; 1: they go at random, more: they wear. */
  lifeShape: number
  /** Of the log of the mending times. */
  mendSigma: number
}
export interface NeckRun {
  weeks: number
  /** Weeks in which a robot stood for want of a neck. */
  weeksShort: number
  /** Of the necks that failed: how often none was ready. */
  swaps: number
  swapsNone: number
  /** Robot hours stood, in a week. */
  standingPerWeek: number
  /** Share of the time in which no neck was ready. */
  pNoneReady: number
}
export interface NeckWatch extends NeckRound, NeckTimes {
  /** Hours of a week in which robots run and necks are mended. */
  weekH: number
  weeks: number
  seed: number
}

/** Weeks before what is counted: from a full shelf to what is usual. */
const WARM_UP = 8

interface Going {
  /** When each running neck fails, each neck in mending is ready. */
  fails: number[]
  mended: number[]
  waiting: number
  ready: number
}

/**
 * The same round told by events, for lives and mending that are not exponential: seeded, so the same question has the same answer. Hours of
 * running time; a robot without a neck waits for the next that is mended. Source: next-event simulation, Law (2015) ch. 1. Misuse throws.
 */
export function simulateNecks(of: NeckWatch): NeckRun {
  const { robots, spares, weekH, weeks } = of
  if (!(weekH > 0 && weeks > 0))
    throw new RangeError(`necks: expected weeks and their hours > 0, got ${weeks}, ${weekH}`)
  const draw = drawsOf(of)
  const going: Going = { fails: [], mended: [], waiting: 0, ready: spares }
  for (let i = 0; i < robots; i++) going.fails.push(draw.life())
  const tally: Tally = {
    weekH,
    fromH: WARM_UP * weekH,
    short: new Set(),
    swaps: 0,
    swapsNone: 0,
    standingH: 0,
    noneH: 0,
  }
  const endH = (WARM_UP + weeks) * weekH
  for (let atH = 0; atH < endH;) {
    const nextH = Math.min(endH, earliest(going.fails), earliest(going.mended))
    tallyUp(tally, going, { robots, fromH: Math.max(atH, tally.fromH), toH: nextH })
    atH = nextH
    if (atH < endH) happen(going, { of, draw, tally, atH })
  }
  return {
    ...{ weeks, weeksShort: tally.short.size, swaps: tally.swaps, swapsNone: tally.swapsNone },
    standingPerWeek: tally.standingH / weeks,
    pNoneReady: tally.noneH / (weeks * weekH),
  }
}

interface Tally {
  weekH: number
  fromH: number
  short: Set<number>
  swaps: number
  swapsNone: number
  standingH: number
  noneH: number
}
function tallyUp(tally: Tally, going: Going, at: { robots: number; fromH: number; toH: number }): void {
  const { fromH, toH } = at
  if (toH <= fromH) return
  const standing = at.robots - going.fails.length
  tally.standingH += standing * (toH - fromH)
  if (going.ready === 0) tally.noneH += toH - fromH
  if (standing > 0) for (let w = Math.floor(fromH / tally.weekH); w * tally.weekH < toH; w++) tally.short.add(w)
}

/** The next thing: a neck fails, or one is mended; then the mender begins what waits. */
function happen(
  going: Going,
  { of, draw, tally, atH }: { of: NeckWatch; draw: ReturnType<typeof drawsOf>; tally: Tally; atH: number },
): void {
  if (takeAt(going.fails, atH)) {
    if (atH >= tally.fromH) {
      tally.swaps++
      if (going.ready === 0) tally.swapsNone++
    }
    going.waiting++
    if (going.ready > 0) hang(going, atH + draw.life())
  } else if (takeAt(going.mended, atH)) {
    going.ready++
    if (going.fails.length < of.robots) hang(going, atH + draw.life())
  }
  for (; going.waiting > 0 && going.mended.length < of.places; going.waiting--) going.mended.push(atH + draw.mend())
}

function hang(going: Going, failsH: number): void {
  going.ready--
  going.fails.push(failsH)
}
const earliest = (times: readonly number[]) => times.reduce((least, t) => Math.min(least, t), Infinity)
function takeAt(times: number[], atH: number): boolean {
  const i = times.indexOf(atH)
  if (i < 0) return false
  times.splice(i, 1)
  return true
}

function drawsOf({ lifeShape, meanLifeH, mendSigma, meanMendH, seed }: NeckWatch) {
  if (!(lifeShape > 0) || !(mendSigma >= 0))
    throw new RangeError(`necks: expected a shape > 0 and a spread >= 0, got ${lifeShape}, ${mendSigma}`)
  const random = makeRandom(seed)
  const scale = meanLifeH / Math.exp(logGamma(1 + 1 / lifeShape))
  const median = meanMendH / Math.exp(mendSigma ** 2 / 2)
  return {
    life: () => drawWeibull(random, lifeShape, scale),
    mend: () => (mendSigma === 0 ? meanMendH : drawLogNormal(random, median, mendSigma)),
  }
}
