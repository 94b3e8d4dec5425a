import { PAIR_KEYS, type PairKey } from '@core/classes/items.ts'
import { PAIRS } from '@core/classes/pairs.ts'
import { isKindKey } from '@core/path/columns.ts'
import { type QuizKnown } from '@contract/classes.ts'
import { partName } from '@web/format/words.ts'
import { ShareTable } from './ShareTable.tsx'
import { useKnown } from './quizqueries.ts'

type Line = QuizKnown['known'][number]
const isPair = (about: string): about is PairKey => PAIR_KEYS.some((k) => k === about)
const MOST = 8

/** What groups know least, for teaching. */
export function Known() {
  const known = useKnown()
  const list = known.data?.known.filter((k) => k.asked >= 3) ?? []
  const rows = list.slice(0, MOST).map((k) => ({ ...k, says: aboutWords(k), good: k.right, of: k.asked }))
  return <ShareTable title="What is known least" about="asked about" good="right" rows={rows} />
}
/** "where the tip sits", "which tip fits", "how tight a tip is". */
export function aboutWords({ kind, about }: Pick<Line, 'kind' | 'about'>): string {
  if (kind === 'pair' && isPair(about)) return PAIRS[about].name.toLowerCase()
  const part = isKindKey(about) ? partName(about) : about
  if (kind === 'name') return `where the ${part} sits`
  if (kind === 'fits') return `which ${part} fits`
  return kind === 'trigger' ? 'what the trigger starts' : `what first at “${about}”`
}
