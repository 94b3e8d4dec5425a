import { clockOf, type Clock } from './clock.ts'
import { share, type ClockPiece } from './sweep.ts'

/** Which wire ran from then on, as km of it in a kilogram; null: nobody knows which. The first runs from ever. */
export interface WireFrom {
  fromMs: number
  kmPerKg: number | null
}

/**
 * Kilometres of wire from kilograms of it, each stretch by the wire that was on then: what wears by length is told apart by metal, also where a gun ran
 * two of them (P161).
 * 1. A piece of the kg clock is cut where the wire was changed; its parts share it by working time.
 * 2. A wire nobody knows is taken for the next that is known, else for the one before, and marked as estimated.
 * 3. It runs on at the kg clock's rate, by the wire that is on now.
 * Null: there is no kg clock, or no wire is known at all.
 * @example lengthClock(kgClock, [{ fromMs: -Infinity, kmPerKg: 0.162 }])
 */
export function lengthClock(kg: Clock | null, wires: readonly WireFrom[]): Clock | null {
  const known = inOrder(wires)
  const last = known.at(-1)
  if (!kg || !last) return null
  const pieces = kg.pieces.flatMap((piece) => cut(piece, known, kg))
  const clock = clockOf('km', pieces, kg.schedule)
  return { ...clock, runOn: { ...kg.runOn, perWorkedHour: kg.runOn.perWorkedHour * last.kmPerKg } }
}

interface Known {
  fromMs: number
  kmPerKg: number
  isGuess: boolean
}
function inOrder(wires: readonly WireFrom[]): Known[] {
  const sorted = [...wires].sort((a, b) => a.fromMs - b.fromMs)
  return sorted.flatMap((wire, i) => {
    const next = sorted.slice(i).find((w) => w.kmPerKg !== null)
    const before = sorted.slice(0, i).findLast((w) => w.kmPerKg !== null)
    const kmPerKg = wire.kmPerKg ?? next?.kmPerKg ?? before?.kmPerKg ?? null
    return kmPerKg === null ? [] : [{ fromMs: wire.fromMs, kmPerKg, isGuess: wire.kmPerKg === null }]
  })
}

function cut(piece: ClockPiece, wires: readonly Known[], kg: Clock): ClockPiece[] {
  const first = wires.findLastIndex((w) => w.fromMs <= piece.fromMs)
  const inside = wires.slice(Math.max(0, first)).filter((w) => w.fromMs < piece.toMs)
  return inside.map((wire, i) => {
    const part = { fromMs: Math.max(piece.fromMs, wire.fromMs), toMs: inside[i + 1]?.fromMs ?? piece.toMs }
    const own = inside.length === 1 ? 1 : share(kg.schedule, part, piece)
    return {
      ...(inside.length === 1 ? { fromMs: piece.fromMs, toMs: piece.toMs } : part),
      amount: piece.amount * own * wire.kmPerKg,
      source: wire.isGuess ? 'converted' : piece.source,
    }
  })
}
