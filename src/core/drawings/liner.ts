import { box, how, measure, right, ring, s, wrong, type Drawing, type Shape } from './drawing.ts'

/** A coil from x1 to x2 about a height. */
export const coil = ([x1, x2]: readonly [number, number], y: number, r = 9): Shape[] => [
  s('body', box([x1, y - r], [x2 - x1, 2 * r])),
  s(
    'line',
    Array.from({ length: Math.floor((x2 - x1) / 8) }, (_, i) => `M${x1 + 3 + i * 8} ${y + r}l5 ${-2 * r}`).join(''),
  ),
]
/** Diffuser cut open: the liner comes in from the left and should end at its seat. */
const SEAT_X = 92
const seat: Shape[] = [
  s('cut', `M40 26H138V44H${SEAT_X}V50H40Z`),
  s('cut', `M40 94H138V76H${SEAT_X}V70H40Z`),
  s('cut', `M${SEAT_X} 44h10v9h-10Z`),
  s('cut', `M${SEAT_X} 76h10v-9h-10Z`),
]
const inSeat = (endX: number) => [...seat, ...coil([6, endX], 60)]

/** The neck's end with its thread, cut open. */
const neck: Shape[] = [
  s('cut', 'M0 34H64V46H0Z'),
  s('cut', 'M0 86H64V74H0Z'),
  s('line', 'M40 34l4 12M48 34l4 12M56 34l4 12M40 86l4 -12M48 86l4 -12M56 86l4 -12'),
]
const nip: Shape[] = [s('body', ring(112, 32, 24)), s('body', ring(112, 88, 24)), s('faint', 'M112 8v104')]

export const LINER: Record<
  'linerEnd' | 'kink' | 'cableStraight' | 'cableLies' | 'standOutA' | 'standOutB' | 'lengthC' | 'feederEnd',
  Drawing
> = {
  linerEnd: {
    title: 'The liner’s end in its seat',
    panels: [
      right('home, square, no burr', inSeat(SEAT_X)),
      wrong('short: the wire hunts in the gap', inSeat(66)),
      wrong('long: the coil is squeezed, the tip sits off', [
        ...seat,
        ...coil([6, 84], 60),
        s('line', 'M84 69l5 -18l5 18l4 -18l4 18l4 -14'),
      ]),
      wrong('burr: it shaves the wire', [...inSeat(SEAT_X), s('dirt', `M${SEAT_X - 6} 54l10 5l-8 4Z`)]),
    ],
  },
  kink: {
    title: 'On the way in',
    panels: [
      right('glides; short pushes near the neck', [...coil([0, 160], 60), s('measure', 'M20 92h50M64 88l6 4l-6 4')]),
      wrong('kinked: scrap, however straight it looks after', [
        s('body', 'M0 51H52L78 28L104 51H160V69H96L78 53L60 69H0Z'),
        s(
          'line',
          'M8 69l5 -18M20 69l5 -18M32 69l5 -18M44 69l5 -18M58 66l6 -24M76 52l2 -22M96 66l-4 -22M112 69l5 -18M124 69l5 -18M136 69l5 -18M148 69l5 -18',
        ),
        s('measure', 'M78 96V76M73 82l5 -6l5 6'),
      ]),
    ],
  },
  cableStraight: {
    title: 'Before anything is measured',
    panels: [
      right('dead straight on clear floor', [
        s('body', box([4, 54], [14, 12])),
        s('line', 'M18 56H128M18 64H128'),
        s('body', 'M128 52h14l12 12l-5 6l-12 -10h-9Z'),
      ]),
      wrong('bent: the liner takes the short way, the cut is off', [
        s('body', box([4, 74], [14, 12])),
        s(
          'line',
          'M18 76q24 0 30 -28q8 -30 34 -22q26 8 12 32q-14 20 8 24h32M18 84q32 0 38 -32q6 -22 24 -18q16 6 6 22q-18 30 14 34h34',
        ),
        s('body', 'M134 78h12l10 12l-5 5l-12 -9h-5Z'),
      ]),
    ],
  },
  cableLies: {
    title: 'How the cable lies while it feeds',
    panels: [
      right('straight, or in wide bends: little rubs', [
        s('body', box([4, 62], [14, 14])),
        s('line', 'M18 65Q74 30 128 62M18 73Q74 38 128 70'),
        s('body', 'M128 59h14l12 12l-5 6l-12 -10h-9Z'),
        s('measure', 'M56 92h46M96 88l6 4l-6 4'),
      ]),
      wrong('coiled, or bent hard at the machine: it rubs all the way round', [
        s('body', box([4, 62], [14, 14])),
        s('line', `M18 65h22M18 73h22${ring(74, 66, 34)}${ring(74, 66, 26)}M104 65h24M104 73h24`),
        s('body', 'M128 62h14l12 12l-5 6l-12 -10h-9Z'),
      ]),
    ],
  },
  standOutA: {
    title: 'What stands out: from the neck’s end, liner pressed home',
    panels: [
      how(
        'press it in, and measure this',
        [
          ...neck,
          ...coil([0, 128], 60),
          s('measure', measure(64, 128, 104)),
          s('measure', 'M158 60h-24M140 55l-6 5l6 5'),
        ],
        [
          { x: 16, y: 24, text: 'neck' },
          { x: 80, y: 98, text: 'this' },
        ],
      ),
      wrong('not pressed in: it stands out further; cut by this it ends short', [
        ...neck,
        ...coil([0, 146], 60),
        s('faint', 'M128 30v60'),
      ]),
    ],
  },
  standOutB: {
    title: 'What stands out of the tip holder',
    panels: [
      how('lying free, measure from the holder’s face', [
        s('cut', 'M0 26H92V46H0Z'),
        s('cut', 'M0 94H92V74H0Z'),
        ...coil([0, 124], 60),
        s('measure', measure(92, 124, 108)),
      ]),
      right('a little left standing: the tip presses it home', [
        s('cut', 'M0 26H92V46H0Z'),
        s('cut', 'M0 94H92V74H0Z'),
        ...coil([0, 98], 60),
        s('faint', 'M92 14v92'),
        s('body', 'M106 48H146L156 55V65L146 72H106Z'),
        s('measure', 'M152 96h-30M128 92l-6 4l6 4'),
      ]),
    ],
  },
  lengthC: {
    title: 'Like the old one',
    panels: [
      how(
        'side by side, straight, same end together',
        [
          ...coil([8, 118], 38, 8),
          ...coil([8, 146], 78, 8),
          s('faint', 'M118 20v82M8 20v82'),
          s('measure', measure(8, 118, 106)),
        ],
        [
          { x: 120, y: 34, text: 'old' },
          { x: 120, y: 64, text: 'new' },
        ],
      ),
    ],
  },
  feederEnd: {
    title: 'The liner’s end at the rolls',
    panels: [
      right('1 to 2 mm (1/16 in) short of where they meet', [...nip, ...coil([0, 92], 60, 7), s('wire', 'M92 60H160')]),
      wrong('too far off: the wire nests in the gap', [
        ...nip,
        ...coil([0, 52], 60, 7),
        s('wire', 'M52 60q14 -16 24 0t24 2L160 60'),
      ]),
      wrong('in the rolls: chewed', [
        ...nip,
        ...coil([0, 100], 60, 7),
        s('dirt', 'M98 53l16 5l-4 4l6 5l-18 -1Z'),
        s('wire', 'M116 60H160'),
      ]),
    ],
  },
}
