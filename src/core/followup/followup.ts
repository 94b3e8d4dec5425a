import { type QuestionCode, type SchoolOf } from '@core/houserule/schools.ts'
import { type Position, type KindKey } from '@core/path/columns.ts'
import { DAY_MS } from '@core/units/time.ts'
import { DEEP_EVERY, isDeepDue } from '@core/cleaning/interval.ts'
import { type FactKind } from '@core/ledger/event.ts'
import { FOLLOW_UPS, type FollowUp } from './keys.ts'

/**
 * What one act makes necessary afterwards, as data: event → task, when, why (P048 to P051, P073, P083, P148, P163, P169; D30).
 *
 *   trigger ──> open ──"done", or the thing itself looked at or set──> settled
 *                └──run for `lapseWorkedH` and nobody said──> lapsed: it is not asked for any more
 */
export interface FollowUpText {
  /** Kind it hangs at. */
  at: KindKey
  /** What is to be done, as an order. */
  do: string
  /** What the tap says that settles it. */
  done: string
  /** Now, or when the gun has run a little. */
  when: 'now' | 'afterRun'
  minutes: number
  /** The guide that shows how; null: none. */
  guide: string | null
}
export const FOLLOW_UP_TEXT: Record<FollowUp, FollowUpText> = {
  tension: { at: 'rolls', do: 'Set the tension', done: 'tension is set', when: 'now', minutes: 2, guide: 'wire' },
  freeFeed: {
    at: 'liner',
    do: 'Feed free: no jerk, then a short weld',
    done: 'it feeds and welds',
    when: 'now',
    minutes: 1,
    guide: null,
  },
  outlet: {
    at: 'outlet',
    do: 'Look at the outlet guide: rolls chew it',
    done: 'guide is good',
    when: 'now',
    minutes: 1,
    guide: 'guides',
  },
  seat: {
    at: 'orings',
    do: 'Look again that the gun is home: flush, then locked',
    done: 'gun is home',
    when: 'afterRun',
    minutes: 0.5,
    guide: 'gun',
  },
  orings: {
    at: 'orings',
    do: 'Look at the O-rings of the pin',
    done: 'O-rings are good',
    when: 'now',
    minutes: 1,
    guide: 'orings',
  },
  linerCheck: {
    at: 'liner',
    do: 'Look at liner, tip and rolls: the knob was raised',
    done: 'liner is looked at',
    when: 'now',
    minutes: 5,
    guide: 'liner',
  },
  reamer: {
    at: 'nozzle',
    do: 'Check that the reamer’s blade and clamp go with what is on now',
    done: 'reamer goes with it',
    when: 'now',
    minutes: 3,
    guide: null,
  },
  neckStraight: {
    at: 'neck',
    do: 'Check that the neck is straight: in the jig, or beside one that is known good',
    done: 'neck is straight',
    when: 'now',
    minutes: 2,
    guide: null,
  },
  cableLook: {
    at: 'liner',
    do: 'Look along the cable: flattened, cut, twisted where it is held',
    done: 'cable is good',
    when: 'now',
    minutes: 1,
    guide: null,
  },
  toolCentre: {
    at: 'neck',
    do: 'Check the tool centre',
    done: 'tool centre is right',
    when: 'now',
    minutes: 6,
    guide: null,
  },
  deepClean: {
    at: 'diffuser',
    do: 'Brush the diffuser out: its holes silt up behind a clean nozzle',
    done: 'diffuser is brushed out',
    when: 'now',
    minutes: 3,
    guide: 'diffuser',
  },
}

/** Worked hours after which nobody is asked any more: it ran. Guesses. */
const A_SHIFT_H = 8
const A_WEEK_H = 40
/** A gun has run a little after so long in working time: a guess. */
export const AFTER_RUN_H = 1

