import { guessedSetup } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'
import { type WireMaterial } from '@core/drag/guess.ts'
import { makeRandom, seedOf } from '@core/random/random.ts'
import { type Index } from '@core/diagnose/belief.ts'
import { drawScenario, type Scenario } from './drill.ts'
import { type BoothSetup, type Transfer } from './rig.ts'

type Row = readonly [
  name: string,
  WireMaterial,
  diameterMm: number,
  cableM: number,
  speed: number,
  Transfer,
  gasLpm: number | null,
]
/** Booths that need no shop: for who has none yet, and for the drill that is the same for all. */
const ROWS: readonly Row[] = [
  ['steel 0.9, thin sheet', 'steel', 0.9, 3, 6, 'short circuit', 14],
  ['steel 1.2, plate', 'steel', 1.2, 4, 9, 'spray', 16],
  ['aluminium 1.2', 'aluminium 5xxx', 1.2, 3, 10, 'spray', 18],
  ['flux-cored 1.2', 'flux-cored', 1.2, 4, 9, 'spray', 16],
]
export const USUAL_BOOTHS: readonly BoothSetup[] = ROWS.map(
  ([name, material, diameterMm, cableM, wireSpeedMPerMin, transfer, gasLpm]) => ({
    name,
    drag: guessedSetup(usualShape(material, diameterMm), cableM * 1000),
    ...{ wireSpeedMPerMin, transfer, gasLpm },
  }),
)

/** The drill of a day, the same for everybody wherever they are: drawn from the date alone. */
export function dailyScenario(knowledge: Index, day: string): Scenario | null {
  const random = makeRandom(seedOf(day, 7))
  const setup = USUAL_BOOTHS[Math.floor(random() * USUAL_BOOTHS.length)]
  return setup ? drawScenario(knowledge, setup, { random }) : null
}
