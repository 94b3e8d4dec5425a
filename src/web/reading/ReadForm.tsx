import { useState } from 'react'
import { Link } from 'react-router'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { isPullWay } from '@core/drag/pulls.ts'
import { judgeReading, outsidePhysics, type Judged } from '@core/reading/judge.ts'
import { READING, type Method } from '@core/reading/specs.ts'
import { type ReadingLine } from '@contract/reading.ts'
import { newKey } from '@web/api/client.ts'
import { typed } from '@web/format/measures.ts'
import { capital } from '@web/format/words.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { field, TextField } from '@web/shell/Field.tsx'
import { Trouble } from '@web/shell/Trouble.tsx'
import { type Answer } from '@web/photomeasure/asked.ts'
import { MeasurePhoto } from '@web/photomeasure/MeasurePhoto.tsx'
import { useRead } from './queries.ts'
import { READING_DRAWING, readingMeasure, readingValue, targetWords, VERDICT_WORD, type Told } from './readingwords.ts'

interface Typed {
  value: string
  left: string
  /** Two diameters, or so many of so many. */
  one: string
  two: string
  grade: string | null
}
const NOTHING: Typed = { value: '', left: '', one: '', two: '', grade: null }
const KEEP_DAYS = 7
/** What a photo told, as if it had been typed. */
function saidBy(answer: Answer | null): Typed {
  if (!answer?.of.ok) return NOTHING
  if ('open' in answer.of) return { ...NOTHING, value: String(Math.round(answer.of.open * 100)) }
  return { ...NOTHING, one: answer.of.maxMm.toFixed(3), two: answer.of.minMm.toFixed(3) }
}

interface FormProps {
  line: ReadingLine
  stationId: string
  name: string
  at: Told
  onDone: () => void
}

/** What is being read: its method, what is typed, the verdict as it stands, and the one way to send it. */
function useReading({ line, stationId, at, onDone }: FormProps) {
  const spec = READING[line.what]
  const first = spec.methods.find((m) => m.key === line.last?.method) ?? spec.methods[0]
  const [method, setMethod] = useState<Method | undefined>(first)
  const [said, setSaid] = useState<Typed>(NOTHING)
  const [isSaid, setIsSaid] = useState(false)
  const setMeasured = (answer: Answer | null) => setSaid(saidBy(answer))
  const [key] = useState(newKey)
  const read = useRead()
  const { what } = line
  const measure = readingMeasure(what, at.units)
  const made = method ? numbersOf(method, said, measure) : null
  const target = line.last?.method === method?.key || line.target?.by !== 'baseline' ? line.target : null
  // What is seen has its verdict before a number stands beside it.
  const judged = made ?? (said.grade === null ? null : { value: null, left: null })
  const verdict =
    judged && method ? judgeReading({ what, method: method.key, grade: said.grade, ...judged }, target) : null
  const send: Send = ({ isMeant = false, value, days } = {}) => {
    if (!made || !method) return
    const how = isSaid ? ('said' as const) : method.how
    const { left, from } = made
    const keepGoing = days ? { days } : null
    const body = { key, stationId, what, method: method.key, how, left, from, isMeant, keepGoing, grade: said.grade }
    read.mutate({ ...body, value: value ?? made.value }, { onSuccess: onDone })
  }
  const choose = (m: Method) => {
    setMethod(m)
    setSaid(NOTHING)
  }
  return { method, choose, said, setSaid, isSaid, setIsSaid, setMeasured, read, measure, made, target, verdict, send }
}

/** One reading: how it is come by, what it should be, what it is; the verdict stands before anything is sent. */
export function ReadForm(props: FormProps) {
  const { line, at } = props
  const spec = READING[line.what]
  const form = useReading(props)
  const { method, target } = form
  if (!method) return null
  const drawing = READING_DRAWING[line.what]
  return (
    <main className="reading read-form">
      <h1 className="sentence">
        {props.name}: {spec.name}
        {target ? <span className="dim">, {targetWords({ what: line.what, target }, at.units)}</span> : null}
      </h1>
      {spec.methods.length > 1 ? (
        <div className="read-methods" role="group" aria-label="How">
          {spec.methods.map((m) => (
            <button
              key={m.key}
              type="button"
              className="key key-low"
              aria-pressed={m.key === method.key}
              onClick={() => form.choose(m)}
            >
              {m.name}
            </button>
          ))}
        </div>
      ) : null}
      <p className="read-do">{method.do}</p>
      {method.hazards.length > 0 ? (
        <p className="caution-line">{method.hazards.map((h) => CAUTIONS[h].words).join(' ')}</p>
      ) : null}
      {isPullWay(method.key) && line.what === 'pull' ? (
        <Link className="key key-chalk" to={`/drag?gun=${props.stationId}&do=pulls`}>
          Pull it, with Drag
        </Link>
      ) : (
        <Taking line={line} at={at} method={method} form={form} />
      )}
      <Trouble problem={form.read.error} />
      {drawing ? <Drawing of={drawing} /> : null}
      <button type="button" className="key key-low" onClick={props.onDone}>
        Leave it
      </button>
    </main>
  )
}

