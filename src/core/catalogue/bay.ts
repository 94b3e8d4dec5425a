import { type KindKey } from '@core/path/columns.ts'
import {
  type FamilyFit,
  type FeederFit,
  type Gas,
  type Mode,
  type NozzleStyle,
  type PartFit,
} from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_PART } from '@core/rightparts/untold.ts'
import { BOUGHT_GASES, gasAgainst, type BoughtGasKey } from './gases.ts'
import { FEEDER_KINDS, feederFitOf, type FeederKindKey } from './feeders.ts'
import { asksOf, catalogueWire, sizeOnBox, wireKind, type CatalogueWire, type WireKindKey } from './wires.ts'

/**
 * What seven answers make of a bay: its wire, what its guns are called and how their nozzle goes on, its feeder, and the parts for that wire in plain
 * words. An answer that is missing makes nothing; nothing is guessed that a finding could rest on.
 */
export interface BayAnswers {
  wire: { kind: WireKindKey; sizeMm: number } | null
  gunName: string | null
  nozzle: NozzleStyle | null
  feeder: FeederKindKey | null
  mode: Mode | null
  gas: BoughtGasKey | null
  cableM: number | null
}
export const NO_ANSWERS: BayAnswers = {
  wire: null,
  gunName: null,
  nozzle: null,
  feeder: null,
  mode: null,
  gas: null,
  cableM: null,
}
export type BayQuestion = keyof BayAnswers
export const BAY_QUESTIONS = Object.keys(NO_ANSWERS) as BayQuestion[]

/** A part without its number: that is filled in when somebody has the bag in hand. */
export interface DraftPart {
  kindKey: KindKey
  name: string
  sizeMm: number | null
  fit: PartFit
}
export interface BayDraft {
  wire: CatalogueWire | null
  family: { name: string; fit: FamilyFit } | null
  feeder: { name: string; fit: FeederFit } | null
  parts: DraftPart[]
  built: {
    mode: Mode | null
    gas: Gas | null
    cableM: number | null
    rollCount: 2 | 4 | null
    /** A guess by wire and mode: it turns hours into kilograms, and no finding rests on it. */
    wireSpeedMPerMin: number | null
  }
  /** What does not go together, in a sentence: said before it is taken, and again by the rules of fit afterwards. */
  doubts: string[]
}

/** Usual feed of 1.2 mm steel, m/min; thinner wire runs faster by its diameter, aluminium by a third. Guesses within a half either way. */
const FEED_1_2: Record<Mode, number> = { 'short circuit': 4.5, globular: 7, spray: 8.5, pulse: 7 }
function usualSpeed(wire: CatalogueWire, mode: Mode): number {
  const soft = wire.construction === 'aluminium' ? 4 / 3 : 1
  return Math.round(FEED_1_2[mode] * (1.2 / wire.diameterMm) * soft * 2) / 2
}

export const UNNAMED_GUN = 'our gun'
/** @example bayFrom({ ...NO_ANSWERS, wire: { kind: 'steel', sizeMm: 0.9 } }, 'metric').parts.map((p) => p.name) // contact tip 0.9, … */
export function bayFrom(answers: BayAnswers, units: 'metric' | 'us'): BayDraft {
  const { wire: said, gunName, nozzle, feeder, mode, gas, cableM } = answers
  const wire = said ? catalogueWire(said.kind, said.sizeMm, units) : null
  const name = gunName?.trim() || (nozzle ? UNNAMED_GUN : null)
  return {
    wire,
    family: name ? { name, fit: { ...UNTOLD_FAMILY, nozzleStyle: nozzle } } : null,
    feeder: feeder ? { name: FEEDER_KINDS[feeder].name, fit: feederFitOf(feeder) } : null,
    parts: [...(wire ? wireParts(wire, units) : []), ...(nozzle ? [nozzlePart(nozzle)] : [])],
    built: {
      mode,
      gas: gas ? BOUGHT_GASES[gas].gas : null,
      cableM,
      rollCount: feeder ? FEEDER_KINDS[feeder].rollCount : null,
      wireSpeedMPerMin: wire && mode ? usualSpeed(wire, mode) : null,
    },
    doubts: doubtsOf(answers),
  }
}

function wireParts(wire: CatalogueWire, units: 'metric' | 'us'): DraftPart[] {
  const size = sizeOnBox(wire.diameterMm, units)
  const { groove, liner } = asksOf(wire)
  const isAlu = wire.construction === 'aluminium'
  const sized = { sizeMm: wire.diameterMm }
  return [
    {
      kindKey: 'tip',
      name: isAlu ? `contact tip for aluminium ${size}` : `contact tip ${size}`,
      ...sized,
      fit: { ...UNTOLD_PART, isForAluminium: isAlu },
    },
    { kindKey: 'liner', name: `${liner} liner for ${size}`, ...sized, fit: { ...UNTOLD_PART, linerKind: liner } },
    { kindKey: 'rolls', name: `drive rolls ${groove} ${size}`, ...sized, fit: UNTOLD_PART },
  ]
}
const nozzlePart = (nozzleStyle: NozzleStyle): DraftPart => ({
  kindKey: 'nozzle',
  name: nozzleStyle === 'threaded' ? 'nozzle, thread-in' : 'nozzle, push-on',
  sizeMm: null,
  fit: { ...UNTOLD_PART, nozzleStyle },
})

/** Soft wire pushed further than this folds up; a guess that shops with good liners may laugh at. */
const SOFT_PUSH_M = 3.5
function doubtsOf({ wire, gas, mode, feeder, cableM }: BayAnswers): string[] {
  const doubts: string[] = []
  const against = gas ? gasAgainst(gas, { wire: wire?.kind ?? null, mode }) : null
  if (gas && against) doubts.push(`${BOUGHT_GASES[gas].name}: ${against}.`)
  if (!wire) return doubts
  const kind = wireKind(wire.kind)
  const isPushed = feeder === 'two' || feeder === 'four'
  if (kind.construction === 'aluminium' && isPushed && cableM !== null && cableM > SOFT_PUSH_M)
    doubts.push('Aluminium pushed through a long cable folds up at the rolls: keep it straight, or pull it at the gun.')
  if (kind.construction !== 'aluminium' && feeder === 'spoolGun' && kind.isSelfShielded === null)
    doubts.push('A spool gun is mostly for aluminium: is that the wire on it?')
  return doubts
}
