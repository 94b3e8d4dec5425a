const MOST_CAUSES = 6

/** A problem and what caused it, the outermost first: the mapper wraps the driver's errors, and so does whoever adds words. */
export function causesOf(problem: unknown): Error[] {
  const chain: Error[] = []
  for (let at: unknown = problem; at instanceof Error && chain.length < MOST_CAUSES; at = at.cause) chain.push(at)
  return chain
}
