import { type BoreAnswer } from '@core/photomeasure/bore.ts'
import { type Point } from '@core/photomeasure/ellipse.ts'
import { type SpanAnswer, type SpanAsked } from '@core/photomeasure/span.ts'
import { type NozzleAnswer } from '@core/photomeasure/nozzle.ts'

// What the page and its worker say to each other; apart from the worker, which runs as soon as it is imported.

/** A tap, and the rings drawn by hand where there are any, px. */
export interface Tapped {
  centre: Point
  innerPx: number | null
  outerPx: number | null
}
export type MeasureAsk =
  | { type: 'photo'; id: number; file: Blob }
  | ({ type: 'bore'; id: number; outerMm: number } & Tapped)
  | ({ type: 'nozzle'; id: number } & Tapped)
  | ({ type: 'span'; id: number } & Drawn)
/** Two lines across things on a picture from the side. */
export type Drawn = Omit<SpanAsked, 'image'>
export type Answer =
  { is: 'bore'; of: BoreAnswer } | { is: 'nozzle'; of: NozzleAnswer } | { is: 'span'; of: SpanAnswer }
export type MeasureAnswer =
  | { type: 'photo'; id: number; size: { width: number; height: number } | null }
  | { type: 'measured'; id: number; answer: Answer }
