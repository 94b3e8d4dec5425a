import { useEffect, useMemo, useRef, useState } from 'react'
import { assignSpools, type Assignment } from '@core/spools/assign.ts'
import { surely, surelyThere } from '@core/spools/jobwire.ts'
import { type JobLine, type JobsAnswer, type JobSpool } from '@contract/jobs.ts'
import { type PlanAsk, type PlanSaid } from './planasked.ts'

export interface WireGroup {
  wireId: string
  wireName: string
  jobs: JobLine[]
  spools: JobSpool[]
}
/** Jobs and spools by wire, those with jobs. */
export function groupsOf({ jobs, spools }: Pick<JobsAnswer, 'jobs' | 'spools'>): WireGroup[] {
  const wires = new Map(jobs.map((j) => [j.wireId, j.wireName]))
  return [...wires].map(([wireId, wireName]) => ({
    ...{ wireId, wireName },
    jobs: jobs.filter((j) => j.wireId === wireId),
    // Short ends first: of what is as good, the earlier one is taken.
    spools: spools
      .filter((s) => s.wireId === wireId)
      .sort((a, b) => Number(a.isFull) - Number(b.isFull) || a.kg - b.kg),
  }))
}
const GRAMS = 1000
/** In whole grams, with so much to spare that each spool finishes 9 times in 10. */
export const askOf = (groups: readonly WireGroup[]): PlanAsk['groups'] =>
  groups.map(({ jobs, spools }) => ({
    spools: spools.map((s) => ({
      left: Math.floor(surelyThere(s) * GRAMS),
      // A short end is of no use as it is: what stays of it is no new loss.
      leastUsable: s.kg < s.leastUsableKg ? 0 : Math.round(s.leastUsableKg * GRAMS),
      isFull: s.isFull,
    })),
    jobs: jobs.map((j) => Math.max(1, Math.ceil(surely(j) * GRAMS))),
  }))

export interface Planned {
  groups: WireGroup[]
  /** In the order of the groups; null while it is worked out. */
  plans: Assignment[] | null
  /** How far it is, 0 to 1. */
  progress: number
}
/** Which spool for which job, as it is proposed: worked out in a worker. */
export function usePlan(at: JobsAnswer | undefined): Planned {
  const groups = useMemo(() => (at ? groupsOf(at) : []), [at])
  const [plans, setPlans] = useState<Assignment[] | null>(null)
  const [progress, setProgress] = useState(0)
  const asked = useRef(0)
  useEffect(() => {
    const ask: PlanAsk = { id: ++asked.current, groups: askOf(groups) }
    setPlans(null)
    setProgress(0)
    if (typeof Worker === 'undefined') {
      setPlans(ask.groups.map((g) => assignSpools(g.spools, g.jobs)))
      return
    }
    const worker = new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<PlanSaid>) => {
      if (data.id !== ask.id) return
      if ('plans' in data) setPlans(data.plans)
      else setProgress(data.done / data.of)
    }
    worker.postMessage(ask)
    return () => worker.terminate()
  }, [groups])
  return { groups, plans: plans?.length === groups.length ? plans : null, progress }
}
