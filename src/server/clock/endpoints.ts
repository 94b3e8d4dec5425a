import { usageAnswer, usageRequest } from '@contract/clock.ts'
import { endpoint } from '@server/call/routes.ts'
import { done } from '@contract/common.ts'
import { standingRequest } from '@contract/firsthour.ts'
import { saveStanding } from './standing.ts'
import { enterUsage } from './usage.ts'

export const clockEndpoints = [
  endpoint({
    method: 'post',
    path: '/clock/usage',
    summary: 'A typed shift total; a later one for the same shift wins',
    body: usageRequest,
    answer: usageAnswer,
    run: (deps, who, { body }) => enterUsage(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/clock/standing',
    summary: 'About how much the guns of an area weld in a shift, until something counts',
    body: standingRequest,
    answer: done,
    run: (deps, who, { body }) => saveStanding(deps, who, body),
  }),
]
