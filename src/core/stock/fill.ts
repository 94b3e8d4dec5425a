import { enoughFor, meanOf, type Counts } from './counts.ts'

/** A place at the guns is filled so that in 19 of 20 stretches nobody has to walk to the main one. */
export const FILL_SURE = 0.95

export interface Fill {
  /** How many should lie there; null: nobody knows what its guns take. */
  level: number | null
  /** How many to carry there now. */
  carry: number
}

/**
 * What to carry to a place that is filled for some days: up to the fewest that are enough in 19 of 20 such stretches, one at least of what is kept there,
 * and no more than the main place can spare: what its own guns take on average in those days stays there, or its share where there is too little for all.
 * @param counts what its guns will take until it is filled again; null: not known, so nothing is proposed
 */
export function fillOf(counts: Counts | null, at: { onHand: number; main: number | null; elsewhere?: number }): Fill {
  if (counts === null) return { level: null, carry: 0 }
  const level = Math.max(1, enoughFor(counts, FILL_SURE))
  const lacks = Math.max(0, level - Math.max(0, at.onHand))
  if (at.main === null) return { level, carry: lacks }
  const [there, own, elsewhere] = [Math.max(0, at.main), meanOf(counts), at.elsewhere ?? 0]
  const share = own + elsewhere > 0 ? own / (own + elsewhere) : 1
  const spare = Math.floor(Math.max(there - elsewhere, there * share) + 1e-6)
  return { level, carry: Math.min(lacks, spare) }
}
