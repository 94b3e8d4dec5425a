import { type FaultKey } from '@core/practice/faults.ts'
import { type Level } from '@core/classes/groups.ts'
import { type HandItemKey } from '@core/classes/items.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type SimPart } from '@core/simulator/simulator.ts'

/**
 * The demo's shop, all of it made up: a yard on a tidal creek that builds and mends floating docks and ramp bridges.
 * Nothing outside this folder may know it.
 */
export const YARD = { name: 'Sallow Creek Docks & Ramps', zone: 'Europe/Oslo', currency: 'EUR' }

export const WIRES = [
  {
    name: 'solid steel 0.9',
    construction: 'solid',
    diameterMm: 0.9,
    densityGPerCm3: 7.85,
    spoolKg: 15,
    tareKg: 0.9,
    coreMm: 180,
    fullMm: 285,
    widthMm: 92,
  },
  {
    name: 'solid steel 1.0',
    construction: 'solid',
    diameterMm: 1.0,
    densityGPerCm3: 7.85,
    spoolKg: 15,
    tareKg: 0.9,
    coreMm: 180,
    fullMm: 285,
    widthMm: 92,
  },
  {
    name: 'solid steel 1.2',
    construction: 'solid',
    diameterMm: 1.2,
    densityGPerCm3: 7.85,
    spoolKg: 18,
    tareKg: 0.9,
    coreMm: 180,
    fullMm: 285,
    widthMm: 92,
  },
  {
    name: 'metal-cored 1.2',
    construction: 'metal-cored',
    diameterMm: 1.2,
    densityGPerCm3: 6.9,
    spoolKg: 16,
    tareKg: 0.9,
    coreMm: 180,
    fullMm: 285,
    widthMm: 92,
  },
  {
    name: 'flux-cored 1.2',
    construction: 'flux-cored',
    diameterMm: 1.2,
    densityGPerCm3: 6.1,
    spoolKg: 15,
    tareKg: 0.9,
    coreMm: 180,
    fullMm: 285,
    widthMm: 92,
  },
  {
    name: 'aluminium 1.2',
    construction: 'aluminium',
    diameterMm: 1.2,
    densityGPerCm3: 2.66,
    spoolKg: 7,
    tareKg: 0.7,
    coreMm: 150,
    fullMm: 280,
    widthMm: 90,
  },
] as const

export const FAMILIES = ['Kelp', 'Shale', 'Tarn'] as const

/** Part stock of one family: code stem, and cents. Sizes of tip and liner follow the wire. */
export const FAMILY_PARTS = [
  { kind: 'tip', stem: 'T', name: 'tip', cents: 64, isSized: true, count: 140 },
  { kind: 'nozzle', stem: 'N', name: 'nozzle', cents: 780, isSized: false, count: 22 },
  { kind: 'diffuser', stem: 'D', name: 'diffuser', cents: 690, isSized: false, count: 18 },
  { kind: 'insulator', stem: 'I', name: 'insulator', cents: 310, isSized: false, count: 24 },
  { kind: 'liner', stem: 'L', name: 'liner', cents: 3150, isSized: true, count: 6 },
  { kind: 'orings', stem: 'O', name: 'O-ring pair', cents: 45, isSized: false, count: 60 },
] as const

export interface AreaPlan {
  name: string
  names: string
  placeWord: 'booth' | 'cell' | 'bench'
  classKey: string
  family: (typeof FAMILIES)[number]
  wire: (typeof WIRES)[number]['name']
  mode: 'short circuit' | 'spray' | 'pulse'
  /** What keeps spatter off the nozzles, where something is in use. */
  antiSpatter?: 'none' | 'dip' | 'gel' | 'spray'
  cableM: number
  speed: number
  rolls: 2 | 4
  busy: number
  arcHours: number
  logShare: number
  cleanShare: number
  spoolShare: number
  lateShare: number
  usage: 'arcHours' | 'kg' | 'all' | 'spools'
  walkEveryWeeks: number
  shifts: {
    name: string
    weekdays: number[]
    start: string
    end: string
    breaks: { start: string; minutes: number }[]
  }[]
}

