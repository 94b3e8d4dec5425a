import { grooveOf } from '@core/drag/remedy.ts'
import { suitedLiner, type WireMaterial } from '@core/drag/guess.ts'
import { pathOf } from '@core/drag/path.ts'
import { guessedSetup, withValues, type DragSetup, type RollGroove } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'
import { tensionWindow, type TensionWindow } from '@core/drag/window.ts'
import { isSameSize, type LinerKind } from '@core/rightparts/facts.ts'
import { pick, shuffled } from '@core/random/random.ts'

/** Small exercises of two minutes for hands that know already: what is wrong with a build, what a change of wire asks for, knob, lay, liner. */
export const HANDS = ['build', 'change', 'tension', 'lay', 'trim'] as const
export type HandsKey = (typeof HANDS)[number]

export interface WireOn {
  material: WireMaterial
  diameterMm: number
}
const WIRES_ON: readonly WireOn[] = [
  ...([0.8, 0.9, 1.0, 1.2] as const).map((diameterMm) => ({ material: 'steel' as const, diameterMm })),
  ...([1.0, 1.2] as const).map((diameterMm) => ({ material: 'aluminium 5xxx' as const, diameterMm })),
  { material: 'flux-cored', diameterMm: 1.2 },
]
const SIZES = [0.8, 0.9, 1.0, 1.2, 1.6] as const
/** Liners come for a span of sizes. */
const SPANS = [
  [0.6, 0.9],
  [1.0, 1.2],
  [1.4, 1.6],
] as const
export type Span = readonly [from: number, to: number]
const isWithin = ([from, to]: Span, mm: number) => mm >= from - 0.05 && mm <= to + 0.05

/** A gun as it is built, as far as it goes by the wire. */
export interface Build {
  wire: WireOn
  rolls: { groove: RollGroove; sizeMm: number }
  outletMm: number
  liner: { kind: LinerKind; span: Span }
  tipMm: number
  gas: 'argon' | 'argon mix'
}
export const BUILT = ['rolls', 'outlet', 'liner', 'tip', 'gas'] as const
export type BuiltKey = (typeof BUILT)[number]
const isSoftGas = (m: WireMaterial) => m.startsWith('aluminium')

/** Everything as the wire wants it. */
export function rightBuild(wire: WireOn): Build {
  const { material, diameterMm } = wire
  const span = SPANS.find((s) => isWithin(s, diameterMm)) ?? SPANS[0]
  return {
    wire,
    rolls: { groove: grooveOf(material), sizeMm: diameterMm },
    ...{ outletMm: diameterMm, liner: { kind: suitedLiner(material), span }, tipMm: diameterMm },
    gas: isSoftGas(material) ? 'argon' : 'argon mix',
  }
}
/** What of a build its wire does not want, by the rules of fit: size of roll, guide, tip and liner, groove and liner by metal, gas. */
export function wrongOf(build: Build): BuiltKey[] {
  const want = rightBuild(build.wire)
  const { diameterMm } = build.wire
  const isWrong: Record<BuiltKey, boolean> = {
    rolls: build.rolls.groove !== want.rolls.groove || !isSameSize(build.rolls.sizeMm, diameterMm),
    outlet: !isSameSize(build.outletMm, diameterMm),
    liner: build.liner.kind !== want.liner.kind || !isWithin(build.liner.span, diameterMm),
    tip: !isSameSize(build.tipMm, diameterMm),
    gas: build.gas !== want.gas,
  }
  return BUILT.filter((k) => isWrong[k])
}
/** A build with one thing wrong. */
export function drawBuild(random: () => number): { build: Build; wrong: BuiltKey } {
  const wrong = pick(random, BUILT)
  return { build: spoilt(rightBuild(pick(random, WIRES_ON)), wrong, random), wrong }
}
function spoilt(build: Build, wrong: BuiltKey, random: () => number): Build {
  const { rolls, liner, wire } = build
  const other = pick(
    random,
    SIZES.filter((s) => !isSameSize(s, wire.diameterMm)),
  )
  const isOfKind = random() < 0.5
  if (wrong === 'outlet') return { ...build, outletMm: other }
  if (wrong === 'tip') return { ...build, tipMm: other }
  if (wrong === 'gas') return { ...build, gas: build.gas === 'argon' ? 'argon mix' : 'argon' }
  if (wrong === 'rolls') {
    const groove = pick(
      random,
      GROOVES.filter((g) => g !== rolls.groove),
    )
    return { ...build, rolls: isOfKind ? { ...rolls, groove } : { ...rolls, sizeMm: other } }
  }
  const span = pick(
    random,
    SPANS.filter((s) => s !== liner.span),
  )
  const kind: LinerKind = liner.kind === 'polymer' ? 'steel coil' : 'polymer'
  return { ...build, liner: isOfKind ? { ...liner, kind } : { ...liner, span } }
}
const GROOVES: readonly RollGroove[] = ['V', 'U', 'knurled']

