import { Button, Form } from 'react-bootstrap'
import { useState } from 'react'
import {
  EFFORT_MIN,
  EFFORTS,
  ODDS,
  usualShares,
  type Effort,
  type Knowledge,
  type Odds,
  type Source,
} from '@core/diagnose/knowledge.ts'
import { knowledge as shape } from '@contract/down.ts'
import { ApiError } from '@web/api/client.ts'
import { when } from '@web/format/times.ts'
import { capital, placeName } from '@web/format/words.ts'
import { useMe } from '@web/people/queries.ts'
import { PickOne, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { cameWords, spanWords } from './downwords.ts'
import { CheckEdit } from './CheckEdit.tsx'
import { PATH_PLACES, type PathPlace } from '@core/path/columns.ts'
import { edited, type Edit } from './knowledgeedit.ts'
import { useKnowledge, useSetKnowledge } from './queries.ts'

/** Why a gun stops, as this shop has it: the order of causes, their words and minutes; out and in as a file. */
export function WhyItStops() {
  const now = useKnowledge()
  const set = useSetKnowledge()
  const zone = useMe().data?.zone ?? 'UTC'
  const [own, setOwn] = useState<Knowledge | null>(null)
  const [symptom, setSymptom] = useState('jerk')
  const [unread, setUnread] = useState<ApiError | null>(null)
  if (!now.data) return <Trouble problem={now.error} />
  const kept = now.data.knowledge as Knowledge
  const k = own ?? kept
  const edit = (e: Edit) => setOwn(edited(k, e))
  const send = (body: Knowledge | null) =>
    set.mutate(
      { knowledge: body as unknown as Parameters<typeof set.mutate>[0]['knowledge'] },
      { onSuccess: () => setOwn(null) },
    )
  const bring = async (file: File) => {
    const read = readFile(await file.text())
    setUnread(read instanceof ApiError ? read : null)
    if (!(read instanceof ApiError)) setOwn(read)
  }
  return (
    <div className="why-it-stops">
      <p className="said">
        {now.data.isShipped
          ? 'As the trade has it; every chance and minute of it is a guess.'
          : `This shop’s own, changed ${now.data.version} times, last ${when(now.data.atMs ?? 0, Date.now(), zone)}.${cameWords(now.data.came)}`}{' '}
        Of each cause stands how often it is behind it, each word twice the next, and where that comes from: practice
        (several hands name it), one school, or reckoned from how wire and gas run. The shop’s own stops count as they
        come in.
      </p>
      <PickOne
        id="why-symptom"
        label="What is seen"
        value={symptom}
        options={k.symptoms.map((s) => [s.key, s.says] as const)}
        onPick={setSymptom}
      />
      <OneSymptom k={k} symptom={symptom} onEdit={edit} />
      <OwnCause symptom={symptom} onEdit={edit} />
      <CheckEdit k={k} symptom={symptom} onEdit={edit} />
      <div className="why-keys">
        <Button variant="chalk" disabled={!own || set.isPending} onClick={() => send(k)}>
          Keep it so
        </Button>
        <Button variant="" disabled={!own} onClick={() => setOwn(null)}>
          Leave it as it was
        </Button>
        <a className="btn" href={fileOf(k)} download="why-it-stops.json">
          Out as a file
        </a>
        <label className="btn">
          In from a file
          <input
            type="file"
            accept="application/json,.json"
            className="visually-hidden"
            onChange={(e) => (e.target.files?.[0] ? void bring(e.target.files[0]) : undefined)}
          />
        </label>
        {now.data.isShipped ? null : (
          <Button variant="" disabled={set.isPending} onClick={() => send(null)}>
            Back to the trade’s
          </Button>
        )}
      </div>
      {own ? <p role="status">Changed here, and not kept yet.</p> : null}
      <Trouble problem={unread ?? set.error} />
    </div>
  )
}

const fileOf = (k: Knowledge) => `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(k, null, 1))}`

/** A file that cannot be read says where. */
function readFile(text: string): Knowledge | ApiError {
  const refuse = (details: string[]) =>
    new ApiError({
      code: 'bad-request',
      message: 'That file can’t be read as causes and checks; nothing was changed.',
      details,
    })
  let body: unknown
  try {
    body = JSON.parse(text)
  } catch {
    return refuse(['It is no JSON. Take the file as it came out of here.'])
  }
  const read = shape.safeParse(body)
  if (read.success) return read.data
  return refuse(read.error.issues.slice(0, 5).map((i) => `${i.path.join('.') || 'file'}: ${i.message}.`))
}

const ODDS_WORD: Record<Odds, string> = { often: 'often', atTimes: 'at times', seldom: 'seldom', rarely: 'rarely' }
const SOURCE_WORD: Record<Source, string> = {
  practice: 'practice',
  taught: 'one school',
  reckoned: 'reckoned',
}
const inHundred = (share: number) => (share < 0.01 ? 'under 1 in 100' : `${Math.round(100 * share)} in 100`)

function OneSymptom({ k, symptom, onEdit }: { k: Knowledge; symptom: string; onEdit: (edit: Edit) => void }) {
  const of = k.symptoms.find((s) => s.key === symptom)
  const causes = of?.causes ?? []
  const shares = of ? usualShares(of) : []
  const others = k.causes.filter((c) => !causes.includes(c.key))
  return (
    <>
      <ol className="why-causes">
        {causes.map((key, i) => {
          const cause = k.causes.find((c) => c.key === key)
          return cause ? (
            <li key={key}>
              <Form.Control
                aria-label={`Words of cause ${i + 1}`}
                value={cause.says}
                maxLength={160}
                onChange={(e) => onEdit({ do: 'words', cause: key, says: e.target.value })}
              />
              <span className="dim">{inHundred(shares[i] ?? 0)}</span>
              {of?.odds ? (
                <Form.Select
                  aria-label={`How often it is ${cause.says}`}
                  value={of.odds[key] ?? 'seldom'}
                  onChange={(e) => onEdit({ do: 'odds', symptom, cause: key, odds: e.target.value as Odds })}
                >
                  {ODDS.map((odds) => (
                    <option key={odds} value={odds}>
                      {ODDS_WORD[odds]}
                    </option>
                  ))}
                </Form.Select>
              ) : null}
              <span className="dim">{of?.odds ? SOURCE_WORD[of.source?.[key] ?? 'practice'] : ''}</span>
              <Form.Select
                aria-label={`Effort of ${cause.says}`}
                value={cause.fix.effort}
                onChange={(e) => onEdit({ do: 'effort', cause: key, effort: e.target.value as Effort })}
              >
                {EFFORTS.map((effort) => (
                  <option key={effort} value={effort}>
                    {spanWords(EFFORT_MIN[effort])}
                  </option>
                ))}
              </Form.Select>
              {of?.odds ? null : (
                <Button variant="" disabled={i === 0} onClick={() => onEdit({ do: 'up', symptom, cause: key })}>
                  likelier
                </Button>
              )}
              <Button variant="" onClick={() => onEdit({ do: 'out', symptom, cause: key })}>
                wrong here
              </Button>
            </li>
          ) : null
        })}
      </ol>
      <PickOne
        id="why-add"
        label="Another cause of it"
        value=""
        none="choose"
        options={others.map((c) => [c.key, capital(c.says)] as const)}
        onPick={(cause) => (cause ? onEdit({ do: 'in', symptom, cause }) : undefined)}
      />
    </>
  )
}

/** A cause nobody thought of: its words and its place on the path. It needs a look that shows it too. */
function OwnCause({ symptom, onEdit }: { symptom: string; onEdit: (edit: Edit) => void }) {
  const [says, setSays] = useState('')
  const [at, setAt] = useState<PathPlace>('off')
  return (
    <div className="why-own">
      <TextField
        id="why-own"
        label="A cause of your own"
        value={says}
        maxLength={160}
        onChange={(e) => setSays(e.target.value)}
      />
      <PickOne
        id="why-own-at"
        label="Where on the path"
        value={at}
        options={PATH_PLACES.map((c) => [c, placeName(c)] as const)}
        onPick={setAt}
      />
      <Button
        variant=""
        disabled={says.trim() === ''}
        onClick={() => {
          onEdit({ do: 'newCause', symptom, says: says.trim(), at })
          setSays('')
        }}
      >
        Add it
      </Button>
    </div>
  )
}
