/**
 * Right and wrong side by side, as outlines in panels of 160 × 120: the same data is drawn on the screen and in print. Own drawings of
 * how things look, not to scale. Every panel says in a word whether it is right, so that nothing rests on colour.
 */
export const PANEL = { width: 160, height: 120 } as const

/** How an outline is drawn: a body, a cut face, a hole in it, the wire, a thin line, something faint, a measure, dirt. */
export type Ink = 'body' | 'cut' | 'hole' | 'wire' | 'line' | 'faint' | 'measure' | 'dirt'
export interface Shape {
  d: string
  ink: Ink
}
export interface Label {
  x: number
  y: number
  text: string
}
export interface Panel {
  is: 'right' | 'wrong' | 'how'
  word: string
  shapes: readonly Shape[]
  labels?: readonly Label[]
}
export interface Drawing {
  title: string
  panels: readonly Panel[]
}

export const DRAWING_KEYS = [
  'bore',
  'spatterBall',
  'nozzleOpening',
  'linerEnd',
  'rollFace',
  'groove',
  'spoolOver',
  'spoolUnder',
  'pathOver2',
  'pathOver4',
  'pathUnder2',
  'pathUnder4',
  'insulatorWay',
  'pinHome',
  'tipLevel',
  'tipBack',
  'wireCentred',
  'threadStart',
  'wireEnd',
  'cableStraight',
  'cableLies',
  'standOutA',
  'standOutB',
  'lengthC',
  'feederEnd',
  'holes',
  'flowmeter',
  'plugKeyed',
  'plugTabs',
  'clamp',
  'kink',
  'outletMouth',
  'oring',
  'closing',
  'arcCone',
  'nestKinds',
  'wireEnds',
  'atArc',
  'atNozzle',
  'atLiner',
  'feedsBadly',
  'feedsNot',
  'atTip',
  'atSpool',
  'spoolEnd',
  'pressed',
  'flowRead',
  'tipSnug',
  'menuCard',
  'gunHung',
  'beadGas',
  'beadDistance',
  'brushMarked',
] as const
export type DrawingKey = (typeof DRAWING_KEYS)[number]

/** A circle as a path. */
export const ring = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`
/** An ellipse as a path. */
export const oval = ([x, y]: readonly [number, number], [rx, ry]: readonly [number, number]) =>
  `M${x - rx} ${y}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`
/** A box as a path. */
export const box = ([x, y]: readonly [number, number], [w, h]: readonly [number, number]) =>
  `M${x} ${y}h${w}v${h}h${-w}Z`
/** A measure between two places on one height, with end ticks. */
export const measure = (x1: number, x2: number, y: number) =>
  `M${x1} ${y - 5}v10M${x2} ${y - 5}v10M${x1} ${y}H${x2}M${x1 + 4} ${y - 3}L${x1} ${y}l4 3M${x2 - 4} ${y - 3}L${x2} ${y}l-4 3`

export const s = (ink: Ink, d: string): Shape => ({ ink, d })
export const right = (word: string, shapes: readonly Shape[], labels?: readonly Label[]): Panel => ({
  is: 'right',
  word,
  shapes,
  ...(labels ? { labels } : {}),
})
export const wrong = (word: string, shapes: readonly Shape[], labels?: readonly Label[]): Panel => ({
  is: 'wrong',
  word,
  shapes,
  ...(labels ? { labels } : {}),
})
export const how = (word: string, shapes: readonly Shape[], labels?: readonly Label[]): Panel => ({
  is: 'how',
  word,
  shapes,
  ...(labels ? { labels } : {}),
})
