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
  FITTED_KINDS,
  gasesFor,
  isSameSize,
  polarityFor,
  ROLL_SETTINGS,
  type Settings,
} from '@core/rightparts/facts.ts'
import { check, findingsAt, rightPart, withPart, type Stocked } from '@core/rightparts/check.ts'
import { type Finding } from '@core/rightparts/finding.ts'
import { readFor, rollReads } from '@core/rightparts/rollrules.ts'

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
  shop: { parts: readonly Stocked[]; keptIds?: readonly string[]; isGuideOut?: boolean; guideId?: string | null },
): ChangePlan {
  let setup = aimed(from, target)
  const outletGuide = guideMove(setup, shop.isGuideOut ?? false)
  if (outletGuide !== 'stays') setup = moveGuide(setup, outletGuide, shop)
  const swaps: Swap[] = []
  const unknown: KindKey[] = []
  // In path order: what is changed first decides what the later ones have to suit.
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
  const turns = turnsOf(
    setup,
    swaps.some((s) => s.kindKey === 'rolls'),
  )
  const settings = settingsFor(from, setup, turns)
  const to = { ...setup, settings: { ...setup.settings, ...settings } }
  const swapped = new Set(swaps.map((s) => s.kindKey))
  return {
    from,
    to,
    swaps,
    turns: turns.length > 0 && turns[0] ? { rolls: turns.map((t) => t.roll), readMm: turns[0].readMm } : null,
    outletGuide,
    stays: FITTED_KINDS.flatMap((k) => (swapped.has(k) ? [] : (setup.parts[k] ?? []))),
    unknown,
    settings,
    left: check(to).filter((f) => f.severity !== 'note'),
  }
}

const asksForChange = (f: Finding) => f.severity !== 'note' && f.remedy.do === 'change' && f.rule !== 'rollOdd'

function aimed(from: Setup, target: Target): Setup {
  const { procedure } = target
  const gas = target.gas ?? procedure?.gas ?? fittingGas(from.gas, target.wire)
  const { tipOut: _read, ...settings } = from.settings
  return {
    ...from,
    // Where the tip stands was read with the old nozzle and mode.
    settings,
    wire: target.wire,
    procedure: procedure ?? null,
    mode: target.mode ?? procedure?.mode ?? from.mode,
    gas,
  }
}

/** The gas that is on stays where it goes with the new wire; else the only one that does; else it is not told. */
function fittingGas(gas: Gas | null, wire: WireFacts): Gas | null {
  const fits = gasesFor(wire)
  if (!fits || !gas || fits.includes(gas)) return gas
  return fits[0] ?? null
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

/** Which rolls have to be turned, or fitted this way round. */
function turnsOf(setup: Setup, isNewSet: boolean): { roll: number; readMm: number }[] {
  const roll = setup.parts['rolls']
  if (!roll || !setup.wire || !roll.fit?.grooves) return []
  const readMm = readFor(roll, setup.wire, setup.feeder?.runsFace ?? 'read')
  if (readMm === null) return []
  return rollReads(setup).flatMap((read, i) =>
    isNewSet || (read !== null && !isSameSize(read, readMm)) ? [{ roll: i + 1, readMm }] : [],
  )
}

/** What has to be set, and how it stands afterwards; only what changes or is not known. */
function settingsFor(from: Setup, to: Setup, turns: readonly { roll: number; readMm: number }[]): Settings {
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
  const gas = from.settings.gas ?? from.gas
  if (to.gas && gas !== to.gas) set.gas = to.gas
  if (to.feeder?.unwind && from.settings.unwind !== to.feeder.unwind) set.unwind = to.feeder.unwind
  return set
}
