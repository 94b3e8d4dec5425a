import { type DrawingKey } from '@core/drawings/drawing.ts'
import { type Hazard } from '@core/guide/cautions.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type How, type ReadingKey, type ReadingUnit, type ReadingVerdict } from './keys.ts'

/** A look or a feel told apart in words: what is seen, and what it means. */
export interface Grade {
  key: string
  says: string
  is: ReadingVerdict
  /** What puts that right, where it is another thing than what puts the others right. */
  fix?: 'clean' | 'change' | 'none'
}
export interface Method {
  key: string
  name: string
  /** What to do, in a line. */
  do: string
  how: Exclude<How, 'said'>
  grades: readonly Grade[]
  /** A number is asked for, with the grade or alone; or the two diameters of a bore, or so many of so many. */
  number: 'needed' | 'welcome' | 'twoDiameters' | 'ofTotal' | 'weights' | 'rollAndWire' | 'gauge' | 'none'
  /** What is measured on a picture, where it is read from one; a side picture by a part of known size in it. */
  photo: { of: 'bore' | 'nozzleOpen' | 'centring' } | { of: 'side'; known: string; isKnownUnit: boolean } | null
  hazards: readonly Hazard[]
  /** Nobody takes it: what equipment sends is read. */
  isByItself: boolean
}
export interface ReadingSpec {
  name: string
  /** Kind of the path it is read at. */
  at: KindKey
  unit: ReadingUnit | null
  /** Beyond this it is no reading but a slip. */
  physics: readonly [from: number, to: number]
  /** Where it usually lies: a slip is guessed at by what would bring it there. */
  usual: readonly [from: number, to: number]
  /** Factors of the usual slips: a comma, another unit. */
  slips: readonly number[]
  /** It gets worse that way; null: either way, or it does not creep. */
  worse: 'up' | 'down' | null
  /** One reading against the next, same hand, same gun: a standard deviation. A guess. */
  sd: number
  /** Adjustable: stored as found and as left. */
  isSet: boolean
  /** Positions where another part on starts the series anew. */
  resetBy: readonly KindKey[]
  /** Taken at the drive, but the gun's: what raises it lies in its liner, and goes with it. */
  isOfGun: boolean
  /** It lies before tip and nozzle, and does not depend on what anybody logs. */
  isUpstream: boolean
  /** Of how one wire feeds: another wire on ends its series, and what it asked for. */
  isOfFeeding: boolean
  /** Of robots only. */
  isOfCells: boolean
  /** Over its own beginning by so much, in its unit or as a factor, it is at its limit where no window tells one. */
  limitOver: { add: number } | { times: number } | null
  /** Right and wrong beside what is read. */
  drawing: DrawingKey | null
  /** Put right in passing, it is as it was the next shift: what was found says nothing for longer. */
  isPassing: boolean
  /** Remarked on and left in, it comes up again after so many days. A guess. */
  againDays: number
  /** Where on the path creeping points to, and what it asks for. */
  creepAt: KindKey | null
  asksFor: string
  methods: readonly Method[]
}

const g = (key: string, says: string, is: ReadingVerdict): Grade => ({ key, says, is })
const method = (of: Partial<Method> & Pick<Method, 'key' | 'name' | 'do'>): Method => ({
  how: 'looked',
  grades: [],
  number: 'none',
  photo: null,
  hazards: [],
  isByItself: false,
  ...of,
})
/** Read off a picture taken from the side, by a part of known size in it. */
const fromSide = (known: string, of: Pick<Method, 'do' | 'hazards'>, isKnownUnit = false): Method =>
  method({
    key: 'photo',
    name: 'on a photo',
    how: 'measured',
    number: 'needed',
    photo: { of: 'side', known, isKnownUnit },
    ...of,
  })
