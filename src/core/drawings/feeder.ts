import { box, how, oval, right, ring, s, wrong, type Drawing, type Panel, type Shape } from './drawing.ts'

const spoolAt = (x: number, y: number, r: number): Shape[] => [
  s('body', ring(x, y, r)),
  s('line', ring(x, y, r * 0.62)),
  s('hole', ring(x, y, r * 0.2)),
]
/** Spool left, inlet right at mid height; the wire leaves over the top or from underneath. */
function unwind(way: 'over' | 'under', inletY: number): Shape[] {
  const y = way === 'over' ? 26 : 94
  const bend = Math.abs(inletY - y) > 30
  const path = bend
    ? `M52 ${y}q44 0 50 ${(inletY - y) / 2}q4 ${(inletY - y) / 2} 22 ${(inletY - y) / 2}h24`
    : `M52 ${y}L120 ${inletY}H150`
  return [...spoolAt(52, 60, 34), s('body', `M112 ${inletY - 8}l10 4h26v8h-26l-10 4Z`), s('wire', path)]
}

/** The whole way from spool to outlet, with two rolls or four. */
function way(from: 'over' | 'under', rolls: 2 | 4): Panel {
  const y = from === 'over' ? 34 : 86
  const pairs = rolls === 2 ? [100] : [90, 116]
  return how(
    'inlet, groove, outlet, into the liner',
    [
      ...spoolAt(32, 60, 27),
      s('body', `M64 ${y - 5}h12v10h-12Z`),
      ...pairs.flatMap((x) => [s('body', ring(x, y - 12, 11)), s('body', ring(x, y + 12, 11))]),
      s('body', `M134 ${y - 5}h20v10h-20Z`),
      s('wire', `M32 ${from === 'over' ? 33 : 87}L64 ${y}H158`),
      s('faint', `M${pairs[0] ?? 100} ${y}v${from === 'over' ? 46 : -46}`),
    ],
    [
      { x: 84, y: from === 'over' ? 96 : 34, text: `${rolls} rolls` },
      { x: 8, y: from === 'over' ? 112 : 16, text: from === 'over' ? 'over the top' : 'from underneath' },
    ],
  )
}
const path = (from: 'over' | 'under', rolls: 2 | 4): Drawing => ({
  title: `The wire’s way, ${rolls} rolls`,
  panels: [way(from, rolls)],
})

const block: Shape[] = [s('cut', 'M0 16H70V42H0Z'), s('cut', 'M0 104H70V78H0Z'), s('hole', box([0, 42], [70, 36]))]
const pinAt = (collarX: number): Shape[] => [
  s('body', `M${collarX - 66} 50H${collarX}V40H${collarX + 16}V80H${collarX}V70H${collarX - 66}Z`),
  s('dirt', box([collarX - 44, 48], [5, 24])),
  s('dirt', box([collarX - 26, 48], [5, 24])),
  s('line', `M${collarX + 16} 52h${160 - collarX - 16}M${collarX + 16} 68h${160 - collarX - 16}`),
]

export const FEEDER: Record<
  | 'rollFace'
  | 'groove'
  | 'spoolOver'
  | 'spoolUnder'
  | 'pathOver2'
  | 'pathOver4'
  | 'pathUnder2'
  | 'pathUnder4'
  | 'pinHome'
  | 'wireEnd'
  | 'plugKeyed'
  | 'plugTabs'
  | 'outletMouth'
  | 'oring',
  Drawing
