import { Button, Form } from 'react-bootstrap'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { isToUndo, TAG_TEXT } from '@core/changeover/tags.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type FindingLine, type TagLine } from '@contract/rightparts.ts'
import { type Act } from '@contract/logbook.ts'
import { newKey } from '@web/api/client.ts'
import { type Units } from '@web/format/numbers.ts'
import { ago, when } from '@web/format/times.ts'
import { capital, lower } from '@web/format/words.ts'
import { useLog } from '@web/log/queries.ts'
import { useIsLead } from '@web/people/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useKeep, useSet, useTag } from './queries.ts'
import { findingPlace, findingSentence, findingWhy, remedyWords, stockWords } from './words.ts'

/** Is the gun built right: what does not fit with what to do, the chain as one verdict, and what is still tied. */
export function Fit({ gun, units }: { gun: GunAnswer; units: Units }) {
  const isLead = useIsLead()
  const open = gun.findings.filter((f) => f.kept === null && f.severity !== 'note')
  const said = gun.findings.filter((f) => f.kept !== null || f.severity === 'note')
  return (
    <section className="fit" aria-label="Right parts">
      {gun.tags
        .filter((t) => isToUndo(t.tag))
        .map((t) => (
          <TagKey key={t.tag} gun={gun} tag={t} />
        ))}
      {open.map((f, i) => (
        <FindingBlock
          key={`${f.rule} ${f.at}`}
          gun={gun}
          finding={f}
          units={units}
          isLead={isLead}
          isFirst={i === 0 && open.filter((o) => o.severity === 'stops').length === 1 && gun.downSinceMs === null}
        />
      ))}
      <Chain gun={gun} />
      {gun.tags
        .filter((t) => !isToUndo(t.tag))
        .map((t) => (
          <p className="small-print" key={t.tag}>
            {capital(TAG_TEXT[t.tag].says)}
            {t.parts.length > 0 ? `: ${t.parts.map((p) => p.code).join(', ')}` : ''}.
          </p>
        ))}
      {said.map((f) => (
        <p className="small-print" key={`${f.rule} ${f.at}`}>
          {f.kept ? <Kept gun={gun} finding={f} units={units} isLead={isLead} /> : findingSentence(f, units)}
        </p>
      ))}
      {gun.normal ? <p className="small-print">Not a fault: {gun.normal}.</p> : null}
    </section>
  )
}

function TagKey({ gun, tag }: { gun: GunAnswer; tag: TagLine }) {
  const untie = useTag()
  const text = TAG_TEXT[tag.tag]
  const parts = tag.parts.map((p) => p.code).join(', ')
  return (
    <div className="fit-tag">
      <p>
        <strong>{capital(text.says)}</strong>
        {parts ? `: ${parts}` : ''}{' '}
        <span className="dim">
          since {ago(tag.sinceMs, gun.nowMs)}
          {untilWords(tag, gun)}
        </span>
      </p>
      <Key
        size="low"
        disabled={untie.isPending}
        onClick={() => untie.mutate({ stationId: gun.stationId, tag: tag.tag, isBack: true })}
      >
        {capital(text.back)}
      </Key>
      <Trouble problem={untie.error} />
    </div>
  )
}

/** Till when it may hang there; past that, it is said so. */
function untilWords({ untilMs }: TagLine, { nowMs, zone }: GunAnswer): string {
  if (untilMs === null) return ''
  return untilMs < nowMs ? `, should have been back ${ago(untilMs, nowMs)} ago` : `, till ${when(untilMs, nowMs, zone)}`
}

const WORD = { stops: 'wrong', harms: 'look', note: '' } as const

/** The worst one's reason stands in the line above already. */
function FindingBlock(props: {
  gun: GunAnswer
  finding: FindingLine
  units: Units
  isLead: boolean
  isFirst: boolean
}) {
  const { gun, finding: f, units, isFirst } = props
  const [isKeeping, setKeeping] = useState(false)
  return (
    <article className={f.severity === 'stops' ? 'finding is-wrong' : 'finding'}>
      <p className="finding-head">
        <em>{WORD[f.severity]}</em> <strong>{capital(findingPlace(f))}.</strong> {findingSentence(f, units)}
      </p>
      {isFirst && f.severity === 'stops' ? null : <p className="dim">{findingWhy(f)}</p>}
      <div className="finding-keys">
        <RemedyKey gun={gun} finding={f} units={units} />
        {props.isLead ? (
          <Bare aria-expanded={isKeeping} onClick={() => setKeeping(!isKeeping)}>
            keep it so
          </Bare>
        ) : null}
      </div>
      {isKeeping ? <KeepForm gun={gun} finding={f} onDone={() => setKeeping(false)} /> : null}
    </article>
  )
}

