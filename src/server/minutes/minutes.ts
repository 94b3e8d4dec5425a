import { type FamilyId } from '@core/ids/id.ts'
import { count, sql } from 'drizzle-orm'
import { addJobs, learnForFamily, NO_JOBS, type Jobs, type LearntMinutes } from '@core/minutes/learn.ts'
import { type Overrun } from '@core/ledger/event.ts'
import { type TaskKey } from '@core/guide/keys.ts'
import { taskDone } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'

/** What was worked, by task and family: all that learning minutes needs. */
export interface TaskTotals {
  task: TaskKey
  familyId: FamilyId | null
  /** What held these up; null: nothing was said. */
  reason: Overrun | null
  jobs: Jobs
}

/**
 * Minutes by task and family. A change of wire is another piece of work each time: of it the ratio of worked to planned is added up,
 * and jobs nobody had planned are left out.
 */
export async function readTaskTotals(db: Reader): Promise<TaskTotals[]> {
  const rows = await db
    .select({
      task: taskDone.task,
      familyId: taskDone.familyId,
      reason: taskDone.reason,
      n: count(),
      planned: sql<string>`count(${taskDone.usualMin})`,
      minutes: sql<string>`sum(${taskDone.minutes})`,
      ratio: sql<string | null>`sum(${taskDone.minutes} / ${taskDone.usualMin})`,
    })
    .from(taskDone)
    .groupBy(taskDone.task, taskDone.familyId, taskDone.reason)
  return rows.map(({ task, familyId, reason, n, planned, minutes, ratio }) => ({
    task,
    familyId,
    reason,
    jobs: task === 'change' ? { n: Number(planned), sumMin: Number(ratio ?? 0) } : { n, sumMin: Number(minutes) },
  }))
}

/** With the jobs on other families that stand behind it, and what held jobs up, most often first. */
export type Learnt = LearntMinutes & { others: number; held: { reason: Overrun; n: number }[] }
export type MinutesOf = (task: TaskKey, familyId: FamilyId | null, defaultMin: number) => Learnt

let last: { key: string; learnt: MinutesOf } | null = null
/** Learnt minutes of a task on a family, worked out once for each that is asked for while nothing more was worked. */
export function minutesOf(totals: readonly TaskTotals[]): MinutesOf {
  const key = JSON.stringify(totals)
  if (last?.key !== key) last = { key, learnt: learntFrom(totals) }
  return last.learnt
}
function learntFrom(totals: readonly TaskTotals[]): MinutesOf {
  const known = new Map<string, Learnt>()
  return (task, familyId, defaultMin) => {
    const key = `${task} ${familyId ?? ''} ${defaultMin}`
    const kept = known.get(key)
    if (kept) return kept
    const of = (isOwn: boolean) =>
      totals
        .filter((t) => t.task === task && (t.familyId === familyId) === isOwn)
        .reduce((sum, t) => addJobs(sum, t.jobs), NO_JOBS)
    const others = of(false)
    const held = heldUp(totals.filter((t) => t.task === task))
    const learnt = { ...learnForFamily(defaultMin, of(true), others), others: others.n, held }
    known.set(key, learnt)
    return learnt
  }
}

function heldUp(totals: readonly TaskTotals[]): Learnt['held'] {
  const counts = new Map<Overrun, number>()
  for (const { reason, jobs } of totals) if (reason) counts.set(reason, (counts.get(reason) ?? 0) + jobs.n)
  return [...counts].map(([reason, n]) => ({ reason, n })).sort((a, b) => b.n - a.n || (a.reason < b.reason ? -1 : 1))
}
