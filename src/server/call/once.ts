import { isDuplicate } from '@server/db/db.ts'
import { DomainError } from '@server/problem/problem.ts'

/**
 * A write that is safe to repeat: what stands under its key is the answer, written before or just now by a twin of the request.
 * The later of two twins may fail on the key itself, or be refused because what it asks for is done already ("hangs somewhere");
 * either way the twin's answer is its own. `known` looks it up, null where nothing stands.
 */
export async function once<T>(known: () => Promise<T | null>, write: () => Promise<T>): Promise<T> {
  const before = await known()
  if (before !== null) return before
  try {
    return await write()
  } catch (problem) {
    const winner = isDuplicate(problem) || problem instanceof DomainError ? await known() : null
    if (winner === null) throw problem
    return winner
  }
}
