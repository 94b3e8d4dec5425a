import { KINK } from '@core/drag/guess.ts'
import { withValues, type DragSetup, type Param } from '@core/drag/setup.ts'
import { halved } from '@core/stats/halve.ts'
import { type Rig } from './rig.ts'
import { wireForces } from './wire.ts'

/**
 * What each fault does to the booth. `bad` runs from 0, as it is when somebody first complains, to 1, when it hardly goes; where a fault holds
 * the wire back its measure is the load: what starts the wire, and back tension, over the traction of the rolls, 0.67 or less in a booth that is well set.
 */
export interface FaultSpec {
  brings: (rig: Rig, bad: number) => Rig
  /** Of cored wires, or of wires welded with gas only. */
  only?: 'cored' | 'gas'
}

/** So loaded at the mildest and the worst. */
const LOAD = [0.8, 1.15] as const
const between = ([from, to]: readonly [number, number], bad: number) => from + (to - from) * bad
export const loadOf = (rig: Rig): number => {
  const { startN, backN, tractionN } = wireForces(rig)
  return tractionN > 0 ? (startN + backN) / tractionN : Infinity
}
const MOST_TIMES = 60
const CLOSE = { close: 1e-4 }
/** One number of the way made so large that the rolls are loaded so far. */
function loadedBy(rig: Rig, param: Param, load: number): Rig {
  const base = rig.drag.values[param] || 1e-3
  const at = (times: number): Rig => ({ ...rig, drag: withValues(rig.drag, { [param]: base * times }) })
  if (loadOf(rig) >= load) return at(1.3)
  if (loadOf(at(MOST_TIMES)) < load) return at(MOST_TIMES)
  return at(halved((times) => loadOf(at(times)) < load, [1, MOST_TIMES], CLOSE).x)
}
const drag = (rig: Rig, over: Partial<DragSetup['values']>): Rig => ({ ...rig, drag: withValues(rig.drag, over) })
const SWAYS = 0.16
/** It rubs so much, and sticks before it goes. */
const rub = (stick: number) => (rig: Rig, bad: number) =>
  loadedBy({ ...rig, stick: stick * (0.6 + 0.8 * bad), sway: SWAYS }, 'friction', between(LOAD, bad))
/** Traction the rolls have left over. */
const spareN = (rig: Rig) => {
  const { startN, backN, tractionN } = wireForces(rig)
  return Math.max(4, tractionN - startN - backN)
}
const snags = (rig: Rig, one: Rig['catches'][number]): Rig => ({ ...rig, catches: [...rig.catches, one] })
const gas = (rig: Rig, over: Partial<Rig['gas']>): Rig => ({ ...rig, gas: { ...rig.gas, ...over } })
/** Lost on the way to the feeder, or held back in it: its own meter sees that. */
const beforeFeeder = (rig: Rig, share: number): Rig =>
  gas(rig, { reaches: rig.gas.reaches * share, arrives: rig.gas.arrives * share })
/** The knob so far down that the rolls are loaded so. */
function slackened(rig: Rig, load: number): Rig {
  const at = (mark: number): Rig => ({ ...rig, mark })
  const [first] = rig.drag.shape.feeder.scale
  if (loadOf(at(first)) < load) return { ...at(first), grip: loadOf(at(first)) / load }
  return at(halved((mark) => loadOf(at(mark)) < load, [rig.mark, first], CLOSE).x)
}
const gripped = (rig: Rig, load: number): Rig => ({ ...rig, grip: rig.grip * Math.min(1, loadOf(rig) / load) })
/** A gap in which the wire nests at a share of what the rolls can push. */
function wideGap(rig: Rig, bad: number): Rig {
  const { tractionN } = wireForces(rig)
  const at = (gapMm: number) => drag(rig, { gapMm: rig.drag.values.gapMm + gapMm })
  const short = (gapMm: number) => tractionN * (1 - 0.45 * bad) - wireForces(at(gapMm)).nestN
  return at(halved((gapMm) => short(gapMm) < 0, [0, MOST_GAP_MM], CLOSE).x)
}
const MOST_GAP_MM = 60
/** It nests once the wire is held up a little: a catch that a good gap would stand. */
const gapAndCatch = (rig: Rig, bad: number): Rig => {
  const gapped = wideGap(rig, bad)
  const { nestN, keepN } = wireForces(gapped)
  return snags(gapped, { everyMm: 180, overMm: 14, forceN: Math.max(4, 1.1 * (nestN - keepN)), at: 'front' })
}
const MOST_COILS = 5
function coiled(rig: Rig, load: number): Rig {
  const at = (coils: number) => drag(rig, { coils })
  return at(Math.max(0.75, halved((coils) => loadOf(at(coils)) < load, [0, MOST_COILS], CLOSE).x))
}
const dead = (rig: Rig): Rig => ({ ...rig, turns: false })
const loose = (rig: Rig, bad: number): Rig => ({
  ...snags(drag(rig, { brakeNm: rig.drag.values.brakeNm * 0.1 }), {
    ...{ everyMm: 300, overMm: 6, at: 'spool' },
    forceN: spareN(rig) * between([0.6, 1.3], bad),
  }),
  coasts: true,
})
const contact = (rig: Rig, contactOhm: number, jitterOhm: number): Rig => ({
  ...rig,
  contactOhm: rig.contactOhm + contactOhm,
  jitterOhm: rig.jitterOhm + jitterOhm,
})

