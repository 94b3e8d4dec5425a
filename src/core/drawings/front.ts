import { box, measure, oval, right, ring, s, wrong, type Drawing, type Shape } from './drawing.ts'

/** End-on: the tip's face with the wire in its hole. */
const face = (hole: string, wire: string): Shape[] => [
  s('body', ring(80, 60, 44)),
  s('line', ring(80, 60, 34)),
  s('hole', hole),
  s('wire', wire),
]
const spatter = (spots: readonly (readonly [number, number, number])[]) =>
  spots.map(([x, y, r]) => s('dirt', ring(x, y, r)))

/** A tip from the side, its face at `x`. */
const tipSide = (x: number): Shape[] => [
  s('body', `M${x - 62} 46H${x - 14}L${x} 53V67L${x - 14} 74H${x - 62}Z`),
  s('wire', `M${x - 70} 60H${x + 26}`),
]
/** A nozzle cut open, its mouth at `x`. */
const nozzleSide = (x: number): Shape[] => [
  s('cut', `M${x - 96} 24H${x - 24}L${x} 32V40L${x - 26} 33H${x - 96}Z`),
  s('cut', `M${x - 96} 96H${x - 24}L${x} 88V80L${x - 26} 87H${x - 96}Z`),
]
/** A tip as wide as 30, wire out of it, and an arc from there on to the work; the cone's length is told in widths of the tip. */
const arcSide = (wireTo: number, cones: string): Shape[] => [
  s('body', 'M4 45H40L52 52V68L40 75H4Z'),
  ...(wireTo > 52 ? [s('wire', `M52 60H${wireTo}`)] : []),
  s('line', cones),
  s('faint', 'M150 16V104M156 22V98'),
  s('measure', 'M10 45V75M5 45h10M5 75h10'),
]
/** Threads along a shank. */
const threads = (x: number, y: number, n: number) =>
  Array.from({ length: n }, (_, i) => `M${x + i * 7} ${y - 11}l4 22`).join('')
const diffuserSide = (x: number): Shape[] => [
  s('cut', `M${x - 60} 34H${x}V46H${x - 44}V74H${x}V86H${x - 60}Z`),
  s('hole', box([x - 44, 46], [44, 28])),
]

export const FRONT: Record<
  | 'bore'
  | 'spatterBall'
  | 'nozzleOpening'
  | 'insulatorWay'
  | 'tipLevel'
  | 'tipBack'
  | 'wireCentred'
  | 'threadStart'
  | 'holes'
  | 'closing'
  | 'arcCone',
  Drawing
