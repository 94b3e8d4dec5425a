import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { rulingFor, type Asked, type RuledBy, type School, type ScopeType } from '@core/houserule/schools.ts'
import { USUAL_TERMS, type LinerTerms } from '@core/liner/clauses.ts'
import { type ChoiceLine } from '@contract/houserule.ts'
import { capital } from '@web/format/words.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { LinerTermsForm } from './LinerTermsForm.tsx'
import { useChoose } from './queries.ts'
import { scopeWord, whose, type ScopeNames } from './rulewords.ts'

interface Props {
  question: Asked
  choices: readonly ChoiceLine[]
  gun: RuledBy
  scopes: readonly { type: ScopeType; key: string }[]
  names: ScopeNames
  zone: string
  isLead: boolean
}

/** What holds here, in one line; the other schools and their reasons one tap away. */
export function Question(props: Props) {
  const { question, choices, gun, names, zone } = props
  const isRule = question.standing === undefined
  const { school, choice } = rulingFor(question.code, gun, isRule ? choices : [])
  const narrower = choices.filter((c) => c.code === question.code && c !== choice)
  return (
    <details className="question">
      <summary>
        <span className="ask">{question.ask}</span> <strong>{capital(school.name)}</strong>{' '}
        {isRule ? <span className="dim">({choice ? 'house rule' : 'usual'})</span> : null}
      </summary>
      <p className="small-print">
        {isRule ? `${capital(whose(choice, names, zone))}. ` : ''}
        {question.why}
      </p>
      <ul className="plain schools">
        {question.schools.map((s) => (
          <li key={s.key}>
            <strong>{capital(s.name)}</strong>
            {isRule && s.key === school.key ? <span> (holds here)</span> : null}
            <span className="dim"> {s.reason}</span>
          </li>
        ))}
      </ul>
      {(isRule ? narrower : []).map((c) => (
        <p className="small-print" key={`${c.scopeType} ${c.scopeKey}`}>
          {capital(scopeWord(c.scopeType, c.scopeKey, names))}:{' '}
          {question.schools.find((s) => s.key === c.option)?.name ?? 'a school that is no more'}.
        </p>
      ))}
      {props.isLead && isRule ? <Choose {...props} holds={school} choice={choice} /> : null}
    </details>
  )
}

const sameTerms = (a: LinerTerms | null, b: LinerTerms) => JSON.stringify(a ?? USUAL_TERMS) === JSON.stringify(b)

function Choose(props: Props & { holds: School; choice: ChoiceLine | null }) {
  const { question, scopes, names } = props
  const choose = useChoose()
  const [option, setOption] = useState(props.holds.key)
  const [terms, setTerms] = useState<LinerTerms>(props.choice?.terms ?? USUAL_TERMS)
  const [at, setAt] = useState(0)
  const scope = scopes[at] ?? { type: 'site' as const, key: '*' }
  const there = props.choices.find(
    (c) => c.code === question.code && c.scopeType === scope.type && c.scopeKey === scope.key,
  )
  const send = (next: string | null) =>
    choose.mutate({
      ...{ code: question.code, scopeType: scope.type, scopeKey: scope.key, option: next },
      ...(hasTerms && next !== null ? { terms } : {}),
    })
  const hasTerms = question.code === 'D06' && option === 'signs'
  const isSame = there?.option === option && (!hasTerms || sameTerms(there.terms, terms))
  return (
    <div className="built-form">
      <PickOne
        id={`q-${question.code}-how`}
        label="here we do"
        value={option}
        options={question.schools.map((s) => [s.key, s.name])}
        onPick={setOption}
      />
      <PickOne
        id={`q-${question.code}-where`}
        label="where"
        value={String(at)}
        options={scopes.map((s, i) => [String(i), scopeWord(s.type, s.key, names)])}
        onPick={(v) => setAt(Number(v))}
      />
      {hasTerms ? <LinerTermsForm id={`q-${question.code}`} terms={terms} onTerms={setTerms} /> : null}
      <div className="built-keys">
        <Button variant="chalk" disabled={choose.isPending || isSame} onClick={() => send(option)}>
          Make it the rule
        </Button>
        {there ? (
          <Button disabled={choose.isPending} onClick={() => send(null)}>
            back to the usual
          </Button>
        ) : null}
      </div>
      <Trouble problem={choose.error} />
    </div>
  )
}