/** What is typed, its verdict, and the keys that keep it: asked back where no gun shows it, and asked why where it was raised. */
function Taking(props: { line: ReadingLine; at: Told; method: Method; form: ReturnType<typeof useReading> }) {
  const { line, at, method, form } = props
  const { made, verdict, read, send } = form
  const odd = oddOf(line, made)
  const isRaised =
    line.what === 'tension' && made !== null && made.left !== null && made.left > (made.value ?? made.left)
  return (
    <>
      {method.key === 'photo' ? (
        <MeasurePhoto of={line.what === 'bore' ? 'bore' : 'nozzle'} onAnswer={form.setMeasured} />
      ) : (
        <Fields method={method} line={line} said={form.said} measure={form.measure} onSaid={form.setSaid} />
      )}
      <p className="read-verdict" role="status">
        {verdict && !odd ? verdictSentence(verdict) : ''}
      </p>
      {odd ? (
        <OddKeys odd={odd} line={line} at={at} onSend={send} />
      ) : isRaised ? (
        <RaisedKeys isPending={read.isPending} onSend={send} />
      ) : (
        <button
          type="button"
          className="key key-chalk read-keep"
          disabled={!made || read.isPending}
          onClick={() => send()}
        >
          Keep it
        </button>
      )}
      <label className="read-said">
        <input type="checkbox" checked={form.isSaid} onChange={(e) => form.setIsSaid(e.target.checked)} /> somebody said
        so; I did not look
      </label>
    </>
  )
}

/** A number no gun shows, with what was most likely meant. */
function oddOf(line: ReadingLine, made: Numbers | null): { value: number; suggest: number | null } | null {
  for (const value of [made?.value, made?.left]) {
    if (value === null || value === undefined) continue
    const outside = outsidePhysics(line.what, value)
    if (!outside.ok) return { value, suggest: outside.suggest }
  }
  return null
}

const BECAUSE = {
  grade: '',
  below: ', below its window',
  above: ', above its window',
  inside: '',
  'no window': ', nothing to compare it with yet',
} as const
/** "Look, above its window." */
export const verdictSentence = ({ is, because }: Judged) =>
  `${capital(VERDICT_WORD[is])}${is === 'good' && because !== 'no window' ? '' : BECAUSE[because]}.`

interface Numbers {
  value: number | null
  left: number | null
  from: Record<string, number>
}
/** What was typed, in SI; null until there is enough of it. */
export function numbersOf(method: Method, said: Typed, measure: ReturnType<typeof readingMeasure>): Numbers | null {
  const [value, left] = [typed(said.value, measure), typed(said.left, measure)]
  const [one, two] = [said.one, said.two].map((t) => typed(t, { word: '', toSi: (n) => n, fromSi: (n) => n }))
  if (method.number === 'twoDiameters')
    return one && two && one >= two && two > 0
      ? { value: (one - two) / two, left: null, from: { maxMm: one, minMm: two } }
      : null
  if (method.number === 'ofTotal')
    return one !== null && one !== undefined && two && one <= two && one >= 0
      ? { value: one / two, left: null, from: { open: one, total: two } }
      : null
  const isNumberThere = value !== null || left !== null
  if (method.number === 'needed' && !isNumberThere) return null
  if (method.grades.length > 0 && method.number !== 'needed' && said.grade === null && !isNumberThere) return null
  return { value, left, from: {} }
}

function Fields(props: {
  method: Method
  line: ReadingLine
  said: Typed
  measure: ReturnType<typeof readingMeasure>
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
            <button
              key={g.key}
              type="button"
              className="key"
              aria-pressed={said.grade === g.key}
              onClick={() => onSaid({ ...said, grade: said.grade === g.key ? null : g.key })}
            >
              {g.says}
            </button>
          ))}
        </div>
      ) : null}
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

type Send = (over?: { isMeant?: boolean; value?: number; days?: number }) => void

/** No gun shows that: asked back, with what was most likely meant. */
function OddKeys(props: { odd: { value: number; suggest: number | null }; line: ReadingLine; at: Told; onSend: Send }) {
  const { odd, line, at, onSend } = props
  const say = (v: number) => readingValue(line.what, v, at.units)
  return (
    <div className="read-odd" role="alert">
      <p>{say(odd.value)} is beyond any gun.</p>
      {odd.suggest === null ? null : (
        <button type="button" className="key key-chalk" onClick={() => onSend({ value: odd.suggest ?? odd.value })}>
          Did you mean {say(odd.suggest)}?
        </button>
      )}
      <button type="button" className="key" onClick={() => onSend({ isMeant: true })}>
        No, {say(odd.value)} it is
      </button>
    </div>
  )
}

/** Left higher than found: set anew, or raised to keep it going, which hides a dying liner. */
function RaisedKeys({ isPending, onSend }: { isPending: boolean; onSend: Send }) {
  return (
    <div className="read-raised">
      <p>Raised. More pressure keeps a failing liner going and hides it from the next one.</p>
      <button type="button" className="key key-chalk" disabled={isPending} onClick={() => onSend()}>
        Set anew: new liner, wire or rolls
      </button>
      <button type="button" className="key" disabled={isPending} onClick={() => onSend({ days: KEEP_DAYS })}>
        To keep it going, {KEEP_DAYS} days at most
      </button>
    </div>
  )
}
