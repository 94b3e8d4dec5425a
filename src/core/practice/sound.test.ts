import { describe, expect, it } from 'vitest'
import { runBead } from './bead.ts'
import { brokenRig, type FaultKey } from './faults.ts'
import { soundRig, type Rig } from './rig.ts'
import { USUAL_BOOTHS } from './setups.ts'
import { captionsOf, SOUND_HZ, soundOf } from './sound.ts'

/** What an ear goes by, of the middle two seconds: how broken it is, how often it cracks, and how much of it lies low and high. */
function heard(rig: Rig) {
  const all = soundOf(runBead(rig, { seed: 7 }), rig)
  const wave = all.slice(1 * SOUND_HZ, 3 * SOUND_HZ)
  const power = (from: number, to: number) => bandPower(wave, from, to)
  const windowN = SOUND_HZ / 100
  const levels: number[] = []
  for (let i = 0; i + windowN <= wave.length; i += windowN)
    levels.push(Math.sqrt(wave.slice(i, i + windowN).reduce((s, x) => s + x * x, 0) / windowN))
  const mean = levels.reduce((a, b) => a + b, 0) / levels.length
  const spread = Math.sqrt(levels.reduce((s, x) => s + (x - mean) ** 2, 0) / levels.length) / mean
  const loudest = Math.max(...levels) / mean
  const [low, middle, high] = [power(60, 400), power(600, 1300), power(3000, 7000)]
  return { mean, spread, loudest, scrape: middle / (low + middle + high) }
}
/** Mean power of a band: Goertzel at many frequencies in it. */
function bandPower(wave: Float32Array, from: number, to: number): number {
  let sum = 0
  const bins = 40
  for (let b = 0; b < bins; b++) {
    const w = (2 * Math.PI * (from + ((to - from) * (b + 0.5)) / bins)) / SOUND_HZ
    const c = 2 * Math.cos(w)
    let [s1, s2] = [0, 0]
    for (const x of wave) [s1, s2] = [x + c * s1 - s2, s1]
    sum += s1 * s1 + s2 * s2 - c * s1 * s2
  }
  return (sum / bins) * (to - from)
}
const rigOf = (booth: number, key: FaultKey | null, bad = 0.5) => {
  const sound = soundRig(USUAL_BOOTHS[booth]!)
  return key ? brokenRig(sound, [{ key, bad }]) : sound
}

describe.each([0, 1, 2, 3])('by ear, booth %i', (booth) => {
  const slips = heard(rigOf(booth, 'tensionLow', 1))
  const stubs = heard({ ...rigOf(booth, null), jitterOhm: 0.13, contactOhm: 0.02 })
  const long = heard({ ...rigOf(booth, null), volts: rigOf(booth, null).volts + 4 })
  it('rolls that slip scrape in the middle of the scale, which nothing else does', () => {
    expect(slips.scrape).toBeGreaterThan(1.5 * stubs.scrape)
    expect(slips.scrape).toBeGreaterThan(1.5 * long.scrape)
  })
  it('a wire that stubs comes in bangs; a long arc is one even, loud hiss', () => {
    expect(stubs.loudest).toBeGreaterThan(1.5 * long.loudest)
    expect(stubs.spread).toBeGreaterThan(2 * long.spread)
    expect(long.mean).toBeGreaterThan(heard(rigOf(booth, null)).mean * 0.9)
  })
})

describe('in words', () => {
  const words = (rig: Rig) => captionsOf(runBead(rig, { seed: 7 }), rig).map((c) => c.sound)
  it.each([
    ['a sound booth on thin sheet crackles', rigOf(0, null), 'crackle'],
    ['on plate it hisses', rigOf(1, null), 'hiss'],
    ['with slack rolls they scrape', rigOf(0, 'tensionLow', 1), 'scrape'],
    ['a bad clamp bangs', { ...rigOf(0, null), jitterOhm: 0.13, contactOhm: 0.02 }, 'bangs'],
    ['too many volts are a long arc', { ...rigOf(1, null), volts: rigOf(1, null).volts + 4 }, 'longHiss'],
    ['a worn liner surges', rigOf(0, 'linerWorn', 0.1), 'surges'],
    ['without the clamp rolls whirr', rigOf(0, 'circuitOpen'), 'whirr'],
    ['a dead machine is silent', rigOf(0, 'rearSwitch'), 'silence'],
  ] as const)('%s', (_, rig, sound) => {
    expect(words(rig)).toContain(sound)
  })
  it('a wave never clips, and is silent where nothing happens', () => {
    const wave = soundOf(runBead(rigOf(0, null), { seed: 1 }), rigOf(0, null))
    expect(Math.max(...wave.map(Math.abs))).toBeLessThanOrEqual(1)
    const dead = rigOf(0, 'rearSwitch')
    expect(Math.max(...soundOf(runBead(dead, { seed: 1 }), dead).map(Math.abs))).toBeLessThan(0.001)
  })
})
