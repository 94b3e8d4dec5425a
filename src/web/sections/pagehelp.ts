/**
 * What each page answers, the keys that only it has, and its words: what `?` says. A page is the first word of its address; a new route is a row here, and
 * a test names the one that was forgotten.
 */
export interface PageHelp {
  title: string
  answers: string
  keys?: readonly (readonly [key: string, does: string])[]
  words: readonly Word[]
}

/** The trade's words and this program's, in a sentence each. */
export const GLOSSARY = {
  arcHours: ['arc hours', 'Hours the arc was on. Tips, nozzles and diffusers wear by them.'],
  asTheBay: ['as the bay', 'Built like the bay says its guns are built: same wire, same parts.'],
  byLuck: ['by luck', 'How often chance alone would show as much. Under 1 in 20 it is taken for real.'],
  birdsNest: ['bird’s nest', 'Wire piled up at the drive rolls because it could not get through.'],
  burnback: ['burnback', 'The wire burned back and welded itself to the tip.'],
  cast: ['cast', 'The bend wire keeps from its spool; more of it means more rubbing.'],
  diffuser: ['diffuser', 'Holds the tip and lets the gas out round it.'],
  drag: ['drag', 'The pull it takes to get wire through the gun, in newtons or pounds.'],
  estimated: ['estimated', 'Counted from a guess of how long the arc is on; drawn hollow. A count takes its place.'],
  followUp: ['follow-up', 'A second look that what was done asks for, like tension after a new liner.'],
  guess: ['guess', 'The trade’s usual number, with its spread, until somebody here knows better.'],
  houseRule: ['house rule', 'How it is done in this shop, chosen by the lead.'],
  jumpLiner: ['jump liner', 'The short front piece of liner in some necks; changed by itself.'],
  knobMark: ['mark on the knob', 'Where the tension stands for this feeder and wire.'],
  leave: ['leaving it', 'What happens by the next shift if nobody does it.'],
  limit: ['limit', 'How long a part may run here before it wants hands.'],
  liner: ['liner', 'The tube in the cable that the wire runs through.'],
  logged: ['logged', 'Of ten changes made, how many somebody wrote down.'],
  notSeen: ['not seen', 'Nobody has looked lately, or nobody set a limit: dotted.'],
  recess: ['recess', 'How far the tip stands back in the nozzle, or out of it.'],
  scale: ['usual life', 'What half of them reach; early is what one in ten does not.'],
  shared: ['stop group', 'Guns that all halt when one does.'],
  spread: ['spread', 'The numbers in brackets: eight times in ten it lies between them.'],
  neckRound: [
    'necks go round',
    'A worn neck comes off whole, a ready one goes on; the worn one is mended on the bench.',
  ],
  toolCentre: ['tool centre', 'Where the robot believes the wire’s end to be.'],
  tension: ['tension', 'How hard the rolls press the wire. Just enough, never more.'],
  trade: ['trade', 'A limit nobody here has tried: the trade’s number until your own parts tell.'],
} as const satisfies Record<string, readonly [word: string, means: string]>
export type Word = keyof typeof GLOSSARY

