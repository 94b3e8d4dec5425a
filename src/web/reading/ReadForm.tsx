import { Tick } from '@web/kit/Tick.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { BY_KEY } from '@core/photo/photo.ts'
import { isPullWay } from '@core/drag/pulls.ts'
import { againMs, canOpenRow } from '@core/reading/alarms.ts'
import { judgeReading } from '@core/reading/judge.ts'
import { asksPurpose } from '@core/reading/purpose.ts'
import { READING, type Method } from '@core/reading/specs.ts'
import { TENSION_WAY } from '@core/reading/tensionway.ts'
import { type ReadingAnswer, type ReadingLine } from '@contract/reading.ts'
import { newKey } from '@web/api/client.ts'
import { ago, when } from '@web/format/times.ts'
import { Drawing } from '@web/guide/Drawing.tsx'
import { PhotoPick, Photos } from '@web/photo/Photos.tsx'
import { keepPhoto } from '@web/photo/queries.ts'
import { type Answer } from '@web/photomeasure/asked.ts'
import { MeasurePhoto } from '@web/photomeasure/MeasurePhoto.tsx'
import { MeasureSide } from '@web/photomeasure/MeasureSide.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useRead } from './queries.ts'
import { ReadFields } from './ReadFields.tsx'
import { oddOf, OddKeys, PurposeKeys, RaisedKeys, type Send } from './ReadKeys.tsx'
import { keptWords, readingMeasure, targetWords, type Told } from './readingwords.ts'
import { madeOf, NOTHING, saidBy, verdictSentence, type Typed } from './typednumbers.ts'

interface FormProps {
  line: ReadingLine
  stationId: string
  name: string
  at: Told
  schools: ReadingAnswer['schools']
  onDone: () => void
}

/** What is being read: its method, what is typed, the verdict as it stands, and the one way to send it. */
function useReading(props: FormProps) {
  const { line, stationId, at, onDone } = props
  const spec = READING[line.what]
  const way = line.what === 'tension' ? TENSION_WAY[props.schools.tension] : line.last?.method
  const first = spec.methods.find((m) => m.key === way && !m.isByItself) ?? spec.methods[0]
  const [method, setMethod] = useState<Method | undefined>(first)
  const [said, setSaid] = useState<Typed>(NOTHING)
  const [isSaid, setIsSaid] = useState(false)
  const [photo, setPhoto] = useState<File | null>(null)
  const [isPhotoKept, setIsPhotoKept] = useState(true)
  const [key] = useState(newKey)
  const read = useRead()
  const { what } = line
  const measure = readingMeasure(what, at.units)
  const setMeasured = (answer: Answer | null) =>
    setSaid(method?.photo ? saidBy(answer, method.photo.of, measure) : NOTHING)
  const made = method ? madeOf(method, said, { units: at.units, measure }) : null
  const target = line.last?.method === method?.key || line.target?.by !== 'baseline' ? line.target : null
  // What is seen has its verdict before a number stands beside it.
  const judged = made ?? (said.grade === null ? null : { value: null, left: null })
  const verdict =
    judged && method ? judgeReading({ what, method: method.key, grade: said.grade, ...judged }, target) : null
  const send: Send = ({ isMeant = false, value, left = made?.left ?? null, keepDays, purpose } = {}) => {
    if (!made || !method) return
    const how = isSaid ? ('said' as const) : method.how
    const { from } = made
    const keepGoing = keepDays === undefined ? null : { days: keepDays }
    const body = { key, stationId, what, method: method.key, how, left, from, isMeant, keepGoing, grade: said.grade }
    const why = purpose === undefined ? {} : { isOnPurpose: true, note: purpose }
    const keep = photo && (isPhotoKept || !method.photo) ? photo : null
    read.mutate(
      { ...body, ...why, value: value ?? made.value },
      {
        onSuccess: (kept) => {
          if (keep) void keepPhoto({ type: 'event', key: kept?.eventId ?? `${BY_KEY}${key}` }, keep)
          onDone()
        },
      },
    )
  }
  const choose = (m: Method) => {
    setMethod(m)
    setSaid(NOTHING)
    setPhoto(null)
  }
  const picture = { photo, setPhoto, isKept: isPhotoKept, setIsKept: setIsPhotoKept, setMeasured }
  return { method, choose, said, setSaid, isSaid, setIsSaid, picture, read, measure, made, target, verdict, send }
}

