import { Key } from '@web/kit/Keys.tsx'
import { READING, type Method } from '@core/reading/specs.ts'
import { type ReadingLine } from '@contract/reading.ts'
import { unread, type Measure } from '@web/format/measures.ts'
import { useMe } from '@web/people/queries.ts'
import { Form } from 'react-bootstrap'
import { field } from '@web/kit/Field.tsx'
import { NO_UNIT } from './readingwords.ts'
import { isMadeOf, partFields, partMeasure, type MadeOf, type Typed } from './typednumbers.ts'

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
  const boreUnit = useMe().data?.units === 'us' ? 'in' : 'mm'
  const hasNumber = method.number === 'needed' || method.number === 'welcome'
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
      {isMadeOf(method.number) ? <Parts number={method.number} said={said} onSaid={onSaid} /> : null}
      <div className="read-numbers">
        {hasNumber ? (
          <MeasureField
            id="read-value"
            label={`${spec.isSet ? 'Found' : 'Read'}${measure.word ? `, ${measure.word}` : ''}`}
            measure={measure}
            text={said.value}
            onText={set('value')}
          />
        ) : null}
        {hasNumber && spec.isSet ? (
          <MeasureField id="read-left" label="Left at" measure={measure} text={said.left} onText={set('left')} />
        ) : null}
        {method.number === 'twoDiameters' ? (
          <>
            <MeasureField
              id="read-one"
              label={`Widest, ${boreUnit}`}
              measure={NO_UNIT}
              text={said.one}
              onText={set('one')}
            />
            <MeasureField
              id="read-two"
              label={`Narrowest, across it, ${boreUnit}`}
              measure={NO_UNIT}
              text={said.two}
              onText={set('two')}
            />
          </>
        ) : null}
        {method.number === 'ofTotal' ? (
          <>
            <MeasureField id="read-one" label="Open" measure={NO_UNIT} text={said.one} onText={set('one')} />
            <MeasureField id="read-two" label="Of" measure={NO_UNIT} text={said.two} onText={set('two')} />
          </>
        ) : null}
      </div>
    </>
  )
}

function Parts({ number, said, onSaid }: { number: MadeOf; said: Typed; onSaid: (said: Typed) => void }) {
  const units = useMe().data?.units ?? 'metric'
  return (
    <div className="read-numbers">
      {partFields(number).map(([name, { label, of }]) => {
        const measure = partMeasure(of, units)
        return (
          <MeasureField
            key={name}
            id={`read-${name}`}
            label={measure.word ? `${label}, ${measure.word}` : label}
            measure={measure}
            text={said.parts[name] ?? ''}
            onText={(text) => onSaid({ ...said, parts: { ...said.parts, [name]: text } })}
          />
        )
      })}
    </div>
  )
}

/** A number of a reading: judged while it is typed, so what can't be read is said while it is typed. */
function MeasureField(props: {
  id: string
  label: string
  measure: Measure
  text: string
  onText: (text: string) => void
}) {
  const why = unread(props.text, props.measure)
  return (
    <Form.Group controlId={props.id}>
      <Form.Label>{props.label}</Form.Label>
      <Form.Control
        inputMode="decimal"
        autoComplete="off"
        isInvalid={why !== null}
        {...field(props.text, props.onText)}
      />
      <Form.Control.Feedback type="invalid">{why}</Form.Control.Feedback>
    </Form.Group>
  )
}
