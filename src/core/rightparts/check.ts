import { type KindKey } from '@core/path/columns.ts'
import { type LiesAt } from '@core/stock/onhand.ts'
import { alloyOf, grooveFor, isSoft, type PartFacts, type Setup, type WireFacts } from './facts.ts'
import { jobRules } from './chooser.ts'
import { isWorseFinding, type Finding, type RuleKey } from './finding.ts'
import { frontRules } from './frontrules.ts'
import { proofRules } from './proofrules.ts'
import { rollRules } from './rollrules.ts'
import { supplyRules } from './supplyrules.ts'
import { wireRules } from './wirerules.ts'

/**
 * Is the gun built right for the wire that is on it: every rule of fit over the whole path, worst first. What nobody has told
 * gives no finding, so a gun of which nothing is known is not accused of anything.
 * @example check(setupOf('0.9 solid', { tip: 'tip 1.2' })).map((f) => f.rule) // ['tipLarge']
 */
export function check(setup: Setup): Finding[] {
  return [
    ...wireRules(setup),
    ...rollRules(setup),
    ...frontRules(setup),
    ...supplyRules(setup),
    ...jobRules(setup),
    ...proofRules(setup),
  ].sort(isWorseFinding)
}

export const doesStop = (findings: readonly Finding[]) => findings.some((f) => f.severity === 'stops')

/** What of the chain procedure–spool–rolls–liner–tip–polarity–machine is known, and whether it agrees (P027). */
export const CHAIN = ['procedure', 'spool', 'rolls', 'liner', 'tip', 'polarity', 'machine'] as const
export type Link = (typeof CHAIN)[number]
export interface ChainLink {
  link: Link
  is: 'agrees' | 'wrong' | 'not told'
}

const LINK_OF: Partial<Record<RuleKey, Link>> = {
  otherWire: 'procedure',
  otherMode: 'procedure',
  otherGas: 'procedure',
  procedurePolarity: 'procedure',
  wireThick: 'procedure',
  wrongAlloy: 'procedure',
  unwind: 'spool',
  rollOdd: 'rolls',
  rollTurned: 'rolls',
  grooveShape: 'rolls',
  grooveSize: 'rolls',
  linerSmall: 'liner',
  linerLarge: 'liner',
  linerKind: 'liner',
  linerShort: 'liner',
  tipSmall: 'tip',
  tipLarge: 'tip',
  tipPlain: 'tip',
  tipWide: 'tip',
  polarity: 'polarity',
  machineWire: 'machine',
  machineMode: 'machine',
  machineMaterial: 'machine',
}

/** One verdict over the chain: it holds, a link is wrong, or so much is not told. */
export function chainOf(setup: Setup, findings: readonly Finding[]): ChainLink[] {
  const wrong = new Set(findings.filter((f) => f.severity !== 'note').map((f) => LINK_OF[f.rule]))
  const isTold: Record<Link, boolean> = {
    procedure: setup.procedure !== null,
    spool: setup.wire !== null,
    rolls: Boolean(setup.parts['rolls']),
    liner: Boolean(setup.parts['liner']),
    tip: Boolean(setup.parts['tip']),
    polarity: setup.settings.polarity !== undefined,
    machine: setup.settings.machineWire !== undefined,
  }
  return CHAIN.map((link) => ({ link, is: wrong.has(link) ? 'wrong' : isTold[link] ? 'agrees' : 'not told' }))
}

/** Residue that is no fault (P021). */
export function normalOn(wire: WireFacts): string | null {
  if (wire.fit?.grade === 'deoxidised') return 'brown glassy islands on the bead are normal on this wire; they chip off'
  if (wire.fit?.grade === 'plain')
    return 'it wants clean metal: holes and a dull bead over rust, scale or paint are the surface, not the gun'
  if (wire.construction === 'flux-cored') return 'slag over the bead is normal on flux-cored wire'
  return alloyOf(wire).startsWith('aluminium') ? 'a little black soot beside the bead is normal on aluminium' : null
}

