import { type KindKey } from '@core/path/columns.ts'
import {
  type PartFacts,
  type Setup,
  type WireFacts,
  type ProcedureFacts,
  type Gas,
  type Mode,
} from '@core/rightparts/facts.ts'
import {
  alloyOf,
  canCarry,
  FITTED_KINDS,
  gasesFor,
  isCored,
  isSameSize,
  polarityFor,
  ROLL_SETTINGS,
  type Settings,
} from '@core/rightparts/facts.ts'
import { check, findingsAt, rightPart, withPart, type Stocked } from '@core/rightparts/check.ts'
import { type Finding } from '@core/rightparts/finding.ts'
import { readFor, rollReads } from '@core/rightparts/rollrules.ts'
import { gasOn } from '@core/rightparts/supplyrules.ts'

/** What the gun is to run next. Mode and gas stay as they are where they are not given. */
export interface Target {
  wire: WireFacts
  procedure?: ProcedureFacts | null
  mode?: Mode | null
  gas?: Gas | null
}

export interface Swap {
  kindKey: KindKey
  from: PartFacts | null
  /** Null: the shop has none that fits. */
  to: Stocked | null
  /** Why it cannot stay. */
  because: Finding
  /** Taken out good: it goes back when the wire does. */
  isKept: boolean
}
export interface ChangePlan {
  from: Setup
  /** The gun as it will stand. */
  to: Setup
  swaps: Swap[]
  /** Rolls to turn round, and the number to be read on them then. */
  turns: { rolls: number[]; readMm: number } | null
  /** The outlet guide comes out, or goes back in. */
  outletGuide: 'stays' | 'out' | 'back'
  /** On it now and right for the new wire. */
  stays: PartFacts[]
  /** Nobody knows what is on: look before the power is off. */
  unknown: KindKey[]
  settings: Settings
  /** Gases that would go as well, where nothing but what is usual here tells which. */
  gasChoice: readonly Gas[]
  /** Faces of rolls that stay and nobody has read, and the number that has to be read on them. */
  unread: { rolls: number[]; readMm: number } | null
  /** What is still wrong when all of it is done. */
  left: Finding[]
}

/** Taken out good they are put by; the others are cheap, or marked by what ran through them. */
const KEPT_KINDS = new Set(['inlet', 'rolls', 'outlet', 'liner', 'jump', 'nozzle'])

/**
 * From the gun as it stands to another wire: the same rules of fit run on the set-up to come, and every part with which
 * something would be found is swapped for one with which nothing is. Parts that were put by on this gun are taken first, so
 * there and back again ends with the same parts.
 */
export function planChange(
  from: Setup,
  target: Target,
  shop: {
    parts: readonly Stocked[]
    keptIds?: readonly string[]
    isGuideOut?: boolean
    guideId?: string | null
    /** Gases the shop has, the most used first; none told: any. */
    gases?: readonly Gas[]
  },
): ChangePlan {
  const gases = gasesTo(from, target, shop.gases ?? [])
  let setup = aimed(from, target, gases)
  const outletGuide = guideMove(setup, shop.isGuideOut ?? false)
  if (outletGuide !== 'stays') setup = moveGuide(setup, outletGuide, shop)
  const { swaps, unknown, ...made } = swapsFor(setup, shop)
  setup = made.setup
  const { turns, unread } = facesOf(
    setup,
    swaps.some((s) => s.kindKey === 'rolls'),
  )
  const settings = settingsFor(from, setup, [...turns, ...unread])
  const to = { ...setup, settings: { ...setup.settings, ...settings } }
  const swapped = new Set(swaps.map((s) => s.kindKey))
  return {
    from,
    to,
    swaps,
    turns: ofFaces(turns),
    unread: ofFaces(unread),
    gasChoice: gases.slice(1),
    outletGuide,
    stays: FITTED_KINDS.flatMap((k) => (swapped.has(k) ? [] : (setup.parts[k] ?? []))),
    unknown,
    settings,
    left: check(to).filter((f) => f.severity !== 'note'),
  }
}

/** Part by part in path order: what is changed first decides what the later ones have to suit. */
function swapsFor(before: Setup, shop: { parts: readonly Stocked[]; keptIds?: readonly string[] }) {
  let setup = before
  const swaps: Swap[] = []
  const unknown: KindKey[] = []
  for (const kindKey of FITTED_KINDS) {
    const on = setup.parts[kindKey]
    if (on === null && kindKey !== 'outlet') unknown.push(kindKey)
    if (!on) continue
    const because = findingsAt(setup, kindKey).find(asksForChange)
    if (!because) continue
    const to = keptOr(setup, kindKey, shop)
    swaps.push({ kindKey, from: on, to, because, isKept: KEPT_KINDS.has(kindKey) })
    if (to) setup = withPart(setup, to)
  }
  return { setup, swaps, unknown }
}
const asksForChange = (f: Finding) => f.severity !== 'note' && f.remedy.do === 'change' && f.rule !== 'rollOdd'

const modeOf = (from: Setup, { procedure, mode }: Target) => mode ?? procedure?.mode ?? from.mode

function aimed(from: Setup, target: Target, gases: readonly Gas[]): Setup {
  const { procedure } = target
  const gas = gases[0] ?? null
  const { tipOut: _read, ...settings } = from.settings
  return {
    ...from,
    // Where the tip stands was read with the old nozzle and mode.
    settings,
    wire: target.wire,
    procedure: procedure ?? null,
    mode: modeOf(from, target),
    gas,
  }
}

