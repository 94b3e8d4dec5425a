import { type KindKey } from '@core/path/columns.ts'
import { UNTOLD_PART, UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import {
  type FamilyFit,
  type FeederFit,
  type Gas,
  type PartFit,
  type ProcedureFit,
  type WireFit,
} from '@core/rightparts/facts.ts'

/** How the made-up yard's guns are built: its wires, families, feeders, procedures and parts in detail. All invented. */
const solid: WireFit = {
  ...UNTOLD_WIRE,
  alloy: 'steel',
  grade: 'deoxidised',
  isCopperCoated: true,
  pricePerKgMinor: 310,
}
const cored: WireFit = { ...UNTOLD_WIRE, alloy: 'steel', isSelfShielded: false, isCopperCoated: false }
export const WIRE_FIT: Record<string, WireFit> = {
  'solid steel 0.9': solid,
  'solid steel 1.0': solid,
  'solid steel 1.2': { ...solid, pricePerKgMinor: 295 },
  'metal-cored 1.2': { ...cored, gases: ['argon mix'], polarity: 'gun positive', pricePerKgMinor: 640 },
  'flux-cored 1.2': { ...cored, gases: ['CO2', 'argon mix'], polarity: 'gun positive', pricePerKgMinor: 520 },
  'aluminium 1.2': { ...UNTOLD_WIRE, alloy: 'aluminium 5xxx', gases: ['argon'], pricePerKgMinor: 1450 },
}

const YARD_FAMILY: FamilyFit = {
  thread: null,
  pin: 'long',
  plug: 'keyed',
  linerHeldBy: 'nut',
  linerRule: 'A',
  seatDepthMm: 18,
  pushBackMm: null,
  doesTipSeatLiner: false,
  hasClampRing: false,
  nozzleStyle: 'push-on',
  isNeckQuick: false,
  neckMm: 170,
  co2Amps: 320,
  mixedAmps: 260,
  dutyFraction: 0.6,
  aluBoreOverMm: 0.2,
  tightness: {},
}
export const FAMILY_FIT: Record<string, FamilyFit> = {
  Kelp: { ...YARD_FAMILY, thread: 'fine six', linerHeldBy: 'set screw' },
  Shale: {
    ...YARD_FAMILY,
    thread: 'coarse eight',
    nozzleStyle: 'threaded',
    neckMm: 210,
    co2Amps: 420,
    mixedAmps: 350,
  },
  Tarn: {
    ...YARD_FAMILY,
    thread: 'fine eight',
    pin: 'short',
    plug: 'tabs',
    linerRule: 'B',
    pushBackMm: 3,
    doesTipSeatLiner: true,
    nozzleStyle: 'threaded',
    neckMm: 240,
    isNeckQuick: true,
    co2Amps: 500,
    mixedAmps: 420,
    dutyFraction: 1,
  },
}

const FEEDER: FeederFit = {
  rollCount: 4,
  runsFace: 'read',
  unwind: 'over the top',
  pin: 'long',
  hasJog: true,
  hasPurge: true,
  cutsGas: false,
  scaleFrom: 0,
  scaleTo: 5,
  topMPerMin: 22,
  runsLinerToRolls: true,
}
export const FEEDER_TYPES: Record<string, FeederFit> = {
  'quay four': FEEDER,
  'quay two': {
    ...FEEDER,
    rollCount: 2,
    unwind: 'from underneath',
    hasJog: false,
    hasPurge: false,
    topMPerMin: 18,
    runsLinerToRolls: false,
  },
  'cell four': {
    ...FEEDER,
    runsFace: 'behind',
    pin: 'short',
    cutsGas: true,
    scaleFrom: 1,
    scaleTo: 10,
    topMPerMin: 25,
    runsLinerToRolls: false,
  },
}

const YARD_PROCEDURE: Omit<ProcedureFit, 'wireId'> = {
  gas: 'argon mix',
  mode: 'short circuit',
  polarity: 'gun positive',
  amps: null,
  dutyFraction: 0.4,
  wireMPerMin: null,
  stickOutMm: [12, 18],
  material: 'steel',
  thicknessMm: null,
  position: 'flat',
}
export const PROCEDURES: Record<string, { wire: string; fit: Omit<ProcedureFit, 'wireId'> }> = {
  'pontoon plate 3–8': {
    wire: 'solid steel 1.0',
    fit: { ...YARD_PROCEDURE, amps: [150, 210], thicknessMm: [3, 8], wireMPerMin: [6, 9] },
  },
  'pontoon frame 8–20': {
    wire: 'solid steel 1.2',
    fit: { ...YARD_PROCEDURE, amps: [190, 250], thicknessMm: [8, 20], wireMPerMin: [5, 8] },
  },
  'ramp seam': {
    wire: 'metal-cored 1.2',
    fit: {
      ...YARD_PROCEDURE,
      mode: 'spray',
      amps: [240, 300],
      thicknessMm: [6, 20],
      wireMPerMin: [7, 10],
      stickOutMm: [15, 22],
    },
  },
  'first beads': {
    wire: 'solid steel 0.9',
    fit: { ...YARD_PROCEDURE, amps: [110, 160], thicknessMm: [3, 6], wireMPerMin: [4.5, 7] },
  },
  'hinge plate': {
    wire: 'solid steel 1.2',
    fit: {
      ...YARD_PROCEDURE,
      mode: 'pulse',
      amps: [220, 300],
      dutyFraction: 0.8,
      thicknessMm: [4, 12],
      wireMPerMin: [8, 11],
    },
  },
  'site repair': {
    wire: 'flux-cored 1.2',
    fit: {
      ...YARD_PROCEDURE,
      mode: 'spray',
      gas: 'CO2',
      amps: [180, 240],
      thicknessMm: [6, 16],
      wireMPerMin: [6, 9],
      position: 'vertical',
    },
  },
  'deck aluminium': {
    wire: 'aluminium 1.2',
    fit: {
      ...YARD_PROCEDURE,
      mode: 'pulse',
      gas: 'argon',
      amps: [140, 200],
      thicknessMm: [4, 8],
      material: 'aluminium 5xxx',
      wireMPerMin: [8, 12],
    },
  },
}

const LINER_RANGE: Record<string, [number, number]> = { '0.9': [0.8, 0.9], '1': [0.9, 1.0], '1.2': [1.0, 1.2] }
const LINER_M: Record<string, number> = { Kelp: 4.5, Shale: 5, Tarn: 2 }
const NOZZLE: Record<string, Pick<PartFit, 'nozzleStyle' | 'boreMm' | 'tipOutMm'>> = {
  Kelp: { nozzleStyle: 'push-on', boreMm: 15, tipOutMm: 1 },
  Shale: { nozzleStyle: 'threaded', boreMm: 18, tipOutMm: -4 },
  Tarn: { nozzleStyle: 'threaded', boreMm: 20, tipOutMm: -5 },
}

/** What is told of a part of a family, by its kind and size. */
/** What the makers of the yard's tips rate them for, by wire. */
const TIP_AMPS: Readonly<Record<string, number>> = { '0.8': 240, '0.9': 280, '1': 320, '1.2': 380, '1.6': 480 }
export function partFitOf(kind: KindKey, family: string, sizeMm: number | null): PartFit | null {
  if (kind === 'tip')
    return { ...UNTOLD_PART, isForAluminium: false, metal: 'copper', ratedAmps: TIP_AMPS[String(sizeMm)] ?? null }
  if (kind === 'nozzle') return { ...UNTOLD_PART, ...NOZZLE[family], metal: 'copper' }
  if (kind === 'liner')
    return {
      ...UNTOLD_PART,
      linerKind: 'steel coil',
      wireMm: LINER_RANGE[String(sizeMm)] ?? null,
      lengthM: LINER_M[family] ?? null,
    }
  return null
}

const grooves = (shape: 'V' | 'knurled V' | 'U', a: number, b: number): PartFit => ({
  ...UNTOLD_PART,
  grooves: [
    { shape, sizeMm: a },
    { shape, sizeMm: b },
  ],
})
/** Parts that belong to no family, or to one for one wire only. */
export const OTHER_PARTS: readonly {
  code: string
  name: string
  kind: KindKey
  family: string | null
  sizeMm: number | null
  cents: number
  fit: PartFit
}[] = [
  {
    code: 'KE-NP',
    name: 'nozzle, plated',
    kind: 'nozzle',
    family: 'Kelp',
    sizeMm: null,
    cents: 1490,
    fit: { ...UNTOLD_PART, ...NOZZLE['Kelp'], metal: 'nickel-faced' },
  },
  {
    code: 'TA-G',
    name: 'Tarn neck',
    kind: 'neck',
    family: 'Tarn',
    sizeMm: null,
    cents: 21_900,
    fit: UNTOLD_PART,
  },
  {
    code: 'ROLL-V10',
    name: 'rolls V 0.9/1.0',
    kind: 'rolls',
    family: null,
    sizeMm: null,
    cents: 2450,
    fit: grooves('V', 0.9, 1.0),
  },
  {
    code: 'ROLL-V12',
    name: 'rolls V 1.0/1.2',
    kind: 'rolls',
    family: null,
    sizeMm: null,
    cents: 2450,
    fit: grooves('V', 1.0, 1.2),
  },
  {
    code: 'ROLL-K12',
    name: 'rolls knurled 1.2/1.6',
    kind: 'rolls',
    family: null,
    sizeMm: null,
    cents: 2980,
    fit: grooves('knurled V', 1.2, 1.6),
  },
  {
    code: 'ROLL-U12',
    name: 'rolls U 1.2/1.6',
    kind: 'rolls',
    family: null,
    sizeMm: null,
    cents: 2780,
    fit: grooves('U', 1.2, 1.6),
  },
  {
    code: 'GUIDE-S',
    name: 'outlet guide, steel',
    kind: 'outlet',
    family: null,
    sizeMm: null,
    cents: 940,
    fit: { ...UNTOLD_PART, wireMm: [0.8, 1.2], material: 'steel' },
  },
  {
    code: 'GUIDE-P',
    name: 'outlet guide, plastic',
    kind: 'outlet',
    family: null,
    sizeMm: null,
    cents: 780,
    fit: { ...UNTOLD_PART, wireMm: [1.0, 1.6], material: 'polymer' },
  },
  {
    code: 'SH-T12A',
    name: 'Shale tip 1.2 for aluminium',
    kind: 'tip',
    family: 'Shale',
    sizeMm: 1.2,
    cents: 92,
    fit: { ...UNTOLD_PART, isForAluminium: true },
  },
  {
    code: 'SH-LP12',
    name: 'Shale liner, plastic, 1.2',
    kind: 'liner',
    family: 'Shale',
    sizeMm: null,
    cents: 3900,
    fit: { ...UNTOLD_PART, linerKind: 'polymer', wireMm: [1.0, 1.2], lengthM: 5 },
  },
]
/** Parts by construction of wire, where the size alone does not tell. */
export const CODES_BY_WIRE: Record<string, Record<string, string>> = {
  'solid steel 0.9': { rolls: 'ROLL-V10', outlet: 'GUIDE-S' },
  'solid steel 1.0': { rolls: 'ROLL-V10', outlet: 'GUIDE-S' },
  'solid steel 1.2': { rolls: 'ROLL-V12', outlet: 'GUIDE-S' },
  'metal-cored 1.2': { rolls: 'ROLL-K12', outlet: 'GUIDE-S' },
  'flux-cored 1.2': { rolls: 'ROLL-K12', outlet: 'GUIDE-S' },
  'aluminium 1.2': { rolls: 'ROLL-U12', outlet: 'GUIDE-P', liner: 'SH-LP12', tip: 'SH-T12A' },
}
/** How each area is fed: its feeder, gas and procedure. */
export const AREA_FIT: Record<string, { feeder: string; gas: Gas; procedure: string }> = {
  'Pontoon hall': { feeder: 'quay four', gas: 'argon mix', procedure: 'pontoon plate 3–8' },
  'Ramp hall': { feeder: 'quay four', gas: 'argon mix', procedure: 'ramp seam' },
  'Apprentice bay': { feeder: 'quay two', gas: 'argon mix', procedure: 'first beads' },
  'Robot cells': { feeder: 'cell four', gas: 'argon mix', procedure: 'hinge plate' },
  'Repair benches': { feeder: 'quay two', gas: 'CO2', procedure: 'site repair' },
}
export const PLACE_FIT: Record<string, { procedure: string; gas?: Gas; mode?: 'pulse' }> = {
  A11: { procedure: 'pontoon frame 8–20' },
  A12: { procedure: 'pontoon frame 8–20' },
  B8: { procedure: 'deck aluminium', gas: 'argon', mode: 'pulse' },
}

/** Guns built wrong on purpose: what the program must say of each, and of no other. */
export const MISBUILT = [
  { where: 'A4', rule: 'rollTurned', why: 'roll 2 went on the wrong way round after a cleaning' },
  { where: 'T3', rule: 'tipLarge', why: 'an apprentice took a 1.2 tip from the other box' },
  { where: 'B5', rule: 'otherFamily', why: 'a diffuser of the next hall was forced on' },
  { where: 'B8', rule: 'linerKind', why: 'the aluminium booth got a steel liner in a hurry' },
  { where: 'R3', rule: 'polarity', why: 'cables were left swapped after a try with gasless wire' },
] as const
/** Guns of which something is only doubtful. */
export const DOUBTFUL = [
  { where: 'Cell 2', rule: 'machineWire' },
  { where: 'T7', rule: 'unwind' },
] as const
