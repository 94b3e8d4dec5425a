import { type PositionState } from '@core/floor/state.ts'

/**
 * The shapes of the wire. A cell is drawn around its own middle line; x runs from 0 to `width`, y from the line.
 * Each state is a shape of its own, readable in grey and through a green lens; colour adds nothing to the meaning.
 */
export interface CellShape {
  /** Closed areas, filled: counted use. */
  areas: string[]
  /** The same areas' two long edges, open at the ends: estimated use. */
  edges: string[]
  /** Strokes: caps of a hole, dots, knots. */
  strokes: { d: string; width: number; dash?: string; isSignal?: boolean }[]
}
export interface CellInput {
  state: PositionState
  used: number
  shiftsOver: number
  width: number
  thickness: number
  tall: number
}

/** Neighbours overlap by a hair, so that no seam shows where cells meet. */
const HAIR = 0.35
type Across = readonly [from: number, to: number]
const bar = ([x0, x1]: Across, t: number, y = 0) => `M${x0 - HAIR} ${y - t / 2}H${x1 + HAIR}V${y + t / 2}H${x0 - HAIR}Z`
const barEdges = ([x0, x1]: Across, t: number, y = 0) => `M${x0} ${y - t / 2}H${x1}M${x0} ${y + t / 2}H${x1}`

/** The widest a hole gets is the cell less its two caps; it opens by a seventh of the cell for every shift past. */
export function holeWidth(width: number, shiftsOver: number): number {
  return Math.min(width - 6, width * 0.36 + (width / 7) * Math.min(shiftsOver, 5))
}

export function cellShape(input: CellInput): CellShape {
  const { state, width: w, thickness: t, tall } = input
  const mid = w / 2
  switch (state) {
    case 'good':
      return { areas: [bar([0, w], t)], edges: [barEdges([0, w], t)], strokes: [] }
    case 'partWorn':
      return { ...waist(w, t, input.used), strokes: [] }
    case 'look':
      return { ...tooth(w, t, tall), strokes: [] }
    case 'due':
      return hole(w, t, input)
    case 'wrong':
      return halves(w, t, tall)
    case 'notSeen':
      return {
        areas: [],
        edges: [],
        strokes: [{ d: `M${3.5} 0H${w}`, width: Math.max(1.6, t * 0.52), dash: `0 ${Math.max(5, t * 1.45)}` }],
      }
    case 'absent':
      return { areas: [], edges: [], strokes: [{ d: `M0 0H${w}`, width: 0.6 }] }
    case 'down':
      return {
        areas: [bar([0, mid - tall * 0.4], t)],
        edges: [barEdges([0, mid - tall * 0.4], t)],
        strokes: [knot(mid, tall, t)],
      }
  }
}

interface Outline {
  areas: string[]
  edges: string[]
}

function waist(w: number, t: number, used: number): Outline {
  const neck = Math.max(t * 0.16, t * (1 - Math.min(used, 1)))
  const a = w * 0.12
  const b = w - a
  const top = `${-t / 2}H${a}Q${w / 2} ${-t / 2 + (t - neck)} ${b} ${-t / 2}`
  const back = `${t / 2}H${b}Q${w / 2} ${t / 2 - (t - neck)} ${a} ${t / 2}`
  return { areas: [`M${-HAIR} ${top}H${w + HAIR}V${back}H${-HAIR}Z`], edges: [`M0 ${top}H${w}`, `M${w} ${back}H0`] }
}

function tooth(w: number, t: number, tall: number): Outline {
  const mid = w / 2
  const half = tall * 0.62
  const inner = half - t * 0.7
  const top = `${-t / 2}H${mid - half}L${mid} ${-tall - t / 2}L${mid + half} ${-t / 2}`
  const back = `${t / 2}H${mid + inner}L${mid} ${-tall + t * 0.9}L${mid - inner} ${t / 2}`
  return { areas: [`M${-HAIR} ${top}H${w + HAIR}V${back}H${-HAIR}Z`], edges: [`M0 ${top}H${w}`, `M${w} ${back}H0`] }
}

/** The wire run up on itself: a loop and a half. */
function knot(x: number, tall: number, t: number) {
  const r = tall * 0.95
  return {
    d: `M${x - tall * 0.5} 0H${x}a${r * 0.9} ${r * 0.9} 0 1 0 ${-r * 0.9} ${-r * 0.9}a${r * 0.5} ${r * 0.5} 0 1 1 ${r} ${0}a${r * 0.28} ${r * 0.28} 0 1 1 ${-r * 0.56} 0`,
    width: Math.max(1.2, t * 0.72),
  }
}

/** Wire, cap, nothing, cap, wire: it has to be changed or cleaned. */
function hole(w: number, t: number, { shiftsOver, tall }: CellInput): CellShape {
  const half = holeWidth(w, shiftsOver) / 2
  const [a, b] = [w / 2 - half, w / 2 + half]
  return {
    areas: [bar([0, a], t), bar([b, w], t)],
    edges: [barEdges([0, a], t), barEdges([b, w], t)],
    strokes: [a, b].map((x) => ({ d: `M${x} ${-tall}V${tall}`, width: Math.max(1.4, t * 0.75), isSignal: true })),
  }
}

/** Halves that do not meet: the part does not go with its neighbours. */
function halves(w: number, t: number, tall: number): CellShape {
  const off = tall * 0.72
  const mid = w / 2
  return {
    areas: [bar([0, mid + 3.5], t, -off), bar([mid - 3.5, w], t, off)],
    edges: [barEdges([0, mid + 3.5], t, -off), barEdges([mid - 3.5, w], t, off)],
    strokes: [],
  }
}
