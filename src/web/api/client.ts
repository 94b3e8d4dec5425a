import { problem, type Problem } from '@contract/common.ts'
import { earlyAnswer } from './early.ts'
import { type z } from 'zod'

/** What went wrong, in words that can be shown as they are. */
export class ApiError extends Error {
  readonly code: string
  readonly details: readonly string[]
  constructor(from: Problem) {
    super(from.message)
    this.name = 'ApiError'
    this.code = from.code
    this.details = from.details
  }
}
export const OFFLINE = 'no-link'
/** No link, a server that tripped, a sign-in that ran out: a later try may bring it through. */
const WORTH_ANOTHER_TRY = new Set([
  OFFLINE,
  'server-fault',
  'not-signed-in',
  'too-many',
  'busy',
  'disk-full',
  'other-version',
])
/** Nobody there to take it just now: no link, a database that is away, a disk without room. It passes without anybody doing it otherwise. */
const PASSING = new Set([OFFLINE, 'busy', 'disk-full'])
export const isPassing = (problem: unknown): boolean => problem instanceof ApiError && PASSING.has(problem.code)
export const isWorthAnotherTry = (problem: ApiError) => WORTH_ANOTHER_TRY.has(problem.code)

async function ask<A extends z.ZodType>(path: string, answer: A, init: RequestInit): Promise<z.output<A>> {
  let response: Response
  try {
    const early = init.method === 'GET' ? await earlyAnswer(path)?.catch(() => null) : null
    // Refused then may be another's by now: somebody signed in meanwhile.
    response = early?.ok ? early : await fetch(`/api${path}`, { credentials: 'same-origin', ...init })
  } catch (cause) {
    throw Object.assign(
      new ApiError({
        code: OFFLINE,
        message: 'No link to the server.',
        details: ['What you see is from before. Try again when the link is back.'],
      }),
      { cause },
    )
  }
  const body: unknown = await response.json().catch(() => null)
  if (response.ok) return readAnswer(answer, body)
  const read = problem.safeParse(body)
  throw new ApiError(
    read.success
      ? read.data
      : {
          code: 'server-fault',
          message: `The server answered ${response.status}.`,
          details: ['Try again in a moment.'],
        },
  )
}

/** An answer of another shape comes from a server of another version: the page was open while it was brought up to date. */
function readAnswer<A extends z.ZodType>(answer: A, body: unknown): z.output<A> {
  const read = answer.safeParse(body)
  if (read.success) return read.data
  throw Object.assign(
    new ApiError({
      code: 'other-version',
      message: 'This page is older than the server.',
      details: ['Load it again. What you sent was taken.'],
    }),
    { cause: read.error },
  )
}

export const getJson = <A extends z.ZodType>(path: string, answer: A) => ask(path, answer, { method: 'GET' })
interface Write {
  /** JSON, or a file as it is. */
  body: object | Blob
  /** It was kept on the device since then, and is a fact at that time. */
  notedMs?: number
  /** No answer by then counts as no link. */
  withinMs?: number
}
/** With a time it was noted at, or no longer waited for than so. */
export const postWrite = <A extends z.ZodType>(path: string, { body, notedMs, withinMs }: Write, answer: A) =>
  ask(path, answer, {
    method: 'POST',
    headers: {
      'content-type': body instanceof Blob ? 'application/octet-stream' : 'application/json',
      'x-idle-spool': '1',
      ...(notedMs === undefined ? {} : { 'x-happened': String(notedMs) }),
    },
    body: body instanceof Blob ? body : JSON.stringify(body),
    ...(withinMs === undefined ? {} : { signal: AbortSignal.timeout(withinMs) }),
  })
export const postJson = <A extends z.ZodType>(path: string, body: object, answer: A) =>
  postWrite(path, { body }, answer)
/** A file as it is, for the server to read. */
export const postFile = <A extends z.ZodType>(path: string, file: Blob, answer: A) =>
  postWrite(path, { body: file }, answer)
/** A fresh key for one write; the same write sent again carries the same key. */
export const newKey = () =>
  crypto.randomUUID?.() ?? Array.from(crypto.getRandomValues(new Uint32Array(4)), (n) => n.toString(16)).join('-')
