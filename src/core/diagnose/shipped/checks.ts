import { type OutReason, type Position } from '@core/path/columns.ts'
import { type GuideKey } from '@core/guide/keys.ts'
import { type Hazard } from '@core/guide/cautions.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { type Check, type Effort, type Outcome, type Sign } from '../knowledge.ts'

interface Look {
  do: string
  how: string
  effort?: Effort
  minutes?: number
  sign?: Sign
  hazards?: readonly Hazard[]
  drawing?: DrawingKey
  shows?: number
  mends?: Position
  notFor?: readonly string[]
  onlyFor?: readonly string[]
  after?: string
  guide?: GuideKey
  outReason?: OutReason
  /** Answers that leave hardly anything else. */
  sure?: readonly string[]
  /** Panels of its drawing that show its answers, in their order. */
  panels?: readonly number[]
}
/** Answers that point somewhere, as key: [words, causes …]; and the words of the one where all is well there. */
type Says = Record<string, readonly [says: string, ...points: string[]]>
const check = (key: string, look: Look, answers: { bad: Says; well: string }): Check => {
  const outcomes = Object.entries(answers.bad).map(([k, [says, ...points]]): Outcome => ({
    ...{ key: k, says, points },
    ...(look.sure?.includes(k) ? { isSure: true } : {}),
  }))
  const { minutes, panels, sure: _, ...rest } = look
  const all: Outcome[] = [...outcomes, { key: 'well', says: answers.well, points: [] }]
  return {
    key,
    effort: 'E0',
    sign: 'look',
    hazards: [],
    drawing: null,
    shows: 0.85,
    ...rest,
    ...(minutes === undefined ? {} : { minutes }),
    outcomes: all.map((o, i) => (panels?.[i] === undefined ? o : { ...o, panel: panels[i] })),
  }
}
/** What is at a standstill, or is no trouble of an arc: none is watched. */
const NO_ARC = [
  'wontArrive',
  'nothing',
  'nest',
  'linerSticks',
  'linerStays',
  'linerIsShort',
  'linerTwists',
  'tipThread',
  'tipStays',
  'nozzleStuck',
  'starved',
  'slips',
  'twists',
  'coasts',
  'morePressure',
  'guideChewed',
  'arm',
  'menu',
  'runsOut',
  'frost',
  'crash',
  'halted',
  'marked',
  'conduit',
  'jerk',
  'curled',
  'nozzleLoose',
  'crooked',
]
/** Where nothing feeds, or what is in the rolls was just cut out. */
const NO_FEED = [
  'nothing',
  'nest',
  'linerSticks',
  'linerStays',
  'linerIsShort',
  'linerTwists',
  'tipThread',
  'tipStays',
  'nozzleStuck',
  'crash',
]
/** Where no wire or no liner is in the gun to be pulled through. */
const NO_PULL = [
  'nothing',
  'linerSticks',
  'linerStays',
  'linerIsShort',
  'linerTwists',
  'tipThread',
  'tipStays',
  'nozzleStuck',
]
/** Where the tip is off, or is the trouble itself. */
const NO_TIP = ['tipThread', 'tipStays', 'wontArrive', 'linerSticks', 'linerStays']
const LINERS = ['linerWorn', 'linerKinked', 'linerDirty', 'linerFitting', 'linerWrong'] as const

