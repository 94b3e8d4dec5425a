import { alloyOf, isCored, type Mode, type WireFacts } from '@core/rightparts/facts.ts'
import { meanAndNext } from '@core/stats/mean.ts'
import { normalCdf, Z_80 } from '@core/stats/normal.ts'
import { gramPerMetre } from './wire.ts'

/** A joint by its section: what of it is weld. Lengths in mm, angles in degrees. */
export type JobJoint =
  | { kind: 'fillet'; legMm: number }
  | { kind: 'vee'; thicknessMm: number; angleDeg: number; gapMm: number }
  | { kind: 'section'; mm2: number }
export interface JobWork {
  joint: JobJoint
  /** Weld on one piece, and pieces. */
  lengthM: number
  pieces: number
  /** Arc starts on a piece. */
  starts: number
  mode: Mode | null
}

/** A fillet stands out by a tenth; a groove is capped by 1.5 mm. Guesses. */
const [CONVEX, CAP_MM] = [0.1, 1.5]
/** Welds come out larger than drawn or smaller: relative spread of the section. Guesses. */
const OFF = { fillet: 0.15, vee: 0.12, section: 0.08 } as const
const EFFICIENCY_OFF = 0.03
/** Snipped before each start, and what lies in the cable when the spool is changed. */
const SNIP_M = 0.03
const RAD = Math.PI / 180

/**
 * Weld section in mm²: fillet z²/2·(1 + c); V groove g·t + t²·tan(α/2) + cap (two thirds of its face's width by its height).
 * @example sectionMm2({ kind: 'fillet', legMm: 6 }) // 19.8
 */
export function sectionMm2(joint: JobJoint): number {
  switch (joint.kind) {
    case 'fillet':
      return (joint.legMm ** 2 / 2) * (1 + CONVEX)
    case 'vee': {
      const { thicknessMm: t, angleDeg, gapMm } = joint
      const slope = Math.tan((angleDeg / 2) * RAD)
      return gapMm * t + t ** 2 * slope + (2 / 3) * CAP_MM * (gapMm + 2 * t * slope)
    }
    case 'section':
      return joint.mm2
  }
}

/** Weld metal to wire: what becomes weld of a kilogram fed. Guesses of the trade. */
export function efficiencyOf(wire: WireFacts, mode: Mode | null): number {
  if (alloyOf(wire).startsWith('aluminium')) return 0.95
  if (wire.construction === 'metal-cored') return 0.95
  if (isCored(wire)) return wire.fit?.isSelfShielded ? 0.8 : 0.86
  return mode === 'spray' || mode === 'pulse' ? 0.98 : 0.93
}
/** Weld metal's own density: of a cored wire the sheath's metal, not the wire's. */
const metalDensity = (wire: WireFacts) => (isCored(wire) ? 7.85 : wire.densityGPerCm3)

export interface JobWire {
  kg: number
  /** One standard deviation. */
  sdKg: number
  weldKg: number
  efficiency: number
  /** Of it for snips. */
  snipKg: number
}
/**
 * Wire a job takes: section × length × density ÷ efficiency, and a snip at each start. `learnt`: what own jobs took of what was computed.
 * Misuse throws. Source: welding metallurgy's plain geometry; efficiencies are guesses.
 * @example jobWire({ joint: { kind: 'fillet', legMm: 6 }, lengthM: 1, pieces: 10, starts: 0, mode: 'spray' }, steel).weldKg // 1.55
 */
export function jobWire(work: JobWork, wire: WireFacts, learnt: { ratio: number; sd: number } | null = null): JobWire {
  const section = sectionMm2(work.joint)
  if (!(section > 0 && work.lengthM > 0 && work.pieces >= 1 && work.starts >= 0))
    throw new RangeError(
      `jobWire: expected a weld of some size, got ${section} mm² × ${work.lengthM} m × ${work.pieces}`,
    )
  const weldKg = (section * work.lengthM * work.pieces * metalDensity(wire)) / 1000
  const efficiency = efficiencyOf(wire, work.mode)
  const snipKg = (work.starts * work.pieces * SNIP_M * gramPerMetre(wire.diameterMm, wire.densityGPerCm3)) / 1000
  const ratio = learnt?.ratio ?? 1
  const kg = (weldKg / efficiency + snipKg) * ratio
  const off = learnt ? learnt.sd : Math.hypot(OFF[work.joint.kind], EFFICIENCY_OFF)
  return { kg, sdKg: off * kg, weldKg, efficiency, snipKg }
}

const LEAST_JOBS = 3
/** What own jobs took of what was computed: mean and spread of the ratio; null under three. */
export function learntOf(
  done: readonly { usedKg: number; computedKg: number }[],
): { ratio: number; sd: number } | null {
  const ratios = done.filter((d) => d.usedKg > 0 && d.computedKg > 0).map((d) => d.usedKg / d.computedKg)
  if (ratios.length < LEAST_JOBS) return null
  const { mean: ratio, sd } = meanAndNext(ratios)
  return { ratio, sd: Math.max(LEAST_SD, sd / ratio) }
}
/** The next job is never quite like the last ones. */
const LEAST_SD = 0.04

interface Known {
  kg: number
  sdKg: number
}
/** Chance that a spool finishes the jobs that are laid on it. */
export function chanceFinishes(left: Known, wanted: readonly Known[]): number {
  const need = wanted.reduce((sum, w) => sum + w.kg, 0)
  const sd = Math.hypot(left.sdKg, ...wanted.map((w) => w.sdKg))
  if (sd === 0) return left.kg >= need ? 1 : 0
  return normalCdf((left.kg - need) / sd)
}
/** So much more has to be there that it finishes 9 times in 10. */
export const surely = ({ kg, sdKg }: Known): number => kg + Z_80 * sdKg

/** So much is there 9 times in 10. */
export const surelyThere = ({ kg, sdKg }: Known): number => Math.max(0, kg - Z_80 * sdKg)

/** Pieces that a spool finishes for sure: a change between pieces, not within one. */
export function piecesOf(left: Known, job: Known & { pieces: number }): number {
  const each = surely(job) / job.pieces
  return Math.max(0, Math.min(job.pieces, Math.floor(surelyThere(left) / each)))
}
