import { helpAnswer, helpQuery, paybackAnswer, paybackQuery } from '@contract/payback.ts'
import { endpoint } from '@server/call/routes.ts'
import { readHelp } from './didhelp.ts'
import { readPayback } from './payback.ts'
import { type PutOnDeps } from './puton.ts'

export const paybackEndpoints = [
  endpoint({
    method: 'get',
    path: '/payback',
    summary: 'What stops cost, where on the path, beside as many days before; how often for what was welded',
    query: paybackQuery,
    answer: paybackAnswer,
    run: (deps: PutOnDeps, who, { query }) => readPayback(deps, who, query),
  }),
  endpoint({
    method: 'get',
    path: '/payback/helped',
    summary: 'Whether stops became fewer after a change, and how long until it can be told',
    query: helpQuery,
    answer: helpAnswer,
    run: (deps, who, { query }) => readHelp(deps, who, query),
  }),
]
