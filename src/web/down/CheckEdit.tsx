import { needed, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Button, Form } from 'react-bootstrap'
import { useState } from 'react'
import { isAbout, minutesOf, type Check, type Knowledge, type Outcome } from '@core/diagnose/knowledge.ts'
import { capital } from '@web/format/words.ts'
import { PickOne, TextField } from '@web/kit/Field.tsx'
import { type Edit } from './knowledgeedit.ts'

interface Props {
  k: Knowledge
  symptom: string
  onEdit: (edit: Edit) => void
}
/** Looks at what this sign may be of: their words, minutes, and what each answer speaks for. */
export function CheckEdit({ k, symptom, onEdit }: Props) {
  const [picked, setPicked] = useState('')
  const [own, setOwn] = useState('')
  const causes = new Set(k.symptoms.find((s) => s.key === symptom)?.causes)
  const isOfIt = (c: Check) => isAbout(c, causes)
  const sorted = [...k.checks].sort((a, b) => Number(isOfIt(b)) - Number(isOfIt(a)))
  const check = k.checks.find((c) => c.key === picked)
  return (
    <section className="why-checks" aria-label="Looks">
      <h2>Looks</h2>
      <PickOne
        id="why-check"
        label="A look, those at this sign first"
        value={picked}
        none="choose"
        options={sorted.map((c) => [c.key, `${c.do}${isOfIt(c) ? '' : ' (of others)'}`] as const)}
        onPick={setPicked}
      />
      {check ? <OneCheck key={check.key} k={k} check={check} onEdit={onEdit} /> : null}
      <div className="why-own">
        <TextField
          id="why-own-check"
          label="A look of your own"
          value={own}
          maxLength={160}
          onChange={(e) => setOwn(e.target.value)}
        />
        <Button
          variant=""
          disabled={own.trim() === ''}
          onClick={() => {
            onEdit({ do: 'newCheck', says: own.trim() })
            setOwn('')
          }}
        >
          Add it
        </Button>
      </div>
    </section>
  )
}

/** What it takes and how often it shows what is there; taken over when the field is left, and said when it can't be read. */
function CheckNumbers({ check, onEdit }: { check: Check; onEdit: (edit: Edit) => void }) {
  const { key } = check
  const form = useReadForm(
    { minutes: needed({ of: 'minutes', above: 0, to: 240 }), shows: needed({ of: 'share', above: 0, to: 1 }) },
    { minutes: String(minutesOf(check)), shows: String(Math.round(check.shows * 100)) },
  )
  const keep = form.submit(({ minutes, shows }) => {
    if (minutes !== minutesOf(check)) onEdit({ do: 'check', check: key, change: { minutes } })
    if (Math.round(shows * 100) !== Math.round(check.shows * 100)) onEdit({ do: 'shows', check: key, shows })
  })
  return (
    <div onBlur={keep}>
      <QuantityField form={form} name="minutes" id="why-minutes" label="Minutes" />
      <QuantityField form={form} name="shows" id="why-shows" label="Shows it, times in 100" />
    </div>
  )
}

function OneCheck({ k, check, onEdit }: { k: Knowledge; check: Check; onEdit: (edit: Edit) => void }) {
  return (
    <div className="why-check">
      <TextField
        id="why-do"
        label="What to do"
        value={check.do}
        maxLength={160}
        onChange={(e) => onEdit({ do: 'check', check: check.key, change: { do: e.target.value } })}
      />
      <TextField
        id="why-how"
        label="How"
        value={check.how}
        maxLength={300}
        onChange={(e) => onEdit({ do: 'check', check: check.key, change: { how: e.target.value } })}
      />
      <CheckNumbers key={check.key} check={check} onEdit={onEdit} />
      <ol className="why-answers">
        {check.outcomes.map((o, i) => (
          <OneAnswer
            key={o.key}
            k={k}
            at={{ check: check.key, outcome: o }}
            isLast={i === check.outcomes.length - 1}
            canGo={check.outcomes.length > 2}
            onEdit={onEdit}
          />
        ))}
      </ol>
      <div className="why-keys">
        <Button variant="" onClick={() => onEdit({ do: 'newAnswer', check: check.key, says: 'Something else' })}>
          Another answer
        </Button>
        <Button variant="" onClick={() => onEdit({ do: 'noCheck', check: check.key })}>
          Take this look out
        </Button>
      </div>
    </div>
  )
}

function OneAnswer(props: {
  k: Knowledge
  at: { check: string; outcome: Outcome }
  isLast: boolean
  canGo: boolean
  onEdit: (edit: Edit) => void
}) {
  const { k, isLast, onEdit } = props
  const { check, outcome } = props.at
  const says = (key: string) => k.causes.find((c) => c.key === key)?.says ?? key
  const point = (cause: string, isOn: boolean) => onEdit({ do: 'point', check, outcome: outcome.key, cause, isOn })
  return (
    <li>
      <Form.Control
        aria-label={isLast ? 'Words where all is well' : 'Words of the answer'}
        value={outcome.says}
        maxLength={160}
        onChange={(e) => onEdit({ do: 'answer', check, outcome: outcome.key, says: e.target.value })}
      />
      {isLast ? (
        <span className="dim">all is well there: it speaks for nothing</span>
      ) : (
        <>
          {outcome.points.map((p) => (
            <Button key={p} variant="" onClick={() => point(p, false)} aria-label={`not ${says(p)}`}>
              {says(p)} ✕
            </Button>
          ))}
          <Form.Select
            aria-label={`${outcome.says} also speaks for`}
            value=""
            onChange={(e) => point(e.target.value, true)}
          >
            <option value="">also speaks for …</option>
            {k.causes
              .filter((c) => !outcome.points.includes(c.key))
              .map((c) => (
                <option key={c.key} value={c.key}>
                  {capital(c.says)}
                </option>
              ))}
          </Form.Select>
          {props.canGo ? (
            <Button variant="" onClick={() => onEdit({ do: 'noAnswer', check, outcome: outcome.key })}>
              no such answer
            </Button>
          ) : null}
        </>
      )}
    </li>
  )
}
