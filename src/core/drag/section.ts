/** Wire as a beam: solid, or a tube of sheath around powder that carries no load. */
export interface WireBeam {
  diameterMm: number
  /** Thickness of the sheath of tubular wire; null: solid. */
  sheathMm: number | null
  /** Of the whole wire, powder and all. */
  densityGPerCm3: number
  modulusMPa: number
  yieldMPa: number
  /** Half the diameter of a free turn; null: straightened. */
  castRadiusMm: number | null
}
export interface Section {
  areaMm2: number
  secondMomentMm4: number
  /** Square of the radius of gyration, mm². */
  gyration2Mm2: number
  /** Moment at which the whole section yields, N·mm. */
  plasticMomentNmm: number
  weightNPerMm: number
}
export const GRAVITY = 9.80665

/**
 * Section of a wire: A = π(d² − d_i²)/4, I = π(d⁴ − d_i⁴)/64, r² = I/A, M_p = σ_y(d³ − d_i³)/6, w = π/4·d²·ρ·10⁻⁶·g, d_i = d − 2t, 0 for
 * solid wire. mm, MPa, g/cm³. A sheath of half the diameter or more, or nothing over nought, throws. Elementary beam theory.
 * @example sectionOf({ diameterMm: 1.2, sheathMm: null, … }).secondMomentMm4 // 0.1018
 */
export function sectionOf(wire: WireBeam, gravity = GRAVITY): Section {
  const { diameterMm: d, sheathMm, densityGPerCm3, yieldMPa } = wire
  if (!(d > 0) || !(densityGPerCm3 > 0) || !(yieldMPa > 0) || !(wire.modulusMPa > 0))
    throw new RangeError(`sectionOf: expected d, density, yield, modulus > 0, got ${d}, ${densityGPerCm3}, ${yieldMPa}`)
  if (sheathMm !== null && !(sheathMm > 0 && 2 * sheathMm < d))
    throw new RangeError(`sectionOf: expected a sheath under half of ${d} mm, got ${sheathMm}`)
  const inner = sheathMm === null ? 0 : d - 2 * sheathMm
  const areaMm2 = (Math.PI * (d ** 2 - inner ** 2)) / 4
  const secondMomentMm4 = (Math.PI * (d ** 4 - inner ** 4)) / 64
  return {
    areaMm2,
    secondMomentMm4,
    gyration2Mm2: secondMomentMm4 / areaMm2,
    plasticMomentNmm: (yieldMPa * (d ** 3 - inner ** 3)) / 6,
    weightNPerMm: ((Math.PI * d ** 2) / 4) * densityGPerCm3 * 1e-6 * gravity,
  }
}