/** One tap that says it is done: the part changed, the roll turned, the thing set. */
function RemedyKey({ gun, finding: f, units }: { gun: GunAnswer; finding: FindingLine; units: Units }) {
  const log = useLog()
  const set = useSet()
  const words = remedyWords(f, units)
  const stock = stockWords(f)
  const canChange = f.remedy.do === 'change' && f.put !== null
  const canSet = f.set.length > 0 && f.remedy.do !== 'change'
  if (!canChange && !canSet && f.remedy.do !== 'takeOut')
    return <p>{f.remedy.do === 'ask' ? '' : `${words}; ${stock}.`}</p>
  const act = (): Act | null => {
    const here = { stationId: gun.stationId, outReason: 'toTry' as const }
    if (f.remedy.do === 'takeOut') return { ...here, act: 'removed', position: f.remedy.kindKey }
    return f.put && f.remedy.do === 'change'
      ? { ...here, act: 'changed', position: f.remedy.kindKey, partId: f.put.partId }
      : null
  }
  const settings = () => {
    if (f.set.length > 0) set.mutate({ stationId: gun.stationId, how: 'set', settings: f.set })
  }
  const press = () => {
    const done = act()
    if (done) log.mutate({ key: newKey(), acts: [done] }, { onSuccess: settings })
    else settings()
  }
  return (
    <>
      <Key size="low" tone="chalk" disabled={log.isPending || set.isPending} onClick={press}>
        {DONE[f.remedy.do]} {lower(words)}
      </Key>
      {stock ? <span className="dim">{stock}</span> : null}
      <Trouble problem={log.error ?? set.error} />
    </>
  )
}
const DONE = { change: 'Done:', turn: 'Done:', set: 'Done:', takeOut: 'Done:', ask: '' } as const

function KeepForm({ gun, finding: f, onDone }: { gun: GunAnswer; finding: FindingLine; onDone: () => void }) {
  const keep = useKeep()
  const [note, setNote] = useState('')
  return (
    <form
      className="keep-form"
      onSubmit={(e) => {
        e.preventDefault()
        keep.mutate({ stationId: gun.stationId, rule: f.rule, at: f.at, isKept: true, note }, { onSuccess: onDone })
      }}
    >
      <label htmlFor={`keep-${f.rule}`}>Why it may stay</label>
      <Form.Control id={`keep-${f.rule}`} maxLength={200} value={note} onChange={(e) => setNote(e.target.value)} />
      <Button type="submit" variant="" disabled={keep.isPending}>
        Keep it so
      </Button>
      <Trouble problem={keep.error} />
    </form>
  )
}

function Kept(props: { gun: GunAnswer; finding: FindingLine; units: Units; isLead: boolean }) {
  const { gun, finding: f, units } = props
  const keep = useKeep()
  return (
    <>
      {findingSentence(f, units)} Kept so{f.kept?.by ? ` by ${f.kept.by}` : ''}
      {f.kept?.note ? `: ${f.kept.note}` : ''}.{' '}
      {props.isLead ? (
        <Bare onClick={() => keep.mutate({ stationId: gun.stationId, rule: f.rule, at: f.at, isKept: false })}>
          count it again
        </Bare>
      ) : null}
    </>
  )
}

/** Procedure, spool, rolls, liner, tip, polarity, machine as one verdict. */
function Chain({ gun }: { gun: GunAnswer }) {
  const known = gun.chain.filter((l) => l.is !== 'not told')
  const wrong = gun.chain.filter((l) => l.is === 'wrong')
  const isBuiltWrong = gun.findings.some((f) => f.severity === 'stops' && f.kept === null)
  const untold = gun.chain.filter((l) => l.is === 'not told').map((l) => l.link)
  if (known.length === 0)
    return (
      <p>
        Nobody has said what is on it. <Link to={`/look?area=${gun.areaId}&gun=${gun.stationId}`}>Look at it</Link>
      </p>
    )
  return (
    <p className="chain">
      {wrong.length > 0
        ? 'Does not belong together: '
        : isBuiltWrong
          ? 'These agree with each other: '
          : 'Belongs together: '}
      {known.map((l, i) => (
        <span key={l.link}>
          {i > 0 ? ' – ' : ''}
          <span className={l.is === 'wrong' ? 'chain-wrong' : ''}>{l.link}</span>
        </span>
      ))}
      {gun.procedureName ? <span className="dim"> ({gun.procedureName})</span> : null}
      {untold.length > 0 ? <span className="dim">; not told: {untold.join(', ')}</span> : null}.
    </p>
  )
}
