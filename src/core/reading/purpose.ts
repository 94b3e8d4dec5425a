import { type ReadingKey } from './keys.ts'
import { type Judged } from './judge.ts'
import { type Target } from './target.ts'

/** What somebody may hold otherwise than it is written down, and mean it: how far the wire stands out, how the tip stands to the rim. */
const MAY_BE_MEANT: ReadonlySet<ReadingKey> = new Set<ReadingKey>(['stickOut', 'recess'])

/**
 * Outside what the procedure, the wire or the rule says, where it may be drift or may be meant (a longer stick-out cools the weld): asked, not judged. A window
 * of the trade's guess asks nothing.
 */
export function asksPurpose(what: ReadingKey, { is, because }: Judged, target: Target | null): boolean {
  const isOutside = is !== 'good' && (because === 'below' || because === 'above')
  return MAY_BE_MEANT.has(what) && isOutside && target !== null && target.by !== 'guess'
}

/** Meant, and said why: as good as inside. */
export const judgedAsMeant = (judged: Judged): Judged => ({ ...judged, is: 'good' })
