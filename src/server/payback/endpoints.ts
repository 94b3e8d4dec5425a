import { helpAnswer, helpQuery, paybackAnswer, paybackQuery, stopsAnswer } from '@contract/payback.ts'
import { endpoint } from '@server/call/routes.ts'
import { readHelp } from './didhelp.ts'
import { readStops } from './eachstop.ts'
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
    path: '/payback/stops',
    summary: 'Each stop behind the heaps, newest first: where, how long, what it was, what it took',
    query: paybackQuery,
    answer: stopsAnswer,
    run: (deps: PutOnDeps, who, { query }) => readStops(deps, who, query),
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
