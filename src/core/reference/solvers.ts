import { bendErrorMm } from '@core/liner/trim.ts'
import { kaplanMeier, restrictedMean } from '@core/life/kaplanmeier.ts'
import {
  areaMm2,
  coredDensity,
  gramPerMetre,
  kgPerArcHour,
  lengthFromMassM,
  outerDiameterMm,
  packingFromFullSpool,
  woundMassKg,
} from '@core/spools/wire.ts'
import { inchToMm, ipmToMetrePerMin } from '@core/units/convert.ts'
import { CELL_SOLVERS } from './cellsolvers.ts'
import { DIAGNOSE_SOLVERS } from './diagnosesolvers.ts'
import { FEED_SOLVERS } from './feedsolvers.ts'
import { LIFE_SOLVERS } from './lifesolvers.ts'
import { STOCK_SOLVERS } from './stocksolvers.ts'
import { TREND_SOLVERS } from './trendsolvers.ts'
import { type Json, type Solver } from './case.ts'

type Inputs = { [key: string]: Json }
const num = (inputs: Inputs, key: string): number => {
  const value = inputs[key]
  if (typeof value !== 'number') throw new RangeError(`reference: expected number ${key}, got ${JSON.stringify(value)}`)
  return value
}
const list = (inputs: Inputs, key: string): number[] => (inputs[key] as number[] | undefined) ?? []
const diameter = (inputs: Inputs) =>
  inputs['unit'] === 'in' ? inchToMm(num(inputs, 'diameter')) : num(inputs, 'diameter')
const speed = (inputs: Inputs) =>
  inputs['speedUnit'] === 'in/min' || inputs['speedUnit'] === 'ipm'
    ? ipmToMetrePerMin(num(inputs, 'wireFeedSpeed'))
    : num(inputs, 'wireFeedSpeed')
const wire = (inputs: Inputs) => ({ diameterMm: diameter(inputs), densityGPerCm3: num(inputs, 'densityGPerCm3') })

const linearMass: Solver = (inputs) => {
  const diameterMm = diameter(inputs)
  const values = (inputs['densities'] as { material: string; gPerCm3: number }[]).map(({ material, gPerCm3 }) => {
    const g = gramPerMetre(diameterMm, gPerCm3)
    return { material, gramPerMetre: g, metrePerKg: 1000 / g }
  })
  return { diameterMm, areaMm2: areaMm2(diameterMm), values }
}

const rate: Solver = (inputs) => {
  const consumption = kgPerArcHour(wire(inputs), speed(inputs))
  const efficiency = typeof inputs['depositionEfficiency'] === 'number' ? inputs['depositionEfficiency'] : 1
  return {
    metrePerMin: speed(inputs),
    consumptionKgPerHour: consumption,
    depositionKgPerHour: consumption * efficiency,
  }
}

const cored: Solver = (inputs) => {
  const made = coredDensity({
    sheathDensity: num(inputs, 'sheathDensity'),
    coreDensity: num(inputs, 'coreDensity'),
    fillBasis: inputs['fillBasis'] === 'massFraction' ? 'massFraction' : 'coreAreaFraction',
    fill: num(inputs, 'fill'),
  })
  const g = gramPerMetre(diameter(inputs), made.effectiveDensity)
  return { ...made, gramPerMetre: g, metallicGramPerMetre: g * (1 - made.massFraction) }
}

const winding = (inputs: Inputs) => ({
  outerDiameterMm: num(inputs, 'outerDiameterMm'),
  hubDiameterMm: num(inputs, 'hubDiameterMm'),
  widthMm: num(inputs, 'widthMm'),
})

const remaining: Solver = (inputs) => {
  const massKg = woundMassKg(winding(inputs), num(inputs, 'packingFactor'), num(inputs, 'densityGPerCm3'))
  return { massKg, lengthM: lengthFromMassM(wire(inputs), massKg) }
}

const outer: Solver = (inputs) => ({
  outerDiameterMm: outerDiameterMm(
    {
      hubDiameterMm: num(inputs, 'hubDiameterMm'),
      widthMm: num(inputs, 'widthMm'),
      packingFactor: num(inputs, 'packingFactor'),
      densityGPerCm3: num(inputs, 'densityGPerCm3'),
    },
    num(inputs, 'massKg'),
  ),
})

const hoursLeft: Solver = (inputs) => {
  const arcHours = num(inputs, 'massKg') / kgPerArcHour(wire(inputs), speed(inputs))
  return { arcHours, clockHours: arcHours / num(inputs, 'arcOnFraction') }
}

const survival: Solver = (inputs) => {
  const entry = inputs['entry'] === undefined || inputs['entry'] === null ? undefined : list(inputs, 'entry')
  const curve = kaplanMeier({ time: list(inputs, 'time'), event: list(inputs, 'event'), ...(entry ? { entry } : {}) })
  const tau = num(inputs, 'tau')
  const mean = restrictedMean(curve, tau)
  const column = (pick: (step: (typeof curve.steps)[number]) => number | null) => curve.steps.map(pick)
  return {
    steps: {
      time: column((s) => s.time),
      nRisk: column((s) => s.nRisk),
      nEvent: column((s) => s.nEvent),
      survival: column((s) => s.survival),
      greenwoodVar: column((s) => s.greenwoodVar),
      seSurvival: column((s) => (s.greenwoodVar === null ? null : Math.sqrt(s.greenwoodVar))),
      logLogLower: column((s) => s.lower),
      logLogUpper: column((s) => s.upper),
    },
    median: curve.median,
    medianLower: curve.medianLower,
    medianUpper: curve.medianUpper,
    rmst: mean.rmst,
    seRmst: mean.se,
    tau,
  }
}

/** By the set's name, or by set and kind. What is missing here is not built yet. */
export const SOLVERS: Readonly<Record<string, Solver>> = {
  ...FEED_SOLVERS,
  ...DIAGNOSE_SOLVERS,
  ...TREND_SOLVERS,
  ...STOCK_SOLVERS,
  ...LIFE_SOLVERS,
  ...CELL_SOLVERS,
  'kaplan-meier': survival,
  'feed-details/trim-bend-error': (inputs) => ({
    errorMm: bendErrorMm({
      conduitBoreMm: num(inputs, 'conduitBoreMm'),
      linerOutsideMm: num(inputs, 'linerOutsideDiameterMm'),
      bendRad: num(inputs, 'bendRad'),
    }),
  }),
  'spool-and-wire/linear-mass': linearMass,
  'spool-and-wire/consumption-rate': rate,
  'spool-and-wire/length-from-mass': (inputs) => ({ lengthM: lengthFromMassM(wire(inputs), num(inputs, 'massKg')) }),
  'spool-and-wire/flux-cored': cored,
  'spool-and-wire/spool-remaining': remaining,
  'spool-and-wire/outer-diameter-from-mass': outer,
  'spool-and-wire/packing-from-full-spool': (inputs) => ({
    packingFactor: packingFromFullSpool(winding(inputs), num(inputs, 'densityGPerCm3'), num(inputs, 'massKg')),
  }),
  'spool-and-wire/hours-left': hoursLeft,
}
export const solverFor = (set: string, kind: string | undefined): Solver | undefined =>
  SOLVERS[`${set}/${kind ?? ''}`] ?? SOLVERS[set]
