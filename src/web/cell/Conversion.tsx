import { useState } from 'react'
import { Link } from 'react-router'
import { compareWays } from '@core/cell/conversion.ts'
import { BOOSTERS, type Booster, type CellFit, type ConduitPiece, type PlanStep } from '@core/rightparts/facts.ts'
import { type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { useDrag } from '@web/drag/queries.ts'
import { type Units } from '@web/format/numbers.ts'
import { dayKey, shortDate } from '@web/format/times.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'
import { Pieces } from './CellForm.tsx'
import { planSentence, turnedSentences } from './conversionwords.ts'

interface Props {
  cell: CellLine
  at: CellsAnswer
  units: Units
  onDone: () => void
}

/** From spool to drum: planned with what it will ask of the rolls, done step by step, and held against how it was. */
export function Conversion(props: Props) {
  const { plan, drumSinceMs } = props.cell.cell
  if (plan) return <UnderWay {...props} />
  return drumSinceMs !== null && props.cell.turned ? <Since {...props} /> : <Planning {...props} />
}

const useKeep = (cell: CellLine) => {
  const save = useSave('/shop/station')
  const keep = (over: Partial<CellFit>, onSuccess?: () => void) =>
    save.mutate({ stationId: cell.stationId, except: { cell: { ...cell.cell, ...over } } }, { onSuccess })
  return { save, keep }
}

function Planning({ cell, at, units, onDone }: Props) {
  const [conduit, setConduit] = useState<ConduitPiece[]>(cell.cell.conduit ?? [])
  const [booster, setBooster] = useState<Booster | ''>(cell.cell.booster ?? '')
  const drag = useDrag(cell.stationId)
  const { save, keep } = useKeep(cell)
  return (
    <div className="cell-plan">
      <h2>From spool to drum</h2>
      <p>
        The lengths from where the drum will stand to the feeder, with the bends it will have there.{' '}
        <Link to="/spools">Whether a drum pays for the wire of this cell stands in Spools.</Link>
      </p>
      <Pieces pieces={conduit} units={units} onChange={setConduit} />
      <div className="cell-fields">
        <PickOne
          id="plan-booster"
          label="booster at the drum"
          none="not said"
          value={booster}
          options={BOOSTERS.map((b) => [b, b] as const)}
          onPick={setBooster}
        />
      </div>
      <p role="status">
        {conduit.length === 0 ? 'Name its lengths, and what it will ask of the rolls is told here.' : null}
        {conduit.length > 0 ? (
          <Will drag={drag.data} conduit={conduit} booster={booster || null} units={units} />
        ) : null}
      </p>
      <div className="cell-keys">
        <Key
          tone="chalk"
          disabled={conduit.length === 0 || save.isPending}
          onClick={() => keep({ plan: { booster: booster || null, conduit, sinceMs: at.nowMs, done: [] } })}
        >
          Plan it
        </Key>
      </div>
      <Bare onClick={onDone}>leave it</Bare>
      <Trouble problem={drag.error ?? save.error} />
    </div>
  )
}

function Will(props: { drag: DragAnswer | undefined; conduit: ConduitPiece[]; booster: Booster | null; units: Units }) {
  const { drag, conduit, booster, units } = props
  if (!drag) return 'Reckoning …'
  if (!drag.drag) return 'Which wire is on is not known: nothing can be told of its pull.'
  return planSentence(compareWays(drag.drag.setup, { payoff: 'drum', booster, conduit }), units)
}

/** What is done in which order; each is said by whoever did it. */
const STEPS: Record<PlanStep, { title: string; says: string }> = {
  before: {
    title: 'The numbers before',
    says: 'Pull through each length of the way as it is: tap it on the picture. Without them nobody can say later what it brought.',
  },
  hung: {
    title: 'Drum, hood and conduit',
    says: 'Drum lifted to its place by truck or crane, never by hand; hood on. Brackets anchored by whoever may drill there; the conduit hung without a bend more than planned, clear of what moves and of heat.',
  },
  threaded: { title: 'Threaded', says: 'A cap on the wire’s end, air eased on, the cap cut off at the feeder.' },
}
const ORDER = ['before', 'hung', 'threaded'] as const

function UnderWay({ cell, at, units, onDone }: Props) {
  const { save, keep } = useKeep(cell)
  const drag = useDrag(cell.stationId)
  const { plan } = cell.cell
  if (!plan) return null
  const toggle = (key: PlanStep) => {
    const done = plan.done.includes(key) ? plan.done.filter((k) => k !== key) : [...plan.done, key]
    keep({ plan: { ...plan, done } })
  }
  const { booster, conduit } = plan
  const runs = { payoff: 'drum' as const, booster, conduit, plan: null, drumSinceMs: at.nowMs }
  const isReady = ORDER.every((key) => plan.done.includes(key))
  return (
    <div className="cell-plan">
      <h2>From spool to drum, planned {shortDate(plan.sinceMs, at.zone)}</h2>
      <p>
        <Will drag={drag.data} conduit={conduit} booster={booster} units={units} />
      </p>
      <ol className="cell-steps" aria-label="From spool to drum">
        {ORDER.map((key) => (
          <li key={key}>
            <span>
              {STEPS[key].title} <small className="dim">{STEPS[key].says}</small>
              {key === 'threaded' ? (
                <small>
                  {' '}
                  <Link to={`/guide?gun=${cell.stationId}&do=wire`}>step by step</Link>
                </small>
              ) : null}
            </span>
            <Key aria-pressed={plan.done.includes(key)} disabled={save.isPending} onClick={() => toggle(key)}>
              {plan.done.includes(key) ? 'Done' : 'Not yet'}
            </Key>
          </li>
        ))}
      </ol>
      <div className="cell-keys">
        <Key tone={isReady ? 'chalk' : undefined} disabled={save.isPending} onClick={() => keep(runs, onDone)}>
          It runs from the drum
          {isReady ? null : <small>not all of it was said to be done</small>}
        </Key>
      </div>
      <p className="cell-more">
        <Bare onClick={() => keep({ plan: null }, onDone)}>give the plan up</Bare>
        <Bare onClick={onDone}>leave it</Bare>
      </p>
      <Trouble problem={save.error} />
    </div>
  )
}

function Since({ cell, at, units, onDone }: Props) {
  const sinceMs = cell.turned?.sinceMs ?? 0
  return (
    <div className="cell-plan">
      <h2>From a drum since {shortDate(sinceMs, at.zone)}</h2>
      {turnedSentences(cell, units).map((says) => (
        <p key={says}>{says}</p>
      ))}
      <p>
        <Link to={`/payback?change=day&day=${dayKey(sinceMs, at.zone)}`}>
          Whether stops became fewer since: Payback
        </Link>
      </p>
      <Bare onClick={onDone}>leave it</Bare>
    </div>
  )
}
