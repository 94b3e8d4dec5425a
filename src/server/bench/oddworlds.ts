import { type OddWorld } from '@core/life/shoprace.ts'
import { drawLogNormal, drawWeibull, makeRandom } from '@core/random/random.ts'

/** A world that is not as the engine takes it to be, drawn for one shop; the engine is told nothing of it. */
export interface OddKind {
  name: string
  draw: (shop: { shape: number; scale: number; perDay: number; logShare: number }, seed: number) => OddWorld
}

const TABLE = 4096
/** The same answer for the same stretch of use, however often it is asked. */
function byStretch(seed: number, length: number): (at: number) => number {
  const random = makeRandom(seed)
  const drawn = Array.from({ length: TABLE }, () => random())
  return (at) => drawn[Math.floor(Math.abs(at) / length) % TABLE] ?? 0
}

/** Gamma of a whole shape: the sum of so many exponentials. */
function drawGamma(random: () => number, shape: number, scale: number): number {
  let sum = 0
  for (let i = 0; i < shape; i++) sum -= Math.log(1 - random())
  return sum * scale
}
const WEEK_DAYS = 5
const LOT_DAYS = 25
const MONTH_DAYS = 20

export const ODD_KINDS: readonly OddKind[] = [
  { name: 'as assumed', draw: () => ({}) },
  {
    name: 'gamma lives',
    draw: ({ shape, scale }) => ({
      wear: (random) => drawGamma(random, Math.max(1, Math.round(shape)), scale / Math.max(1, Math.round(shape))),
    }),
  },
  {
    name: 'log-normal lives',
    draw: ({ shape, scale }) => ({
      wear: (random) => drawLogNormal(random, scale * 0.85, Math.min(1.1, 1.28 / shape)),
    }),
  },
  {
    name: 'bathtub: one in eight dies early',
    draw: ({ shape, scale }) => ({
      wear: (random) => (random() < 1 / 8 ? drawWeibull(random, 0.7, scale / 12) : drawWeibull(random, shape, scale)),
    }),
  },
  {
    name: 'good and bad lots',
    draw: ({ shape, scale, perDay }, seed) => {
      const lot = byStretch(seed, LOT_DAYS * perDay)
      return { wear: (random, at) => drawWeibull(random, shape, lot(at) < 0.3 ? scale * 0.4 : scale) }
    },
  },
  {
    name: 'forgotten in bursts, more at night',
    draw: ({ perDay, logShare }, seed) => {
      const week = byStretch(seed, WEEK_DAYS * perDay)
      return {
        logShareAt: (at, gun) => {
          const isNight = (((at % perDay) + perDay) % perDay) / perDay > 2 / 3
          const ofWeek = week(at + gun * 7 * perDay) < 0.3 ? 0.3 : 1.15
          return Math.min(1, logShare * ofWeek * (isNight ? 0.6 : 1.1))
        },
      }
    },
  },
  { name: 'share told 0.15 too high', draw: () => ({ shareOff: 0.15 }) },
  { name: 'share told 0.15 too low', draw: () => ({ shareOff: -0.15 }) },
  { name: 'one reason in five is the other', draw: () => ({ mixUps: 0.2 }) },
  {
    name: 'use doubles in a busy month',
    draw: ({ perDay }, seed) => {
      const month = byStretch(seed, MONTH_DAYS * perDay)
      return { busyAt: (at) => (month(at) < 0.2 ? 2 : 1) }
    },
  },
]
