import { type Index } from '@core/diagnose/belief.ts'
import { type Check } from '@core/diagnose/knowledge.ts'
import { fixGroups, type FixGroup } from '@core/diagnose/moves.ts'
import { stopSigns } from '@core/liner/signs.ts'
import { ordered, type SearchSchools } from '@core/diagnose/ordered.ts'
import { reckon, type Hint, type Said } from '@core/diagnose/session.ts'

export interface WalkedStep {
  key: string
  check: Check | null
  group: FixGroup | null
  /** What the answer pointed at; empty: all well there. */
  points: readonly string[]
  /** All that was said before it. */
  said: readonly Said[]
}
export interface WalkOf {
  symptom: string
  /** What is there; every look shows the first of it that it can. */
  causes: readonly string[]
  hints?: readonly Hint[]
  /** How the shop does it; by sign, by use, where nothing is said. */
  schools?: SearchSchools
}
export const BY_SIGN: SearchSchools = {
  first: 'bySign',
  liner: { school: 'byUse', isSigned: false, tipsTried: 0, tipsFirst: 2 },
}
const MOST = 60
/** A stop looked into to its end: every look answered by what is there, every fix of something else without help. */
export function walkStop(knowledge: Index, { symptom, causes, hints = [], schools = BY_SIGN }: WalkOf): WalkedStep[] {
  const said: Said[] = []
  const steps: WalkedStep[] = []
  const left = new Set(causes)
  const fixed = (group: FixGroup | undefined) =>
    group?.causes.forEach((i) => left.delete(knowledge.causes[i]?.key ?? ''))
  while (left.size > 0 && steps.length < MOST) {
    const tipsTried = stopSigns({ said, cause: null, isCertain: false, closing: 'notTested' })?.tips ?? 0
    const liner = { ...schools.liner, tipsTried }
    const [next] = ordered(reckon(knowledge, { symptom, said }, { hints }), { ...schools, liner }).plan
    if (!next) break
    const before = [...said]
    if (next.step.kind === 'fix') {
      const { group } = next.step
      steps.push({ key: group.key, check: null, group, points: [], said: before })
      fixed(group)
      said.push({ type: 'fix', key: group.key })
      continue
    }
    const { check } = next.step
    const seen = check.outcomes.find((o) => o.points.some((p) => left.has(p))) ?? check.outcomes.at(-1)
    const points = seen?.points ?? []
    steps.push({ key: check.key, check, group: null, points, said: before })
    said.push({ type: 'check', key: check.key, outcome: seen?.key ?? '' })
    // A swap that brings it back was the fix.
    if (check.mends && points.length > 0)
      for (const p of points) fixed(fixGroups(knowledge).find((g) => g.causes.includes(knowledge.causeAt.get(p) ?? -1)))
  }
  return steps
}
