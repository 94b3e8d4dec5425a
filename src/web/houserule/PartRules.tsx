import { questionsAt } from '@core/houserule/schools.ts'
import { kindOfPosition, type Position } from '@core/path/columns.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { useIsLead } from '@web/people/queries.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { Question } from './Question.tsx'
import { useChoices } from './queries.ts'
import { NO_NAMES, scopesOf } from './rulewords.ts'
import { namesOf } from './Schools.tsx'

/** Where one acts on a part: what the house does there, and the other ways a tap away. */
export function PartRules({ gun, position }: { gun: GunAnswer; position: Position }) {
  const choices = useChoices()
  const shop = useShop()
  const isLead = useIsLead()
  const questions = questionsAt(kindOfPosition(position))
  if (questions.length === 0 || !choices.data) return null
  return (
    <details className="part-rules">
      <summary>How we do it here ({questions.length})</summary>
      {questions.map((q) => (
        <Question
          key={q.code}
          question={q}
          choices={choices.data.choices}
          gun={gun.ruledBy}
          scopes={scopesOf(gun.ruledBy)}
          names={shop.data ? namesOf(shop.data) : NO_NAMES}
          zone={choices.data.zone}
          isLead={isLead}
        />
      ))}
    </details>
  )
}