export type TriggerKey =
  | 'linerTension'
  | 'linerFeed'
  | 'linerRings'
  | 'spoolTension'
  | 'rollsTension'
  | 'rollsOutlet'
  | 'seated'
  | 'wasOut'
  | 'knobRaised'
  | 'otherPart'
  | 'knocked'
  | 'crashCentre'
  | 'crashNeck'
  | 'crashReamer'
  | 'crashCable'
  | 'neckOn'
  | 'cleanedOften'
/** It depends on the school that the shop holds. */
type ByRule = { [C in QuestionCode]: { code: C; schools: readonly SchoolOf<C>[] } }[QuestionCode]
export interface Trigger {
  follow: FollowUp
  /** What was done, in the past. */
  why: string
  lapseWorkedH: number
  /** Schools of a question under which it is asked; null: always. */
  onlyBy: ByRule | null
  /** Robots only: their torch and its station belong together. */
  onlyCells: boolean
}
const row = (follow: FollowUp, why: string, more: Partial<Trigger> = {}): Trigger => ({
  follow,
  why,
  lapseWorkedH: A_WEEK_H,
  onlyBy: null,
  onlyCells: false,
  ...more,
})
export const TRIGGERS: Record<TriggerKey, Trigger> = {
  linerTension: row('tension', 'liner changed', { onlyBy: { code: 'D30', schools: ['allFour', 'liner'] } }),
  linerFeed: row('freeFeed', 'liner changed'),
  linerRings: row('orings', 'the gun was out for its liner'),
  spoolTension: row('tension', 'wire loaded', {
    lapseWorkedH: A_SHIFT_H,
    onlyBy: { code: 'D30', schools: ['allFour', 'wire'] },
  }),
  rollsTension: row('tension', 'rolls changed', { onlyBy: { code: 'D30', schools: ['allFour'] } }),
  rollsOutlet: row('outlet', 'rolls changed'),
  seated: row('seat', 'gun seated'),
  wasOut: row('orings', 'the gun was out', { lapseWorkedH: A_SHIFT_H }),
  knobRaised: row('linerCheck', 'the knob was raised to keep going', {
    lapseWorkedH: Infinity,
    onlyBy: { code: 'D25', schools: ['forATime', 'never'] },
  }),
  otherPart: row('reamer', 'another part went on', { onlyCells: true }),
  knocked: row('toolCentre', 'a part came out knocked', { onlyCells: true }),
  // Whatever was welded since: a centre that is off makes scrap until somebody looks.
  crashCentre: row('toolCentre', 'the torch hit something', { onlyCells: true, lapseWorkedH: Infinity }),
  crashNeck: row('neckStraight', 'the torch hit something', { onlyCells: true }),
  crashReamer: row('reamer', 'the torch hit something', { onlyCells: true }),
  crashCable: row('cableLook', 'the torch hit something', { onlyCells: true }),
  neckOn: row('toolCentre', 'another neck went on', { onlyCells: true, lapseWorkedH: Infinity }),
  cleanedOften: row('deepClean', `the nozzle was cleaned ${DEEP_EVERY} times since`),
}

export interface Pending {
  sinceMs: number
  by: TriggerKey
}
export type PendingFollowUps = Partial<Record<FollowUp, Pending>>

/** What a fact says to the follow-ups of its carrier: which it opens, which it settles. */
export interface Happening {
  kind: FactKind
  position: Position | null
  /** Another part than was on, both known. */
  isOtherPart: boolean
  isKnocked: boolean
  /** The torch of a robot hit something. */
  hasCrashed: boolean
  /** A neck whose seat does not keep the tool centre went on. */
  isNeckOn: boolean
  /** A gun that hung before hangs again. */
  isSeatedAgain: boolean
  followedUp: FollowUp | null
  /** The knob was read and raised to keep a gun going. */
  isRaised: boolean
  /** Cleanings of the nozzle since the diffuser was clean, this one among them; 0: this was none. */
  nozzleCleanings: number
}

const ROBOT_FRONT = new Set(['tip', 'nozzle', 'diffuser', 'neck'])

