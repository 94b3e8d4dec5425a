import { marginals } from './belief.ts'
import { type ReliedCause } from './relied.ts'
import { hasLook, isSettled, lookBefore } from './rules.ts'
import { minutesOf, type Cause } from './knowledge.ts'
import { groupNamed, stepKey, type FixGroup, type Step, actKey } from './moves.ts'
import { expectedOf, expectedOfFix, type Planned } from './plan.ts'
import { isAskable, type PlanAt } from './ratio.ts'

/** How the shop's rule for liners bears on a search (D06). */
export interface LinerRuling {
  school: string
  /** By signs: a sign that is enough holds. */
  isSigned: boolean
  /** Fresh tips that changed nothing in this stop, and how many the shop wants first. */
  tipsTried: number
  tipsFirst: number
}
export interface LinerFirst {
  plan: Planned[]
  /** Minutes it is expected to take over the order by sign; 0 where they agree. */
  cost: number
  /** What the rule did to the order; `apart`: by the rule it is due, and this stop is hardly it. */
  did: 'changeNow' | 'looksFirst' | 'tipsFirst' | 'liner last' | 'apart' | null
}

const LINER = actKey('changed', 'liner')
const LIKELY = 0.01
type FixStep = Extract<Step, { kind: 'fix' }>
const isLiner = ({ step }: Planned) => step.kind === 'fix' && step.group.key === LINER

/**
 * The order of a search under the shop's rule for liners: by signs a liner whose sign holds is changed once the looks of under a minute are had,
 * where a trouble of the feed is seen, wear of the liner leads, and no look of under three minutes is left at what is likelier; after tips it waits until so many
 * fresh ones changed nothing, and the next fresh tip stands in front instead; last of all it waits while anything else is left. Where the rule
 * changes nothing the order stays as it is.
 */
export function withLinerSchool(plan: readonly Planned[], at: PlanAt, rule: LinerRuling): LinerFirst {
  const as = (made: readonly Planned[], did: LinerFirst['did']): LinerFirst => ({
    plan: [...made],
    cost: did ? Math.max(0, (made[0]?.expectedMin ?? 0) - (plan[0]?.expectedMin ?? 0)) : 0,
    did,
  })
  const others = plan.filter((p) => !isLiner(p))
  if (rule.school === 'signs') {
    const now = rule.isSigned ? linerStep(at) : null
    if (!now || (plan[0] && isLiner(plan[0]))) return as(plan, now ? 'changeNow' : null)
    if (!doesWearLead(at, now.group)) return as(plan, 'apart')
    if (isSettled(at) || (plan[0] && isFirst(plan[0], at))) return as(plan, 'looksFirst')
    const look = lookBefore(at, now.group)
    if (look) {
      const first: Planned = { step: { kind: 'check', check: look }, expectedMin: expectedOf(at, look) }
      return as([first, ...plan.filter((p) => !isSame(p, first))], 'looksFirst')
    }
    return as([{ step: now, expectedMin: expectedOfFix(at, now) }, ...others], 'changeNow')
  }
  if (!plan[0] || !isLiner(plan[0])) return as(plan, null)
  const liner = plan.filter(isLiner)
  if (rule.school === 'last') return others.length > 0 ? as([...others, ...liner], 'liner last') : as(plan, null)
  if (rule.school !== 'afterTips' || rule.tipsTried >= rule.tipsFirst) return as(plan, null)
  const tip = isSettled(at) ? null : tipStep(at)
  if (tip) return as([tip, ...others.filter((p) => !isSame(p, tip)), ...liner], 'tipsFirst')
  return as(plan, null)
}
/** A look of under a minute: nobody opens a gun before it. */
const FREE_MIN = 1
/** A free look, or what was seen or known and is put right now. */
const isFirst = ({ step }: Planned, at: PlanAt) =>
  step.kind === 'check'
    ? minutesOf(step.check) <= FREE_MIN
    : step.group.causes.some((i) => at.shown?.includes(i) || at.known?.includes(i))
const WEAR: ReadonlySet<string> = new Set<ReliedCause>(['linerWorn', 'linerKinked', 'linerDirty'])
/** Wear of the liner is likeliest, or as likely as not, and no look of under three minutes is left at anything likelier. */
function doesWearLead(at: PlanAt, group: FixGroup): boolean {
  const { knowledge } = at.belief
  const marginal = marginals(at.belief)
  const ofWear = knowledge.causes.flatMap((c, i) => (WEAR.has(c.key) ? [marginal[i] ?? 0] : []))
  const most = Math.max(...ofWear)
  const likelier = knowledge.causes.flatMap((_, i) =>
    !group.causes.includes(i) && (marginal[i] ?? 0) > most ? [i] : [],
  )
  if (likelier.length > 0 && ofWear.reduce((a, b) => a + b, 0) < 0.5) return false
  return !hasLook(at, likelier, { mostMin: LOOK_MIN })
}
const LOOK_MIN = 2.9
const isSame = (a: Planned, b: Planned) => stepKey(a.step) === stepKey(b.step)

/** Changing the liner, told by the likeliest of what it mends; null where this symptom cannot be the liner, or it was changed already. */
function linerStep(at: PlanAt): FixStep | null {
  const { knowledge, symptom } = at.belief
  const group = groupNamed(knowledge, LINER)
  if (!group || (at.fixedTimes?.get(LINER) ?? 0) > 0) return null
  const marginal = marginals(at.belief)
  const listed = new Set(knowledge.symptoms.find((s) => s.key === symptom)?.causes)
  const [best] = group.causes
    .filter((i) => listed.has(knowledge.causes[i]?.key ?? '') && (marginal[i] ?? 0) > LIKELY)
    .sort((a, b) => (marginal[b] ?? 0) - (marginal[a] ?? 0))
  return best === undefined ? null : { kind: 'fix', group, cause: knowledge.causes[best] as Cause }
}
/** A fresh tip: as a trial, or once that was had as a fix. */
function tipStep(at: PlanAt): Planned | null {
  const { knowledge } = at.belief
  const swap = knowledge.checks.find((c) => c.mends === 'tip')
  if (swap && isAskable(at, swap)) return { step: { kind: 'check', check: swap }, expectedMin: expectedOf(at, swap) }
  const group = groupNamed(knowledge, 'changed tip')
  const cause = group && knowledge.causes[group.causes[0] ?? -1]
  if (!group || !cause) return null
  const step: FixStep = { kind: 'fix', group, cause }
  return { step, expectedMin: expectedOfFix(at, step) }
}
