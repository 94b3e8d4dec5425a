import { indexOf } from '@core/diagnose/belief.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { drawScenario, type DrillAct, type Scenario } from '@core/practice/drill.ts'
import { bestPlay } from '@core/practice/engine.ts'
import { type FaultKey } from '@core/practice/faults.ts'
import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { makeId } from '@core/ids/id.ts'
import { drawLogNormal, makeRandom, pick } from '@core/random/random.ts'
import { DAY_MS } from '@core/units/time.ts'
import { practiceAttempt } from '@server/db/schema.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { readSchool } from '@server/shopmodel/school.ts'
import { saveSet } from '@server/practice/practice.ts'
import { dayOf } from '@server/time/wall.ts'
import { DRILLS, YARD } from './yard.ts'

/** Of each fault so many, at so many drills a week. */
const EACH = 6
const A_WEEK = 12

/** Three weeks of drills in the practice booth: what one group does not find yet, and a set of drills that waits for it. */
export async function plantPractice(deps: Deps, who: Who): Promise<void> {
  const random = makeRandom(515)
  const knowledge = indexOf(SHIPPED)
  const { groups } = await readSchool(deps.db)
  const [setup] = USUAL_BOOTHS
  if (!setup) return
  const drillOf = (fault: FaultKey) => drawScenario(knowledge, setup, { random, among: [fault], twoShare: 0 })
  const drills = DRILLS.met.flatMap((fault) => {
    const scenario = drillOf(fault)
    return scenario ? [{ fault, scenario, best: bestPlay(knowledge, scenario) }] : []
  })
  const rows = groups.flatMap((group) =>
    Array.from({ length: drills.length * EACH }, (_, n) => {
      const { fault, scenario, best } = drills[n % drills.length] ?? pick(random, drills)
      const isHard = group.name === DRILLS.hard.group && fault === DRILLS.hard.fault
      const times = drawLogNormal(random, isHard ? DRILLS.hard.times : DRILLS.times, 0.2)
      const atMs = Math.round(deps.now() - ((n + 0.5) * 7 * DAY_MS) / A_WEEK)
      const id = makeId('attempt', atMs, random)
      return {
        ...{ id, groupId: group.id, stationId: null, setId: null, day: dayOf(YARD.zone, atMs), atMs },
        ...{ idempotencyKey: `demo/${id}`, complaint: scenario.complaint, faults: [fault] },
        ...{ acts: best.steps.map((s): DrillAct => s.act), bestMin: best.minutes },
        minutes: best.minutes * Math.max(1, times),
      }
    }),
  )
  await deps.db.insert(practiceAttempt).values(rows)
  const scenarios = DRILLS.set.faults.map(drillOf).filter((s): s is Scenario => s !== null)
  const groupId = groups.find((g) => g.name === DRILLS.set.group)?.id ?? null
  await saveSet(deps, who, { key: 'story-drills', name: DRILLS.set.name, groupId, scenarios })
}