const spec = (of: Partial<ReadingSpec> & Pick<ReadingSpec, 'name' | 'at' | 'methods'>): ReadingSpec => ({
  unit: null,
  physics: [0, 1],
  usual: [0, 1],
  slips: [],
  worse: null,
  sd: 0,
  isSet: false,
  resetBy: [],
  isOfGun: false,
  isUpstream: false,
  isOfFeeding: false,
  isOfCells: false,
  limitOver: null,
  drawing: null,
  isPassing: false,
  againDays: 7,
  creepAt: null,
  asksFor: '',
  ...of,
})
/** The knob may rise by so much over its baseline, in marks. */
export const KNOB_RISE = 1
/** Friction over that of the new liner from which it is worth a look, and the motor's current over how it began. */
export const FRICTION_LOOK = 1.5
export const AMPS_LOOK = 1.25
const KGF = 1 / 9.80665
const LBF = 1 / 4.4482216
const COMMA = [0.1, 0.01]

const PINCHED = [
  g('stops', 'a firm pinch stops it', 'good'),
  g('lightly', 'a light touch stops it', 'look'),
  g('never', 'nothing stops it', 'act'),
]
/** Methods by which the tension is set (D02): none of their verdicts is compared with another's. */
const TENSION_METHODS: readonly Method[] = [
  method({
    key: 'block',
    name: 'on a wood block',
    do: 'Feed about 8 cm against dry wood at 45°: it should curl up and keep coming.',
    number: 'needed',
    grades: [
      g('curls', 'curls and keeps coming', 'good'),
      g('stalls', 'stalls or pushes back', 'act'),
      g('kinks', 'bent or kinked as it leaves the gun', 'look'),
    ],
    hazards: ['live', 'circuit', 'stab'],
  }),
  method({
    key: 'wood',
    name: 'until slipping stops',
    do: 'Start slack, feed onto wood, tighten only until it feeds steadily.',
    number: 'needed',
    grades: [g('steady', 'feeds steadily', 'good'), g('slips', 'still slips', 'act')],
    hazards: ['live', 'circuit', 'stab'],
  }),
  method({
    key: 'pinch',
    name: 'pinched by bare fingers',
    do: 'Work clamp off first, out of the weld circuit: a firm pinch where the wire comes out should stop it and let the rolls slip.',
    number: 'needed',
    grades: PINCHED,
    hazards: ['live', 'circuit'],
  }),
  method({
    key: 'gloved',
    name: 'pinched with a glove',
    do: 'Work clamp off first, a dry glove on: a firm pinch where the wire comes out should stop it and let the rolls slip.',
    number: 'needed',
    grades: PINCHED,
    hazards: ['live', 'circuit'],
  }),
  method({ key: 'knob', name: 'the knob alone', do: 'Read the number the knob points at.', number: 'needed' }),
  method({
    key: 'ear',
    name: 'by arc and ear',
    do: 'A short weld: is the arc even, the sound steady? Then read the knob.',
    number: 'needed',
    grades: [g('even', 'even and steady', 'good'), g('surges', 'surges, or a long arc', 'look')],
    hazards: ['arc', 'clothing', 'trigger'],
  }),
]

