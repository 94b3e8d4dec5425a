import { importAnswer, importPreview, importRequest } from '@contract/ingest.ts'
import { endpoint } from '@server/http/routes.ts'
import { previewImport, takeImport } from './ingest.ts'

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
    path: '/ingest',
    summary: 'Take a whole sheet in, or nothing of it',
    body: importRequest,
    answer: importAnswer,
    run: (deps, who, { body }) => takeImport(deps, who, body),
  }),
]
