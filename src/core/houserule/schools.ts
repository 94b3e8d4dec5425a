import { type Position, type KindKey, kindOfPosition } from '@core/path/columns.ts'
import { type LinerTerms } from '../liner/clauses.ts'

/**
 * Where good practitioners differ: each question with its schools, their reasons, and what this program does until the shop
 * chooses. None is hard-coded: guides, gates and verdicts read the shop's choice by code.
 */
export interface School<K extends string = string> {
  key: K
  name: string
  reason: string
}
export interface Question {
  code: string
  ask: string
  /** Positions of the path where the answer matters: it is one tap away there. */
  at: readonly KindKey[]
  schools: readonly School[]
  /** The school that holds until the shop chooses, and why that one. */
  usual: string
  why: string
  /**
   * Told as knowledge and not offered as a rule: something better decides it. Or waiting, shown to nobody, until what it would decide is here.
   */
  standing?: 'knowledge' | 'later'
}

const s = <const K extends string>(key: K, name: string, reason: string): School<K> => ({ key, name, reason })

const ALL = [
  {
    code: 'D01',
    ask: 'May compressed air be used on the cable?',
    at: ['liner'],
    schools: [
      s(
        'emptyTube',
        'only through the empty cable, from the feeder forward',
        'It clears dust before the new liner goes in; air heard at the diffuser shows the gas way is open.',
      ),
      s('never', 'never', 'Shop air carries water and oil, and what it moves ends up where the gas comes out.'),
      s('fittedToo', 'through a fitted liner as well', 'It is quick, and gets a day out of a clogged liner; no more.'),
    ],
    usual: 'emptyTube',
    why: 'A clogged liner is replaced, not blown; an empty tube may be blown with dry, oil-free air and eyes covered.',
  },
  {
    code: 'D02',
    ask: 'How is drive-roll tension tested?',
    at: ['rolls'],
    schools: [
      s(
        'block',
        'wire against a wooden block at an angle: it must curl and not stall',
        'It shows enough push, with no fingers near the wire.',
      ),
      s('slack', 'from slack, tighten only until it feeds steadily', 'The least pressure spares wire and motor.'),
      s(
        'pinch',
        'a gloved pinch must stop the wire and let the rolls slip',
        'It shows that the rolls slip before a nest forms.',
      ),
      s(
        'pinchBare',
        'a bare-fingered pinch must stop the wire and let the rolls slip',
        'Fingers feel more than a glove does; out of the weld circuit, or not at all.',
      ),
      s('mark', 'to the mark on the knob', 'It is the same every time, and learners can do it.'),
      s('ear', 'by arc and ear at work', 'It is where it counts; but it can hide a failing liner.'),
    ],
    usual: 'block',
    why: 'Curl on wood and slip at a firm pinch are the two edges of one window; wood needs no fingers. The mark is written down either way.',
  },
  {
    code: 'D03',
    ask: 'How tight is tight?',
    at: ['diffuser', 'tip', 'insulator', 'liner', 'orings'],
    schools: [
      s(
        'byJoint',
        'each joint its own: tip a nip, diffuser snug by tool, insulator by finger, gun lock firm once seated',
        'Each joint fails its own way: the tip strips, the diffuser turns, the gun walks out.',
      ),
      s('allTight', 'everything wrench-tight', 'Loose joints leak gas and get hot.'),
      s(
        'handNip',
        'everything by hand and a little more',
        'Soft threads strip, and the next one needs locking pliers.',
      ),
    ],
    usual: 'byJoint',
    why: 'Those who tighten hard are right about the gun’s pin and wrong about soft tips.',
  },
  {
    code: 'D04',
    ask: 'Which way does wire leave the spool?',
    at: ['hub', 'inlet'],
    schools: [
      s(
        'straight',
        'whichever runs straightest into this feeder’s inlet',
        'Over or under is right on different feeders; the bend is what matters.',
      ),
      s('over', 'over the top', 'Where the drive points up, wire from below has to bend into it.'),
      s('under', 'from underneath', 'Where the inlet sits low, wire from the top has to bend into it.'),
    ],
    usual: 'straight',
    why: 'It stands with each feeder type, with its picture; there is no rule for all.',
    standing: 'knowledge',
  },
  {
    code: 'D05',
    ask: 'It feeds badly: what is looked at first?',
    at: ['tip', 'nozzle', 'liner', 'orings'],
    schools: [
      s(
        'bySign',
        'what the sign points to, the quickest first',
        'Likely and quick beats a fixed order; straightening the cable costs nothing.',
      ),
      s('tip', 'the tip', 'It wears fastest and takes seconds.'),
      s('clean', 'clean nozzle and tip', 'It costs nothing and often does it.'),
      s('liner', 'the liner', 'A jerk that goes when the cable lies straight is the liner.'),
      s('seat', 'whether the gun is seated', 'It is what learners get wrong most.'),
    ],
    usual: 'bySign',
    why: 'Free looks first: straighten, look at the tip’s face, feel the seat, watch the rolls. A pull costs less than the third tip.',
  },
  {
    code: 'D06',
    ask: 'When is the liner changed?',
    at: ['liner'],
    schools: [
      s(
        'signs',
        'on a sign (kink, pull, tips without effect, cured by straightening, tension that creeps); its length of wire alone only asks for a look',
        'Any one of these is evidence; use by itself is not.',
      ),
      s('last', 'last of all', 'It takes the longest.'),
      s('afterTips', 'after two or three tips', 'It feels the same as a tip, so rule the tip out.'),
      s('byUse', 'by wire run through it', 'Its groove comes with kilos.'),
    ],
    usual: 'signs',
    why: 'Length says when to look, a sign says when to change.',
  },
  {
    code: 'D07',
    ask: 'How is the liner trimmed?',
    at: ['liner'],
    schools: [
      s(
        'family',
        'as its family asks, pressed home with the cable straight; cut long, measure, cut again',
        'The reference face differs by design; what is cut off does not come back.',
      ),
      s('old', 'to the old one’s length', 'It ran, so it was right, if nobody had cut that one short.'),
      s('feederEnd', 'at the feeder end, beside the rolls', 'Soft liners run through to the rolls.'),
    ],
    usual: 'family',
    why: 'The length is written down, so that next time it is a number.',
  },
  {
    code: 'D08',
    ask: 'What cuts a liner?',
    at: ['liner'],
    schools: [
      s(
        'byMaterial',
        'side cutters for coil, a hose cutter for tube, and the burr taken off',
        'A saw catches the coil; snips squash a tube.',
      ),
      s('cutters', 'side cutters for all', 'They are in the pocket.'),
    ],
    usual: 'byMaterial',
    why: 'Either way the bore is looked at: round, no burr.',
  },
  {
    code: 'D09',
    ask: 'Where does the tip stand against the nozzle?',
    at: ['tip', 'nozzle'],
    schools: [
      s(
        'byMode',
        'by mode: level to proud for short circuit, back for spray and pulse',
        'Heat wants it back, access wants it out.',
      ),
      s('level', 'level', 'One setting to remember.'),
      s('proud', 'proud', 'It reaches into corners; there is more to clean.'),
    ],
    usual: 'byMode',
    why: 'It is measured, with a tolerance; nozzles that slide are looked at oftener.',
  },
  {
    code: 'D10',
    ask: 'Is the tip on while wire is fed through?',
    at: ['tip', 'liner'],
    schools: [
      s('off', 'off', 'Wire that meets a hole of its own size nests.'),
      s('on', 'on', 'Where the tip holds the liner pressed home it has to be, and the end is rounded.'),
    ],
    usual: 'off',
    why: 'Families whose tip seats the liner: seat it with the tip, take it off to feed, put it back.',
  },
  {
    code: 'D11',
    ask: 'Is the power off?',
    at: ['rolls', 'hub', 'liner'],
    schools: [
      s(
        'twoStates',
        'off for touching, on for feeding, and asked at each change',
        'Feeding needs power; hands do not.',
      ),
      s('always', 'off for all feeder work', 'Nothing can start.'),
      s('unplug', 'unplugged as well for inner parts', 'A switch can be put back by somebody else.'),
    ],
    usual: 'twoStates',
    why: 'The site’s own lock-out rule comes before any of these.',
  },
  {
    code: 'D12',
    ask: 'What about gas while wire is fed?',
    at: ['gas', 'hub'],
    schools: [
      s('jog', 'the jog button, else shut the gas and open it again', 'Jogging moves wire without gas or voltage.'),
      s('shut', 'shut the cylinder', 'None is wasted; but somebody has to open it.'),
      s('leave', 'leave it on', 'It is a minute’s gas.'),
    ],
    usual: 'jog',
    why: 'Shutting makes a new fault, a closed cylinder: it stands as a tag until it is open.',
  },
  {
    code: 'D13',
    ask: 'How fast is new wire fed through?',
    at: ['hub', 'liner'],
    schools: [
      s('slowThenFast', 'slowly through the neck, then fast', 'Jerks are seen while they cost nothing.'),
      s('fast', 'at full speed', 'Ten seconds and done.'),
      s('steady', 'at the welding speed', 'What is seen is what will weld.'),
    ],
    usual: 'slowThenFast',
    why: 'The time it takes is known beforehand; slower is slip or something in the way.',
  },
  {
    code: 'D14',
    ask: 'When is the spool locked?',
    at: ['hub'],
    schools: [
      s('first', 'before threading', 'A spool that falls takes the wire along.'),
      s('last', 'after threading', 'It turns freely while the end is found.'),
    ],
    usual: 'first',
    why: 'And it is asked once more at the end.',
  },
  {
    code: 'D15',
    ask: 'What becomes of the wire in the cable?',
    at: ['hub', 'liner'],
    schools: [
      s(
        'byState',
        'straight and clean is wound back, kinked or nested is scrapped',
        'Bent wire does again what it did.',
      ),
      s('rewind', 'wound back', 'Wire is money.'),
      s('scrap', 'clipped and binned', 'It is quick, and nothing bent goes back in.'),
    ],
    usual: 'byState',
    why: 'Dear alloys are wound back; what is binned is counted as wire lost.',
  },
  {
    code: 'D16',
    ask: 'How often is the nozzle cleaned?',
    at: ['nozzle'],
    schools: [
      s(
        'byHours',
        'by arc hours, sooner or later as nozzles are found',
        'Spatter comes with arc time; how shut one is found says how fast.',
      ),
      s('fixed', 'by the arc hours that are set, whatever is found', 'Everybody knows the number by heart.'),
      s('hourly', 'every hour of welding', 'Gas stays steady.'),
      s('eachPass', 'after each pass', 'Pulsed aluminium is fickle.'),
      s('cleanUp', 'at clean-up or when it looks shut', 'It is when hands are free.'),
      s('machine', 'by the reamer, every so many cycles', 'The cell does it without hands.'),
    ],
    usual: 'byHours',
    why: 'It begins with the hours that are set; from three findings it shortens or stretches, by no more than half at a step.',
  },
  {
    code: 'D17',
    ask: 'Anti-spatter?',
    at: ['nozzle', 'tip'],
    schools: [
      s('optional', 'by cell, where its own lives show that it helps', 'It helps some and dirties others.'),
      s('dip', 'a hot dip', 'Spatter does not stick, tips live longer.'),
      s('none', 'none', 'Settings and cleaning do as much.'),
    ],
    usual: 'optional',
    why: 'A cold nozzle dipped, or too much left on, makes the fault it should prevent.',
  },
  {
    code: 'D18',
    ask: 'Is a tip cleaned or changed?',
    at: ['tip'],
    schools: [
      s('byBore', 'spatter on the face is cleaned, a changed bore is changed', 'The bore is the tip.'),
      s('change', 'changed', 'It costs less than the hunt for a fault.'),
      s('clean', 'cleaned or filed and run on', 'There are no spares.'),
    ],
    usual: 'byBore',
    why: 'With none on the shelf it is cleaned.',
  },
  {
    code: 'D19',
    ask: 'Damaged threads?',
    at: ['diffuser', 'tip', 'neck'],
    schools: [
      s(
        'once',
        'cleaned once and tried by hand; if it does not run freely, both scrapped',
        'A tip that stands askew shorts later.',
      ),
      s('scrap', 'both scrapped', 'It never seats again.'),
      s('file', 'filed', 'It saves a diffuser.'),
    ],
    usual: 'once',
    why: 'Two outcomes, no third try.',
  },
  {
    code: 'D20',
    ask: 'The liner, or the whole gun?',
    at: ['liner', 'neck'],
    schools: [
      s('swapFirst', 'a ready gun goes on, the other is mended off the line', 'Welding goes on in minutes.'),
      s('liner', 'the liner', 'It costs little.'),
    ],
    usual: 'swapFirst',
    why: 'Where a spare hangs ready and the stop costs more than the swap; else the liner.',
  },
  {
    code: 'D21',
    ask: 'Pay more now, or wait?',
    at: [],
    schools: [
      s('bulk', 'cheap fast movers in bulk, one spare liner per family', 'Then nobody pays for tomorrow morning.'),
      s('now', 'today, at whatever it costs', 'Work is waiting.'),
      s('alike', 'a look-alike', 'Cheaper, and its fit is not proven.'),
    ],
    usual: 'bulk',
    why: 'A look-alike is a try-out, with its own lives.',
    standing: 'later',
  },
  {
    code: 'D22',
    ask: 'What kind of booster on a long way?',
    at: ['hub', 'inlet'],
    schools: [
      s('byWire', 'whichever leaves no marks and no oil on the wire', 'The wire is the judge.'),
      s('air', 'air at the drum', 'It is simple.'),
      s('electric', 'electric', 'It can be set, and tells what it does.'),
    ],
    usual: 'byWire',
    why: 'Who sells one is not neutral.',
    standing: 'later',
  },
  {
    code: 'D23',
    ask: 'The nozzle stands askew?',
    at: ['nozzle', 'insulator', 'neck'],
    schools: [
      s('cause', 'look for the cause: cross-thread, loose insulator, bent neck', 'It stood straight once.'),
      s('knock', 'knock it straight', 'It is quick.'),
    ],
    usual: 'cause',
    why: 'A tap is a stop-gap.',
  },
  {
    code: 'D24',
    ask: 'How does the diffuser come off?',
    at: ['diffuser'],
    schools: [
      s('family', 'as its family says: where a set screw holds the liner, that first', 'Else the liner twists along.'),
      s('screwFirst', 'set screw first, always looked for', 'Looking costs a second.'),
      s('unscrew', 'just unscrewed', 'Most have no screw.'),
    ],
    usual: 'family',
    why: 'Where a screw is set it is a gate, not a hint.',
  },
  {
    code: 'D25',
    ask: 'May tension be raised to keep going?',
    at: ['rolls'],
    schools: [
      s(
        'forATime',
        'for a time, with a day on it, and the liner looked at',
        'Work must go on, and the cause must not be forgotten.',
      ),
      s('raise', 'yes', 'Work must go on.'),
      s('never', 'no', 'More tension is a sign of liner, tip or rolls, and breaks arms.'),
    ],
    usual: 'forATime',
    why: 'A raised knob stands as a tag on the path until it is put back.',
  },
  {
    code: 'D26',
    ask: 'The hand, or the equipment?',
    at: [],
    schools: [
      s(
        'minute',
        'one minute on the equipment before a word on technique, and the other way round',
        'Both are blamed wrongly.',
      ),
      s('hand', 'technique first', 'Most learners’ faults are.'),
      s('machine', 'equipment first', 'A cheap part is quicker than a lesson.'),
    ],
    usual: 'minute',
    why: 'Nobody is blamed before the tip was looked at.',
  },
  {
    code: 'D27',
    ask: 'Push or pull?',
    at: [],
    schools: [
      s('process', 'as the process asks', 'Aluminium and spray are pushed.'),
      s('same', 'either, always the same', 'Steady beats right.'),
    ],
    usual: 'process',
    why: 'It leaves the feed path: technique is told beside the booth, after a minute on the equipment. Aluminium is pushed either way.',
  },
  {
    code: 'D28',
    ask: 'Is the nozzle a wear part?',
    at: ['nozzle'],
    schools: [
      s('slowWear', 'yes, one with a long life, kept apart from tips', 'It is coated, crumbles and wears.'),
      s('durable', 'not really', 'It lasts if it is looked after.'),
    ],
    usual: 'slowWear',
    why: 'Its lives are counted by themselves.',
    standing: 'later',
  },
  {
    code: 'D29',
    ask: 'Polarity for cored wire?',
    at: ['gas'],
    schools: [
      s('wire', 'as the wire’s own data say', 'Some are run reversed, some straight.'),
      s('gasless', 'only gasless is negative', 'One rule to remember.'),
    ],
    usual: 'wire',
    why: 'The simple rule is shown as a hint.',
  },
  {
    code: 'D30',
    ask: 'When is tension set?',
    at: ['rolls', 'liner', 'hub'],
    schools: [
      s(
        'allFour',
        'after a liner, after loading wire, after another wire, and on a fault',
        'Each of them changes the drag.',
      ),
      s('liner', 'after a liner', 'It is what drags.'),
      s('wire', 'after loading wire', 'New wire, new cast.'),
      s('fault', 'when it feeds badly', 'What runs is left alone.'),
    ],
    usual: 'allFour',
    why: 'It is seconds, and each is a moment at which the hand is there anyway.',
  },
  {
    code: 'D31',
    ask: 'Dirt on the wire’s way?',
    at: ['inlet', 'liner', 'hub'],
    schools: [
      s('wiper', 'a wiper at the inlet, changed before it sheds', 'It is cheap, and keeps dirt out.'),
      s('liner', 'a new liner when it is full', 'It costs little.'),
      s('sheath', 'the wire sheathed all the way', 'Long ways and heat.'),
    ],
    usual: 'wiper',
    why: 'In a dusty shop; its effect shows in the liners’ lives.',
  },
  {
    code: 'D32',
    ask: 'Which tools belong to a booth?',
    at: ['tip', 'nozzle'],
    schools: [
      s('byTask', 'whatever grips a tip, scrapes and snips', 'What counts is that it can be done.'),
      s('pliers', 'the dedicated pliers', 'One tool, many jobs.'),
      s('cutters', 'plain cutters', 'They last a working life.'),
      s('spanner', 'the family’s own spanner', 'It fits the flats.'),
    ],
    usual: 'byTask',
    why: 'A booth is looked over by what can be done in it.',
    standing: 'later',
  },
] as const satisfies readonly Question[]
export type QuestionCode = (typeof ALL)[number]['code']
/** Keys of the schools of a question. */
export type SchoolOf<C extends QuestionCode> = Extract<(typeof ALL)[number], { code: C }>['schools'][number]['key']
/** The keys of a question's schools, as a contract lists them. */
export const schoolKeys = <C extends QuestionCode>(code: C) =>
  ALL.flatMap((q) => (q.code === code ? q.schools.map((x) => x.key) : [])) as unknown as [SchoolOf<C>, ...SchoolOf<C>[]]
