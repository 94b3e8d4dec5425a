import {
  changeAnswer,
  changedAnswer,
  changeQuery,
  changeRequest,
  dayAnswer,
  dayRequest,
  dedicateAnswer,
  dedicateQuery,
} from '@contract/changeover.ts'
import { endpoint } from '@server/call/routes.ts'
import { groupDay, wouldDedicatingPay } from './day.ts'
import { logChange } from './log.ts'
import { readChange } from './read.ts'

export const changeoverEndpoints = [
  endpoint({
    method: 'get',
    path: '/changeover',
    summary: 'What changing to a wire takes at some guns: parts, order, minutes',
    query: changeQuery,
    answer: changeAnswer,
    run: (deps, who, { query }) => readChange(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/changeover',
    summary: 'Wire changed: one act a gun with all its parts and settings',
    body: changeRequest,
    answer: changedAnswer,
    run: (deps, who, { body }) => logChange(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/changeover/day',
    summary: 'A day of work grouped by wire over booths; nothing is written',
    body: dayRequest,
    answer: dayAnswer,
    run: (deps, who, { body }) => groupDay(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/changeover/dedicate',
    summary: 'Would a gun kept for one wire pay here',
    query: dedicateQuery,
    answer: dedicateAnswer,
    run: (deps, who, { query }) => wouldDedicatingPay(deps, who, query),
  }),
]