/** Every reading as data. Windows go by the set-up (`targetFor`); numbers here are guesses. */
export const READING: Readonly<Record<ReadingKey, ReadingSpec>> = {
  hubDrag: spec({
    name: 'hub drag',
    isUpstream: true,
    at: 'hub',
    unit: 'N',
    physics: [0.1, 80],
    usual: [1, 15],
    slips: [...COMMA, KGF, LBF],
    worse: 'up',
    sd: 0.6,
    isSet: true,
    asksFor: 'ease the hub brake',
    methods: [
      method({
        key: 'scale',
        name: 'spring scale',
        do: 'Arm open, scale on the wire before the rolls, pull slowly and steadily, read while it moves.',
        how: 'measured',
        number: 'needed',
        hazards: ['isolate', 'spring'],
      }),
    ],
  }),
  hubCoast: spec({
    name: 'hub coast',
    at: 'hub',
    unit: 'deg',
    physics: [0, 1080],
    usual: [5, 120],
    slips: [...COMMA, 360],
    worse: 'up',
    sd: 8,
    isSet: true,
    asksFor: 'snug the hub brake',
    methods: [
      method({
        key: 'look',
        name: 'by eye',
        do: 'Feed, let go of the trigger, watch how far the spool runs on.',
        number: 'welcome',
        grades: [
          g('stops', 'stops with the trigger, no loose loops', 'good'),
          g('dead', 'stops dead, hard to turn by hand', 'look'),
          g('coasts', 'runs on, loops hang loose', 'act'),
        ],
        hazards: ['live'],
      }),
    ],
  }),
  conduitPull: spec({
    name: 'friction in the conduit',
    isUpstream: true,
    at: 'hub',
    unit: 'friction',
    physics: [0, 2],
    usual: [0.05, 0.5],
    slips: COMMA,
    worse: 'up',
    sd: 0.02,
    resetBy: [],
    asksFor: 'look at the conduit: its bends, its ends, copper in it',
    methods: [
      method({
        key: 'weights',
        name: 'two weights on the tail',
        do: 'Wire off the drum and out of the rolls. Hang the light, then the heavy weight on its tail at the drum; pull steadily at the feeder’s end. Count the bends of a quarter turn.',
        how: 'measured',
        number: 'weights',
        hazards: ['isolate', 'spring', 'stab'],
      }),
    ],
  }),
  segmentPull: spec({
    name: 'pull through one length',
    isOfCells: true,
    at: 'hub',
    unit: 'N',
    physics: [0, 200],
    usual: [2, 40],
    slips: [KGF, LBF, ...COMMA],
    sd: 1.5,
    methods: [
      method({
        key: 'scale',
        name: 'spring scale',
        do: 'Cell made safe, rolls open, the joint before this length and the one after it apart: wire drawn through this length alone, slowly, read while it moves.',
        how: 'measured',
        number: 'needed',
        hazards: ['robot', 'stab', 'spring'],
      }),
    ],
  }),
  wiper: spec({
    name: 'wiper',
    isUpstream: true,
    at: 'inlet',
    methods: [
      method({
        key: 'look',
        name: 'by eye',
        do: 'Look at it and at the wire behind it. While it feeds it creeps along with the wire; stands it still, the rolls slip.',
        grades: [
          g('clean', 'clean, wire bright', 'good'),
          g('loaded', 'black, still soft', 'look'),
          g('sheds', 'sheds or grips the wire', 'act'),
        ],
      }),
    ],
  }),
  tension: spec({
    name: 'drive tension',
    limitOver: { add: KNOB_RISE },
    isUpstream: true,
    isOfFeeding: true,
    isOfGun: true,
    at: 'rolls',
    unit: 'mark',
    physics: [0, 20],
    usual: [1, 5],
    slips: COMMA,
    worse: 'up',
    sd: 0.15,
    isSet: true,
    resetBy: ['liner', 'rolls', 'hub'],
    creepAt: 'liner',
    asksFor: 'look at liner, tip and rolls',
    methods: TENSION_METHODS,
  }),
  slip: spec({
    name: 'slip at the rolls',
    isUpstream: true,
    isOfFeeding: true,
    isOfGun: true,
    at: 'rolls',
    unit: 'share',
    physics: [-0.02, 0.9],
    usual: [0, 0.15],
    slips: COMMA,
    worse: 'up',
    sd: 0.01,
    resetBy: ['liner', 'rolls'],
    creepAt: 'liner',
    asksFor: 'look at tension, liner and rolls',
    methods: [
      method({
        key: 'twoSpeeds',
        name: 'rolls against wire',
        do: 'Mark a roll, feed ten turns of it, measure the wire that came. How far apart they are is worked out here.',
        how: 'measured',
        number: 'rollAndWire',
        hazards: ['live', 'stab'],
      }),
      method({
        key: 'watched',
        name: 'as the equipment sends it',
        do: 'Travel of the rolls against the wire that came, from what the feeder itself sends.',
        how: 'measured',
        number: 'needed',
        isByItself: true,
      }),
    ],
  }),
  motorAmps: spec({
    name: 'feed motor current',
    limitOver: { times: AMPS_LOOK },
    isUpstream: true,
    isOfFeeding: true,
    isOfGun: true,
    at: 'rolls',
    unit: 'amps',
    physics: [0.05, 30],
    usual: [0.3, 5],
    slips: [0.001, ...COMMA],
    worse: 'up',
    sd: 0.08,
    resetBy: ['liner', 'rolls'],
    creepAt: 'liner',
    asksFor: 'look at liner and tip',
    methods: [
      method({
        key: 'meter',
        name: 'at the same wire speed',
        do: 'Cable as it lies at work, the usual wire speed, read after three seconds.',
        how: 'measured',
        number: 'needed',
        hazards: ['live'],
      }),
      method({
        key: 'watched',
        name: 'as the equipment sends it',
        do: 'The middle of half an arc hour at one wire speed, from what the feeder itself sends.',
        how: 'measured',
        number: 'needed',
        isByItself: true,
      }),
    ],
  }),
  gap: spec({
    name: 'rolls to outlet guide',
    drawing: 'outletMouth',
    isUpstream: true,
    at: 'outlet',
    unit: 'mm',
    physics: [0, 40],
    usual: [1, 16],
    slips: [25.4, ...COMMA],
    worse: 'up',
    sd: 0.7,
    isSet: true,
    resetBy: ['outlet'],
    asksFor: 'set the guide nearer',
    methods: [
      method({
        key: 'feeler',
        name: 'feeler or rule',
        do: 'From the line where the rolls touch to the guide: what the eye sees plus 3 to 6 mm (1/8 to 1/4 in).',
        how: 'measured',
        number: 'needed',
        hazards: ['isolate'],
      }),
      fromSide('a roll', {
        do: 'Arm open, from the side, square to the wire, roll and guide both sharp: from where the rolls touch to the guide’s mouth.',
        hazards: ['isolate'],
      }),
      method({
        key: 'look',
        name: 'by eye',
        do: 'Look from the side.',
        grades: [
          g('near', 'close, not rubbing', 'good'),
          g('off', 'stands off', 'act'),
          g('chewed', 'chewed or out of line', 'act'),
        ],
        hazards: ['isolate'],
      }),
    ],
  }),
  pinHome: spec({
    name: 'pin',
    drawing: 'pinHome',
    at: 'orings',
    unit: 'mm',
    physics: [-1, 60],
    usual: [0, 6],
    slips: [25.4, ...COMMA],
    sd: 0.3,
    methods: [
      method({
        key: 'look',
        name: 'by eye and by hand',
        do: 'Collar flush against the feeder, lock turned; pull once at the handle of the pin, not the cable.',
        grades: [g('home', 'home and locked', 'good'), g('half', 'half out, or lock loose', 'act')],
      }),
      fromSide('the collar of the pin', {
        do: 'From the side, square to the pin: across the collar for the scale, then from the collar’s face to the block.',
        hazards: ['trigger'],
      }),
    ],
  }),
  orings: spec({
    againDays: 14,
    name: 'O-rings',
    at: 'orings',
    methods: [
      method({
        key: 'look',
        name: 'by eye, gun out',
        do: 'Look round both rings for missing chunks.',
        grades: [
          g('whole', 'whole, soft', 'good'),
          g('flat', 'flattened or dry', 'look'),
          g('torn', 'torn or missing', 'act'),
        ],
        hazards: ['isolate'],
      }),
    ],
  }),
  layout: spec({
    name: 'how the cable lies',
    isPassing: true,
    drawing: 'cableLies',
    isUpstream: true,
    at: 'liner',
    unit: 'coils',
    physics: [0, 12],
    usual: [0, 3],
    slips: COMMA,
    methods: [
      method({
        key: 'look',
        name: 'by eye',
        do: 'Count the coils on the floor; look for a bend right at the feeder.',
        number: 'welcome',
        grades: [
          g('straight', 'laid out, no tight bend', 'good'),
          g('bentAtMachine', 'bent at the machine', 'look'),
          g('coiled', 'coiled', 'act'),
          g('kinked', 'a sharp bend stays when laid straight', 'act'),
        ],
      }),
    ],
  }),
  pull: spec({
    name: 'friction from pulls',
    limitOver: { times: FRICTION_LOOK },
    isUpstream: true,
    isOfFeeding: true,
    at: 'liner',
    unit: 'friction',
    physics: [0.01, 1.2],
    usual: [0.08, 0.4],
    slips: COMMA,
    worse: 'up',
    sd: 0.02,
    resetBy: ['liner'],
    asksFor: 'change the liner',
    methods: [
      method({
        key: 'pulls',
        name: 'straight and with a loop',
        do: 'Tip off, arm open, pull the wire out of the gun with a spring scale.',
        how: 'measured',
        number: 'needed',
        hazards: ['isolate', 'hot', 'stab'],
      }),
      method({
        key: 'threeLays',
        name: 'with no, one and two loops',
        do: 'Tip off, arm open: three lays in the same place, pulled with a spring scale. Exact, without a weight.',
        how: 'measured',
        number: 'needed',
        hazards: ['isolate', 'hot', 'stab'],
      }),
      method({
        key: 'weights',
        name: 'with two weights on the tail',
        do: 'Tip off, arm open, a light and a heavy weight on the wire’s tail, in each lay. Exact.',
        how: 'measured',
        number: 'needed',
        hazards: ['isolate', 'hot', 'stab'],
      }),
      method({
        key: 'hand',
        name: 'by hand',
        do: 'Tip off, arm open, cable stretched: pull.',
        grades: [
          g('easy', 'fairly easy and even', 'good'),
          g('heavy', 'heavy, or easier when straight', 'look'),
          g('catches', 'catches or jerks', 'act'),
        ],
        hazards: ['isolate', 'hot', 'stab'],
      }),
    ],
  }),
  toolCentre: spec({
    name: 'tool centre',
    isOfCells: true,
    at: 'neck',
    unit: 'mm',
    physics: [0, 40],
    usual: [0, 3],
    slips: [25.4, ...COMMA],
    worse: 'up',
    sd: 0.1,
    isSet: true,
    resetBy: ['neck'],
    creepAt: 'neck',
    asksFor: 'look at the neck and how it is held: a seat that works loose, a neck that bends a little each time',
    methods: [
      method({
        key: 'pointer',
        name: 'at the fixed point',
        do: 'By the site’s practice, in teach mode at slow speed: the wire’s end at the fixed point, cut to the procedure’s stick-out, turned about it. How far it wanders off the point.',
        how: 'measured',
        number: 'needed',
        hazards: ['teach', 'stab'],
      }),
      method({
        key: 'jig',
        name: 'neck in the jig',
        do: 'Torch made safe and cool, neck in its jig: how far the tip stands beside the jig’s mark.',
        how: 'measured',
        number: 'needed',
        hazards: ['robot', 'hot'],
      }),
    ],
  }),
  holes: spec({
    name: 'gas holes open',
    drawing: 'holes',
    at: 'diffuser',
    unit: 'share',
    worse: 'down',
    sd: 0.05,
    resetBy: ['diffuser'],
    asksFor: 'brush the diffuser',
    methods: [
      method({
        key: 'count',
        name: 'counted',
        do: 'Nozzle off: count the holes that are open, of all.',
        number: 'ofTotal',
        hazards: ['hot'],
      }),
      method({
        key: 'look',
        name: 'by eye',
        do: 'Nozzle off: look round at the holes.',
        grades: [g('open', 'all open', 'good'), g('some', 'some shut', 'look'), g('half', 'half or more shut', 'act')],
        hazards: ['hot'],
      }),
    ],
  }),
  insulator: spec({
    name: 'insulator',
    drawing: 'insulatorWay',
    at: 'insulator',
    methods: [
      method({
        key: 'feel',
        name: 'by finger',
        do: 'Cold: it should not turn, nor creep forward over the gas holes.',
        grades: [
          g('tight', 'tight', 'good'),
          g('turns', 'turns by finger', 'look'),
          g('creeps', 'creeps over the holes', 'act'),
        ],
        hazards: ['hot'],
      }),
    ],
  }),
  continuity: spec({
    name: 'tip to nozzle',
    at: 'insulator',
    methods: [
      method({
        key: 'meter',
        name: 'continuity tester',
        do: 'Machine off and isolated, wire cut back: from tip to nozzle nothing may conduct.',
        how: 'measured',
        grades: [g('none', 'does not conduct', 'good'), g('conducts', 'conducts', 'act')],
        hazards: ['isolate'],
      }),
    ],
  }),
  bore: spec({
    name: 'tip bore',
    againDays: 1,
    drawing: 'bore',
    at: 'tip',
    unit: 'share',
    physics: [0, 1.5],
    usual: [0, 0.3],
    worse: 'up',
    sd: 0.02,
    resetBy: ['tip'],
    asksFor: 'change the tip',
    methods: [
      method({
        key: 'twoDiameters',
        name: 'two diameters',
        do: 'The widest and, across it, the narrowest of the bore.',
        how: 'measured',
        number: 'twoDiameters',
        hazards: ['hot'],
      }),
      method({
        key: 'photo',
        name: 'on a photo',
        do: 'End-on, close and sharp, the whole round face of the tip in it.',
        how: 'measured',
        photo: { of: 'bore' },
        number: 'twoDiameters',
        hazards: ['hot'],
      }),
      method({
        key: 'pinGauge',
        name: 'go / no-go',
        do: 'A new wire’s end: should just go. A pin gauge of wire and half again its clearance: should not.',
        how: 'measured',
        grades: [g('go', 'wire goes, gauge does not', 'good'), g('noGo', 'the gauge goes in', 'act')],
        hazards: ['hot'],
      }),
      method({
        key: 'look',
        name: 'beside a fresh one',
        do: 'End-on beside a new tip.',
        grades: [
          g('round', 'round', 'good'),
          g('oval', 'a little oval', 'look'),
          g('keyhole', 'keyholed or belled', 'act'),
        ],
        hazards: ['hot'],
      }),
    ],
  }),
  recess: spec({
    name: 'tip against nozzle',
    at: 'nozzle',
    unit: 'mm',
    physics: [-40, 30],
    usual: [-8, 6],
    slips: [25.4, ...COMMA],
    sd: 0.5,
    isSet: true,
    methods: [
      method({
        key: 'rule',
        name: 'by rule',
        do: 'From the nozzle’s rim to the tip’s face: out is plus, back in is minus.',
        how: 'measured',
        number: 'needed',
        hazards: ['hot'],
      }),
      fromSide('the nozzle’s outside', {
        do: 'From the side. Out: from rim to face. Back in: snip the wire level with the rim, nozzle off, the wire’s end to the tip’s face, the tip for the scale.',
        hazards: ['hot', 'stab'],
      }),
    ],
  }),
  stickOut: spec({
    isPassing: true,
    name: 'wire out of the tip',
    drawing: 'wireEnd',
    at: 'tip',
    unit: 'mm',
    physics: [0, 80],
    usual: [5, 25],
    slips: [25.4, ...COMMA],
    sd: 1,
    isSet: true,
    methods: [
      method({
        key: 'asCut',
        name: 'as it is cut before a start',
        do: 'From the tip’s face to the end of the wire.',
        how: 'measured',
        number: 'needed',
        grades: [g('intended', 'as it was meant', 'good'), g('happened', 'as it happened to be', 'look')],
        hazards: ['stab'],
      }),
      fromSide('the nozzle’s outside', {
        do: 'From the side, square to the wire, all of its end in it: from the tip’s face, or the rim where the tip is not seen, to the wire’s end.',
        hazards: ['hot', 'stab', 'trigger'],
      }),
    ],
  }),
  arcCone: spec({
    isPassing: true,
    name: 'arc cone',
    at: 'tip',
    unit: 'tips',
    physics: [0, 12],
    usual: [0.3, 4],
    slips: COMMA,
    worse: 'up',
    sd: 0.2,
    resetBy: ['tip'],
    asksFor: 'look for what holds the wire back: tip, liner, tension',
    methods: [
      fromSide(
        'the tip',
        {
          do: 'A picture through a welding filter, a second after the start: from the tip’s face to where the wire melts. Across the tip for the scale.',
          hazards: ['arc', 'clothing'],
        },
        true,
      ),
      method({
        key: 'look',
        name: 'through the helmet',
        do: 'A second after the start: how far the spray reaches before solid wire is seen, against the tip’s own width.',
        grades: [
          g('short', 'wire is seen, arc short and steady', 'good'),
          g('long', 'longer than the tip is wide, unsteady', 'look'),
          g('fromTip', 'sprays straight from the tip', 'act'),
        ],
        hazards: ['arc', 'clothing'],
      }),
    ],
  }),
  failedStarts: spec({
    name: 'starts that come to nothing',
    isOfCells: true,
    at: 'tip',
    unit: 'share',
    physics: [0, 1],
    usual: [0, 0.2],
    slips: [0.01],
    worse: 'up',
    sd: 0.01,
    asksFor: 'look at the wire’s end, then at cutter, tip and work clamp',
    methods: [
      method({
        key: 'counted',
        name: 'as the controller counts them',
        do: 'Starts that came to nothing in a hundred, as the controller’s own log has them.',
        how: 'measured',
        number: 'needed',
      }),
      method({
        key: 'watched',
        name: 'as the equipment sends it',
        do: 'Starts that came to nothing, of all that were tried since they grew more, from what the feeder itself sends.',
        how: 'measured',
        number: 'needed',
        isByItself: true,
      }),
    ],
  }),
  centring: spec({
    name: 'wire in the middle',
    at: 'nozzle',
    unit: 'tips',
    physics: [0, 3],
    usual: [0, 0.6],
    slips: COMMA,
    worse: 'up',
    sd: 0.03,
    resetBy: ['nozzle', 'insulator', 'diffuser', 'neck'],
    asksFor: 'look for crossed threads, a loose insulator, a bent neck',
    methods: [
      method({
        key: 'look',
        name: 'end-on, by eye',
        do: 'Feed a finger’s width of wire, power off again, and look into the nozzle: the wire stands in its middle.',
        grades: [
          g('centre', 'in the middle', 'good'),
          g('off', 'a little off', 'look'),
          g('aside', 'at the side, or touches', 'act'),
        ],
        hazards: ['hot', 'stab', 'trigger'],
      }),
      method({
        key: 'photo',
        name: 'on a photo',
        do: 'End-on into the nozzle, close and sharp, all of its rim in it: how far the tip stands off the middle.',
        how: 'measured',
        number: 'needed',
        photo: { of: 'centring' },
        hazards: ['hot', 'stab'],
      }),
    ],
  }),
  nozzleOpen: spec({
    againDays: 1,
    name: 'nozzle open',
    drawing: 'nozzleOpening',
    at: 'nozzle',
    unit: 'share',
    usual: [0.3, 1],
    slips: [0.01],
    worse: 'down',
    sd: 0.06,
    resetBy: ['nozzle'],
    asksFor: 'clean the nozzle',
    methods: [
      method({
        key: 'look',
        name: 'end-on, by eye',
        do: 'How much of the opening is free of spatter; its rim whole, and tight where it sits.',
        number: 'welcome',
        grades: [
          g('clean', 'clean', 'good'),
          g('ring', 'a ring of spatter', 'look'),
          g('half', 'half shut or bridged', 'act'),
          { ...g('rim', 'rim broken, or rough inside', 'act'), fix: 'change' },
          { ...g('slack', 'loose where it sits', 'look'), fix: 'none' },
        ],
        hazards: ['hot'],
      }),
      method({
        key: 'photo',
        name: 'on a photo',
        do: 'End-on into the nozzle, close and sharp, all of its rim in it, tip in the middle.',
        how: 'measured',
        photo: { of: 'nozzleOpen' },
        number: 'needed',
        hazards: ['hot'],
      }),
    ],
  }),
  beforeReam: spec({
    name: 'nozzle as its ream is due',
    isOfCells: true,
    at: 'reamer',
    unit: 'share',
    usual: [0.3, 1],
    slips: [0.01],
    worse: 'down',
    sd: 0.06,
    asksFor: 'let the reamer come oftener',
    methods: [
      method({
        key: 'look',
        name: 'end-on, by eye',
        do: 'When its turn comes and before the reamer has been in: how much of the opening is free.',
        number: 'welcome',
        grades: [
          g('free', 'next to nothing in it', 'good'),
          g('ring', 'a thin ring', 'good'),
          g('third', 'about a third shut', 'look'),
          g('half', 'half shut or bridged', 'act'),
        ],
        hazards: ['robot', 'hot'],
      }),
    ],
  }),
  afterReam: spec({
    name: 'nozzle just reamed',
    isOfCells: true,
    at: 'reamer',
    unit: 'share',
    usual: [0.5, 1],
    slips: [0.01],
    worse: 'down',
    sd: 0.06,
    resetBy: ['reamer'],
    asksFor:
      'see that blade and clamp go with the nozzle, that the blade cuts, and that it goes in straight and far enough',
    methods: [
      method({
        key: 'look',
        name: 'end-on, by eye',
        do: 'Straight after the reamer: what it left in the nozzle and round the tip; its wall whole.',
        number: 'welcome',
        grades: [
          g('clean', 'clean', 'good'),
          g('ring', 'a ring is left', 'look'),
          g('half', 'it hardly took anything', 'act'),
          g('scored', 'the nozzle or the tip is cut into', 'act'),
        ],
        hazards: ['robot', 'hot'],
      }),
    ],
  }),
  agentTank: spec({
    name: 'anti-spatter in the tank',
    isOfCells: true,
    at: 'reamer',
    unit: 'L',
    physics: [0, 100],
    usual: [0.05, 20],
    slips: [0.001, ...COMMA],
    sd: 0.05,
    isSet: true,
    methods: [
      method({
        key: 'level',
        name: 'at its mark',
        do: 'Litres in the tank as it is found, and as it is left when it was filled up.',
        how: 'measured',
        number: 'needed',
        hazards: ['robot'],
      }),
    ],
  }),
  gasFlow: spec({
    name: 'gas at the gun',
    againDays: 0.5,
    at: 'gas',
    unit: 'L/min',
    physics: [0, 60],
    usual: [8, 25],
    slips: [0.4719474, ...COMMA],
    sd: 0.8,
    isSet: true,
    methods: [
      method({
        key: 'meter',
        name: 'flow tester at the nozzle',
        do: 'Arm open so that no wire runs, trigger held, read at the gun.',
        how: 'measured',
        number: 'needed',
        hazards: ['trigger', 'cylinder'],
      }),
      method({
        key: 'regulator',
        name: 'at the flow meter, trigger held',
        do: 'Arm open so that no wire runs, trigger held, read the ball at the meter.',
        how: 'measured',
        number: 'needed',
        hazards: ['trigger', 'cylinder'],
      }),
      method({
        key: 'glance',
        name: 'at the meter, by eye',
        do: 'Cylinder open, its gauge not near empty; gas heard at the gun, and its mark where it was left.',
        grades: [
          g('asLeft', 'open, as it was left', 'good'),
          g('other', 'set otherwise, or near empty', 'look'),
          g('none', 'shut, empty, or nothing heard', 'act'),
        ],
        hazards: ['cylinder'],
      }),
    ],
  }),
  cylinder: spec({
    name: 'cylinder',
    againDays: 0.5,
    at: 'gas',
    unit: 'bar',
    physics: [0, 400],
    usual: [5, 230],
    slips: [0.0689475729, ...COMMA],
    sd: 4,
    asksFor: 'change the cylinder',
    methods: [
      method({
        key: 'gauge',
        name: 'its gauge',
        do: 'Valve open, no gas flowing: read the gauge of the cylinder, not the flow.',
        how: 'measured',
        number: 'gauge',
        hazards: ['cylinder'],
      }),
    ],
  }),
  clamp: spec({
    name: 'work clamp',
    isPassing: true,
    drawing: 'clamp',
    at: 'gas',
    methods: [
      method({
        key: 'look',
        name: 'by eye and hand',
        do: 'On clean bare metal, tight, its cable whole.',
        grades: [
          g('bare', 'bare metal, tight', 'good'),
          g('dirty', 'rust, paint or grease under it', 'act'),
          g('loose', 'loose or worn', 'act'),
        ],
      }),
    ],
  }),
}
export const methodOf = (what: ReadingKey, key: string): Method | null =>
  READING[what].methods.find((m) => m.key === key) ?? null
