import { marginals } from './belief.ts'
import { isAbout, minutesOf, type Cause, type Check } from './knowledge.ts'
import { expectedOf, type Planned } from './plan.ts'
import { isAskable, type PlanAt } from './ratio.ts'
import { isSettled } from './rules.ts'

/** Schools of what is looked at first, where the shop chose another than the sign: what each is about. */
const ABOUT: Record<string, (cause: Cause) => boolean> = {
  tip: (c) => c.at === 'tip',
  clean: (c) => c.fix.act === 'cleaned',
  liner: (c) => c.at === 'liner' && c.kind === 'feed',
  seat: (c) => c.at === 'pin' && c.kind !== 'gas',
}
const LIKELY = 0.01

/**
 * The order with the shop's own first look in front: the quickest look at what its school names, once, where the symptom leaves it possible.
 * `cost`: minutes it is expected to take over the order by sign, 0 where they agree. By sign, once that look was had, or while
 * what comes next is settled (a nest is cut out, a proof is had): as it is.
 */
export function withSchool(plan: readonly Planned[], at: PlanAt, school: string): { plan: Planned[]; cost: number } {
  const first = ABOUT[school] && !isSettled(at) ? firstLook(at, ABOUT[school]) : null
  if (!first) return { plan: [...plan], cost: 0 }
  const others = plan.filter((p) => p.step.kind !== 'check' || p.step.check.key !== first.key)
  const expectedMin = expectedOf(at, first)
  const cost = Math.max(0, expectedMin - (plan[0]?.expectedMin ?? expectedMin))
  return { plan: [{ step: { kind: 'check', check: first }, expectedMin }, ...others], cost }
}

function firstLook(at: PlanAt, isOfSchool: (cause: Cause) => boolean): Check | null {
  const { knowledge } = at.belief
  const marginal = marginals(at.belief)
  const listed = new Set(knowledge.symptoms.find((s) => s.key === at.belief.symptom)?.causes)
  const about = new Set(
    knowledge.causes
      .filter((c, i) => isOfSchool(c) && listed.has(c.key) && (marginal[i] ?? 0) > LIKELY)
      .map((c) => c.key),
  )
  const looks = knowledge.checks.filter((c) => isAbout(c, about))
  if (looks.some((c) => at.done.has(c.key))) return null
  const open = looks.filter((c) => isAskable(at, c))
  return [...open].sort((a, b) => minutesOf(a) - minutesOf(b))[0] ?? null
}
