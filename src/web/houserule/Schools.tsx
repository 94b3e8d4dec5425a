import { useState } from 'react'
import { SHOWN_QUESTIONS, type Asked, type ScopeType } from '@core/houserule/schools.ts'
import { COLUMNS, type KindKey } from '@core/path/columns.ts'
import { capital } from '@web/format/words.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { TextField, field } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Question } from './Question.tsx'
import { useChoices } from './queries.ts'
import { type ScopeNames } from './rulewords.ts'

export const namesOf = (shop: ShopAnswer): ScopeNames => ({
  families: new Map(shop.families.map((f) => [f.id, f.name])),
  classes: new Map(shop.classes.map((c) => [c.key, c.name])),
  feederTypes: new Map(shop.feederTypes.map((f) => [f.id, f.name])),
})

/** What this shop has chosen first, then along the path, then what belongs to no one place. */
function groupsOf(questions: readonly Asked[], shop: ShopAnswer, chosen: ReadonlySet<string>) {
  const columnOf = new Map(shop.kinds.map((k) => [k.key, k.column]))
  const placeOf = (q: Asked) => {
    if (chosen.has(q.code)) return CHOSEN
    const at: readonly KindKey[] = q.at
    return at.flatMap((key) => columnOf.get(key) ?? [])[0] ?? ANYWHERE
  }
  return [CHOSEN, ...COLUMNS, ANYWHERE].flatMap((name) => {
    const here = questions.filter((q) => placeOf(q) === name)
    return here.length === 0 ? [] : [{ name, questions: here }]
  })
}
const CHOSEN = 'chosen here'
const ANYWHERE = 'on the whole gun'

/** The questions on which good people differ: what holds here, why, and the other ways. */
export function Schools({ shop, isLead }: { shop: ShopAnswer; isLead: boolean }) {
  const choices = useChoices()
  const [find, setFind] = useState('')
  const wanted = find.trim().toLowerCase()
  const shown = SHOWN_QUESTIONS.filter((q) =>
    `${q.ask} ${q.at.join(' ')} ${q.schools.map((s) => s.name).join(' ')}`.toLowerCase().includes(wanted),
  )
  const mode = ['short circuit', 'spray', 'pulse', 'globular'].map((key) => ({ type: 'mode' as ScopeType, key }))
  const scopes = [
    { type: 'site' as ScopeType, key: '*' },
    ...shop.families.map((f) => ({ type: 'family' as ScopeType, key: f.id })),
    ...shop.feederTypes.map((f) => ({ type: 'feederType' as ScopeType, key: f.id })),
    ...['2', '4'].map((key) => ({ type: 'feeder' as ScopeType, key })),
    ...mode,
    ...shop.classes.map((c) => ({ type: 'class' as ScopeType, key: c.key })),
  ]
  return (
    <>
      <p className="said">
        Good people differ on these. What holds until you choose is marked usual; each way has its reason. Your site’s
        own safety rules and the maker’s manual come first.
      </p>
      <TextField id="q-find" label="find" {...field(find, setFind)} />
      <Trouble problem={choices.error} />
      {choices.data
        ? groupsOf(shown, shop, new Set(choices.data.choices.map((c) => c.code))).map(({ name, questions }) => (
            <section key={name} aria-label={name}>
              <h2>{capital(name)}</h2>
              {questions.map((q) => (
                <Question
                  key={q.code}
                  question={q}
                  choices={choices.data.choices}
                  gun={{}}
                  scopes={scopes}
                  names={namesOf(shop)}
                  zone={choices.data.zone}
                  isLead={isLead}
                />
              ))}
            </section>
          ))
        : null}
      {shown.length === 0 ? <p className="dim">No question speaks of that.</p> : null}
    </>
  )
}
