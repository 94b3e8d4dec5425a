import { type KindKey } from '@core/path/columns.ts'
import {
  ALLOYS,
  GASES,
  GUIDE_MATERIALS,
  METALS,
  LINER_HOLDS,
  LINER_KINDS,
  MODES,
  NOZZLE_STYLES,
  POLARITIES,
  UNWINDS,
  WELD_POSITIONS,
} from '@core/rightparts/facts.ts'
import { type Spec } from './specs.ts'

const same = (values: readonly string[]) => values.map((v) => [v, v] as const)

export const FAMILY_SPECS: readonly Spec[] = [
  { key: 'thread', label: 'tip thread, as the shop calls it', is: 'text' },
  { key: 'pin', label: 'pin it ends in', is: 'text' },
  {
    key: 'plug',
    label: 'control plug',
    is: 'pick',
    options: [
      ['keyed', 'keyed, with a ring'],
      ['tabs', 'two push-on tabs'],
    ],
  },
  { key: 'linerHeldBy', label: 'liner held by', is: 'pick', options: same(LINER_HOLDS) },
  {
    key: 'linerRule',
    label: 'liner is cut',
    is: 'pick',
    options: [
      ['A', 'by what stands out'],
      ['B', 'flush and pushed back'],
      ['C', 'like the old one'],
    ],
  },
  { key: 'seatDepthMm', label: 'what stands out', is: 'quantity', of: 'rule' },
  { key: 'pushBackMm', label: 'pushed back', is: 'quantity', of: 'rule' },
  { key: 'nozzleStyle', label: 'nozzle', is: 'pick', options: same(NOZZLE_STYLES) },
  { key: 'neckMm', label: 'neck', is: 'quantity', of: 'rule' },
  { key: 'co2Amps', label: 'rated with CO2', is: 'quantity', of: 'amps' },
  { key: 'mixedAmps', label: 'rated with mixed gas', is: 'quantity', of: 'amps' },
  { key: 'dutyFraction', label: 'at a duty of', is: 'quantity', of: 'share' },
  { key: 'aluBoreOverMm', label: 'plain bore over aluminium, at most', is: 'quantity', of: 'rule' },
  { key: 'doesTipSeatLiner', label: 'the tip seats the liner', is: 'flag' },
  { key: 'hasClampRing', label: 'diffuser with a clamp ring', is: 'flag' },
  { key: 'isNeckQuick', label: 'neck comes off quickly', is: 'flag' },
]

export const FEEDER_SPECS: readonly Spec[] = [
  {
    key: 'rollCount',
    label: 'rolls',
    is: 'pick',
    options: [
      ['2', '2'],
      ['4', '4'],
    ],
  },
  {
    key: 'runsFace',
    label: 'the groove that runs is',
    is: 'pick',
    options: [
      ['read', 'the one whose number faces out'],
      ['behind', 'the one behind'],
    ],
  },
  {
    key: 'unwind',
    label: 'wire leaves the spool',
    is: 'pick',
    options: same(UNWINDS),
  },
  { key: 'pin', label: 'takes a pin', is: 'text' },
  { key: 'scaleFrom', label: 'knob from', is: 'quantity', of: 'plain' },
  { key: 'scaleTo', label: 'knob to', is: 'quantity', of: 'plain' },
  { key: 'topMPerMin', label: 'fastest', is: 'quantity', of: 'speed' },
  { key: 'hasJog', label: 'jog button', is: 'flag' },
  { key: 'hasPurge', label: 'purge button', is: 'flag' },
  { key: 'cutsGas', label: 'no gas without an arc', is: 'flag' },
  { key: 'runsLinerToRolls', label: 'soft wire: liner up to the rolls, outlet guide out', is: 'flag' },
]

