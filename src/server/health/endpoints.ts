import { holdingAnswer } from '@contract/holding.ts'
import { endpoint } from '@server/call/routes.ts'
import { readHolding, type HoldingDeps } from './holding.ts'

export const healthEndpoints = [
  endpoint({
    method: 'get',
    path: '/shop/holding',
    summary:
      'How the program holds up: database, back-ups, disk, clock, feeders, what devices brought that was refused',
    answer: holdingAnswer,
    run: (deps: HoldingDeps, who) => readHolding(deps, who),
  }),
]
