import { Form } from 'react-bootstrap'
import { CLAUSE_TEXT, LINER_CLAUSES, type LinerClause, type LinerTerms } from '@core/liner/clauses.ts'
import { capital } from '@web/format/words.ts'
import { PickOne, type Option } from '@web/kit/Field.tsx'

const RATIOS: readonly Option[] = ['1.2', '1.3', '1.4', '1.5', '1.7', '2', '2.5'].map((r) => [r, `${r} times`])
const TIPS: readonly Option[] = ['1', '2', '3', '4'].map((n) => [n, n])
const withOwn = (options: readonly Option[], value: number): readonly Option[] =>
  options.some(([v]) => Number(v) === value) ? options : [...options, [String(value), String(value)]]

/** The clauses of when a liner is changed, each a switch with its reason; `seen` says what each did here. */
export function LinerTermsForm(props: {
  id: string
  terms: LinerTerms
  seen?: (clause: LinerClause) => string
  onTerms: (terms: LinerTerms) => void
}) {
  const { id, terms, seen, onTerms } = props
  const toggle = (clause: LinerClause, isOn: boolean) =>
    onTerms({ ...terms, on: LINER_CLAUSES.filter((c) => (c === clause ? isOn : terms.on.includes(c))) })
  return (
    <fieldset className="liner-terms">
      <legend>Changed on any of these</legend>
      <div className="liner-clauses">
        {LINER_CLAUSES.map((clause) => (
          <div key={clause} className="liner-term">
            <Form.Check
              type="switch"
              id={`${id}-${clause}`}
              checked={terms.on.includes(clause)}
              onChange={(e) => toggle(clause, e.target.checked)}
              label={capital(CLAUSE_TEXT[clause].says)}
            />
            <p className="small-print">{[CLAUSE_TEXT[clause].reason, seen?.(clause)].filter(Boolean).join(' ')}</p>
          </div>
        ))}
      </div>
      <div className="built-form">
        <PickOne
          id={`${id}-ratio`}
          label="a pull this much above its beginning"
          value={String(terms.pullRatio)}
          options={withOwn(RATIOS, terms.pullRatio)}
          onPick={(v) => onTerms({ ...terms, pullRatio: Number(v) })}
        />
        <PickOne
          id={`${id}-tips`}
          label="fresh tips without effect"
          value={String(terms.tips)}
          options={withOwn(TIPS, terms.tips)}
          onPick={(v) => onTerms({ ...terms, tips: Number(v) })}
        />
      </div>
    </fieldset>
  )
}
