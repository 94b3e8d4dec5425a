import { done } from '@contract/common.ts'
import {
  cancelRequest,
  importAnswer,
  importPreview,
  importRequest,
  previewRequest,
  progressAnswer,
  progressQuery,
  wordRequest,
} from '@contract/ingest.ts'
import { endpoint } from '@server/call/routes.ts'
import { thenForget, type LifeDeps } from '@server/life/work.ts'
import { previewImport, takeImport } from './ingest.ts'
import { sayWord } from './word.ts'
import { cancelImport, readProgress } from './progress.ts'

export const ingestEndpoints = [
  endpoint({
    method: 'post',
    path: '/ingest/preview',
    summary: 'What a sheet holds and what is wrong with it; writes nothing',
    body: previewRequest,
    answer: importPreview,
    run: (deps, who, { body }) => previewImport(deps, who, body),
  }),
  endpoint({
    method: 'post',
    path: '/ingest/take',
    summary: 'Take a whole sheet in, or nothing of it',
    body: importRequest,
    answer: importAnswer,
    // Years of work may have come: whoever looks at Part life next sees them.
    run: async (deps: LifeDeps, who, { body }) => thenForget(deps, await takeImport(deps, who, body)),
  }),
  endpoint({
    method: 'post',
    path: '/ingest/word',
    summary: 'Say what a word of this shop means: a part, or none on a gun',
    body: wordRequest,
    answer: done,
    run: (deps, who, { body }) => sayWord(deps, who, body),
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
