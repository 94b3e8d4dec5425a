import { type KindKey } from '@core/path/columns.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type RuleKey, type Severity } from '@core/rightparts/finding.ts'
import { type FollowUp } from '@core/followup/keys.ts'

/** What the check of the right parts found on this very gun. */
export interface FoundHere {
  rule: RuleKey
  at: KindKey | 'off'
  severity: Severity
}
/** The cause that each finding is; null: it says nothing of a stop. A new rule has to stand here. */
const CAUSE_OF: Record<RuleKey, string | null> = {
  tipSmall: 'tipWrong',
  tipLarge: 'tipWrong',
  tipPlain: 'tipWrong',
  tipWide: 'tipWrong',
  otherFamily: null,
  otherPin: 'gunOut',
  linerSmall: 'linerWrong',
  linerLarge: 'linerWrong',
  linerKind: 'linerWrong',
  linerSoft: 'linerWrong',
  linerShort: 'linerShort',
  jacketInNeck: 'linerWrong',
  jumpMissing: 'linerShort',
  guideSmall: 'sizeMix',
  guideLarge: 'sizeMix',
  guideSteel: 'sizeMix',
  grooveShape: 'rollWrong',
  grooveSize: 'rollWrong',
  rollTurned: 'rollWrong',
  rollOdd: 'rollWrong',
  fitRumour: null,
  fitClaimed: null,
  unwind: 'spoolReversed',
  polarity: 'polarity',
  gas: 'gasWrong',
  gasMode: 'gasWrong',
  tipPosition: 'tipStands',
  rating: 'torchSmall',
  nozzleStyle: 'nozzleSlack',
  reamerBlade: 'reamer',
  reamerClamp: 'reamer',
  otherWire: 'wireWrong',
  otherMode: 'settings',
  otherGas: 'gasWrong',
  procedurePolarity: 'polarity',
  machineWire: 'sizeMix',
  machineMode: 'settings',
  machineMaterial: 'settings',
  feederSlow: 'settings',
  wireThick: 'wireThick',
  wireThin: 'wireWrong',
  wrongAlloy: 'wireWrong',
  positionSpray: 'settings',
}
/** A part of another family is what its place makes of it. */
const OF_OTHER_FAMILY: Partial<Record<KindKey | 'off', string>> = {
  tip: 'tipThread',
  diffuser: 'tipThread',
  nozzle: 'nozzleSlack',
  insulator: 'insulatorCollar',
  liner: 'linerWrong',
  jump: 'linerWrong',
  orings: 'orings',
  rolls: 'rollWrong',
  neck: 'neckWorn',
}

/** The cause a finding is; null where it says nothing of a stop. */
export const causeOfFinding = ({ rule, at }: Pick<FoundHere, 'rule' | 'at'>): string | null =>
  rule === 'otherFamily' ? (OF_OTHER_FAMILY[at] ?? null) : CAUSE_OF[rule]

/** How much likelier it is than where nothing was found. Guesses. */
export const FOUND_FACTOR: Record<Severity, number> = { stops: 30, harms: 10, note: 1 }

/** Readings that are the fault itself, and not a sign of one: what is past its limit is put right. */
export const READ_IS: Partial<Record<ReadingKey, string>> = {
  hubDrag: 'hubTight',
  hubCoast: 'hubLoose',
  pinHome: 'gunOut',
  layout: 'cableCoiled',
  insulator: 'insulatorLoose',
  continuity: 'spatterBridge',
  clamp: 'workClamp',
  gasFlow: 'gasFlow',
  cylinder: 'cylinderEmpty',
  holes: 'diffuserBlocked',
  orings: 'orings',
  bore: 'tipWorn',
  nozzleOpen: 'nozzleClogged',
  gap: 'gapOutlet',
}

/** What was left undone after a change: it speaks for what it would have set right. Guesses. */
export const UNDONE: Record<FollowUp, readonly [factor: number, causes: readonly string[]] | null> = {
  tension: [5, ['tensionLow', 'tensionHigh']],
  freeFeed: null,
  outlet: [4, ['gapOutlet', 'guideIn', 'guideWorn']],
  seat: [6, ['gunOut']],
  orings: [4, ['orings']],
  linerCheck: [3, ['linerWorn', 'linerKinked', 'linerDirty', 'tipWorn']],
  reamer: [5, ['reamer']],
  neckStraight: [5, ['neckBent', 'crash']],
  cableLook: [4, ['cableRobot']],
  toolCentre: [10, ['crash']],
  deepClean: [4, ['diffuserBlocked']],
}