> = {
  bore: {
    title: 'The tip’s hole, end-on beside a fresh one',
    panels: [
      right('round: it stays', face(ring(80, 60, 11), ring(80, 60, 8))),
      wrong('oval: change it', face(oval([80, 66], [11, 18]), ring(80, 76, 8))),
    ],
  },
  spatterBall: {
    title: 'The tip’s face',
    panels: [
      right('clean, the wire runs free', tipSide(96)),
      wrong('a ball drags the wire: file or scrape it off', [
        ...tipSide(96),
        ...spatter([
          [98, 52, 7],
          [92, 74, 5],
          [88, 46, 4],
        ]),
      ]),
    ],
  },
  nozzleOpening: {
    title: 'Into the nozzle',
    panels: [
      right('clear all round', [
        s('body', ring(80, 60, 50)),
        s('hole', ring(80, 60, 40)),
        s('cut', ring(80, 60, 15)),
        s('wire', ring(80, 60, 4)),
      ]),
      wrong('closing up: clean it', [
        s('body', ring(80, 60, 50)),
        s('hole', ring(80, 60, 40)),
        s('dirt', 'M46 40q10 16 6 32q8 20 26 24q-20 8 -34 -8q-12 -22 2 -48Z'),
        s('dirt', 'M100 26q18 8 20 34q-2 22 -20 34q4 -14 -2 -26q10 -22 2 -42Z'),
        s('cut', ring(80, 60, 15)),
        s('wire', ring(80, 60, 4)),
      ]),
    ],
  },
  insulatorWay: {
    title: 'Insulator: it goes on one way only',
    panels: [
      right(
        'gasket towards the handle',
        [
          s('body', box([58, 36], [48, 48])),
          s('dirt', box([46, 40], [12, 40])),
          s('line', 'M70 36v48M82 36v48M94 36v48'),
          s('faint', 'M8 48H46M8 72H46M106 50h44M106 70h44'),
        ],
        [
          { x: 20, y: 108, text: 'handle' },
          { x: 116, y: 108, text: 'nozzle' },
        ],
      ),
      wrong(
        'gasket towards the nozzle',
        [
          s('body', box([46, 36], [48, 48])),
          s('dirt', box([94, 40], [12, 40])),
          s('line', 'M58 36v48M70 36v48M82 36v48'),
          s('faint', 'M8 48H46M8 72H46M106 50h44M106 70h44'),
        ],
        [
          { x: 20, y: 108, text: 'handle' },
          { x: 116, y: 108, text: 'nozzle' },
        ],
      ),
    ],
  },
  tipLevel: {
    title: 'Where the tip stands: short circuit, solid wire',
    panels: [
      right('level, or a little proud', [...nozzleSide(116), ...tipSide(120)]),
      wrong('too far back', [...nozzleSide(116), ...tipSide(84)]),
    ],
  },
  tipBack: {
    title: 'Where the tip stands: spray, pulse, cored wire',
    panels: [
      right('set back in the nozzle', [...nozzleSide(116), ...tipSide(92)]),
      wrong('out in the heat', [...nozzleSide(116), ...tipSide(124)]),
    ],
  },
  wireCentred: {
    title: 'The wire in the nozzle, end-on',
    panels: [
      right('dead centre', [
        s('body', ring(80, 60, 50)),
        s('hole', ring(80, 60, 41)),
        s('cut', ring(80, 60, 15)),
        s('wire', ring(80, 60, 5)),
        s('faint', 'M80 8v104M28 60h104'),
      ]),
      wrong('to one side: crossed thread, bent neck or loose insulator', [
        s('body', ring(80, 60, 50)),
        s('hole', ring(80, 60, 41)),
        s('cut', ring(94, 70, 15)),
        s('wire', ring(94, 70, 5)),
        s('faint', 'M80 8v104M28 60h104'),
      ]),
    ],
  },
  threadStart: {
    title: 'Starting a thread',
    panels: [
      right('straight, runs by finger', [
        ...diffuserSide(78),
        s('body', box([64, 48], [34, 24])),
        s('body', 'M98 44H132L146 52V68L132 76H98Z'),
        s('line', threads(66, 60, 4)),
      ]),
      wrong('tilted and forced: both are lost', [
        ...diffuserSide(78),
        s('body', 'M66 42L96 56L88 78L58 64Z'),
        s('body', 'M97 50L128 62L138 74L130 88L116 88L86 76Z'),
        s('line', 'M68 46l-6 18M76 50l-6 18M84 53l-6 18'),
      ]),
    ],
  },
  holes: {
    title: 'The diffuser’s gas holes',
    panels: [
      right('every one open', [
        s('body', 'M20 34H124V46H144V74H124V86H20Z'),
        ...[44, 72, 100].flatMap((x) => [s('hole', ring(x, 48, 7)), s('hole', ring(x, 72, 7))]),
      ]),
      wrong('grown shut: brush or wheel them', [
        s('body', 'M20 34H124V46H144V74H124V86H20Z'),
        s('hole', ring(44, 48, 7)),
        s('hole', ring(72, 72, 7)),
        ...spatter([
          [72, 48, 9],
          [100, 48, 10],
          [100, 72, 8],
          [44, 72, 9],
          [86, 60, 6],
        ]),
      ]),
    ],
  },
  closing: {
    title: 'Proof that it is right',
    panels: [
      right('wire seen, then a short cone; one even tone', [
        s('body', 'M64 0H96V22L90 32H70L64 22Z'),
        s('wire', 'M80 32V60'),
        s('line', 'M80 60L62 98H98Z'),
        s('faint', 'M40 100h80M46 106h68'),
      ]),
      wrong('sprays from the tip, tone hunts: something still drags', [
        s('body', 'M64 0H96V22L90 32H70L64 22Z'),
        s('line', 'M80 34L44 98H116Z'),
        s('dirt', ring(40, 86, 4)),
        s('dirt', ring(122, 78, 4)),
        s('dirt', ring(128, 96, 5)),
        s('faint', 'M30 100h100M38 106h84'),
      ]),
    ],
  },
  arcCone: {
    title: 'The arc, in widths of the tip',
    panels: [
      wrong('no wire seen, two or three tips long', [
        ...arcSide(52, 'M54 60L148 30V90Z'),
        s('dirt', ring(118, 22, 3)),
        s('dirt', ring(132, 100, 4)),
        s('measure', measure(54, 148, 110)),
      ]),
      right('wire seen, shorter than the tip is wide', [
        ...arcSide(122, 'M122 60L148 46V74Z'),
        s('measure', measure(122, 148, 110)),
      ]),
      wrong('long and short by turns', [
        ...arcSide(84, 'M84 60L148 40V80ZM116 60L148 52V68Z'),
        s('measure', `${measure(84, 148, 110)}${measure(116, 148, 98)}`),
      ]),
    ],
  },
}
