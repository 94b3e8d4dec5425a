import { describe, expect, it } from 'vitest'
import { indexOf, type Index } from '@core/diagnose/belief.ts'
import { minutesOf, usualShares, type Knowledge } from '@core/diagnose/knowledge.ts'
import { CLOSE_MIN, fixGroups, groupOf, type Step } from '@core/diagnose/moves.ts'
import { leftStanding, planned } from '@core/diagnose/plan.ts'
import { isFor } from '@core/diagnose/ratio.ts'
import { type Said } from '@core/diagnose/session.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { makeRandom, pick } from '@core/random/random.ts'
import { debriefOf } from './debrief.ts'
import { after, drawScenario, isRunning, openDrill, type DrillAct, type DrillState, type Scenario } from './drill.ts'
import { reckonedOf } from './engine.ts'
import { FAULT_KEYS } from './faults.ts'
import { USUAL_BOOTHS } from './setups.ts'

const knowledge = indexOf(SHIPPED)
const setup = USUAL_BOOTHS[0]!

/** What it takes over from debriefs: after such an answer that was best next; and what was called a waste with such a complaint. */
interface Memory {
  next: Map<string, DrillAct[]>
  wasted: Set<string>
  /** Looks of which it was shown what their answers speak for. */
  read: Set<string>
}
const keyOf = (act: DrillAct) => `${act.do} ${'key' in act ? act.key : ''}`
const whereOf = ({ complaint }: Scenario, steps: DrillState['steps']) => {
  const told = steps.findLast((s) => s.outcome !== null && s.outcome.points.length > 0)
  return [told?.outcome ? `${keyOf(told.act)} ${told.outcome.key}` : '', complaint] as const
}
/** It looks and mends whatever comes to mind, but what it has been told. */
function plays(scenario: Scenario, memory: Memory, random: () => number): DrillState {
  const symptom = knowledge.symptoms.find((s) => s.key === scenario.complaint)
  const looks = knowledge.checks
    .filter((c) => isFor(c, scenario.complaint))
    .map((c): DrillAct => ({ do: 'look', key: c.key }))
  const fixes = fixGroups(knowledge)
    .filter((g) => g.causes.some((i) => symptom?.causes.includes(knowledge.causes[i]?.key ?? '')))
    .map((g): DrillAct => ({ do: 'fix', key: g.key }))
  let state = openDrill(scenario)
  const done = new Set<string>()
  const isOpen = (a: DrillAct) => !done.has(keyOf(a))
  for (let n = 0; n < 80 && !isRunning(state); n++) {
    const [answer, complaint] = whereOf(scenario, state.steps)
    const [afterThat, atFirst] = [answer, complaint].map((at) => (memory.next.get(at) ?? []).find(isOpen))
    const told = (answer && afterThat) || fixSpokenFor(state, memory).find(isOpen) || atFirst
    const open = [...looks, ...fixes].filter(isOpen)
    const sound = open.filter((a) => !memory.wasted.has(`${complaint} ${keyOf(a)}`))
    if (!told && open.length === 0) break
    const act = told ?? pick(random, sound.length > 0 ? sound : open)
    done.add(keyOf(act))
    state = after(knowledge, { scenario, state }, act)
  }
  return state
}
/** Fixes that the last telling answer speaks for, where it was shown so. */
function fixSpokenFor({ steps }: DrillState, { read }: Memory): DrillAct[] {
  const told = steps.findLast((s) => s.outcome !== null && s.outcome.points.length > 0)
  if (!told?.outcome || !read.has(keyOf(told.act))) return []
  const groups = new Set(told.outcome.points.map((p) => groupOf(knowledge, knowledge.causeAt.get(p) ?? 0).key))
  return groups.size > FEW ? [] : [...groups].map((key) => ({ do: 'fix', key }))
}
const FEW = 2
const READ = 8
function takesOver(memory: Memory, scenario: Scenario, state: DrillState): void {
  const acts = state.steps.slice(0, READ).map((s) => s.act)
  const { best, worth } = debriefOf(knowledge, scenario, acts)
  for (const w of worth) if (w.better) memory.wasted.add(`${scenario.complaint} ${keyOf(w.step.act)}`)
  for (const { act } of [...best, ...worth.map((w) => w.step)]) memory.read.add(keyOf(act))
  best.forEach((step, i) => {
    const [answer, complaint] = whereOf(scenario, best.slice(0, i))
    const list = memory.next.get(answer || complaint) ?? []
    if (!list.some((a) => keyOf(a) === keyOf(step.act))) memory.next.set(answer || complaint, [...list, step.act])
  })
}