/** Checks, the free ones first; minutes and likelihoods are guesses of the trade. */
export const CHECKS: readonly Check[] = [
  check(
    'tipFace',
    {
      do: 'Look at the tip’s face',
      how: 'End-on. A ball, a bridge to the nozzle, wire fused in?',
      hazards: ['hot'],
      drawing: 'spatterBall',
    },
    {
      bad: {
        ball: ['A ball sits on it', 'spatterOnTip'],
        bridge: ['Spatter bridges to the nozzle', 'spatterBridge'],
        gob: ['Wire is fused in it', 'tipPlugged'],
      },
      well: 'Clean, wire free',
    },
  ),
  check(
    'straighten',
    {
      notFor: NO_FEED,
      do: 'Lift the cable straight',
      how: 'Hold it up so that it runs straight, feed, then let it hang again.',
      sign: 'test',
      hazards: ['live'],
      drawing: 'cableLies',
      shows: 0.8,
    },
    {
      bad: {
        smooth: ['Runs smooth when straight', ...LINERS, 'cableCoiled'],
      },
      well: 'No change',
    },
  ),
  check(
    'cableLies',
    {
      do: 'Look how the cable lies',
      how: 'Coils, a bend at the machine, under a wheel?',
      drawing: 'cableLies',
      shows: 0.95,
    },
    {
      bad: { coiled: ['Coiled, or bent at the machine', 'cableCoiled', 'cableBentPush'] },
      well: 'Laid out, no tight bend',
    },
  ),
  check(
    'watchRolls',
    {
      notFor: NO_FEED,
      do: 'Watch the rolls while it feeds',
      how: 'Do they turn evenly? Does the wire go with them?',
      hazards: ['live'],
      sign: 'look',
      shows: 0.8,
    },
    {
      bad: {
        slip: ['Rolls turn, wire slips', 'tensionLow', 'rollWrong', 'rollWorn', 'armOpen', 'tipPlugged'],
        even: ['Rolls even, wire jerks behind them', ...LINERS, 'spatterOnTip', 'cableInner'],
      },
      well: 'Rolls and wire go evenly',
    },
  ),
  check(
    'pull',
    {
      notFor: NO_PULL,
      do: 'Pull the wire by hand',
      how: 'Power off, nozzle and tip off, arm open, cable straight: pull at the gun.',
      effort: 'E2',
      minutes: 3,
      sign: 'feel',
      hazards: ['isolate', 'hot', 'stab'],
      shows: 0.9,
    },
    {
      bad: { hard: ['Hard, or it catches', ...LINERS, 'cableInner'] },
      well: 'Fairly easy',
    },
  ),
  check(
    'spoolByHand',
    {
      do: 'Turn the spool by hand',
      how: 'Arm open. It gives with a light drag and stops with you.',
      effort: 'E0',
      minutes: 0.5,
      sign: 'feel',
      hazards: ['spring'],
      shows: 0.9,
    },
    {
      bad: {
        tight: ['Hard to turn', 'hubTight', 'brakeLeft'],
        catches: ['Catches at one place', 'spoolTangled'],
        runsOn: ['Runs on when let go', 'hubLoose', 'hubPin', 'hubRing'],
      },
      well: 'Light drag, stops',
    },
  ),
  check(
    'hubLook',
    {
      do: 'Look at the hub',
      how: 'Pin in the spool, lock ring on?',
      effort: 'E0',
      minutes: 0.5,
      hazards: ['spring'],
      shows: 0.9,
    },
    {
      bad: { pin: ['Pin is beside its hole', 'hubPin'], ring: ['No lock ring', 'hubRing'] },
      well: 'Pin in, ring on',
    },
  ),
  check(
    'brakeAsk',
    {
      onlyFor: ['starved'],
      do: 'Was the brake left tight?',
      how: 'Who loaded last may have tightened it to thread.',
      sign: 'asked',
      shows: 0.8,
    },
    {
      bad: { left: ['Yes, or nobody knows', 'brakeLeft'] },
      well: 'No',
    },
  ),
  check(
    'wirePath',
    {
      do: 'Look where the wire leaves the spool',
      how: 'From the side the feeder wants, straight to the inlet.',
      drawing: 'pathOver4',
      shows: 0.95,
    },
    {
      bad: { wrong: ['From the wrong side', 'spoolReversed'] },
      well: 'From the right side',
    },
  ),
  check(
    'gunSeat',
    { do: 'Is the gun home?', how: 'Lift the cover: collar flush, locked.', drawing: 'pinHome', shows: 0.95 },
    {
      bad: { out: ['Half out, or not locked', 'gunOut'] },
      well: 'Home and locked',
    },
  ),
  check(
    'tipNip',
    {
      notFor: NO_TIP,
      do: 'Feel the tip: tight, and straight?',
      how: 'Try it with the tool, a nip. Cold first.',
      effort: 'E1',
      minutes: 0.7,
      sign: 'feel',
      hazards: ['hot', 'isolate'],
      drawing: 'threadStart',
      shows: 0.9,
    },
    {
      bad: {
        loose: ['It was loose', 'tipLoose'],
        askew: ['It stands askew', 'tipCrossed'],
        turns: ['Diffuser turns with it', 'diffuserLoose'],
      },
      well: 'Tight and straight',
    },
  ),
  check(
    'tipBeside',
    {
      notFor: NO_TIP,
      do: 'Tip off, beside a fresh one',
      how: 'End-on: round, oval, keyholed. Read its stamp.',
      effort: 'E1',
      hazards: ['hot', 'isolate'],
      drawing: 'bore',
      shows: 0.9,
    },
    {
      bad: {
        worn: ['Oval or keyholed', 'tipWorn'],
        stamp: ['Stamped for another wire', 'tipWrong'],
        plugged: ['Plugged', 'tipPlugged'],
      },
      well: 'Round, and the right one',
    },
  ),
  check(
    'tipSwap',
    {
      notFor: [...NO_FEED, ...NO_TIP],
      do: 'A fresh tip: does it help?',
      how: 'Put a new one on, feed, strike once.',
      effort: 'E1',
      minutes: 2,
      sign: 'swap',
      hazards: ['hot', 'isolate', 'arc'],
      drawing: 'closing',
      shows: 0.93,
      mends: 'tip',
    },
    {
      bad: { helps: ['That brings it back', 'tipWorn', 'tipWrong', 'spatterOnTip', 'tipLoose', 'tipPlugged'] },
      well: 'No change',
    },
  ),
  check(
    'block',
    {
      notFor: NO_FEED,
      do: 'Feed against a block of wood',
      how: 'Three fingers out, at an angle: it curls, and does not stall.',
      effort: 'E1',
      minutes: 1,
      sign: 'test',
      hazards: ['live', 'circuit', 'stab'],
      shows: 0.85,
    },
    {
      bad: {
        stalls: ['Rolls slip, it stalls', 'tensionLow', 'rollWorn', 'rollWrong', 'armOpen'],
        hard: ['Curls hard, flattened', 'tensionHigh', 'coredCrushed'],
      },
      well: 'A clean pigtail',
    },
  ),
  check(
    'armLook',
    { do: 'Is the pressure arm closed?', how: 'Closed and latched, nothing broken.', shows: 0.95 },
    {
      bad: { open: ['Open', 'armOpen'], broken: ['Broken, will not hold', 'armBroken'] },
      well: 'Closed, whole',
    },
  ),
  check(
    'readRoll',
    {
      do: 'Read the roll',
      how: 'Number and groove facing the wire; all of them.',
      effort: 'E1',
      minutes: 1,
      hazards: ['isolate'],
      drawing: 'rollFace',
      shows: 0.93,
    },
    {
      bad: {
        wrong: ['Another size or groove', 'rollWrong'],
        worn: ['Groove worn, shiny floor', 'rollWorn'],
      },
      well: 'Right, sharp groove',
    },
  ),
  check(
    'wireFlat',
    {
      do: 'Look at the wire past the rolls',
      how: 'Flat, toothed, shaved?',
      hazards: ['stab'],
      shows: 0.85,
      notFor: ['conduit'],
    },
    {
      bad: {
        flat: ['Flattened', 'coredCrushed', 'tensionHigh'],
        shaved: ['Shaved, or oily', 'guideIn', 'guideWorn', 'booster', 'conduitRough'],
      },
      well: 'Round and clean',
    },
  ),
  check(
    'gapLook',
    {
      do: 'Look between rolls and guide',
      how: 'As close as it goes without touching. No loop of wire in it.',
      effort: 'E1',
      minutes: 0.7,
      hazards: ['isolate'],
      drawing: 'outletMouth',
      shows: 0.9,
    },
    {
      bad: {
        gap: ['A gap', 'gapOutlet', 'linerShort'],
        touches: ['It touches the rolls', 'guideIn'],
        worn: ['Grooved or oval', 'guideWorn'],
      },
      well: 'Close, clear',
    },
  ),
  check(
    'guideMark',
    {
      do: 'Look at the guide’s mouth',
      how: 'Set too far in, or grooved out?',
      effort: 'E1',
      hazards: ['isolate'],
      drawing: 'outletMouth',
    },
    {
      bad: { in: ['Fresh bites, sound bore', 'guideIn'], worn: ['Grooved, oval', 'guideWorn'] },
      well: 'Sound',
    },
  ),
  check(
    'inletDust',
    { do: 'Look at inlet and wiper', how: 'Black dust, copper flakes, a wiper gone hard?', shows: 0.75 },
    {
      bad: { dust: ['Dust or flakes', 'linerDirty'] },
      well: 'Clean',
    },
  ),
  check(
    'linerAge',
    {
      do: 'Was the liner just fitted?',
      how: 'Since the last change of liner: did it ever feed well?',
      minutes: 0.8,
      sign: 'asked',
      shows: 0.85,
    },
    {
      bad: {
        never: ['Never fed well since', 'linerFitting', 'linerShort'],
        air: ['Air was blown through it', 'linerOil'],
      },
      well: 'It fed well for long',
    },
  ),
  check(
    'orings',
    {
      do: 'Gun out: look at the O-rings',
      how: 'Whole, greased, in their grooves.',
      effort: 'E2',
      minutes: 3,
      hazards: ['isolate'],
      drawing: 'oring',
      shows: 0.95,
    },
    {
      bad: { torn: ['Torn or flat', 'orings'] },
      well: 'Whole',
    },
  ),
  check(
    'compare',
    {
      do: 'Compare with the procedure',
      how: 'Wire speed, volts, trim: as written, or as the label in the door.',
      effort: 'E1',
      minutes: 2,
      sign: 'reading',
      shows: 0.9,
    },
    {
      bad: { off: ['Off', 'settings', 'ampsHigh', 'coldWork'], size: ['Set for another wire', 'sizeMix'] },
      well: 'As written',
    },
  ),
  check(
    'allFour',
    {
      onlyFor: ['afterSize'],
      do: 'Tip, rolls, liner, machine: one size?',
      how: 'Read all four against the wire’s label: stamp, groove, colour, setting.',
      effort: 'E1',
      minutes: 2,
      hazards: ['isolate', 'hot'],
      shows: 0.95,
    },
    {
      bad: {
        tip: ['The tip is of another size', 'tipWrong'],
        rolls: ['A roll is', 'rollWrong'],
        liner: ['The liner is', 'linerWrong'],
        machine: ['Machine or a guide is', 'sizeMix'],
      },
      well: 'All the same',
    },
  ),
  check(
    'arcLook',
    {
      notFor: NO_ARC,
      do: 'Watch one live arc',
      how: 'Behind a helmet, a second after the start: how long is the cone, against the tip’s own width?',
      effort: 'E1',
      minutes: 1,
      sign: 'arc',
      hazards: ['arc', 'clothing'],
      drawing: 'arcCone',
      panels: [0, 1, 2],
      shows: 0.75,
    },
    {
      bad: {
        long: [
          'Two or three tips long, no wire seen',
          'tipWorn',
          'linerWorn',
          'linerKinked',
          'tensionLow',
          'spatterOnTip',
          'wirePoor',
          'hubTight',
          'settings',
        ],
        steady: ['Shorter than the tip, and steady', 'hand', 'coldWork'],
      },
      well: 'Long and short by turns',
    },
  ),
  check(
    'arcSettles',
    {
      notFor: NO_ARC,
      do: 'Strike three times: does it settle?',
      how: 'Count one second from the start. By then wire is seen and the tone is even.',
      effort: 'E1',
      minutes: 0.7,
      sign: 'arc',
      hazards: ['arc', 'clothing'],
      shows: 0.8,
    },
    {
      bad: {
        never: [
          'Not within a second',
          'tipWorn',
          'linerWorn',
          'linerKinked',
          'linerDirty',
          'tensionLow',
          'spatterOnTip',
          'hubTight',
        ],
        once: ['Only the first one fails', 'wireEnd', 'workClamp'],
      },
      well: 'Settles every time',
    },
  ),
  check(
    'handWatch',
    {
      notFor: NO_ARC,
      do: 'Watch distance, angle, speed',
      how: 'One pass. The tip’s distance first.',
      effort: 'E1',
      minutes: 1,
      sign: 'look',
      hazards: ['arc', 'clothing'],
      shows: 0.8,
    },
    {
      bad: { off: ['Off what the work wants', 'hand', 'coldWork'] },
      well: 'As it should be',
    },
  ),
  check(
    'clamp',
    { do: 'Look at the work clamp', how: 'On, on bright metal, cable whole.', drawing: 'clamp', shows: 0.9 },
    {
      bad: { off: ['Not on the work', 'circuitOpen'], bad: ['Rust, paint, loose', 'workClamp'] },
      well: 'Bright and tight',
    },
  ),
  check(
    'wireEndLook',
    {
      do: 'Look at the wire’s end',
      how: 'Snipped sharp, or a dull ball?',
      hazards: ['stab'],
      drawing: 'wireEnds',
      panels: [0, 1, 2, 3],
      shows: 0.95,
    },
    {
      bad: { ball: ['A dull ball', 'wireEnd'], bent: ['Bent', 'bentEnd'], sharp: ['A sharp burr', 'sharpEnd'] },
      well: 'Cut clean',
    },
  ),
  check(
    'flow',
    {
      do: 'Hold the trigger, read the flow',
      how: 'Arm open, so that no wire comes. At the gun where there is a meter: is it the number of the procedure?',
      effort: 'E1',
      minutes: 1,
      sign: 'reading',
      hazards: ['cylinder', 'live'],
      drawing: 'flowmeter',
      shows: 0.93,
    },
    {
      bad: {
        off: ['Some, and off the number', 'gasFlow', 'supply'],
        none: ['None at all', 'cylinderEmpty', 'valve', 'gasHose', 'supply'],
        leaks: ['Right at the cylinder, low at the gun', 'gasFitting', 'orings', 'gunOut', 'cableGas', 'gasHose'],
      },
      well: 'Right',
    },
  ),
  check(
    'soap',
    {
      after: 'flow',
      do: 'Soap the gas fittings',
      how: 'Trigger held: bubbles?',
      effort: 'E2',
      minutes: 3,
      sign: 'test',
      hazards: ['cylinder', 'live'],
      shows: 0.95,
    },
    {
      bad: { bubbles: ['Bubbles', 'gasFitting'] },
      well: 'None',
    },
  ),
  check(
    'insulatorFeel',
    {
      do: 'Feel the insulator',
      how: 'Finger-tight, square on its thread, whole.',
      effort: 'E1',
      minutes: 0.7,
      sign: 'feel',
      hazards: ['hot', 'isolate'],
      drawing: 'insulatorWay',
      shows: 0.9,
    },
    {
      bad: {
        loose: ['Loose over the holes', 'insulatorLoose'],
        askew: ['On askew', 'insulatorCrossed'],
        collar: ['Collar worn, nozzle wobbles', 'insulatorCollar'],
      },
      well: 'Tight and square',
    },
  ),
  check(
    'nozzleLook',
    {
      do: 'Look into the nozzle',
      how: 'End-on: how much is open, is the wire in the middle?',
      hazards: ['hot'],
      drawing: 'nozzleOpening',
      shows: 0.9,
    },
    {
      bad: {
        closed: ['A good part is closed', 'nozzleClogged', 'spatterBridge', 'reamer'],
        off: ['Open, wire off the middle', 'frontBent', 'tipCrossed', 'nozzleCrooked'],
      },
      well: 'Open, wire in the middle',
    },
  ),
  check(
    'nozzleGrip',
    {
      do: 'Nozzle: does it sit, does it come?',
      how: 'Cold. Pull and turn by hand.',
      effort: 'E1',
      minutes: 0.7,
      sign: 'feel',
      hazards: ['hot', 'isolate'],
      shows: 0.9,
    },
    {
      bad: {
        slack: ['Slack on a sound insulator', 'nozzleSlack'],
        askew: ['On askew, or not home', 'nozzleCrooked'],
        seized: ['Will not move', 'nozzleSeized'],
      },
      well: 'Sits, and comes',
    },
  ),
  check(
    'holes',
    {
      do: 'Nozzle off: count the gas holes',
      how: 'All open? Diffuser burned, threads stripped?',
      effort: 'E2',
      minutes: 2,
      hazards: ['hot', 'isolate'],
      drawing: 'holes',
      shows: 0.93,
    },
    {
      bad: { blocked: ['Some are blocked', 'diffuserBlocked'], burned: ['Burned or stripped', 'diffuserBurned'] },
      well: 'Open and sound',
    },
  ),
  check(
    'beep',
    {
      do: 'Tip to nozzle: does it beep?',
      how: 'Meter, power off, nozzle clean: no path allowed.',
      effort: 'E1',
      minutes: 1,
      sign: 'reading',
      hazards: ['isolate', 'hot'],
      shows: 0.95,
    },
    {
      bad: { beeps: ['It beeps', 'insulatorDead', 'spatterBridge'] },
      well: 'No path',
    },
  ),
  check(
    'neckLook',
    { do: 'Look at neck and front end', how: 'Bent, or moved since it was right?', hazards: ['hot'], shows: 0.85 },
    {
      bad: { bent: ['Bent', 'frontBent', 'neckBent'], worn: ['Worn or leaking', 'neckWorn'] },
      well: 'As it was',
    },
  ),
  check(
    'draughtFeel',
    { do: 'A draught?', how: 'Door, fan, cooling air of the machine.', sign: 'feel', shows: 0.9 },
    {
      bad: { yes: ['Yes', 'draught'] },
      well: 'Still air',
    },
  ),
  check(
    'metal',
    { do: 'Look at the metal', how: 'Oil, paint, scale, wet; the gap between the pieces.', shows: 0.85 },
    {
      bad: { dirty: ['Dirty or wet', 'dirtyMetal'], gap: ['A wide gap', 'fitUp'] },
      well: 'Clean, fits',
    },
  ),
  check(
    'reamMatch',
    {
      do: 'After reaming: what is left?',
      how: 'Blade and nozzle of one pair, deep enough.',
      effort: 'E1',
      hazards: ['isolate'],
      shows: 0.9,
    },
    {
      bad: { left: ['Spatter is left', 'reamer'] },
      well: 'Clean',
    },
  ),
  check(
    'sameLot',
    {
      do: 'The same lot on another gun',
      how: 'Ask, or hang it there: the same trouble?',
      effort: 'E2',
      sign: 'swap',
      hazards: ['spring', 'stab'],
      shows: 0.9,
    },
    {
      bad: { same: ['The same trouble there', 'wirePoor'] },
      well: 'Runs well there',
    },
  ),
  check(
    'plug',
    {
      do: 'Push the control plug',
      how: 'Until it clicks.',
      effort: 'E0',
      minutes: 0.5,
      sign: 'feel',
      drawing: 'plugKeyed',
      shows: 0.95,
    },
    {
      bad: { clicked: ['It clicked just now', 'controlPlug'] },
      well: 'It was in',
    },
  ),
  check(
    'switch',
    {
      do: 'Is the machine on?',
      how: 'Lamp, rear switch, its own plug. Not inside.',
      shows: 0.95,
      sure: ['off', 'dead', 'hot', 'menu'],
    },
    {
      bad: {
        off: ['Off at its switch', 'rearSwitch'],
        dead: ['Switched on, and dark', 'fuse', 'powerOut'],
        hot: ['Its lamp says too hot', 'tooHot'],
        menu: ['On, a menu shows', 'menu'],
      },
      well: 'On, as usual',
    },
  ),
  check(
    'otherGun',
    {
      onlyFor: ['nothing'],
      do: 'Another gun on it',
      how: 'Does its trigger work?',
      effort: 'E2',
      sign: 'swap',
      hazards: ['isolate'],
      shows: 0.93,
    },
    {
      bad: { works: ['That one works', 'triggerWire'], dead: ['Dead as well', 'fuse'] },
      well: 'Cannot tell',
    },
  ),
  check(
    'tipIsOn',
    {
      onlyFor: ['nest', 'wontArrive'],
      do: 'Was it fed with the tip on?',
      how: 'Loading: nozzle and tip off first.',
      sign: 'asked',
      shows: 0.95,
    },
    {
      bad: { on: ['Yes', 'tipOn'] },
      well: 'No, it was off',
    },
  ),
  check(
    'anotherLiner',
    {
      onlyFor: ['linerSticks'],
      do: 'Does another liner stick there?',
      how: 'The cable dead straight, by short strokes.',
      effort: 'E2',
      sign: 'swap',
      hazards: ['coil', 'stab'],
      drawing: 'kink',
      shows: 0.9,
    },
    {
      bad: { same: ['It sticks at the same place', 'cableInner'] },
      well: 'It goes in',
    },
  ),
  check(
    'newLinerLook',
    {
      onlyFor: ['linerSticks'],
      do: 'Draw it out: is it kinked?',
      how: 'Run it through the fingers. Its size and kind against the wire.',
      effort: 'E1',
      minutes: 1,
      sign: 'feel',
      hazards: ['coil', 'stab'],
      drawing: 'kink',
      shows: 0.9,
    },
    {
      bad: {
        kinked: ['Kinked', 'linerOverlong'],
        other: ['Too thick, or of another kind', 'linerWrong'],
        wire: ['Wire is still in the cable', 'wireInside'],
      },
      well: 'Straight, the right one',
    },
  ),
  check(
    'linerOut',
    {
      onlyFor: ['linerStays', 'linerTwists'],
      do: 'What holds the old liner?',
      how: 'Wire out? Does its nut turn alone? Set screw out?',
      effort: 'E1',
      hazards: ['coil', 'isolate'],
      shows: 0.9,
    },
    {
      bad: {
        wire: ['Wire is still in it', 'wireInside'],
        winds: ['The nut winds the coil', 'nutWinds'],
        baked: ['It sits fast all along', 'linerBaked'],
        screw: ['Set screw is in', 'setScrew'],
      },
      well: 'Nothing of these',
    },
  ),
  check(
    'standsOut',
    {
      onlyFor: ['linerIsShort', 'wontArrive', 'nest', 'jerk'],
      do: 'Measure what stands out',
      how: 'Liner pressed home, cable straight.',
      effort: 'E1',
      sign: 'reading',
      hazards: ['coil'],
      drawing: 'standOutA',
      shows: 0.95,
    },
    {
      bad: { short: ['Too short', 'linerShort'] },
      well: 'As it should',
    },
  ),
  check(
    'tipRuns',
    {
      onlyFor: ['tipThread', 'twists'],
      do: 'Stop: never force it',
      how: 'Clean both threads once. Back a turn until it drops in, then on by finger.',
      effort: 'E1',
      sign: 'feel',
      hazards: ['hot', 'isolate'],
      drawing: 'threadStart',
      shows: 0.9,
    },
    {
      bad: {
        dirty: ['Grit in it; clean it runs', 'threadDirty'],
        crossed: ['Catches askew, clean as well', 'tipCrossed'],
        other: ['Will not start: another thread', 'tipThread'],
        stripped: ['Diffuser’s thread is torn', 'diffuserBurned'],
      },
      well: 'Runs freely',
    },
  ),
  check(
    'tipOut',
    {
      onlyFor: ['tipStays'],
      do: 'Cold first: what holds the tip?',
      how: 'Power off. Hold the diffuser, turn with the tip’s own tool, no cheater.',
      effort: 'E1',
      sign: 'feel',
      hazards: ['hot', 'isolate'],
      shows: 0.9,
    },
    {
      bad: {
        heat: ['Hot work behind it: fast all round', 'tipSeized'],
        lever: ['It was pulled too tight', 'tipOverTight'],
        turns: ['The diffuser turns with it', 'diffuserLoose'],
        askew: ['It stands askew', 'tipCrossed'],
      },
      well: 'It comes',
    },
  ),
  check(
    'tipStamp',
    {
      notFor: NO_TIP,
      do: 'Read the tip’s stamp',
      how: 'Nozzle off: the size on its side against the wire’s label.',
      effort: 'E1',
      minutes: 0.7,
      sign: 'reading',
      hazards: ['hot', 'isolate'],
      shows: 0.95,
    },
    { bad: { other: ['For another wire', 'tipWrong'] }, well: 'For this wire' },
  ),
  check(
    'tipFree',
    {
      onlyFor: ['burnback'],
      do: 'Free the wire: tip off, a fresh one on',
      how: 'Power off. Snip behind the tip, take it off with its tool. What does it look like?',
      effort: 'E1',
      minutes: 2,
      hazards: ['hot', 'isolate', 'stab'],
      drawing: 'bore',
      shows: 0.85,
      mends: 'tip',
      outReason: 'burnedBack',
    },
    {
      bad: {
        loose: ['It sat loose', 'tipLoose'],
        worn: ['Bore oval or keyholed', 'tipWorn'],
        stamp: ['Stamped for another wire', 'tipWrong'],
        ball: ['A ball on its face', 'spatterOnTip'],
      },
      well: 'Burned in, else sound',
    },
  ),
  check(
    'nestOut',
    {
      onlyFor: ['nest'],
      do: 'Cut the nest out first',
      how: 'Power off, arm open. Snip on both sides of it, drag nothing through the rolls. Nozzle and tip off, pull the cut wire out at the gun. What did you see?',
      effort: 'E1',
      minutes: 3,
      hazards: ['isolate', 'hot', 'stab'],
      guide: 'nest',
      drawing: 'nestKinds',
      panels: [0, 1, 2, 3, 4, 5],
      shows: 0.75,
    },
    {
      bad: {
        fast: ['Wire is fast in the tip', 'tipPlugged', 'tipWrong'],
        hard: ['It came out hard, or caught', 'linerWorn', 'linerKinked', 'linerDirty', 'linerWrong', 'cableCoiled'],
        gap: ['It folded between rolls and guide', 'gapOutlet', 'linerShort', 'gunOut', 'guideWorn'],
        flat: ['It is flat, or toothed deep', 'coredCrushed', 'tensionHigh', 'rollWrong'],
        loops: ['Loose loops at the spool', 'hubLoose', 'hubPin', 'spoolReversed'],
      },
      well: 'It is out; nothing of these',
    },
  ),
  check(
    'seamLook',
    {
      onlyFor: ['offSeam'],
      do: 'Step it to the joint, no arc: on or off?',
      how: 'By the site’s own teach practice, slow: where the wire’s end stands at beginning, middle and end of the seam, on two pieces.',
      effort: 'E1',
      minutes: 3,
      hazards: ['teach'],
      shows: 0.85,
    },
    {
      bad: {
        same: ['Off the same way everywhere', 'crash', 'neckBent'],
        piece: ['Off on one piece, on the other not', 'fitUp'],
        part: ['Off at one stretch, on every piece', 'seamTracking'],
        wanders: ['On it, and the wire wanders when fed', 'tipWorn', 'bentEnd'],
      },
      well: 'On the joint everywhere',
    },
  ),
  check(
    'crashLook',
    {
      onlyFor: ['crash'],
      do: 'Stop the cell, then look what moved',
      how: 'Robot stopped and locked out as this site has it; nobody in its reach before. Neck, cable, nozzle, holder.',
      effort: 'E1',
      minutes: 2,
      hazards: ['isolate', 'hot'],
      shows: 0.85,
    },
    {
      bad: {
        bent: ['The neck is bent', 'neckBent'],
        cable: ['The cable is hurt', 'cableRobot'],
        front: ['Nozzle or insulator is cracked', 'insulatorDead'],
        tip: ['The tip stands askew', 'tipCrossed'],
        centre: ['Nothing bent: it only moved', 'crash'],
      },
      well: 'Nothing at all',
    },
  ),
  check(
    'booths',
    {
      do: 'Only here, or at others too?',
      how: 'Ask at the next booths, or look.',
      sign: 'asked',
      shows: 0.9,
      sure: ['power'],
    },
    {
      bad: {
        gas: ['Others lack gas too', 'supply'],
        wire: ['Others on this wire too', 'wirePoor'],
        power: ['Others stand too', 'powerOut'],
      },
      well: 'Only here',
    },
  ),
  check(
    'cylinderLook',
    {
      after: 'flow',
      do: 'Look at the bottle',
      how: 'Valve open, pressure in it? On a line: the drop’s valve.',
      minutes: 0.5,
      sign: 'reading',
      hazards: ['cylinder'],
      shows: 0.95,
    },
    { bad: { shut: ['Shut, or empty', 'cylinderEmpty'] }, well: 'Open, with pressure' },
  ),
  check(
    'valveListen',
    {
      after: 'flow',
      do: 'Trigger: does the gas valve click?',
      how: 'Arm open, so that no wire comes. Listen at the feeder.',
      minutes: 0.5,
      sign: 'test',
      hazards: ['live'],
      shows: 0.9,
    },
    { bad: { silent: ['No click, no hiss', 'valve'] }, well: 'It clicks' },
  ),
  check(
    'hoseLook',
    {
      after: 'flow',
      do: 'Follow the gas hose',
      how: 'From bottle or drop to the feeder: kinked, under a wheel, burned?',
      minutes: 0.7,
      shows: 0.9,
    },
    { bad: { hurt: ['Kinked, squashed or burned', 'gasHose'] }, well: 'Free and whole' },
  ),
  check(
    'gasAtGun',
    {
      after: 'flow',
      do: 'Listen for gas along the gun’s cable',
      how: 'Trigger held, arm open so that no wire comes, the gun pointing away. Along cable and pin, never at the tip.',
      effort: 'E1',
      minutes: 1,
      sign: 'test',
      hazards: ['live'],
      shows: 0.85,
    },
    {
      bad: { hiss: ['It hisses along the cable', 'cableGas'], pin: ['At the pin', 'orings', 'gunOut'] },
      well: 'Nowhere',
    },
  ),
  check(
    'gasLabel',
    {
      do: 'Read which gas it is',
      how: 'Bottle or line against the procedure.',
      minutes: 0.5,
      sign: 'reading',
      shows: 0.95,
    },
    { bad: { other: ['Not what this wire wants', 'gasWrong'] }, well: 'The right one' },
  ),
  check(
    'polarityLook',
    {
      do: 'Which way round are the cables?',
      how: 'At the machine: the gun’s cable on the pole this wire wants.',
      effort: 'E1',
      minutes: 0.7,
      hazards: ['isolate'],
      shows: 0.95,
    },
    { bad: { swapped: ['The wrong way round', 'polarity'] }, well: 'As this wire wants' },
  ),
  check(
    'linerRead',
    {
      notFor: ['linerStays', 'linerTwists'],
      do: 'Which liner is in?',
      how: 'Its colour or the log, against the wire’s size and metal.',
      effort: 'E1',
      minutes: 0.8,
      sign: 'reading',
      shows: 0.9,
    },
    { bad: { other: ['For another wire', 'linerWrong'] }, well: 'For this wire' },
  ),
  check(
    'tipStands',
    {
      notFor: NO_TIP,
      do: 'How does the tip stand to the nozzle?',
      how: 'Level, back or out, as this mode wants it.',
      hazards: ['hot'],
      drawing: 'tipLevel',
      shows: 0.9,
    },
    { bad: { off: ['Too far in or out', 'tipStands'] }, well: 'As this mode wants' },
  ),
  check(
    'wireLabel',
    {
      do: 'Read the spool’s label',
      how: 'Size and kind against the procedure and the metal.',
      minutes: 0.5,
      sign: 'reading',
      shows: 0.95,
    },
    {
      bad: { other: ['Not what the procedure says', 'wireWrong'], thick: ['Too thick for this sheet', 'wireThick'] },
      well: 'As the procedure says',
    },
  ),
  check(
    'spoolLook',
    { do: 'Look at the turns on the spool', how: 'A turn under others, a side burst?', shows: 0.9 },
    { bad: { crossed: ['Crossed, or it slipped off', 'spoolTangled'] }, well: 'Lies turn by turn' },
  ),
  check(
    'frostLook',
    { do: 'What is on the tip?', how: 'Grey frost is usual with pulsed aluminium.', hazards: ['hot'], shows: 0.95 },
    {
      bad: { frost: ['Grey frost', 'frost'] },
      well: 'Something else',
    },
  ),
  check(
    'spoolWeigh',
    { do: 'How much is left on the spool?', how: 'By eye or by weight, against the job.', shows: 0.95 },
    {
      bad: { little: ['Little or nothing', 'shortSpool'] },
      well: 'Plenty',
    },
  ),
  check(
    'robotDuty',
    {
      do: 'Gun and cable: as the work wants?',
      how: 'Rating against the current; cable whole along its dress.',
      effort: 'E1',
      hazards: ['isolate'],
      shows: 0.85,
    },
    {
      bad: { small: ['Rated for less', 'torchSmall'], cable: ['Cable worn or pinched', 'cableRobot'] },
      well: 'Both are right',
    },
  ),
  check(
    'supplyPath',
    {
      onlyFor: ['marked', 'conduit'],
      do: 'Pull piece by piece from the drum',
      how: 'Where does the pull jump?',
      effort: 'E2',
      sign: 'feel',
      hazards: ['isolate', 'ladder'],
      shows: 0.9,
    },
    {
      bad: {
        conduit: ['In the conduit', 'conduitRough'],
        booster: ['At the booster', 'booster'],
        end: ['The end catches', 'sharpEnd'],
      },
      well: 'Even all along',
    },
  ),
]
