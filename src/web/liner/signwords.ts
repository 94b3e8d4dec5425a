import { type LinerClause, type WeakSign } from '@core/liner/clauses.ts'
import { twoFigures } from '@web/format/numbers.ts'
import { countWord } from '@web/format/words.ts'

/** A sign that holds, as hands would say it. */
export function signWords({ clause, n }: { clause: LinerClause; n: number | null }): string {
  switch (clause) {
    case 'kink':
      return 'there is a kink in it'
    case 'pull':
      return `it pulls ${twoFigures(n ?? 1)} times what it did new`
    case 'tips':
      return `${countWord(n ?? 2).toLowerCase()} fresh ${n === 1 ? 'tip' : 'tips'} changed nothing, tension and hub passed`
    case 'straighten':
      return 'it runs smooth only when straight'
    case 'tension':
      return 'tension creeps up on the same wire'
    case 'length':
      return 'its length of wire is through, and something else asks'
  }
}
export const WEAK_WORD: Record<WeakSign, string> = {
  oneTip: 'a fresh tip changed nothing',
  dust: 'dirt where the wire goes in',
  suspected: 'a stop was laid to it',
  pull: 'it pulls harder than new',
  reading: 'a reading asks for a look',
}
