import { type SchoolOf } from '@core/houserule/schools.ts'
import { type ReliedSymptom } from './relied.ts'
import { marginals } from './belief.ts'
import { minutesOf, type Check, type Sign } from './knowledge.ts'
import { allMoves } from './moves.ts'
import { isAskable, type PlanAt } from './ratio.ts'

/**
 * Setting a machine by a row of beads: one value at a time, and back where it is not better.
 *
 *   what is seen ──(the equipment may be behind it)──> one minute on the equipment ──all well──> trial ──better──> next trial … ──> kept
 *        │                                              └──something──> the search             └──same, worse──> back, next trial
 *        └──(none)──────────────────────────────────────────────────────────────────────────────^
 * 1. A trial changes one value; it begins from the best so far.
 * 2. What is not better goes back: two changes at once cannot be told apart.
 */
export const TUNED = ['wireSpeed', 'volts', 'trim', 'flow', 'stickOut'] as const
export type Tuned = (typeof TUNED)[number]
export const SAWS = ['better', 'same', 'worse'] as const
export type Saw = (typeof SAWS)[number]
/** Whether the equipment was looked at first: all well there, left out, or nothing asked for it. */
export const TUNE_GUARDS = ['clear', 'leftOut', 'notAsked'] as const
export type TuneGuard = (typeof TUNE_GUARDS)[number]
/** m/min, V, trim marks, L/min, mm. */
export type TunedValues = Partial<Record<Tuned, number>>
export interface Trial {
  name: Tuned
  /** Null: nobody knows what it stood at. */
  from: number | null
  to: number
  saw: Saw
}
/** What a machine can be set to; wider than any use of it. */
export const TUNED_SPAN: Record<Tuned, readonly [low: number, high: number]> = {
  wireSpeed: [0.5, 40],
  volts: [8, 60],
  trim: [-50, 200],
  flow: [0, 60],
  stickOut: [1, 100],
}

/** Where each value stands after some trials: as it was changed where that was better, else back. */
export function valuesAfter(start: TunedValues, trials: readonly Trial[]): TunedValues {
  const values = { ...start }
  for (const { name, from, to, saw } of trials) {
    if (saw === 'better') values[name] = to
    else if (from !== null) values[name] = from
  }
  return values
}

export interface NextTrial {
  name: Tuned
  /** Which way, where the sign tells; null: either. */
  way: 'up' | 'down' | null
  because: 'speedFirst' | 'together' | 'notYet'
}
/** Wire speed sets current, voltage arc length: which way each goes for a sign. Guesses. */
const WAY: Partial<Record<ReliedSymptom, Partial<Record<Tuned, 'up' | 'down'>>>> = {
  stubs: { volts: 'up', wireSpeed: 'down' },
  longArc: { volts: 'down', wireSpeed: 'up' },
  burnThrough: { wireSpeed: 'down' },
  burnback: { wireSpeed: 'up', stickOut: 'up' },
}
const WAY_OF: ReadonlyMap<string, Partial<Record<Tuned, 'up' | 'down'>>> = new Map(Object.entries(WAY))
/** Over so much of a change of speed the voltage has to follow. A guess. */
const TOGETHER = 0.1

/**
 * What to change next: wire speed before voltage; after a change of speed of a tenth or more that was kept, voltage once more, for both set one
 * arc; then what has not been tried. Null: all of it was tried.
 */
export function nextTrial(
  trials: readonly Trial[],
  symptom: string | null,
  has: readonly Tuned[] = TUNED,
): NextTrial | null {
  const way = (name: Tuned) => WAY_OF.get(symptom ?? '')?.[name] ?? null
  const last = trials.findLastIndex((t) => t.name === 'wireSpeed' && t.saw === 'better')
  const speed = trials[last]
  const isFar = speed?.from != null && Math.abs(speed.to / speed.from - 1) >= TOGETHER
  const arcLength = has.includes('volts') ? 'volts' : 'trim'
  if (isFar && !trials.slice(last + 1).some((t) => t.name === arcLength))
    return { name: arcLength, way: speed.to > (speed.from ?? 0) ? 'up' : 'down', because: 'together' }
  const name = has.find((n) => !trials.some((t) => t.name === n))
  if (!name) return null
  return { name, way: way(name), because: name === 'wireSpeed' ? 'speedFirst' : 'notYet' }
}

