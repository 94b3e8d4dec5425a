import { box, how, measure, oval, ring, right, s, type Drawing, type Shape } from './drawing.ts'

/** Plate from the side, its top at 88. */
const plate = s('cut', box([4, 88], [152, 14]))
/** Nozzle and tip over the plate, upright, their axis at `x`; the nozzle's mouth at 50. */
const torch = (x: number): Shape[] => [
  s('cut', `M${x - 24} 2V44L${x - 18} 50H${x - 14}V2Z`),
  s('cut', `M${x + 24} 2V44L${x + 18} 50H${x + 14}V2Z`),
  s('body', `M${x - 7} 2V36L${x - 3} 44H${x + 3}L${x + 7} 36V2Z`),
]
/** A bead on the plate, cut across. */
const bead = (from: number, to: number, high = 12) =>
  s('body', `M${from} 88Q${(from + to) / 2} ${88 - 2 * high} ${to} 88Z`)
const drops = (at: readonly (readonly [number, number, number])[]) => at.map(([x, y, r]) => s('dirt', ring(x, y, r)))
const rolls = (x: number): Shape[] => [s('body', ring(x, 40, 19)), s('body', ring(x, 80, 19))]
/** A tip from the side, its face at 112, wire through it. */
const tip = (wireTo: number): Shape[] => [s('body', 'M40 44H98L112 53V67L98 76H40Z'), s('wire', `M6 60H${wireTo}`)]
/** A conduit or liner, cut along, from one place to another at mid height. */
const tube = (from: number, to: number): Shape[] => [
  s('cut', box([from, 46], [to - from, 6])),
  s('cut', box([from, 68], [to - from, 6])),
]
/** The coil of a liner from one place to another. */
const coil = (from: number, to: number) => {
  const turns = Math.round((to - from) / 7)
  return s(
    'line',
    Array.from({ length: turns }, (_, i) => `M${from + i * 7} 68l5 -16`).join('') +
      `M${from} 52H${to}M${from} 68H${to}`,
  )
}
const cross = (x: number, y: number) => s('measure', `M${x - 9} ${y - 9}l18 18M${x + 9} ${y - 9}l-18 18`)
const turn = (x: number, y: number) =>
  s('measure', `M${x - 14} ${y + 6}a16 16 0 1 1 26 4M${x + 12} ${y + 10}l-8 0M${x + 12} ${y + 10}l3 -8`)
const clamp = (x: number) => s('measure', `M${x} 16v22M${x - 6} 30l6 8l6 -8`)

/** How it looks where it went wrong: each is one thing that is seen, to be picked by eye. */
export const SEEN: Record<
  'nestKinds' | 'wireEnds' | 'atArc' | 'atNozzle' | 'atLiner' | 'feedsBadly' | 'feedsNot' | 'atTip' | 'atSpool',
  Drawing
