import { readingAnswer, readingDone, readingQuery, readingRequest } from '@contract/reading.ts'
import { endpoint } from '@server/call/routes.ts'
import { logReading } from './act.ts'
import { readReadings } from './read.ts'

export const readingEndpoints = [
  endpoint({
    method: 'get',
    path: '/reading',
    summary:
      'What was read on one gun: the last of each with its window, trends, what changed since and what contradicts',
    query: readingQuery,
    answer: readingAnswer,
    run: (deps, who, { query }) => readReadings(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/reading',
    summary: 'One reading, as found and as left, with how it was come by; answered with its verdict',
    body: readingRequest,
    answer: readingDone,
    run: (deps, who, { body }) => logReading(deps, who, body),
  }),
]
