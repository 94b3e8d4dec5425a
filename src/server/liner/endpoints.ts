import { done } from '@contract/common.ts'
import { loggedAnswer } from '@contract/guide.ts'
import {
  linerAnswer,
  linerDoneRequest,
  linerQuery,
  spoiledRequest,
  stuckAnswer,
  stuckRequest,
} from '@contract/liner.ts'
import { endpoint } from '@server/call/routes.ts'
import { logLiner, logSpoiled, logStuck } from './act.ts'
import { readLiner } from './read.ts'

export const linerEndpoints = [
  endpoint({
    method: 'get',
    path: '/liner',
    summary: 'A liner job on one gun: length to order, room, how it is cut, what was found before, the steps',
    query: linerQuery,
    answer: linerAnswer,
    run: (deps, who, { query }) => readLiner(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/liner/stuck',
    summary: 'A new liner stuck on the way in: where, and whether it kinked',
    body: stuckRequest,
    answer: stuckAnswer,
    run: (deps, who, { body }) => logStuck(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/liner/spoiled',
    summary: 'A new liner that will never serve',
    body: spoiledRequest,
    answer: done,
    run: (deps, who, { body }) => logSpoiled(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/liner/done',
    summary: 'A liner job done: the old one, the cuts, the minutes, as one act',
    body: linerDoneRequest,
    answer: loggedAnswer,
    run: (deps, who, { body }) => logLiner(deps, who, body),
  }),
]