> = {
  rollFace: {
    title: 'The number you read is the groove that runs',
    panels: [
      right(
        'the wire’s own size faces you',
        [s('body', ring(80, 58, 46)), s('hole', ring(80, 58, 12)), s('line', ring(80, 58, 38))],
        [{ x: 64, y: 40, text: 'its size' }],
      ),
      wrong(
        'turned round: another groove runs',
        [s('body', ring(80, 58, 46)), s('hole', ring(80, 58, 12)), s('line', ring(80, 58, 38))],
        [{ x: 61, y: 40, text: 'another' }],
      ),
    ],
  },
  groove: {
    title: 'The wire in the groove',
    panels: [
      right('lies in it, on every roll', [
        s('body', 'M20 20H140V52H94L80 66L66 52H20Z'),
        s('body', 'M20 104H140V76H20Z'),
        s('wire', ring(80, 66, 8)),
      ]),
      wrong('rides beside it', [
        s('body', 'M20 14H140V46H94L80 60L66 46H20Z'),
        s('body', 'M20 104H140V66H20Z'),
        s('wire', ring(116, 56, 8)),
      ]),
    ],
  },
  spoolOver: {
    title: 'Off the spool over the top, on this feeder',
    panels: [
      right('straight into the inlet', unwind('over', 34)),
      wrong('turned round: it bends into the inlet', unwind('under', 34)),
    ],
  },
  spoolUnder: {
    title: 'Off the spool from underneath, on this feeder',
    panels: [
      right('straight into the inlet', unwind('under', 86)),
      wrong('turned round: it bends into the inlet', unwind('over', 86)),
    ],
  },
  pathOver2: path('over', 2),
  pathOver4: path('over', 4),
  pathUnder2: path('under', 2),
  pathUnder4: path('under', 4),
  pinHome: {
    title: 'The gun in its socket',
    panels: [
      right('collar flush with the block, then locked', [...block, ...pinAt(70)]),
      wrong('half out: gas leaks, wire nests', [
        ...block,
        ...pinAt(96),
        s('measure', 'M70 112h26M70 107v10M96 107v10'),
      ]),
    ],
  },
  wireEnd: {
    title: 'The end that goes in',
    panels: [
      right('cut square and straight', [s('wire', 'M8 60H128'), s('line', 'M128 52v16')]),
      wrong('hooked or blobbed: it catches', [s('wire', 'M8 60H104q20 0 18 -22'), s('dirt', ring(122, 36, 7))]),
    ],
  },
  plugKeyed: {
    title: 'Control plug: key to slot, then the ring',
    panels: [
      how('key up, push home, turn the ring to its stop', [
        s('body', ring(80, 60, 42)),
        s('line', ring(80, 60, 30)),
        s('cut', box([74, 24], [12, 10])),
        s('hole', ring(70, 56, 4)),
        s('hole', ring(90, 56, 4)),
        s('hole', ring(80, 74, 4)),
        s('measure', 'M128 40a54 54 0 0 1 2 36M124 72l6 4l3 -7'),
      ]),
    ],
  },
  plugTabs: {
    title: 'Control wires: two tabs, either way round',
    panels: [
      right('both pushed on to the click', [
        s('body', box([20, 34], [46, 16])),
        s('body', box([20, 70], [46, 16])),
        s('cut', box([62, 38], [30, 8])),
        s('cut', box([62, 74], [30, 8])),
        s('line', 'M92 42h60M92 78h60'),
      ]),
      wrong('one half on: the trigger does nothing', [
        s('body', box([20, 34], [46, 16])),
        s('body', box([20, 70], [46, 16])),
        s('cut', box([62, 38], [30, 8])),
        s('cut', box([88, 74], [30, 8])),
        s('line', 'M92 42h60M118 78h34'),
      ]),
    ],
  },
  outletMouth: {
    title: 'The outlet guide’s mouth at the rolls',
    panels: [
      right('round, the wire runs in the middle', [
        s('body', ring(80, 60, 44)),
        s('hole', ring(80, 60, 15)),
        s('wire', ring(80, 60, 9)),
      ]),
      wrong('chewed or grooved: change it with the rolls', [
        s('body', ring(80, 60, 44)),
        s('hole', oval([80, 70], [16, 24])),
        s('wire', ring(80, 84, 9)),
        s('dirt', 'M52 34l12 -4l-4 12ZM104 30l8 10l-12 2Z'),
      ]),
    ],
  },
  oring: {
    title: 'O-rings on the pin',
    panels: [
      right('whole and soft', [s('body', ring(80, 60, 42)), s('hole', ring(80, 60, 30))]),
      wrong('a piece gone, or flat and hard: new ones', [
        s('body', 'M50 31A42 42 0 1 0 106 27L98 38A30 30 0 1 1 60 38Z'),
        s('dirt', 'M104 92l10 6l-4 8Z'),
      ]),
    ],
  },
}
