import { fitAft } from '@core/life/aft.ts'
import { fitWeibull } from '@core/life/weibull.ts'
import { kaplanMeier } from '@core/life/kaplanmeier.ts'
import { explain } from '@core/drag/explain.ts'
import { forceProfile } from '@core/drag/profile.ts'
import { guessedSetup, withValues } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'
import { measureBore } from '@core/photomeasure/bore.ts'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { measured, type Measured } from './table.ts'

const MANY = 100_000
/** Lives of a hundred thousand parts, cut off at 8 hours; with four columns that say nothing. */
export function manyLives(): { time: number[]; event: number[]; columns: number[][] } {
  const random = makeRandom(11)
  const drawn = Array.from({ length: MANY }, () => drawWeibull(random, 2.2, 6))
  return {
    time: drawn.map((t) => Math.min(t, 8)),
    event: drawn.map((t) => (t < 8 ? 1 : 0)),
    columns: [0, 1, 2, 3, 4].map((j) => drawn.map((_, i) => (j === 0 ? 1 : (i * (j + 2)) % (j + 5)))),
  }
}

/** What is computed without any shop: each the best of its runs, since nothing of it waits for anybody. */
export function statistics(): Measured[] {
  const rows: Measured[] = []
  const run = (what: string, of: { target: number | null; runs: number }, work: (i: number) => unknown) => {
    const times = Array.from({ length: of.runs }, (_, i) => {
      const fromMs = performance.now()
      work(i)
      return performance.now() - fromMs
    })
    rows.push(measured(what, { target: of.target, times, cold: times[0] ?? null }))
  }
  const { columns, ...lives } = manyLives()
  run('Weibull of 100,000 lives', { target: 300, runs: 5 }, () => fitWeibull(lives))
  run('regression of 100,000 lives on four', { target: 1500, runs: 3 }, () => fitAft({ ...lives, columns }))
  run('Kaplan–Meier of 100,000 lives', { target: null, runs: 3 }, () => kaplanMeier(lives))
  const bent = guessedSetup({ ...usualShape('steel', 1), linerState: 'worn' })
  run('Drag: one slider step, computed', { target: 16, runs: 200 }, (i) => {
    const setup = withValues(bent, { coils: i / 50 })
    explain(setup)
    forceProfile(setup)
  })
  const [wide, high] = [4000, 3000]
  const data = new Float32Array(wide * high).map((_, i) => {
    const r = Math.hypot((i % wide) - 2000, Math.floor(i / wide) - 1500)
    return r < 150 ? 25 : r < 1000 ? 170 : 45
  })
  const image = { width: wide, height: high, data }
  run('bore on a 12-megapixel photo', { target: 1500, runs: 5 }, () =>
    measureBore({ image, centre: { x: 2010, y: 1492 }, borePx: null, outerPx: null, outerMm: 8 }),
  )
  return rows
}
