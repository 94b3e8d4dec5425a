import { marginals, type Belief } from './belief.ts'
import { CLOSE_MIN } from './moves.ts'
import { fixMinutes, type Cause } from './knowledge.ts'

export interface CleanOrChange {
  first: 'clean' | 'change'
  /** Why: none on the shelf, none of what is seen to be past cleaning, seen worn, the shop's own school, or what it takes. */
  because: 'none' | 'gone' | 'seen' | 'rule' | 'minutes'
  cleanMin: number
  changeMin: number
  /** What a new one costs, as minutes of standing; null: nobody said what either costs. */
  priceMin: number | null
  /** Chance that cleaning alone does it. */
  cleanShare: number
}
export interface CleanOrChangeAt {
  /** The fix that is next: a part changed. */
  cause: Cause
  /** Somebody looked and saw just that. */
  isSeen: boolean
  onHand: number | null
  priceMin: number | null
  /** `byBore`: by what it takes; `change`, `clean`: always so. */
  school: string
}

/**
 * Clean first, or put a new one on? Cleaning costs its minutes and, where it does not do it, the change after it; a change costs its minutes and
 * the part. Clean first where clean + (1 − p)·(change + price) < change + price, p the share of what is thought wrong there that a cleaning mends.
 * With none on the shelf it is cleaned, but for what was seen to be past that; what was seen worn is changed. Null where nothing there is mended by cleaning.
 */
export function cleanOrChange(belief: Belief, at: CleanOrChangeAt): CleanOrChange | null {
  const { cause, isSeen, onHand, priceMin, school } = at
  const { knowledge } = belief
  if (cause.fix.act !== 'changed') return null
  const marginal = marginals(belief)
  const here = knowledge.causes
    .map((c, i) => ({ c, chance: marginal[i] ?? 0 }))
    .filter(({ c }) => c.fix.position === cause.fix.position && c.fix.act !== null)
  const cleaned = here.filter(({ c }) => c.fix.act === 'cleaned')
  if (cleaned.length === 0) return null
  const sum = (list: typeof here) => list.reduce((total, { chance }) => total + chance, 0)
  const cleanShare = sum(here) > 0 ? sum(cleaned) / sum(here) : 0
  const cleanMin = Math.max(...cleaned.map(({ c }) => fixMinutes(c))) + CLOSE_MIN
  const changeMin = fixMinutes(cause) + CLOSE_MIN
  const change = changeMin + (priceMin ?? 0)
  const told = { cleanMin, changeMin, priceMin, cleanShare }
  // Keyholed, burned or stripped it is past cleaning, shelf or no shelf.
  if (onHand === 0)
    return isSeen ? { ...told, first: 'change', because: 'gone' } : { ...told, first: 'clean', because: 'none' }
  if (isSeen) return { ...told, first: 'change', because: 'seen' }
  if (school === 'change' || school === 'clean') return { ...told, first: school, because: 'rule' }
  const first = cleanMin + (1 - cleanShare) * change < change ? 'clean' : 'change'
  return { ...told, first, because: 'minutes' }
}