const WEEK = [1, 2, 3, 4, 5]
const EARLY = {
  name: 'early',
  weekdays: WEEK,
  start: '06:00',
  end: '14:00',
  breaks: [
    { start: '09:15', minutes: 15 },
    { start: '11:30', minutes: 30 },
  ],
}
const LATE = {
  name: 'late',
  weekdays: WEEK,
  start: '14:00',
  end: '22:00',
  breaks: [
    { start: '17:00', minutes: 15 },
    { start: '19:30', minutes: 30 },
  ],
}
const NIGHT = { name: 'night', weekdays: WEEK, start: '22:00', end: '06:00', breaks: [{ start: '02:00', minutes: 30 }] }
const SCHOOL = {
  name: 'day',
  weekdays: WEEK,
  start: '08:00',
  end: '15:30',
  breaks: [
    { start: '09:45', minutes: 15 },
    { start: '11:45', minutes: 45 },
  ],
}

export const AREAS: readonly AreaPlan[] = [
  {
    name: 'Pontoon hall',
    names: 'A1–A12',
    placeWord: 'booth',
    classKey: 'booth',
    family: 'Kelp',
    wire: 'solid steel 1.0',
    mode: 'short circuit',
    cableM: 4,
    speed: 7.5,
    rolls: 4,
    busy: 0.8,
    arcHours: 2.3,
    logShare: 0.94,
    cleanShare: 0.93,
    spoolShare: 0.97,
    lateShare: 0.2,
    usage: 'arcHours',
    walkEveryWeeks: 1,
    shifts: [EARLY, LATE],
  },
  {
    name: 'Ramp hall',
    names: 'B1–B8',
    placeWord: 'booth',
    classKey: 'booth',
    family: 'Shale',
    wire: 'metal-cored 1.2',
    mode: 'spray',
    antiSpatter: 'dip',
    cableM: 4.5,
    speed: 8.2,
    rolls: 4,
    busy: 0.75,
    arcHours: 2.6,
    logShare: 0.62,
    cleanShare: 0.8,
    spoolShare: 0,
    lateShare: 0.5,
    usage: 'kg',
    walkEveryWeeks: 2,
    shifts: [EARLY, LATE],
  },
  {
    name: 'Apprentice bay',
    names: 'T1–T8',
    placeWord: 'booth',
    classKey: 'training',
    family: 'Kelp',
    wire: 'solid steel 0.9',
    mode: 'short circuit',
    cableM: 3,
    speed: 6,
    rolls: 2,
    busy: 0.7,
    arcHours: 1.1,
    logShare: 0.8,
    cleanShare: 0.7,
    spoolShare: 0.98,
    lateShare: 0.6,
    usage: 'spools',
    walkEveryWeeks: 1,
    shifts: [SCHOOL],
  },
  {
    name: 'Robot cells',
    names: 'Cell 1–3',
    placeWord: 'cell',
    classKey: 'cell',
    family: 'Tarn',
    wire: 'solid steel 1.2',
    mode: 'pulse',
    antiSpatter: 'spray',
    cableM: 1.2,
    speed: 9,
    rolls: 4,
    busy: 0.97,
    arcHours: 4.1,
    logShare: 0.98,
    cleanShare: 0.98,
    spoolShare: 0.99,
    lateShare: 0.1,
    usage: 'all',
    walkEveryWeeks: 1,
    shifts: [EARLY, LATE, NIGHT],
  },
  {
    name: 'Repair benches',
    names: 'R1–R3',
    placeWord: 'bench',
    classKey: 'bench',
    family: 'Shale',
    wire: 'flux-cored 1.2',
    mode: 'spray',
    cableM: 4,
    speed: 7,
    rolls: 2,
    busy: 0.45,
    arcHours: 1.2,
    logShare: 0.75,
    cleanShare: 0.7,
    spoolShare: 0.95,
    lateShare: 0.4,
    usage: 'spools',
    walkEveryWeeks: 2,
    shifts: [EARLY],
  },
]

