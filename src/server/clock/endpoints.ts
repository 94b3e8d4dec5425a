import { usageAnswer, usageRequest } from '@contract/clock.ts'
import { endpoint } from '@server/call/routes.ts'
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
]
