/**
 * Wire as geometry: mass, length, rates and what is left on a spool. Round wire of diameter d (mm), density ρ (g/cm³);
 * g/m = (π/4)·d²·ρ since mm²·g/cm³ = g/m. Elementary geometry; checked by cases solved in 50-digit arithmetic.
 */
function positive(where: string, name: string, value: number): void {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${where}: expected ${name} > 0, got ${value}`)
}

export function areaMm2(diameterMm: number): number {
  positive('areaMm2', 'diameterMm', diameterMm)
  return (Math.PI / 4) * diameterMm * diameterMm
}

/** Linear mass in g/m: (π/4)·d²·ρ. @example gramPerMetre(0.8, 7.85) // 3.9458… */
export function gramPerMetre(diameterMm: number, densityGPerCm3: number): number {
  positive('gramPerMetre', 'densityGPerCm3', densityGPerCm3)
  return areaMm2(diameterMm) * densityGPerCm3
}

/** Wire used an arc hour in kg/h: speed (m/min, ≥ 0; a wire that stands uses none) × 60 × g/m ÷ 1000. */
export function kgPerArcHour(wire: { diameterMm: number; densityGPerCm3: number }, wireSpeedMPerMin: number): number {
  if (wireSpeedMPerMin === 0) return 0
  positive('kgPerArcHour', 'wireSpeedMPerMin', wireSpeedMPerMin)
  return (wireSpeedMPerMin * 60 * gramPerMetre(wire.diameterMm, wire.densityGPerCm3)) / 1000
}

/** The wire that lives and limits in kg are said of where length is what wears. */
export const REFERENCE_WIRE = { name: 'solid steel 1.0', diameterMm: 1, densityGPerCm3: 7.85 }
/**
 * How many kilograms of a wire are as long as one of 1.0 mm solid steel: a liner wears by length (P161).
 * @example kgAsLong({ diameterMm: 1.2, densityGPerCm3: 2.66 }) // 0.488
 */
export const kgAsLong = (wire: { diameterMm: number; densityGPerCm3: number }): number =>
  gramPerMetre(wire.diameterMm, wire.densityGPerCm3) /
  gramPerMetre(REFERENCE_WIRE.diameterMm, REFERENCE_WIRE.densityGPerCm3)

/** Length in m of a mass of wire. */
export function lengthFromMassM(wire: { diameterMm: number; densityGPerCm3: number }, massKg: number): number {
  return (massKg * 1000) / gramPerMetre(wire.diameterMm, wire.densityGPerCm3)
}

/** Mass of a length of wire, kg = g/m × m ÷ 1000. */
export const massFromLengthKg = (wire: { diameterMm: number; densityGPerCm3: number }, lengthM: number): number =>
  (gramPerMetre(wire.diameterMm, wire.densityGPerCm3) * lengthM) / 1000

export interface CoredFill {
  sheathDensity: number
  coreDensity: number
  fillBasis: 'massFraction' | 'coreAreaFraction'
  fill: number
}

/** Density of a cored wire without voids: 1/(F/ρc + (1−F)/ρs) by mass fraction F, (1−a)ρs + aρc by core area a. */
export function coredDensity(fill: CoredFill): {
  effectiveDensity: number
  coreAreaFraction: number
  massFraction: number
} {
  const { sheathDensity: rs, coreDensity: rc } = fill
  if (!(fill.fill >= 0 && fill.fill < 1))
    throw new RangeError(`coredDensity: expected fill in [0, 1), got ${fill.fill}`)
  if (fill.fillBasis === 'massFraction') {
    const effectiveDensity = 1 / (fill.fill / rc + (1 - fill.fill) / rs)
    return { effectiveDensity, coreAreaFraction: (fill.fill * effectiveDensity) / rc, massFraction: fill.fill }
  }
  const effectiveDensity = (1 - fill.fill) * rs + fill.fill * rc
  return { effectiveDensity, coreAreaFraction: fill.fill, massFraction: (fill.fill * rc) / effectiveDensity }
}

export interface Winding {
  outerDiameterMm: number
  hubDiameterMm: number
  widthMm: number
}

function windingVolumeMm3(winding: Winding): number {
  const { outerDiameterMm: outer, hubDiameterMm: hub, widthMm } = winding
  if (outer < hub) throw new RangeError(`windingVolumeMm3: expected outer >= hub ${hub}, got ${outer}`)
  return (Math.PI / 4) * (outer * outer - hub * hub) * widthMm
}

/** Mass in kg on a spool wound to a diameter: π/4 (Do² − Dh²)·W·packing·ρ. */
export function woundMassKg(winding: Winding, packingFactor: number, densityGPerCm3: number): number {
  return windingVolumeMm3(winding) * packingFactor * densityGPerCm3 * 1e-6
}

/** Wound diameter in mm that a mass of wire makes: the inverse of `woundMassKg`. */
export function outerDiameterMm(
  spool: { hubDiameterMm: number; widthMm: number; packingFactor: number; densityGPerCm3: number },
  massKg: number,
): number {
  const volume = massKg / (spool.packingFactor * spool.densityGPerCm3 * 1e-6)
  return Math.sqrt(spool.hubDiameterMm ** 2 + volume / ((Math.PI / 4) * spool.widthMm))
}

/** Packing factor (wire volume ÷ annulus volume) read off a full spool of known mass. */
export function packingFromFullSpool(winding: Winding, densityGPerCm3: number, massKg: number): number {
  return massKg / (windingVolumeMm3(winding) * densityGPerCm3 * 1e-6)
}
