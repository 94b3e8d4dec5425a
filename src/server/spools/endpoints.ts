import { spoolDone, spoolRequest, spoolsAnswer } from '@contract/spools.ts'
import { done } from '@contract/common.ts'
import { jobDoneRequest, jobsAnswer, jobsRequest, layRequest } from '@contract/jobs.ts'
import { wasteAnswer } from '@contract/waste.ts'
import { endpoint } from '@server/call/routes.ts'
import { actOnSpool } from './act.ts'
import { addJobs, finishJob, layJobs, readJobs } from './jobs.ts'
import { readSpools } from './read.ts'
import { readWaste } from './waste.ts'

export const spoolsEndpoints = [
  endpoint({
    method: 'get',
    path: '/spools',
    summary: 'What is left on every spool, on the guns and on the shelf, and what wire was lost',
    answer: spoolsAnswer,
    run: (deps, who) => readSpools(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/spools',
    summary: 'A spool came in, went on, was read, came off, was thrown away; or wire was lost',
    body: spoolRequest,
    answer: spoolDone,
    run: (deps, who, { body }) => actOnSpool(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/spools/waste',
    summary: 'Where wire goes that never becomes weld, by why, month and area; what a year takes of each wire',
    answer: wasteAnswer,
    run: (deps, who) => readWaste(deps, who),
  }),
  endpoint({
    method: 'get',
    path: '/spools/jobs',
    summary: 'Jobs that want wire, what each takes and how sure that is, and the spools they could be welded from',
    answer: jobsAnswer,
    run: (deps, who) => readJobs(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/spools/jobs',
    summary: 'Jobs that want wire: joint, length, pieces',
    body: jobsRequest,
    answer: done,
    run: (deps, who, { body }) => addJobs(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/spools/jobs/lay',
    summary: 'Which job is welded from which spool',
    body: layRequest,
    answer: done,
    run: (deps, who, { body }) => layJobs(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/spools/jobs/done',
    summary: 'A job that is welded, with what it took where somebody weighed',
    body: jobDoneRequest,
    answer: done,
    run: (deps, who, { body }) => finishJob(deps, who, body),
  }),
]