/**
 * The gas as told; else the one that is on, where it goes with the new wire and carries the mode; else those of the shop that do, by the metal's thickness where that is told, else the most used first;
 * where it has none of them, the usual one. None told of this gun: none.
 */
function gasesTo(from: Setup, target: Target, has: readonly Gas[]): readonly Gas[] {
  const told = target.gas ?? target.procedure?.gas
  if (told) return [told]
  if (!from.gas) return []
  const mode = modeOf(from, target)
  const fits = gasesFor(target.wire)?.filter((gas) => canCarry(gas, target.wire, mode))
  if (!fits || fits.length === 0 || fits.includes(from.gas)) return [from.gas]
  const here = has.filter((gas) => fits.includes(gas))
  return here.length > 0 ? byThickness(here, target) : fits.slice(0, 1)
}

/** Solid steel: pure CO2 burns into thick plate in one pass, mixed gas does not burn through sheet (P023). 3/16 and 1/8 in. */
const THICK_MM = 4.75
const THIN_MM = 3.2
/** Which gas first, where the procedure tells of the metal and more than one would go; else as they are used here. */
function byThickness(gases: readonly Gas[], target: Target): readonly Gas[] {
  const first = gasByMetal(target)
  return first && gases.includes(first) ? [first, ...gases.filter((g) => g !== first)] : gases
}
/** The gas that the thickness of the metal asks for; null where it does not tell. */
export function gasByMetal({ procedure, wire }: Pick<Target, 'procedure' | 'wire'>): Gas | null {
  const metal = procedure?.thicknessMm
  if (!metal || isCored(wire) || alloyOf(wire) !== 'steel') return null
  return metal[0] >= THICK_MM ? 'CO2' : metal[1] <= THIN_MM ? 'argon mix' : null
}

function keptOr(
  setup: Setup,
  kindKey: KindKey,
  shop: { parts: readonly Stocked[]; keptIds?: readonly string[] },
): Stocked | null {
  const kept = shop.parts.filter((p) => shop.keptIds?.includes(p.id))
  return rightPart(setup, kindKey, kept) ?? rightPart(setup, kindKey, shop.parts)
}

/** On feeders whose soft wire wants the liner at the rolls, the short metal guide comes out for it and back for the rest (P015). */
function guideMove(setup: Setup, isOut: boolean): ChangePlan['outletGuide'] {
  if (!setup.feeder?.runsLinerToRolls || !setup.wire) return isOut ? 'back' : 'stays'
  const isSoftNow = alloyOf(setup.wire).startsWith('aluminium')
  if (isSoftNow) return isOut ? 'stays' : 'out'
  return isOut ? 'back' : 'stays'
}

function moveGuide(
  setup: Setup,
  move: 'out' | 'back',
  shop: { parts: readonly Stocked[]; guideId?: string | null },
): Setup {
  const guide = move === 'out' ? null : (shop.parts.find((p) => p.id === shop.guideId) ?? null)
  return { ...setup, parts: { ...setup.parts, outlet: guide } }
}

interface Face {
  roll: number
  readMm: number
}
const ofFaces = (faces: readonly Face[]) =>
  faces[0] ? { rolls: faces.map((f) => f.roll), readMm: faces[0].readMm } : null
/** Which rolls have to be turned, or fitted this way round; and which nobody has read, of those that have more than one face. */
function facesOf(setup: Setup, isNewSet: boolean): { turns: Face[]; unread: Face[] } {
  const roll = setup.parts['rolls']
  if (!roll || !setup.wire || !roll.fit?.grooves) return { turns: [], unread: [] }
  const readMm = readFor(roll, setup.wire, setup.feeder?.runsFace ?? 'read')
  if (readMm === null) return { turns: [], unread: [] }
  const faces = rollReads(setup).map((read, i) => ({ read, roll: i + 1, readMm }))
  const [face, behind] = roll.fit.grooves
  const hasOther = face.sizeMm !== behind.sizeMm || face.shape !== behind.shape
  return {
    turns: faces.filter(({ read }) => isNewSet || (read !== null && !isSameSize(read, readMm))),
    unread: faces.filter(({ read }) => !isNewSet && read === null && hasOther),
  }
}

/** What has to be set, and how it stands afterwards; only what changes or is not known. */
function settingsFor(from: Setup, to: Setup, turns: readonly Face[]): Settings {
  const wire = to.wire
  if (!wire) return {}
  const set: Settings = {}
  for (const { roll, readMm } of turns) {
    const name = ROLL_SETTINGS[roll - 1]
    if (name) set[name] = String(readMm)
  }
  const polarity = polarityFor(wire, to.polarityBy)
  if (polarity && from.settings.polarity !== polarity) set.polarity = polarity
  if (from.settings.machineWire !== String(wire.diameterMm)) set.machineWire = String(wire.diameterMm)
  if (to.mode && from.settings.machineMode !== to.mode) set.machineMode = to.mode
  if (from.settings.machineMaterial !== alloyOf(wire)) set.machineMaterial = alloyOf(wire)
  const gas = gasOn(from)
  if (to.gas && gas !== to.gas) set.gas = to.gas
  if (to.feeder?.unwind && from.settings.unwind !== to.feeder.unwind) set.unwind = to.feeder.unwind
  return set
}
