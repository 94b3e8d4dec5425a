import { type WireMaterial } from '@core/drag/guess.ts'

/**
 * How fast a wire melts and what its arc burns at: v = a·I + b·s·I², mm/s, I in A, s the stick-out in mm; a falls with the wire's section,
 * b with its square. Arc: volts = fall + perMm·length. Lesnewich 1958; Waszink & van den Heuvel 1982; the numbers are guesses of the trade.
 */
export interface Melt {
  /** mm/(A·s) at 1.2 mm. */
  a: number
  /** 1/(A²·s) at 1.2 mm. */
  b: number
  fallV: number
  perMmV: number
  /** Ohm a mm of stick-out at 1.2 mm. */
  ohmPerMm: number
}
const STEEL: Melt = { a: 0.3, b: 5e-5, fallV: 15, perMmV: 0.7, ohmPerMm: 1e-3 }
export const MELT: Readonly<Record<WireMaterial, Melt>> = {
  steel: STEEL,
  stainless: { ...STEEL, b: 6.5e-5, ohmPerMm: 1.2e-3 },
  'aluminium 4xxx': { a: 0.78, b: 4e-6, fallV: 14.5, perMmV: 0.6, ohmPerMm: 1.2e-4 },
  'aluminium 5xxx': { a: 0.8, b: 5e-6, fallV: 14.5, perMmV: 0.6, ohmPerMm: 1.4e-4 },
  'copper alloy': { a: 0.5, b: 8e-6, fallV: 15, perMmV: 0.7, ohmPerMm: 2e-4 },
  'flux-cored': { ...STEEL, a: 0.36, b: 8e-5, ohmPerMm: 1.6e-3 },
  'metal-cored': { ...STEEL, a: 0.35, b: 7.5e-5, ohmPerMm: 1.5e-3 },
}
const REFERENCE_MM = 1.2
/** The same for a wire of another size. */
export function meltOf(material: WireMaterial, diameterMm: number): Melt {
  const over = (REFERENCE_MM / diameterMm) ** 2
  const { a, b, ohmPerMm, ...rest } = MELT[material]
  return { ...rest, a: a * over, b: b * over ** 2, ohmPerMm: ohmPerMm * over }
}

/** Current that melts so much wire, A: the root of b·s·I² + a·I = v. @example meltingAmps(meltOf('steel', 1.2), { mmPerS: 90, outMm: 15 }) // 222 */
export function meltingAmps({ a, b }: Melt, { mmPerS, outMm }: { mmPerS: number; outMm: number }): number {
  if (!(mmPerS >= 0) || !(outMm >= 0))
    throw new RangeError(`meltingAmps: expected speed and stick-out ≥ 0, got ${mmPerS}, ${outMm}`)
  const c = b * outMm
  return c === 0 ? mmPerS / a : (2 * mmPerS) / (a + Math.sqrt(a * a + 4 * c * mmPerS))
}

/** What lies in the way of the current besides the arc, ohm. */
export const SOURCE_OHM = 0.02
/** Volts to set so that the arc stands at a length: fall + perMm·l + I·(source + stick-out). */
export function voltsFor(melt: Melt, at: { mmPerS: number; distanceMm: number; arcMm: number }): number {
  const outMm = Math.max(0, at.distanceMm - at.arcMm)
  const amps = meltingAmps(melt, { mmPerS: at.mmPerS, outMm })
  return melt.fallV + melt.perMmV * at.arcMm + amps * (SOURCE_OHM + melt.ohmPerMm * outMm)
}
