import { type Position } from '@core/path/columns.ts'
import { backWorked, type Schedule } from '@core/clock/schedule.ts'
import { HOUR_MS } from '@core/units/time.ts'

/** What was touched last, as a hand says it: the question that narrows most. */
export const TOUCHED = [
  'tip',
  'front',
  'spool',
  'size',
  'rolls',
  'liner',
  'gun',
  'moved',
  'hit',
  'pressureUp',
  'pressureDown',
  'setting',
  'nothing',
  'unknown',
] as const
export type Touched = (typeof TOUCHED)[number]

/** What a change of each is likely to have left behind, and what it makes unlikely: by so much. Guesses. */
export const TOUCHED_MEANS: Record<Touched, readonly (readonly [factor: number, causes: readonly string[]])[]> = {
  tip: [
    [6, ['tipLoose', 'tipCrossed', 'tipWrong', 'tipThread', 'diffuserLoose']],
    [0.4, ['tipWorn']],
  ],
  front: [
    [6, ['insulatorLoose', 'insulatorCrossed', 'tipLoose', 'diffuserLoose', 'nozzleSlack']],
    [0.4, ['nozzleClogged', 'spatterBridge']],
  ],
  spool: [
    [
      8,
      [
        'wirePoor',
        'spoolReversed',
        'brakeLeft',
        'hubTight',
        'hubLoose',
        'hubPin',
        'spoolTangled',
        'wireWrong',
        'hubRing',
        'tipOn',
        'sharpEnd',
        'wireEnd',
        'shortSpool',
      ],
    ],
  ],
  size: [[10, ['sizeMix', 'tipWrong', 'rollWrong', 'linerWrong', 'settings', 'polarity', 'gasWrong']]],
  rolls: [[8, ['rollWrong', 'tensionHigh', 'tensionLow', 'gapOutlet', 'guideIn', 'armOpen']]],
  liner: [
    [8, ['linerFitting', 'linerShort', 'linerOverlong', 'linerWrong', 'gapOutlet', 'setScrew', 'tensionLow']],
    [0.2, ['linerWorn', 'linerDirty']],
  ],
  gun: [[8, ['gunOut', 'controlPlug', 'orings', 'gapOutlet', 'cableGas']]],
  moved: [
    [
      6,
      [
        'gasHose',
        'cableCoiled',
        'gunOut',
        'workClamp',
        'circuitOpen',
        'controlPlug',
        'rearSwitch',
        'draught',
        'cableBentPush',
      ],
    ],
  ],
  hit: [
    [8, ['frontBent', 'neckBent', 'crash', 'tipCrossed', 'nozzleCrooked', 'insulatorDead']],
    [4, ['linerKinked', 'cableInner', 'insulatorLoose', 'gasHose']],
  ],
  /** Raised to keep going: something holds the wire back, and it is hardly too low. */
  pressureUp: [
    [3, ['linerWorn', 'linerKinked', 'linerDirty', 'tipWorn', 'rollWorn', 'cableCoiled']],
    [6, ['tensionHigh', 'coredCrushed']],
    [0.3, ['tensionLow']],
  ],
  pressureDown: [
    [8, ['tensionLow']],
    [0.3, ['tensionHigh', 'coredCrushed']],
  ],
  setting: [[8, ['settings', 'ampsHigh', 'gasFlow', 'sizeMix', 'cylinderEmpty', 'polarity']]],
  /** It ran before with all of it: what only a hand brings about is hardly it, unless the shift before did it and nobody said. */
  nothing: [
    [
      0.3,
      [
        ...[
          'tipWrong',
          'tipThread',
          'tipCrossed',
          'tipOn',
          'insulatorCrossed',
          'nozzleCrooked',
          'rollWrong',
          'guideIn',
        ],
        ...[
          'linerWrong',
          'linerFitting',
          'linerShort',
          'linerOverlong',
          'setScrew',
          'spoolReversed',
          'brakeLeft',
          'hubRing',
        ],
        ...['wireWrong', 'sizeMix', 'polarity', 'gasWrong', 'tipStands'],
      ],
    ],
    [0.6, ['settings', 'ampsHigh', 'wirePoor']],
  ],
  unknown: [],
}

export interface TouchingAct {
  kind: string
  /** Put on to try, in a search: no change that could have begun it. */
  isTry?: boolean
  position: Position | null
  happenedMs: number
}
/** So long a change is the last change: a day's work, and no less than since the evening before. */
const RECENT_MS = 16 * HOUR_MS
const RECENT_WORK_MS = 8 * HOUR_MS
/** From when on a change counts: over a weekend Friday's does, since nothing ran in between. */
export const recentFrom = (schedule: Schedule | null, untilMs: number): number =>
  Math.min(untilMs - RECENT_MS, backWorked(schedule, untilMs, RECENT_WORK_MS))
const FRONT = new Set(['nozzle', 'insulator', 'diffuser', 'clampring', 'neck'])
const ROLLS = new Set(['rolls', 'inlet', 'outlet'])
/** From the log: the newest change lately; null: the log knows of none. What was done since the stop began is part of the search. */
export function touchedOf(
  acts: readonly TouchingAct[],
  at: { nowMs: number; stopMs: number | null; fromMs?: number | null },
): Touched | null {
  const until = at.stopMs ?? at.nowMs
  const from = Math.min(at.fromMs ?? until, until - RECENT_MS)
  const newest = acts
    .filter((a) => !a.isTry && a.happenedMs <= until && a.happenedMs > from)
    .sort((a, b) => b.happenedMs - a.happenedMs)
  // A tip that went on after a change of wire is part of it.
  if (newest.some((a) => a.kind === 'changedOver')) return 'size'
  for (const { kind, position } of newest) {
    if (kind === 'wireLoaded') return 'spool'
    if (kind === 'mounted') return 'gun'
    if (kind === 'tuned') return 'setting'
    if (kind !== 'fitted' || position === null) continue
    const part = position.split('#')[0] ?? position
    if (part === 'tip' || part === 'liner') return part
    if (part === 'orings') return 'gun'
    if (FRONT.has(part)) return 'front'
    if (ROLLS.has(part)) return 'rolls'
  }
  return null
}
