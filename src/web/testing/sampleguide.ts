import { anId } from '@core/testing/ids.ts'
import { CAUTIONS, type Hazard } from '@core/guide/cautions.ts'
import { type GuideAnswer, type GuideStep } from '@contract/guide.ts'
import { type LinerAnswer } from '@contract/liner.ts'
import { NOW } from './samples.ts'

/** A made-up step, guide and liner job, for views that are rendered without a server. */
export const caution = (hazard: Hazard): GuideStep['cautions'][number] => ({ hazard, ...CAUTIONS[hazard] })
export const step = (key: string, over: Partial<GuideStep> = {}): GuideStep => ({
  key,
  phase: 'work',
  power: 'off',
  do: `${key}.`,
  look: null,
  cautions: [],
  minutes: 1,
  ties: null,
  unties: null,
  swap: null,
  tight: null,
  drawing: null,
  settles: null,
  gate: null,
  canSkip: true,
  byRule: null,
  school: null,
  own: null,
  ...over,
})

export const guideOf = (over: Partial<GuideAnswer> = {}): GuideAnswer => ({
  stationId: anId('station', 'stn_00b7'),
  name: 'B7',
  familyId: anId('family', 'fam_1'),
  familyName: 'Kite',
  feederType: null,
  wireName: 'solid 1.0',
  zone: 'UTC',
  guide: 'tip',
  title: 'Contact tip',
  kindKey: 'tip',
  canClean: true,
  reasons: ['worn', 'burnedBack'],
  tools: ['side cutters'],
  put: { partId: anId('part', 'part_1'), code: 'T-10', name: 'tip 1.0', onHand: 12 },
  minutes: { median: 2, p80: 3, n: 0, others: 0, held: [] },
  steps: [
    step('isolate', { do: 'Power off.', cautions: [caution('isolate')], canSkip: false }),
    step('nozzleOff', { do: 'Nozzle off.', cautions: [caution('hot')], canSkip: false }),
    step('oldTip', { do: 'Look at the old tip.', cautions: [caution('hot')], drawing: 'bore' }),
    step('tipOn', { do: 'Tip on.', byRule: 'D03', school: 'each joint its own', canSkip: false, swap: 'tip' }),
    step('closeCentre', { do: 'Dead centre?', phase: 'close', power: 'either' }),
  ],
  follows: [],
  own: null,
  guides: [
    { key: 'tip', name: 'Contact tip', minutes: 2 },
    { key: 'liner', name: 'Liner', minutes: 21 },
  ],
  ...over,
})

const LINER_STEPS: GuideStep[] = [
  step('isolate', { do: 'Power off.', cautions: [caution('isolate')], canSkip: false }),
  step('oldOut', { do: 'Old liner out.', gate: 'oldLiner', canSkip: false }),
  step('air', { do: 'Blow it out.', gate: 'air', cautions: [caution('air')] }),
  step('unpack', { do: 'Unpack it.', cautions: [caution('coil')], canSkip: false }),
  step('push', { do: 'Liner in.', gate: 'push', canSkip: false }),
  step('trim', { do: 'Press it home and measure.', gate: 'trim', cautions: [caution('stab')], canSkip: false }),
  step('tension', { do: 'Set the tension.', settles: 'tension', cautions: [caution('circuit')] }),
  step('closing', { do: 'Free feed without a jerk?', phase: 'close', power: 'either', settles: 'freeFeed' }),
]

export const linerOf = (over: Partial<LinerAnswer> = {}): LinerAnswer => ({
  nowMs: NOW,
  zone: 'UTC',
  stationId: anId('station', 'stn_00b7'),
  name: 'B7',
  gunName: 'gun B7',
  familyName: 'Kite',
  wireName: 'solid 1.0',
  put: { partId: anId('part', 'part_9'), code: 'L-10', name: 'liner 1.0', onHand: 3 },
  putLengthMm: 4500,
  isTube: false,
  cutter: 'side cutters',
  cableMm: 4000,
  neckMm: 170,
  orderMm: 4360,
  clearFloorMm: 4670,
  secondPerson: [],
  by: 'A',
  neededMm: 18,
  shouldBe: null,
  bareFrontMm: null,
  quarterBend: { mm: 1.18, fromMm: 0.47, toMm: 2.95 },
  seatToNipMm: null,
  minutes: { median: 21, p80: 30, n: 3, others: 0, held: [] },
  last: null,
  stuckBefore: [],
  spoiled: { n: 0, of: 4 },
  autopsies: [],
  reasons: ['worn', 'kinked'],
  steps: LINER_STEPS,
  ...over,
})