export const FAULTS = {
  spoolReversed: {
    brings: (r, bad) => gapAndCatch({ ...r, drag: { ...r.drag, shape: { ...r.drag.shape, isReversed: true } } }, bad),
  },
  hubLoose: { brings: (r, bad) => loose(r, bad) },
  hubPin: { brings: (r, bad) => loose(r, bad) },
  hubTight: { brings: (r, bad) => loadedBy(r, 'brakeNm', between(LOAD, bad)) },
  brakeLeft: { brings: (r, bad) => loadedBy(r, 'brakeNm', between([0.85, 1.2], bad)) },
  spoolTangled: {
    brings: (r, bad) =>
      snags(r, {
        everyMm: 220,
        overMm: 18,
        forceN: spareN(r) * between([1, 1.6], bad),
        at: 'spool',
        holdsS: 0.5 + bad,
      }),
  },
  wirePoor: { brings: (r, bad) => ({ ...r, wanderMm: 1.6 + bad, rough: r.rough + 0.25 + 0.2 * bad }) },
  rollWrong: { brings: (r, bad) => gripped(r, between([0.95, 1.2], bad)) },
  rollWorn: { brings: (r, bad) => gripped(r, between([0.85, 1.1], bad)) },
  tensionLow: { brings: (r, bad) => slackened(r, between([0.9, 1.15], bad)) },
  tensionHigh: { brings: (r, bad) => ({ ...r, mark: r.drag.shape.feeder.scale[1], wanderMm: 2 + bad }) },
  armOpen: { brings: (r) => ({ ...r, isArmClosed: false }) },
  coredCrushed: {
    only: 'cored',
    brings: (r, bad) =>
      loadedBy({ ...r, mark: 0.7 * r.drag.shape.feeder.scale[1] }, 'depositN', between([1, 1.3], bad)),
  },
  guideWorn: { brings: (r, bad) => gapAndCatch(drag(r, { clearanceMm: r.drag.values.clearanceMm + 2 }), bad) },
  gapOutlet: { brings: gapAndCatch },
  gunOut: { brings: (r, bad) => gas(gapAndCatch(r, bad * 0.8), { arrives: r.gas.arrives * 0.35 }) },
  orings: { only: 'gas', brings: (r, bad) => gas(r, { arrives: r.gas.arrives * (0.5 - 0.3 * bad) }) },
  cableCoiled: { brings: (r, bad) => coiled({ ...r, stick: 0.3 + 0.2 * bad, sway: SWAYS }, between(LOAD, bad)) },
  linerKinked: {
    brings: (r, bad) => {
      const kinked = drag(r, { kinkDeg: KINK.bendDeg.typical * (0.6 + 0.8 * bad) })
      return {
        ...rub(0.25)(kinked, bad),
        catches: [...r.catches, { everyMm: 36, overMm: 3, forceN: spareN(r) * (0.15 + 0.3 * bad), at: 'front' }],
      }
    },
  },
  linerWorn: { brings: rub(0.45) },
  linerDirty: { brings: rub(0.35) },
  linerWrong: { brings: (r, bad) => loadedBy({ ...r, stick: 0.3, sway: SWAYS }, 'waviness', between(LOAD, bad)) },
  linerFitting: {
    brings: (r, bad) =>
      snags(
        { ...r, stick: 0.25 },
        { everyMm: 40, overMm: 4, forceN: spareN(r) * between([0.12, 0.4], bad), at: 'front' },
      ),
  },
  linerShort: { brings: gapAndCatch },
  linerOil: { only: 'gas', brings: (r, bad) => ({ ...r, dirt: r.dirt + 0.5 + 0.4 * bad }) },
  spatterOnTip: {
    brings: (r, bad) =>
      snags(
        { ...r, stick: 0.25 },
        { everyMm: 70, overMm: 10, forceN: spareN(r) * between([0.5, 1.15], bad), at: 'front' },
      ),
  },
  tipWorn: {
    brings: (r, bad) => ({
      ...snags(contact(r, 0.004, 0.02 + 0.05 * bad), {
        everyMm: 55,
        overMm: 8,
        forceN: spareN(r) * between([0.4, 1.1], bad),
        at: 'front',
      }),
      wanderMm: 0.8 + bad,
    }),
  },
  tipPlugged: { brings: (r) => ({ ...r, isPlugged: true }) },
  tipWrong: { brings: (r, bad) => loadedBy({ ...r, stick: 0.4, sway: SWAYS }, 'depositN', between(LOAD, bad)) },
  tipLoose: { brings: (r, bad) => contact(r, 0.01, 0.05 + 0.08 * bad) },
  tipStands: { brings: (r, bad) => ({ ...r, distanceMm: r.distanceMm + 5 + 4 * bad, rough: r.rough + 0.2 }) },
  nozzleClogged: { only: 'gas', brings: (r, bad) => gas(r, { covers: r.gas.covers * (0.5 - 0.3 * bad) }) },
  diffuserBlocked: { only: 'gas', brings: (r, bad) => gas(r, { covers: r.gas.covers * (0.5 - 0.25 * bad) }) },
  diffuserBurned: { only: 'gas', brings: (r, bad) => gas(r, { covers: r.gas.covers * (0.5 - 0.25 * bad) }) },
  insulatorLoose: { only: 'gas', brings: (r, bad) => gas(r, { covers: r.gas.covers * (0.5 - 0.25 * bad) }) },
  nozzleCrooked: { only: 'gas', brings: (r, bad) => gas(r, { covers: r.gas.covers * (0.5 - 0.25 * bad) }) },
  spatterBridge: { brings: (r) => ({ ...r, nozzleLive: true }) },
  insulatorDead: { brings: (r) => ({ ...r, nozzleLive: true }) },
  gasFlow: { only: 'gas', brings: (r, bad) => gas(r, { lpm: (r.gas.lpm ?? 0) * (0.45 - 0.25 * bad) }) },
  cylinderEmpty: { only: 'gas', brings: (r) => gas(r, { lpm: r.gas.lpm === null ? null : 0 }) },
  gasFitting: { only: 'gas', brings: (r, bad) => beforeFeeder(r, 0.5 - 0.3 * bad) },
  gasHose: { only: 'gas', brings: (r, bad) => beforeFeeder(r, 0.3 - 0.25 * bad) },
  valve: { only: 'gas', brings: (r) => beforeFeeder(r, 0) },
  cableGas: { only: 'gas', brings: (r, bad) => gas(r, { arrives: r.gas.arrives * (0.5 - 0.3 * bad) }) },
  gasWrong: { only: 'gas', brings: (r, bad) => ({ ...r, rough: r.rough + 0.5 + 0.3 * bad, dirt: r.dirt + 0.3 }) },
  draught: { only: 'gas', brings: (r, bad) => gas(r, { covers: r.gas.covers * (0.45 - 0.25 * bad) }) },
  dirtyMetal: { brings: (r, bad) => ({ ...r, dirt: r.dirt + 0.5 + 0.5 * bad, rough: r.rough + 0.15 }) },
  workClamp: { brings: (r, bad) => contact(r, 0.02, 0.05 + 0.08 * bad) },
  circuitOpen: { brings: (r) => ({ ...r, isOpen: true }) },
  polarity: { brings: (r, bad) => ({ ...r, rough: r.rough + 0.8 + 0.2 * bad, volts: r.volts - 2 }) },
  settings: {
    brings: (r, bad) =>
      bad < 0.5
        ? { ...r, wireSpeedMmS: r.wireSpeedMmS * between([1.5, 2.2], 2 * bad) }
        : { ...r, volts: r.volts + between([4, 9], 2 * bad - 1) },
  },
  wireEnd: { brings: (r) => ({ ...r, isBalled: true }) },
  hand: {
    brings: (r, bad) => ({
      ...gas(r, { covers: r.gas.covers * (0.8 - 0.25 * bad) }),
      distanceMm: r.distanceMm * (1.5 + 0.4 * bad),
    }),
  },
  controlPlug: { brings: dead },
  rearSwitch: { brings: dead },
  triggerWire: { brings: dead },
  tooHot: { brings: dead },
} as const satisfies Record<string, FaultSpec>
export type FaultKey = keyof typeof FAULTS
export const FAULT_KEYS = Object.keys(FAULTS) as FaultKey[]
export const isFault = (key: string): key is FaultKey => key in FAULTS

/** The booth with all of these wrong, in the order of the wire. */
export const brokenRig = (sound: Rig, faults: readonly { key: FaultKey; bad: number }[]): Rig =>
  FAULT_KEYS.reduce((rig, key) => {
    const fault = faults.find((f) => f.key === key)
    return fault ? FAULTS[key].brings(rig, fault.bad) : rig
  }, sound)
