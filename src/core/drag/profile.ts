import { inletSegments, outletSegments, pathOf, tipOf } from './path.ts'
import { sectionOf } from './section.ts'
import { forceChain, type Segment } from './segment.ts'
import { type DragSetup } from './setup.ts'
import { tipDrag } from './tipdrag.ts'
import { tensionWindow } from './window.ts'

export interface ProfilePoint {
  /** From the payoff, mm along the wire. */
  atMm: number
  /** Before the rolls the pull on the wire, after them the push in it; null from where it cannot feed. */
  forceN: number | null
}
export interface Profile {
  inlet: ProfilePoint[]
  /** From the rolls to the tip. */
  outlet: ProfilePoint[]
}

const PIECES = 16
/** A stretch cut in equal pieces; the tight bend's own force stands in the middle one. */
function cut(segment: Segment): Segment[] {
  const middle = Math.floor(PIECES / 2)
  return Array.from({ length: PIECES }, (_, i) => ({
    ...segment,
    lengthMm: segment.lengthMm / PIECES,
    bendRad: segment.bendRad / PIECES,
    bendRadiusMm: i === middle ? segment.bendRadiusMm : null,
  }))
}

/**
 * Force along the way, N, for drawing: each stretch in 16 pieces by the same rule as the window's. A tight bend is drawn at its middle,
 * with the force it has over the whole of it: within a percent of the window's own sum, which counts.
 */
export function forceProfile(setup: DragSetup): Profile {
  const path = pathOf(setup)
  const of = { wire: path.wire, section: sectionOf(path.wire) }
  const { payoffPullN } = tensionWindow(path)
  const inlet = inletSegments(setup).flatMap(cut)
  const start = Math.max(0, payoffPullN - path.payoff.boosterPushN)
  const inletN = forceChain(start, inlet, of)
  const outlet = outletSegments(setup)
  const tipN = tipDrag(tipOf(setup), of).dragN
  const outletN = setup.shape.secondDrive ? twoDrives(tipN, outlet, of) : chainWithBends(tipN, outlet, of)
  const inletAt = lengths(inlet)
  const inletEnd = inletAt.at(-1) ?? 0
  const outletAt = lengths(outlet.flatMap(cut))
  const wholeMm = outletAt.at(-1) ?? 0
  return {
    inlet: inletN.map((forceN, i) => ({ atMm: inletAt[i] ?? 0, forceN })),
    outlet: outletN.map((forceN, i) => ({ atMm: inletEnd + wholeMm - (outletAt[i] ?? 0), forceN })).reverse(),
  }
}

/** The gun's drive takes the wire before the neck: what it pushes ends there, and the feeder's push begins at nothing. */
function twoDrives(tipN: number, [neck, ...cable]: readonly Segment[], of: Parameters<typeof forceChain>[2]) {
  const ahead = neck ? chainWithBends(tipN, [neck], of) : [tipN]
  return [...ahead.slice(0, -1), ...chainWithBends(0, cable, of)]
}

/** The bend force of a whole tight bend is given by its whole angle, so it is added once, not by the angle of a piece. */
function chainWithBends(start: number, segments: readonly Segment[], of: Parameters<typeof forceChain>[2]) {
  const chain: (number | null)[] = [start]
  for (const segment of segments) {
    const before = chain.at(-1) ?? null
    const end = before === null ? null : (forceChain(before, [segment], of).at(-1) ?? null)
    const smooth = cut({ ...segment, bendRadiusMm: null })
    const inner = before === null ? smooth.map(() => null) : forceChain(before, smooth, of).slice(1)
    const last = inner.at(-1) ?? null
    const bend = end === null || last === null ? 0 : end - last
    inner.forEach((f, i) => chain.push(f === null || end === null ? null : f + (i >= PIECES / 2 ? bend : 0)))
  }
  return chain
}

function lengths(segments: readonly Segment[]): number[] {
  const at = [0]
  for (const s of segments) at.push((at.at(-1) ?? 0) + s.lengthMm)
  return at
}