describe('somebody who follows the debriefs', () => {
  it('needs at least 40 % fewer minutes after 40 drills than at the start', () => {
    const draw = (random: () => number) => drawScenario(knowledge, setup, { random })!
    const exam = Array.from({ length: 50 }, () => 0).map((_, i) => draw(makeRandom(9000 + i)))
    const minutes = (memory: Memory) =>
      exam.reduce((sum, s, i) => sum + plays(s, memory, makeRandom(400 + i)).minutes, 0) / exam.length
    const memory: Memory = { next: new Map(), wasted: new Set(), read: new Set() }
    const before = minutes(memory)
    const random = makeRandom(21)
    for (let n = 0; n < 40; n++) {
      const drill = draw(random)
      takesOver(memory, drill, plays(drill, memory, random))
    }
    expect(minutes(memory)).toBeLessThan(0.6 * before)
  }, 120_000)
})

/** Knowledge of one complaint with a few causes and what looks at them. */
function small(symptom: string, many: number): Knowledge {
  const s = SHIPPED.symptoms.find((x) => x.key === symptom)!
  const causes = s.causes.filter((c) => (FAULT_KEYS as string[]).includes(c)).slice(0, many)
  const about = (points: readonly string[]) => points.filter((p) => causes.includes(p))
  const checks = SHIPPED.checks
    .filter((c) => isFor(c, symptom) && !c.mends && !c.after && c.outcomes.some((o) => about(o.points).length > 0))
    .map((c) => ({ ...c, outcomes: c.outcomes.map((o) => ({ ...o, points: about(o.points) })) }))
    .slice(0, 6)
  const { told: _, first: __, ...rest } = s
  return {
    symptoms: [{ ...rest, causes, odds: Object.fromEntries(causes.map((c) => [c, s.odds?.[c] ?? 'seldom'])) }],
    causes: SHIPPED.causes.filter((c) => causes.includes(c.key)),
    checks,
  }
}
/**
 * Expected minutes of one fault, exactly: looks show it with their chance and never lie. Either as the program goes, or the least that any order of
 * the steps it allows itself takes.
 */
function expectedMinutes(index: Index, symptom: string, take: 'first' | 'best'): number {
  const { causes } = index.symptoms[0]!
  const known = new Map<string, number>()
  const from = (weights: readonly number[], said: readonly Said[]): number => {
    const total = weights.reduce((a, b) => a + b, 0)
    const key = JSON.stringify([...said].map((s) => JSON.stringify(s)).sort())
    const before = known.get(key)
    if (before !== undefined) return before
    const told = reckonedOf(index, { complaint: symptom }, { said })
    const plan = planned(told).map(({ step }) => step)
    const steps = plan.length > 0 ? plan : leftStanding(told, 9).map((l): Step => ({ kind: 'fix', ...l }))
    const each = (take === 'first' ? steps.slice(0, 1) : steps).map((step) => {
      if (step.kind === 'fix') {
        const mends = step.group.causes.map((i) => index.causes[i]!.key)
        const rest = weights.map((w, i) => (mends.includes(causes[i]!) ? 0 : w))
        const left = rest.reduce((a, b) => a + b, 0) / total
        if (left > 1 - 1e-9 && take === 'best') return Infinity
        const then: Said = { type: 'fix', key: step.group.key }
        return step.group.minutes + CLOSE_MIN + (left > 1e-9 ? left * from(rest, [...said, then]) : 0)
      }
      const { check } = step
      return check.outcomes.reduce((sum, outcome, o) => {
        const isLast = o === check.outcomes.length - 1
        const seen = weights.map((w, i) => {
          const first = check.outcomes.find((x) => x.points.includes(causes[i]!))
          return w * (isLast ? 1 - (first ? check.shows : 0) : first === outcome ? check.shows : 0)
        })
        const chance = seen.reduce((a, b) => a + b, 0) / total
        const then: Said = { type: 'check', key: check.key, outcome: outcome.key }
        return chance > 1e-9 ? sum + chance * from(seen, [...said, then]) : sum
      }, minutesOf(check))
    })
    const least = Math.min(...each)
    known.set(key, least)
    return least
  }
  return from(usualShares(index.symptoms[0]!), [])
}

describe('the best order that a score is held against', () => {
  const SETS = [
    ['curled', 3],
    ['nozzleArcs', 3],
    ['stubs', 4],
    ['nothing', 3],
    ['porosity', 4],
  ] as const
  it('takes no more than a twentieth over the least that any order of its steps can take, on sets small enough to try them all', () => {
    const shares = SETS.map(([symptom, many]) => {
      const index = indexOf(small(symptom, many))
      return expectedMinutes(index, symptom, 'best') / expectedMinutes(index, symptom, 'first')
    })
    expect(shares.reduce((a, b) => a + b, 0) / shares.length).toBeGreaterThan(0.95)
    expect(Math.min(...shares)).toBeGreaterThan(0.9)
  })
})