/** Places that differ from their area. */
export const EXCEPTIONS: Record<string, { wire?: string; cableM?: number }> = {
  A11: { wire: 'solid steel 1.2' },
  A12: { wire: 'solid steel 1.2' },
  B8: { wire: 'aluminium 1.2', cableM: 3 },
}

const USUAL: SimPart['reasons'] = [
  { reason: 'worn', weight: 8 },
  { reason: 'notSaid', weight: 1 },
]
const BY_CHANCE: SimPart['reasons'] = [
  { reason: 'burnedBack', weight: 7 },
  { reason: 'knocked', weight: 1 },
  { reason: 'notSaid', weight: 1 },
]
const PLAIN: SimPart['reasons'] = [
  { reason: 'worn', weight: 8 },
  { reason: 'notSaid', weight: 2 },
]

/** How parts truly wear in this yard. The program is told none of it. */
export const PARTS: readonly SimPart[] = [
  {
    position: 'tip',
    unit: 'arcHours',
    shape: 2.6,
    scale: 6.6,
    knockedPerUnit: 0.036,
    byChance: BY_CHANCE,
    reasons: USUAL,
    stops: { chance: 0.12, medianMin: 9 },
  },
  {
    position: 'nozzle',
    unit: 'arcHours',
    shape: 2.1,
    scale: 75,
    knockedPerUnit: 0.002,
    reasons: [
      { reason: 'worn', weight: 6 },
      { reason: 'blocked', weight: 2 },
      { reason: 'notSaid', weight: 1 },
    ],
  },
  {
    position: 'diffuser',
    unit: 'arcHours',
    shape: 1.9,
    scale: 190,
    knockedPerUnit: 0.0004,
    reasons: [
      { reason: 'worn', weight: 4 },
      { reason: 'stripped', weight: 3 },
      { reason: 'blocked', weight: 1 },
    ],
  },
  { position: 'insulator', unit: 'arcHours', shape: 1.7, scale: 320, knockedPerUnit: 0.0004, reasons: PLAIN },
  {
    position: 'liner',
    unit: 'kg',
    shape: 2.4,
    scale: 330,
    knockedPerUnit: 0.0002,
    reasons: [
      { reason: 'worn', weight: 5 },
      { reason: 'blocked', weight: 2 },
      { reason: 'kinked', weight: 1 },
    ],
    stops: { chance: 0.5, medianMin: 34 },
  },
  { position: 'rolls', unit: 'kg', shape: 3, scale: 2400, knockedPerUnit: 0, reasons: PLAIN },
  { position: 'outlet', unit: 'kg', shape: 2.2, scale: 2100, knockedPerUnit: 0, reasons: PLAIN },
]

export const RULES: readonly {
  kind: KindKey
  cls: string
  change: number | null
  clean: number | null
  look: number | null
}[] = [
  { kind: 'tip', cls: 'booth', change: 14, clean: null, look: null },
  { kind: 'tip', cls: 'cell', change: 8, clean: null, look: null },
  { kind: 'tip', cls: '*', change: 14, clean: null, look: null },
  { kind: 'nozzle', cls: '*', change: null, clean: 9, look: null },
  { kind: 'nozzle', cls: 'cell', change: 140, clean: 11, look: null },
  { kind: 'diffuser', cls: '*', change: null, clean: null, look: 30 },
  { kind: 'insulator', cls: '*', change: null, clean: null, look: 30 },
  { kind: 'liner', cls: '*', change: 900, clean: null, look: null },
  { kind: 'liner', cls: 'cell', change: 700, clean: null, look: null },
  { kind: 'reamer', cls: 'cell', change: 900, clean: null, look: 60 },
  { kind: 'cutter', cls: 'cell', change: 900, clean: null, look: 60 },
  { kind: 'rolls', cls: '*', change: null, clean: null, look: 60 },
  { kind: 'inlet', cls: '*', change: null, clean: null, look: 60 },
  { kind: 'outlet', cls: '*', change: null, clean: null, look: 60 },
  { kind: 'orings', cls: '*', change: null, clean: null, look: 90 },
  { kind: 'neck', cls: '*', change: null, clean: null, look: 60 },
  { kind: 'hub', cls: '*', change: null, clean: null, look: 30 },
  { kind: 'gas', cls: '*', change: null, clean: null, look: 30 },
]

