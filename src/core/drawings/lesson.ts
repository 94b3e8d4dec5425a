import { box, oval, right, ring, s, wrong, type Drawing, type Shape } from './drawing.ts'

/** Plate seen from above, and a bead along it. */
const RIPPLE = 9
const plate = s('cut', box([6, 26], [148, 68]))
/** Ripples along a bead, `half` as wide as it is. */
const ripples = (from: number, to: number, half: number) =>
  Array.from(
    { length: Math.floor((to - from) / RIPPLE) },
    (_, i) => `M${from + i * RIPPLE} ${60 - half}q${RIPPLE * 0.9} ${half} 0 ${2 * half}`,
  ).join('')
const bead = (from: number, to: number, half: number): Shape[] => [
  s('body', `M${from} ${60 - half}H${to}q${half} ${half} 0 ${2 * half}H${from}q${-half} ${-half} 0 ${-2 * half}Z`),
  s('line', ripples(from + 4, to - 2, half - 2)),
]
const dots = (at: readonly (readonly [x: number, y: number, r: number])[], ink: Shape['ink']) =>
  at.map(([x, y, r]) => s(ink, ring(x, y, r)))

/** A spool from its side. */
const spool: Shape[] = [s('body', ring(80, 60, 48)), s('line', ring(80, 60, 34)), s('hole', ring(80, 60, 9))]
/** A flow meter’s tube, its ball at a height. */
const flowTube = (y: number): Shape[] => [
  s('body', 'M58 10H100V112H58Z'),
  s('line', 'M64 22h8M64 42h8M64 62h8M64 82h8M64 102h8'),
  s('dirt', ring(84, y, 9)),
]
/** A tip in a diffuser, and a hand tool on it. */
const tipIn = (gap: number): Shape[] => [
  s('cut', 'M10 34H58V86H10Z'),
  s('body', `M${58 + gap} 46H116L130 55V65L116 74H${58 + gap}Z`),
  s('line', `M${40 + gap} 50H${58 + gap}M${40 + gap} 70H${58 + gap}`),
]
const gun = (x: number, y: number): Shape[] => [
  s('body', `M${x} ${y}h52q10 0 14 10l14 34l-12 5l-14 -30h-54Z`),
  s('line', `M${x + 14} ${y + 19}q8 12 18 0`),
]
const card = (x: number, lines: readonly string[]): Shape[] => [
  s('cut', box([x, 22], [58, 76])),
  s('line', lines.map((_, i) => `M${x + 6} ${46 + i * 18}h46`).join('')),
]

/** What is seen in a lesson: beads from above, a tip and its tool, a menu beside its card. */
export const LESSON: Record<
  'spoolEnd' | 'pressed' | 'flowRead' | 'tipSnug' | 'menuCard' | 'gunHung' | 'beadGas' | 'beadDistance' | 'brushMarked',
  Drawing