> = {
  nestKinds: {
    title: 'The nest, cut out',
    panels: [
      how('the wire is fast in the tip', [...tip(116), ...drops([[114, 60, 9]]), cross(140, 60)]),
      how('it came out hard, or caught', [
        ...tube(10, 150),
        s('wire', 'M0 60H52q10 0 14 -7t16 14t16 -12t14 5H160'),
        ...drops([
          [40, 66, 3],
          [92, 54, 3],
          [120, 66, 3],
        ]),
      ]),
      how('folded between rolls and guide', [
        ...rolls(40),
        s('wire', 'M0 60H60c14 -40 22 34 30 0s12 -26 16 -6s-16 28 -8 30s26 -24 34 -24H160'),
        s('body', 'M124 50L140 44H160V76H140L124 70Z'),
      ]),
      how('flat, or toothed deep', [
        s('wire', 'M4 60H52'),
        s('body', 'M52 54L64 50H156V70H64L52 66Z'),
        s('line', Array.from({ length: 12 }, (_, i) => `M${68 + i * 7} 50v6M${68 + i * 7} 70v-6`).join('')),
      ]),
      how('loose loops at the spool', [
        s('body', ring(56, 62, 40)),
        s('line', ring(56, 62, 24)),
        s('hole', ring(56, 62, 8)),
        s('wire', 'M56 22c44 -26 74 12 40 38s-22 58 20 42s8 -60 40 -52'),
      ]),
      right('out, and none of these', [s('wire', 'M4 60H56M104 60H156'), s('line', 'M56 50v20M104 50v20')]),
    ],
  },
  wireEnds: {
    title: 'The wire’s end',
    panels: [
      how('a dull ball', [s('wire', 'M8 60H104'), ...drops([[116, 60, 14]])]),
      how('bent', [s('wire', 'M8 76H92q24 0 34 -34')]),
      how('a sharp burr', [s('wire', 'M8 60H116'), s('line', 'M116 52L138 66L116 68'), s('faint', 'M116 44v32')]),
      right('cut clean', [s('wire', 'M8 60H124'), s('line', 'M124 50v20')]),
    ],
  },
  atArc: {
    title: 'At the arc',
    panels: [
      how('arc at the tip, no wire seen, soot and balls', [
        ...torch(80),
        plate,
        s('line', 'M80 44L48 88M80 44L112 88'),
        bead(52, 108, 4),
        ...drops([
          [30, 80, 4],
          [132, 78, 5],
          [120, 62, 3],
          [38, 64, 3],
          [146, 85, 3],
        ]),
      ]),
      how('wire stubs in and pushes back', [
        ...torch(80),
        plate,
        s('wire', 'M80 44V62q0 8 8 12t4 14'),
        s('measure', 'M126 66V24M119 33l7 -9l7 9'),
        ...drops([
          [62, 82, 3],
          [104, 82, 3],
        ]),
      ]),
      how('spatter all round, the nozzle closes', [
        ...torch(80),
        plate,
        bead(58, 102, 8),
        ...drops([
          [62, 46, 6],
          [70, 50, 5],
          [97, 47, 6],
          [90, 51, 4],
          [30, 84, 4],
          [44, 78, 3],
          [118, 82, 4],
          [134, 76, 3],
          [146, 85, 4],
        ]),
      ]),
      how('soot beside the bead, arc short', [
        ...torch(80),
        plate,
        s('wire', 'M80 44V70'),
        s('line', 'M80 70L70 80M80 70L90 80'),
        bead(58, 102, 8),
        s('dirt', oval([36, 86], [20, 4])),
        s('dirt', oval([124, 86], [20, 4])),
      ]),
      how('burned through', [
        s('cut', 'M4 88H62l4 6l-4 8H4Z'),
        s('cut', 'M156 88H98l-4 6l4 8H156Z'),
        ...torch(80),
        s('line', 'M66 92q14 30 28 0'),
        ...drops([
          [80, 110, 6],
          [72, 104, 3],
        ]),
      ]),
      how('grey frost on the tip', [
        ...tip(140),
        s('faint', 'M60 44l4 8l6 -8l6 8l6 -8l6 8l8 -8M60 76l4 -8l6 8l6 -8l6 8l6 -8l8 8'),
        ...drops([
          [108, 52, 5],
          [112, 62, 5],
          [104, 70, 5],
          [98, 48, 4],
        ]),
      ]),
    ],
  },
  atNozzle: {
    title: 'At the nozzle',
    panels: [
      how('it arcs, or sticks to the work', [
        ...torch(80),
        s('cut', box([4, 62], [152, 14])),
        s('wire', 'M80 44V62'),
        s('measure', 'M60 50l-5 5h7l-5 7M100 50l-5 5h7l-5 7'),
      ]),
      how('loose, keeps falling off', [
        s('body', 'M73 2V36L77 44H83L87 36V2Z'),
        s('cut', 'M62 34L54 78L60 84L66 82L76 38Z'),
        s('cut', 'M104 42L96 86L102 92L108 90L118 46Z'),
        s('measure', 'M130 50v40M123 81l7 9l7 -9'),
      ]),
      how('crooked, wire off the middle', [
        s('body', ring(80, 60, 48)),
        s('hole', ring(80, 60, 38)),
        s('cut', ring(92, 68, 15)),
        s('wire', ring(92, 68, 5)),
        s('faint', 'M80 10v100M30 60h100'),
      ]),
      how('the diffuser turns with the tip', [
        s('cut', box([14, 34], [66, 52])),
        s('body', 'M80 46H122L136 54V66L122 74H80Z'),
        turn(46, 22),
        turn(112, 30),
      ]),
    ],
  },
  atLiner: {
    title: 'At the liner',
    panels: [
      how('the new one will not go in', [
        ...tube(56, 156),
        coil(6, 84),
        cross(98, 60),
        s('measure', 'M10 92H48M40 86l8 6l-8 6'),
      ]),
      how('the old one will not come out', [...tube(60, 156), coil(20, 150), s('measure', 'M50 92H12M20 86l-8 6l8 6')]),
      how('too short once it is in', [
        s('cut', 'M20 34H110V46H20Z'),
        s('cut', 'M20 74H110V86H20Z'),
        coil(6, 66),
        s('measure', measure(66, 108, 100)),
      ]),
      how('it twists as its nut turns', [
        coil(60, 152),
        s('body', box([24, 40], [36, 40])),
        turn(42, 24),
        s('measure', 'M100 84q10 12 22 0'),
      ]),
    ],
  },
  feedsBadly: {
    title: 'How the wire comes',
    panels: [
      how('in jerks, the rolls turning evenly', [
        ...rolls(40),
        turn(40, 14),
        s('wire', 'M0 60H70l10 -12l12 24l12 -24l12 24l10 -12H160'),
      ]),
      how('curled, it wanders off', [...tip(116), s('wire', 'M112 60q26 0 30 -18t-14 -16t-6 20')]),
      how('only with more pressure', [
        ...rolls(80),
        s('wire', 'M0 60H160'),
        clamp(80),
        s('measure', 'M104 16v22M98 30l6 8l6 -8'),
      ]),
      how('sticks and pops since the size changed', [
        s('body', ring(40, 60, 30)),
        s('hole', ring(40, 60, 7)),
        s('body', ring(118, 60, 36)),
        s('hole', ring(118, 60, 14)),
        s('measure', 'M70 92H96M88 86l8 6l-8 6'),
      ]),
    ],
  },
  feedsNot: {
    title: 'No wire comes',
    panels: [
      how('nothing turns', [...rolls(80), s('wire', 'M0 60H160'), cross(80, 40), cross(80, 80)]),
      how('rolls turn, the wire stands', [
        ...rolls(80),
        s('wire', 'M0 60H160'),
        turn(80, 14),
        s('line', 'M112 50v20M120 50v20'),
      ]),
      how('the spool is hard to turn', [
        s('body', ring(60, 62, 44)),
        s('line', ring(60, 62, 27)),
        s('hole', ring(60, 62, 9)),
        s('wire', 'M60 18H158'),
        cross(60, 62),
      ]),
      how('it stops on its way in', [
        ...tube(50, 156),
        s('wire', 'M0 60H104'),
        s('line', 'M112 50v20'),
        s('faint', 'M118 60H156'),
      ]),
      how('the spool ran empty', [
        s('body', ring(60, 62, 44)),
        s('line', ring(60, 62, 20)),
        s('hole', ring(60, 62, 9)),
        s('wire', 'M104 40q14 -12 26 -14'),
        s('line', 'M132 18v16'),
      ]),
    ],
  },
  atTip: {
    title: 'At the tip',
    panels: [
      how('wire burned back into it', [...tip(114), ...drops([[112, 60, 10]])]),
      how('it will not go in', [
        s('cut', 'M16 34H84V46H44V74H84V86H16Z'),
        s('body', 'M82 50l58 -14l4 18l-58 14Z'),
        cross(74, 60),
      ]),
      how('it will not come out', [
        s('cut', 'M16 34H84V46H44V74H84V86H16Z'),
        s('body', 'M46 48H112L126 55V65L112 72H46Z'),
        turn(112, 26),
        cross(66, 60),
      ]),
      how('the nozzle will not come off', [
        s('cut', 'M14 34H58V86H14Z'),
        s('cut', 'M40 22H116L128 30V38L114 32H40Z'),
        s('cut', 'M40 98H116L128 90V82L114 88H40Z'),
        s('body', 'M58 48H96L106 56V64L96 72H58Z'),
        ...drops([
          [62, 34, 5],
          [76, 35, 4],
          [66, 87, 5],
          [84, 86, 4],
        ]),
        s('measure', 'M134 60h20M147 54l7 6l-7 6'),
      ]),
    ],
  },
  atSpool: {
    title: 'Wire off its way',
    panels: [
      how('a nest at the rolls', [
        ...rolls(40),
        s('wire', 'M0 60H60c16 -46 24 38 34 0s16 -30 18 -4s-24 34 -10 32s34 -32 44 -20s-24 30 -34 12'),
      ]),
      how('the spool runs on, loops hang loose', [
        s('body', ring(60, 56, 38)),
        s('line', ring(60, 56, 23)),
        s('hole', ring(60, 56, 8)),
        s('wire', 'M98 56q6 50 -30 52t-46 -20M60 18H158'),
        turn(60, 56),
      ]),
    ],
  },
}
