import { type Section, type WireBeam } from './section.ts'

/** A stretch of the way with one curvature and one friction. */
export interface Segment {
  name?: string
  lengthMm: number
  /** Bends added up, whichever way they turn. */
  bendRad: number
  friction: number
  /** Of a stiff wire in a wavy liner. */
  contactLoadNPerMm: number
  /** Given where a bend is tight: neck, kink. */
  bendRadiusMm: number | null
}

/** Beyond this exponent nothing feeds: told in words, never as Infinity. */
const MOST_EXPONENT = 700

/** (eˣ − 1)/x, 1 at 0, without loss of digits near it. */
export const growth = (x: number) => (x === 0 ? 1 : Math.expm1(x) / x)

/**
 * Force after a segment, N: dF/ds = µ(θ/L)F + µ(w + q), so F·e^(µθ) + µ(w + q)L·(e^(µθ) − 1)/(µθ) + B; a tight bend adds
 * B = 8µM/(R·min(θ, π/2)), M = min(E·I/R, M_p). Capstan with weight (Euler–Eytelwein). Null: it cannot feed (µθ over 700).
 */
export function afterSegment(
  force: number,
  segment: Segment,
  of: { wire: Pick<WireBeam, 'modulusMPa'>; section: Section },
): number | null {
  const { lengthMm, bendRad, friction: mu, contactLoadNPerMm, bendRadiusMm } = segment
  if (!(force >= 0) || !(lengthMm >= 0) || !(bendRad >= 0) || !(mu >= 0) || !(contactLoadNPerMm >= 0))
    throw new RangeError(
      `afterSegment: expected force, length, bend, friction, load ≥ 0, got ${force}, ${lengthMm}, ${bendRad}, ${mu}`,
    )
  const x = mu * bendRad
  if (x > MOST_EXPONENT) return null
  const load = of.section.weightNPerMm + contactLoadNPerMm
  return force * Math.exp(x) + mu * load * lengthMm * growth(x) + bendForce(segment, bendRadiusMm, of)
}

function bendForce(
  { bendRad, friction }: Segment,
  radiusMm: number | null,
  { wire, section }: { wire: Pick<WireBeam, 'modulusMPa'>; section: Section },
): number {
  if (radiusMm === null || bendRad === 0) return 0
  if (!(radiusMm > 0)) throw new RangeError(`afterSegment: expected a bend radius > 0, got ${radiusMm}`)
  const moment = Math.min((wire.modulusMPa * section.secondMomentMm4) / radiusMm, section.plasticMomentNmm)
  return (8 * friction * moment) / (radiusMm * Math.min(bendRad, Math.PI / 2))
}

/** The force at the start and after each segment, in the order walked; null from where it cannot feed. */
export function forceChain(
  start: number,
  segments: readonly Segment[],
  of: { wire: Pick<WireBeam, 'modulusMPa'>; section: Section },
): (number | null)[] {
  const chain: (number | null)[] = [start]
  for (const segment of segments) {
    const before = chain.at(-1) ?? null
    chain.push(before === null ? null : afterSegment(before, segment, of))
  }
  return chain
}
