import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { type Units } from '@web/format/numbers.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { capital } from '@web/format/words.ts'
import { findingSentence } from '@web/rightparts/words.ts'
import { spareWords } from '@web/gunnow/sparewords.ts'
import { TracePicture } from '@web/down/Trace.tsx'
import { useFollowedUp } from '@web/guide/queries.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { newKey } from '@web/api/client.ts'
import { useLog } from '@web/log/queries.ts'
import { CellForm } from './CellForm.tsx'
import { centreWords, creepingSentence, heavierSentence, lengthsOf, todoOf } from './cellwords.ts'
import { PullForm } from './PullForm.tsx'
import { Conversion } from './Conversion.tsx'
import { Reamer } from './Reamer.tsx'
import { heatSentence, isHot } from './heatwords.ts'
import { failsSentence, isTankLow, tankSentence } from './reamerwords.ts'
import { useCrash, useNeckSwap } from './queries.ts'

interface Props {
  cell: CellLine
  at: CellsAnswer
  units: Units
  isLead: boolean
  piece: number | null
  onPiece: (piece: number | null) => void
}

type Doing = 'neck' | 'built' | 'reamer' | 'drum'
/** What is to be said of a drum: nothing where it always ran from one. */
function drumWords({ cell }: CellLine): string | null {
  if (cell.plan) return 'from spool to drum: planned'
  if (cell.drumSinceMs !== null) return 'since it runs from a drum'
  return cell.payoff === 'drum' ? null : 'from spool to drum'
}

/** One cell at the guard: made safe first, then what a crash left, the neck, and where the way got heavier. */
export function CellOpened(props: Props) {
  const { cell, units } = props
  const [doing, setDoing] = useState<Doing | null>(null)
  const length = lengthsOf(cell, units).find((l) => l.piece !== null && l.piece === props.piece)
  const done = () => setDoing(null)
  return (
    <div className="cell-opened">
      <p className="step-hazard">{cell.cell.lockOut ?? CAUTIONS.robot.words}</p>
      {cell.misfits.map((f) => (
        <p key={`${f.rule} ${f.at}`} className="cell-wrong">
          {findingSentence(f, units)}
        </p>
      ))}
      <Todo {...props} />
      <TracePicture stationId={cell.stationId} isDown={cell.isDown} units={units} />
      <Says {...props} />
      {length ? (
        <PullForm cell={cell} length={length} units={units} onDone={() => props.onPiece(null)} />
      ) : doing === 'neck' ? (
        <SwapNeck {...props} onDone={done} />
      ) : doing === 'built' ? (
        <CellForm cell={cell} others={props.at.cells} units={units} onDone={done} />
      ) : doing === 'drum' ? (
        <Conversion cell={cell} at={props.at} units={units} onDone={done} />
      ) : doing === 'reamer' ? (
        <Reamer cell={cell} at={props.at} units={units} onDone={done} />
      ) : (
        <Acts {...props} onDo={setDoing} />
      )}
    </div>
  )
}

/** What it tells of itself, a line each: what asks for hands first, what is as it should be dim. */
function Says({ cell, at, units }: Props) {
  const asks = [
    creepingSentence(cell, at),
    failsSentence(cell, at),
    heavierSentence(cell, units),
    isTankLow(cell, at.nowMs) ? tankSentence(cell, at, units) : '',
    isHot(cell) ? heatSentence(cell) : '',
  ].filter(Boolean)
  const rests = [centreWords(cell, units), isHot(cell) ? '' : heatSentence(cell)].filter(Boolean)
  return (
    <ul className="cell-says">
      {asks.map((says) => (
        <li key={says}>{says}</li>
      ))}
      {rests.map((says) => (
        <li key={says} className="dim">
          {says}
        </li>
      ))}
    </ul>
  )
}