/** Another wire on the same gun: what has to be changed for it, all four rolls among it. */
export function drawChange(random: () => number): { from: Build; to: WireOn; asks: BuiltKey[] } {
  const [a, b] = shuffled(WIRES_ON, random)
  const from = rightBuild(a ?? WIRES_ON[0]!)
  const to = b ?? WIRES_ON[1]!
  return { from, to, asks: wrongOf({ ...from, wire: to }) }
}

/** A gun whose knob somebody left anywhere. */
export interface KnobTask {
  setup: DragSetup
  mark: number
}
export function drawKnob(random: () => number): KnobTask {
  const wire = pick(random, WIRES_ON)
  const base = guessedSetup(usualShape(wire.material, wire.diameterMm), 3000 + 1000 * Math.floor(2 * random()))
  const setup = withValues(base, { friction: base.values.friction * (0.8 + 0.5 * random()) })
  const [first, last] = setup.shape.feeder.scale
  const marks = Array.from({ length: Math.round((last - first) / MARK_STEP) + 1 }, (_, i) => first + i * MARK_STEP)
  return {
    setup,
    mark: pick(
      random,
      marks.filter((m) => feelAt(setup, m) !== 'right'),
    ),
  }
}
/** Finer nobody reads a knob. */
export const MARK_STEP = 0.25
export const windowOf = (setup: DragSetup): TensionWindow => tensionWindow(pathOf(setup))

export const FEELS = ['stalls', 'slips', 'right', 'flat', 'nests'] as const
export type Feel = (typeof FEELS)[number]
/** What feeding against a block of wood shows at a mark: the window of the drag model, from below to above. */
export function feelAt(setup: DragSetup, mark: number): Feel {
  const w = windowOf(setup)
  const traction = w.traction.atZeroN + w.traction.perMarkN * mark
  if (traction < (w.neededN ?? Infinity)) return 'stalls'
  if (mark < (w.lowMark ?? Infinity)) return 'slips'
  if (mark <= w.highMark + 1e-9) return 'right'
  return w.limit === 'nest' ? 'nests' : 'flat'
}

/** How a cable lies: coils on the floor, bends added up. */
export interface Lay {
  coils: number
  bendDeg: number
}
/** Three lays of one cable, and which asks for most push at the rolls. */
export function drawLays(random: () => number): { lays: Lay[]; pushN: number[]; hardest: number } {
  const base = guessedSetup(usualShape('steel', 0.9), 4000)
  for (let n = 0; n < TRIES; n++) {
    const lays = Array.from({ length: 3 }, () => ({
      coils: Math.floor(3 * random()),
      bendDeg: 45 * (1 + Math.floor(8 * random())),
    }))
    const pushN = lays.map((lay) => windowOf(withValues(base, lay)).pushN ?? Infinity)
    const sorted = [...pushN].sort((a, b) => b - a)
    // Told apart by whoever looks, not by a hair.
    if ((sorted[0] ?? 0) > 1.25 * (sorted[1] ?? 0)) return { lays, pushN, hardest: pushN.indexOf(sorted[0] ?? 0) }
  }
  const lays = [
    { coils: 2, bendDeg: 180 },
    { coils: 0, bendDeg: 180 },
    { coils: 0, bendDeg: 90 },
  ]
  return { lays, pushN: lays.map((lay) => windowOf(withValues(base, lay)).pushN ?? Infinity), hardest: 0 }
}
const TRIES = 30

/** A liner that stands out too far. */
export interface TrimTask {
  standsMm: number
  wantedMm: number
}
/** A cut takes what it was set for, give or take what cutters and hands do. */
const CUT_SD = 0.06
const LEAST_SD_MM = 0.15
export const drawTrim = (random: () => number): TrimTask => ({
  wantedMm: pick(random, [6, 10, 19, 22]),
  standsMm: Math.round(40 + 60 * random()),
})
export function cutBy(standsMm: number, cutMm: number, normal: number): number {
  if (!(cutMm > 0)) throw new RangeError(`cutBy: expected a cut > 0 mm, got ${cutMm}`)
  return standsMm - Math.max(0, cutMm + normal * Math.max(LEAST_SD_MM, CUT_SD * cutMm))
}
const CLOSE_MM = 0.75
/** Within three quarters of a millimetre it fits; shorter the liner is scrap; longer another slice comes off. */
export const trimVerdict = ({ standsMm, wantedMm }: TrimTask): 'fits' | 'long' | 'scrap' =>
  standsMm < wantedMm - CLOSE_MM ? 'scrap' : standsMm > wantedMm + CLOSE_MM ? 'long' : 'fits'
