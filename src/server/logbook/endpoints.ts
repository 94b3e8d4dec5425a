import {
  correctAnswer,
  correctRequest,
  logAnswer,
  logbookAnswer,
  logbookQuery,
  logRequest,
  undoRequest,
} from '@contract/logbook.ts'
import { endpoint } from '@server/http/routes.ts'
import { correct, undo } from './correct.ts'
import { logActs } from './log.ts'
import { readLogbook } from './read.ts'

export const logbookEndpoints = [
  endpoint({
    method: 'get',
    path: '/logbook',
    summary: 'One day of the log, newest first',
    query: logbookQuery,
    answer: logbookAnswer,
    run: (deps, who, { query }) => readLogbook(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/logbook',
    summary: 'Log what was done, all of it or none',
    body: logRequest,
    answer: logAnswer,
    run: (deps, who, { body }) => logActs(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/logbook/undo',
    summary: 'Take back what was just logged',
    body: undoRequest,
    answer: correctAnswer,
    run: (deps, who, { body }) => undo(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/logbook/correct',
    summary: 'Say what a line should have said',
    body: correctRequest,
    answer: correctAnswer,
    run: (deps, who, { body }) => correct(deps, who, body),
  }),
]