export type TrialFault = 'same' | 'span'
/** What is wrong with a trial before it is made; null: nothing. */
export function trialFault({ name, from, to }: Pick<Trial, 'name' | 'from' | 'to'>): TrialFault | null {
  const [low, high] = TUNED_SPAN[name]
  if (!(to >= low && to <= high)) return 'span'
  return from === to ? 'same' : null
}

/** An arc that is watched, or somebody who is asked, is no look at the equipment. */
const OF_THE_EQUIPMENT: ReadonlySet<Sign> = new Set(['look', 'feel', 'reading', 'test'])
/** A minute is a minute. */
const MINUTE = 1.05
/**
 * One minute on the equipment before a setting is touched: of the quick looks, those that most likely show what the feed or the front end has,
 * Σ P(cause) · P(shown) by their minutes, until a minute is full. What a setting, a hand or the work causes is not looked for here.
 */
export function minuteChecks(at: PlanAt): Check[] {
  const { knowledge } = at.belief
  const marginal = marginals(at.belief)
  const looks = allMoves(knowledge).flatMap(({ step, hits }) => {
    if (step.kind !== 'check' || !isAskable(at, step.check) || step.check.mends) return []
    if (!OF_THE_EQUIPMENT.has(step.check.sign)) return []
    const shown = hits.reduce(
      (sum, h) => sum + (isEquipment(knowledge.causes[h.cause]?.kind) ? (marginal[h.cause] ?? 0) * h.chance : 0),
      0,
    )
    return shown > 0 ? [{ check: step.check, worth: shown / minutesOf(step.check) }] : []
  })
  const picked: Check[] = []
  let left = MINUTE
  for (const { check } of looks.sort((a, b) => b.worth - a.worth)) {
    if (minutesOf(check) > left) continue
    picked.push(check)
    left -= minutesOf(check)
  }
  return picked
}

/** From this chance of the equipment a minute on it comes before a setting. A guess. */
const EQUIPMENT_LIKELY = 0.25
/**
 * Whether one minute on the equipment is asked for before a setting (D26): always where equipment comes first; where technique does, only with the
 * gun down or a feed sign on it; else also where what is seen is the equipment's in one case of four.
 */
export function isMinuteAsked(
  at: PlanAt,
  { hints, blame, isDown }: { hints: Parameters<typeof hasFeedSign>[1]; blame: SchoolOf<'D26'>; isDown: boolean },
): boolean {
  if (blame === 'machine' || isDown || hasFeedSign(at, hints)) return true
  if (blame === 'hand') return false
  const { knowledge } = at.belief
  const chance = marginals(at.belief).reduce((sum, p, i) => sum + (isEquipment(knowledge.causes[i]?.kind) ? p : 0), 0)
  return chance >= EQUIPMENT_LIKELY
}
const isEquipment = (kind: string | undefined) => ['feed', 'frontEnd', 'gas', 'circuit'].includes(kind ?? '')

/** Kinds of sign that a gun's own state may give for its feed or front end, so that a setting is not touched before they are looked at. */
function hasFeedSign(at: PlanAt, hints: readonly { cause: string; factor: number; sign: unknown }[]): boolean {
  const { knowledge } = at.belief
  const kindOf = (key: string) => knowledge.causes[knowledge.causeAt.get(key) ?? -1]?.kind
  return hints.some((h) => h.sign !== null && h.factor > 1 && ['feed', 'frontEnd'].includes(kindOf(h.cause) ?? ''))
}
