import { spoolDone, spoolRequest, spoolsAnswer } from '@contract/spools.ts'
import { endpoint } from '@server/call/routes.ts'
import { actOnSpool } from './act.ts'
import { readSpools } from './read.ts'

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
]