/** What is open, tool centre first: each is one tap, the centre a number. */
function Todo({ cell }: Props) {
  const followed = useFollowedUp()
  const log = useLog()
  const go = useNavigate()
  const open = todoOf(cell)
  const isCentred = !open.some((t) => t.task === 'toolCentre')
  return (
    <>
      {open.length > 0 ? (
        <ol className="cell-steps" aria-label="To do before production">
          {open.map((t) => (
            <li key={t.task}>
              <span>
                {FOLLOW_UP_TEXT[t.task].do} <span className="dim">{t.why}</span>
                {t.task === 'toolCentre' ? <small className="dim cell-teach">{CAUTIONS.teach.words}</small> : null}
              </span>
              {t.task === 'toolCentre' ? (
                <Key tone="chalk" onClick={() => void go(`/read?gun=${cell.stationId}&what=toolCentre&back=cells`)}>
                  Read it
                </Key>
              ) : (
                <Key
                  disabled={followed.isPending}
                  onClick={() => followed.mutate({ stationId: cell.stationId, task: t.task })}
                >
                  {capital(FOLLOW_UP_TEXT[t.task].done)}
                </Key>
              )}
            </li>
          ))}
        </ol>
      ) : null}
      {cell.isDown ? (
        <div className="cell-keys">
          <Key
            tone={isCentred ? 'chalk' : undefined}
            disabled={log.isPending}
            onClick={() => log.mutate({ key: newKey(), acts: [{ stationId: cell.stationId, act: 'running' }] })}
          >
            It welds again
            {isCentred ? null : <small>its tool centre was not checked</small>}
          </Key>
          <Link className="key" to={`/down?gun=${cell.stationId}`}>
            What first?
          </Link>
        </div>
      ) : null}
      <Trouble problem={followed.error ?? log.error} />
    </>
  )
}

function Acts({ cell, isLead, onDo }: Props & { onDo: (what: Doing) => void }) {
  const crash = useCrash()
  return (
    <>
      <div className="cell-keys">
        <Key disabled={crash.isPending} onClick={() => crash.mutate({ stationId: cell.stationId })}>
          It hit something
        </Key>
        {cell.goesRound ? <Key onClick={() => onDo('neck')}>Another neck on</Key> : null}
      </div>
      <p className="cell-more">
        <Bare onClick={() => onDo('reamer')}>reamer, cutter, sprayer</Bare>
        {isLead ? <Bare onClick={() => onDo('built')}>how this cell is built</Bare> : null}
        {isLead || cell.turned ? drumWords(cell) && <Bare onClick={() => onDo('drum')}>{drumWords(cell)}</Bare> : null}
        <Link to={`/gun/${cell.stationId}`}>the gun</Link>
        <Link to={`/drag?gun=${cell.stationId}`}>its drag</Link>
      </p>
      <Trouble problem={crash.error} />
    </>
  )
}

/** Which neck goes on, right ones first; what becomes of the old one. */
function SwapNeck({ cell, at, units, onDone }: Props & { onDone: () => void }) {
  const swap = useNeckSwap()
  const [oldNeck, setOld] = useState<'ready' | 'toRefurbish'>('toRefurbish')
  const elsewhere = at.cells.filter(
    (c) => c.neckId !== null && c.stationId !== cell.stationId && c.familyName === cell.familyName,
  )
  const put = (neckId: string, isFromElsewhere = false) =>
    swap.mutate({ stationId: cell.stationId, neckId, oldNeck, isFromElsewhere }, { onSuccess: onDone })
  return (
    <div className="cell-swap">
      {cell.neckName ? (
        <p>
          {cell.neckName} comes off and is{' '}
          <Bare
            aria-pressed={oldNeck === 'ready'}
            onClick={() => setOld(oldNeck === 'ready' ? 'toRefurbish' : 'ready')}
          >
            {oldNeck === 'ready' ? 'still good: ready' : 'to mend'}
          </Bare>
          .{' '}
          {cell.keepsCentre
            ? 'Its seat keeps the tool centre; look that it is clean and home.'
            : 'The tool centre is checked afterwards.'}
        </p>
      ) : (
        <p>Nobody has said which neck hangs here.</p>
      )}
      <div className="cell-keys">
        {cell.ready.map((n) => (
          <Key
            key={n.neckId}
            tone={n.verdict.is === 'right' ? 'chalk' : undefined}
            disabled={n.verdict.is === 'never' || swap.isPending}
            onClick={() => put(n.neckId)}
          >
            {n.name} on
            <small>{spareWords(n.verdict, units)}</small>
          </Key>
        ))}
        {elsewhere.map((c) => (
          <Key key={c.stationId} size="low" disabled={swap.isPending} onClick={() => put(c.neckId ?? '', true)}>
            {c.neckName}, from {c.name}
            <small>then nobody knows which neck {c.name} has</small>
          </Key>
        ))}
      </div>
      {cell.ready.length === 0 ? (
        <p>No neck lies ready. A lead names spare necks below; the bench says when they are ready.</p>
      ) : null}
      <Bare onClick={onDone}>leave it</Bare>
      <Trouble problem={swap.error} />
    </div>
  )
}
