import { done } from '@contract/common.ts'
import { followUpRequest } from '@contract/followup.ts'
import { endpoint } from '@server/call/routes.ts'
import { followedUp } from './act.ts'

export const followupEndpoints = [
  endpoint({
    method: 'post',
    path: '/followup',
    summary: 'Something that followed from another act is done',
    body: followUpRequest,
    answer: done,
    run: (deps, who, { body }) => followedUp(deps, who, body),
  }),
]