export const PEOPLE = [
  { name: 'Ilse Varn', role: 'lead' },
  { name: 'Tomas Ruel', role: 'instructor' },
  { name: 'Kaja Brodd', role: 'hand' },
  { name: 'Nils Ovrand', role: 'hand' },
  { name: 'Mira Teal', role: 'hand' },
] as const
export const DEMO_LEAD = { name: 'Ilse Varn', password: 'low-tide-at-six' }

/** A plated nozzle, tried on every other gun of a hall since records began: it truly lasts so many times as long. */
export const PLATED = { code: 'KE-NP', places: ['A2', 'A4', 'A6', 'A8', 'A10', 'A12'], longer: 3.4 }
/** Guns that wear parts faster than their set-up explains: one by its cable, one by a liner that has long been dying. */
export const HUNGRY: Readonly<Record<string, number>> = { A7: 2.1, B3: 1.9 }

/** Guns whose liner is pulled with a scale every Monday. */
export const PULLED = ['A5', 'A9', 'A11', 'B2', 'B4', 'B7', 'B9', 'B10'] as const

/** What nobody touched in the last days: liners kept going by the knob, a tip that was measured. */
export const LET_GO: readonly { place: string; positions: readonly string[]; days: number }[] = [
  { place: 'B3', positions: ['liner', 'rolls'], days: 60 },
  { place: 'A8', positions: ['liner', 'rolls'], days: 60 },
  { place: 'A3', positions: ['liner', 'rolls'], days: 4 },
  { place: 'B6', positions: ['tip'], days: 2 },
  { place: 'Cell 1', positions: ['liner', 'rolls'], days: 14 },
]

