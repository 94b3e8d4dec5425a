import {
  benchRequest,
  cellsAnswer,
  crashRequest,
  neckRequest,
  neckSwapRequest,
  roundRequest,
  traceAnswer,
  traceQuery,
} from '@contract/cell.ts'
import { done } from '@contract/common.ts'
import { endpoint } from '@server/call/routes.ts'
import { readCells } from './read.ts'
import { readTrace } from './trace.ts'
import { crashed, logOnBench, makeNeck, necksGoRound, swapNeck } from './write.ts'

const post = { method: 'post' as const, answer: done }

export const cellEndpoints = [
  endpoint({
    method: 'get',
    path: '/cells',
    summary:
      'Robot cells: the way of their wire, the neck that hangs, what is open; the bench; and how many necks are enough',
    answer: cellsAnswer,
    run: (deps, who) => readCells(deps, who),
  }),
  endpoint({
    method: 'get',
    path: '/cells/trace',
    summary: 'What the feeder sent of the minute before a place stopped',
    query: traceQuery,
    answer: traceAnswer,
    run: (deps, who, { query }) => readTrace(deps, who, query.stationId),
  }),
  endpoint({
    ...post,
    path: '/cells/round',
    summary: 'Necks go round at some cells from here on',
    body: roundRequest,
    run: (deps, who, { body }) => necksGoRound(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/cells/neck',
    summary: 'A neck that hangs nowhere yet',
    body: neckRequest,
    run: (deps, who, { body }) => makeNeck(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/cells/swap',
    summary: 'Another neck on the gun of a cell',
    body: neckSwapRequest,
    run: (deps, who, { body }) => swapNeck(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/cells/crash',
    summary: 'A robot’s torch hit something',
    body: crashRequest,
    run: (deps, who, { body }) => crashed(deps, who, body),
  }),
  endpoint({
    ...post,
    path: '/cells/bench',
    summary: 'Work on a gun or neck that hangs nowhere',
    body: benchRequest,
    run: (deps, who, { body }) => logOnBench(deps, who, body),
  }),
]