export const PAGE_HELP: Record<string, PageHelp> = {
  '': {
    title: 'Floor',
    answers: 'Which guns want hands before the next break, in which order, and what leaving them does.',
    keys: [
      ['↑ ↓', 'from gun to gun'],
      ['Enter', 'opens it'],
      ['drag', 'down a column of the quiet lines: one act for many guns'],
    ],
    words: ['notSeen', 'estimated', 'limit', 'leave', 'logged', 'followUp'],
  },
  gun: {
    title: 'A gun',
    answers:
      'What is on this gun, how much of it is used, what wants hands, and what was done. Two taps log what you did.',
    keys: [['Esc', 'back, before it is logged']],
    words: ['arcHours', 'notSeen', 'diffuser', 'jumpLiner', 'followUp'],
  },
  bay: {
    title: 'How a bay is built',
    answers: 'Seven questions about the guns of a bay; parts, limits and hours follow from the answers.',
    words: ['asTheBay', 'trade', 'guess'],
  },
  look: {
    title: 'What is on the guns',
    answers: 'Gun by gun: as the bay, or what differs. A wrong part is said at once.',
    words: ['asTheBay', 'knobMark'],
  },
  change: {
    title: 'Changing wire',
    answers: 'What has to change with the wire on these guns, step by step, and what it costs.',
    words: ['tension', 'knobMark', 'liner', 'cast'],
  },
  guide: {
    title: 'Guides',
    answers: 'How a job is done here, step by step, with what can hurt said before it.',
    words: ['houseRule', 'liner', 'tension'],
  },
  liner: {
    title: 'A liner',
    answers: 'Fitting a liner: where to cut it, and why.',
    words: ['liner', 'jumpLiner', 'houseRule'],
  },
  drag: {
    title: 'Drag',
    answers:
      'What the wire has to be pulled through on this gun, which part makes most of it, and what would change it.',
    words: ['drag', 'cast', 'tension', 'birdsNest'],
  },
  read: {
    title: 'A reading',
    answers: 'What was measured, against what it may be here: fit to go on, look again, or change.',
    words: ['recess', 'knobMark', 'houseRule'],
  },
  walk: {
    title: 'Walk',
    answers: 'The round that is worth most for the minutes you have, gun after gun.',
    keys: [
      ['1–9', 'the answer of that number'],
      ['0', 'did not look'],
    ],
    words: ['notSeen', 'leave', 'followUp'],
  },
  audit: {
    title: 'What is at hand',
    answers:
      'What a booth needs at hand (to grip a tip, scrape a nozzle, hang the gun, chain the cylinder), and where it is missing.',
    words: [],
  },
  handover: {
    title: 'Hand-over',
    answers: 'What this shift leaves to the next: what stands, what was done, what nobody knows.',
    words: ['followUp', 'leave'],
  },
  classes: {
    title: 'Classes',
    answers: 'The class that runs or comes: its booths, what was found before it, and what to teach in two minutes.',
    words: ['byLuck'],
  },
  'before-class': {
    title: 'Before class',
    answers: 'A booth as the last class left it: tap what is wrong, one key says the rest is right. Nobody is named.',
    words: [],
  },
  groups: {
    title: 'Groups and booths',
    answers:
      'Who learns together, how far they are, which booths and wire are theirs; what each leaves beside the others.',
    words: ['byLuck'],
  },
  calendar: {
    title: 'The calendar',
    answers:
      'Shifts, holidays, classes and planned stops in one; a class moved once; what falls on what; files in and out.',
    words: [],
  },
  lesson: {
    title: 'A lesson',
    answers: 'Two minutes for a room: what was found, right beside wrong, and something to do with the hands.',
    words: [],
  },
  technique: {
    title: 'A bad bead',
    answers:
      'A minute on the equipment first; then how the gun is held and moved, in numbers; then what it was, counted.',
    words: ['guess'],
  },
  quiz: {
    title: 'A quiz',
    answers:
      'Ten questions about one of your own guns. Kept for the group: what it does not know yet is what to teach.',
    keys: [
      ['1–4', 'the answer of that number'],
      ['Enter', 'goes on'],
    ],
    words: ['diffuser', 'liner'],
  },
  practice: {
    title: 'Practice booth',
    answers: 'Faults to find in a booth that hurts nobody: look, put right, hear it; then what each look was worth.',
    words: ['diffuser', 'liner'],
  },
  pairs: {
    title: 'Right and wrong',
    answers: 'Cards by place of the path, with this shop’s own photos and words: look here before you ask.',
    words: ['diffuser', 'liner'],
  },
  cells: {
    title: 'Cells',
    answers:
      'Robot cells: the way of their wire, necks that go round, what a crash left to look at, whether one more neck would pay.',
    words: ['toolCentre', 'neckRound', 'jumpLiner', 'followUp', 'guess'],
  },
  down: {
    title: 'Down',
    answers: 'What to look at first on a gun that stopped: likely and quick before rare and long.',
    keys: [['1–9', 'the answer of that number']],
    words: ['birdsNest', 'burnback', 'houseRule', 'spread'],
  },
  tune: {
    title: 'A setting to turn',
    answers: 'Which setting to turn which way for what the bead does, and when it is no setting at all.',
    words: ['tension', 'recess'],
  },
  life: {
    title: 'Part life',
    answers: 'How long parts last here, which of two lasts longer, and what limit costs least.',
    words: ['scale', 'spread', 'limit', 'logged', 'trade'],
  },
  payback: {
    title: 'Payback',
    answers: 'What stops and parts cost, what the change of a rule did, and what it would do.',
    words: ['arcHours', 'spread', 'shared', 'logged'],
  },
  parts: {
    title: 'Parts',
    answers: 'What runs out and when, what to order, of whom, and what it costs to be without.',
    words: ['spread', 'logged', 'trade'],
  },
  spools: {
    title: 'Spools',
    answers: 'Which spool stands where, what is left on it, and whether it will do.',
    words: ['cast', 'estimated'],
  },
  waste: {
    title: 'Where wire goes',
    answers: 'What wire never became weld, what would cut it, and whether a drum would pay.',
    words: ['guess', 'spread'],
  },
  jobs: {
    title: 'Wire for jobs',
    answers: 'Which spool finishes which job, and where one is changed when none does.',
    words: ['spread', 'trade'],
  },
  logbook: {
    title: 'Logbook',
    answers: 'What was done, by day and gun. A line that is wrong is corrected, never lost.',
    words: ['followUp', 'burnback'],
  },
  day: {
    title: 'Wires over a day',
    answers: 'In which order to run the day’s wires for the fewest and cheapest changes.',
    words: ['shared'],
  },
  shop: {
    title: 'Our shop',
    answers: 'How this shop is set up: places, parts, limits, people. Leads change it, everybody may look.',
    words: ['houseRule', 'limit', 'trade', 'guess', 'asTheBay', 'shared'],
  },
  scan: { title: 'Scan', answers: 'A code on a card, a spool or a tin, read by the camera or typed.', words: [] },
  go: { title: 'A card’s code', answers: 'What the code stands for is done at once, and once.', words: [] },
  device: {
    title: 'This device',
    answers: 'What waits here for a link, what was not taken and why, and what the device holds.',
    words: [],
  },
  'sign-in': { title: 'Sign in', answers: 'Leads and instructors sign in; a bound device needs nobody to.', words: [] },
  link: { title: 'A link', answers: 'Binds this device to its booth or hall.', words: [] },
}
const NOWHERE: PageHelp = { title: 'No such page', answers: 'Nothing is at this address.', words: [] }

/** What `?` says on a page. @example helpFor('/gun/stn_1').title // 'A gun' */
export const helpFor = (pathname: string): PageHelp => PAGE_HELP[pathname.split('/')[1] ?? ''] ?? NOWHERE
