import { gramPerMetre, lengthFromMassM, packingFromFullSpool, woundMassKg, type Winding } from './wire.ts'

/** What is left on a spool, with one standard deviation; never under nothing. */
export interface Left {
  kg: number
  sdKg: number
}
export type LeftAnswer = ({ ok: true } & Left) | { ok: false; reason: string }

/** A shop scale, read once: a hundred grams either way covers most. An empty spool of the same make varies by about 30 g. */
const SCALE_SD_KG = 0.05
const TARE_SD_KG = 0.03
/** The tare is not known: empty wire baskets and plastic spools of a size differ by about this much. */
const UNKNOWN_TARE_SD_KG = 0.3

/**
 * Left by weight: gross − tare, spread √(scale² + tare²).
 * @example leftByWeight({ grossKg: 8.4, tareKg: 0.9, isTareKnown: true }) // 7.5 kg ± 0.06
 */
export function leftByWeight(seen: { grossKg: number; tareKg: number; isTareKnown: boolean }): LeftAnswer {
  const { grossKg, tareKg } = seen
  if (!(grossKg >= 0 && tareKg >= 0))
    throw new RangeError(`leftByWeight: expected weights >= 0, got ${grossKg}, ${tareKg}`)
  const sdKg = Math.hypot(SCALE_SD_KG, seen.isTareKnown ? TARE_SD_KG : UNKNOWN_TARE_SD_KG)
  if (grossKg < tareKg - 3 * sdKg)
    return { ok: false, reason: `it weighs less than an empty one (${tareKg} kg); is that the right spool?` }
  return { ok: true, kg: Math.max(0, grossKg - tareKg), sdKg }
}

/** The mean and half spread of packing (wire volume ÷ space) over windings from loose to layer-wound. */
const PACKING = { mean: 0.84, sd: 0.023 }
/** A rule held across a wound spool reads to about a millimetre and a half. */
const RULE_SD_MM = 1.5

/**
 * Left by the diameter it is wound to, D. With a known full spool: left = full × (D² − d²)/(D_full² − d²); without,
 * (π/4)(D² − d²)·w·packing·ρ, packing 0.80–0.88. Spread: slope 2D·left/(D² − d²) × 1.5 mm, and of the packing where it is a guess.
 */
export function leftByDiameter(seen: {
  winding: Winding
  densityGPerCm3: number
  full: { outerDiameterMm: number; massKg: number } | null
}): LeftAnswer {
  const { winding, densityGPerCm3, full } = seen
  const { outerDiameterMm: outer, hubDiameterMm: hub } = winding
  if (outer < hub - 2 * RULE_SD_MM)
    return { ok: false, reason: `that is under the core (${hub} mm); measure across the wire, not the core` }
  if (full && outer > full.outerDiameterMm + 2 * RULE_SD_MM)
    return { ok: false, reason: `that is over a full one (${full.outerDiameterMm} mm)` }
  const at = { ...winding, outerDiameterMm: Math.max(outer, hub) }
  const packing = full
    ? packingFromFullSpool({ ...winding, outerDiameterMm: full.outerDiameterMm }, densityGPerCm3, full.massKg)
    : PACKING.mean
  const kg = woundMassKg(at, packing, densityGPerCm3)
  const slope = (Math.PI / 2) * at.outerDiameterMm * winding.widthMm * packing * densityGPerCm3 * 1e-6
  const fromPacking = full ? 0 : (kg * PACKING.sd) / PACKING.mean
  return { ok: true, kg, sdKg: Math.hypot(slope * RULE_SD_MM, fromPacking) }
}

/** A label is the maker's fill: right to about one part in a hundred. */
export const labelSdKg = (labelKg: number) => 0.01 * labelKg
/** "About a third left", said by eye: a fifth of a full one either way, at two standard deviations. */
export const bySightSdKg = (fullKg: number) => 0.1 * fullKg

/** What ran off since is taken from what was there; spreads add as squares. */
export function leftSince(base: Left, used: { kg: number; sdKg: number }): Left {
  return { kg: Math.max(0, base.kg - used.kg), sdKg: Math.hypot(base.sdKg, used.sdKg) }
}

/** Mass of the wire that lies in a cable: what is clipped off and binned when a gun is emptied. */
export const cableWireKg = (wire: { diameterMm: number; densityGPerCm3: number }, cableM: number) =>
  (gramPerMetre(wire.diameterMm, wire.densityGPerCm3) * cableM) / 1000

/** A share of a full spool under which shops start to throw spools away for want of a job short enough. */
export const SHORT_SHARE = 0.15

/** A part-used spool off the guns that is short of a job's worth; its metres say which job it still does. */
export function shortEnd(
  left: Left,
  of: { fullKg: number; wire: { diameterMm: number; densityGPerCm3: number } },
): { isShort: boolean; metres: number } {
  return { isShort: left.kg < SHORT_SHARE * of.fullKg, metres: left.kg > 0 ? lengthFromMassM(of.wire, left.kg) : 0 }
}
