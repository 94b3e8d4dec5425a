const MOST_CAUSES = 6

/** A problem and what caused it, the outermost first: the mapper wraps the driver's errors, and so does whoever adds words. */
export function causesOf(problem: unknown): Error[] {
  const chain: Error[] = []
  for (let at: unknown = problem; at instanceof Error && chain.length < MOST_CAUSES; at = at.cause) chain.push(at)
  return chain
}

export function errnoOf(problem: unknown): number | null {
  const found = causesOf(problem).find((at) => 'errno' in at && typeof at.errno === 'number')
  return (found as { errno?: number } | undefined)?.errno ?? null
}
export const isDuplicate = (problem: unknown) => errnoOf(problem) === 1062

/** Deadlock, lock wait, and a certification failure (which a cluster reports as a deadlock): worth another try. */
const CONFLICTS: ReadonlySet<number> = new Set([1213, 1205])
export const isConflict = (problem: unknown) => CONFLICTS.has(errnoOf(problem) ?? 0)
