import { Key } from '@web/kit/Keys.tsx'
import { READING, type Method } from '@core/reading/specs.ts'
import { type ReadingLine } from '@contract/reading.ts'
import { measures, type Measure } from '@web/format/measures.ts'
import { useMe } from '@web/people/queries.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { WEIGHT_FIELDS, WEIGHT_KEYS, type Typed } from './typednumbers.ts'

/** What one method asks for: what is seen, a number, both. */
export function ReadFields(props: {
  method: Method
  line: ReadingLine
  said: Typed
  measure: Measure
  onSaid: (said: Typed) => void
}) {
  const { method, line, said, measure, onSaid } = props
  const spec = READING[line.what]
  const set = (k: keyof Typed) => (v: string) => onSaid({ ...said, [k]: v })
  const hasNumber = method.number === 'needed' || method.number === 'welcome'
  const decimal = { inputMode: 'decimal', autoComplete: 'off' } as const
  return (
    <>
      {method.grades.length > 0 ? (
        <div className="read-grades" role="group" aria-label="What is seen">
          {method.grades.map((g) => (
            <Key
              key={g.key}
              aria-pressed={said.grade === g.key}
              onClick={() => onSaid({ ...said, grade: said.grade === g.key ? null : g.key })}
            >
              {g.says}
            </Key>
          ))}
        </div>
      ) : null}
      {method.number === 'weights' ? <Weights said={said} onSaid={onSaid} /> : null}
      <div className="read-numbers">
        {hasNumber ? (
          <TextField
            id="read-value"
            label={`${spec.isSet ? 'Found' : 'Read'}${measure.word ? `, ${measure.word}` : ''}`}
            {...decimal}
            {...field(said.value, set('value'))}
          />
        ) : null}
        {hasNumber && spec.isSet ? (
          <TextField id="read-left" label="Left at" {...decimal} {...field(said.left, set('left'))} />
        ) : null}
        {method.number === 'twoDiameters' ? (
          <>
            <TextField id="read-one" label="Widest" {...decimal} {...field(said.one, set('one'))} />
            <TextField id="read-two" label="Narrowest, across it" {...decimal} {...field(said.two, set('two'))} />
          </>
        ) : null}
        {method.number === 'ofTotal' ? (
          <>
            <TextField id="read-one" label="Open" {...decimal} {...field(said.one, set('one'))} />
            <TextField id="read-two" label="Of" {...decimal} {...field(said.two, set('two'))} />
          </>
        ) : null}
      </div>
    </>
  )
}

function Weights({ said, onSaid }: { said: Typed; onSaid: (said: Typed) => void }) {
  const word = measures(useMe().data?.units ?? 'metric').force.word
  return (
    <div className="read-numbers">
      {WEIGHT_KEYS.map((k) => (
        <TextField
          key={k}
          id={`read-${k}`}
          label={k === 'bends' ? WEIGHT_FIELDS[k] : `${WEIGHT_FIELDS[k]}, ${word}`}
          inputMode="decimal"
          autoComplete="off"
          {...field(said.weights[k] ?? '', (text) => onSaid({ ...said, weights: { ...said.weights, [k]: text } }))}
        />
      ))}
    </div>
  )
}