/** Planted stories: what happened, where, and what the program must show of it. Tests and pictures use this table. */
export const STORIES = [
  {
    story: 'A cheap tip that runs out while its order is late',
    where: 'Parts, and Floor',
    mustFind: 'the tip of the cells is named as the cheap part whose absence would cost most; its order is late',
  },
  {
    story: 'A cupboard at the cells that does not last until it is filled again',
    where: 'Parts, where parts lie',
    mustFind: 'how many tips to carry there from the main shelf for a week',
  },
  {
    story: 'A look-alike liner that somebody says fits',
    where: 'Parts, KE-L10',
    mustFind: 'it is no offer to order by, but a try-out',
  },
  {
    story: 'A gun that wears tips twice as fast as its neighbours',
    where: 'A7',
    mustFind: 'its tips last about half as long as in the rest of the hall',
  },
  {
    story: 'A nozzle that outlasts the usual one',
    where: 'Pontoon hall',
    mustFind: 'the plated nozzle lasts about three times as long, with an interval that does not reach twice',
  },
  {
    story: 'Two guns that take more than their share of tips',
    where: 'A7 and B3',
    mustFind: 'both are named, B3 with its tension as the place to look; nobody else is',
  },
  {
    story: 'A tip rule that pays',
    where: 'booths',
    mustFind: 'least cost saves against run to failure, with its spread',
  },
  {
    story: 'A hall where four in ten changes are never logged',
    where: 'Ramp hall',
    mustFind: 'tip lives there look longer than they are',
  },
  {
    story: 'Cells that began to change tips by rule ten weeks ago',
    where: 'Cell 1–3',
    mustFind: 'lives since then end "due" at about 8 arc hours',
  },
  {
    story: 'The same rule, asked on Payback whether it helped',
    where: 'Cell 1–3',
    mustFind: 'stops at the tip are no more often since; fewer is said only where chance alone would hardly do it',
  },
  {
    story: 'A gun standing since this morning with the liner suspected',
    where: 'B3',
    mustFind: 'B3 is the first opened row, down at the liner',
  },
  { story: 'A booth nobody uses', where: 'T5', mustFind: 'T5 is parked: no line, no row' },
  {
    story: 'A gun hung from one booth to the next',
    where: 'A9 and A10',
    mustFind: 'the parts on it took their hours along',
  },
  {
    story: 'A tip booked on the wrong gun and moved',
    where: 'A5 to A6',
    mustFind: 'the Logbook shows the line as changed, both guns count right',
  },
  { story: 'A bench without any usage for weeks', where: 'R2', mustFind: 'its limits read "not seen", never good' },
  { story: 'Guns built wrong', where: 'A4, T3, B5, B8, R3', mustFind: 'each for its own reason, and no other gun' },
  { story: 'Tips of one family that seize', where: 'Pontoon hall', mustFind: 'one step slacker is advised' },
  {
    story: 'A liner cut by two measurements, remembered',
    where: 'A2',
    mustFind: 'the next one is told what was left and how long it was',
  },
  {
    story: 'Two liners stuck at one place of a cable, one kinked',
    where: 'B6',
    mustFind: 'a third that sticks there condemns the cable',
  },
  {
    story: 'A knob that creeps under a dying liner',
    where: 'B3',
    mustFind: 'announced from the readings a week before it stopped at the liner',
  },
  {
    story: 'Liners pulled every Monday on eight guns',
    where: 'A5, A9, A11, B2, B4, B7, B9, B10',
    mustFind: 'a pull above its own beginning spoke of a third of the worn ones there or more, in time',
  },
  {
    story: 'A knob that creeps, still within its window',
    where: 'A8',
    mustFind: 'a date for its limit, early and late',
  },
  { story: 'A knob raised to keep going', where: 'A3', mustFind: 'a reminder with its day, and a look at the liner' },
  { story: 'A coiled cable', where: 'T2', mustFind: 'no window on Drag; uncoiling opens it' },
  { story: 'A bore called round that measures oval', where: 'B6', mustFind: 'both kept, and said that they disagree' },
  { story: 'Gas that somebody turned up', where: 'A1', mustFind: 'changed since it was left' },
  { story: 'Liner jobs that took longer than the guess', where: 'Kelp', mustFind: 'minutes are learnt from four jobs' },
  { story: 'Spools let go, twice', where: 'T2 and T4', mustFind: 'two near misses under that caution, no name' },
  {
    story: 'Necks that go round at the cells',
    where: 'Cell 1–3',
    mustFind: 'five necks, their days on a robot and hours away learnt, and what one more would do',
  },
  {
    story: 'A liner that dies while nobody looks',
    where: 'Cell 1',
    mustFind: 'its feed motor’s current creeps at the same wire speed, said before it stops',
  },
  {
    story: 'A cutter that bends the wire’s end',
    where: 'Cell 2',
    mustFind: 'more starts come to nothing than did, said by its feeder',
  },
  {
    story: 'Reamers and their sprayers',
    where: 'Cell 1–3',
    mustFind: 'cell 1 may ream seldomer, cell 2 wants it oftener; the tank of cell 3 is nearly empty',
  },
  { story: 'A length of conduit that pulls harder', where: 'Cell 2', mustFind: 'from post to arm, not the liner' },
  { story: 'A torch that hit a clamp', where: 'Cell 3', mustFind: 'its tool centre touched up, nothing left open' },
  { story: 'A brake left tight, and spare guns', where: 'T2', mustFind: 'a reminder on the hub; one gun ready' },
  {
    story: 'Apprentices who pull the machine by the gun',
    where: 'Classes, Sedge',
    mustFind: 'guns half out stand out after Sedge and after nobody else; what Reed was taught about the clamp helped',
  },
  {
    story: 'Apprentices who do not find a gun half out',
    where: 'Practice booth, Sedge',
    mustFind: 'a gun half out is what is found least, by Sedge; a set of drills waits for it',
  },
] as const

/** What the yard's people at play log on. */
export const HANDS_TABLET = 'yard tablet'

/** The cell whose liner creeps under the feed motor: for so many days, by such a share of its current each. */
export const CREEPS = { place: 'Cell 1', days: 6, perDay: 0.03 }

