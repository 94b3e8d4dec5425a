import { pathOf } from '@core/drag/path.ts'
import { tensionWindow } from '@core/drag/window.ts'
import { type Catch, type Rig } from './rig.ts'

/**
 * Wire between rolls and tip as a spring that gives when its end moves: dF/dt = k·(v_rolls − v_tip). The end rests until F reaches what
 * starts it, F_s, then moves by F = F_k + (F_s − F_k)·e^(−v/v_s) + c·v (Stribeck) and rests again where that has no moving solution: a worn
 * or dirty liner so jerks by itself though the rolls turn evenly, and a new one does not. Rolls slip where push and back tension are more
 * than their traction; what nests is the Perry–Robertson column of the gap. N, mm, s. k, c, v_s are guesses.
 */
const SPRING_N_PER_MM = 4
const DAMPING_NS_PER_MM = 0.04
const STRIBECK_MM_S = 150
/** Above its traction a roll slips, and within a so small share of it altogether. */
const SLIP_BAND = 0.12
const WHIP = 6
const SWAY_HZ = 0.6
const GIVES_AFTER_S = 0.22
/** Fed before anything catches: a bead begins. */
const FIRST_FREE_MM = 20

/** What the rig asks of the wire while nothing catches, from the drag model. */
export interface WireForces {
  /** Push at the rolls that keeps it going. */
  keepN: number
  /** Push that sets it going. */
  startN: number
  backN: number
  tractionN: number
  nestN: number
}
export function wireForces(rig: Rig): WireForces {
  const path = pathOf(rig.drag)
  const w = tensionWindow(path)
  const line = w.traction
  const tractionN = rig.isArmClosed ? Math.max(0, line.atZeroN + line.perMarkN * rig.mark) * rig.grip : 0
  const keepN = w.pushN ?? Infinity
  return {
    ...{ keepN, startN: keepN * (1 + rig.stick), backN: w.backTensionN ?? Infinity, tractionN },
    nestN: w.nest.nestForceN,
  }
}
export class WireRun {
  /** Push at the rolls, N. */
  forceN: number
  tipMmS = 0
  rollsMmS = 0
  /** Back tension of this moment. */
  backN: number
  fedMm = 0
  hasNested = false
  private rests = true
  private readonly forces: WireForces
  private readonly phase: number
  private atS = 0
  private heldS = 0

  constructor(
    private readonly rig: Rig,
    random: () => number,
  ) {
    this.phase = 2 * Math.PI * random()
    this.forces = wireForces(rig)
    this.forceN = 0
    this.backN = this.forces.backN
  }

  /** So much later, while the rolls are driven at a speed. */
  step(dtS: number, drivenMmS: number): void {
    if (this.hasNested) {
      this.tipMmS = 0
      return
    }
    const { isPlugged } = this.rig
    const { keepN, startN, backN, tractionN, nestN } = this.forces
    const front = this.caught('front', dtS)
    const back = backN + this.caught('spool', dtS)
    this.backN = back
    this.atS += dtS
    // The hand moves along the joint, and with it every bend of the cable.
    const sways = 1 + this.rig.sway * Math.sin(2 * Math.PI * SWAY_HZ * this.atS + this.phase)
    const over = this.forceN + back - tractionN
    const band = Math.max(1e-6, SLIP_BAND * tractionN)
    const slip = over <= 0 ? 0 : Math.min(1, over / band)
    this.rollsMmS = tractionN <= 0 ? 0 : drivenMmS * (1 - slip)
    this.tipMmS = isPlugged ? 0 : this.moves(keepN * sways + front, startN * sways + front)
    this.forceN = Math.max(0, this.forceN + SPRING_N_PER_MM * (this.rollsMmS - this.tipMmS) * dtS)
    this.fedMm += this.tipMmS * dtS
    if (this.forceN > nestN) this.hasNested = true
  }

  /** What catches now; what has held the wire for so long gives way. */
  private caught(at: Catch['at'], dtS: number): number {
    let force = 0
    for (const c of this.rig.catches) {
      if (c.at !== at || this.fedMm % c.everyMm > c.overMm || this.fedMm < FIRST_FREE_MM) continue
      force += c.forceN
      this.heldS = this.tipMmS < 1 ? this.heldS + dtS : this.heldS
      if (this.heldS < (c.holdsS ?? GIVES_AFTER_S)) continue
      this.fedMm += c.overMm
      this.heldS = 0
    }
    return force
  }

  private moves(keepN: number, startN: number): number {
    if (this.rests && this.forceN < startN) return 0
    const more = startN - keepN
    const was = this.rests ? STRIBECK_MM_S * WHIP : this.tipMmS
    this.rests = false
    const v = (this.forceN - keepN - more * Math.exp(-was / STRIBECK_MM_S)) / DAMPING_NS_PER_MM
    // Slower than this it has no steady motion: it stops dead.
    const least =
      more > DAMPING_NS_PER_MM * STRIBECK_MM_S
        ? STRIBECK_MM_S * Math.log(more / (DAMPING_NS_PER_MM * STRIBECK_MM_S))
        : 0
    if (v <= least) {
      this.rests = true
      return 0
    }
    return Math.min(v, this.rig.wireSpeedMmS * WHIP)
  }
}
