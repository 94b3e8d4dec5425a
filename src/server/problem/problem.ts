/** A domain error: a stable code and words for people. It knows no HTTP; the table below does. */
export class DomainError extends Error {
  readonly code: ProblemCode
  readonly details: readonly string[]
  constructor(code: ProblemCode, message: string, details: readonly string[] = []) {
    super(message)
    this.name = 'DomainError'
    this.code = code
    this.details = details
  }
}

/** Every code there is, and the status it answers with. */
export const STATUS = {
  'bad-request': 400,
  /** Beyond what can be read: asked back once; said again as meant, it is kept. */
  'asked-back': 400,
  'not-signed-in': 401,
  'wrong-password': 401,
  'not-yours': 403,
  'not-found': 404,
  'name-taken': 409,
  'too-late-to-undo': 409,
  'already-set-up': 409,
  'key-used': 409,
  'sheet-refused': 422,
  'time-refused': 422,
  'wrong-part': 422,
  /** Asked under a name that is not this machine's. */
  'not-here': 421,
  'link-used': 410,
  'stopped-by-you': 409,
  'too-many': 429,
  /** Not now: the same again in a moment is taken. */
  busy: 503,
  'disk-full': 507,
  'server-fault': 500,
} as const
export type ProblemCode = keyof typeof STATUS
