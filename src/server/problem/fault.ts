import { causesOf } from '@server/db/causes.ts'

/** A fault as it is written down: what, where and by which number; never what was in it. */
export interface Fault {
  name: string
  /** Cut short; of a statement to the database only its kind and table, for its values are people's. */
  message: string
  code?: string
  errno?: number
  statement?: string
  /** The number the answer had. */
  requestId?: string
  stack: string[]
  /** How often the same was swallowed since it was last written. */
  swallowed?: number
}
const LONGEST_MESSAGE = 500
const MOST_FRAMES = 12

/** Kind and table of a statement: "insert photo". */
function statementOf(query: string): string {
  const verb = /^\s*(\w+)/.exec(query)?.[1] ?? 'query'
  const table = /\b(?:from|into|update|join)\s+`(\w+)`/i.exec(query)?.[1]
  return table ? `${verb.toLowerCase()} ${table}` : verb.toLowerCase()
}

const textOf = (error: Error, key: string): string | undefined => {
  const value: unknown = (error as unknown as Record<string, unknown>)[key]
  return typeof value === 'string' ? value : undefined
}
const numberOf = (error: Error, key: string): number | undefined => {
  const value: unknown = (error as unknown as Record<string, unknown>)[key]
  return typeof value === 'number' ? value : undefined
}

/**
 * A problem without the values in it. The driver's and the mapper's own errors carry the whole statement, with pictures, hashes and names among its parameters,
 * several times over: of those only kind, table, code and number are kept.
 * @example plainFault(problem) // { name: 'Error', message: 'the database: ER_DUP_ENTRY', code: 'ER_DUP_ENTRY', errno: 1062, statement: 'insert photo', … }
 */
export function plainFault(problem: unknown): Fault {
  const chain = causesOf(problem)
  const [first] = chain
  if (!first) return { name: 'thrown', message: typeof problem, stack: [] }
  const query = chain.flatMap((e) => textOf(e, 'query') ?? textOf(e, 'sql') ?? [])[0]
  const code = chain.flatMap((e) => textOf(e, 'code') ?? [])[0]
  const requestId = textOf(first, 'requestId')
  const errno = chain.flatMap((e) => numberOf(e, 'errno') ?? [])[0]
  const isOfDatabase = query !== undefined || chain.some((e) => textOf(e, 'sqlState') !== undefined)
  // The last of the chain is where it began.
  const deepest = chain[chain.length - 1] ?? first
  return {
    name: first.name,
    message: isOfDatabase ? `the database: ${code ?? 'no answer'}` : deepest.message.slice(0, LONGEST_MESSAGE),
    ...(code === undefined ? {} : { code }),
    ...(errno === undefined ? {} : { errno }),
    ...(requestId === undefined ? {} : { requestId }),
    ...(query === undefined ? {} : { statement: statementOf(query) }),
    stack: chain.flatMap(framesOf).slice(0, MOST_FRAMES),
  }
}
/** Lines of the stack that say where; what stands above them is the message again. */
const framesOf = (error: Error): string[] =>
  (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .map((line) => line.trim().slice(0, 200))

/** A fault for somebody at the terminal. */
export const faultText = (problem: unknown): string => {
  const { message, statement, stack } = plainFault(problem)
  return [statement ? `${message} (${statement})` : message, ...stack.map((line) => `    ${line}`)].join('\n')
}

const APART_MS = 1000
const MOST_KINDS = 200

/** Writes faults down, the same one at most once a second, with how often it came meanwhile: a full disk is not filled by what is said of it. */
export function faultWriter(write: (fault: Fault) => void, now: () => number = Date.now): (problem: unknown) => void {
  const last = new Map<string, { ms: number; swallowed: number }>()
  return (problem) => {
    const fault = plainFault(problem)
    const kind = `${fault.name} ${fault.message} ${fault.statement ?? ''} ${fault.stack[0] ?? ''}`
    const nowMs = now()
    const known = last.get(kind)
    if (known && nowMs - known.ms < APART_MS && nowMs >= known.ms) return void known.swallowed++
    if (last.size >= MOST_KINDS) last.clear()
    last.set(kind, { ms: nowMs, swallowed: 0 })
    write(known && known.swallowed > 0 ? { ...fault, swallowed: known.swallowed } : fault)
  }
}