export function opensFollowUps(h: Happening): TriggerKey[] {
  if (h.kind === 'wireLoaded') return ['spoolTension']
  if (h.isSeatedAgain) return ['seated', 'wasOut']
  const opened: TriggerKey[] = []
  if (h.isRaised) opened.push('knobRaised')
  if (h.isKnocked) opened.push('knocked')
  if (h.isNeckOn) opened.push('neckOn')
  if (h.hasCrashed) opened.push('crashCable', 'crashNeck', 'crashCentre', 'crashReamer')
  if (isDeepDue(h.nozzleCleanings)) opened.push('cleanedOften')
  if (h.kind !== 'fitted') return opened
  if (h.position === 'liner') opened.push('linerTension', 'linerFeed', 'linerRings', 'seated')
  if (h.position === 'rolls') opened.push('rollsTension', 'rollsOutlet')
  if (h.isOtherPart && ROBOT_FRONT.has(h.position ?? '')) opened.push('otherPart')
  return opened
}

/** Looking at the thing itself settles it too, said or not; tension is only settled by being said. */
export function settlesFollowUps(h: Happening): FollowUp[] {
  if (h.followedUp) return [h.followedUp]
  const isLook = h.kind === 'confirmed' || h.kind === 'fitted' || h.kind === 'cleaned'
  if (!isLook) return []
  if (h.kind === 'confirmed' && h.position === null) return ['outlet', 'orings', 'seat']
  if (h.position === 'outlet') return ['outlet']
  if (h.position === 'liner') return ['linerCheck']
  if (h.position === 'neck') return ['neckStraight']
  if (h.position === 'diffuser' && h.kind !== 'confirmed') return ['deepClean']
  return h.position === 'orings' ? ['orings'] : []
}

/** Applies one fact: what it settles first, then what it opens; opened again, it counts from then. */
export function followUp(pending: Map<FollowUp, Pending>, h: Happening, atMs: number): void {
  for (const done of settlesFollowUps(h)) pending.delete(done)
  for (const by of opensFollowUps(h)) pending.set(TRIGGERS[by].follow, { sinceMs: atMs, by })
}

/** However little was worked: nobody is asked after so long. */
const OLD_MS = 60 * DAY_MS

export interface FollowUpAt {
  nowMs: number
  isCell: boolean
  /** The school that holds here for a question. */
  schoolOf: (code: QuestionCode) => string
  /** Hours worked here since an instant. */
  workedHSince: (ms: number) => number
}
export interface OpenFollowUp extends Pending {
  follow: FollowUp
  /** Asked for now; else it waits until the gun has run. */
  isAsked: boolean
}

/** Whether the shop holds a school that asks for it. */
export function isHeld({ code, schools }: ByRule, schoolOf: FollowUpAt['schoolOf']): boolean {
  const held = schoolOf(code)
  return schools.some((s) => s === held)
}

/** What is still to be done at one place, of what its carriers left open. */
export function openFollowUps(pending: readonly PendingFollowUps[], at: FollowUpAt): OpenFollowUp[] {
  const open = new Map<FollowUp, OpenFollowUp>()
  for (const one of pending)
    for (const follow of FOLLOW_UPS) {
      const p = one[follow]
      if (!p || at.nowMs - p.sinceMs > OLD_MS) continue
      const { lapseWorkedH, onlyBy, onlyCells } = TRIGGERS[p.by]
      if ((onlyCells && !at.isCell) || (onlyBy && !isHeld(onlyBy, at.schoolOf))) continue
      const workedH = at.workedHSince(p.sinceMs)
      if (workedH > lapseWorkedH) continue
      const isAsked = FOLLOW_UP_TEXT[follow].when === 'now' || workedH >= AFTER_RUN_H
      const before = open.get(follow)
      if (!before || before.sinceMs < p.sinceMs) open.set(follow, { ...p, follow, isAsked })
    }
  return FOLLOW_UPS.flatMap((f) => open.get(f) ?? [])
}
