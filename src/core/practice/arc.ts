import { drawNormal } from '@core/random/random.ts'
import { meltOf, SOURCE_OHM, type Melt } from './melt.ts'
import { type Rig } from './rig.ts'

/**
 * The arc of a constant-voltage source on a melting wire, with drops that grow and bridge:
 *
 *   out ──touches──> short ──necked off (∫I² dt)──> arc ──the drop touches──> short
 *                      │                             ├──drop flies off (spray, or too big)──> arc
 *                      └──pushed deep first: a stub   └──no current, or as far as the tip──> out
 *
 * L·dI/dt = volts − I·(source + stick-out + contact) − load; dl/dt = melting − wire. V, A, mm, s. All constants are guesses.
 */
const HENRY = 3e-4
const SHORT_OHM = 0.012
/** ∫I² dt that necks a bridge off, A²s, for 1.2 mm; grows by the cube of the size. */
const NECK_A2S = 320
/** So much wire pushed into the pool before it parts is a stub, in wire diameters. */
const STUB_DEEP = 1.2
/** Deeper than this it is no harder to part. */
const MOST_DEEP = 4
const LEAST_AMPS = 22
/** A drop hangs on till it is so many diameters: carried off by the current, or by its weight. */
const DROP = { spray: 0.95, 'short circuit': 2.2 } as const
/** Arc this near the tip burns into it. */
const AT_TIP_MM = 2.5
const STANDS_SHARE = 0.5
const STANDS_S = 0.03
/** From a wire cut sharp to the work when the trigger is pulled. */
const FIRST_GAP_MM = 4
/** A dull ball hardly lets current through, until it is pushed off. */
const BALL_OHM = 0.35
const REFERENCE_MM = 1.2
const UNSTEADY = 0.18

export type Phase = 'out' | 'short' | 'arc'
export interface ArcCounts {
  shorts: number
  stubs: number
  /** From the first touch to the first arc, s. */
  startS: number
  /** Times it went out after it burned. */
  losses: number
  /** Drops thrown about: parted with a bang. */
  thrown: number
}

export class ArcRun {
  phase: Phase = 'out'
  lengthMm = FIRST_GAP_MM
  amps = 0
  volts = 0
  hasBurnedBack = false
  /** A short that parted in this step, by the current it parted at; 0: none did. */
  banged = 0
  readonly counts: ArcCounts = { shorts: 0, stubs: 0, startS: 0, losses: 0, thrown: 0 }
  private readonly melt: Melt
  private readonly sizeMm: number
  private dropMm3 = 0
  private neckA2s = 0
  private needA2s = 0
  private deepMm = 0
  private lowS = 0
  private standsS = 0
  private contact = 0

  constructor(
    private readonly rig: Rig,
    private readonly random: () => number,
  ) {
    this.sizeMm = rig.drag.shape.diameterMm
    this.melt = meltOf(rig.drag.shape.material, this.sizeMm)
  }

  step(dtS: number, tipMmS: number): void {
    this.banged = 0
    if (this.hasBurnedBack) {
      this.amps = 0
      this.volts = this.rig.volts
      return
    }
    if (this.phase === 'out') this.stepOut(dtS, tipMmS)
    else if (this.phase === 'short') this.stepShort(dtS, tipMmS)
    else this.stepArc(dtS, tipMmS)
  }

  private stepOut(dtS: number, tipMmS: number): void {
    this.amps = 0
    this.volts = this.rig.volts
    this.lengthMm -= tipMmS * dtS
    if (this.lengthMm > 0) return
    this.touch()
  }
  private touch(): void {
    this.counts.shorts++
    this.phase = 'short'
    this.lengthMm = 0
    this.neckA2s = 0
    this.deepMm = 0
    const roughly = 1 + (UNSTEADY + this.rig.rough) * drawNormal(this.random)
    this.needA2s = NECK_A2S * (this.sizeMm / REFERENCE_MM) ** 3 * Math.max(0.3, roughly)
  }

