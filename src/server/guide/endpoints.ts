import { done } from '@contract/common.ts'
import {
  cautionRequest,
  cautionsAnswer,
  guideAnswer,
  guideDoneRequest,
  guideNoteRequest,
  guideQuery,
  loggedAnswer,
  nearMissRequest,
} from '@contract/guide.ts'
import { endpoint } from '@server/call/routes.ts'
import { logGuide, nearMiss } from './done.ts'
import { readCautions, setCaution, setNote } from './notes.ts'
import { readGuide } from './read.ts'

export const guideEndpoints = [
  endpoint({
    method: 'get',
    path: '/guide',
    summary: 'How a piece of work is done on one gun or family, step by step',
    query: guideQuery,
    answer: guideAnswer,
    run: (deps, who, { query }) => readGuide(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/guide/done',
    summary: 'Work done by a guide: the part, the minutes, what it settled',
    body: guideDoneRequest,
    answer: loggedAnswer,
    run: (deps, who, { body }) => logGuide(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/guide/note',
    summary: 'The shop’s own words at a step of a guide',
    body: guideNoteRequest,
    answer: done,
    run: (deps, who, { body }) => setNote(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/guide/cautions',
    summary: 'Every caution with its words, and near misses by place',
    answer: cautionsAnswer,
    run: (deps, who) => readCautions(deps, who),
  }),
  endpoint({
    method: 'post',
    path: '/guide/caution',
    summary: 'The site’s own words of a caution',
    body: cautionRequest,
    answer: done,
    run: (deps, who, { body }) => setCaution(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/guide/nearmiss',
    summary: 'Nobody was hurt, and it could have been',
    body: nearMissRequest,
    answer: done,
    run: (deps, who, { body }) => nearMiss(deps, who, body),
  }),
]
