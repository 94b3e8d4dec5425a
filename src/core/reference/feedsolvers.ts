import { columnLoads, ENDS, longestGapMm, transitionSlenderness, type Column, type Ends } from '@core/drag/column.ts'
import { nestForce } from '@core/drag/nest.ts'
import { frictionFromPulls } from '@core/drag/pulls.ts'
import { sectionOf, type WireBeam } from '@core/drag/section.ts'
import { forceChain, type Segment } from '@core/drag/segment.ts'
import { tipDrag } from '@core/drag/tipdrag.ts'
import { type RollPair } from '@core/drag/traction.ts'
import { tensionWindow, type FeedPath } from '@core/drag/window.ts'
import { type Json, type Solver } from './case.ts'

type Inputs = { [key: string]: Json }
const num = (inputs: Inputs, key: string): number => {
  const value = inputs[key]
  if (typeof value !== 'number') throw new RangeError(`reference: expected number ${key}, got ${JSON.stringify(value)}`)
  return value
}
const maybe = (inputs: Inputs, key: string): number | null =>
  typeof inputs[key] === 'number' ? num(inputs, key) : null

/** Solid wire of which only some of the beam is told; what a case does not use stands for itself. */
const beam = (inputs: Inputs): WireBeam => ({
  diameterMm: num(inputs, 'wireDiameterMm'),
  sheathMm: null,
  densityGPerCm3: maybe(inputs, 'densityGPerCm3') ?? 7.85,
  modulusMPa: maybe(inputs, 'modulusMPa') ?? 205_000,
  yieldMPa: maybe(inputs, 'yieldMPa') ?? 1000,
  castRadiusMm: maybe(inputs, 'castRadiusMm'),
})

const nest: Solver = (inputs) => {
  const wire = beam(inputs)
  const gap = { lengthMm: num(inputs, 'gapMm'), guideClearanceMm: num(inputs, 'guideClearanceMm'), exitAngleRad: 0 }
  return { ...nestForce(gap, { wire, section: sectionOf(wire) }) }
}

const tip: Solver = (inputs) => {
  const wire = beam(inputs)
  const bearing = {
    bearingLengthMm: num(inputs, 'bearingLengthMm'),
    boreClearanceMm: num(inputs, 'boreClearanceMm'),
    friction: num(inputs, 'frictionTip'),
    depositN: 0,
  }
  return { ...tipDrag(bearing, { wire, section: sectionOf(wire) }) }
}

const pulls: Solver = (inputs): { [key: string]: Json } => {
  const made = frictionFromPulls(inputs['straightN'] as number[], inputs['loopedN'] as number[], num(inputs, 'loops'))
  if (!made.ok) return { reason: made.reason }
  return { friction: made.friction, standardError: made.standardError }
}

function walked(inputs: Inputs) {
  const wire = beam(inputs)
  const section = sectionOf(wire, num(inputs, 'g'))
  const friction = num(inputs, 'mu')
  const segments = (inputs['segments'] as unknown as { lengthMm: number; bendRad: number }[]).map((s): Segment => ({
    ...s,
    friction,
    contactLoadNPerMm: 0,
    bendRadiusMm: null,
  }))
  const chain = forceChain(num(inputs, 'T1'), segments, { wire, section })
  return { wire, section, friction, segments, chain, last: chain.at(-1) ?? 0, start: num(inputs, 'T1') }
}

const conduit: Solver = (inputs) => {
  const { section, friction, segments, chain, last, start } = walked(inputs)
  const totalBendRad = segments.reduce((s, x) => s + x.bendRad, 0)
  const totalLengthMm = segments.reduce((s, x) => s + x.lengthMm, 0)
  const straight = friction * section.weightNPerMm * totalLengthMm
  return {
    totalBendRad,
    totalLengthMm,
    weightPerLengthNPerMm: section.weightNPerMm,
    capstanOnly: start * Math.exp(friction * totalBendRad),
    straightFrictionOnly: straight,
    withDistributedFriction: last,
    forceAfterEachSegment: chain,
    lumpedUpperBound: (start + straight) * Math.exp(friction * totalBendRad),
  }
}

const ALL_ENDS = Object.keys(ENDS) as Ends[]
const byEnds = <T extends Json>(of: (ends: Ends) => T): Json => Object.fromEntries(ALL_ENDS.map((e) => [e, of(e)]))

const columnOf = (inputs: Inputs, wireMm: number): Column => ({
  diameterMm: wireMm,
  gapMm: num(inputs, 'gapMm'),
  modulusMPa: num(inputs, 'modulusMPa'),
  yieldMPa: num(inputs, 'yieldMPa'),
})