> = {
  spoolEnd: {
    title: 'The end on the spool',
    panels: [
      right('hooked through its hole', [
        ...spool,
        s('wire', 'M80 18q40 2 40 34q0 10 -8 14'),
        s('hole', ring(112, 68, 4)),
      ]),
      wrong('let go: turns spring off and cross', [
        ...spool,
        s('wire', 'M80 18c60 -22 84 30 44 44s-30 52 18 42M58 24c-52 6 -54 66 -8 62s20 26 -22 22'),
      ]),
    ],
  },
  pressed: {
    title: 'The wire behind the rolls',
    panels: [
      right('round and bright', [s('cut', ring(80, 60, 26)), s('faint', 'M20 104h120')]),
      wrong('flat, toothed, copper dust', [
        s('cut', 'M50 46H110q12 14 0 28H50q-12 -14 0 -28Z'),
        s('line', 'M56 46v-5M68 46v-5M80 46v-5M92 46v-5M104 46v-5M56 74v5M68 74v5M80 74v5M92 74v5M104 74v5'),
        ...dots(
          [
            [58, 98, 2.5],
            [76, 104, 2],
            [94, 97, 2.5],
            [112, 103, 2],
          ],
          'dirt',
        ),
      ]),
    ],
  },
  flowRead: {
    title: 'Read while gas runs',
    panels: [
      right(
        'ball at the booth’s figure',
        [...flowTube(62), s('measure', 'M104 62h18M104 56v12')],
        [{ x: 125, y: 66, text: 'card' }],
      ),
      wrong(
        'far above it: it whirls',
        [...flowTube(26), s('measure', 'M104 62h18M104 56v12')],
        [{ x: 125, y: 66, text: 'card' }],
      ),
    ],
  },
  tipSnug: {
    title: 'How far a tip goes on',
    panels: [
      right('against its seat, then a nudge', [
        ...tipIn(0),
        s('measure', 'M92 24a26 14 0 0 1 22 10M114 34l-8 0M114 34l1 -8'),
      ]),
      wrong('a gap: it heats in its thread', [...tipIn(10), s('measure', 'M58 98v12M68 98v12M50 104h8M76 104h-8')]),
      wrong('leaned on: the thread gives', [
        ...tipIn(0),
        s('dirt', 'M38 44l8 8l-8 8l8 8l-8 8'),
        s('measure', 'M84 22a40 22 0 1 1 24 84M108 106l10 -2M108 106l4 -9'),
      ]),
    ],
  },
  menuCard: {
    title: 'The machine beside its card',
    panels: [
      right(
        'both say the same',
        [...card(14, ['', '', '']), ...card(88, ['', '', ''])],
        [
          { x: 20, y: 38, text: 'card' },
          { x: 94, y: 38, text: 'shows' },
        ],
      ),
      wrong(
        'one line is another',
        [...card(14, ['', '', '']), ...card(88, ['', '', '']), s('dirt', box([92, 58], [50, 12]))],
        [
          { x: 20, y: 38, text: 'card' },
          { x: 94, y: 38, text: 'shows' },
        ],
      ),
    ],
  },
  gunHung: {
    title: 'Where the gun rests',
    panels: [
      right('hung up, mouth down', [s('line', 'M20 12h60M50 12v18q0 10 10 10'), ...gun(40, 36)]),
      wrong('on the bench, on its trigger', [
        s('cut', box([6, 92], [148, 12])),
        ...gun(38, 70),
        s('wire', 'M118 110h26'),
      ]),
    ],
  },
  beadGas: {
    title: 'A bead with gas, and without',
    panels: [
      right('even, clean at its edge', [plate, ...bead(24, 132, 12)]),
      wrong('holes, crust, soot beside it', [
        plate,
        s('faint', oval([78, 60], [70, 28])),
        ...bead(24, 132, 12),
        ...dots(
          [
            [44, 58, 3],
            [66, 62, 2.5],
            [86, 57, 3.5],
            [104, 63, 2.5],
            [120, 58, 3],
          ],
          'hole',
        ),
        ...dots(
          [
            [40, 40, 2],
            [70, 38, 2],
            [100, 82, 2],
            [56, 82, 2],
            [124, 42, 2],
          ],
          'dirt',
        ),
      ]),
    ],
  },
  beadDistance: {
    title: 'The bead says how far the tip was',
    panels: [
      right('wide and flat: as told', [plate, ...bead(24, 132, 13)]),
      wrong('narrow, high, spatter: too far', [
        plate,
        ...bead(24, 132, 6),
        ...dots(
          [
            [36, 40, 3],
            [60, 84, 2.5],
            [84, 38, 3],
            [110, 82, 3],
            [128, 44, 2],
          ],
          'dirt',
        ),
      ]),
    ],
  },
  brushMarked: {
    title: 'A brush for each metal',
    panels: [
      right(
        'marked, kept apart',
        [
          s('body', box([20, 30], [60, 16])),
          s('line', 'M84 30v16M90 30v16M96 30v16M102 30v16'),
          s('body', box([20, 74], [60, 16])),
          s('line', 'M84 74v16M90 74v16M96 74v16M102 74v16'),
        ],
        [
          { x: 28, y: 43, text: 'steel' },
          { x: 28, y: 87, text: 'alu' },
        ],
      ),
      wrong('one for everything', [
        s('body', box([20, 52], [60, 16])),
        s('line', 'M84 52v16M90 52v16M96 52v16M102 52v16'),
        ...dots(
          [
            [112, 56, 3],
            [118, 64, 2.5],
          ],
          'dirt',
        ),
      ]),
    ],
  },
}
