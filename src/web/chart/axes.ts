/** A curve with axes, as data: what is drawn of it is the theme's. */
export interface Point {
  x: number
  y: number
}
/**
 * `fit`: what the numbers say, in copper. `log`: as it was written down, dashed, in steps. `dots`: single readings. `ahead`: where it is
 * going. `limit`: a line it should not pass, with its words at the end. `band`: between low and high nine in ten lie.
 */
export type Series =
  | { look: 'fit' | 'log' | 'dots' | 'ahead' | 'limit'; label: string; points: readonly Point[] }
  | { look: 'band'; label: string; points: readonly { x: number; low: number; high: number }[] }
export interface Axis {
  title?: string
  min?: number
  max?: number
  /** How wide it is with its words, where several charts stand under each other. */
  widthPx?: number
  /** What stands at a tick; only those are drawn. */
  ticks?: readonly { value: number; says: string }[]
}
export interface Curves {
  says: string
  series: readonly Series[]
  x: Axis
  y: Axis
  hasLegend?: boolean
}
