import {
  correctAnswer,
  correctRequest,
  logAnswer,
  logbookAnswer,
  logbookQuery,
  logRequest,
  scanAnswer,
  scanRequest,
  undoRequest,
} from '@contract/logbook.ts'
import { endpoint } from '@server/call/routes.ts'
import { correct, undo } from './correct.ts'
import { logActs } from '@server/logbook/log.ts'
import { readLogbook } from './read.ts'
import { scan } from './scan.ts'

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
    path: '/logbook/scan',
    summary: 'A printed code was scanned: open a gun, log an act, or say how many',
    body: scanRequest,
    answer: scanAnswer,
    run: (deps, who, { body }) => scan(deps, who, body),
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