export const QUESTION_CODES = ALL.map((q) => q.code) as [QuestionCode, ...QuestionCode[]]
/** A question that the program ships; its code is one of a known few. */
export type Asked = Question & { code: QuestionCode }
export const QUESTIONS: readonly Asked[] = ALL

export const questionByCode: ReadonlyMap<string, Asked> = new Map(QUESTIONS.map((q) => [q.code, q]))

/** The narrower the scope the stronger: a family's rule holds over a feeder type's, that over a mode's, a class's, the site's. */
export const SCOPES = ['site', 'class', 'mode', 'feeder', 'feederType', 'family'] as const
export type ScopeType = (typeof SCOPES)[number]
export interface Choice {
  code: QuestionCode
  scopeType: ScopeType
  /** Whose: a family's or feeder type's id, "2" or "4" rolls, a mode, a class key; "*" for the site. */
  scopeKey: string
  option: string
  /** Terms of a school that has some (D06). */
  terms?: LinerTerms | null
}
/** What a gun is, as far as rules go by it. */
export type RuledBy = Partial<Record<Exclude<ScopeType, 'site'>, string | null>>

export interface Ruling<C extends Choice = Choice, Q extends QuestionCode = QuestionCode> {
  question: Question
  school: School<SchoolOf<Q>>
  /** Null: nobody chose, the usual one holds. */
  choice: C | null
}

