import { FEEDER_GUESSES, MATERIALS, suitedLiner, type WireMaterial } from './guess.ts'
import { grooveOf } from './remedy.ts'
import { type DragShape } from './setup.ts'

/** A hand gun as it usually is: the liner and rolls that suit the wire, four rolls all driven, a 15 kg spool, not calibrated. */
export const usualShape = (material: WireMaterial, diameterMm: number): DragShape => ({
  material,
  diameterMm,
  densityGPerCm3: MATERIALS[material].densityGPerCm3,
  linerKind: suitedLiner(material),
  linerState: 'new',
  runsToRolls: false,
  tipState: 'in service',
  groove: grooveOf(material),
  feeder: FEEDER_GUESSES.fourRoll,
  payoff: 'spool',
  spoolKg: 15,
  hasBooster: false,
  isReversed: false,
  coilsAt: 'spread',
  secondDrive: false,
  slip: null,
})
