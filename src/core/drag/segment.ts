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
  /** Play of the wire on either side in the liner: thin wire in a wide bore winds itself up in it. Null, or left out: it does not. */
  playMm?: number | null
}

/** Beyond this exponent nothing feeds: told in words, never as Infinity. */
const MOST_EXPONENT = 700

/** (eˣ − 1)/x, 1 at 0, without loss of digits near it. */
export const growth = (x: number) => (x === 0 ? 1 : Math.expm1(x) / x)

/**
 * Force after a segment, N: dF/ds = µ(θ/L)F + µ(w + q), so F·e^(µθ) + µ(w + q)L·(e^(µθ) − 1)/(µθ) + B; a tight bend adds
 * B = 8µM/(R·min(θ, π/2)), M = min(E·I/R, M_p). Capstan with weight (Euler–Eytelwein). Null: it cannot feed (µθ over 700). Where play r is
 * given the contact load is max((θ/L)F + w + q, r·F²/(4EI)): a pushed wire wound up in its liner (contact load of a helix).
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
  const bend = bendForce(segment, bendRadiusMm, of)
  if (segment.playMm) {
    const wound = afterWound(force, { ...segment, load, playMm: segment.playMm }, of)
    return wound === null ? null : wound + bend
  }
  return force * Math.exp(x) + mu * load * lengthMm * growth(x) + bend
}

/**
 * The same with snaking: till F* where r·F²/(4EI) overtakes (θ/L)F + w + q by the capstan rule, from there dF/ds = µ·a·F², so
 * 1/F = 1/F* − µ·a·s, a = r/(4EI). Null: it locks up within the length.
 */
function afterWound(
  force: number,
  at: Segment & { load: number; playMm: number },
  { wire, section }: { wire: Pick<WireBeam, 'modulusMPa'>; section: Section },
): number | null {
  const { lengthMm, friction: mu, load, bendRad } = at
  if (mu === 0 || lengthMm === 0) return force
  const a = at.playMm / (4 * wire.modulusMPa * section.secondMomentMm4)
  const k = bendRad / lengthMm
  const from = (k + Math.sqrt(k * k + 4 * a * load)) / (2 * a)
  const plain = (length: number) => force * Math.exp(mu * k * length) + mu * load * length * growth(mu * k * length)
  if (plain(lengthMm) <= from) return plain(lengthMm)
  const reached =
    force >= from
      ? 0
      : k > 0
        ? Math.log((from + load / k) / (force + load / k)) / (mu * k)
        : (from - force) / (mu * load)
  const inverse = 1 / Math.max(from, force) - mu * a * (lengthMm - reached)
  return inverse > 0 ? 1 / inverse : null
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
