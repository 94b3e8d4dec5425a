/**
 * Reference cases: inputs with answers that other, independent programs computed. Accept when
 * |got − expected| ≤ max(rel·|expected|, abs); booleans are exact, and nulls and words that are answered, with a
 * tolerance or without; a number without one is information. The most specific tolerance key wins. A case that expects an `error` is met by a refusal: misuse thrown,
 * or an answer that says so.
 */
export type Json = null | boolean | number | string | Json[] | { [key: string]: Json }
export interface Tolerance {
  rel?: number
  abs?: number
  /** So many standard errors, of the field beside it named `se` (or the product of two). */
  absInUnitsOfSe?: number
  absInUnitsOfSeProduct?: number
}
export interface ReferenceCase {
  id: string
  kind?: string
  inputs: { [key: string]: Json }
  expected: { [key: string]: Json }
  tolerance?: { [key: string]: Tolerance | string }
}
export type CaseResult =
  { verdict: 'ok' | 'off'; largestRelativeError: number; where: string | null } | { verdict: 'not built' }
export type Solver = (inputs: { [key: string]: Json }) => { [key: string]: Json }

interface Seen {
  worst: number
  where: string | null
  isOff: boolean
}

export function judgeCase(one: ReferenceCase, solve: Solver): CaseResult {
  const seen: Seen = { worst: 0, where: null, isOff: false }
  if (one.expected['error'] !== undefined) return judgeRefusal(one, solve)
  const got = solve(one.inputs)
  for (const [key, expected] of Object.entries(one.expected))
    compare({
      got: got[key],
      expected,
      path: [key],
      tolerance: one.tolerance ?? {},
      seen,
      errors: errorsOf(one.expected),
    })
  return { verdict: seen.isOff ? 'off' : 'ok', largestRelativeError: seen.worst, where: seen.where }
}

/** Misuse has to be refused, and by a reason: a number where none can be is off. */
function judgeRefusal(one: ReferenceCase, solve: Solver): CaseResult {
  try {
    const got = solve(one.inputs)
    const isRefused = typeof got['error'] === 'string' || typeof got['reason'] === 'string'
    return { verdict: isRefused ? 'ok' : 'off', largestRelativeError: 0, where: isRefused ? null : 'error' }
  } catch (problem) {
    if (!(problem instanceof RangeError)) throw problem
    return { verdict: 'ok', largestRelativeError: 0, where: null }
  }
}

interface Comparing {
  got: Json | undefined
  expected: Json
  path: string[]
  tolerance: NonNullable<ReferenceCase['tolerance']>
  seen: Seen
  errors: readonly number[]
  /** Which of its neighbours it is. */
  place?: number
}

function compare(at: Comparing): void {
  const { got, expected, path, seen } = at
  if (expected !== null && typeof expected === 'object') {
    const hasMore = Array.isArray(expected) && (!Array.isArray(got) || got.length !== expected.length)
    if (hasMore && toleranceFor(path, at.tolerance)) return fail(seen, path, Infinity)
    const inner = got !== null && typeof got === 'object' ? (got as { [key: string]: Json }) : {}
    Object.entries(expected).forEach(([key, value], place) =>
      compare({ ...at, got: inner[key], expected: value, path: [...path, key], place }),
    )
    return
  }
  const tolerance = toleranceFor(path, at.tolerance)
  if (typeof expected !== 'number') {
    // What is not answered at all and has no tolerance is information.
    const isAsked = tolerance !== null || typeof expected === 'boolean' || got !== undefined
    if (isAsked && got !== expected) fail(seen, path, Infinity)
    return
  }
  if (!tolerance) return
  if (typeof got !== 'number') return fail(seen, path, Infinity)
  const error = Math.abs(got - expected)
  const relative = expected === 0 ? error : error / Math.abs(expected)
  if (!(error <= Math.max((tolerance.rel ?? 0) * Math.abs(expected), tolerance.abs ?? 0, unitsOfSe(at, tolerance))))
    fail(seen, path, relative)
  else if (relative > seen.worst) Object.assign(seen, { worst: relative, where: path.join('.') })
}

/** Standard errors the case expects, in the order of its coefficients. */
function errorsOf({ se, seLogSigma, coefficients }: ReferenceCase['expected']): number[] {
  if (se === null || typeof se !== 'object' || Array.isArray(se)) return []
  const names = coefficients !== null && typeof coefficients === 'object' ? Object.keys(coefficients ?? {}) : []
  return [...names.map((n) => Number(se[n])), Number(seLogSigma)]
}
function unitsOfSe({ path, errors, place = 0 }: Comparing, tolerance: Tolerance): number {
  const [i, j] = path.slice(-2).map(Number)
  if (tolerance.absInUnitsOfSeProduct !== undefined)
    return tolerance.absInUnitsOfSeProduct * (errors[i ?? 0] ?? 0) * (errors[j ?? 0] ?? 0)
  return tolerance.absInUnitsOfSe === undefined ? 0 : tolerance.absInUnitsOfSe * (errors[place] ?? 0)
}

function fail(seen: Seen, path: string[], relative: number): void {
  if (!seen.isOff || relative > seen.worst) Object.assign(seen, { worst: relative, where: path.join('.') })
  seen.isOff = true
}

/**
 * The deepest key of the path that has a tolerance, else `all`. The word "exact" is a tolerance of nought; "any …" is one example of many, judged by what
 * stands beside it.
 */
function toleranceFor(path: string[], tolerance: NonNullable<ReferenceCase['tolerance']>): Tolerance | null {
  for (const key of [...path].reverse()) {
    const found = tolerance[key]
    if (found === undefined) continue
    if (typeof found === 'string') return found.startsWith('any ') ? null : { rel: 0, abs: 0 }
    return found
  }
  const all = tolerance['all']
  return all === undefined ? null : typeof all === 'string' ? { rel: 0, abs: 0 } : all
}