export interface Stocked extends PartFacts {
  /** All places together. */
  onHand: number | null
  /** Place by place where it lies. */
  lies?: readonly LiesAt[]
  priceMinor: number | null
}

/** A part put in place of what is on; rolls are taken to be turned right. */
export function withPart(setup: Setup, part: PartFacts): Setup {
  const { roll1: _1, roll2: _2, roll3: _3, roll4: _4, ...settings } = setup.settings
  return {
    ...setup,
    settings: part.kindKey === 'rolls' ? settings : setup.settings,
    parts: { ...setup.parts, [part.kindKey]: part },
  }
}

const FRONT_KINDS = new Set(['neck', 'diffuser', 'clampring', 'insulator', 'nozzle', 'orings'])
/** Judged by the wire and by their family. */
const BOTH_KINDS = new Set(['tip', 'liner', 'jump'])

/** Findings at one position as the gun stands. */
export const findingsAt = (setup: Setup, kindKey: KindKey) => check(setup).filter((f) => f.at === kindKey)

/** Findings at the part's own position if it were on; only rules that speak of that kind are asked. */
export function findingsWith(setup: Setup, part: PartFacts): Finding[] {
  const to = withPart(setup, part)
  const found =
    part.kindKey === 'rolls'
      ? rollRules(to)
      : BOTH_KINDS.has(part.kindKey)
        ? [...wireRules(to), ...frontRules(to)]
        : FRONT_KINDS.has(part.kindKey)
          ? frontRules(to)
          : wireRules(to)
  return [...found, ...proofRules(to)].filter((f) => f.at === part.kindKey).sort(isWorseFinding)
}

/**
 * What to put on: of the shop's parts of that kind the one with which nothing is found there; on the shelf first, then of the
 * gun's own family, then told in more detail, then the shortest liner, then the cheaper, then by code. Null when the shop has none that fits.
 */
export function rightPart(setup: Setup, kindKey: KindKey, parts: readonly Stocked[]): Stocked | null {
  const rank = (p: Stocked) => [
    p.onHand === 0 ? 1 : 0,
    p.familyId === setup.family?.id ? 0 : 1,
    p.fit ? 0 : 1,
    kindKey === 'liner' ? (p.fit?.lengthM ?? 0) : 0,
    p.priceMinor ?? 1e12,
  ]
  return (
    ofKind(parts, kindKey)
      .filter((p) => saysEnough(p, setup.wire))
      .map((part) => ({ part, rank: rank(part) }))
      .sort((a, b) => compareLists(a.rank, b.rank) || (a.part.code < b.part.code ? -1 : 1))
      .find(({ part }) => isClean(findingsWith(setup, part)))?.part ?? null
  )
}

/** A shop's parts by kind, sorted out once per list: a floor asks for dozens of guns. */
const byKind = new WeakMap<readonly Stocked[], Map<string, Stocked[]>>()
function ofKind(parts: readonly Stocked[], kindKey: KindKey): readonly Stocked[] {
  const known = byKind.get(parts)
  if (known) return known.get(kindKey) ?? []
  const made = new Map<string, Stocked[]>()
  for (const p of parts) made.set(p.kindKey, [...(made.get(p.kindKey) ?? []), p])
  byKind.set(parts, made)
  return made.get(kindKey) ?? []
}

const isClean = (findings: readonly Finding[]) => findings.every((f) => f.severity === 'note')
/** A part nobody has described fits everything as far as anyone knows: it is not offered. */
function saysEnough(p: Stocked, wire: WireFacts | null): boolean {
  if (wire && p.kindKey === 'rolls' && grooveFor(wire) !== 'V' && !p.fit?.grooves) return false
  if (wire && (p.kindKey === 'liner' || p.kindKey === 'jump') && isSoft(wire) && !p.fit?.linerKind) return false
  return p.sizeMm !== null || p.fit !== null || p.familyId !== null
}

function compareLists(a: readonly number[], b: readonly number[]): number {
  for (const [i, value] of a.entries()) if (value !== b[i]) return value - (b[i] ?? 0)
  return 0
}