  private stepShort(dtS: number, tipMmS: number): void {
    this.current(dtS, this.amps * SHORT_OHM)
    this.volts = this.amps * SHORT_OHM + this.amps * this.melt.ohmPerMm * this.rig.distanceMm
    this.deepMm += tipMmS * dtS
    if (this.counts.shorts === 1) this.counts.startS += dtS
    this.neckA2s += this.amps ** 2 * dtS
    const need = this.needA2s * (1 + Math.min(MOST_DEEP, this.deepMm / this.sizeMm))
    if (this.rig.isOpen || this.neckA2s < need) return
    const isStub = this.deepMm > STUB_DEEP * this.sizeMm
    this.banged = this.amps
    if (isStub) this.counts.stubs++
    if (isStub || this.random() < this.rig.rough) this.counts.thrown++
    // The drop went over: the end stands off by what was melted, after a stub by a good piece.
    this.lengthMm = isStub ? 2.5 * this.sizeMm : Math.max(0.4, 0.9 * this.sizeMm * (1 + 0.25 * drawNormal(this.random)))
    this.dropMm3 = 0
    this.lowS = 0
    this.phase = 'arc'
  }

  private stepArc(dtS: number, tipMmS: number): void {
    const { distanceMm, transfer, rough } = this.rig
    const outMm = Math.max(0, distanceMm - this.lengthMm)
    this.current(dtS, this.melt.fallV + this.melt.perMmV * this.lengthMm)
    this.volts = this.melt.fallV + this.melt.perMmV * this.lengthMm + this.amps * this.melt.ohmPerMm * outMm
    const meltMmS = this.melt.a * this.amps + this.melt.b * outMm * this.amps ** 2
    this.lengthMm += (meltMmS - tipMmS) * dtS
    const areaMm2 = (Math.PI * this.sizeMm ** 2) / 4
    this.dropMm3 += meltMmS * areaMm2 * dtS
    const dropMm = Math.cbrt((6 * this.dropMm3) / Math.PI)
    const most = DROP[transfer] * this.sizeMm
    if (this.lengthMm - 0.8 * dropMm <= 0) return this.touch()
    if (dropMm > most * (rough > 0 ? 1 + rough : 1)) {
      this.dropMm3 = 0
      if (transfer === 'short circuit' || this.random() < rough) this.counts.thrown++
    }
    // A wire that stands melts on by its own heat: half way up it goes all the way.
    this.standsS = tipMmS < 1 ? this.standsS + dtS : 0
    const top = this.standsS > STANDS_S ? STANDS_SHARE * distanceMm : distanceMm - AT_TIP_MM
    if (this.lengthMm >= top) {
      this.hasBurnedBack = true
      this.phase = 'out'
      return
    }
    this.lowS = this.amps < LEAST_AMPS ? this.lowS + dtS : 0
    if (this.lowS > 0.002) this.goOut()
  }
  private goOut(): void {
    this.counts.losses++
    this.phase = 'out'
    this.dropMm3 = 0
  }

  private current(dtS: number, loadV: number): void {
    const { contactOhm, jitterOhm, volts, distanceMm, isOpen } = this.rig
    // A poor contact is poor by fits and starts: it stays as it is for some hundredths of a second.
    if (jitterOhm > 0 && this.random() < dtS / 0.03) this.contact = jitterOhm * this.random() ** 3 * 2
    const outMm = Math.max(0, distanceMm - this.lengthMm)
    const ball = this.rig.isBalled && this.counts.shorts === 1 && this.phase === 'short' ? BALL_OHM : 0
    const ohm = SOURCE_OHM + ball + contactOhm + this.contact + this.melt.ohmPerMm * outMm
    this.amps = isOpen ? 0 : Math.max(0, this.amps + ((volts - this.amps * ohm - loadV) / HENRY) * dtS)
  }
}
