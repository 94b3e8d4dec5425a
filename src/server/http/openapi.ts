import { createDocument, type ZodOpenApiPathsObject } from 'zod-openapi'
import { type z } from 'zod'
import { problem } from '@contract/common.ts'
import { MAY, ROUTES } from '@server/call/rights.ts'
import { type Endpoint } from '@server/call/routes.ts'

/** The API's description, made from the same shapes that check it. */
export function describeApi(endpoints: readonly Omit<Endpoint, 'run'>[]) {
  const paths: ZodOpenApiPathsObject = {}
  for (const e of endpoints) {
    const path = `/api${e.path.replace(/:(\w+)/g, '{$1}')}`
    const params = [...e.path.matchAll(/:(\w+)/g)].map(([, name = '']) => ({
      name,
      in: 'path' as const,
      required: true,
      schema: { type: 'string' as const },
    }))
    paths[path] = {
      ...paths[path],
      [e.method]: {
        summary: e.summary,
        description: MAY[ROUTES[`${e.method === 'get' ? 'GET' : 'POST'} ${e.path}`] ?? 'owner'],
        parameters: params,
        ...(e.query ? { requestParams: { query: e.query as z.ZodObject } } : {}),
        ...(e.body ? { requestBody: { required: true, content: { 'application/json': { schema: e.body } } } } : {}),
        responses: {
          200: { description: 'done', content: { 'application/json': { schema: e.answer } } },
          default: {
            description: 'what went wrong and what to do',
            content: { 'application/json': { schema: problem } },
          },
        },
      },
    }
  }
  return createDocument({
    openapi: '3.1.0',
    info: {
      title: 'Idle Spool',
      version: '0.1.0',
      description:
        'Instants are UTC milliseconds. Every write carries a key; the same key again answers the same and does nothing. Writes need the header x-idle-spool: 1.',
    },
    paths,
  })
}