/** The cell whose cutter began to bend the wire’s end, so many days ago: from then on such a share of its starts come to nothing, elsewhere so few. */
export const BENDS = { place: 'Cell 2', days: 7, share: 0.07 }
export const START_FAILS = 0.008

/** The apprentices: three groups on eight booths, what one of them leaves more than others do, and a lesson that worked. */
export const CLASSES = {
  groups: [
    {
      name: 'Sedge',
      level: 'new',
      size: 7,
      start: '08:00',
      end: '09:45',
      weekdays: WEEK,
      booths: ['T1', 'T2', 'T3', 'T4', 'T6', 'T7', 'T8'],
    },
    {
      name: 'Reed',
      level: 'some',
      size: 7,
      start: '10:00',
      end: '11:45',
      weekdays: WEEK,
      booths: ['T1', 'T2', 'T3', 'T4', 'T6', 'T7', 'T8'],
    },
    {
      name: 'Moss',
      level: 'skilled',
      size: 4,
      start: '12:30',
      end: '14:00',
      weekdays: [1, 3, 5],
      booths: ['T1', 'T2', 'T3', 'T4'],
    },
  ],
  /** Anything by anybody, so often. */
  share: 0.06,
  does: { group: 'Sedge', item: 'gunHome', share: 0.34 },
  helped: { group: 'Reed', item: 'clamp', daysAgo: 30, before: 0.42, since: 0.08 },
  moved: { group: 'Reed', start: '14:10', end: '15:30' },
  /** Last time nobody looked how that one's cable lies: it lies coiled. */
  overlooked: { place: 'T2', item: 'cable' },
} as const satisfies {
  groups: readonly {
    name: string
    level: Level
    size: number
    start: string
    end: string
    weekdays: readonly number[]
    booths: readonly string[]
  }[]
  share: number
  does: { group: string; item: HandItemKey; share: number }
  helped: { group: string; item: HandItemKey; daysAgo: number; before: number; since: number }
  moved: { group: string; start: string; end: string }
  overlooked: { place: string; item: HandItemKey }
}

/** The cell whose wire snags now and then where a length of its conduit pulls too hard: once in so many hours of the clock. */
export const SNAGS = { place: 'Cell 2', everyH: 3 }
/** What the cells’ controllers measure while all is well; those of the booths measure none of it. */
export const CELL_FEED = { volts: 27, gasLpm: 16, slip: 0.02 }

/** Feeders that send their own counts; the stand-in plays them. */
export const STAND_IN = [
  { place: 'Cell 1', equipmentId: 'WF-301', arcHoursPerShift: 4.1, wireMPerMin: 9, motorA: 2.1 },
  { place: 'Cell 2', equipmentId: 'WF-302', arcHoursPerShift: 4.4, wireMPerMin: 9, motorA: 2.4 },
  { place: 'Cell 3', equipmentId: 'WF-303', arcHoursPerShift: 3.9, wireMPerMin: 9, motorA: 1.9 },
  { place: 'A1', equipmentId: 'WF-101', arcHoursPerShift: 2.3, wireMPerMin: 7.5, motorA: 1.3 },
  { place: 'A2', equipmentId: 'WF-102', arcHoursPerShift: 2.2, wireMPerMin: 7.5, motorA: 1.4 },
  { place: 'A3', equipmentId: 'WF-103', arcHoursPerShift: 2.5, wireMPerMin: 7.5, motorA: 1.2 },
] as const

/** What the apprentices met in the practice booth, how long it takes them over the best order, and what one group does not find yet. */
export const DRILLS = {
  met: ['gunOut', 'nozzleClogged', 'tipWorn', 'workClamp', 'cableCoiled', 'linerWorn'],
  times: 1.2,
  hard: { group: 'Sedge', fault: 'gunOut', times: 2.6 },
  set: { name: 'Half out', group: 'Sedge', faults: ['gunOut', 'orings', 'nozzleClogged'] },
} as const satisfies {
  met: readonly FaultKey[]
  times: number
  hard: { group: string; fault: FaultKey; times: number }
  set: { name: string; group: string; faults: readonly FaultKey[] }
}