const loadsAt =
  (column: Column) =>
  (e: Ends): Json => {
    const { slenderness, euler, johnson, least, mode } = columnLoads(column, e)
    return {
      effectiveLengthFactor: ENDS[e],
      slenderness,
      euler,
      johnson,
      minEulerYield: least,
      modeMinEulerYield: mode,
      johnsonEuler: johnson ?? euler,
      modeJohnsonEuler: johnson === null ? 'euler' : 'johnson',
    }
  }

const buckling: Solver = (inputs) => {
  const column = columnOf(inputs, num(inputs, 'wireDiameterMm'))
  const section = sectionOf(beam(inputs))
  const push = maybe(inputs, 'requiredPushN')
  const factor = maybe(inputs, 'safetyFactor') ?? 1
  const asked = (e: Ends): Json => {
    const { least } = columnLoads(column, e)
    const wanted = (push ?? 0) * factor
    return { ok: least >= wanted, margin: least / (push ?? 1), maxGapMm: longestGapMm(column, e, wanted) }
  }
  return {
    areaMm2: section.areaMm2,
    secondMomentMm4: section.secondMomentMm4,
    yieldForce: section.areaMm2 * column.yieldMPa,
    transitionSlenderness: transitionSlenderness(column),
    ends: byEnds(loadsAt(column)),
    ...(push === null ? {} : { byEnds: byEnds(asked) }),
  }
}

const combined: Solver = (inputs) => {
  const way = inputs['conduit'] as Inputs
  const { last, start, friction } = walked(way)
  const column = columnOf(inputs, num(way, 'wireDiameterMm'))
  const factor = num(inputs, 'safetyFactor')
  return {
    requiredPush: last,
    ends: byEnds((e) => {
      const { least } = columnLoads(column, e)
      return {
        critical: least,
        margin: least / last,
        ok: least >= last * factor,
        maxGapMm: longestGapMm(column, e, last * factor),
        maxTotalBendRadCapstanOnly: Math.log(least / (factor * start)) / friction,
      }
    }),
  }
}

function pathOf(inputs: Inputs): FeedPath {
  const wire = inputs['wire'] as Inputs
  const payoff = inputs['payoff'] as Inputs
  const gap = inputs['gap'] as Inputs
  const feeder = inputs['feeder'] as Inputs
  const boosterPushN = num(payoff, 'boosterPushN')
  return {
    wire: wire as unknown as WireBeam,
    payoff:
      payoff['kind'] === 'drum'
        ? { kind: 'drum', pullN: num(payoff, 'pullN'), boosterPushN }
        : {
            kind: 'spool',
            brakeTorqueNmm: num(payoff, 'brakeTorqueNmm'),
            woundRadiusMm: num(payoff, 'woundRadiusMm'),
            boosterPushN,
          },
    inletSegments: inputs['inletSegments'] as unknown as Segment[],
    outletSegments: inputs['outletSegments'] as unknown as Segment[],
    tip: inputs['tip'] as unknown as FeedPath['tip'],
    gap: {
      lengthMm: num(gap, 'lengthMm'),
      guideClearanceMm: num(gap, 'guideClearanceMm'),
      exitAngleRad: num(gap, 'exitAngleRad'),
    },
    pairs: feeder['pairs'] as unknown as RollPair[],
    rollFriction: num(feeder, 'rollFriction'),
    scaleMin: num(feeder, 'scaleMin'),
    scaleMax: num(feeder, 'scaleMax'),
    crushLimitN: maybe(inputs, 'crushLimitN'),
  }
}

const feedWindow: Solver = (inputs) => {
  const path = pathOf(inputs)
  const factors = inputs['factors'] as Inputs
  const w = tensionWindow(path, { slip: num(factors, 'slip'), nest: num(factors, 'nest') })
  return {
    weightNPerMm: sectionOf(path.wire, num(inputs['wire'] as Inputs, 'gravity')).weightNPerMm,
    payoffPullN: w.payoffPullN,
    backTensionN: w.backTensionN,
    bowMm: w.tip.bowMm,
    centreForceN: w.tip.centreForceN,
    tipDragN: w.tip.dragN,
    forceChainN: w.forceChainN,
    pushN: w.pushN,
    tractionNeededN: w.neededN,
    tractionAtZeroN: w.traction.atZeroN,
    tractionPerMarkN: w.traction.perMarkN,
    ...w.nest,
    nestMark: w.nestMark,
    crushMark: w.crushMark,
    windowLowMark: w.lowMark,
    windowHighMark: w.highMark,
    limitingTerm: w.limit,
    open: w.isOpen,
  }
}

/** The feed path's sets. */
export const FEED_SOLVERS: Readonly<Record<string, Solver>> = {
  'feed-details/nest-force': nest,
  'feed-details/tip-drag': tip,
  'feed-details/friction-from-pulls': pulls,
  'feed-force/conduit': conduit,
  'feed-force/buckling': buckling,
  'feed-force/combined': combined,
  'feed-window/window': feedWindow,
}
