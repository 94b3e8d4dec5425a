import { meanOrNought } from '@core/stats/mean.ts'
import { ROWS_PER_S, type BeadRun } from './bead.ts'
import { DISTANCE_MM, type BoothSetup, type Rig } from './rig.ts'
import { loadOf } from './faults.ts'

/** What a bead tells in numbers, from when the wire is up to speed. */
export interface BeadFigures {
  /** Share of the time in which the rolls slip on the wire. */
  slips: number
  /** Spread of the wire's speed at the tip over its mean. */
  jerk: number
  /** Wire at the tip over what was set. */
  arrives: number
  /** Arc while it burns, mm; 0: it never did. */
  arcMm: number
  /** Share of the time in which an arc burns. */
  burns: number
  stubsPerS: number
  shortsPerS: number
  thrownPerS: number
  /** Shielding, 0 none to 1. */
  shield: number
  /** Tip to work over what is wanted. */
  far: number
}
const FROM_ROW = Math.round(0.5 * ROWS_PER_S)

/** Gas over the weld: what is set, gets there and covers, over what is wanted; a long stick-out takes its share. */
export function shieldOf({ gas, distanceMm }: Rig, wanted: BoothSetup): number {
  if (gas.lpm === null || wanted.gasLpm === null) return 1
  const far = Math.max(0, distanceMm / DISTANCE_MM[wanted.transfer] - 1)
  return Math.min(1, (gas.lpm / wanted.gasLpm) * gas.arrives) * gas.covers * Math.max(0.3, 1 - 0.5 * far)
}

export function figuresOf(run: BeadRun, { rig, setup }: { rig: Rig; setup: BoothSetup }): BeadFigures {
  const { trace, counts } = run
  const rows = trace.volts.length
  const end = run.endedS === null ? rows : Math.max(FROM_ROW + 1, Math.floor(run.endedS * ROWS_PER_S))
  const from = (column: Float32Array) => [...column.slice(FROM_ROW, end)]
  const tip = from(trace.tipMmS)
  const mean = meanOrNought(tip)
  const spread = Math.sqrt(meanOrNought(tip.map((v) => (v - mean) ** 2)))
  const arcs = from(trace.arcMm).filter((mm) => mm > 0)
  const seconds = Math.max(0.1, (end - FROM_ROW) / ROWS_PER_S)
  return {
    slips: meanOrNought(from(trace.rollsMmS).map((v) => (v < 0.5 * rig.wireSpeedMmS ? 1 : 0))),
    jerk: mean > 1 ? spread / mean : 0,
    arrives: mean / rig.wireSpeedMmS,
    arcMm: meanOrNought(arcs),
    burns: arcs.length / Math.max(1, tip.length),
    stubsPerS: counts.stubs / seconds,
    shortsPerS: counts.shorts / seconds,
    thrownPerS: counts.thrown / seconds,
    shield: shieldOf(rig, setup),
    far: rig.distanceMm / DISTANCE_MM[setup.transfer],
  }
}

/** From where on a figure is a sign: guesses, between what a sound booth shows and what its faults do. */
const FROM = {
  ...{ longArc: 2.2, wire: 0.15, jerk: 0.3, slips: 0.3, stubsPerS: 1.2, shortsInSprayPerS: 6, thrownPerS: 6 },
  ...{ wanderMm: 1.5, dirt: 0.4, burns: 0.3, far: 1.3, load: 0.75 },
} as const
/** Symptoms of a bead, the gravest first, by the keys under which the shop's knowledge lists them. Empty: it welds as it should. */
export function signsOf(run: BeadRun, of: { rig: Rig; setup: BoothSetup }): string[] {
  const { rig } = of
  if (!rig.turns) return ['nothing']
  const f = figuresOf(run, of)
  const isLong = f.arcMm > FROM.longArc * wantedArc(of.setup)
  const hasWire = f.arrives > FROM.wire
  const isWelding = f.burns > FROM.burns
  const isUneven = f.jerk > FROM.jerk
  return [
    run.hasNested && 'nest',
    !hasWire && !run.hasNested && !run.hasBurnedBack && 'slips',
    rig.nozzleLive && 'nozzleArcs',
    run.hasBurnedBack && 'burnback',
    hasWire && isStumbling(run, f) && 'stumbles',
    f.slips > FROM.slips && hasWire && 'slips',
    hasWire && isUneven && f.slips <= FROM.slips && 'jerk',
    isLong && !run.hasNested && 'longArc',
    (f.stubsPerS > FROM.stubsPerS || (rig.transfer === 'spray' && f.shortsPerS > FROM.shortsInSprayPerS)) && 'stubs',
    rig.coasts && 'coasts',
    rig.wanderMm >= FROM.wanderMm && 'curled',
    (f.shield < HOLES_UNDER || rig.dirt > FROM.dirt) && isWelding && 'porosity',
    ((f.shield < SOOT_UNDER && !isLong) || f.far > FROM.far) && isWelding && 'soot',
    f.thrownPerS > FROM.thrownPerS && 'spatters',
    loadOf(rig) > FROM.load && 'morePressure',
  ].filter((s): s is string => typeof s === 'string')
}
export const HOLES_UNDER = 0.55
const SLOW_START_S = 0.05
const SOOT_UNDER = 0.7
/** It does not start within a second, or goes out again and again. */
const isStumbling = (run: BeadRun, f: BeadFigures) =>
  !run.hasBurnedBack &&
  !run.hasNested &&
  (run.firstArcS === null ||
    run.firstArcS > 0.7 ||
    run.counts.startS > SLOW_START_S ||
    run.counts.losses >= 2 ||
    f.burns < 0.3)
const wantedArc = ({ transfer, drag }: BoothSetup) => (transfer === 'spray' ? 5 : 1.6 * drag.shape.diameterMm)
