import { meanOrNought } from '@core/stats/mean.ts'
import { makeRandom } from '@core/random/random.ts'
import { BEAD_S, ROWS_PER_S, type BeadRun } from './bead.ts'
import { type Rig, type BoothSetup } from './rig.ts'
import { HOLES_UNDER, shieldOf } from './signs.ts'

/** What a bead looks like, from what was laid: drawn on a plate of 100 × 20. */
export interface BeadPicture {
  /** Left to right: half the width at a place, and how far it lies off the line; 0 wide: nothing was laid there. */
  slices: { x: number; half: number; off: number }[]
  holes: Dot[]
  spatter: Dot[]
  /** 0 bright to 1 black. */
  soot: number
  /** Overlapping scales, as a short circuit leaves them. */
  ripples: boolean
}
interface Dot {
  x: number
  y: number
  r: number
}
export const PLATE = { width: 100, height: 20 }
const SLICES = 50
const FROM_X = 6
const OVER_X = 88
const MIDDLE = PLATE.height / 2
/** Half the width of a bead that is as it should be. */
const USUAL_HALF = 3.2
const SPATTER_A_THROW = 1.5
const MOST_SPATTER = 60

export function beadPicture(
  run: BeadRun,
  { rig, setup, seed }: { rig: Rig; setup: BoothSetup; seed: number },
): BeadPicture {
  const random = makeRandom(seed ^ 0x5bead)
  const shield = shieldOf(rig, setup)
  const rows = BEAD_S * ROWS_PER_S
  const slices = Array.from({ length: SLICES }, (_, i) => {
    const [from, to] = [Math.floor((i / SLICES) * rows), Math.floor(((i + 1) / SLICES) * rows)]
    const burns = share(run.trace.arcMm.slice(from, to), (mm) => mm > 0)
    const fed = meanOrNought(run.trace.tipMmS.slice(from, to)) / Math.max(1, rig.wireSpeedMmS)
    const long = meanOrNought(run.trace.arcMm.slice(from, to)) / (rig.transfer === 'spray' ? 5 : 2)
    const half = burns < 0.15 ? 0 : USUAL_HALF * Math.sqrt(Math.min(1.6, fed)) * (0.8 + 0.2 * Math.min(2.5, long))
    return { x: FROM_X + (OVER_X * (i + 0.5)) / SLICES, half, off: rig.wanderMm * (2 * random() - 1) * 0.8 }
  })
  const laid = slices.filter((s) => s.half > 0)
  const bad = Math.max(0, HOLES_UNDER + 0.1 - shield) + (rig.dirt > 0.4 ? rig.dirt * 0.4 : 0)
  const holes = laid.flatMap((s): Dot[] =>
    random() < bad * 0.9 ? [{ x: s.x, y: MIDDLE + s.off + (random() - 0.5) * s.half, r: 0.35 + 0.4 * random() }] : [],
  )
  const thrown = Math.min(MOST_SPATTER, Math.round(run.counts.thrown * SPATTER_A_THROW))
  const first = laid[0]
  const spatter = first
    ? Array.from({ length: thrown }, () => ({
        x: FROM_X + OVER_X * random(),
        y: MIDDLE + (random() < 0.5 ? -1 : 1) * (3.5 + 5.5 * random()),
        r: 0.25 + 0.5 * random(),
      }))
    : []
  return {
    slices,
    holes,
    spatter,
    soot: laid.length > 0 ? sootOf(shield, rig, setup) : 0,
    ripples: rig.transfer !== 'spray',
  }
}
const share = (list: Float32Array, is: (v: number) => boolean) => list.filter(is).length / Math.max(1, list.length)
const sootOf = (shield: number, rig: Rig, setup: BoothSetup) =>
  setup.gasLpm === null ? 0 : Math.min(1, Math.max(0, 1 - shield) * 0.9 + rig.rough * 0.15)
