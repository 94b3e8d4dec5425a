import { anId } from './ids.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import {
  type FeederFacts,
  type PartFit,
  type ProcedureFacts,
  type Setup,
  type WireFacts,
  type WireFit,
} from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_PART, UNTOLD_PROCEDURE, UNTOLD_WIRE } from '@core/rightparts/untold.ts'

/** A gun with nothing said of it, and parts of a made-up bench, for tests of fit and of changing wire. */
export const FEEDER: FeederFacts = {
  id: 'feeder-1',
  name: 'four-roll',
  rollCount: 4,
  runsFace: 'read',
  unwind: 'over the top',
  pin: null,
  hasJog: true,
  hasPurge: true,
  cutsGas: false,
  scaleFrom: 0,
  scaleTo: 5,
  topMPerMin: 20,
  runsLinerToRolls: true,
}
export const NO_PROCEDURE: ProcedureFacts = { id: 'proc-1', name: 'fillet', ...UNTOLD_PROCEDURE }
export function wireOf(
  construction: WireFacts['construction'],
  diameterMm: number,
  fit: Partial<WireFit> = {},
): WireFacts {
  return {
    id: anId('wire', `wire-${construction}-${diameterMm}`),
    name: `${construction} ${diameterMm}`,
    construction,
    diameterMm,
    densityGPerCm3: construction === 'aluminium' ? 2.66 : 7.85,
    fit: { ...UNTOLD_WIRE, ...fit },
  }
}
type Said = Partial<Omit<Stocked, 'fit'>> & { fit?: Partial<PartFit> | null }
export function partOf(kindKey: KindKey, code: string, said: Said = {}): Stocked {
  const { fit, ...rest } = said
  return {
    id: anId('part', `part-${code}`),
    code,
    name: code,
    kindKey,
    familyId: null,
    sizeMm: null,
    onHand: 5,
    priceMinor: 100,
    ...rest,
    fit: fit === null || fit === undefined ? null : { ...UNTOLD_PART, ...fit },
  }
}
export const rollsOf = (code: string, shape: 'V' | 'knurled V' | 'U', [a, b]: readonly [number, number]): Stocked =>
  partOf('rolls', code, {
    fit: {
      grooves: [
        { shape, sizeMm: a },
        { shape, sizeMm: b },
      ],
    },
  })

export const NOTHING_KNOWN: Setup = {
  wire: null,
  family: null,
  feeder: null,
  procedure: null,
  mode: null,
  gas: null,
  cableM: null,
  settings: {},
  parts: {},
  polarityBy: 'wire',
  tipStands: 'byMode',
}

const KELP = {
  id: anId('family', 'fam-kelp'),
  name: 'Kelp',
  fit: { ...UNTOLD_FAMILY, neckMm: 150, linerHeldBy: 'set screw' as const, linerRule: 'A' as const },
}
const sized = (sizeMm: number) => (sizeMm * 10).toFixed(0)
const tip = (mm: number, isForAluminium = false) =>
  partOf('tip', `T${sized(mm)}${isForAluminium ? 'A' : ''}`, { sizeMm: mm, familyId: KELP.id, fit: { isForAluminium } })

/** What lies on the shelf of the made-up bench. */
export const SHELF: readonly Stocked[] = [
  tip(0.9),
  tip(1.0),
  tip(1.2),
  tip(1.2, true),
  rollsOf('RV0910', 'V', [0.9, 1.0]),
  rollsOf('RV12', 'V', [1.2, 1.2]),
  rollsOf('RK12', 'knurled V', [1.2, 1.6]),
  rollsOf('RU12', 'U', [1.2, 1.6]),
  partOf('liner', 'LS10', { fit: { linerKind: 'steel coil', wireMm: [0.8, 1.0], lengthM: 5 } }),
  partOf('liner', 'LS12', { fit: { linerKind: 'steel coil', wireMm: [1.0, 1.2], lengthM: 5 } }),
  partOf('liner', 'LP12', { fit: { linerKind: 'polymer', wireMm: [1.0, 1.2], lengthM: 5 } }),
  partOf('inlet', 'GI', { fit: { wireMm: [0.6, 1.6], material: 'polymer' } }),
  partOf('outlet', 'GO', { fit: { wireMm: [0.8, 1.2], material: 'steel' } }),
  partOf('nozzle', 'NZ', { familyId: KELP.id, fit: { nozzleStyle: 'push-on', boreMm: 16 } }),
  partOf('diffuser', 'DF', { familyId: KELP.id }),
  partOf('insulator', 'IN', { familyId: KELP.id }),
]
export const onShelf = (code: string): Stocked => {
  const found = SHELF.find((p) => p.code === code)
  if (!found) throw new RangeError(`onShelf: expected a code of the shelf, got ${code}`)
  return found
}

/** A gun built right for 0.9 solid steel. */
export const RIGHT_STEEL: Setup = {
  ...NOTHING_KNOWN,
  wire: wireOf('solid', 0.9),
  family: KELP,
  feeder: FEEDER,
  mode: 'short circuit',
  gas: 'argon mix',
  cableM: 4,
  settings: {
    roll1: '0.9',
    roll2: '0.9',
    roll3: '0.9',
    roll4: '0.9',
    polarity: 'gun positive',
    machineWire: '0.9',
    machineMode: 'short circuit',
    machineMaterial: 'steel',
    gas: 'argon mix',
    unwind: 'over the top',
  },
  parts: Object.fromEntries(
    ['T9', 'RV0910', 'LS10', 'GI', 'GO', 'NZ', 'DF', 'IN'].map(onShelf).map((p) => [p.kindKey, p]),
  ),
}