export const PROCEDURE_SPECS: readonly Spec[] = [
  { key: 'gas', label: 'gas', is: 'pick', options: same(GASES) },
  { key: 'mode', label: 'mode', is: 'pick', options: same(MODES) },
  { key: 'polarity', label: 'polarity', is: 'pick', options: same(POLARITIES) },
  { key: 'amps', label: 'current', is: 'span', of: 'amps' },
  { key: 'dutyFraction', label: 'arc on so much of the time', is: 'quantity', of: 'share' },
  { key: 'wireMPerMin', label: 'wire speed', is: 'span', of: 'speed' },
  { key: 'stickOutMm', label: 'stick-out', is: 'span', of: 'rule' },
  { key: 'volts', label: 'volts', is: 'span', of: 'volts' },
  { key: 'flowLPerMin', label: 'gas flow', is: 'span', of: 'flow' },
  { key: 'material', label: 'on', is: 'pick', options: same(ALLOYS) },
  { key: 'thicknessMm', label: 'thickness', is: 'span', of: 'rule' },
  { key: 'position', label: 'position', is: 'pick', options: same(WELD_POSITIONS) },
]

export const WIRE_SPECS: readonly Spec[] = [
  { key: 'alloy', label: 'metal', is: 'pick', options: same(ALLOYS) },
  { key: 'isSelfShielded', label: 'gasless', is: 'maybe' },
  { key: 'polarity', label: 'polarity by its data', is: 'pick', options: same(POLARITIES) },
  { key: 'tipOutMm', label: 'tip stands (− back)', is: 'span', of: 'rule' },
  {
    key: 'grade',
    label: 'grade',
    is: 'pick',
    options: [
      ['plain', 'for clean metal'],
      ['deoxidised', 'goes over rust and scale'],
    ],
  },
  { key: 'isCopperCoated', label: 'copper on it', is: 'maybe' },
  { key: 'classification', label: 'classification on the label', is: 'text' },
  { key: 'pricePerKgMinor', label: 'price', is: 'quantity', of: 'moneyPerMass' },
]

const LINER: readonly Spec[] = [
  { key: 'linerKind', label: 'made of', is: 'pick', options: same(LINER_KINDS) },
  { key: 'wireMm', label: 'for wire', is: 'span', of: 'rule' },
]
/** How it is known that a part fits; asked of every kind. */
export const PROOF_SPEC: Spec = {
  key: 'proof',
  label: 'that it fits',
  is: 'pick',
  options: [
    ['confirmed', 'is confirmed here'],
    ['claimed', 'is its maker’s word'],
    ['rumour', 'is only heard'],
  ],
}
const METAL: Spec = { key: 'metal', label: 'made of, or faced with', is: 'pick', options: same(METALS) }
/** By its maker, with mixed gas, at the duty of its family. */
const RATED: Spec = { key: 'ratedAmps', label: 'rated with mixed gas', is: 'quantity', of: 'amps' }
/** What is asked of a part, by its kind. */
export const PART_SPECS: Partial<Record<KindKey, readonly Spec[]>> = {
  tip: [{ key: 'isForAluminium', label: 'bored for aluminium', is: 'maybe' }, METAL, RATED],
  neck: [METAL, RATED],
  diffuser: [METAL, RATED],
  liner: [
    ...LINER,
    { key: 'lengthM', label: 'length as bought', is: 'quantity', of: 'cable' },
    { key: 'isJacketed', label: 'has a jacket', is: 'maybe' },
    { key: 'bareFrontMm', label: 'bare at the front', is: 'quantity', of: 'rule' },
  ],
  jump: LINER,
  inlet: [
    { key: 'wireMm', label: 'for wire', is: 'span', of: 'rule' },
    { key: 'material', label: 'made of', is: 'pick', options: same(GUIDE_MATERIALS) },
  ],
  outlet: [
    { key: 'wireMm', label: 'for wire', is: 'span', of: 'rule' },
    { key: 'material', label: 'made of', is: 'pick', options: same(GUIDE_MATERIALS) },
  ],
  nozzle: [
    METAL,
    RATED,
    { key: 'nozzleStyle', label: 'goes on', is: 'pick', options: same(NOZZLE_STYLES) },
    { key: 'boreMm', label: 'bore', is: 'quantity', of: 'rule' },
    { key: 'tipOutMm', label: 'leaves the tip (− back)', is: 'quantity', of: 'rule' },
  ],
}