/**
 * The school that holds for a gun: the narrowest choice that fits it, else the usual one. A choice that names no school of the
 * question (an older version's) is passed over.
 * @example rulingFor('D10', { family: 'fam_1' }, []) // the usual: off
 */
export function rulingFor<C extends Choice, Q extends QuestionCode>(
  code: Q,
  gun: RuledBy,
  choices: readonly C[],
): Ruling<C, Q> {
  const question = questionByCode.get(code)
  if (!question) throw new RangeError(`rulingFor: expected a code D01…D32, got ${code}`)
  const schoolOf = (key: string) => question.schools.find((x) => x.key === key)
  const fits = (c: C) => c.scopeType === 'site' || gun[c.scopeType] === c.scopeKey
  const [narrowest] = choices
    .filter((c) => c.code === code && fits(c) && schoolOf(c.option))
    .sort((a, b) => SCOPES.indexOf(b.scopeType) - SCOPES.indexOf(a.scopeType))
  const school = schoolOf(narrowest?.option ?? question.usual) as School<SchoolOf<Q>>
  return { question, school, choice: narrowest ?? null }
}

/** What is asked of a shop, or told to it; the others wait. */
export const SHOWN_QUESTIONS = QUESTIONS.filter((q) => q.standing !== 'later')
/** Questions that bear on a part of the path. */
export const questionsAt = (position: Position) =>
  SHOWN_QUESTIONS.filter((q) => q.at.includes(kindOfPosition(position)))
