import { playStarts, scoreStarts } from '@core/cell/startsworld.ts'
import { playWatch, scoreWatch, type StopKind } from '@core/cell/watchworld.ts'

/**
 * Half a year at made-up robots, whose motors, days, spools, liners, hubs and drums are drawn from parameters the watch is not told: how often it says
 * something before nothing, and how far ahead it says what comes. The same of their starts, while a cutter's blade goes blunt.
 */
const WEEKS = 26
const MOST_FALSE = 0.25
const LEAST_EARLY = 0.5
const MOST_FALSE_STARTS = 0.1
const LEAST_WARNED_STARTS = 0.6

function main(): void {
  const robots = Number(process.env['BENCH_WORLDS'] ?? 120)
  const score = scoreWatch(Array.from({ length: robots }, (_, i) => playWatch(40_000 + i * 13, WEEKS)))
  console.log(`${robots} robots, ${WEEKS} weeks each; something said ${score.said} times.`)
  console.log(`${''.padEnd(10)}${'stops'.padStart(8)}${'said before'.padStart(14)}${'arc hours ahead'.padStart(18)}`)
  for (const kind of ['liner', 'hub', 'drum', 'tip'] as const satisfies readonly StopKind[]) {
    const ahead = score.aheadH[kind]
    console.log(
      `${kind.padEnd(10)}${String(score.stops[kind]).padStart(8)}${String(score.warned[kind]).padStart(14)}${(ahead?.toFixed(1) ?? '').padStart(18)}`,
    )
  }
  const byChance = score.warned.tip / Math.max(1, score.stops.tip)
  console.log(
    `Tips stop whatever the motor draws: they fall into a warned stretch ${(100 * byChance).toFixed(0)} times in 100, which is what chance does.`,
  )
  console.log(
    `Said before nothing: ${score.falsePerWeek.toFixed(2)} a gun and week (at most ${MOST_FALSE}); liners said eight arc hours ahead: ${(100 * score.linersEarly).toFixed(0)} in 100 (at least ${100 * LEAST_EARLY}).`,
  )
  const isWell = startsAreWell(robots)
  process.exitCode = isWell && score.falsePerWeek <= MOST_FALSE && score.linersEarly >= LEAST_EARLY ? 0 : 1
}

function startsAreWell(robots: number): boolean {
  const { said, stops, warned, ahead, falsePerWeek } = scoreStarts(
    Array.from({ length: robots }, (_, i) => playStarts(90_000 + i * 11, WEEKS)),
  )
  const share = warned / Math.max(1, stops)
  console.log(
    `Starts that come to nothing: said ${said} times; ${stops} blunt cutters, ${warned} said before, ${ahead ?? 0} starts ahead in the middle; before nothing ${falsePerWeek.toFixed(3)} a gun and week (at most ${MOST_FALSE_STARTS}), ${(100 * share).toFixed(0)} in 100 cutters said (at least ${100 * LEAST_WARNED_STARTS}).`,
  )
  return falsePerWeek <= MOST_FALSE_STARTS && share >= LEAST_WARNED_STARTS
}
if (process.argv[1]?.endsWith('watch.js')) main()
