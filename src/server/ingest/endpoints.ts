import { done } from '@contract/common.ts'
import {
  cancelRequest,
  importAnswer,
  importPreview,
  importRequest,
  progressAnswer,
  progressQuery,
} from '@contract/ingest.ts'
import { endpoint } from '@server/call/routes.ts'
import { previewImport, takeImport } from './ingest.ts'
import { cancelImport, readProgress } from './progress.ts'

export const ingestEndpoints = [
  endpoint({
    method: 'post',
    path: '/ingest/preview',
    summary: 'What a sheet holds and what is wrong with it; writes nothing',
    body: importRequest,
    answer: importPreview,
    run: (deps, who, { body }) => previewImport(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/ingest/take',
    summary: 'Take a whole sheet in, or nothing of it',
    body: importRequest,
    answer: importAnswer,
    run: (deps, who, { body }) => takeImport(deps, who, body),
  }),
  endpoint({
    method: 'get',
    path: '/ingest/progress',
    summary: 'How far a long import is',
    query: progressQuery,
    answer: progressAnswer,
    run: (deps, who, { query }) => readProgress(deps, who, query.runKey),
  }),
  endpoint({
    method: 'post',
    path: '/ingest/cancel',
    summary: 'Stop a long import: nothing of it is kept',
    body: cancelRequest,
    answer: done,
    run: (deps, who, { body }) => cancelImport(deps, who, body.runKey),
  }),
]
