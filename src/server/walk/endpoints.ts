import { type SurveyDeps } from '@server/floor/surveystore.ts'
import { auditAnswer, auditQuery } from '@contract/audit.ts'
import { handoverAnswer, handoverQuery } from '@contract/handover.ts'
import { walkAnswer, walkFoundAnswer, walkFoundRequest, walkQuery } from '@contract/walk.ts'
import { endpoint } from '@server/call/routes.ts'
import { logWalk } from './found.ts'
import { readAudit } from './audit.ts'
import { readHandover } from './handover.ts'
import { readWalk } from './walk.ts'

export const walkEndpoints = [
  endpoint({
    method: 'get',
    path: '/walk',
    summary: 'What to look at at which gun in the minutes there are, in walking order, and what that leaves',
    query: walkQuery,
    answer: walkAnswer,
    run: (deps: SurveyDeps, who, { query }) => readWalk(deps, who, query),
  }),
  endpoint({
    method: 'get',
    path: '/handover',
    summary: 'What one shift or class leaves to the next: down, standing, asking, parked, done; made from the log',
    query: handoverQuery,
    answer: handoverAnswer,
    run: (deps: SurveyDeps, who, { query }) => readHandover(deps, who, query.areaId),
  }),
  endpoint({
    method: 'get',
    path: '/audit',
    summary: 'What each place has at hand, by what can be done with it',
    query: auditQuery,
    answer: auditAnswer,
    run: (deps, who, { query }) => readAudit(deps, who, query.areaId),
  }),
  endpoint({
    method: 'post',
    path: '/walk/found',
    summary: 'What was found and done on a walk, gun by gun, each entry at its own time and once',
    body: walkFoundRequest,
    answer: walkFoundAnswer,
    run: (deps, who, { body }) => logWalk(deps, who, body.entries),
  }),
]
