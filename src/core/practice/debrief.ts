import { causeOf, type Belief, type Index } from '@core/diagnose/belief.ts'
import { type CausePlace } from '@core/path/columns.ts'
import { groupNamed } from '@core/diagnose/moves.ts'
import { type Check } from '@core/diagnose/knowledge.ts'
import { expectedOf, expectedOfFix, planned } from '@core/diagnose/plan.ts'
import { standingOf, withLikeliest } from '@core/diagnose/rules.ts'
import { after, isRunning, openDrill, type DrillAct, type DrillStep, type Scenario } from './drill.ts'
import { actOf, bestPlay, reckonedOf } from './engine.ts'

/** What one act was worth: minutes to go as they stood before and after it, and what the better one would have saved. */
export interface Worth {
  step: DrillStep
  /** Where on the path it was had; `off`: nowhere on the wire. */
  at: CausePlace
  /** Minutes it was expected to take from there on, before it. */
  beforeMin: number
  /** How much of the doubt it took away, bit. */
  bits: number
  /** Minutes it was expected to cost over the best that could have been done then; 0: as good as that. */
  lostMin: number
  /** What would have been best then; null: this was. */
  better: DrillAct | null
}
export interface Debrief {
  worth: Worth[]
  minutes: number
  bestMin: number
  /** Best over own, 0 to 1: 1 is as quick as the program with the same luck. */
  score: number
  best: readonly DrillStep[]
  /** The act after which most was lost. */
  split: Worth | null
}
/** Less than this nobody would notice. */
const NOTICED_MIN = 0.75

/** The drill gone over again: what each look told, and where the minutes went. */
export function debriefOf(knowledge: Index, scenario: Scenario, acts: readonly DrillAct[]): Debrief {
  let state = openDrill(scenario)
  let told = reckonedOf(knowledge, scenario, state)
  const worth: Worth[] = []
  for (const act of acts) {
    if (isRunning(state)) break
    const before = state
    state = after(knowledge, { scenario, state: before }, act)
    const step = state.steps.at(-1)
    if (state === before || !step) continue
    const [best] = planned(told)
    const since = reckonedOf(knowledge, scenario, state)
    // Asked, or tried once more: it costs its minutes and is no choice among looks.
    const isChoice = act.do !== 'hint' && act.do !== 'bead'
    const own = expectedFrom(told, act)
    const bestMin = best?.expectedMin ?? 0
    const lost = own === null ? step.minutes : Math.max(0, own - bestMin)
    worth.push({
      step,
      at: placeOf(knowledge, act),
      beforeMin: bestMin,
      bits: Math.max(0, doubt(told.belief) - doubt(since.belief)),
      lostMin: lost < NOTICED_MIN ? 0 : lost,
      better: best && isChoice && lost >= NOTICED_MIN ? actOf(best) : null,
    })
    told = since
  }
  const best = bestPlay(knowledge, scenario)
  const [split] = [...worth].filter((w) => w.better).sort((a, b) => b.lostMin - a.lostMin)
  return {
    ...{ worth, minutes: state.minutes, bestMin: best.minutes, best: best.steps },
    score: scoreOf(state.minutes, best.minutes),
    split: split ?? null,
  }
}
/** Best over own, at most 1. */
export const scoreOf = (minutes: number, bestMin: number): number => (minutes > 0 ? Math.min(1, bestMin / minutes) : 1)

/** Minutes from here if this is done next; null: it tells and mends nothing. */
function expectedFrom(told: ReturnType<typeof reckonedOf>, act: DrillAct): number | null {
  const { knowledge } = told.belief
  if (act.do === 'look') {
    const check = knowledge.checkOf.get(act.key)
    return check && !told.done.has(check.key) ? expectedOf(told, check) : null
  }
  if (act.do !== 'fix') return null
  const group = groupNamed(knowledge, act.key)
  const cause = group ? knowledge.causes[group.causes[0] ?? -1] : undefined
  if (!group || !cause) return null
  const step = withLikeliest({ kind: 'fix', group, cause }, standingOf(told).marginal, knowledge)
  return step.kind === 'fix' ? expectedOfFix(told, step) : null
}

/** Entropy of what may be wrong, bit. */
export function doubt({ weights }: Pick<Belief, 'weights'>): number {
  let bits = 0
  for (const w of weights) if (w > 0) bits -= w * Math.log2(w)
  return bits
}

/** Where it is had: the place that most of what it can show is at. */
export function placeOf(knowledge: Index, act: DrillAct): CausePlace {
  if (act.do !== 'look' && act.do !== 'fix') return 'off'
  if (act.do === 'fix') {
    const group = groupNamed(knowledge, act.key)
    return knowledge.causes[group?.causes[0] ?? -1]?.at ?? 'off'
  }
  const check = knowledge.checkOf.get(act.key)
  return check ? placeOfLook(knowledge, check) : 'off'
}
/** Looks that speak of the whole way and are had at one place. */
const HAD_AT: Readonly<Record<string, CausePlace>> = {
  ...{ nestOut: 'rolls', watchRolls: 'rolls', block: 'rolls', pull: 'liner', tipFree: 'tip', tipSwap: 'tip' },
  ...{ arcLook: 'off', arcSettles: 'off', handWatch: 'off', booths: 'off' },
}
export function placeOfLook(knowledge: Index, check: Pick<Check, 'outcomes' | 'key'>): CausePlace {
  const had = HAD_AT[check.key]
  if (had) return had
  const counts = new Map<CausePlace, number>()
  for (const key of check.outcomes.flatMap((o) => o.points)) {
    const at = causeOf(knowledge, key)?.at
    if (at) counts.set(at, (counts.get(at) ?? 0) + 1)
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1])
  return most?.[0] ?? 'off'
}
