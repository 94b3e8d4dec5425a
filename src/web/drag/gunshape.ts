import { type DragSetup } from '@core/drag/setup.ts'
import { type Profile, type ProfilePoint } from '@core/drag/profile.ts'

/** Where things stand in the picture, in its own pixels: wire runs left to right. */
export const PICTURE = { width: 1232, height: 236 } as const
export const AT = { hubX: 70, rollsX: 178, guideX: 190, cableFrom: 250, cableTo: 930, tipX: 1120, wireY: 118 } as const
const MM_TO_PX = 3.2

/** The guide stands off the nip to scale, as far as there is room. */
export const guideX = (gapMm: number) => AT.guideX + Math.min(gapMm * MM_TO_PX, 56)
export const gapOfX = (x: number) => Math.min(20, Math.max(0.5, (x - AT.guideX) / MM_TO_PX))

const rad = (deg: number) => (deg * Math.PI) / 180
/** The steepest a bend is drawn; more bends are drawn as more of them. */
const STEEPEST_DEG = 56

/**
 * The cable as it lies: half waves whose turning adds up to the bends told. Each half wave turns by twice its steepest angle, so the
 * amplitude is tan(angle)·length/(π·waves).
 */
export function cableWave(bendDeg: number): { waves: number; amplitude: number; at: (share: number) => number } {
  const waves = Math.max(4, 2 * Math.ceil(bendDeg / (4 * STEEPEST_DEG)))
  const angle = rad(Math.min(STEEPEST_DEG, bendDeg / (2 * waves)))
  const width = AT.cableTo - AT.cableFrom
  const amplitude = (Math.tan(angle) * width) / (Math.PI * waves)
  return { waves, amplitude, at: (share) => AT.wireY + amplitude * Math.sin(Math.PI * waves * share) }
}

export function cablePath(bendDeg: number): string {
  const wave = cableWave(bendDeg)
  const steps = 96
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const share = i / steps
    const x = AT.cableFrom + (AT.cableTo - AT.cableFrom) * share
    return `${x.toFixed(1)} ${wave.at(share).toFixed(1)}`
  })
  return `M${points.join('L')}`
}

const COIL_SHARE = { feeder: 0.12, spread: 0.5, gun: 0.88 } as const
const COIL_R = 40
/** Coils on the floor, side by side where they lie; a part of one is a part of a ring. */
export function coilRings(setup: DragSetup): { x: number; y: number; r: number; share: number }[] {
  const { coils, bendDeg } = setup.values
  const share = COIL_SHARE[setup.shape.coilsAt]
  const whole = Math.ceil(coils)
  const x = AT.cableFrom + (AT.cableTo - AT.cableFrom) * share
  const y = cableWave(bendDeg).at(share) + COIL_R
  return Array.from({ length: whole }, (_, i) => ({
    x: x + (i - (whole - 1) / 2) * 16,
    y: Math.min(y, PICTURE.height - COIL_R - 6),
    r: COIL_R,
    share: Math.min(1, coils - i),
  }))
}
export const coilX = (setup: DragSetup) => AT.cableFrom + (AT.cableTo - AT.cableFrom) * COIL_SHARE[setup.shape.coilsAt]

/** The neck: an arc by its angle; the tip at its end. */
export function neckEnd(neckDeg: number): { d: string; x: number; y: number; deg: number } {
  const fromX = AT.cableTo + 60
  const r = 110
  const a = rad(neckDeg)
  const [x, y] = [fromX + r * Math.sin(a), AT.wireY + r * (1 - Math.cos(a))]
  return {
    d: `M${AT.cableTo} ${AT.wireY}L${fromX} ${AT.wireY}A${r} ${r} 0 0 1 ${x.toFixed(1)} ${y.toFixed(1)}`,
    x,
    y,
    deg: neckDeg,
  }
}

export interface Graph {
  line: string
  area: string
  /** Where the line breaks off: from here on nothing feeds. */
  breaksAtX: number | null
  yOf: (forceN: number) => number
  topN: number
}
export const GRAPH = { height: 118, base: 104, top: 10 } as const
/** Force beyond so many times the nest force is not drawn: it is off the sheet. */
const MOST_OVER_NEST = 1.9

/** Force against the path, aligned with the picture: the cable's share of the way on its width, the neck's on its own. */
export function forceGraph(profile: Profile, of: { cableMm: number; nestN: number }): Graph {
  const { outlet } = profile
  const startMm = outlet[0]?.atMm ?? 0
  const topN = Math.max(of.nestN * 1.12, Math.min(outlet[0]?.forceN ?? Infinity, of.nestN * MOST_OVER_NEST) * 1.08)
  const yOf = (n: number) => GRAPH.base - (Math.min(n, topN) / topN) * (GRAPH.base - GRAPH.top)
  const xOf = ({ atMm }: ProfilePoint) => {
    const mm = atMm - startMm
    const wholeMm = (outlet.at(-1)?.atMm ?? 0) - startMm
    const cableMm = Math.max(wholeMm - NECK_SHOWN_MM, 1)
    return mm <= cableMm
      ? AT.rollsX + (AT.cableTo - AT.rollsX) * (mm / cableMm)
      : AT.cableTo + (AT.tipX - AT.cableTo) * ((mm - cableMm) / NECK_SHOWN_MM)
  }
  const known = outlet.filter((p): p is ProfilePoint & { forceN: number } => p.forceN !== null)
  const points = known.map((p) => `${xOf(p).toFixed(1)} ${yOf(p.forceN).toFixed(1)}`)
  const [first, last] = [known[0], known.at(-1)]
  const line = points.length > 0 ? `M${points.join('L')}` : ''
  const area =
    first && last ? `${line}L${xOf(last).toFixed(1)} ${GRAPH.base}L${xOf(first).toFixed(1)} ${GRAPH.base}Z` : ''
  return { line, area, breaksAtX: known.length < outlet.length && first ? xOf(first) : null, yOf, topN }
}
const NECK_SHOWN_MM = 150
