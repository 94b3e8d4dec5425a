import { type Touched } from '../touched.ts'
import { ODDS, type Odds, type Picture, type Source, type Symptom } from '../knowledge.ts'

type Causes = Partial<Record<Odds, string>>
/** Looks it has told, what comes before all of them, whose it is, and causes that one school names or that only follow from how wire and gas run. */
interface More {
  told?: readonly string[]
  first?: string
  only?: 'cell'
  taught?: string
  reckoned?: string
}
type Row = readonly [key: string, picture: Picture, says: string, causes: Causes, more?: More]

/** What is seen, in plain words; causes by how often hands meet them behind it. How often is a guess, each twice as often as the next. */
const ROWS: readonly Row[] = [
  [
    'jerk',
    'jerks',
    'wire jerks though the rolls turn evenly',
    {
      often: 'cableCoiled linerWorn',
      atTimes: 'spatterOnTip linerKinked linerDirty tipWorn',
      seldom: 'linerFitting linerWrong tipWrong',
      rarely: 'spoolTangled cableInner',
    },
    { told: ['watchRolls'], reckoned: 'tipWrong spoolTangled' },
  ],
  [
    'curled',
    'jerks',
    'wire comes out curled, wanders off',
    { often: 'tensionHigh', atTimes: 'tipWorn', seldom: 'tipWrong wirePoor', rarely: 'rollWrong' },
    { reckoned: 'wirePoor rollWrong' },
  ],
  [
    'morePressure',
    'jerks',
    'it needs more pressure than usual',
    {
      often: 'linerDirty linerWorn',
      atTimes: 'tipWorn rollWorn cableCoiled',
      seldom: 'linerKinked rollWrong spatterOnTip hubTight',
      rarely: 'linerWrong brakeLeft',
    },
    { reckoned: 'hubTight linerWrong brakeLeft' },
  ],
  [
    'afterSize',
    'jerks',
    'sticks and pops since the wire size changed',
    { often: 'tipWrong rollWrong sizeMix', atTimes: 'linerWrong', seldom: 'linerWorn settings' },
    { first: 'allFour' },
  ],
  [
    'nest',
    'nest',
    'nest at the rolls',
    {
      often: 'tipPlugged',
      atTimes: 'linerWorn cableCoiled gapOutlet hubLoose tipOn',
      seldom: 'gunOut linerDirty linerKinked rollWrong spoolReversed hubPin tensionHigh',
      rarely: 'linerShort tipWrong coredCrushed linerWrong guideWorn spoolTangled',
    },
    { first: 'nestOut', reckoned: 'tensionHigh tipWrong linerWrong guideWorn spoolTangled' },
  ],
  [
    'coasts',
    'nest',
    'spool keeps turning, loose loops',
    { often: 'hubLoose', atTimes: 'hubPin', seldom: 'hubRing' },
    { told: ['spoolByHand'] },
  ],
  [
    'burnback',
    'stuck',
    'wire burned back into the tip',
    {
      often: 'tipWorn settings',
      atTimes: 'tensionLow hubTight linerWorn tipLoose',
      seldom: 'tipWrong spatterOnTip linerDirty linerKinked cableCoiled hand brakeLeft',
      rarely: 'rollWorn rollWrong workClamp spoolTangled torchSmall tipStands',
    },
    {
      first: 'tipFree',
      taught: 'tipLoose',
      reckoned: 'cableCoiled rollWorn rollWrong workClamp spoolTangled torchSmall tipStands',
    },
  ],
  [
    'tipThread',
    'stuck',
    'tip will not go in',
    { often: 'threadDirty tipCrossed', atTimes: 'tipThread', seldom: 'diffuserBurned' },
    { first: 'tipRuns' },
  ],
  [
    'tipStays',
    'stuck',
    'tip will not come out',
    { often: 'tipSeized', atTimes: 'tipOverTight', seldom: 'diffuserLoose tipCrossed', rarely: 'torchSmall' },
    { first: 'tipOut', reckoned: 'torchSmall' },
  ],
  ['nozzleStuck', 'stuck', 'nozzle will not come off', { often: 'nozzleSeized spatterBridge' }],
  [
    'porosity',
    'holes',
    'pinholes in the weld',
    {
      often: 'nozzleClogged',
      atTimes: 'gasFlow cylinderEmpty draught dirtyMetal diffuserBlocked reamer',
      seldom: 'gunOut insulatorLoose orings gasFitting hand',
      rarely: 'diffuserBurned insulatorCrossed gasHose valve cableGas supply linerOil gasWrong wirePoor nozzleCrooked',
    },
    { taught: 'linerOil', reckoned: 'gasHose valve cableGas supply gasWrong wirePoor nozzleCrooked' },
  ],
  [
    'stumbles',
    'start',
    'stumbles or will not start, after running well',
    {
      often: 'tipWorn workClamp',
      atTimes: 'wireEnd tipLoose tensionLow hubTight',
      seldom: 'linerWorn linerDirty circuitOpen gasFlow cylinderEmpty spatterOnTip cableCoiled',
      rarely: 'orings linerKinked brakeLeft settings gunOut rollWorn',
    },
    { reckoned: 'cableCoiled settings gunOut rollWorn' },
  ],
  [
    'nothing',
    'stopped',
    'trigger pulled and nothing turns',
    { often: 'controlPlug rearSwitch', atTimes: 'triggerWire', seldom: 'menu tooHot fuse', rarely: 'powerOut' },
    { reckoned: 'tooHot powerOut' },
  ],
  [
    'slips',
    'stopped',
    'rolls slip, the wire stands',
    {
      often: 'tensionLow tipPlugged',
      atTimes: 'linerWorn armOpen cableCoiled rollWrong',
      seldom: 'rollWorn hubTight linerDirty linerKinked brakeLeft',
      rarely: 'coredCrushed linerWrong tipWrong armBroken spoolTangled',
    },
    { told: ['watchRolls'], reckoned: 'coredCrushed linerWrong tipWrong spoolTangled' },
  ],
  [
    'starved',
    'stopped',
    'spool is hard to turn',
    { often: 'hubTight brakeLeft', seldom: 'spoolTangled' },
    { told: ['spoolByHand'], reckoned: 'spoolTangled' },
  ],
  [
    'wontArrive',
    'stopped',
    'wire will not come through when loading',
    {
      often: 'tipOn sharpEnd',
      atTimes: 'cableCoiled linerKinked',
      seldom: 'gapOutlet linerShort linerWrong linerDirty',
      rarely: 'guideWorn gunOut',
    },
    { first: 'tipIsOn', reckoned: 'guideWorn gunOut' },
  ],
  ['runsOut', 'stopped', 'wire ran out in the middle of the work', { often: 'shortSpool' }],
  [
    'longArc',
    'bead',
    'arc sits at the tip, no wire to be seen, soot and balls',
    {
      often: 'tipWorn tensionLow',
      atTimes: 'linerWorn linerDirty hand spatterOnTip',
      seldom: 'linerKinked hubTight cableCoiled tipWrong tipLoose wirePoor settings',
      rarely: 'coldWork brakeLeft rollWorn',
    },
    { told: ['arcLook'], reckoned: 'cableCoiled tipLoose brakeLeft rollWorn' },
  ],
  [
    'spatters',
    'bead',
    'more spatter than it was, nozzle closes fast',
    {
      often: 'settings',
      atTimes: 'tipWorn hand workClamp gasFlow',
      seldom: 'dirtyMetal linerWorn polarity gasWrong tipLoose',
      rarely: 'wirePoor cylinderEmpty tensionLow wireWrong tipStands',
    },
    { reckoned: 'polarity gasWrong tipLoose tensionLow wireWrong tipStands' },
  ],
  [
    'stubs',
    'bead',
    'wire stubs into the work and pushes back',
    {
      often: 'settings',
      atTimes: 'hand workClamp',
      seldom: 'wireEnd tipWorn tipLoose polarity',
      rarely: 'circuitOpen tipWrong wireWrong sizeMix',
    },
    { reckoned: 'polarity tipLoose circuitOpen tipWrong wireWrong sizeMix' },
  ],
  [
    'soot',
    'bead',
    'soot, with a short steady arc',
    {
      often: 'hand',
      atTimes: 'gasFlow nozzleClogged draught',
      seldom: 'cylinderEmpty gunOut insulatorLoose dirtyMetal',
      rarely: 'supply gasHose valve gasWrong',
    },
    { told: ['arcLook'], reckoned: 'supply gasHose valve gasWrong gunOut insulatorLoose' },
  ],
  [
    'nozzleArcs',
    'nozzle',
    'nozzle arcs or sticks to the work',
    { often: 'spatterBridge', atTimes: 'insulatorDead', seldom: 'insulatorLoose nozzleCrooked tipCrossed' },
    { reckoned: 'insulatorLoose nozzleCrooked' },
  ],
  ['twists', 'nozzle', 'diffuser turns with the tip', { often: 'diffuserLoose', rarely: 'diffuserBurned' }],
  ['linerTwists', 'liner', 'liner twists as its nut turns', { often: 'nutWinds', atTimes: 'setScrew' }],
  [
    'nozzleLoose',
    'nozzle',
    'nozzle is loose, keeps falling off',
    { often: 'insulatorCollar nozzleSlack', atTimes: 'insulatorLoose' },
    { reckoned: 'insulatorLoose' },
  ],
  [
    'crooked',
    'nozzle',
    'nozzle crooked, wire off the middle',
    { often: 'tipCrossed frontBent', atTimes: 'nozzleCrooked', seldom: 'insulatorCrossed insulatorCollar' },
    { reckoned: 'nozzleCrooked insulatorCollar' },
  ],
  [
    'linerSticks',
    'liner',
    'new liner will not go in',
    { often: 'cableBentPush', atTimes: 'linerOverlong', seldom: 'wireInside linerWrong', rarely: 'cableInner' },
    { reckoned: 'wireInside linerWrong' },
  ],
  [
    'linerStays',
    'liner',
    'old liner will not come out',
    { often: 'wireInside', atTimes: 'setScrew nutWinds', seldom: 'linerBaked' },
  ],
  [
    'linerIsShort',
    'liner',
    'liner too short after fitting',
    { often: 'linerShort' },
    { first: 'standsOut', told: ['gapLook', 'linerAge'] },
  ],
  ['guideChewed', 'else', 'rolls chew the guide', { often: 'guideIn', atTimes: 'guideWorn' }, { told: ['wireFlat'] }],
  ['arm', 'else', 'pressure arm will not hold', { often: 'armBroken', atTimes: 'armOpen' }],
  [
    'burnThrough',
    'bead',
    'burns through thin sheet',
    { often: 'ampsHigh', atTimes: 'fitUp hand', seldom: 'wireThick' },
    { reckoned: 'hand' },
  ],
  ['frost', 'bead', 'frosted aluminium on the tip', { often: 'frost' }],
  ['menu', 'else', 'a menu opened, odd behaviour', { often: 'menu' }, { told: ['switch'] }],
  [
    'crash',
    'robot',
    'the torch hit something',
    { often: 'crash', atTimes: 'neckBent', seldom: 'cableRobot insulatorDead tipCrossed' },
    { only: 'cell', first: 'crashLook', reckoned: 'insulatorDead tipCrossed' },
  ],
  [
    'halted',
    'robot',
    'the torch halted the line',
    { often: 'neckWorn', atTimes: 'cableRobot', seldom: 'torchSmall linerWorn' },
    { only: 'cell', reckoned: 'linerWorn' },
  ],
  [
    'robotStart',
    'robot',
    'bad arc start, cycle after cycle',
    { often: 'wireEnd bentEnd', atTimes: 'tipWorn', seldom: 'workClamp' },
    { only: 'cell', reckoned: 'workClamp' },
  ],
  [
    'offSeam',
    'robot',
    'the weld lies beside the joint',
    { often: 'seamTracking fitUp', atTimes: 'crash tipWorn', seldom: 'neckBent bentEnd' },
    { only: 'cell', first: 'seamLook', reckoned: 'bentEnd' },
  ],
  ['marked', 'robot', 'wire comes marked or oily', { often: 'booster', atTimes: 'conduitRough' }, { only: 'cell' }],
  [
    'conduit',
    'robot',
    'drum wire will not thread through',
    { often: 'sharpEnd', atTimes: 'conduitRough' },
    { only: 'cell' },
  ],
]

