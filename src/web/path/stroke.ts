import { type PositionState } from '@core/floor/state.ts'

/**
 * The shapes of the wire. A cell is drawn around its own middle line; x runs from 0 to `width`, y from the line.
 * Each state is a shape of its own, readable in grey and through a green lens; colour adds nothing to the meaning.
 */
export interface CellShape {
  /** Closed areas that are filled, or outlined when estimated. */
  areas: string[]
  /** Strokes: caps of a hole, dots, knots. */
  strokes: { d: string; width: number; dash?: string; isSignal?: boolean }[]
}
export interface CellInput { state: PositionState; used: number; shiftsOver: number; width: number; thickness: number; tall: number }

const bar = (x0: number, x1: number, t: number, y = 0) => `M${x0} ${y - t / 2}H${x1}V${y + t / 2}H${x0}Z`

/** The widest a hole gets is the cell less its two caps; it opens by a seventh of the cell for every shift past. */
export function holeWidth(width: number, shiftsOver: number): number {
  return Math.min(width - 6, width * 0.36 + (width / 7) * Math.min(shiftsOver, 5))
}

export function cellShape(input: CellInput): CellShape {
  const { state, width: w, thickness: t, tall } = input
  const mid = w / 2
  switch (state) {
    case 'good':
      return { areas: [bar(0, w, t)], strokes: [] }
    case 'partWorn':
      return { areas: [waist(w, t, input.used)], strokes: [] }
    case 'look': {
      const half = tall * 0.62
      return { areas: [`M0 ${-t / 2}H${mid - half}L${mid} ${-tall - t / 2}L${mid + half} ${-t / 2}H${w}V${t / 2}H${mid + half - t * 0.7}L${mid} ${-tall + t * 0.9}L${mid - half + t * 0.7} ${t / 2}H0Z`], strokes: [] }
    }
    case 'due': {
      const hole = holeWidth(w, input.shiftsOver)
      const a = mid - hole / 2
      const b = mid + hole / 2
      return {
        areas: [bar(0, a, t), bar(b, w, t)],
        strokes: [a, b].map((x) => ({ d: `M${x} ${-tall}V${tall}`, width: Math.max(1.4, t * 0.75), isSignal: true })),
      }
    }
    case 'wrong': {
      const off = tall * 0.72
      return { areas: [bar(0, mid + 3.5, t, -off), bar(mid - 3.5, w, t, off)], strokes: [] }
    }
    case 'notSeen':
      return { areas: [], strokes: [{ d: `M${3.5} 0H${w}`, width: Math.max(1.6, t * 0.52), dash: `0 ${Math.max(5, t * 1.45)}` }] }
    case 'absent':
      return { areas: [], strokes: [{ d: `M0 0H${w}`, width: 0.6 }] }
    case 'down':
      return { areas: [bar(0, mid - tall * 0.4, t)], strokes: [knot(mid, tall, t)] }
  }
}

function waist(w: number, t: number, used: number): string {
  const neck = Math.max(t * 0.16, t * (1 - Math.min(used, 1)))
  const a = w * 0.12
  const b = w - a
  return `M0 ${-t / 2}H${a}Q${w / 2} ${-t / 2 + (t - neck)} ${b} ${-t / 2}H${w}V${t / 2}H${b}Q${w / 2} ${t / 2 - (t - neck)} ${a} ${t / 2}H0Z`
}

/** The wire run up on itself: a loop and a half. */
function knot(x: number, tall: number, t: number) {
  const r = tall * 0.95
  return { d: `M${x - tall * 0.5} 0H${x}a${r * 0.9} ${r * 0.9} 0 1 0 ${-r * 0.9} ${-r * 0.9}a${r * 0.5} ${r * 0.5} 0 1 1 ${r} ${0}a${r * 0.28} ${r * 0.28} 0 1 1 ${-r * 0.56} 0`, width: Math.max(1.2, t * 0.72) }
}
