import { type Section, type WireBeam } from './section.ts'

export interface TipBearing {
  bearingLengthMm: number
  /** Diametral: bore less wire. */
  boreClearanceMm: number
  friction: number
  /** What deposit or a keyholed bore adds, as the inspection's finding sets it. */
  depositN: number
}

/**
 * Drag at the tip from the wire's cast, N: held straight over the bearing ℓ a wire of cast radius R bows by δ = max(0, ℓ²/(8R) − c);
 * centre force P = 48EIδ/ℓ³; drag = 2µP + deposit. No cast, no bow. mm, MPa. Three-point bow of a curved beam (Timoshenko & Gere).
 */
export function tipDrag(
  tip: TipBearing,
  of: { wire: Pick<WireBeam, 'modulusMPa' | 'castRadiusMm'>; section: Pick<Section, 'secondMomentMm4'> },
): { bowMm: number; centreForceN: number; dragN: number } {
  const { bearingLengthMm: l, boreClearanceMm: c, friction, depositN } = tip
  const { castRadiusMm: r, modulusMPa } = of.wire
  if (!(l > 0) || !(c >= 0) || !(friction >= 0) || !(depositN >= 0) || (r !== null && !(r > 0)))
    throw new RangeError(
      `tipDrag: expected a bearing and a cast > 0, clearance, friction, deposit ≥ 0, got ${l}, ${r}, ${c}`,
    )
  const bowMm = r === null ? 0 : Math.max(0, l ** 2 / (8 * r) - c)
  const centreForceN = (48 * modulusMPa * of.section.secondMomentMm4 * bowMm) / l ** 3
  return { bowMm, centreForceN, dragN: 2 * friction * centreForceN + depositN }
}
