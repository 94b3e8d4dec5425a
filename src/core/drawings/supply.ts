import { box, right, ring, s, wrong, type Drawing, type Shape } from './drawing.ts'

const cylinder = (chain: boolean): Shape[] => [
  s('body', 'M44 116V42q0 -12 12 -16V16h16v10q12 4 12 16v74Z'),
  ...(chain ? [s('measure', 'M30 70q34 12 68 0')] : []),
]
const meter = (tilt: string) => [s('body', 'M72 12h22v12h-22Z'), s('line', tilt), s('hole', ring(94, 18, 3))]

export const SUPPLY: Record<'flowmeter' | 'clamp', Drawing> = {
  flowmeter: {
    title: 'Cylinder and flowmeter',
    panels: [
      right('chained; the tube stands upright', [
        ...cylinder(true),
        ...meter('M104 24V4h10v20Z'),
        s('faint', 'M109 0v40'),
      ]),
      wrong('loose, tube leaning: it reads wrong', [
        ...cylinder(false),
        ...meter('M100 24L114 6l8 6L108 30Z'),
        s('faint', 'M109 0v40'),
      ]),
    ],
  },
  clamp: {
    title: 'The work clamp',
    panels: [
      right('on clean, bare metal', [
        s('cut', box([20, 76], [120, 22])),
        s('body', 'M54 20h14l12 36v20h-14V58ZM106 20H92L80 56v20h14V58Z'),
      ]),
      wrong('on rust, paint or grease', [
        s('cut', box([20, 82], [120, 18])),
        s('dirt', 'M20 76q10 -4 20 0t20 0t20 0t20 0t20 0t20 0v8H20Z'),
        s('body', 'M54 14h14l12 36v20h-14V52ZM106 14H92L80 50v20h14V52Z'),
      ]),
    ],
  },
}