/** What it says by itself was touched last. */
const TOUCHES: Readonly<Record<string, Touched>> = {
  afterSize: 'size',
  wontArrive: 'spool',
  tipThread: 'tip',
  linerSticks: 'liner',
  linerIsShort: 'liner',
  linerTwists: 'liner',
  crash: 'hit',
  ...{ tipStays: 'unknown', nozzleStuck: 'unknown', twists: 'unknown', linerStays: 'unknown', runsOut: 'unknown' },
  ...{ frost: 'unknown', menu: 'unknown', arm: 'unknown', guideChewed: 'unknown', conduit: 'unknown' },
}
/** What it looks like, where it is picked among others. */
const DRAWN: Readonly<Record<string, Symptom['drawn']>> = {
  jerk: ['feedsBadly', 0],
  curled: ['feedsBadly', 1],
  morePressure: ['feedsBadly', 2],
  afterSize: ['feedsBadly', 3],
  nest: ['atSpool', 0],
  coasts: ['atSpool', 1],
  burnback: ['atTip', 0],
  tipThread: ['atTip', 1],
  tipStays: ['atTip', 2],
  nozzleStuck: ['atTip', 3],
  nothing: ['feedsNot', 0],
  slips: ['feedsNot', 1],
  starved: ['feedsNot', 2],
  wontArrive: ['feedsNot', 3],
  runsOut: ['feedsNot', 4],
  longArc: ['atArc', 0],
  stubs: ['atArc', 1],
  spatters: ['atArc', 2],
  soot: ['atArc', 3],
  burnThrough: ['atArc', 4],
  frost: ['atArc', 5],
  nozzleArcs: ['atNozzle', 0],
  nozzleLoose: ['atNozzle', 1],
  crooked: ['atNozzle', 2],
  twists: ['atNozzle', 3],
  linerSticks: ['atLiner', 0],
  linerStays: ['atLiner', 1],
  linerIsShort: ['atLiner', 2],
  linerTwists: ['atLiner', 3],
}

const listed = (keys: string | undefined): string[] => keys?.split(' ') ?? []
export const SYMPTOMS: readonly Symptom[] = ROWS.map(([key, picture, says, by, more = {}]) => {
  const { taught, reckoned, ...rest } = more
  const odds = Object.fromEntries(ODDS.flatMap((o) => listed(by[o]).map((cause) => [cause, o])))
  const source: Record<string, Source> = {}
  for (const cause of listed(taught)) source[cause] = 'taught'
  for (const cause of listed(reckoned)) source[cause] = 'reckoned'
  return {
    key,
    picture,
    says,
    causes: Object.keys(odds),
    odds,
    source,
    ...rest,
    ...(DRAWN[key] ? { drawn: DRAWN[key] } : {}),
    ...(TOUCHES[key] ? { touched: TOUCHES[key] } : {}),
  }
})
