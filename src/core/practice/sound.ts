import { meanOrNought } from '@core/stats/mean.ts'
import { makeRandom } from '@core/random/random.ts'
import { ROWS_PER_S, STEPS_PER_S, type BeadRun } from './bead.ts'
import { type Rig } from './rig.ts'

/**
 * What a bead sounds like: an arc is heard as the change of its power (dP/dt), with a hiss that grows with its length; a short that parts is a
 * crack; rolls whirr by their speed and scrape where they slip; gas hisses. 16 kHz, −1 to 1. Arata and others 1979 for the arc; levels are guesses.
 */
export const SOUND_HZ = STEPS_PER_S
const LEVEL = { arc: 0.00011, hiss: 0.05, crack: 0.0011, whirr: 0.02, scrape: 0.22, gas: 0.012 } as const
const CRACK_S = 0.004
const SCRAPE_HZ = 34
const USUAL_WATT = 4000

export function soundOf(run: BeadRun, rig: Rig, seed = 1): Float32Array<ArrayBuffer> {
  const { volts, amps, banged } = run.sound
  const random = makeRandom(seed)
  const out = new Float32Array(volts.length)
  const gas = rig.gas.lpm === null || !rig.turns ? 0 : (LEVEL.gas * rig.gas.lpm * rig.gas.arrives) / 14
  const band = new Band()
  let was = 0
  let crack = 0
  for (let i = 0; i < out.length; i++) {
    const noise = 2 * random() - 1
    const watt = (volts[i] ?? 0) * (amps[i] ?? 0)
    const change = LEVEL.arc * (watt - was)
    was = watt
    crack = Math.max(crack * (1 - 1 / (CRACK_S * SOUND_HZ)), (banged[i] ?? 0) * LEVEL.crack)
    const row = Math.floor((i / SOUND_HZ) * ROWS_PER_S)
    const length = run.trace.arcMm[row] ?? 0
    const hiss = LEVEL.hiss * (watt / USUAL_WATT) * Math.min(2.5, 0.25 + length / 4)
    out[i] = change + noise * (hiss + crack + gas) + feederSound(run, rig, { i, row, scrape: band.next(noise) })
  }
  return limited(out)
}

/** Rolls that turn, and what slips on the wire: a scrape that comes and goes with every bite. */
function feederSound(run: BeadRun, rig: Rig, at: { i: number; row: number; scrape: number }): number {
  if (!rig.turns || run.hasNested) return 0
  const t = at.i / SOUND_HZ
  const rolls = run.trace.rollsMmS[at.row] ?? 0
  const slip = Math.min(1, Math.max(0, 1 - rolls / Math.max(1, rig.wireSpeedMmS)))
  // The motor turns as before: what the wire lacks is the slip.
  const bite = Math.max(0, Math.sin(2 * Math.PI * SCRAPE_HZ * t))
  return LEVEL.whirr * Math.sin(2 * Math.PI * (90 + rig.wireSpeedMmS) * t) + LEVEL.scrape * slip * bite * at.scrape
}

/** Noise about 1 kHz wide around 900 Hz: steel on steel. Two poles. */
class Band {
  private a = 0
  private b = 0
  next(x: number): number {
    const w = (2 * Math.PI * 900) / SOUND_HZ
    this.a += w * (x - this.a - this.b * 0.8)
    this.b += w * this.a
    return this.a * 2
  }
}
/** Loud but never clipped. */
function limited(out: Float32Array<ArrayBuffer>): Float32Array<ArrayBuffer> {
  for (let i = 0; i < out.length; i++) out[i] = Math.tanh(out[i] ?? 0)
  return out
}

/** Words for who cannot hear it. */
export const SOUNDS = ['silence', 'gas', 'whirr', 'scrape', 'crackle', 'hiss', 'longHiss', 'bangs', 'surges'] as const
export type SoundKey = (typeof SOUNDS)[number]
export const SOUND_WORDS: Readonly<Record<SoundKey, string>> = {
  silence: 'silence',
  gas: 'gas, and nothing else',
  whirr: 'rolls whirr, no arc',
  scrape: 'rolls scrape on the wire, no even tone',
  crackle: 'even crackle, like bacon in a pan',
  hiss: 'even hiss',
  longHiss: 'loud, hollow hiss: a long arc',
  bangs: 'hard bangs, it pushes back',
  surges: 'up and down, broken',
}
export interface Caption {
  fromS: number
  sound: SoundKey
}
const WINDOW_S = 0.5
/** What is heard, from when on: half seconds, those alike run together. */
export function captionsOf(run: BeadRun, rig: Rig): Caption[] {
  const captions: Caption[] = []
  const seconds = run.sound.volts.length / STEPS_PER_S
  for (let fromS = 0; fromS < seconds; fromS += WINDOW_S) {
    const sound = heardIn(run, rig, fromS)
    if (captions.at(-1)?.sound !== sound) captions.push({ fromS, sound })
  }
  return captions
}
const SHORTS_OF_CRACKLE = 8
/** An arc over so many wire diameters sounds long. */
const LONG = { 'short circuit': 3, spray: 6.5 } as const
function heardIn(run: BeadRun, rig: Rig, fromS: number): SoundKey {
  if (!rig.turns) return 'silence'
  const rows = (c: Float32Array) => c.slice(fromS * ROWS_PER_S, (fromS + WINDOW_S) * ROWS_PER_S)
  const steps = run.sound.banged.slice(fromS * STEPS_PER_S, (fromS + WINDOW_S) * STEPS_PER_S)
  const arcs = rows(run.trace.arcMm)
  const burning = arcs.filter((mm) => mm > 0)
  const slip = 1 - meanOrNought(rows(run.trace.rollsMmS)) / Math.max(1, rig.wireSpeedMmS)
  const isStopped = run.hasNested || run.hasBurnedBack
  if (burning.length < 0.1 * arcs.length) return slip > 0.4 && !isStopped ? 'scrape' : isStopped ? 'gas' : 'whirr'
  if (slip > 0.4) return 'scrape'
  if (longestShortS(run, fromS) > 0.018) return 'bangs'
  const tip = rows(run.trace.tipMmS)
  const spread = Math.sqrt(meanOrNought(tip.map((v) => (v - meanOrNought(tip)) ** 2)))
  if (fromS > 0 && spread > 0.3 * meanOrNought(tip)) return 'surges'
  if (meanOrNought(burning) > LONG[rig.transfer] * rig.drag.shape.diameterMm) return 'longHiss'
  return steps.filter((a) => a > 0).length / WINDOW_S > SHORTS_OF_CRACKLE ? 'crackle' : 'hiss'
}
/** The longest time without an arc but with current in a window: the wire stood in the pool. */
function longestShortS({ sound }: BeadRun, fromS: number): number {
  let [longest, now] = [0, 0]
  const end = Math.min(sound.volts.length, (fromS + WINDOW_S) * STEPS_PER_S)
  for (let i = fromS * STEPS_PER_S; i < end; i++) {
    now = (sound.amps[i] ?? 0) > 5 && (sound.volts[i] ?? 0) < SHORT_UNDER_V ? now + 1 : 0
    longest = Math.max(longest, now)
  }
  return fromS === 0 ? 0 : longest / STEPS_PER_S
}
/** Less than any arc burns at. */
const SHORT_UNDER_V = 12