/** One reading: how it is come by, what it should be, what it is; the verdict stands before anything is sent. */
export function ReadForm(props: FormProps) {
  const { line, at } = props
  const spec = READING[line.what]
  const form = useReading(props)
  const { method, target } = form
  if (!method) return null
  const drawing = READING[line.what].drawing
  return (
    <main className="reading read-form">
      <h1 className="sentence">
        {props.name}: {spec.name}
        {target ? <span className="dim">, {targetWords({ what: line.what, target }, at.units)}</span> : null}
      </h1>
      {spec.methods.filter((m) => !m.isByItself).length > 1 ? (
        <div className="read-methods" role="group" aria-label="How">
          {spec.methods
            .filter((m) => !m.isByItself)
            .map((m) => (
              <Key key={m.key} size="low" aria-pressed={m.key === method.key} onClick={() => form.choose(m)}>
                {m.name}
              </Key>
            ))}
        </div>
      ) : null}
      <p className="read-do">{method.do}</p>
      <CautionLines className="caution-line" hazards={method.hazards} />
      {isPullWay(method.key) && line.what === 'pull' ? (
        <Link className="key key-chalk" to={`/drag?gun=${props.stationId}&do=pulls`}>
          Pull it, with Drag
        </Link>
      ) : (
        <Taking line={line} at={at} method={method} form={form} raise={props.schools.raise} />
      )}
      <Trouble problem={form.read.error} />
      {drawing ? <Drawing of={drawing} /> : null}
      {line.last?.method === 'photo' ? <LastPicture line={line} at={at} /> : null}
      <Key size="low" onClick={props.onDone}>
        Leave it
      </Key>
    </main>
  )
}

/** What it looked like when it was last read on a picture. */
function LastPicture({ line: { last, what }, at }: { line: ReadingLine; at: Told }) {
  if (!last) return null
  return (
    <section aria-label="Last time">
      <p className="dim">
        {ago(last.atMs, at.nowMs)} ago: {keptWords(what, last, at.units)}
      </p>
      <Photos of={{ type: 'event', key: last.eventId }} />
    </section>
  )
}

/** What is typed, its verdict, and the keys that keep it: asked back where no gun shows it, and asked why where it was raised. */
function Taking(props: {
  line: ReadingLine
  at: Told
  method: Method
  form: ReturnType<typeof useReading>
  raise: ReadingAnswer['schools']['raise']
}) {
  const { line, at, method, form, raise } = props
  const { made, verdict, read, send } = form
  const odd = oddOf(line, made)
  const isAsked = made !== null && verdict !== null && asksPurpose(line.what, verdict, form.target)
  const isRaised =
    line.what === 'tension' && made !== null && made.left !== null && made.left > (made.value ?? made.left)
  return (
    <>
      {method.photo ? (
        <OnPhoto photo={method.photo} form={form} line={line} />
      ) : (
        <>
          <ReadFields method={method} line={line} said={form.said} measure={form.measure} onSaid={form.setSaid} />
          {form.picture.photo ? (
            <p className="dim">The photo goes with it.</p>
          ) : (
            <PhotoPick word="a photo of it" accept="image/*" isKeeping={false} onFile={form.picture.setPhoto} />
          )}
        </>
      )}
      <p className="read-verdict" role="status">
        {verdict && !odd ? `${verdictSentence(verdict)}${isAsked ? '' : againWords(line.what, verdict.is, at)}` : ''}
      </p>
      {odd ? (
        <OddKeys odd={odd} line={line} at={at} onSend={send} />
      ) : isRaised ? (
        <RaisedKeys isPending={read.isPending} school={raise} found={made?.value ?? null} onSend={send} />
      ) : isAsked ? (
        <PurposeKeys what={line.what} isAbove={verdict.because === 'above'} isPending={read.isPending} onSend={send} />
      ) : (
        <Key tone="chalk" className="read-keep" disabled={!made || read.isPending} onClick={() => send()}>
          Keep it
        </Key>
      )}
      <Tick isOn={form.isSaid} onTick={form.setIsSaid}>
        somebody said so; I did not look
      </Tick>
    </>
  )
}

/** What is only remarked on and stays in has a day on which it comes up again. */
function againWords(what: ReadingLine['what'], is: 'good' | 'look' | 'act', { nowMs, zone }: Told): string {
  if (is !== 'look' || !canOpenRow(what)) return ''
  return ` Left as it is, it comes up again ${when(againMs({ what, sinceMs: nowMs }), nowMs, zone)}.`
}

/** Measured on a picture, which is kept with the reading. Which way a tip stands no length tells: that is asked. */
function OnPhoto(props: {
  photo: NonNullable<Method['photo']>
  form: ReturnType<typeof useReading>
  line: ReadingLine
}) {
  const { photo, form, line } = props
  const { picture, said, setSaid } = form
  const on = { onAnswer: picture.setMeasured, onPhoto: picture.setPhoto }
  const length = said.value.replace('-', '')
  return (
    <>
      {photo.of === 'side' ? (
        <MeasureSide known={photo.known} isKnownUnit={photo.isKnownUnit} measure={form.measure} {...on} />
      ) : (
        <MeasurePhoto of={photo.of === 'bore' ? 'bore' : 'nozzle'} {...on} />
      )}
      {line.what === 'recess' && length !== '' ? (
        <div className="read-grades" role="group" aria-label="Which way">
          {(['', '-'] as const).map((sign) => (
            <Key
              key={sign}
              aria-pressed={said.value === `${sign}${length}`}
              onClick={() => setSaid({ ...said, value: `${sign}${length}` })}
            >
              {sign === '' ? 'stands out' : 'stands back in'}
            </Key>
          ))}
        </div>
      ) : null}
      {picture.photo ? (
        <Tick isOn={picture.isKept} onTick={picture.setIsKept}>
          keep the picture with the reading
        </Tick>
      ) : null}
    </>
  )
}
