import { type z } from 'zod'
import { isPassing, postWrite } from '@web/api/client.ts'
import { keepLast } from './last.ts'
import { note } from './device.ts'

const PATIENCE_MS = 8000

/**
 * Sends a write that may be made where there is no link. Without one it is kept on the device at its own time, under its own key,
 * so that it is one write however often it goes; null: kept so. A link that does not answer is none, and so is a server that says "not now": it keeps it once
 * either way.
 */
export async function sendOrKeep<B extends { key: string }, A extends z.ZodType>(
  path: string,
  write: { body: B; says: string },
  answer: A,
): Promise<z.output<A> | null> {
  const { body, says } = write
  const atMs = Date.now()
  try {
    return await postWrite(path, { body, withinMs: PATIENCE_MS }, answer)
  } catch (problem) {
    if (!isPassing(problem)) throw problem
    await note({ kind: 'post', path, key: body.key, body, atMs, says })
    keepLast({ acts: [], logged: [], kept: { key: body.key, says } })
    return null
  }
}
