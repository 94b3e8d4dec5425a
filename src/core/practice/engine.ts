import { type Index } from '@core/diagnose/belief.ts'
import { groupOf } from '@core/diagnose/moves.ts'
import { leftStanding, planned, type Planned } from '@core/diagnose/plan.ts'
import { reckon, type Reckoned } from '@core/diagnose/session.ts'
import { after, isRunning, openDrill, type DrillAct, type DrillState, type Scenario } from './drill.ts'

/** The booth is the same knowledge: what the program would do next of what is known so far. Looks it would not have are left out. */
export const reckonedOf = (
  knowledge: Index,
  { complaint }: Pick<Scenario, 'complaint'>,
  { said }: Pick<DrillState, 'said'>,
): Reckoned => reckon(knowledge, { symptom: complaint, said })

/** Every step worth thinking of, the best first. */
export const stepsFor = (knowledge: Index, scenario: Scenario, state: DrillState): Planned[] =>
  planned(reckonedOf(knowledge, scenario, state))

/** The act of a planned step. */
export const actOf = ({ step }: Pick<Planned, 'step'>): DrillAct =>
  step.kind === 'check' ? { do: 'look', key: step.check.key } : { do: 'fix', key: step.group.key }

/** Nobody looks longer. */
const MOST_ACTS = 60
/** The same drill with the same luck, done in the order the program would: what it takes, and the acts. */
export function bestPlay(knowledge: Index, scenario: Scenario): DrillState {
  let state = openDrill(scenario)
  for (let n = 0; n < MOST_ACTS && !isRunning(state); n++) {
    const [next] = stepsFor(knowledge, scenario, state)
    const act = next ? actOf(next) : lastAct(knowledge, scenario, state)
    if (!act) break
    state = after(knowledge, { scenario, state }, act)
  }
  // What is left then is put right blind, one after the other.
  while (!isRunning(state)) {
    const [fault] = state.left
    const cause = knowledge.causes.findIndex((c) => c.key === fault?.key)
    if (cause < 0) break
    state = after(knowledge, { scenario, state }, { do: 'fix', key: groupOf(knowledge, cause).key })
  }
  return state
}
/** Nothing is left that could tell: what stands all the same is mended. */
function lastAct(knowledge: Index, scenario: Scenario, state: DrillState): DrillAct | null {
  const done = new Set(state.said.flatMap((s) => (s.type === 'fix' ? [s.key] : [])))
  const [left] = leftStanding(reckonedOf(knowledge, scenario, state), MOST_ACTS).filter((l) => !done.has(l.group.key))
  return left ? { do: 'fix', key: left.group.key } : null
}
