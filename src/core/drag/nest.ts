import { type Section, type WireBeam } from './section.ts'

/** Fixed at the rolls, pinned at the guide: effective length of the column. */
export const FIXED_PINNED = 0.699155659642841

export interface Gap {
  /** From the nip line to the first point that holds the wire sideways. */
  lengthMm: number
  /** Diametral. */
  guideClearanceMm: number
  exitAngleRad: number
}
export interface Nest {
  eccentricityMm: number
  eulerStressMPa: number
  eta: number
  nestStressMPa: number
  nestForceN: number
}

/**
 * Push at which the wire in the gap first yields and nests, N: Perry–Robertson column, e = clearance/2 + gap²/(8R) + gap·tan(exit angle),
 * η = e(d/2)/r², σ_e = π²E r²/(K gap)²; σ the smaller root of (σ_y − σ)(σ_e − σ) = ησσ_e, in the form 2σ_yσ_e/(B + √(B² − 4σ_yσ_e)),
 * B = σ_y + σ_e(1 + η); at a gap of 0 σ_y/(1 + η). As first yield a low estimate of the real nest. Ayrton & Perry 1886; Robertson 1925.
 */
export function nestForce(gap: Gap, of: { wire: WireBeam; section: Section }): Nest {
  const { lengthMm, guideClearanceMm, exitAngleRad } = gap
  const { diameterMm, castRadiusMm, modulusMPa, yieldMPa } = of.wire
  const { gyration2Mm2, areaMm2 } = of.section
  if (!(lengthMm >= 0) || !(guideClearanceMm >= 0) || !(exitAngleRad >= 0 && exitAngleRad < Math.PI / 2))
    throw new RangeError(
      `nestForce: expected gap, clearance, angle ≥ 0, got ${lengthMm}, ${guideClearanceMm}, ${exitAngleRad}`,
    )
  const cast = castRadiusMm === null ? 0 : lengthMm ** 2 / (8 * castRadiusMm)
  const eccentricityMm = guideClearanceMm / 2 + cast + lengthMm * Math.tan(exitAngleRad)
  const eta = (eccentricityMm * (diameterMm / 2)) / gyration2Mm2
  const eulerStressMPa = (Math.PI ** 2 * modulusMPa * gyration2Mm2) / (FIXED_PINNED * lengthMm) ** 2
  const nestStressMPa = lengthMm === 0 ? yieldMPa / (1 + eta) : smallerRoot(yieldMPa, eulerStressMPa, eta)
  return { eccentricityMm, eulerStressMPa, eta, nestStressMPa, nestForceN: nestStressMPa * areaMm2 }
}

function smallerRoot(yieldMPa: number, eulerMPa: number, eta: number): number {
  const b = yieldMPa + eulerMPa * (1 + eta)
  return (2 * yieldMPa * eulerMPa) / (b + Math.sqrt(b ** 2 - 4 * yieldMPa * eulerMPa))
}
