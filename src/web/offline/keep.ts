import { type z } from 'zod'
import { isPassing, postWrite } from '@web/api/client.ts'
import { HELD_MS, strikeAhead, writeAhead } from './ahead.ts'
import { keepLast } from './last.ts'
import { note } from './device.ts'

const PATIENCE_MS = 8000

/**
 * Sends a write that may be made where there is no link. It is written ahead on the device, so that a page that is left or put to sleep meanwhile loses
 * nothing; without a link it is kept there at its own time, under its own key, and is one write however often it goes; null: kept so. A link that does
 * not answer is none, and so is a server that says "not now".
 */
export async function sendOrKeep<B extends { key: string }, A extends z.ZodType>(
  path: string,
  write: { body: B; says: string },
  answer: A,
): Promise<z.output<A> | null> {
  const { body, says } = write
  const { key } = body
  const entry = { kind: 'post', path, key, body, atMs: Date.now(), says } as const
  writeAhead(entry, entry.atMs + HELD_MS)
  try {
    const answered = await postWrite(path, { body, withinMs: PATIENCE_MS }, answer)
    strikeAhead(key)
    return answered
  } catch (problem) {
    if (!isPassing(problem)) {
      strikeAhead(key)
      throw problem
    }
    await note(entry)
    keepLast({ acts: [], logged: [], kept: { key, says } })
    return null
  }
}
