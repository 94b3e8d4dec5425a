import { VERDICTS } from '@core/reading/keys.ts'
import { lookMethod, type LookKey } from './looks.ts'

export interface Looked {
  what: LookKey
  grade: string
}
const verdictOf = ({ what, grade }: Looked) =>
  VERDICTS.indexOf(lookMethod(what).grades.find((g) => g.key === grade)?.is ?? 'good')

/** The worst first, otherwise as they were looked at. */
export const worstGradeFirst = <L extends Looked>(looks: readonly L[]): L[] =>
  looks
    .map((look, i) => ({ look, i, bad: verdictOf(look) }))
    .sort((a, b) => b.bad - a.bad || a.i - b.i)
    .map(({ look }) => look)
/** Found as it should be. */
export const isFoundGood = (look: Looked) => verdictOf(look) === 0
